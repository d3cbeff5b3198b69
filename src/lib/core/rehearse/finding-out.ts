import { z } from 'zod';
import { probit } from 'simple-statistics';
import type { Values } from '../values/values';
import { wordsOf } from '../vocabulary/words-of';

/** What is not known of a tree and could be found out. */
export const unknownNames = {
	rot: 'whether it has rot',
	air: 'whether its mix still lets air in',
	roots: 'how many roots it has',
	standing: 'how well it stands',
	demand: 'how fast its pot dries',
	holds: 'how much its mix holds'
} as const;
export type Unknown = keyof typeof unknownNames;

/** What finding out is worth before a plan is chosen. */
export const findingOutOutput = z.object({
	what: z.enum(wordsOf(unknownNames as Record<Unknown, string>)),
	worth: z.number().describe('gain in what the best plan is worth, in chance, 0 to 1'),
	wouldChoose: z
		.array(z.number().describe('index of the plan, from 0'))
		.describe('Plans that would be chosen by the answer, the least answer first'),
	check: z.string().describe('The check that finds it out')
});
export type FindingOut = z.infer<typeof findingOutOutput>;

const checks: Record<Unknown, { potted: string; ground: string }> = {
	rot: {
		potted: 'Take it out of the pot and look at its roots',
		ground: 'Open its collar and look at its roots'
	},
	air: {
		potted: 'Squeeze a handful of its mix, and pour through it with a watch in hand',
		ground: 'Dig a hole a spade deep and look for water'
	},
	roots: {
		potted: 'Weigh it after water and again before the next',
		ground: 'Lay a quarter of its collar open and count its roots'
	},
	standing: {
		potted: 'Scratch twigs from the top down, and look at its buds',
		ground: 'Scratch twigs from the top down, and look at its buds'
	},
	demand: {
		potted: 'Write down the days on which it is dry enough to water',
		ground: 'Probe its soil for two weeks without rain'
	},
	holds: {
		potted: 'Pour through a measured amount and catch what runs out',
		ground: 'Feel the texture of its soil'
	}
};

/** What is not known, of one future. */
export interface Hidden {
	rot: boolean;
	airless: boolean;
	rootsZ: number;
	standing: number;
	demand: number;
	holds: number;
}

/**
 * What each unknown is worth finding out: the best that can be chosen with the answer less the best without (Raiffa & Schlaifer 1961).
 * Of every answer the plan is chosen by one half of the futures and judged by the other, so that luck is not taken for knowledge.
 * @param hidden what was not known, by future
 * @param worth by plan, then by future
 * @returns those that are worth it, the most first
 */
export function findingOut(
	hidden: readonly Hidden[],
	worth: readonly (readonly number[])[],
	{
		known,
		potted,
		spreads
	}: { known: { rot: boolean }; potted: boolean; spreads: { demand: number; holds: number } },
	values: Values
): FindingOut[] {
	if (worth.length < 2) return [];
	const answers: Record<Unknown, (one: Hidden) => number> = {
		rot: (one) => (one.rot ? 1 : 0),
		air: (one) => (one.airless ? 1 : 0),
		roots: (one) => third(one.rootsZ),
		standing: (one) => third(one.standing),
		demand: (one) => third(Math.log(one.demand) / Math.max(1e-9, spreads.demand)),
		holds: (one) => third(Math.log(one.holds) / Math.max(1e-9, spreads.holds))
	};
	return (Object.keys(answers) as Unknown[])
		.filter((what) => !(what === 'rot' && known.rot) && !(what === 'air' && !potted))
		.flatMap((what) => {
			const groups = new Map<number, number[]>();
			hidden.forEach((one, i) => {
				const answer = answers[what](one);
				groups.set(answer, [...(groups.get(answer) ?? []), i]);
			});
			if (groups.size < 2) return [];
			let gain = 0;
			const sorted = [...groups].sort(([a], [b]) => a - b);
			const all = hidden.map((_, i) => i);
			for (const [, futures] of sorted)
				for (const half of [0, 1]) {
					const told = futures.filter((i) => i % 2 === half);
					const judged = futures.filter((i) => i % 2 !== half);
					const without = best(
						worth,
						all.filter((i) => i % 2 === half)
					);
					const withAnswer = best(worth, told);
					for (const i of judged)
						gain += ((worth[withAnswer]?.[i] ?? 0) - (worth[without]?.[i] ?? 0)) / hidden.length;
				}
			const wouldChoose = sorted.map(([, futures]) => best(worth, futures));
			const changes = new Set(wouldChoose).size > 1;
			return gain >= values['rehearse.findsLeast'] && changes
				? [{ what, worth: gain, wouldChoose, check: checks[what][potted ? 'potted' : 'ground'] }]
				: [];
		})
		.sort((a, b) => b.worth - a.worth);
}

/** Deviations between which a third of a normal spread lies. */
const THIRD = probit(2 / 3);
/** A deviation as low, middle or high, a third each. */
const third = (z: number): number => (z < -THIRD ? 0 : z > THIRD ? 2 : 1);

/** The plan that is worth most in the mean over some futures. */
function best(worth: readonly (readonly number[])[], futures: readonly number[]): number {
	const means = worth.map((of) => futures.reduce((sum, i) => sum + (of[i] ?? 0), 0));
	return means.indexOf(Math.max(...means));
}
