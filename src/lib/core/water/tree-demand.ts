import type { TreeRecords } from '../case/case';
import { addDays, within, yearOf } from '../climate/calendar';
import { usualEt0Mm } from '../climate/evapotranspiration';
import { growingSeason } from '../climate/normals';
import type { Place } from '../climate/place';
import { isTender, type Kind } from '../kinds/kind';
import { expectedOn, expectedRootFunction } from '../recovery/expected';
import { rootLosses } from '../roots/work';
import type { Values } from '../values/values';

/** What drives the demand of a tree on a day. */
export interface TreeDemand {
	et0Mm: number;
	inLeaf: boolean;
	/** Root function expected from what was cut, 0 … 1. */
	rootFunction: number;
}

/** True when a kind bears leaves at a place on a day: evergreens always, deciduous kinds in their season. */
export function bearsLeaves(kind: Kind, place: Place, on: string, values: Values): boolean {
	if (kind.group !== 'deciduous') return true;
	return [yearOf(on) - 1, yearOf(on)].some((year) => {
		const season = growingSeason(place, isTender(kind), year, values);
		return season !== null && within(on, season);
	});
}

/** Demand of a tree at a place on a day: usual ET₀ there, whether it is in leaf, and the roots it drinks with. */
export function treeDemand(
	records: Pick<TreeRecords, 'tree' | 'kind' | 'places' | 'rootMap' | 'plan'>,
	place: Place,
	on: string,
	values: Values
): TreeDemand {
	const { found, done } = rootLosses(records, values);
	const losses = [...found, ...done].filter((loss) => loss.share > 0 && loss.on <= on);
	const first = losses.map((loss) => loss.on).sort()[0];
	const points = first
		? expectedRootFunction(losses, place, isTender(records.kind), first, addDays(on, 1), values, 1)
		: [];
	return {
		et0Mm: usualEt0Mm(place, on, values),
		inLeaf: bearsLeaves(records.kind, place, on, values),
		rootFunction: expectedOn(points, on)?.expected ?? 1
	};
}
