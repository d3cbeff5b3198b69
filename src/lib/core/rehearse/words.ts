import { chanceSaid } from '../text/percent';
import { causeNames } from '../recovery/rehearsal/kept';
import type { Values } from '../values/values';
import type { Apart } from './apart';
import { unknownNames, type FindingOut } from './finding-out';
import type { PlanOutcome, Rehearsal } from './rehearse';

const quoted = (outcome: PlanOutcome | undefined): string => `“${outcome?.plan.name ?? ''}”`;
/** Of a hundred futures, so that it is counted and not reckoned. */
const ofHundred = (share: number): string => {
	const count = Math.round(share * 100);
	return share > 0 && count === 0 ? 'fewer than one' : String(count);
};

/** The pair of two plans, whichever was named first. */
function pairOf(
	pairs: readonly Apart[],
	a: number,
	b: number
): { better: number; worse: number; differ: boolean } {
	const pair = pairs.find((one) => (one.a === a && one.b === b) || (one.a === b && one.b === a));
	if (!pair) return { better: 0, worse: 0, differ: false };
	return {
		better: pair.a === a ? pair.aBetter : pair.bBetter,
		worse: pair.a === a ? pair.bBetter : pair.aBetter,
		differ: pair.differ
	};
}

/** What a rehearsal says of its plans: which is best, how sure that is, and against each other one. */
export function orderWords({ outcomes, order, pairs }: Rehearsal): { headline: string; against: string[] } {
	const [best, ...others] = order;
	if (best === undefined) return { headline: '', against: [] };
	const name = quoted(outcomes[best]);
	if (others.length === 0)
		return { headline: `${name}: set another plan beside it to see what it is worth.`, against: [] };
	const alike = others.filter((other) => !pairOf(pairs, best, other).differ);
	const headline =
		alike.length === others.length
			? 'These plans do not differ beyond chance: choose by what they ask of you.'
			: alike.length > 0
				? `${name} and ${alike.map((one) => quoted(outcomes[one])).join(', ')} come out best; between them there is no difference beyond chance.`
				: `${name} comes out best.`;
	return {
		headline,
		against: others.map((other) => {
			const { better, worse, differ } = pairOf(pairs, best, other);
			const counted = `Against ${quoted(outcomes[other])}: better in ${ofHundred(better)} of 100 futures, worse in ${ofHundred(worse)}, in the others they come to the same`;
			return differ ? `${counted}.` : `${counted}. That is no difference beyond chance.`;
		})
	};
}

/** Causes of death that are worth telling, with the day from which each shows. */
export const diesWords = (
	{ dies }: Pick<PlanOutcome, 'dies'>,
	values: Values
): { what: string; chance: number; showsOn: string | null }[] =>
	dies
		.filter((one) => one.chance >= values['rehearse.diesLeast'])
		.map(({ cause, chance, showsOn }) => ({ what: causeNames[cause], chance, showsOn }));

/** What to find out before choosing, in sentences. */
export const findingWords = ({ finding, outcomes }: Pick<Rehearsal, 'finding' | 'outcomes'>): string[] =>
	finding.map((one) => findingSentence(one, outcomes));

function findingSentence(
	{ what, worth, wouldChoose, check }: FindingOut,
	outcomes: readonly PlanOutcome[]
): string {
	const chosen = [...new Set(wouldChoose)].map((index) => quoted(outcomes[index]));
	return `${check}: ${unknownNames[what]} decides between ${chosen.join(' and ')}. Knowing it is worth ${chanceSaid(worth)} of chance.`;
}
