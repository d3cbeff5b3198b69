import type { RootsOfTree } from '$views/roots/roots-of-tree';
import { looksSeen } from '$core/standing/looks';
import type { LayoutLoad } from './$types';

export const load: LayoutLoad = async ({ parent, data }) => {
	const { records, kind, place, values, today } = await parent();
	const of: RootsOfTree | null = place && {
		tree: records.tree,
		kind,
		place,
		values,
		today,
		rootMap: records.rootMap,
		plan: records.plan,
		observations: looksSeen(records, values),
		referenceShootMm: data.referenceShootMm,
		mates: data.mates
	};
	return { ...data, of };
};
