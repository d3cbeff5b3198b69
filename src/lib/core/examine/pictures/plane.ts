import { determinant, Matrix, SVD } from 'ml-matrix';
import { z } from 'zod';
import { Z95 } from '../../maths/normal';
import { focalShare, PICTURE_SIDE_PX } from '../../take-in/picture';
import type { Values } from '../../values/values';
import { count, measure } from '../../vocabulary/fields';
import { wordsOf } from '../../vocabulary/words-of';
import { ellipseThrough } from './ellipse';
import { lengthThrough, type Point2 } from './point';

/*
 * Lengths in a picture: a rectangle of known size lies in it, and tells how the plane it lies in is seen.
 */

export type { Point2 } from './point';

/** How points of one plane are seen in another: three rows of three numbers. */
export const homographyOutput = z
	.array(z.number().describe('Three rows of three numbers'))
	.length(9)
	.readonly();
export type Homography = z.infer<typeof homographyOutput>;

const row = (homography: Homography, i: number, { x, y }: Point2): number =>
	(homography[i] ?? NaN) * x + (homography[i + 1] ?? NaN) * y + (homography[i + 2] ?? NaN);
/** By what a point is the farther away the smaller it is; on the horizon nothing, behind it below nothing. */
const depthOf = (homography: Homography, point: Point2): number => row(homography, 6, point);

/** Where a point of one plane is seen in the other. */
export function seenAt(homography: Homography, point: Point2): Point2 {
	const depth = depthOf(homography, point);
	return { x: row(homography, 0, point) / depth, y: row(homography, 3, point) / depth };
}

/** Numbers of a homography, known but for their scale. */
const UNKNOWNS = 9;

/** Moves points about their middle, and makes their mean distance from it √2: the equations are then well conditioned. */
function levelled(points: readonly Point2[]): { points: Point2[]; by: Matrix } {
	const mean = (of: (point: Point2) => number): number =>
		points.reduce((sum, point) => sum + of(point), 0) / points.length;
	const [x0, y0] = [mean(({ x }) => x), mean(({ y }) => y)];
	const scale = Math.SQRT2 / mean(({ x, y }) => Math.hypot(x - x0, y - y0));
	return {
		points: points.map(({ x, y }) => ({ x: (x - x0) * scale, y: (y - y0) * scale })),
		by: new Matrix([
			[scale, 0, -scale * x0],
			[0, scale, -scale * y0],
			[0, 0, 1]
		])
	};
}

/**
 * The homography that takes points of one plane to points of another, by the normalised direct linear transformation.
 * @param from four points or more, no three of them on one line
 * @param to where each of them is seen
 * @returns three rows of three numbers, or null where the points do not tell it
 * @see Hartley & Zisserman 2004, Multiple View Geometry, algorithm 4.2
 */
export function homographyOf(from: readonly Point2[], to: readonly Point2[]): Homography | null {
	if (from.length < 4 || from.length !== to.length) return null;
	const [a, b] = [levelled(from), levelled(to)];
	const rows = a.points.flatMap(({ x, y }, i) => {
		const { x: u, y: v } = b.points[i] ?? { x: NaN, y: NaN };
		return [
			[-x, -y, -1, 0, 0, 0, u * x, u * y, u],
			[0, 0, 0, -x, -y, -1, v * x, v * y, v]
		];
	});
	// A row of nothing, so that the decomposition has the ninth direction too.
	while (rows.length < UNKNOWNS) rows.push(Array.from({ length: UNKNOWNS }, () => 0));
	if (rows.flat().some((value) => !Number.isFinite(value))) return null;
	const { rightSingularVectors, diagonal } = new SVD(new Matrix(rows));
	// Two directions without weight: three of the points lie on one line.
	if ((diagonal[UNKNOWNS - 2] ?? 0) < 1e-6 * (diagonal[0] ?? 1)) return null;
	const level = Matrix.from1DArray(3, 3, rightSingularVectors.getColumn(UNKNOWNS - 1));
	// Seen on one line, the plane is flat like a sheet from its edge.
	if (Math.abs(determinant(level)) < 1e-9) return null;
	const whole = new SVD(b.by).inverse().mmul(level).mmul(a.by).to1DArray();
	const last = whole[UNKNOWNS - 1] ?? 0;
	return Math.abs(last) < 1e-12 ? null : whole.map((value) => value / last);
}

