import { livedTrees, rehearse } from '$core/rehearse/rehearse';
import { strongestOther } from '$core/rehearse/propose';
import { defaultValues } from '$core/values/values';
import { planOf, sceneOf } from '../rehearsal';

/** Playing plans forward: how long it takes, and how well single trees end as was rehearsed. */
export function rehearsalRows() {
	const scene = sceneOf({
		rotChance: 0.3,
		airlessChance: 0.2,
		stages: [{ on: '2026-04-20', share: 0.3, rot: 1, girdles: 0 }]
	});
	const plans = [
		planOf(),
		planOf({ name: 'Half', roots: 'half-now' }),
		planOf({ name: 'Wait', roots: 'wait' }),
		planOf({ name: 'Calendar', water: 'every-days', everyDays: 7 })
	];
	const seconds = (work: () => unknown): number => {
		const began = performance.now();
		work();
		return (performance.now() - began) / 1000;
	};
	// The search for the strongest other plan goes before it on the page too.
	const other = seconds(() => strongestOther(scene, planOf(), {}, defaultValues));
	const four = [0, 1, 2]
		.map(() => seconds(() => rehearse(scene, plans, {}, defaultValues)))
		.sort((a, b) => a - b)[1];
	let worst = 0;
	for (const plan of [plans[0], plans[3]]) {
		if (!plan) continue;
		const [outcome] = rehearse(scene, [plan], {}, defaultValues).outcomes;
		const lived = livedTrees(scene, plan, { count: 2000, seed: 11 }, defaultValues);
		for (const of of ['alive', 'stands', 'established'] as const) {
			const share = lived.reduce((sum, tree) => sum + tree[of], 0) / lived.length;
			worst = Math.max(worst, Math.abs(share - (outcome?.end[of] ?? 0)));
		}
	}
	return [
		{
			what: 'rehearsal: four plans, 405 futures, two years',
			measured: `${(four ?? 0).toFixed(1)} s`,
			budget: '3 s',
			holds: (four ?? 9) <= 3
		},
		{
			what: 'rehearsal: the strongest other plan looked for',
			measured: `${other.toFixed(1)} s`,
			budget: 'none',
			holds: true
		},
		{
			what: 'rehearsal: 2,000 single trees end as rehearsed, farthest off',
			measured: `${(100 * worst).toFixed(1)} points`,
			budget: '3 points',
			holds: worst <= 0.03
		}
	];
}
