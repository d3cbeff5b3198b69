import { inverse, Matrix } from 'ml-matrix';
import type { Values } from '../../values/values';
import { seenAt, type Homography, type Plane, type Point2 } from './plane';
import { shadeAt, smaller, type Grey, type Rgba } from './raster';

/*
 * A picture turned to its plane: as seen from straight above, the middle of the trunk in its middle and azimuth 0 up.
 */

const matrix = (homography: Homography): Matrix => Matrix.from1DArray(3, 3, [...homography]);

/** One homography after another. */
export const after = (second: Homography, first: Homography): Homography =>
	matrix(second).mmul(matrix(first)).to1DArray();

/** The way back of a homography. @throws Error where it flattens its plane to a line */
export const backOf = (homography: Homography): Homography => inverse(matrix(homography)).to1DArray();

/** A picture laid out as a root map is: x to azimuth 90°, y to azimuth 180°, mm from the middle of the trunk. */
export interface Laid {
	/** From pixels of the picture to millimetres of the map. */
	toPlan: Homography;
	/** From millimetres of the map to pixels of the picture. */
	toPx: Homography;
	/** One pixel of the picture at the middle of the trunk, mm. */
	mmPerPx: number;
}

/**
 * Lays a picture out by two touches in its plane.
 * @param middle where the middle of the trunk meets the plane, px
 * @param front a place towards azimuth 0, the front of a container or north in the ground, px
 * @returns null where the two touches are one, or lie beyond what the plane tells
 */
export function laidOut(plane: Plane, middle: Point2, front: Point2): Laid | null {
	const [m, f] = [seenAt(plane.toMm, middle), seenAt(plane.toMm, front)];
	const far = Math.hypot(f.x - m.x, f.y - m.y);
	if (!(far > 1)) return null;
	const [dx, dy] = [(f.x - m.x) / far, (f.y - m.y) / far];
	const turned = [-dy, dx, dy * m.x - dx * m.y, -dx, -dy, dx * m.x + dy * m.y, 0, 0, 1];
	const toPlan = after(turned, plane.toMm);
	const one = seenAt(toPlan, { x: middle.x + 1, y: middle.y });
	const other = seenAt(toPlan, { x: middle.x, y: middle.y + 1 });
	const mmPerPx = (Math.hypot(one.x, one.y) + Math.hypot(other.x, other.y)) / 2;
	return Number.isFinite(mmPerPx) ? { toPlan, toPx: backOf(toPlan), mmPerPx } : null;
}

/** A square about the middle of the trunk, turned to the plane. */
export interface Flat {
	sidePx: number;
	/** Its edges lie so far from the middle, mm. */
	reachMm: number;
	mmPerPx: number;
}

/** From a place of the map, mm, to the flat picture, px. */
export const flatPx = ({ reachMm, mmPerPx }: Flat, { x, y }: Point2): Point2 => ({
	x: (x + reachMm) / mmPerPx,
	y: (y + reachMm) / mmPerPx
});
/** From the flat picture, px, to the map, mm. */
export const flatMm = ({ reachMm, mmPerPx }: Flat, { x, y }: Point2): Point2 => ({
	x: x * mmPerPx - reachMm,
	y: y * mmPerPx - reachMm
});

/**
 * How much of a picture is turned to its plane.
 * @param picture its sides, px
 * @param wantedMm how far from the trunk is wanted, mm; no farther than the picture shows
 */
