import { linearRegression } from 'simple-statistics';
import { z } from 'zod';
import { measure } from '../../vocabulary/fields';
import type { Values } from '../../values/values';

export const infiltrationData = z.strictObject({
	ringDiameterMm: measure(50, 2000, 'mm'),
	readings: z
		.array(
			z.strictObject({
				minutes: measure(0, 1440, 'min').describe('Since the first water'),
				sunkMm: measure(0, 5000, 'mm').describe('Water that has gone in since then, refills included')
			})
		)
		.min(2, { error: 'must hold at least two readings' })
		.max(200, { error: 'must be at most 200 readings' })
		.refine(
			(readings) =>
				readings.every(
					(reading, i) =>
						i === 0 ||
						(reading.minutes > (readings[i - 1]?.minutes ?? 0) &&
							reading.sunkMm >= (readings[i - 1]?.sunkMm ?? 0))
				),
			{ error: 'must run forward: each later than the one before, and no water coming back' }
		)
});
export type InfiltrationData = z.infer<typeof infiltrationData>;

export const infiltrationClasses = [
	'very slow',
	'slow',
	'moderately slow',
	'moderate',
	'moderately rapid',
	'rapid',
	'very rapid'
] as const;
export type InfiltrationClass = (typeof infiltrationClasses)[number];

const limits = ['slow', 'moderately-slow', 'moderate', 'moderately-rapid', 'rapid', 'very-rapid'] as const;

/** Class of an infiltration rate, mm/h. @see USDA NRCS */
export function infiltrationClass(rateMmPerH: number, values: Values): InfiltrationClass {
	const at = limits.findIndex((limit) => rateMmPerH < values[`soil.infiltration.${limit}`]);
	return infiltrationClasses[at < 0 ? limits.length : at] as InfiltrationClass;
}

export const infiltrationOutput = z.object({
	steadyMmPerH: z.number().describe('Rate over the last half of the time, mm/h: nearest to steady'),
	firstMmPerH: z.number().describe('Rate over the first interval, mm/h'),
	sorptivityMmPerRootH: z
		.number()
		.describe("Philip's two terms fitted to all readings: sorptivity mm/√h and steady rate mm/h"),
	philipSteadyMmPerH: z.number(),
	class: z.enum(infiltrationClasses),
	steady: z
		.boolean()
		.describe('False when the rate still falls by more than a fifth between the last two intervals')
});
export type InfiltrationResult = z.infer<typeof infiltrationOutput>;

/**
 * Infiltration into a single ring. The steady rate is the least-squares slope of the readings in the last half of the
 * time; water also spreads sideways under a single ring, so that the true rate is lower, the more the smaller the ring.
 * @see Philip 1957, I = S √t + A t [from memory]; classes USDA NRCS
 */
export function infiltrationRate({ readings }: InfiltrationData, values: Values): InfiltrationResult {
	const hours = readings.map((reading) => reading.minutes / 60);
	const sunk = readings.map((reading) => reading.sunkMm - (readings[0]?.sunkMm ?? 0));
	const began = hours[0] ?? 0;
	const end = hours.at(-1) ?? 0;
	const late = readings.flatMap((_, i) => ((hours[i] ?? 0) >= (began + end) / 2 ? [i] : []));
	const used = late.length >= 2 ? late : [readings.length - 2, readings.length - 1];
	const steadyMmPerH = slope(
		used.map((i) => hours[i] ?? 0),
		used.map((i) => sunk[i] ?? 0)
	);
	const rate = (i: number): number =>
		((sunk[i] ?? 0) - (sunk[i - 1] ?? 0)) / ((hours[i] ?? 0) - (hours[i - 1] ?? 0));
	const last = rate(readings.length - 1);
	const before = readings.length > 2 ? rate(readings.length - 2) : last;
	const philip = fitPhilip(
		hours.map((hour) => hour - began),
		sunk
	);
	return {
		steadyMmPerH,
		firstMmPerH: rate(1),
		sorptivityMmPerRootH: philip.s,
		philipSteadyMmPerH: philip.a,
		class: infiltrationClass(steadyMmPerH, values),
		steady: readings.length > 2 && last >= values['soil.steady-share'] * before
	};
}

/** Slope of the line of least squares; 0 where all stand at one x. */
function slope(x: readonly number[], y: readonly number[]): number {
	const { m } = linearRegression(x.map((value, i) => [value, y[i] ?? 0]));
	return Number.isFinite(m) ? m : 0;
}

/** Least squares of I = S √t + A t, without a constant. */
function fitPhilip(hours: readonly number[], sunk: readonly number[]): { s: number; a: number } {
	let [rr, rt, tt, ri, ti] = [0, 0, 0, 0, 0];
	for (const [i, t] of hours.entries()) {
		const r = Math.sqrt(t);
		const sunkMm = sunk[i] ?? 0;
		rr += r * r;
		rt += r * t;
		tt += t * t;
		ri += r * sunkMm;
		ti += t * sunkMm;
	}
	const det = rr * tt - rt * rt;
	if (Math.abs(det) < 1e-12) return { s: 0, a: tt > 0 ? ti / tt : 0 };
	return { s: (ri * tt - ti * rt) / det, a: (rr * ti - rt * ri) / det };
}
