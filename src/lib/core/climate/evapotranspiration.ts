import type { Values } from '../values/values';
import { dayOfYear } from '../maths/calendar';
import { nightTemperature, outdoorMeanC, type PlaceClimate } from './normals';

/**
 * Radiation on top of the air, MJ/m² a day.
 * @param latitudeDeg south negative; beyond the polar circles a day may have none
 * @see Allen et al. 1998, FAO Irrigation and drainage paper 56, equations 21, 23–25
 * @example 20° S on 3 September: 32.2 (Example 8)
 */
export function extraterrestrialRadiation(latitudeDeg: number, date: string): number {
	const { sunsetRad, declinationRad, latitudeRad } = sunOf(latitudeDeg, date);
	const distance = 1 + 0.033 * Math.cos((2 * Math.PI * dayOfYear(date)) / 365);
	return (
		((24 * 60) / Math.PI) *
		0.082 *
		distance *
		(sunsetRad * Math.sin(latitudeRad) * Math.sin(declinationRad) +
			Math.cos(latitudeRad) * Math.cos(declinationRad) * Math.sin(sunsetRad))
	);
}

/**
 * Hours of daylight.
 * @see Allen et al. 1998, equation 34
 * @example 20° S on 3 September: 11.7 (Example 9)
 */
export const daylightHours = (latitudeDeg: number, date: string): number =>
	(24 / Math.PI) * sunOf(latitudeDeg, date).sunsetRad;

function sunOf(latitudeDeg: number, date: string) {
	const latitudeRad = (latitudeDeg * Math.PI) / 180;
	const declinationRad = 0.409 * Math.sin((2 * Math.PI * dayOfYear(date)) / 365 - 1.39);
	// In the polar night the sun never rises, on the polar day it never sets.
	const cosine = Math.max(-1, Math.min(1, -Math.tan(latitudeRad) * Math.tan(declinationRad)));
	return { latitudeRad, declinationRad, sunsetRad: Math.acos(cosine) };
}

/**
 * Reference evapotranspiration from temperatures alone, mm a day, never negative.
 * ET₀ = 0.0023 (T + 17.8) √(Tmax − Tmin) Ra, Ra as mm of water (0.408 per MJ).
 * @see Hargreaves & Samani 1985; Allen et al. 1998, equation 52
 */
export function hargreavesMm(
	{ minC, maxC }: { minC: number; maxC: number },
	latitudeDeg: number,
	date: string
): number {
	const meanC = (minC + maxC) / 2;
	const radiation = 0.408 * extraterrestrialRadiation(latitudeDeg, date);
	return Math.max(0, 0.0023 * (meanC + 17.8) * Math.sqrt(Math.max(0, maxC - minC)) * radiation);
}

/**
 * Usual evapotranspiration at a place on a day, mm, from the usual climate of the place: Hargreaves in the open, times what the place
 * lets through of sun and wind.
 */
export function usualEt0Mm(place: PlaceClimate, date: string, values: Values): number {
	const meanC = outdoorMeanC(place, date, values);
	const half = values['climate.nightBelowMeanC'];
	const sheltered = nightTemperature(place, date, values).usualC - (meanC - half);
	return (
		hargreavesMm(
			{ minC: meanC - half + sheltered, maxC: meanC + half + sheltered },
			place.latitudeDeg,
			date
		) * values[`place.demand.${place.kind}`]
	);
}