/** Why a rectangle does not tell how its plane is seen, and what to do. */
export const planeFaultSaid = {
	'no-rim': 'These lie on no round rim: touch six places of its edge, spread all round it, each once.',
	'no-rectangle': 'These four are not the corners of a rectangle: touch them anew, each once.',
	'too-small':
		'It is too small in this picture to go by: take one from nearer, or lay something larger beside.',
	'too-far': 'One of these points lies too far behind what lies beside for its size: measure nearer to it.',
	'too-tilted': 'Taken too much from the side: lengths would be off. Take one from straight in front of it.'
};
export type PlaneFault = keyof typeof planeFaultSaid;
export const planeFaults = wordsOf(planeFaultSaid);

/** What may lie beside for its size, and its name; sizes by ISO/IEC 7810 (2019) and ISO 216 (2007). */
export const knownRectangles = {
	'bank-card': { name: 'bank card', widthMm: 85.6, heightMm: 53.98 },
	a6: { name: 'A6', widthMm: 148, heightMm: 105 },
	a5: { name: 'A5', widthMm: 210, heightMm: 148 },
	a4: { name: 'A4', widthMm: 297, heightMm: 210 },
	letter: { name: 'Letter', widthMm: 279.4, heightMm: 215.9 }
};
export type KnownRectangle = keyof typeof knownRectangles;

/** A point of a picture. */
export const picturePoint = z.strictObject({
	x: measure(-PICTURE_SIDE_PX, 2 * PICTURE_SIDE_PX, 'px').describe('From the left edge of the picture, px'),
	y: measure(-PICTURE_SIDE_PX, 2 * PICTURE_SIDE_PX, 'px').describe('From the upper edge of the picture, px')
});

/** A length in a picture, as it is asked for. */
export const pictureLengthInput = z.strictObject({
	corners: z
		.array(picturePoint)
		.length(4, { error: 'must be four corners' })
		.describe('Where the corners of the rectangle are seen, in any order'),
	rectangle: z.strictObject({ widthMm: measure(5, 3000, 'mm'), heightMm: measure(5, 3000, 'mm') }),
	picture: z.strictObject({
		widthPx: count(1, PICTURE_SIDE_PX),
		heightPx: count(1, PICTURE_SIDE_PX),
		focalShare: focalShare()
	}),
	points: z
		.array(picturePoint)
		.min(2, { error: 'must be two points or more' })
		.max(60, { error: 'must be at most 60 points' })
		.describe('Along the thing, from one end to the other'),
	touchPx: measure(0.05, 200, 'px').describe('How far a touch is off on each axis, one deviation')
});

/** A picture that is measured in: its sides, and the focal length of its camera against the longer one where its file says it. */
export interface Shot {
	widthPx: number;
	heightPx: number;
	focalShare?: number | null;
}
const focalPxOf = ({ widthPx, heightPx, focalShare }: Shot, values: Values): number =>
	(focalShare ?? values['picture.focalShare']) * Math.max(widthPx, heightPx);

/** A plane as it is seen in a picture. */
export interface Plane {
	/** From pixels of the picture to millimetres of the plane. */
	toMm: Homography;
	/** How far it was taken from straight above the plane, degrees; null where two points tell the scale and no more. */
	tiltDeg: number | null;
	/** How far the camera was from the middle of the rectangle, mm. */
	distanceMm: number;
	/** The place of the plane that lies straight under the camera, mm; null where that is not known. */
	under: Point2 | null;
	/** How high the camera was above the plane, mm. */
	cameraMm: number;
	/** The corners that tell it, px, in the order of `homographyOf`. */
	corners: readonly Point2[];
	/** How far they are off on each axis, one deviation, px; null where they were touched as the points are. */
	cornerPx: number | null;
	/** Where they lie in the plane, mm; of a rim its middle and a place of its edge. */
	flat: readonly Point2[];
	/** What lies at the edge of a rim is seen so much larger or smaller than its middle, share; 0 where that is corrected. */
	nearFar: number;
}

