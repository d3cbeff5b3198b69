import { z } from 'zod';
import {
	broughtDown,
	picturePoint,
	pictureLengthInput,
	seenAt,
	toldIn,
	type Plane,
	type Point2
} from '../../examine/pictures/plane';
import { normaliseDeg, turnDeg } from '../../maths/circular';
import { Z95 } from '../../maths/normal';
import type { Values } from '../../values/values';
import { measure } from '../../vocabulary/fields';
import { barkRadiusMm, type Trunk } from './outline';
import type { Segment } from './root-map';

/*
 * Depth of roots below the flare, from a picture taken from the side: what lies beside for its size stands upright, its face to the camera.
 */

/** What was told of a picture taken from the side. */
export interface FromSide {
	plane: Plane;
	/** Where the two edges of the trunk meet its flare, px. */
	edges: readonly [Point2, Point2];
	/** Azimuth in which the camera stood. */
	fromDeg: number;
	/** How far in front of the middle of the trunk stands what lies beside for its size, mm. */
	inFrontMm: number;
	/** How far a touch is off on each axis, one deviation, px. */
	touchPx: number;
}

/** Depths from the side, as they are asked for. */
export const rootDepthInput = z.strictObject({
	corners: pictureLengthInput.shape.corners,
	rectangle: pictureLengthInput.shape.rectangle,
	picture: pictureLengthInput.shape.picture,
	touchPx: pictureLengthInput.shape.touchPx,
	edges: z.tuple([picturePoint, picturePoint]).describe('Where the two edges of the trunk meet its flare'),
	bases: z
		.array(picturePoint)
		.min(1, { error: 'must be one or more' })
		.max(60, { error: 'must be at most 60' })
		.describe('The middle of each root where it leaves the trunk'),
	trunkDiameterMm: measure(2, 3000, 'mm'),
	fromDeg: measure(-360, 720, '°').describe('Azimuth in which the camera stood'),
	inFrontMm: measure(-1000, 1000, 'mm')
		.default(0)
		.describe('How far in front of the middle of the trunk the rectangle stands')
});

/** Where a root leaves the trunk, as it is seen from the side. */
export const seenFromSideOutput = z.object({
	azimuthDeg: z.number(),
	depthMm: z.number().describe('Of its middle below the flare, mm; above it below 0'),
	errorMm: z.number().describe('Within so much the true depth lies in 95 of 100, mm')
});
export type SeenFromSide = z.infer<typeof seenFromSideOutput>;

/** How the plane is seen of which the flare is level: across, down and toward the camera, mm. */
function flareIn({ plane, inFrontMm }: FromSide, [left, right]: readonly [Point2, Point2]) {
	const down = (at: Point2, nearerMm: number): Point2 =>
		plane.under ? broughtDown(at, plane.under, plane.cameraMm, nearerMm) : at;
	const [l, r] = [down(left, -inFrontMm), down(right, -inFrontMm)];
	const widthMm = Math.hypot(r.x - l.x, r.y - l.y);
	const across = { x: (r.x - l.x) / widthMm, y: (r.y - l.y) / widthMm };
	const middle = { x: (l.x + r.x) / 2, y: (l.y + r.y) / 2 };
	/** Where a thing lies that is so far before the middle of the trunk. */
	const place = (
		at: Point2,
		towardMm: number
	): { acrossMm: number; depthMm: number; fromCameraMm: number } => {
		const { x, y } = down(at, towardMm - inFrontMm);
		const [dx, dy] = [x - middle.x, y - middle.y];
		return {
			acrossMm: dx * across.x + dy * across.y,
			depthMm: dy * across.x - dx * across.y,
			fromCameraMm: plane.under ? Math.hypot(at.x - plane.under.x, at.y - plane.under.y) : 0
		};
	};
	return { widthMm, place };
}

/** The left edge first, as they are seen. */
const inOrder = ([a, b]: FromSide['edges']): readonly [Point2, Point2] => (a.x <= b.x ? [a, b] : [b, a]);

/** How wide the trunk is between its two edges, mm; null where the plane does not tell it. */
export const widthFromSide = (side: FromSide, values: Values): number | null =>
	toldIn(
		side.plane,
		inOrder(side.edges),
		side.touchPx,
		([l, r]) => (l && r ? flareIn(side, [l, r]).widthMm : NaN),
		values
	)?.mm ?? null;

