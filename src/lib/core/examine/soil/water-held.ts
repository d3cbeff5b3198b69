import { z } from 'zod';
export const waterHeldOutput = z.object({
	wilting: z
		.number()
		.describe(
			'Volume shares of water at the wilting point (1500 kPa), field capacity (33 kPa) and saturation'
		),
	fieldCapacity: z.number(),
	saturation: z.number(),
	available: z.number().describe('Field capacity less wilting'),
	conductivityMmPerH: z.number().describe('Saturated conductivity, mm/h'),
	normalDensityMgPerM3: z.number().describe('Bulk density the texture settles to by itself, Mg/m³')
});
export type WaterHeld = z.infer<typeof waterHeldOutput>;

/** In a pure sand without humus the regression falls below nothing; ours, no source. */
const LEAST_WILTING = 0.01;

/**
 * Water a soil holds, from its texture.
 * @param sandPercent 0–100, by mass
 * @param clayPercent 0–60, by mass; sand and clay together at most 100
 * @param organicPercent 0–8, organic matter by mass
 * @throws RangeError outside those ranges
 * @see Saxton & Rawls 2006, Soil Sci. Soc. Am. J. 70:1569–1578, equations 1–5 and 16–18
 * @example waterHeld(40, 20, 2.5) is about { wilting: 0.14, fieldCapacity: 0.28, saturation: 0.46 }
 */
export function waterHeld(sandPercent: number, clayPercent: number, organicPercent: number): WaterHeld {
	if (sandPercent < 0 || clayPercent < 0 || clayPercent > 60 || sandPercent + clayPercent > 100)
		throw new RangeError('sand and clay must be shares of one soil, clay at most 60 %');
	if (organicPercent < 0 || organicPercent > 8) throw new RangeError('organic matter must be 0 to 8 %');
	const s = sandPercent / 100;
	const c = clayPercent / 100;
	const om = organicPercent;
	const dry = -0.024 * s + 0.487 * c + 0.006 * om + 0.005 * s * om - 0.013 * c * om + 0.068 * s * c + 0.031;
	const wilting = Math.max(LEAST_WILTING, dry + (0.14 * dry - 0.02));
	const moist = -0.251 * s + 0.195 * c + 0.011 * om + 0.006 * s * om - 0.027 * c * om + 0.452 * s * c + 0.299;
	const fieldCapacity = moist + (1.283 * moist * moist - 0.374 * moist - 0.015);
	const wet = 0.278 * s + 0.034 * c + 0.022 * om - 0.018 * s * om - 0.027 * c * om - 0.584 * s * c + 0.078;
	const drained = wet + (0.636 * wet - 0.107);
	const saturation = fieldCapacity + drained - 0.097 * s + 0.043;
	const slope = (Math.log(fieldCapacity) - Math.log(wilting)) / (Math.log(1500) - Math.log(33));
	return {
		wilting,
		fieldCapacity,
		saturation,
		available: fieldCapacity - wilting,
		conductivityMmPerH: 1930 * Math.max(0, saturation - fieldCapacity) ** (3 - slope),
		normalDensityMgPerM3: (1 - saturation) * 2.65
	};
}