export function flatOf(
	{ toPx, toPlan, mmPerPx }: Laid,
	picture: { widthPx: number; heightPx: number },
	wantedMm: number,
	values: Values
): Flat {
	const corners = [0, 1].flatMap((x) =>
		[0, 1].map((y) => ({ x: x * picture.widthPx, y: y * picture.heightPx }))
	);
	const middle = toPx[8] ?? 1;
	const shown = corners.map((corner) => {
		const at = seenAt(toPlan, corner);
		const size = middle / ((toPx[6] ?? 0) * at.x + (toPx[7] ?? 0) * at.y + middle);
		return size > values['picture.farShare'] ? Math.hypot(at.x, at.y) : Infinity;
	});
	const reachMm = Math.max(20, Math.min(wantedMm, values['picture.reachMostMm'], Math.max(...shown)));
	const most = values['picture.flatPx'];
	const finest = Math.max(mmPerPx, (2 * reachMm) / most);
	const sidePx = Math.max(16, Math.round((2 * reachMm) / finest));
	return { sidePx, reachMm, mmPerPx: (2 * reachMm) / sidePx };
}

/** Where a picture shows a place of the map, or null beyond its edge. */
function within({ toPx }: Laid, at: Point2, width: number, height: number): Point2 | null {
	const seen = seenAt(toPx, at);
	return seen.x >= 0 && seen.y >= 0 && seen.x <= width && seen.y <= height ? seen : null;
}

/**
 * The shades of a picture turned to its plane; beyond its edge the shade of its edge goes on.
 * @param grey the whole picture
 */
export function flatGrey(grey: Grey, laid: Laid, flat: Flat): Grey {
	const by = Math.max(1, Math.floor(flat.mmPerPx / laid.mmPerPx));
	const fine = smaller(grey, by);
	const data = new Float32Array(flat.sidePx ** 2);
	for (let y = 0; y < flat.sidePx; y++)
		for (let x = 0; x < flat.sidePx; x++) {
			const seen = seenAt(laid.toPx, flatMm(flat, { x: x + 0.5, y: y + 0.5 }));
			data[y * flat.sidePx + x] = shadeAt(fine, seen.x / by, seen.y / by);
		}
	return { width: flat.sidePx, height: flat.sidePx, data };
}

/** A picture turned to its plane in its colours, clear where it does not reach. */
export const flatColours = (picture: Rgba, laid: Laid, flat: Flat): Rgba =>
	drawnFrom(picture, { width: flat.sidePx, height: flat.sidePx }, (at) =>
		seenAt(laid.toPx, flatMm(flat, at))
	);

/**
 * An earlier picture as it lies over a later one, clear where it does not reach.
 * @param toAfter from pixels of the earlier to pixels of the later
 */
export function laidOver(before: Rgba, after: Pick<Rgba, 'width' | 'height'>, toAfter: Homography): Rgba {
	const back = backOf(toAfter);
	return drawnFrom(before, after, (at) => seenAt(back, at));
}

/** A picture of a size, each pixel as another shows it at a place, px. */
function drawnFrom(
	picture: Rgba,
	{ width, height }: Pick<Rgba, 'width' | 'height'>,
	placeOf: (at: Point2) => Point2
): Rgba {
	const data = new Uint8ClampedArray(4 * width * height);
	for (let y = 0; y < height; y++)
		for (let x = 0; x < width; x++) {
			const seen = placeOf({ x: x + 0.5, y: y + 0.5 });
			if (!(seen.x >= 0 && seen.y >= 0 && seen.x < picture.width && seen.y < picture.height)) continue;
			const from = 4 * (Math.floor(seen.y) * picture.width + Math.floor(seen.x));
			const to = 4 * (y * width + x);
			for (let i = 0; i < 4; i++) data[to + i] = picture.data[from + i] ?? 0;
		}
	return { width, height, data };
}

/** A picture turned to a map, by what takes its pixels there. */
export function turnedTo(picture: Rgba, toPlan: Homography, flat: Flat): Rgba {
	return flatColours(picture, { toPlan, toPx: backOf(toPlan), mmPerPx: flat.mmPerPx }, flat);
}

/** Whether the picture shows a place of the map. */
export const showsPlace = (laid: Laid, at: Point2, picture: { width: number; height: number }): boolean =>
	within(laid, at, picture.width, picture.height) !== null;
