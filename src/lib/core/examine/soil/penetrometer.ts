import { wordsOf } from '../../vocabulary/words-of';
import { z } from 'zod';
import { count, measure, oneOf } from '../../vocabulary/fields';
import type { Values } from '../../values/values';

/** Most readings kept; a file that holds more is averaged by depth before it is kept. */
export const READINGS_LIMIT = 4000;

export const penetrometerReading = z.strictObject({
	position: count(1, 200).describe('Where the rod went in, numbered from 1'),
	depthMm: measure(0, 2000, 'mm'),
	resistanceMpa: measure(0, 15, 'MPa'),
	/** Readings averaged into this one. */
	readings: count(1, 1_000_000).default(1)
});
export type PenetrometerReading = z.infer<typeof penetrometerReading>;

export const moistures = ['dry', 'field', 'wet'] as const;
export const moistureNames: Record<(typeof moistures)[number], string> = {
	dry: 'dry, dusty',
	field: 'field-moist',
	wet: 'wet'
};
const readingSources = ['typed', 'file', 'simulated'] as const;

export const penetrometerData = z.strictObject({
	source: oneOf(readingSources).default('typed'),
	moisture: oneOf(moistures).default('field'),
	readings: z
		.array(penetrometerReading)
		.min(1, { error: 'must hold at least one reading' })
		.max(READINGS_LIMIT, { error: `must be at most ${READINGS_LIMIT} readings` })
});

export const hardnessNames = {
	open: 'roots grow freely',
	slow: 'roots slow sharply',
	stops: 'hardly any root grows'
};
export type Hardness = keyof typeof hardnessNames;
export const hardnesses = wordsOf(hardnessNames);

export const depthBandOutput = z.object({
	fromMm: z.number(),
	toMm: z.number(),
	meanMpa: z.number(),
	leastMpa: z.number(),
	mostMpa: z.number(),
	readings: z.number(),
	hardness: z.enum(hardnesses)
});
export type DepthBand = z.infer<typeof depthBandOutput>;

export const resistanceProfileOutput = z.object({
	positions: z.number(),
	bands: z.array(depthBandOutput),
	slowFromMm: z
		.number()
		.nullable()
		.describe('Upper edge of the first band where roots slow, and where they stop; null where none does'),
	stopsFromMm: z.number().nullable(),
	openAgainMm: z
		.number()
		.nullable()
		.describe(
			'Lower edge of the hard soil that begins at `slowFromMm`; null when the profile ends in it or there is none'
		),
	worst: depthBandOutput.nullable().describe('The hardest band'),
	gaps: z
		.array(z.object({ fromMm: z.number(), toMm: z.number() }))
		.describe('Depths between the first and the last reading that nobody measured')
});
export type ResistanceProfile = z.infer<typeof resistanceProfileOutput>;

const BAND_MM = 50;

/**
 * Resistance by depth over all positions, judged against the limits for roots.
 * @param readings of any number of positions, in any order
 * @returns bands of 50 mm from the surface down; a reading at 100 mm belongs to the band 100–150
 */
export function resistanceProfile(
	readings: readonly PenetrometerReading[],
	values: Values
): ResistanceProfile {
	const byBand = new Map<number, PenetrometerReading[]>();
	for (const reading of readings) {
		const band = Math.floor(reading.depthMm / BAND_MM);
		const list = byBand.get(band);
		if (list) list.push(reading);
		else byBand.set(band, [reading]);
	}
	const bands = [...byBand]
		.sort(([a], [b]) => a - b)
		.map(([band, list]): DepthBand => {
			const weight = list.reduce((sum, reading) => sum + reading.readings, 0);
			const meanMpa =
				list.reduce((sum, reading) => sum + reading.resistanceMpa * reading.readings, 0) / weight;
			return {
				fromMm: band * BAND_MM,
				toMm: (band + 1) * BAND_MM,
				meanMpa,
				leastMpa: list.reduce((least, reading) => Math.min(least, reading.resistanceMpa), Infinity),
				mostMpa: list.reduce((most, reading) => Math.max(most, reading.resistanceMpa), 0),
				readings: weight,
				hardness: hardnessOf(meanMpa, values)
			};
		});
	const hard = bands.findIndex((band) => band.hardness !== 'open');
	const open = hard < 0 ? -1 : bands.findIndex((band, i) => i > hard && band.hardness === 'open');
	return {
		positions: new Set(readings.map((reading) => reading.position)).size,
		bands,
		slowFromMm: bands[hard]?.fromMm ?? null,
		stopsFromMm: bands.find((band) => band.hardness === 'stops')?.fromMm ?? null,
		openAgainMm: bands[open]?.fromMm ?? null,
		worst: bands.reduce<DepthBand | null>(
			(worst, band) => (worst && worst.meanMpa >= band.meanMpa ? worst : band),
			null
		),
		gaps: bands.slice(1).flatMap((band, i) => {
			const before = bands[i]?.toMm ?? 0;
			return band.fromMm > before ? [{ fromMm: before, toMm: band.fromMm }] : [];
		})
	};
}

/** What a resistance means to roots. */
export const hardnessOf = (resistanceMpa: number, values: Values): Hardness =>
	resistanceMpa > values['soil.resistance-stop']
		? 'stops'
		: resistanceMpa > values['soil.resistance-slow']
			? 'slow'
			: 'open';

/** Averages readings of one position within steps of 10 mm, so that a logged file stays small. */
export function thinned(readings: readonly PenetrometerReading[]): PenetrometerReading[] {
	const steps = new Map<string, { position: number; depthMm: number; sum: number; readings: number }>();
	for (const { position, depthMm, resistanceMpa, readings: weight } of readings) {
		const step = Math.round(depthMm / 10) * 10;
		const key = `${position}@${step}`;
		const entry = steps.get(key) ?? { position, depthMm: step, sum: 0, readings: 0 };
		entry.sum += resistanceMpa * weight;
		entry.readings += weight;
		steps.set(key, entry);
	}
	return [...steps.values()]
		.sort((a, b) => a.position - b.position || a.depthMm - b.depthMm)
		.map(({ position, depthMm, sum, readings: weight }) => ({
			position,
			depthMm,
			resistanceMpa: Math.round((sum / weight) * 1000) / 1000,
			readings: weight
		}));
}
