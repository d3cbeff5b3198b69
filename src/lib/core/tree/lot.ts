import type { TreeRecords } from './case';

/**
 * How many of a lot live, by the last count of its dead; of one tree, one. Where all were counted dead it is no lot to work on any more, and
 * as many as were taken in are told.
 * @returns plants, 1 or more
 */
export function aliveOf({
	tree,
	observations
}: {
	tree: Pick<TreeRecords['tree'], 'plantCount'>;
	observations: readonly Pick<TreeRecords['observations'][number], 'lostCount'>[];
}): number {
	const dead = observations.findLast((look) => look.lostCount !== null)?.lostCount ?? 0;
	return dead < tree.plantCount ? tree.plantCount - dead : tree.plantCount;
}