/** The plane by what was seen of it: four corners, six places of a round rim, or two points and no tilt. */
const planeBy = (seen: readonly Point2[], flat: readonly Point2[]): Homography | null =>
	seen.length === 2
		? scaleOnly(seen, flat)
		: seen.length === RIM_POINTS
			? (rimSeen(seen, flat[1]?.x ?? NaN)?.toMm ?? null)
			: homographyOf(seen, flat);

/** Places of a rim that are touched. */
export const RIM_POINTS = 6;

/** Pixels to millimetres where the picture is taken as straight from above. */
function scaleOnly(seen: readonly Point2[], flat: readonly Point2[]): Homography | null {
	const apart = ([a, b]: readonly Point2[]): number => (a && b ? Math.hypot(a.x - b.x, a.y - b.y) : NaN);
	const mmPerPx = apart(flat) / apart(seen);
	return Number.isFinite(mmPerPx) ? [mmPerPx, 0, 0, 0, mmPerPx, 0, 0, 0, 1] : null;
}

/** Corners in a row round their middle, beginning so that a long side comes first where the rectangle has one. */
function inOrder(corners: readonly Point2[], isWide: boolean): Point2[] {
	const [x0, y0] = [0, 1].map(
		(axis) => corners.reduce((sum, { x, y }) => sum + (axis ? y : x), 0) / corners.length
	) as [number, number];
	const round = [...corners].sort((a, b) => Math.atan2(a.y - y0, a.x - x0) - Math.atan2(b.y - y0, b.x - x0));
	const side = (i: number): number => {
		const [a, b] = [round[i % 4], round[(i + 1) % 4]];
		return a && b ? Math.hypot(a.x - b.x, a.y - b.y) : 0;
	};
	const firstIsLong = side(0) + side(2) >= side(1) + side(3);
	return firstIsLong === isWide ? round : [...round.slice(1), ...round.slice(0, 1)];
}

/** Corners of a rectangle in its own plane, mm, its width first. */
const cornersOf = ({ widthMm, heightMm }: { widthMm: number; heightMm: number }): Point2[] => [
	{ x: 0, y: 0 },
	{ x: widthMm, y: 0 },
	{ x: widthMm, y: heightMm },
	{ x: 0, y: heightMm }
];

/** Twice the area of a triangle, with its sign. */
const turn = (a: Point2, b: Point2, c: Point2): number =>
	(b.x - a.x) * (c.y - a.y) - (b.y - a.y) * (c.x - a.x);

/**
 * The plane in which a rectangle of known size lies, from where its corners are seen, in whatever order they were touched.
 * @param corners four points, px
 * @param rectangle its sides, mm
 * @param picture its sides, px
 * @returns the plane, or why the corners do not tell it
 */
export function planeOf(
	corners: readonly Point2[],
	rectangle: { widthMm: number; heightMm: number },
	picture: Shot,
	values: Values
): Plane | PlaneFault {
	const round = inOrder(corners, rectangle.widthMm >= rectangle.heightMm);
	const [a, b, c, d] = round;
	if (!a || !b || !c || !d || round.length !== 4) return 'no-rectangle';
	// A rectangle is seen as four corners that all turn one way.
	const turns = [turn(a, b, c), turn(b, c, d), turn(c, d, a), turn(d, a, b)];
	const longest = Math.max(picture.widthPx, picture.heightPx);
	const areaPx2 = ((turns[0] ?? 0) + (turns[2] ?? 0)) / 2;
	if (turns.some((one) => one <= values['picture.cornerLeast'] * areaPx2)) return 'no-rectangle';
	if (Math.sqrt(areaPx2) < values['picture.smallestShare'] * longest) return 'too-small';
	const flat = cornersOf(rectangle);
	const toMm = homographyOf(round, flat);
	const toPx = homographyOf(flat, round);
	if (!toMm || !toPx) return 'no-rectangle';
	const { tiltDeg, ...view } = viewOf(toPx, rectangle, picture, values);
	if (tiltDeg > values['picture.tiltMostDeg']) return 'too-tilted';
	return { toMm, tiltDeg, ...view, corners: round, cornerPx: null, flat, nearFar: 0 };
}

