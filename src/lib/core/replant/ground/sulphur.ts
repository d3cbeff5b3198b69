import { z } from 'zod';
import { addDays } from '../../maths/calendar';
import type { Texture } from '../../vocabulary/textures';
import type { Values } from '../../values/values';

export const sulphurSoils = ['sand', 'loam', 'clay'] as const;
export type SulphurSoil = (typeof sulphurSoils)[number];

/**
 * Elemental sulphur to reach pH 4.5, lb per 100 ft²: from pH, on sand, loam and clay.
 * @see Oregon State University Extension, acidifying soil for acid-loving crops [table from memory]
 */
const rows: readonly (readonly [number, Record<SulphurSoil, number>])[] = [
	[4.5, { sand: 0, loam: 0, clay: 0 }],
	[5, { sand: 0.4, loam: 1.2, clay: 1.4 }],
	[5.5, { sand: 0.8, loam: 2.4, clay: 2.6 }],
	[6, { sand: 1.2, loam: 3.5, clay: 3.7 }],
	[6.5, { sand: 1.5, loam: 4.6, clay: 4.8 }],
	[7, { sand: 1.9, loam: 5.8, clay: 6 }]
];
/** lb per 100 ft² as g/m². */
const G_M2 = 453.59237 / 9.290304;

/** The soil of the table of doses that is nearest to a texture. */
export const sulphurSoilOf = (texture: Texture): SulphurSoil =>
	texture === 'sand' || texture === 'loamy-sand'
		? 'sand'
		: texture === 'clay' || texture === 'silty-clay' || texture === 'sandy-clay'
			? 'clay'
			: 'loam';

/** Sulphur from a pH down to 4.5, g/m²; straight lines between the rows. @param ph 4.5 … 7 */
function toLowest(ph: number, soil: SulphurSoil): number {
	for (const [i, [upper, dose]] of rows.entries()) {
		const [lower, before] = rows[i - 1] ?? [upper, dose];
		if (ph > upper) continue;
		const t = upper === lower ? 0 : (ph - lower) / (upper - lower);
		return (before[soil] + t * (dose[soil] - before[soil])) * G_M2;
	}
	return (rows.at(-1)?.[1][soil] ?? 0) * G_M2;
}

/** What vinegar on a dry pinch of soil does: lime fizzes. */
export const carbonateTests = ['fizzes', 'quiet'] as const;
export type CarbonateTest = (typeof carbonateTests)[number];

export const sulphurDoseOutput = z.object({
	gPerM2: z.number(),
	totalKg: z.number(),
	inTable: z
		.boolean()
		.describe('False where the soil is above pH 7, where the table ends: lime goes on eating sulphur'),
	note: z
		.string()
		.describe('What has to be found out first, and why no dose is named; empty where there is one'),
	doses: z
		.array(z.object({ on: z.string(), kg: z.number(), retestOn: z.string().nullable() }))
		.describe('Equal doses, each no more than may go on at once')
});
export type SulphurDose = z.infer<typeof sulphurDoseOutput>;

/**
 * Elemental sulphur to bring soil from one pH to another, split over time with a retest before each further dose. What is
 * still needed after a retest is worked out anew from that pH.
 * Above pH 7 the table ends: while lime is there it eats the sulphur first, so no dose is named until a test for it is quiet, and then
 * only the part from pH 7 on, which is the least.
 * @param phAim 4.5 … 7, below `phNow`; nothing is needed otherwise
 * @param carbonate what vinegar on dry soil did; null while nobody tried
 * @example loam from 6.0 to 4.5: 3.5 lb per 100 ft² = 171 g/m²
 */
export function sulphurDose(
	{
		phNow,
		phAim,
		soil,
		areaM2,
		startOn,
		carbonate = null
	}: {
		phNow: number;
		phAim: number;
		soil: SulphurSoil;
		areaM2: number;
		startOn: string;
		carbonate?: CarbonateTest | null;
	},
	values: Values
): SulphurDose {
	const note =
		phNow <= 7
			? ''
			: carbonate === null
				? 'Above pH 7 there may be lime, which eats sulphur first: drop vinegar on a dry pinch of soil. No dose is named before that.'
				: carbonate === 'fizzes'
					? 'It fizzes: lime must be neutralised first, and in the ground that rarely ends. A raised bed or a pot is the surer way; no dose is named.'
					: 'Quiet under vinegar: this is the dose from pH 7 on, the least it takes. Test before each further dose.';
	const unsure = phNow > 7 && carbonate !== 'quiet';
	const gPerM2 = unsure
		? 0
		: Math.max(0, toLowest(Math.min(7, phNow), soil) - toLowest(Math.max(4.5, Math.min(7, phAim)), soil));
	const totalKg = (gPerM2 * areaM2) / 1000;
	const count = gPerM2 > 0 ? Math.ceil(gPerM2 / values['sulphur.mostAtOnce'] - 1e-9) : 0;
	const apart = Math.round(values['sulphur.betweenDays']);
	return {
		gPerM2,
		totalKg,
		inTable: phNow <= 7 && phAim >= 4.5,
		note,
		doses: Array.from({ length: count }, (_, i) => ({
			on: addDays(startOn, i * apart),
			kg: totalKg / count,
			retestOn: i === 0 ? null : addDays(startOn, i * apart - 7)
		}))
	};
}
