import aruco from 'js-aruco2';
import type { Values } from '../../values/values';
import { card, cardCorners, markerCodes, markerCorners, MARKER_MODULES } from './card';
import type { CardFault, FoundCard } from './find-card-words';
import { homographyOf, planeOf, seenAt, type PlaneFault, type Point2 } from './plane';
import { greyOf, shadeAt, smaller, type Grey, type Rgba } from './raster';

/** A marker in a picture, its corners clockwise from the upper left of its code, px. */
interface Seen {
	id: number;
	corners: Point2[];
}

/** Least markers that tell the plane well. */
const MARKERS_LEAST = 3;

/**
 * Finds the printed card in a picture: markers first in a smaller one, then each edge of them as finely as the picture shows it.
 * @param picture decoded, turned as it is looked at
 * @returns the plane of the card, or why there is none
 */
export function findCard(
	picture: Rgba,
	values: Values,
	focalShare: number | null = null
): FoundCard | CardFault | PlaneFault {
	const grey = greyOf(picture);
	const seen = markersIn(grey, values);
	if (seen.length < MARKERS_LEAST) return 'no-card';
	const edges = seen.map((marker) => sharpened(grey, marker, values));
	const sharp = edges.flatMap((one) => (one === null || one === 'blurred' ? [] : [one]));
	if (sharp.length < MARKERS_LEAST) return edges.includes('blurred') ? 'too-blurred' : 'no-card';
	const flat = sharp.flatMap(({ id }) => markerCorners(id));
	const points = sharp.flatMap(({ corners }) => corners);
	const toPx = homographyOf(flat, points);
	if (!toPx) return 'no-card';
	const off = flat.map((point, i) => {
		const at = seenAt(toPx, point);
		return Math.hypot(at.x - (points[i]?.x ?? NaN), at.y - (points[i]?.y ?? NaN)) ** 2;
	});
	// Eight numbers of the plane were drawn from them.
	const free = 2 * points.length - 8;
	const offPx = Math.max(
		values['picture.cornerPx'],
		Math.sqrt(off.reduce((sum, one) => sum + one, 0) / free)
	);
	if (offPx > values['picture.cardOffMost'] * markerSidePx(sharp)) return 'no-card';
	const plane = planeOf(
		cardCorners().map((corner) => seenAt(toPx, corner)),
		card,
		{ widthPx: picture.width, heightPx: picture.height, focalShare },
		values
	);
	// The plane is drawn from more than the four corners it needs, and lies the surer.
	const cornerPx = Math.max(values['picture.cornerPx'], offPx * Math.sqrt(8 / (2 * points.length)));
	return typeof plane === 'string' ? plane : { plane: { ...plane, cornerPx }, markers: sharp.length, offPx };
}

const markerSidePx = (seen: readonly Seen[]): number =>
	seen.reduce((sum, { corners }) => sum + sidePx(corners), 0) / seen.length;
const sidePx = (corners: readonly Point2[]): number =>
	corners.reduce((sum, { x, y }, i) => {
		const next = corners[(i + 1) % corners.length] ?? { x, y };
		return sum + Math.hypot(next.x - x, next.y - y);
	}, 0) / corners.length;

/** The markers of the card, each once; looked for at two sizes, as one out of focus is found in the smaller. */
function markersIn(grey: Grey, values: Values): Seen[] {
	const longest = Math.max(grey.width, grey.height);
	const detector = new aruco.AR.Detector({
		dictionaryName: 'ARUCO_MIP_36h12',
		maxHammingDistance: values['picture.markerBits']
	});
	const found = new Map<number, Seen>();
	const least = Math.max(1, Math.round(longest / values['picture.searchPx']));
	for (const by of [least, 2 * least]) {
		const small = smaller(grey, by);
		const rgba = new Uint8ClampedArray(4 * small.width * small.height);
		for (const [i, shade] of small.data.entries()) rgba.fill(shade, 4 * i, 4 * i + 3);
		for (const { id, corners } of detector.detectImage(small.width, small.height, rgba))
			if (id < markerCodes.length && !found.has(id))
				found.set(id, { id, corners: corners.map(({ x, y }) => ({ x: (x + 0.5) * by, y: (y + 0.5) * by })) });
		if (found.size === markerCodes.length) break;
	}
	return [...found.values()];
}

/** A straight line, by a point of it and the direction square to it. */
interface Line {
	at: Point2;
	across: Point2;
}

/** Corners of a marker as the meeting points of its edges, each drawn through where black turns to white along it. */
function sharpened(grey: Grey, { id, corners }: Seen, values: Values): Seen | 'blurred' | null {
	const lines: Line[] = [];
	let widest = 0;
	for (const [i, from] of corners.entries()) {
		const to = corners[(i + 1) % corners.length];
		const edge = to ? edgeBetween(grey, from, to) : null;
		if (!edge) return null;
		lines.push(edge.line);
		widest = Math.max(widest, edge.widthPx);
	}
	if (widest > values['picture.blurMost'] * sidePx(corners)) return 'blurred';
	const met = lines.map((line, i) => meeting(lines[(i + lines.length - 1) % lines.length] ?? line, line));
	return met.every((one) => one !== null) ? { id, corners: met } : null;
}