/**
 * The scale of a picture from two points a known distance apart. Tilt is not corrected: what lies nearer or farther than they reads wrong.
 * @param seen two points, px
 * @param apartMm how far they are apart, mm
 * @param picture its sides, px
 * @returns the plane, or why they do not tell it
 */
export function scaleOf(
	seen: readonly [Point2, Point2],
	apartMm: number,
	picture: Shot,
	values: Values
): Plane | PlaneFault {
	const longest = Math.max(picture.widthPx, picture.heightPx);
	const apartPx = Math.hypot(seen[0].x - seen[1].x, seen[0].y - seen[1].y);
	const flat = [
		{ x: 0, y: 0 },
		{ x: apartMm, y: 0 }
	];
	const toMm = scaleOnly(seen, flat);
	if (!toMm || apartPx < values['picture.smallestShare'] * longest) return 'too-small';
	const distanceMm = (focalPxOf(picture, values) * apartMm) / apartPx;
	return {
		toMm,
		tiltDeg: null,
		distanceMm,
		// As taken from straight above.
		under: seenAt(toMm, { x: picture.widthPx / 2, y: picture.heightPx / 2 }),
		cameraMm: distanceMm,
		corners: seen,
		cornerPx: null,
		flat,
		nearFar: 0
	};
}

/** A round rim as it is seen: an ellipse, and how its plane becomes millimetres where it is far away for its size. */
function rimSeen(
	seen: readonly Point2[],
	radiusMm: number
): { toMm: Homography; tiltDeg: number; middle: Point2; halfLongPx: number; offShare: number } | null {
	const ellipse = ellipseThrough(seen);
	if (!ellipse) return null;
	const { middle, halfLong, halfShort, turnDeg } = ellipse;
	const [c, s] = [Math.cos((turnDeg * Math.PI) / 180), Math.sin((turnDeg * Math.PI) / 180)];
	const [along, across] = [radiusMm / halfLong, radiusMm / halfShort];
	const toMm = [
		along * c,
		along * s,
		-along * (c * middle.x + s * middle.y),
		-across * s,
		across * c,
		across * (s * middle.x - c * middle.y),
		0,
		0,
		1
	];
	const offs = seen.map((point) => {
		const { x, y } = seenAt(toMm, point);
		return Math.abs(Math.hypot(x, y) / radiusMm - 1);
	});
	return {
		toMm,
		tiltDeg: Math.acos(Math.min(1, halfShort / halfLong)) * (180 / Math.PI),
		middle,
		halfLongPx: halfLong,
		offShare: Math.max(...offs)
	};
}

/** The widest gap between directions, degrees. */
function widestGapDeg(middle: Point2, points: readonly Point2[]): number {
	const towards = points
		.map(({ x, y }) => (Math.atan2(y - middle.y, x - middle.x) * 180) / Math.PI)
		.sort((a, b) => a - b);
	return Math.max(...towards.map((deg, i) => (towards[i + 1] ?? (towards[0] ?? 0) + 360) - deg));
}

/**
 * The plane of a round rim of known width, as of a pot, from six places of its edge. Its tilt is corrected; that its near side is seen larger
 * than its far one is not, and goes into the error of what is read.
 * @param seen six points, px
 * @param widthMm inside, where it was touched, mm
 * @param picture its sides, px
 * @returns the plane, or why they do not tell it
 */
