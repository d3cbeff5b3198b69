import { extraterrestrialRadiation } from './evapotranspiration';

/** FAO-56: Allen et al. 1998, Irrigation and drainage paper 56. Temperatures in °C, pressures in kPa, radiation in MJ/m² a day. */

/**
 * Saturation vapour pressure, kPa. @see equation 11
 * @example 24.5 °C → 3.075
 */
export const saturationKpa = (temperatureC: number): number =>
	0.6108 * Math.exp((17.27 * temperatureC) / (temperatureC + 237.3));

/** Mean saturation vapour pressure of a day, kPa. @see equation 12 @example 24.5 and 15 °C → 2.39 (Example 3) */
export const meanSaturationKpa = (minC: number, maxC: number): number =>
	(saturationKpa(minC) + saturationKpa(maxC)) / 2;

/** Pressure of the air at a height, kPa. @see equation 7 @example 1800 m → 81.8 (Example 2) */
export function airPressureKpa(elevationM: number): number {
	if (elevationM !== pressure.elevationM)
		pressure = { elevationM, kpa: 101.3 * ((293 - 0.0065 * elevationM) / 293) ** 5.26 };
	return pressure.kpa;
}
/** Of the height asked last: thousands of days are asked of one. */
let pressure = { elevationM: 0, kpa: 101.3 };

/** Psychrometric constant, kPa/°C. @see equation 8 @example 1800 m → 0.054 (Example 2) */
export const psychrometricKpa = (elevationM: number): number => 0.000665 * airPressureKpa(elevationM);

/** Temperature at which air of a vapour pressure would be saturated, °C. */
export function dewPointC(vapourKpa: number): number {
	const log = Math.log(Math.max(1e-6, vapourKpa) / 0.6108);
	return (237.3 * log) / (17.27 - log);
}

/** Vapour pressure deficit of a day, kPa: what the air could still take up. @param humidity mean relative humidity, share */
export const vapourDeficitKpa = (minC: number, maxC: number, humidity: number): number =>
	meanSaturationKpa(minC, maxC) * (1 - Math.min(1, Math.max(0, humidity)));

/** Wind at 2 m from wind at a height, m/s. @see equation 47 @example 10 km/h at 10 m → 2.08 m/s */
export const windAt2m = (windMs: number, heightM: number): number =>
	(windMs * 4.87) / Math.log(67.8 * heightM - 5.42);

/** Sunshine to radiation, MJ/m². @see equation 35, as 0.25 and bs 0.5 */
export const radiationFromSun = (sunHours: number, dayHours: number, onTopMj: number): number =>
	dayHours > 0 ? (0.25 + (0.5 * sunHours) / dayHours) * onTopMj : 0;

export interface PenmanDay {
	latitudeDeg: number;
	elevationM: number;
	on: string;
	minC: number;
	maxC: number;
	/** Actual vapour pressure, kPa. */
	vapourKpa: number;
	windMs: number;
	/** Short-wave radiation that arrives. */
	sunMj: number;
	/** Radiation on top of the air, where it is worked out already. */
	onTopMj?: number;
}

/** Net radiation over the reference grass, MJ/m². @see equations 37–40, albedo 0.23 */
export function netRadiationMj(day: PenmanDay): number {
	const onTopMj = day.onTopMj ?? extraterrestrialRadiation(day.latitudeDeg, day.on);
	const clearMj = (0.75 + 2e-5 * day.elevationM) * onTopMj;
	const relative = clearMj > 0 ? Math.min(1, day.sunMj / clearMj) : 0.5;
	const stefan = 4.903e-9;
	const long = (stefan * ((day.maxC + 273.16) ** 4 + (day.minC + 273.16) ** 4)) / 2;
	const outMj = long * (0.34 - 0.14 * Math.sqrt(Math.max(0, day.vapourKpa))) * (1.35 * relative - 0.35);
	return 0.77 * day.sunMj - outMj;
}

/**
 * Reference evapotranspiration, mm a day, never negative.
 * @see equation 6, soil heat flux 0
 * @example 50.80° N, 100 m, 6 July, 12.3–21.5 °C, humidity 63–84 %, 10 km/h at 10 m, 9.25 h of sun → 3.88 (Example 18)
 */
export function penmanMonteithMm(day: PenmanDay): number {
	const meanC = (day.minC + day.maxC) / 2;
	const slope = (4098 * saturationKpa(meanC)) / (meanC + 237.3) ** 2;
	const gamma = psychrometricKpa(day.elevationM);
	const deficit = Math.max(0, meanSaturationKpa(day.minC, day.maxC) - day.vapourKpa);
	const top = 0.408 * slope * netRadiationMj(day) + gamma * (900 / (meanC + 273)) * day.windMs * deficit;
	return Math.max(0, top / (slope + gamma * (1 + 0.34 * day.windMs)));
}