/** Where two lines meet; null where they run alike. */
function meeting(a: Line, b: Line): Point2 | null {
	const det = a.across.x * b.across.y - a.across.y * b.across.x;
	if (Math.abs(det) < 1e-6) return null;
	const [p, q] = [a, b].map(({ at, across }) => at.x * across.x + at.y * across.y) as [number, number];
	return { x: (p * b.across.y - q * a.across.y) / det, y: (q * a.across.x - p * b.across.x) / det };
}

/** Places along an edge that are looked at, of its length: not its ends, where two edges run into each other. */
const ALONG = Array.from({ length: 25 }, (_, i) => 0.1 + (0.8 * i) / 24);
const STEP_PX = 0.5;

/** The edge of a marker near a line: where the shade changes most across it, and how wide the change is. */
function edgeBetween(grey: Grey, from: Point2, to: Point2): { line: Line; widthPx: number } | null {
	const [dx, dy] = [to.x - from.x, to.y - from.y];
	const length = Math.hypot(dx, dy);
	if (length < 2 * MARKER_MODULES) return null;
	// Clockwise round a dark square its outside lies to the left.
	const out = { x: dy / length, y: -dx / length };
	const reach = Math.max(2.5, (0.8 * length) / MARKER_MODULES);
	const points: Point2[] = [];
	const widths: number[] = [];
	for (const t of ALONG) {
		const at = { x: from.x + t * dx, y: from.y + t * dy };
		const step = stepAcross(grey, at, out, reach);
		if (!step) continue;
		points.push({ x: at.x + step.at * out.x, y: at.y + step.at * out.y });
		widths.push(step.widthPx);
	}
	if (points.length < ALONG.length / 2) return null;
	const line = lineThrough(points);
	return line && { line, widthPx: [...widths].sort((a, b) => a - b)[Math.floor(widths.length / 2)] ?? 0 };
}

/** Where dark turns to light outwards across a point, px from it, and over how many px. */
function stepAcross(
	grey: Grey,
	at: Point2,
	out: Point2,
	reach: number
): { at: number; widthPx: number } | null {
	const count = Math.round((2 * reach) / STEP_PX);
	const shades = Array.from({ length: count + 1 }, (_, i) => {
		const s = -reach + i * STEP_PX;
		return shadeAt(grey, at.x + s * out.x, at.y + s * out.y);
	});
	const rises = shades.slice(2).map((shade, i) => shade - (shades[i] ?? shade));
	const best = rises.indexOf(Math.max(...rises));
	const most = rises[best] ?? 0;
	if (most <= 0) return null;
	// Its middle is the centre of gravity of the rise round its steepest place.
	let [sum, moment] = [0, 0];
	for (let i = best; i >= 0 && (rises[i] ?? 0) > most / 4; i--)
		[sum, moment] = weigh(sum, moment, rises[i], i);
	for (let i = best + 1; i < rises.length && (rises[i] ?? 0) > most / 4; i++)
		[sum, moment] = weigh(sum, moment, rises[i], i);
	const range = Math.max(...shades) - Math.min(...shades);
	return { at: -reach + (moment / sum + 1) * STEP_PX, widthPx: (range / most) * 2 * STEP_PX };
}
const weigh = (sum: number, moment: number, rise = 0, i: number): [number, number] => [
	sum + rise,
	moment + rise * i
];

/** The line through points, by least squares across it; what lies off is left out and the rest drawn again. */
function lineThrough(points: readonly Point2[]): Line | null {
	let kept = points;
	for (let turn = 0; turn < 3; turn++) {
		const line = squaresLine(kept);
		if (!line) return null;
		const offs = points.map(({ x, y }) =>
			Math.abs((x - line.at.x) * line.across.x + (y - line.at.y) * line.across.y)
		);
		const middle = [...offs].sort((a, b) => a - b)[Math.floor(offs.length / 2)] ?? 0;
		const inside = points.filter((_, i) => (offs[i] ?? 0) <= Math.max(0.15, 3 * middle));
		if (turn === 2 || inside.length === kept.length) return line;
		kept = inside;
	}
	return null;
}

function squaresLine(points: readonly Point2[]): Line | null {
	if (points.length < 2) return null;
	const at = {
		x: points.reduce((sum, { x }) => sum + x, 0) / points.length,
		y: points.reduce((sum, { y }) => sum + y, 0) / points.length
	};
	const [xx, xy, yy] = points.reduce<[number, number, number]>(
		([a, b, c], { x, y }) => [a + (x - at.x) ** 2, b + (x - at.x) * (y - at.y), c + (y - at.y) ** 2],
		[0, 0, 0]
	);
	const along = 0.5 * Math.atan2(2 * xy, xx - yy);
	return { at, across: { x: -Math.sin(along), y: Math.cos(along) } };
}