export function rimOf(
	seen: readonly Point2[],
	widthMm: number,
	picture: Shot,
	values: Values
): Plane | PlaneFault {
	const longest = Math.max(picture.widthPx, picture.heightPx);
	const rim = seen.length === RIM_POINTS ? rimSeen(seen, widthMm / 2) : null;
	if (!rim || rim.offShare > values['picture.rimOffMost']) return 'no-rim';
	if (widestGapDeg(rim.middle, seen) > values['picture.rimGapMostDeg']) return 'no-rim';
	if (rim.halfLongPx < values['picture.smallestShare'] * longest) return 'too-small';
	if (rim.tiltDeg > values['picture.tiltMostDeg']) return 'too-tilted';
	const distanceMm = (focalPxOf(picture, values) * (widthMm / 2)) / rim.halfLongPx;
	return {
		toMm: rim.toMm,
		tiltDeg: rim.tiltDeg,
		distanceMm,
		// An ellipse does not tell which side of it is the near one.
		under: null,
		cameraMm: distanceMm * Math.cos((rim.tiltDeg * Math.PI) / 180),
		corners: seen,
		cornerPx: null,
		flat: [
			{ x: 0, y: 0 },
			{ x: widthMm / 2, y: 0 }
		],
		nearFar: ((widthMm / 2) * Math.sin((rim.tiltDeg * Math.PI) / 180)) / distanceMm
	};
}

/** From where a plane was seen, for a camera as phones have it. @see Hartley & Zisserman 2004, section 8.1 */
function viewOf(
	toPx: Homography,
	{ widthMm, heightMm }: { widthMm: number; heightMm: number },
	picture: Shot,
	values: Values
): { tiltDeg: number; distanceMm: number; under: Point2; cameraMm: number } {
	const focalPx = focalPxOf(picture, values);
	const column = (i: number): Vector => {
		const depth = toPx[6 + i] ?? NaN;
		return [
			((toPx[i] ?? NaN) - (picture.widthPx / 2) * depth) / focalPx,
			((toPx[3 + i] ?? NaN) - (picture.heightPx / 2) * depth) / focalPx,
			depth
		];
	};
	const [right, down, at] = [column(0), column(1), column(2)];
	const scale = (Math.hypot(...right) + Math.hypot(...down)) / 2;
	const normal = [
		right[1] * down[2] - right[2] * down[1],
		right[2] * down[0] - right[0] * down[2],
		right[0] * down[1] - right[1] * down[0]
	] as const;
	const slant = Math.hypot(...normal);
	const middle = at.map(
		(value, i) => (value + ((right[i] ?? 0) * widthMm + (down[i] ?? 0) * heightMm) / 2) / scale
	);
	return {
		tiltDeg: Math.acos(Math.min(1, Math.abs(normal[2]) / slant)) * (180 / Math.PI),
		distanceMm: Math.hypot(...middle),
		// The camera lies where all three of its directions are nothing.
		under: { x: -dot(right, at) / dot(right, right), y: -dot(down, at) / dot(down, down) },
		cameraMm: Math.abs(dot(normal, at)) / slant / scale
	};
}
type Vector = readonly [number, number, number];
const dot = (a: Vector, b: Vector): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];

/**
 * Where a thing lies that is seen at a place of the plane and is nearer to the camera than the plane: straight below it, in the plane.
 * @param at where it is seen, mm of the plane
 * @param under the place of the plane under the camera, mm
 * @param cameraMm how high the camera was above the plane, mm
 * @param nearerMm how much nearer, mm; below 0 it lies beyond the plane
 */
export const broughtDown = (at: Point2, under: Point2, cameraMm: number, nearerMm: number): Point2 => ({
	x: at.x + ((under.x - at.x) * nearerMm) / cameraMm,
	y: at.y + ((under.y - at.y) * nearerMm) / cameraMm
});

/** A length in a plane of a picture. */
export const pictureLengthOutput = z.object({
	mm: z.number(),
	errorMm: z.number().describe('Within so much of it the true length lies in 95 of 100, mm')
});
export type PictureLength = z.infer<typeof pictureLengthOutput>;

