/** Statistics of directions on the circle. Angles in degrees, any real number; results in [0, 360). */

export interface Direction {
	azimuthDeg: number;
	/** Weight ≥ 0; 1 for each when all count alike. */
	weight: number;
}

export interface CircularSummary {
	/** Weighted mean direction, or null when there is none (no weight, or perfectly balanced). */
	meanDeg: number | null;
	/** Resultant length R̄: 0 even, 1 all on one side. */
	resultantLength: number;
}

const RAD = Math.PI / 180;

/**
 * Brings an angle into [0, 360).
 * @param deg any angle, degrees
 */
export function normaliseDeg(deg: number): number {
	const turned = deg % 360;
	return turned < 0 ? turned + 360 : turned;
}

/**
 * Signed difference b − a in (−180, 180].
 * @param a, b any angles, degrees
 */
export function turnDeg(a: number, b: number): number {
	const turned = normaliseDeg(b - a);
	return turned > 180 ? turned - 360 : turned;
}

/**
 * Weighted mean direction and resultant length.
 * @see Fisher 1993, Statistical Analysis of Circular Data; Zar, Biostatistical Analysis, chapter 26.
 * @example angles 45, 55, 81, 96, 110, 117, 132, 154 give mean 99°, R̄ 0.825.
 */
export function circularSummary(directions: readonly Direction[]): CircularSummary {
	let east = 0;
	let north = 0;
	let total = 0;
	for (const { azimuthDeg, weight } of directions) {
		east += weight * Math.sin(azimuthDeg * RAD);
		north += weight * Math.cos(azimuthDeg * RAD);
		total += weight;
	}
	if (total <= 0) return { meanDeg: null, resultantLength: 0 };
	const resultantLength = Math.min(1, Math.hypot(east, north) / total);
	const meanDeg = resultantLength < 1e-9 ? null : normaliseDeg(Math.atan2(east, north) / RAD);
	return { meanDeg, resultantLength };
}

/**
 * Rayleigh's test of even spread: R = n·R̄ and z = R²/n. Of weighted directions n is how many of equal weight they are worth,
 * (Σw)²/Σw²; of equal weights that is their number.
 * @see Zar, Biostatistical Analysis, section 27.1; Kish 1965 on the effective number
 */
export function rayleigh(directions: readonly Direction[]): { r: number; z: number } {
	const sum = directions.reduce((total, { weight }) => total + weight, 0);
	const squares = directions.reduce((total, { weight }) => total + weight ** 2, 0);
	if (squares <= 0) return { r: 0, z: 0 };
	const n = sum ** 2 / squares;
	const r = n * circularSummary(directions).resultantLength;
	return { r, z: (r * r) / n };
}

/**
 * The widest gap between neighbouring directions.
 * @returns width in degrees and where it begins (clockwise); 360° from 0 when there are no directions.
 */
export function widestGap(azimuthsDeg: readonly number[]): { widthDeg: number; fromDeg: number } {
	const sorted = azimuthsDeg.map(normaliseDeg).sort((a, b) => a - b);
	const first = sorted[0];
	const last = sorted[sorted.length - 1];
	if (first === undefined || last === undefined) return { widthDeg: 360, fromDeg: 0 };
	let gap = { widthDeg: first + 360 - last, fromDeg: last };
	for (const [index, from] of sorted.entries()) {
		const to = sorted[index + 1];
		if (to !== undefined && to - from > gap.widthDeg) gap = { widthDeg: to - from, fromDeg: from };
	}
	return gap;
}

/**
 * Weight in each of eight 45° sectors, the first centred on 0°.
 * @returns eight shares that sum to 1, or zeros when there is no weight.
 */
export function sectorShares(directions: readonly Direction[]): number[] {
	const sectors = new Array<number>(8).fill(0);
	let total = 0;
	for (const { azimuthDeg, weight } of directions) {
		const index = Math.floor(normaliseDeg(azimuthDeg + 22.5) / 45) % 8;
		sectors[index] = (sectors[index] ?? 0) + weight;
		total += weight;
	}
	return total > 0 ? sectors.map((weight) => weight / total) : sectors;
}

/** Where the zero of azimuth lies: container = the front at 6 o'clock, ground = north at 12. */
export type ClockFrame = 'container' | 'ground';

/** Clock position 0 < c ≤ 12 of an azimuth. In a container 90° is 9 o'clock, in the ground 3. */
export function clockOf(azimuthDeg: number, frame: ClockFrame): number {
	const clock = ((((frame === 'container' ? 6 : 0) + azimuthDeg / 30) % 12) + 12) % 12;
	return clock === 0 ? 12 : clock;
}

/**
 * Azimuth in [0, 360) of a clock position.
 * @param clock hours on the face, 0 to 12
 */
export const azimuthOf = (clock: number, frame: ClockFrame): number =>
	normaliseDeg((clock - (frame === 'container' ? 6 : 0)) * 30);

/** Share of a circle that arcs cover together; each runs clockwise from `fromDeg` to `toDeg`. */
export function arcCover(arcs: readonly { fromDeg: number; toDeg: number }[]): number {
	const spans = arcs.flatMap(({ fromDeg, toDeg }) => {
		const from = ((fromDeg % 360) + 360) % 360;
		const length = (((toDeg - fromDeg) % 360) + 360) % 360;
		const end = from + length;
		return end <= 360 ? [[from, end] as const] : [[from, 360] as const, [0, end - 360] as const];
	});
	let covered = 0;
	let reach = 0;
	for (const [from, to] of spans.sort((a, b) => a[0] - b[0])) {
		covered += Math.max(0, to - Math.max(from, reach));
		reach = Math.max(reach, to);
	}
	return Math.min(1, covered / 360);
}
