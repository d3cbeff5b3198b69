import { z } from 'zod';
import { median } from 'simple-statistics';
import { Z95 } from '../../maths/normal';
import type { Values } from '../../values/values';
import { after, backOf, flatGrey, flatMm, flatPx, type Flat, type Laid } from './flat';
import { pathBetween } from './path';
import { broughtDown, lengthIn, seenAt, type Plane, type Point2 } from './plane';
import { lengthThrough } from './point';
import type { Grey, Rgba } from './raster';
import { shadesOf, type Shading } from './root-colour';
import { ridgesOf, type Ridges } from './ridge';
import { edgesAlong, type Station } from './strip';

/** A root as it was read from a picture, mm of the map. */
export const tracedRootOutput = z.object({
	course: z
		.array(
			z.object({
				x: z.number().describe('To azimuth 90°, mm'),
				y: z.number().describe('To azimuth 180°, mm')
			})
		)
		.readonly()
		.describe('From its base outward'),
	lengthMm: z.number(),
	diameterStartMm: z.number(),
	diameterEndMm: z.number(),
	thicknessErrorMm: z.number().describe('Within so much the true thickness lies in 95 of 100, mm'),
	lengthErrorMm: z.number().describe('Within so much the true length lies in 95 of 100, mm')
});
export type TracedRoot = z.infer<typeof tracedRootOutput>;

/** A picture made ready to read roots in it. */
export interface ReadyPicture {
	/** In one shade, roots the lighter. */
	grey: Grey;
	/** By so much, of 255. */
	contrast: number;
	plane: Plane;
	laid: Laid;
	flat: Flat;
	ridges: Ridges;
	trunkDiameterMm: number;
	/** How far its scale is off by what told the plane, one deviation, share. */
	scaleOff: number;
}

export const COURSE_POINTS = 16;

/** Half widths that are looked for, px of the flat picture: each by √2 wider than the last. */
function halfWidths(flat: Flat, trunkDiameterMm: number, values: Values): number[] {
	const least = Math.max(1.2, values['picture.rootLeastMm'] / 2 / flat.mmPerPx);
	const most = Math.max(least, Math.min(flat.sidePx / 8, (0.45 * trunkDiameterMm) / flat.mmPerPx));
	const count = Math.max(1, Math.round(Math.log(most / least) / Math.log(Math.SQRT2)) + 1);
	return Array.from({ length: count }, (_, i) => least * Math.SQRT2 ** i);
}

/** A picture in one shade, made ready to read roots in it. */
export function readyIn(
	picture: Rgba,
	shading: Shading,
	plane: Plane,
	laid: Laid,
	flat: Flat,
	trunkDiameterMm: number,
	values: Values
): ReadyPicture {
	const grey = shadesOf(picture, shading);
	const { contrast } = shading;
	const ridges = ridgesOf(
		flatGrey(grey, laid, flat),
		halfWidths(flat, trunkDiameterMm, values),
		contrast,
		values
	);
	withoutCard(ridges.strength, plane, laid, flat);
	const scaleOff = scaleOffOf(plane, laid, flat, values);
	return { grey, contrast, plane, laid, flat, ridges, trunkDiameterMm, scaleOff };
}

function scaleOffOf(plane: Plane, laid: Laid, { reachMm }: Flat, values: Values): number {
	const half = reachMm / 2;
	const offs = [
		[
			{ x: -half, y: 0 },
			{ x: half, y: 0 }
		],
		[
			{ x: 0, y: -half },
			{ x: 0, y: half }
		]
	].map((line) => {
		const length = lengthIn(
			plane,
			line.map((at) => seenAt(laid.toPx, at)),
			values['picture.endPx'],
			values
		);
		return length ? length.errorMm / Z95 / length.mm : 0;
	});
	return Math.max(...offs);
}

/** What lies beside for its size is no root. */
function withoutCard(strength: Float32Array, plane: Plane, laid: Laid, flat: Flat): void {
	const out = fromCard(plane, laid);
	for (let y = 0; y < flat.sidePx; y++)
		for (let x = 0; x < flat.sidePx; x++)
			if (out(flatMm(flat, { x: x + 0.5, y: y + 0.5 })) < CARD_ROUND_MM) strength[y * flat.sidePx + x] = 0;
}
/** So far round the card its edge makes bands of its own. */
export const CARD_ROUND_MM = 5;

/** How far a place of the map lies beyond the edge of what lies beside for its size, mm; below 0 on it. Without such a thing far beyond. */
export function fromCard(plane: Plane, laid: Laid): (at: Point2) => number {
	if (plane.flat.length !== 4) return () => Infinity;
	const corners = plane.corners.map((corner) => seenAt(laid.toPlan, corner));
	const [x0, y0] = [0, 1].map((axis) => corners.reduce((sum, { x, y }) => sum + (axis ? y : x) / 4, 0)) as [
		number,
		number
	];
	const edges = corners.flatMap((from, i) => {
		const to = corners[(i + 1) % 4];
		if (!to) return [];
		const long = Math.hypot(to.x - from.x, to.y - from.y);
		const [x, y] = [(to.y - from.y) / long, (from.x - to.x) / long];
		const side = (x0 - from.x) * x + (y0 - from.y) * y > 0 ? -1 : 1;
		return [{ from, x: side * x, y: side * y }];
	});
	return (at) => {
		let most = -Infinity;
		for (const { from, x, y } of edges) most = Math.max(most, (at.x - from.x) * x + (at.y - from.y) * y);
		return most;
	};
}

