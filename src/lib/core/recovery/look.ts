import type { Kind } from '../vocabulary/kind';
import type { Tree } from '../take-in/tree';
import { daysBetween } from '../maths/calendar';
import type { Values } from '../values/values';
import { readingsOf, woodFell, type Observation } from '../examine/looks/observation';

/** What a look can ask for. */
export const lookParts = [
	'buds',
	'leafState',
	'leafCover',
	'shoots',
	'dieback',
	'firmness',
	'weight',
	'smell',
	'whiteTips',
	'rootsAtEdge',
	'woundwood',
	'pests',
	'suckers',
	'lot'
] as const;
export type LookPart = (typeof lookParts)[number];

export interface LookQuestion {
	part: LookPart;
	/** Why now, in a few words. */
	why: string;
}

export interface LookFacts {
	today: string;
	sinceOn: string;
	/** First day of the season that runs or ran last; null where it never grows. */
	seasonBeganOn: string | null;
	kind: Pick<Kind, 'group'>;
	tree: Pick<Tree, 'situation' | 'plantCount'>;
	/** Share of the season that is over; 0 outside it. */
	progress: number;
	/** The season runs, or begins within six weeks. */
	nearSeason: boolean;
	evergreen: boolean;
	observations: readonly Observation[];
	/** Any root cut is on record: there is a wound whose edge can close. */
	wounded: boolean;
	rotWasCut: boolean;
	structuralCut: boolean;
	/** Work that waits for what is seen. */
	waits: readonly string[];
	suckersSeen: boolean;
	pestsSeen: boolean;
}

/**
 * What matters on this tree now, in the order of a walk round it: at most some seven things, so that a look takes under two
 * minutes. Everything else can be added, nothing is asked without a reason.
 */
export function lookQuestions(facts: LookFacts, values: Values): LookQuestion[] {
	const { observations, today, sinceOn, progress, evergreen, tree } = facts;
	const since = observations.filter((look) => look.observedOn >= sinceOn);
	const lastOf = (has: (look: Observation) => boolean): number => {
		const found = since.findLast(has);
		return found ? daysBetween(found.observedOn, today) : Infinity;
	};
	const days = daysBetween(sinceOn, today);
	const asked: (LookQuestion & { rank: number })[] = [];
	const ask = (part: LookPart, why: string, rank: number): void => {
		asked.push({ part, why, rank });
	};
	// Last year’s buds say nothing of this year’s.
	const budsOpen = since.some(
		(look) => look.buds === 'open' && look.observedOn >= (facts.seasonBeganOn ?? sinceOn)
	);
	const waits = new Set(facts.waits);

	if (tree.plantCount > 1) ask('lot', 'a lot: look at some, count the dead', 1);
	if (
		(!evergreen && progress < values['look.budsUntil'] && !budsOpen && facts.nearSeason) ||
		waits.has('buds-move')
	)
		ask('buds', waits.has('buds-move') ? 'work waits for them' : 'their time', 1);
	if (evergreen || progress > values['look.leavesFrom']) {
		ask('leafState', 'the first to tell of water and roots', 1);
		ask('leafCover', 'read against what was expected', waits.has('leaves-out') ? 1 : 2);
	}
	if (
		progress > values['look.shootsFrom'] &&
		lastOf((look) => look.shootExtensionMm !== null) >= values['look.again.shoots']
	)
		ask(
			'shoots',
			waits.has('flush-hardened') ? 'feeding waits for the flush to harden' : 'growth of this season',
			2
		);
	const limits = readingsOf(since, 'diebackLimitMm');
	const [limitBefore, limitNow] = limits.slice(-2);
	const falling =
		limitBefore !== undefined &&
		limitNow !== undefined &&
		woodFell(limitBefore.value, limitNow.value, values);
	if (limits.length === 0 && days > values['look.routineDays'])
		ask('dieback', 'never measured since the work', 2);
	else if (falling) ask('dieback', 'it fell at the last look', 1);
	else if (
		limits.length > 0 &&
		lastOf((look) => look.diebackLimitMm !== null) >= values['look.again.dieback']
	)
		ask('dieback', limits.length === 1 ? 'one look is no limit' : 'two looks make a limit', 3);
	if (
		tree.situation !== 'in-ground' &&
		lastOf((look) => look.weightKg !== null) >= values['look.again.weight']
	)
		ask('weight', 'tells what the roots drink', 3);
	if (facts.rotWasCut && lastOf((look) => look.smell !== null) >= values['look.again.smell'])
		ask('smell', 'rot was cut', 1);
	if (lastOf((look) => look.firmness !== null) >= values['look.again.firmness'])
		ask(
			'firmness',
			facts.structuralCut ? 'a structural root was cut' : 'a loose tree tears its roots',
			facts.structuralCut ? 1 : 3
		);
	if (
		tree.situation !== 'in-ground' &&
		days > values['look.edgeAfterDays'] &&
		!since.some((look) => look.rootsAtEdge === true)
	)
		ask('rootsAtEdge', 'a criterion of the verdict', 3);
	if (
		progress > values['look.tipsFrom'] &&
		lastOf((look) => look.whiteTips !== null) >= values['look.again.whiteTips'] &&
		tree.situation !== 'in-ground'
	)
		ask('whiteTips', 'at the holes, without unpotting', 4);
	if (facts.pestsSeen) ask('pests', 'seen at the last look', 2);
	if (facts.suckersSeen) ask('suckers', 'seen before', 4);
	if (
		facts.wounded &&
		days > values['look.again.woundwood'] &&
		lastOf((look) => look.woundwoodMm !== null) >= values['look.again.woundwood']
	)
		ask('woundwood', 'once a season', 5);
	const kept = asked.sort((a, b) => a.rank - b.rank).slice(0, values['look.most']);
	return lookParts.flatMap((part) => {
		const found = kept.find((question) => question.part === part);
		return found ? [{ part, why: found.why }] : [];
	});
}
