import { addDays, daysBetween, within, type Span } from '../maths/calendar';
import { usualEt0Mm } from '../climate/evapotranspiration';
import { inLeafAt } from '../climate/leaf';
import type { Place } from '../vocabulary/place';
import { bearsAlways, isTender, type Kind } from '../vocabulary/kind';
import { expectedOn, expectedRootFunction } from '../recovery/expected';
import type { TreeRecords } from './case';
import type { SeenLook } from '../examine/looks/observation';
import { looksSeen } from './looks';
import { rootLosses, type LossRecords } from './losses';
import type { Values } from '../values/values';

/** What drives the demand of a tree on a day. */
export interface TreeDemand {
	et0Mm: number;
	inLeaf: boolean;
	/** Root function expected from what was cut, 0 … 1. */
	rootFunction: number;
}

/** Tells of any day whether a kind bears leaves at a place. */
export const leafCalendar = (kind: Kind, place: Place, values: Values): ((on: string) => boolean) =>
	inLeafAt({ tender: isTender(kind), evergreen: bearsAlways(kind) }, place, values);

type LeafRecords = Pick<TreeRecords, 'kind' | 'observations' | 'examinations' | 'measurements'>;

/** Whether a look saw leaves; null where it did not say. */
const sawLeaves = ({ leafCover, buds }: Pick<SeenLook, 'leafCover' | 'buds'>): boolean | null =>
	leafCover !== null ? leafCover > 0 : buds === 'open' ? true : buds !== null ? false : null;

/**
 * Tells of any day whether a tree bears leaves: as its kind does at its place, but not while it was seen bare. Early in its season a
 * look that finds buds which are not open holds back to the beginning of it, and some days on, until one sees leaves; after that, and later
 * in the season, buds tell nothing of it, only a crown without leaves does.
 */
export function leavesBorne(records: LeafRecords, place: Place, values: Values): (on: string) => boolean {
	const usual = leafCalendar(records.kind, place, values);
	if (bearsAlways(records.kind)) return usual;
	const bare: Span[] = [];
	let seasonOn = '';
	let leafy = false;
	for (const look of looksSeen(records, values, ['leafCover', 'buds'])) {
		const leaves = sawLeaves(look);
		if (leaves === null || !usual(look.observedOn)) continue;
		let from = look.observedOn;
		for (let day = 0; day < 365 && usual(addDays(from, -1)); day++) from = addDays(from, -1);
		if (from > seasonOn) [seasonOn, leafy] = [look.observedOn, false];
		const before = bare.at(-1);
		if (leaves) {
			// They end what was reckoned on from the bare look before.
			if (before && before.to >= look.observedOn) before.to = addDays(look.observedOn, -1);
			leafy = true;
			continue;
		}
		const notYet = !leafy && daysBetween(from, look.observedOn) <= values['water.bareBackDays'];
		// Closed buds late in a season are those of the next.
		if (notYet || look.leafCover === 0)
			bare.push({
				from: notYet ? from : look.observedOn,
				to: addDays(look.observedOn, values['water.bareDays'])
			});
	}
	return (on) => usual(on) && !bare.some((span) => within(on, span));
}

/** Demand of a tree at a place on a day: usual ET₀ there, whether it is in leaf, and the roots it drinks with. */
export function treeDemand(
	records: LossRecords & LeafRecords,
	place: Place,
	on: string,
	values: Values
): TreeDemand {
	const { found, done } = rootLosses(records, values);
	const losses = [...found, ...done].filter((loss) => loss.share > 0 && loss.on <= on);
	const first = losses.map((loss) => loss.on).sort()[0];
	const points = first
		? expectedRootFunction(losses, place, { from: first, to: addDays(on, 1), stepDays: 1 }, values)
		: [];
	return {
		et0Mm: usualEt0Mm(place, on, values),
		inLeaf: leavesBorne(records, place, values)(on),
		rootFunction: expectedOn(points, on)?.expected ?? 1
	};
}
