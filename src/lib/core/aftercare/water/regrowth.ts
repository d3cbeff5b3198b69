import { dayOfYear, daysBetween, yearOf } from '../../maths/calendar';
import { meansByDay, type PlaceClimate } from '../../climate/normals';
import type { Values } from '../../values/values';

/**
 * Root function after some warmth: logistic, so that roots grow from the roots that live; none grow from none, and none over whole.
 * The one model of regrowth: forecasts, expectations and the filter over weighings all use it.
 * dφ/dD = r · φ · (1 − φ), D in degree days over 7 °C, solved exactly [our own].
 * @param phi root function, 0 … 1.2; over 1 it stays
 * @param degreeDays7 degree days over 7 °C, ≥ 0
 * @example grown(0.5, 625, values) = 1 / (1 + e⁻¹) = 0.731, since r is 0.0016
 */
export function grown(phi: number, degreeDays7: number, values: Values): number {
	return grownBy(phi, Math.exp(-values['rootFunction.perDegreeDay'] * degreeDays7));
}

/**
 * The same by what warmth leaves, e^(−r·D), for who goes through thousands of days.
 * @param phi root function, 0 … 1
 * @param left e^(−r·D), 0 … 1
 */
export const grownBy = (phi: number, left: number): number =>
	phi <= 0 ? 0 : phi >= 1 ? phi : phi / (phi + (1 - phi) * left);

/**
 * How a small difference in root function fares over some warmth: the slope of `grown`.
 * @param phi root function, 0 … 1
 * @param degreeDays7 degree days over 7 °C
 * @returns change afterwards per change before, no unit
 */
export function grownSlope(phi: number, degreeDays7: number, values: Values): number {
	return slopeBy(phi, Math.exp(-values['rootFunction.perDegreeDay'] * degreeDays7));
}

/**
 * The same by what warmth leaves, e^(−r·D).
 * @param phi root function, 0 … 1
 * @param left e^(−r·D), 0 … 1
 * @returns change afterwards per change before, no unit
 */
export const slopeBy = (phi: number, left: number): number =>
	phi >= 1 ? 1 : left / Math.max(1e-9, phi + (1 - phi) * left) ** 2;

/**
 * Counts the warmth for roots between two dates at a place by its climate, degree days over 7 °C; dates out of the span count as its ends.
 * Where heating holds a temperature it is never colder than that, so that no heated place has less than the open.
 */
export function rootWarmth(
	place: PlaceClimate,
	from: string,
	to: string,
	values: Values
): (start: string, end: string) => number {
	const days = Math.max(0, daysBetween(from, to));
	const sums = new Float64Array(days + 1);
	const means = meansByDay(place, values);
	const base = values['degreeDays.rootBaseC'];
	let year = yearOf(from);
	let of = dayOfYear(from);
	let length = dayOfYear(`${year}-12-31`);
	for (let day = 0; day < days; day++) {
		sums[day + 1] = (sums[day] ?? 0) + Math.max(0, (means[of] ?? 0) - base);
		if (++of <= length) continue;
		of = 1;
		year++;
		length = dayOfYear(`${year}-12-31`);
	}
	const at = (on: string): number => sums[Math.min(days, Math.max(0, daysBetween(from, on)))] ?? 0;
	return (start, end) => Math.max(0, at(end) - at(start));
}
