import { z } from 'zod';
import { actNow, actNowOutput, standingToday, type ActNow, type StandingToday } from './act-now';
import { conditionIds, conditionOf, contradiction, type ConditionId } from '../../vocabulary/conditions';
import { diagnosisContext, type DiagnosisContext } from './context';
import { diagnosisPosterior, oddsOf, type Diagnosis } from './diagnose';
import { findingsSchema, type Finding } from './finding';
import { answersOf, entropyBits, harmToday } from './next-check';
import { sumsOf } from './enumerate';
import { signIds, signOf, signShows, type SignId } from '../../vocabulary/signs';
import { leakOf, strengthOf, worldFactor, worldShows } from '../../values/diagnosis';
import type { Values } from '../../values/values';

export const adviceInput = diagnosisContext.extend({ findings: findingsSchema, standing: standingToday });

const conditionId = z.enum(conditionIds as [ConditionId, ...ConditionId[]]);
const signId = z.enum(signIds as [SignId, ...SignId[]]);
export const adviceOutput = z.object({
	causes: z
		.array(
			z.object({
				conditionId,
				chance: z.number().describe('Chance of the cause, 0 to 1'),
				verdict: z
					.enum(['now', 'check', 'held', 'window', 'look'])
					.describe(
						'Act now · a quick check comes first · its treatment contradicts that of a likelier cause · wait for the window · not likely enough yet'
					),
				check: signId.nullable().describe('The sign to look for before acting'),
				heldBy: conditionId.nullable().describe('The likelier cause whose treatment it contradicts'),
				about: z.string().nullable().describe('About what they contradict'),
				raised: z.boolean().describe('Whether anything found on this tree speaks for it'),
				act: actNowOutput
			})
		)
		.describe('In the order of the diagnosis'),
	danger: z.array(z.string()).describe('Danger to people, to be said before anything else')
});
export interface CauseAdvice {
	conditionId: ConditionId;
	chance: number;
	verdict: 'now' | 'check' | 'held' | 'window' | 'look';
	check: SignId | null;
	heldBy: ConditionId | null;
	about: string | null;
	raised: boolean;
	act: ActNow;
}
export interface Advice {
	causes: CauseAdvice[];
	danger: string[];
}

const opposite = { wet: 'dry', dry: 'wet', tight: 'roomy', roomy: 'tight' } as const;

/** A quick, harmless check whose answer may turn what is done about a cause; the one that tells most a minute. */
function checkBefore(
	cause: { index: number; id: ConditionId; threshold: number },
	context: DiagnosisContext,
	findings: readonly Pick<Finding, 'signId' | 'grade'>[],
	standing: StandingToday,
	values: Values
): SignId | null {
	const asked = new Set(findings.map((finding) => finding.signId));
	const done = new Set(findings.map((finding) => signOf(finding.signId).procedure));
	const speaks = (sign: SignId): boolean => {
		if (strengthOf(values, sign, cause.id) > 2 * leakOf(values, sign)) return true;
		// Or it shows a world in which the cause is rare.
		return (['wet', 'dry', 'tight', 'roomy'] as const).some(
			(part) =>
				worldFactor(values, cause.id, part) < values['diagnosis.rare-world'] &&
				worldShows(values, sign, opposite[part]) < values['diagnosis.rare-world']
		);
	};
	const quick = signIds.filter(
		(sign) =>
			!asked.has(sign) &&
			signShows(sign, context, findings) &&
			speaks(sign) &&
			values[`diagnosis.minutes.${sign}`] <= values['diagnosis.quick-minutes'] &&
			harmToday(signOf(sign).procedure, done, context.situation, standing, values) <=
				values['diagnosis.quick-harm']
	);
	if (quick.length === 0) return null;
	const result = diagnosisPosterior(context, findings, values);
	const whole = sumsOf(result);
	let best: { sign: SignId; worth: number } | null = null;
	const now = result.chances[cause.index] ?? 0;
	// Work at the roots is not begun on what is likelier not so, while a minute may tell.
	const unsure = conditionOf(cause.id).atRoots && now < values['diagnosis.likely'] && !standing.failingFast;
	for (const sign of quick) {
		const answers = answersOf(result, whole, sign, values);
		const turns = answers
			.filter((answer) => (answer.chances[cause.index] ?? 0) < cause.threshold)
			.reduce((sum, answer) => sum + answer.probability, 0);
		const bits = answers.reduce(
			(drop, answer) => drop - answer.probability * entropyBits(answer.chances[cause.index] ?? 0),
			entropyBits(now)
		);
		if (turns < values['diagnosis.quick-turns'] && !(unsure && bits >= values['diagnosis.quick-bits']))
			continue;
		const worth = bits / values[`diagnosis.minutes.${sign}`];
		if (!best || worth > best.worth) best = { sign, worth };
	}
	return best?.sign ?? null;
}

/**
 * What to do about each cause: act now, make a quick check first, hold it back, wait for the window, or look further [our own].
 * - Nothing is acted on that this tree's own findings did not make likelier than it usually is.
 * - A check of a few minutes whose answer may well turn the matter comes before the work: what it may save is worth more.
 * - Of two treatments that contradict only that of the likelier cause stands; the other says which holds it back.
 */
export function advise(
	diagnosis: Diagnosis,
	context: DiagnosisContext,
	findings: readonly Pick<Finding, 'signId' | 'grade'>[],
	standing: StandingToday,
	values: Values
): Advice {
	const causes = diagnosis.ranking.map((cause): CauseAdvice => {
		const { conditionId, chance } = cause;
		const { untreatable, danger } = conditionOf(conditionId);
		const act = actNow(conditionId, chance, standing, values);
		const raised = oddsOf(chance) >= values['diagnosis.raised'] * oddsOf(cause.prior);
		let verdict: CauseAdvice['verdict'] = act.verdict;
		let check: SignId | null = null;
		if (untreatable || (!raised && verdict !== 'look')) verdict = 'look';
		if (verdict === 'now' && !danger) {
			check = checkBefore(
				{ index: conditionIds.indexOf(conditionId), id: conditionId, threshold: act.threshold },
				context,
				findings,
				standing,
				values
			);
			if (check) verdict = 'check';
		}
		return { conditionId, chance, verdict, check, heldBy: null, about: null, raised, act };
	});
	// The likelier cause keeps its treatment; ranking is by chance.
	for (const [at, later] of causes.entries()) {
		const before = causes
			.slice(0, at)
			.find(
				(earlier) =>
					!earlier.heldBy && earlier.raised && contradiction(earlier.conditionId, later.conditionId) !== null
			);
		if (!before) continue;
		later.heldBy = before.conditionId;
		later.about = contradiction(before.conditionId, later.conditionId);
		if (later.verdict === 'now' || later.verdict === 'check') {
			later.verdict = 'held';
			later.check = null;
		}
	}
	return {
		causes,
		danger: causes.flatMap(({ conditionId, raised, chance }) => {
			const { danger } = conditionOf(conditionId);
			return danger && raised && chance >= values['diagnosis.danger-from'] ? [danger] : [];
		})
	};
}