/**
 * By what share a thing reads too long that lies nearer to the camera than the plane, h / (d − h).
 * @param nearerMm how much nearer, mm
 * @returns share of its length, from 0
 */
export const readsLongBy = ({ distanceMm }: Pick<Plane, 'distanceMm'>, nearerMm: number): number =>
	nearerMm / (distanceMm - nearerMm);

/**
 * Length of a line of points in the plane of a picture, with what the touches leave open.
 * @param points two or more along the thing, px
 * @param touchPx how far a touch is off on each axis, one deviation, px of the picture
 * @returns the length, or null where a point is seen so near the horizon that the picture tells little of it
 */
export function lengthIn(
	plane: Plane,
	points: readonly Point2[],
	touchPx: number,
	values: Values
): PictureLength | null {
	const length = toldIn(plane, points, touchPx, lengthThrough, values);
	return length && { ...length, errorMm: Math.hypot(length.errorMm, plane.nearFar * length.mm) };
}

/**
 * What points in the plane of a picture tell, with what the touches leave open: each was off by some pixels, the corners as well as the
 * points, carried through to first order.
 * @param points px
 * @param touchPx how far a touch is off on each axis, one deviation, px of the picture
 * @param tells what the points tell, mm, from where they lie in the plane, mm
 * @returns null where a point is seen so near the horizon that the picture tells little of it
 */
export function toldIn(
	plane: Plane,
	points: readonly Point2[],
	touchPx: number,
	tells: (points: readonly Point2[]) => number,
	values: Values
): PictureLength | null {
	const { corners, flat } = plane;
	const near = corners.reduce((sum, corner) => sum + depthOf(plane.toMm, corner), 0) / corners.length;
	if (points.some((point) => depthOf(plane.toMm, point) / near < values['picture.farShare'])) return null;
	const touched = [...corners, ...points];
	const told = (toMm: Homography, all: readonly Point2[]): number =>
		tells(all.slice(corners.length).map((point) => seenAt(toMm, point)));
	const toldOf = (all: readonly Point2[]): number => {
		const toMm = planeBy(all.slice(0, corners.length), flat);
		return toMm ? told(toMm, all) : NaN;
	};
	const slopes = touched.flatMap((_, i) =>
		(['x', 'y'] as const).map((axis) => {
			const moved = (by: number): Point2[] =>
				touched.map((point, j) => (j === i ? { ...point, [axis]: point[axis] + by } : point));
			const offPx = i < corners.length ? (plane.cornerPx ?? touchPx) : touchPx;
			return (toldOf(moved(0.5)) - toldOf(moved(-0.5))) * offPx;
		})
	);
	return { mm: told(plane.toMm, touched), errorMm: Z95 * Math.hypot(...slopes) };
}

/** A thing measured on two days in one plane. */
export interface Grown {
	then: PictureLength;
	now: PictureLength;
	/** Longer now by so much; below 0 shorter. */
	grew: PictureLength;
}

/**
 * How much longer a thing is in a later picture than in an earlier one that was laid over it.
 * @param then, now points along the thing as it was and as it is, px of the later picture
 * @param touchPx how far a touch is off on each axis, one deviation, px
 * @param lineUpPx how far the earlier picture lies off the later, one deviation on each axis, px
 * @returns null where one of the two cannot be told
 */
export function grownBetween(
	plane: Plane,
	then: readonly Point2[],
	now: readonly Point2[],
	touchPx: number,
	lineUpPx: number,
	values: Values
): Grown | null {
	const before = lengthIn(plane, then, Math.hypot(touchPx, lineUpPx), values);
	const after = lengthIn(plane, now, touchPx, values);
	if (!before || !after) return null;
	return {
		then: before,
		now: after,
		grew: { mm: after.mm - before.mm, errorMm: Math.hypot(before.errorMm, after.errorMm) }
	};
}
