import type { Values } from '../../values/values';
import { flatColours, flatOf, type Flat, type Laid } from './flat';
import { offeredRoots, type OfferedRoot } from './offered';
import { seenAt, type Plane, type Point2 } from './plane';
import type { Rgba } from './raster';
import { ring, shadingBetween, usualShadings, type Shading } from './root-colour';
import { evenly } from './strip';
import { CARD_ROUND_MM, fromCard, readyIn, type ReadyPicture } from './traced';

/** What a person told of a picture of roots. */
export interface PictureTold {
	/** How far the bark lies from the middle of the trunk in a direction, degrees. */
	barkMm: (azimuthDeg: number) => number;
	trunkDiameterMm: number;
	/** How far from the trunk roots are looked for, mm. */
	reachMm: number;
	/** Where roots were touched to show their colour, px. */
	shown: readonly Point2[];
}

/**
 * Makes a picture ready to read roots in it: in the one shade in which they stand out from the soil. It is drawn from what a person touched,
 * or else from what comes out as roots at the trunk in shades to begin with.
 * @param picture as it is decoded
 * @param laid by the touches of trunk and front
 */
export function readyPicture(
	picture: Rgba,
	plane: Plane,
	laid: Laid,
	told: PictureTold,
	values: Values
): ReadyPicture {
	const flat = flatOf(laid, { widthPx: picture.width, heightPx: picture.height }, told.reachMm, values);
	const beside = fromCard(plane, laid);
	const soil = ring(laid, told.trunkDiameterMm * 0.75, flat.reachMm, 2500).filter(
		(seen) => beside(seenAt(laid.toPlan, seen)) > CARD_ROUND_MM
	);
	const round = values['picture.showRoundMm'] / laid.mmPerPx;
	const touched = told.shown.flatMap(({ x, y }) =>
		GRID.flatMap((u) => GRID.map((v) => ({ x: x + u * round, y: y + v * round })))
	);
	const shading =
		shadingBetween(picture, touched, soil, values) ??
		shadingByItself(picture, plane, laid, flat, soil, told, values);
	return readyIn(picture, shading, plane, laid, flat, told.trunkDiameterMm, values);
}
const GRID = [-1, -0.5, 0, 0.5, 1];

/** The shading in which the most roots come out, drawn anew from their own colour. */
function shadingByItself(
	picture: Rgba,
	plane: Plane,
	laid: Laid,
	fine: Flat,
	soil: readonly Point2[],
	told: PictureTold,
	values: Values
): Shading {
	const sidePx = Math.min(fine.sidePx, Math.round(values['picture.coarsePx']));
	const flat: Flat = { sidePx, reachMm: fine.reachMm, mmPerPx: (2 * fine.reachMm) / sidePx };
	const coarse = flatColours(picture, laid, flat);
	const { mmPerPx, reachMm } = flat;
	const own: Laid = {
		toPlan: [mmPerPx, 0, -reachMm, 0, mmPerPx, -reachMm, 0, 0, 1],
		toPx: [1 / mmPerPx, 0, reachMm / mmPerPx, 0, 1 / mmPerPx, reachMm / mmPerPx, 0, 0, 1],
		mmPerPx
	};
	const trunk = shadingBetween(picture, ring(laid, 0, 0.45 * told.trunkDiameterMm, 400), soil, values);
	const seen = {
		...plane,
		corners: plane.corners.map((corner) => seenAt(own.toPx, seenAt(laid.toPlan, corner)))
	};
	let best: { shading: Shading; worth: number } | null = null;
	const usual = usualShadings(picture, soil, values);
	for (const shading of [...usual, ...(trunk ? [trunk] : [])]) {
		const ready = readyIn(coarse, shading, seen, own, flat, told.trunkDiameterMm, values);
		const offers = offeredRoots(ready, told.barkMm, values, { most: COARSE_MOST, sides: false });
		const drawn = shadingBetween(
			picture,
			offers.flatMap((root) => placesAlong(root, laid)),
			soil,
			values
		);
		if (!drawn) continue;
		// Roots are alike in colour and unlike the soil; what is no root is as the soil is.
		const lengthMm = offers.reduce((sum, root) => sum + root.lengthMm, 0);
		const worth = drawn.contrast * Math.sqrt(Math.min(lengthMm, 6 * told.trunkDiameterMm));
		if (!best || worth > best.worth) best = { shading: drawn, worth };
	}
	return best?.shading ?? trunk ?? usual[0] ?? { weights: [0.58, 0.58, 0.58], middle: 0, contrast: 64 };
}

/** So many roots tell their colour. */
const COARSE_MOST = 12;

/** Places on a root, in its inner half, px of the picture. */
function placesAlong(
	{ course, diameterStartMm, diameterEndMm, lengthMm }: OfferedRoot,
	laid: Laid
): Point2[] {
	const half = Math.min(diameterStartMm, diameterEndMm) / 4;
	return evenly(course, Math.max(1, lengthMm / 60)).flatMap(({ at, across }) =>
		[-half, 0, half].map((by) => seenAt(laid.toPx, { x: at.x + by * across.x, y: at.y + by * across.y }))
	);
}
