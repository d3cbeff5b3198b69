import { judged } from '$core/practice/judged';
import { playRound } from '$core/practice/played';
import { practiceTree } from '$core/practice/practice-tree';
import { practiceActs, type PracticeAct } from '$core/practice/round';
import { setCases } from '$core/practice/set-cases';
import { advisedWay } from '$core/practice/ways';
import { percent } from '$core/text/percent';
import { actingAs, newId } from '$lib/server/acting';
import type { Store } from '$lib/server/db/database';
import { practiceRound } from '$lib/server/db/schema';
import { practiceValues } from '$lib/server/practice/rounds';

/** Rounds of somebody at Tarn Hollow who learns: one tree drowned, the same one saved, and a harder one. */
export async function makeDemoPractice(store: Store): Promise<void> {
	const says = (conditionId: 'drought' | 'sour-root-zone' | 'root-rot', chance: number): PracticeAct => ({
		day: 0,
		what: 'say',
		chances: [{ conditionId, chance }]
	});
	const daily: PracticeAct = {
		day: 0,
		what: 'care',
		rule: { water: 'every-days', everyDays: 1, covers: true }
	};
	const rounds: { number: number; startedAt: string; say: PracticeAct; acts: PracticeAct[] | null }[] = [
		{
			number: 2,
			startedAt: '2026-04-02T18:20:00.000Z',
			say: says('drought', 0.6),
			acts: [{ day: 0, what: 'check', signId: 'sticky-leaves' }, daily]
		},
		{ number: 2, startedAt: '2026-04-02T18:55:00.000Z', say: says('sour-root-zone', 0.7), acts: null },
		{ number: 8, startedAt: '2026-04-09T19:10:00.000Z', say: says('root-rot', 0.8), acts: null }
	];
	for (const { number, startedAt, say, acts: own } of rounds) {
		const set = setCases.find((one) => one.number === number);
		if (!set) throw new Error(`There is no case ${number}.`);
		const tree = practiceTree(set.wish, practiceValues);
		const acts = practiceActs.parse([say, ...(own ?? advisedWay(tree).acts)].sort((a, b) => a.day - b.day));
		const { diedOn } = playRound(tree, acts, tree.days);
		await actingAs({ id: `practice-${startedAt}`, at: startedAt, today: startedAt.slice(0, 10) }, null, () =>
			store.write(
				async (tx) =>
					void (await tx.insert(practiceRound).values({
						id: newId(),
						byId: null,
						trainee: 'Rae',
						wish: set.wish,
						setCase: number,
						treeId: newId(),
						startedAt,
						endedAt: startedAt.replace(/:..:/, ':59:'),
						day: diedOn ?? tree.days,
						acts: acts.filter((act) => act.day <= (diedOn ?? tree.days)),
						judged: judged(tree, acts, percent)
					}))
			)
		);
	}
}
