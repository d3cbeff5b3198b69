import { measured } from '../text/measured';
import type { TreeRecords } from './case';
import { wetMassKg } from '../replant/pots/wet-mass';
import { ofThePot, potWeights } from './shared-pot';
import type { WateringInput } from '../aftercare/water/watering';
import type { Values } from '../values/values';

/** What a pot is known to weigh about: as it was last weighed since it was planted, else as it is reckoned from its sizes. */
export function aboutKg(
	own: Pick<TreeRecords, 'mates' | 'plantings' | 'waterings' | 'observations' | 'measurements'>,
	on: string,
	exceptId: string | null,
	values: Values
): { kg: number; how: string; weighed: boolean } | null {
	const records = ofThePot(own);
	const planting = records.plantings.filter((one) => one.plantedOn <= on).at(-1);
	const since = planting?.plantedOn ?? '';
	const weighed = [
		...records.waterings
			.filter((one) => one.id !== exceptId)
			.map((one) => ({ on: one.wateredOn, kg: one.afterKg ?? one.beforeKg })),
		...potWeights(records).filter((one) => one.id !== exceptId),
		...records.measurements.flatMap((one) =>
			one.raw.tool === 'weighing' ? [{ on: one.measuredOn, kg: one.raw.nowKg }] : []
		)
	]
		.flatMap((one) =>
			one.kg !== null && one.on >= since && one.on <= on ? [{ on: one.on, kg: one.kg }] : []
		)
		.sort((a, b) => a.on.localeCompare(b.on))
		.at(-1);
	if (weighed) return { kg: weighed.kg, how: `it weighed on ${weighed.on}`, weighed: true };
	if (!planting || planting.assumed?.includes('pot')) return null;
	const kg = wetMassKg({ ...planting, moundMm: planting.seat?.moundMm ?? 0 }, values);
	return { kg, how: 'its pot holds, wet', weighed: false };
}

/**
 * Whether its pot is too heavy to be lifted on a scale, as far as its sizes are known; one that was weighed as it stands is not.
 * @param on calendar date
 */
export function tooHeavyToWeigh(own: Parameters<typeof aboutKg>[0], on: string, values: Values): boolean {
	const about = aboutKg(own, on, null, values);
	return about !== null && !about.weighed && about.kg > values['water.weighedUpToKg'];
}

/**
 * A weight so far from what the pot is known to weigh that it is asked for again; taken when its note says why.
 * @param kg what the scale showed
 * @returns what to say of it; null where nothing speaks against it
 */
export function unlikelyKg(
	kg: number,
	about: { kg: number; how: string } | null,
	values: Values
): string | null {
	const times = values['water.weightTimes'];
	if (!about || (kg <= about.kg * times && kg * times >= about.kg)) return null;
	return `is far from the ${measured(about.kg < 10 ? Math.round(about.kg * 10) / 10 : Math.round(about.kg), 'kg')} that ${about.how}; check it, or say in the note why`;
}

/**
 * A pot that took up more by its weights than was poured and stayed, beyond what can and scale are off: one of the numbers is not so, or
 * rain came in between. Taken when its note says why.
 * @returns what to say of the weight after; null where nothing speaks against it
 */
export function unlikelyGain(
	{ litres, ranOutL, beforeKg, afterKg }: Pick<WateringInput, 'litres' | 'ranOutL' | 'beforeKg' | 'afterKg'>,
	values: Values
): string | null {
	if (beforeKg === null || afterKg === null) return null;
	const times = values['water.weightTimes'];
	if (afterKg >= beforeKg * times)
		return `is ${Math.floor(afterKg / beforeKg)} times what it weighed before; check them, or say in the note why`;
	if (litres === null) return null;
	const stayedL = litres - (ranOutL ?? 0);
	const off = Math.max(values['look.readingError'] * litres, values['water.weightOffKg']);
	if (afterKg - beforeKg - stayedL <= off) return null;
	const gained = measured(Math.round((afterKg - beforeKg) * 10) / 10, 'kg');
	return `is ${gained} more than before, and ${measured(Math.round(stayedL * 10) / 10, 'L')} of what was poured stayed; check them, or say in the note why`;
}

/**
 * The most water that a pot is known to hold by its weights, L: what a watering added, and what it lost from one after water to the next before.
 * @param records of the pot (see `ofThePot`)
 * @param sinceOn since when it stands so
 * @returns 0 where nobody weighed it twice
 */
export function tookUpL(
	{ waterings, measurements }: Pick<TreeRecords, 'waterings' | 'measurements'>,
	sinceOn: string
): number {
	const since = waterings.filter(({ wateredOn }) => wateredOn >= sinceOn);
	return Math.max(
		0,
		...since.flatMap(({ beforeKg, afterKg }) =>
			beforeKg === null || afterKg === null ? [] : [afterKg - beforeKg]
		),
		...since.flatMap(({ afterKg }, at) => {
			const beforeKg = since[at + 1]?.beforeKg ?? null;
			return beforeKg === null || afterKg === null ? [] : [afterKg - beforeKg];
		}),
		...measurements.flatMap(({ raw }) =>
			raw.tool === 'weighing' && raw.wateredOn >= sinceOn ? [raw.fullKg - raw.nowKg] : []
		)
	);
}
