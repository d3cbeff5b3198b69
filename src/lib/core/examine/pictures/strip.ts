import { seenAt, type Homography, type Point2 } from './plane';
import { shadeAt, type Grey } from './raster';
import type { Values } from '../../values/values';

/** What lies across a line at one place of it. */
export interface Station {
	/** From the beginning of the line, mm. */
	alongMm: number;
	/** On the line, mm of the map. */
	at: Point2;
	/** Square to the line, to its right as one goes. */
	across: Point2;
	/** Edges of the band, from the line to its right; the left one mostly below 0, mm. */
	leftMm: number;
	rightMm: number;
	/** How much the shade steps at the two edges, of the contrast; below 0 where it steps the wrong way. */
	stepLeft: number;
	stepRight: number;
	/** How light the band is between its edges, of the contrast: 0 as what lies beside. */
	shade: number;
}

/** Points evenly along a line, with the direction square to it. */
export function evenly(
	line: readonly Point2[],
	stepMm: number
): Pick<Station, 'alongMm' | 'at' | 'across'>[] {
	const far = [0];
	for (let i = 1; i < line.length; i++) {
		const [a, b] = [line[i - 1], line[i]];
		far.push((far[i - 1] ?? 0) + (a && b ? Math.hypot(b.x - a.x, b.y - a.y) : 0));
	}
	const length = far.at(-1) ?? 0;
	const count = Math.max(2, Math.round(length / stepMm) + 1);
	// Asked for places ever farther along: the search goes on where it stood.
	let part = 1;
	const at = (alongMm: number): Point2 => {
		while (part > 1 && (far[part - 1] ?? 0) > alongMm) part--;
		while (part < line.length - 1 && (far[part] ?? 0) < alongMm) part++;
		const [a, b] = [line[part - 1], line[part]];
		const [from, to] = [far[part - 1] ?? 0, far[part] ?? 0];
		const t = to > from ? (alongMm - from) / (to - from) : 0;
		return a && b ? { x: a.x + t * (b.x - a.x), y: a.y + t * (b.y - a.y) } : { x: NaN, y: NaN };
	};
	return Array.from({ length: count }, (_, i) => {
		const alongMm = (length * i) / (count - 1);
		// Over a stretch round it, so that a kink of the line does not turn the profile.
		const [a, b] = [at(Math.max(0, alongMm - stepMm)), at(Math.min(length, alongMm + stepMm))];
		const far = Math.hypot(b.x - a.x, b.y - a.y) || 1;
		return { alongMm, at: at(alongMm), across: { x: -(b.y - a.y) / far, y: (b.x - a.x) / far } };
	});
}

/** Numbers by their place: a plain loop, as a picture asks for many. */
function filled(count: number, of: (place: number) => number): Float32Array {
	const all = new Float32Array(count);
	for (let j = 0; j < count; j++) all[j] = of(j);
	return all;
}

/**
 * The edges of a band along a line: where the shade steps most on each side, drawn so that they run smoothly along it.
 * @param grey the picture itself, the band lighter than what lies beside
 * @param toPx from millimetres of the map to its pixels
 * @param mmPerPx one of its pixels, mm
 * @param line along the band, mm of the map
 * @param contrast how much lighter the band is, of 255
 * @param halfMm half width that is expected at each place of the line, mm, from its beginning on
 */