/**
 * Which pixel of the flat picture a place of it lies in.
 * @returns its number, row by row from 0; −1 beyond the edge
 */
export const cellOf = ({ ridges }: ReadyPicture, { x, y }: Point2): number => {
	const [u, v] = [Math.floor(x), Math.floor(y)];
	return u >= 0 && v >= 0 && u < ridges.width && v < ridges.height ? v * ridges.width + u : -1;
};

/**
 * A line through points that few that lie off do not turn: the middle one of all slopes.
 * @see Theil 1950; Sen 1968, Journal of the American Statistical Association 63, 1379–1389
 */
export function sturdyLine(points: readonly Point2[]): { slope: number; at0: number; off: number } {
	const slopes = points.flatMap((a, i) =>
		points.slice(i + 1).flatMap((b) => (b.x === a.x ? [] : [(b.y - a.y) / (b.x - a.x)]))
	);
	const slope = slopes.length > 0 ? median(slopes) : 0;
	const at0 = median(points.map(({ x, y }) => y - slope * x));
	// Of a normal spread the middle distance is 0.6745 deviations.
	const off = median(points.map(({ x, y }) => Math.abs(y - slope * x - at0))) / 0.6745;
	return { slope, at0, off };
}

/** A line with fewer points that lies nowhere farther off than so much. @see Ramer 1972; Douglas & Peucker 1973 */
export function fewer(line: readonly Point2[], offMm: number): Point2[] {
	const [first] = line;
	const last = line.at(-1);
	if (!first || !last || line.length < 3) return [...line];
	const [dx, dy] = [last.x - first.x, last.y - first.y];
	const long = Math.hypot(dx, dy) || 1;
	let [worst, at] = [0, 0];
	for (const [i, { x, y }] of line.entries()) {
		const off = Math.abs((x - first.x) * dy - (y - first.y) * dx) / long;
		if (off > worst) [worst, at] = [off, i];
	}
	if (worst <= offMm) return [first, last];
	return [...fewer(line.slice(0, at + 1), offMm).slice(0, -1), ...fewer(line.slice(at), offMm)];
}

/** A line whose points lie on the mean of their neighbours' too, its ends kept. */
function calmed(line: readonly Point2[], turns: number): Point2[] {
	let now = [...line];
	for (let turn = 0; turn < turns; turn++)
		now = now.map((point, i) => {
			const [a, b] = [now[i - 1], now[i + 1]];
			return a && b ? { x: (a.x + 2 * point.x + b.x) / 4, y: (a.y + 2 * point.y + b.y) / 4 } : point;
		});
	return now;
}

/**
 * Thickness and course of a root from a line along it: its edges are looked for across the line, which is laid anew in their middle, twice.
 * @param line from its base outward, mm of the map
 * @param halfMm half width that is expected along it, mm
 * @returns null where no edges show
 */
export function measuredAlong(
	ready: ReadyPicture,
	line: readonly Point2[],
	halfMm: (alongMm: number) => number,
	values: Values
): (TracedRoot & { stations: Station[] }) | null {
	const { grey, contrast, laid, plane, scaleOff } = ready;
	let now = calmed(line, 4);
	let expected = halfMm;
	let stations: Station[] = [];
	for (let turn = 0; turn < 2; turn++) {
		stations = edgesAlong(grey, laid.toPx, laid.mmPerPx, now, expected, contrast, values);
		if (stations.length < 3) return null;
		const fit = sturdyLine(
			thinned(stations).map(({ alongMm, leftMm, rightMm }) => ({ x: alongMm, y: (rightMm - leftMm) / 2 }))
		);
		const least = laid.mmPerPx / 2;
		expected = (alongMm) => Math.max(least, fit.at0 + fit.slope * alongMm);
		now = calmed(
			stations.map(({ at, across, leftMm, rightMm }) => {
				const off = (leftMm + rightMm) / 2;
				return { x: at.x + off * across.x, y: at.y + off * across.y };
			}),
			3
		);
	}
	const lengthMm = lengthThrough(now);
	const widths = thinned(stations).map(({ alongMm, leftMm, rightMm }) => ({
		x: alongMm,
		y: rightMm - leftMm
	}));
	const { slope, at0, off } = sturdyLine(widths);
	const least = laid.mmPerPx;
	const diameterStartMm = Math.max(least, at0);
	const diameterEndMm = Math.max(least / 2, at0 + slope * lengthMm);
	// Of the widths beside each other about three tell as much as one.
	const alone = Math.max(1, stations.length / 3);
	const ofWidths = (2 * off) / Math.sqrt(alone);
	const ofEdges = Math.hypot(
		values['picture.edgePx'] * laid.mmPerPx,
		values['picture.edgeWidths'] * diameterStartMm
	);
	const ofHeight = (diameterStartMm * values['picture.heightOffMm']) / plane.distanceMm;
	return {
		course: courseOf(now),
		lengthMm,
		diameterStartMm,
		diameterEndMm,
		thicknessErrorMm: Z95 * Math.hypot(ofWidths, ofEdges, ofHeight, scaleOff * diameterStartMm),
		lengthErrorMm:
			Z95 *
			Math.hypot(
				scaleOff * lengthMm,
				(lengthMm * values['picture.heightOffMm']) / plane.distanceMm,
				diameterStartMm * values['picture.endWidths'],
				values['picture.endMm']
			),
		stations
	};
}