/** Where a place of the bark lies by how far it is seen from the middle: round the trunk until bark and sight agree. */
function onBark(trunk: Trunk, fromDeg: number, flare: ReturnType<typeof flareIn>, at: Point2) {
	let [azimuthDeg, towardMm] = [fromDeg, barkRadiusMm(trunk, fromDeg)];
	let seen = flare.place(at, towardMm);
	let radiusMm = towardMm;
	for (let turn = 0; turn < 8; turn++) {
		radiusMm = barkRadiusMm(trunk, azimuthDeg);
		const sine = Math.max(-1, Math.min(1, seen.acrossMm / radiusMm));
		// Seen from azimuth 0 the right hand is towards 270°.
		azimuthDeg = fromDeg - (Math.asin(sine) * 180) / Math.PI;
		towardMm = radiusMm * Math.sqrt(1 - sine ** 2);
		seen = flare.place(at, towardMm);
	}
	return { ...seen, azimuthDeg: normaliseDeg(azimuthDeg), radiusMm };
}

/**
 * Where a root leaves the trunk and how deep, from where the middle of its base is seen.
 * @param at the middle of its base, px
 * @returns null where it is seen beside the trunk, or so near the horizon that the picture tells little of it
 */
export function seenFromSide(side: FromSide, trunk: Trunk, at: Point2, values: Values): SeenFromSide | null {
	const { plane } = side;
	const read = (points: readonly Point2[]): ReturnType<typeof onBark> | null => {
		const [l, r, base] = points;
		return l && r && base ? onBark(trunk, side.fromDeg, flareIn(side, [l, r]), base) : null;
	};
	const touched = [...inOrder(side.edges), at];
	const found = read(touched.map((point) => seenAt(plane.toMm, point)));
	const told = toldIn(plane, touched, side.touchPx, (points) => read(points)?.depthMm ?? NaN, values);
	if (!told || !found || Math.abs(found.acrossMm) > found.radiusMm + values['picture.besideMm']) return null;
	// Nearer than thought by so much, all that lies off what is straight before the camera is seen too far off.
	const ofHeight =
		Math.hypot(
			values['picture.heightOffMm'] * found.depthMm,
			values['picture.heightSaidMm'] * found.fromCameraMm
		) / plane.cameraMm;
	return {
		azimuthDeg: found.azimuthDeg,
		depthMm: told.mm,
		errorMm: Math.hypot(
			told.errorMm,
			Z95 * Math.hypot(ofHeight, values['picture.flareOffMm']),
			plane.nearFar * found.depthMm
		)
	};
}

/** Roots of the trunk that may be the one seen at an azimuth, the nearest first. */
export const rootsAbout = <T extends Pick<Segment, 'parentId' | 'course'>>(
	segments: readonly T[],
	azimuthDeg: number,
	values: Values
): T[] =>
	segments
		.filter(({ parentId }) => parentId === null)
		.map((segment) => ({
			segment,
			offDeg: Math.abs(turnDeg(azimuthDeg, segment.course[0]?.azimuthDeg ?? 0))
		}))
		.filter(({ offDeg }) => offDeg <= values['picture.sideMatchDeg'])
		.sort((a, b) => a.offDeg - b.offDeg)
		.map(({ segment }) => segment);

/**
 * Roots of which some were seen from the side: all of such a root lies so much deeper or higher, and with it the side roots whose own depth was
 * a guess, which stays one.
 * @param depths by the id of the root, mm
 */
export function deepened(
	segments: readonly Segment[],
	depths: readonly ({ id: string } & Pick<SeenFromSide, 'depthMm' | 'errorMm'>)[],
	pictureId: string
): Segment[] {
	const tenths = (mm: number): number => Math.round(10 * mm) / 10;
	const told = new Map(depths.map((one) => [one.id, one]));
	const known = new Map(segments.map((segment) => [segment.id, segment]));
	const movedBy = ({ id, parentId, course, guessed }: Segment): number => {
		const seen = told.get(id);
		if (seen) return seen.depthMm - (course[0]?.depthMm ?? 0);
		const parent = parentId !== null && guessed.includes('depth') ? known.get(parentId) : undefined;
		return parent ? movedBy(parent) : 0;
	};
	return segments.map((segment) => {
		const by = movedBy(segment);
		const seen = told.get(segment.id);
		if (by === 0 && !seen) return segment;
		const course = segment.course.map((point) => ({ ...point, depthMm: tenths(point.depthMm + by) }));
		return seen
			? {
					...segment,
					course,
					guessed: segment.guessed.filter((one) => one !== 'depth'),
					depthIn: { pictureId, errorMm: tenths(seen.errorMm) }
				}
			: { ...segment, course };
	});
}
