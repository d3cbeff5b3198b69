import { median } from 'simple-statistics';
import { z } from 'zod';
import { calendarDate, measure, shortText } from '../../vocabulary/fields';
import { daysBetween } from '../../maths/calendar';
import type { Values } from '../../values/values';

const kilograms = () => measure(0.01, 5000, 'kg');

export const weighingData = z
	.strictObject({
		wateredOn: calendarDate().describe('Day all of them were last watered through'),
		fullKg: kilograms().describe('An hour after water, when nothing drips'),
		nowKg: kilograms(),
		dryKg: kilograms()
			.nullable()
			.default(null)
			.describe('When it was as dry as it may get; null when never weighed'),
		neighbours: z
			.array(z.strictObject({ name: shortText(60), fullKg: kilograms(), nowKg: kilograms() }))
			.max(20, { error: 'must be at most 20 neighbours' })
			.default([])
	})
	.refine((weighing) => weighing.dryKg === null || weighing.dryKg < weighing.fullKg, {
		path: ['dryKg'],
		error: 'must be less than the full weight'
	});
export type WeighingData = z.infer<typeof weighingData>;

export const weighingOutput = z.object({
	dryness: z
		.number()
		.nullable()
		.describe('0 just watered, 1 as dry as it may get; null without a dry weight. May pass 1'),
	days: z.number(),
	lossKg: z.number(),
	againstNeighbours: z
		.number()
		.nullable()
		.describe(
			'Its loss by weight set against the median of its neighbours; null when they have lost too little to compare'
		),
	staysWetGrade: z.number().nullable(),
	light: z.boolean().nullable(),
	driesFast: z.boolean().nullable()
});
export type WeighingResult = z.infer<typeof weighingOutput>;

/**
 * Dryness of a pot by weight, and whether it drinks as its neighbours do. Losses are compared as shares of the full
 * weight, so that pots of different size can stand beside each other [our own].
 * @param on day of the weighing
 */
export function weighPot(weighing: WeighingData, on: string, values: Values): WeighingResult {
	const { fullKg, nowKg, dryKg, neighbours, wateredOn } = weighing;
	const lossKg = fullKg - nowKg;
	const dryness = dryKg === null ? null : lossKg / (fullKg - dryKg);
	const days = daysBetween(wateredOn, on);
	const losses = neighbours.map((pot) => (pot.fullKg - pot.nowKg) / pot.fullKg);
	const theirs = losses.length > 0 ? median(losses) : 0;
	const comparable = neighbours.length >= 2 && theirs >= values['measuring.neighbour-loss'];
	const againstNeighbours = comparable ? lossKg / fullKg / theirs : null;
	const light = dryness === null ? null : dryness >= values['measuring.light-pot'];
	return {
		dryness,
		days,
		lossKg,
		againstNeighbours,
		staysWetGrade:
			againstNeighbours === null
				? null
				: againstNeighbours < values['measuring.hardly-drinks']
					? 2
					: againstNeighbours < values['measuring.slow-drinker']
						? 1
						: 0,
		light,
		driesFast: light === null || days <= 0 ? null : light && days <= values['measuring.dries-fast-days']
	};
}