/** From where a picture was taken, over its map. */
export interface Stand {
	/** The place of the map under the camera, mm; null where that is not known. */
	under: Point2 | null;
	/** How high the camera was above the plane, and how far from what tells it, mm. */
	cameraMm: number;
	distanceMm: number;
}
/** From where a picture was taken, told on its map. */
export const standOf = ({ plane, laid }: Pick<ReadyPicture, 'plane' | 'laid'>): Stand => ({
	under: plane.under && seenAt(after(laid.toPlan, backOf(plane.toMm)), plane.under),
	cameraMm: plane.cameraMm,
	distanceMm: plane.distanceMm
});

/**
 * A root whose height over the plane is known: brought down into it, and as much smaller as it was nearer. What its height left open is
 * then only how well that is known.
 * @param nearerMm how much nearer to the camera than the plane, mm; below 0 beyond it
 */
export function atHeight<T extends TracedRoot>(
	root: T,
	nearerMm: number,
	{ under, cameraMm, distanceMm }: Stand,
	values: Values
): T {
	const by = 1 - nearerMm / cameraMm;
	// Where nobody knows what lies under the camera, its base stays.
	const middle = under ?? root.course[0] ?? { x: 0, y: 0 };
	const open = (errorMm: number, ofMm: number): number => {
		const unknown = (Z95 * ofMm * values['picture.heightOffMm']) / distanceMm;
		const known = (Z95 * ofMm * values['picture.heightSaidMm']) / distanceMm;
		return by * Math.sqrt(Math.max(0, errorMm ** 2 - unknown ** 2) + known ** 2);
	};
	return {
		...root,
		course: root.course.map((at) => broughtDown(at, middle, cameraMm, nearerMm)),
		lengthMm: by * root.lengthMm,
		diameterStartMm: by * root.diameterStartMm,
		diameterEndMm: by * root.diameterEndMm,
		thicknessErrorMm: open(root.thicknessErrorMm, root.diameterStartMm),
		lengthErrorMm: open(root.lengthErrorMm, root.lengthMm)
	};
}

/** Few enough that all pairs of them can be looked at. */
const thinned = <T>(all: readonly T[]): T[] => {
	const every = Math.ceil(all.length / 80);
	return all.filter((_, i) => i % every === 0);
};

/** A course of at most `COURSE_POINTS`, the truest there is. */
function courseOf(line: readonly Point2[]): Point2[] {
	for (let offMm = 0.5; ; offMm *= 1.5) {
		const course = fewer(line, offMm);
		if (course.length <= COURSE_POINTS) return course;
	}
}

/** What it costs to go through a pixel, drawn once for a picture. */
function costOf(ridges: Ridges, least: number): Float32Array {
	const known = costs.get(ridges);
	if (known?.least === least) return known.cost;
	const cost = ridges.strength.map((strength) => 1 / (least + strength));
	costs.set(ridges, { least, cost });
	return cost;
}
const costs = new WeakMap<Ridges, { least: number; cost: Float32Array }>();

/**
 * The root between two touches: the cheapest way over what looks like a root.
 * @param base, end on the map, mm
 * @returns null where an end lies beyond the picture, or no edges show
 */
export function tracedBetween(
	ready: ReadyPicture,
	base: Point2,
	end: Point2,
	values: Values
): TracedRoot | null {
	const { flat, ridges } = ready;
	const cost = costOf(ridges, values['picture.pathLeast']);
	const path = pathBetween(
		{ width: ridges.width, height: ridges.height, cost },
		flatPx(flat, base),
		flatPx(flat, end)
	);
	if (!path || path.points.length < 3) return null;
	const strong = path.points.flatMap((point) => {
		const cell = cellOf(ready, point);
		const shows = (ridges.strength[cell] ?? 0) > values['picture.ridgeLeast'];
		return shows ? [(ridges.halfWidthPx[cell] ?? 0) * flat.mmPerPx] : [];
	});
	const half = strong.length > 0 ? median(strong) : values['picture.rootLeastMm'];
	const line = path.points.map((point) => flatMm(flat, point));
	const traced = measuredAlong(ready, [base, ...line.slice(1, -1), end], () => half, values);
	if (!traced) return null;
	const { stations: _, ...root } = traced;
	return root;
}
