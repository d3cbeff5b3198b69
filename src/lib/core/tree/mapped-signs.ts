import { girdlerGrade } from '../examine/measuring/girdling';
import { deadRootsGrade } from '../examine/measuring/root-sample';
import { addDays } from '../maths/calendar';
import { girdlingOf } from '../roots/map/contact';
import { rootShares } from '../roots/map/shares';
import { claimOf } from '../roots/plan/claims';
import type { Values } from '../values/values';
import { signApplies, type SignId } from '../vocabulary/signs';
import type { Finding } from '../examine/diagnosis/finding';
import type { TreeRecords } from './case';
import { rootsGone } from './losses';

/**
 * What the map of its roots shows as signs, of roots that nobody has cut since: what girdles and what circles as long as it is there; dead,
 * rotten and torn roots as long as a measurement counts. A root of which nothing was noted says nothing: it may never have been looked
 * at for that, and unknown is not good.
 * @param on calendar date
 */
export function signsMapped(
	{ rootMap, plan, tree }: Pick<TreeRecords, 'rootMap' | 'plan' | 'tree'>,
	on: string,
	values: Values
): Finding[] {
	if (!rootMap || rootMap.mappedOn > on) return [];
	const cuts = plan?.cuts.filter(({ state, doneOn }) => state === 'done' && (doneOn ?? on) <= on) ?? [];
	const gone = new Set(rootsGone({ rootMap, plan: plan && { ...plan, cuts } }, values));
	const claims = new Map(rootMap.segments.map((one) => [one.id, claimOf(one, rootMap, values)]));
	// A cut beyond where the trouble begins leaves it there.
	const cutOff = (id: string): boolean =>
		cuts.some((cut) => cut.segmentId === id && cut.atMm <= (claims.get(id)?.fromMm ?? Infinity));
	const left = rootMap.segments.filter(({ id }) => !gone.has(id) && !cutOff(id));
	const claimed = (kind: 'girdling' | 'circling'): typeof left =>
		left.filter(({ id }) => claims.get(id)?.kind === kind);
	const signs: [SignId, number][] = [];
	const girdlers = claimed('girdling');
	if (girdlers.length > 0)
		signs.push([
			'girdler-seen',
			girdlerGrade(Math.max(...girdlers.map((one) => girdlingOf(one, rootMap, values).contactShare)))
		]);
	if (claimed('circling').length >= values['diagnosis.mapped-circling'] * Math.max(1, left.length))
		signs.push(['solid-mat', 1]);
	if (rootMap.mappedOn >= addDays(on, -Math.round(values['diagnosis.measured-days']))) {
		const dead = deadRootsGrade(rootShares(left, values).deadShare, values);
		if (dead > 0) signs.push(['roots-dead-share', dead]);
		if (left.some(({ flaws }) => flaws.includes('rotten'))) signs.push(['roots-dark-soft', 1]);
		if (left.some(({ flaws }) => flaws.includes('torn'))) signs.push(['torn-roots', 1]);
	}
	return signs
		.filter(([signId]) => signApplies(signId, tree.situation))
		.map(([signId, grade]) => ({ signId, grade, measuredBy: rootMap.id }));
}

/**
 * Since when the girdling roots of the map go in stages: some are cut, and each that is left is planned where that frees the trunk. What
 * waits for its stage was acted on as far as the tree allows.
 * @returns day of the last cut; null where none was cut yet, or one that is left is in no stage
 */
export function girdlersStaged(
	{ rootMap, plan }: Pick<TreeRecords, 'rootMap' | 'plan'>,
	values: Values
): string | null {
	if (!rootMap || !plan) return null;
	const girdlers = rootMap.segments.flatMap((one) => {
		const claim = claimOf(one, rootMap, values);
		return claim?.kind === 'girdling' ? [{ id: one.id, fromMm: claim.fromMm }] : [];
	});
	const freeing = (state: 'done' | 'planned') =>
		girdlers.filter(({ id, fromMm }) =>
			plan.cuts.some((cut) => cut.state === state && cut.segmentId === id && cut.atMm <= fromMm)
		);
	const [done, planned] = [freeing('done'), freeing('planned')];
	if (done.length === 0 || done.length + planned.length < girdlers.length) return null;
	return (
		plan.cuts
			.flatMap((cut) => (cut.state === 'done' && cut.doneOn !== null ? [cut.doneOn] : []))
			.sort()
			.at(-1) ?? null
	);
}
