import type { DecisionFacts } from '../recovery/decisions';
import type { RecoveryCase } from '../recovery/forecast';
import type { recoverySince } from './recovery-case';
import type { SeasonPoint } from '../recovery/season';
import type { SeasonGrowth } from '../recovery/shoot-growth';
import type { Verdict } from '../recovery/verdict';

/** Everything that Recovery judges by: the case for the forecast, the facts for decisions, the verdict. */
export interface RecoveryOf {
	case: RecoveryCase;
	facts: Omit<DecisionFacts, 'probability'>;
	verdict: Verdict;
	season: SeasonPoint;
	/** Shoots of each season against its warmth, newest first. */
	growth: SeasonGrowth[];
	/** The season runs, or begins within six weeks. */
	nearSeason: boolean;
	since: ReturnType<typeof recoverySince>;
}
