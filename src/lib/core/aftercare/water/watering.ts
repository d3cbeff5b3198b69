import { wordsOf } from '../../vocabulary/words-of';
import { z } from 'zod';
import { calendarDate, id, measure, note, oneOf, version } from '../../vocabulary/fields';
import type { WeighingPair } from './root-function';

export const wateringWayNames = {
	'all-round': 'slowly, over the whole surface',
	'from-below': 'soaked from below',
	twice: 'twice, ten minutes apart',
	sparingly: 'sparingly, round the roots only',
	reservoir: 'into its reservoir, what it drew'
};
export type WateringWay = keyof typeof wateringWayNames;
export const wateringWays = wordsOf(wateringWayNames);
/** Ways in which a pot alone can be watered: the ground is soaked from nowhere but above. */
const POT_ALONE: ReadonlySet<WateringWay> = new Set(['from-below', 'reservoir']);
/** Ways in which it can be watered where it stands, and the one that was written. */
export const wateringWaysFor = (inPot: boolean, written: WateringWay | null = null): readonly WateringWay[] =>
	wateringWays.filter((way) => inPot || way === written || !POT_ALONE.has(way));

/** Water for one tree at one time: a street tree takes hundreds of litres. */
export const pouredL = () => measure(0, 5000, 'L');

/** One watering; weights before and after are what tells how much the roots drink. */
export const wateringInput = z
	.strictObject({
		wateredOn: calendarDate(),
		litres: pouredL().nullable().default(null).describe('Poured; null when not measured'),
		ranOutL: measure(0, 500, 'L').nullable().default(null),
		beforeKg: measure(0.01, 5000, 'kg').nullable().default(null),
		afterKg: measure(0.01, 5000, 'kg').nullable().default(null).describe('When nothing drips any more'),
		way: oneOf(wateringWays).default('all-round'),
		note: note(300)
	})
	.refine(
		(watering) =>
			watering.ranOutL === null || (watering.litres !== null && watering.ranOutL <= watering.litres),
		{
			path: ['ranOutL'],
			error: 'must not be more than was poured'
		}
	)
	.refine(
		(watering) =>
			watering.beforeKg === null || watering.afterKg === null || watering.afterKg >= watering.beforeKg,
		{ path: ['afterKg'], error: 'must not be less than before the water' }
	);
export type WateringInput = z.infer<typeof wateringInput>;
export const wateringSchema = wateringInput.safeExtend({ id: id(), version: version() });
export type Watering = z.infer<typeof wateringSchema>;

/**
 * Pairs of weighings with no water between: after one watering, before the next; and single weighings between two waterings.
 * What is out of order or gained weight is left out: rain or a lost entry explains it, not the roots.
 * @param weighings other weighings of the pot by day
 */
export function weighingPairs(
	waterings: readonly Watering[],
	weighings: readonly { on: string; kg: number; wateredOn?: string; fullKg?: number }[]
): WeighingPair[] {
	const sorted = [...waterings].sort((a, b) => a.wateredOn.localeCompare(b.wateredOn));
	const pairs: WeighingPair[] = [];
	type Weighed = { on: string; kg: number };
	/** @param full after the water before */
	const add = (before: Weighed, after: Weighed, full: Weighed): void => {
		if (after.on > before.on && before.kg >= after.kg)
			pairs.push({
				from: before.on,
				to: after.on,
				lossKg: before.kg - after.kg,
				fullOn: full.on,
				lostKg: Math.max(0, full.kg - before.kg)
			});
	};
	for (const [i, watering] of sorted.entries()) {
		if (watering.afterKg === null) continue;
		const next = sorted[i + 1];
		const between = weighings
			.filter((one) => one.on > watering.wateredOn && (next === undefined || one.on < next.wateredOn))
			.sort((a, b) => a.on.localeCompare(b.on));
		const full: Weighed = { on: watering.wateredOn, kg: watering.afterKg };
		let last = full;
		for (const one of between) {
			add(last, one, full);
			last = one;
		}
		if (next && next.beforeKg !== null) add(last, { on: next.wateredOn, kg: next.beforeKg }, full);
	}
	for (const one of weighings)
		if (
			one.wateredOn !== undefined &&
			one.fullKg !== undefined &&
			!sorted.some((watering) => watering.wateredOn === one.wateredOn && watering.afterKg !== null)
		) {
			const full = { on: one.wateredOn, kg: one.fullKg };
			add(full, one, full);
		}
	return pairs.sort((a, b) => (a.to < b.to ? -1 : a.to > b.to ? 1 : 0));
}

/**
 * Share that usually runs out, learned from what was measured; the wanted share where nothing was.
 * @param usual the wanted share of what is poured, 0 … 1
 */
export function outflowLearned(waterings: readonly Watering[], usual: number): number {
	const measured = waterings.flatMap(({ litres, ranOutL }) =>
		litres !== null && ranOutL !== null && litres > 0 ? [ranOutL / litres] : []
	);
	const recent = measured.slice(-5);
	return recent.length === 0 ? usual : recent.reduce((sum, share) => sum + share, 0) / recent.length;
}
