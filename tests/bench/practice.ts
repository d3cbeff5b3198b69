import { percent } from '$core/text/percent';
import { judged } from '$core/practice/judged';
import { playRound } from '$core/practice/played';
import { practiceTree } from '$core/practice/practice-tree';
import { practiceWish } from '$core/practice/round';
import {
	advisedPolicy,
	advisedWay,
	bestWay,
	firstSignWay,
	policyWay,
	type Policy
} from '$core/practice/ways';
import { defaultValues } from '$core/values/values';

const TREES = 500;

/** Practice: whether who follows advice comes out near the best, who acts on the first sign does not, and how long a step takes. */
export function practiceRows() {
	const others: Policy[] = [
		{ ...advisedPolicy, does: { actFrom: 0.25, waits: true } },
		{ ...advisedPolicy, does: { actFrom: 0.4, waits: true } },
		{ ...advisedPolicy, lookDays: [0, 28] }
	];
	const worth = { advised: 0, first: 0, knowing: 0 };
	const policies = others.map(() => 0);
	for (let i = 0; i < TREES; i++) {
		const tree = practiceTree(practiceWish.parse({ seed: 50_000 + i }), defaultValues);
		worth.advised += advisedWay(tree).end.worth / TREES;
		worth.first += firstSignWay(tree).end.worth / TREES;
		worth.knowing += bestWay(tree).end.worth / TREES;
		others.forEach((policy, p) => {
			policies[p] = (policies[p] ?? 0) + policyWay(tree, policy).end.worth / TREES;
		});
	}
	const best = Math.max(worth.advised, ...policies);
	const tree = practiceTree(practiceWish.parse({ seed: 5107 }), defaultValues);
	const times = [100, 200, 364].map((day) => {
		const began = performance.now();
		playRound(tree, [], day);
		return performance.now() - began;
	});
	const began = performance.now();
	judged(tree, advisedWay(tree).acts, percent);
	const judging = performance.now() - began;
	return [
		{
			what: `practice: advice against the best of ${others.length + 1} policies that see no more (${TREES} trees)`,
			measured: `${((100 * worth.advised) / best).toFixed(1)} %`,
			budget: 'at least 95 %',
			holds: worth.advised >= 0.95 * best
		},
		{
			what: 'practice: the first sign against advice',
			measured: `${((100 * worth.first) / worth.advised).toFixed(1)} %`,
			budget: 'under 95 %',
			holds: worth.first < 0.95 * worth.advised
		},
		{
			what: 'practice: advice against one who knows what ails it',
			measured: `${((100 * worth.advised) / worth.knowing).toFixed(1)} %`,
			budget: 'none',
			holds: true
		},
		{
			what: 'practice: a step at the end of a year',
			measured: `${Math.round(Math.max(...times))} ms`,
			budget: '150 ms',
			holds: Math.max(...times) <= 150
		},
		{
			what: 'practice: judging a round',
			measured: `${Math.round(judging)} ms`,
			budget: '1500 ms',
			holds: judging <= 1500
		}
	];
}