export function edgesAlong(
	grey: Grey,
	toPx: Homography,
	mmPerPx: number,
	line: readonly Point2[],
	halfMm: (alongMm: number) => number,
	contrast: number,
	values: Values
): Station[] {
	const [first] = line;
	if (!first || line.length < 2) return [];
	const widest = Math.max(halfMm(0), ...evenly(line, 20).map(({ alongMm }) => halfMm(alongMm)));
	const stations = evenly(line, Math.min(4, Math.max(1.5 * mmPerPx, widest / 3)));
	const reach = values['picture.stripReach'] * widest + 2 * mmPerPx;
	const step = Math.max(mmPerPx / 2, widest / 16);
	const count = 2 * Math.ceil(reach / step) + 1;
	const offset = (j: number): number => (j - (count - 1) / 2) * step;
	const shades = stations.map(({ at, across }) =>
		filled(count, (j) => {
			const seen = seenAt(toPx, { x: at.x + offset(j) * across.x, y: at.y + offset(j) * across.y });
			return shadeAt(grey, seen.x, seen.y);
		})
	);
	const calm = shades.map((_, k) =>
		filled(count, (j) => {
			let [sum, weight] = [0, 0];
			for (let d = -ALONG; d <= ALONG; d++) {
				const beside = shades[k + d];
				if (!beside) continue;
				const by = ALONG + 1 - Math.abs(d);
				sum += by * (beside[j] ?? 0);
				weight += by;
			}
			return sum / weight;
		})
	);
	// How far apart two shades are compared: a sharp edge is blurred by the lens over about three pixels.
	const apart = Math.max(1, Math.round((1.5 * mmPerPx) / step));
	/** Steps of the shade upward to the right where a band begins, of the contrast. */
	const rises = calm.map((line) =>
		filled(count, (j) =>
			j < apart || j >= count - apart ? -1 : ((line[j + apart] ?? 0) - (line[j - apart] ?? 0)) / contrast
		)
	);
	const edge = (side: -1 | 1): { at: number; step: number }[] => {
		const gain = rises.map((line, k) => {
			const half = halfMm(stations[k]?.alongMm ?? 0);
			return filled(count, (j) => {
				const out = offset(j) * side;
				if (out < 0.25 * half || out > values['picture.stripReach'] * half + mmPerPx) return -1e6;
				const off = Math.log(out / half) / values['picture.stripSpread'];
				return Math.max(-0.2, -side * (line[j] ?? 0)) - values['picture.stripPull'] * off ** 2;
			});
		});
		return smoothest(gain, values['picture.stripSmooth'] * step).map((j, k) => {
			const line = rises[k];
			const of = (i: number): number => -side * (line?.[i] ?? 0);
			return { at: offset(j) + midOfStep(of, j, apart + 1) * step, step: of(j) };
		});
	};
	const [left, right] = [edge(-1), edge(1)];
	const shadeOn = (line: Float32Array | undefined, off: number): number =>
		((line?.[Math.round(off / step + (count - 1) / 2)] ?? MIDDLE_SHADE) - MIDDLE_SHADE) / contrast;
	return stations.map((station, k) => ({
		...station,
		leftMm: left[k]?.at ?? NaN,
		rightMm: right[k]?.at ?? NaN,
		stepLeft: left[k]?.step ?? 0,
		stepRight: right[k]?.step ?? 0,
		shade: shadeOn(calm[k], ((left[k]?.at ?? 0) + (right[k]?.at ?? 0)) / 2)
	}));
}
/**
 * The middle of a step between the columns: half way between the two places where it has fallen to half its height. The highest column
 * itself tells less, as a sharp step compared over some pixels has a flat top.
 * @param of how much the shade steps at a column
 * @param at the column where it steps most
 * @param reach how far the half height is looked for on each side, columns
 * @returns columns from `at`
 */
function midOfStep(of: (column: number) => number, at: number, reach: number): number {
	const half = of(at) / 2;
	if (half <= 0) return 0;
	const falls = (way: -1 | 1): number => {
		for (let d = 1; d <= reach; d++) {
			const [before, here] = [of(at + way * (d - 1)), of(at + way * d)];
			if (here <= half) return d - 1 + (before - half) / (before - here);
		}
		return reach;
	};
	return (falls(1) - falls(-1)) / 2;
}

/** What lies beside has this shade, of 255. @see shadesOf */
const MIDDLE_SHADE = 128;
/** Places before and behind over which a profile is drawn together. */
const ALONG = 2;

/**
 * One column in each row, so that the gains are greatest and neighbours differ little: by dynamic programming.
 * @param pull what a difference of one column costs
 * @see Bellman 1957, Dynamic Programming
 */
function smoothest(gain: readonly Float32Array[], pull: number): number[] {
	const count = gain[0]?.length ?? 0;
	const reach = 3;
	const cameFrom: Int16Array[] = [];
	let so = Float64Array.from(gain[0] ?? []);
	for (const row of gain.slice(1)) {
		const next = new Float64Array(count);
		const from = new Int16Array(count);
		for (let j = 0; j < count; j++) {
			let best = -Infinity;
			let at = j;
			const last = Math.min(count - 1, j + reach);
			for (let i = Math.max(0, j - reach); i <= last; i++) {
				const value = (so[i] as number) - pull * (i - j) * (i - j);
				if (value > best) {
					best = value;
					at = i;
				}
			}
			next[j] = best + (row[j] as number);
			from[j] = at;
		}
		cameFrom.push(from);
		so = next;
	}
	let at = so.indexOf(Math.max(...so));
	const columns = [at];
	for (const from of cameFrom.reverse()) columns.push((at = from[at] ?? at));
	return columns.reverse();
}
