import type { RootsOfTree } from '$views/roots/roots-of-tree';
import { liftEnds } from '$core/replant/lifting/ends';
import { isEvidence, type Fact } from '$core/tree/fact';
import { liftsDone } from '$core/tree/losses';
import { looksSeen } from '$core/tree/looks';
import type { LayoutLoad } from './$types';

const measuredOnly = (fact: Fact<number>): number | null => (isEvidence(fact.known) ? fact.value : null);

export const load: LayoutLoad = async ({ parent, data }) => {
	const { records, kind, place, values, today, flags, stands } = await parent();
	const of: RootsOfTree | null = place && {
		tree: records.tree,
		kind,
		place,
		values,
		today,
		rootMap: records.rootMap,
		plan: records.plan,
		observations: looksSeen(records, values),
		flags,
		liftLeft: liftsDone(records, values)
			.filter((lift) => lift.on <= (records.rootMap?.mappedOn ?? today))
			.reduce((left, { kept }) => left * kept.share, 1),
		referenceShootMm: data.referenceShootMm,
		ball: { widthMm: measuredOnly(stands.ballWidthMm), depthMm: measuredOnly(stands.ballDepthMm) },
		ends: records.lifts.flatMap(({ log }) => (log ? liftEnds(log, records.rootMap, values) : [])),
		tiltDone:
			stands.tiltDeg.value === null || stands.tiltDeg.on === null
				? null
				: { deg: stands.tiltDeg.value, on: stands.tiltDeg.on },
		permission: stands.permission.value ?? records.tree.permission,
		buds: stands.buds,
		nightC: data.nightC,
		pictures: records.pictures,
		mates: data.mates
	};
	return { ...data, of };
};
