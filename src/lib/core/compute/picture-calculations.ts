import { z } from 'zod';
import { cardFaults } from '../examine/pictures/find-card-words';
import { findCard } from '../examine/pictures/find-card';
import { backOf, laidOut } from '../examine/pictures/flat';
import { balanceOf, leafCover, leafCoverOutput } from '../examine/pictures/leaf-cover';
import { linedUp, linedUpOutput, viewFaults } from '../examine/pictures/lined-up';
import {
	rootDepthInput,
	seenFromSide,
	seenFromSideOutput,
	widthFromSide
} from '../roots/map/depth-from-side';
import {
	homographyOutput,
	lengthIn,
	pictureLengthInput,
	pictureLengthOutput,
	planeFaults,
	planeOf,
	seenAt
} from '../examine/pictures/plane';
import { greyOf } from '../examine/pictures/raster';
import { readyPicture } from '../examine/pictures/ready';
import { wallRead } from '../examine/pictures/wall';
import { wallReadOutput } from '../examine/pictures/wall-words';
import { tracedBetween, tracedRootOutput } from '../examine/pictures/traced';
import { focalShare } from '../take-in/picture';
import { measure } from '../vocabulary/fields';
import { calculation, picture, type Calculation } from './calculation';

const number = z.number();
const planeFault = z.enum([...cardFaults, ...planeFaults]);
/** A place in a picture. */
const placePx = z.strictObject({
	x: measure(0, 20_000, 'px').describe('From the left edge, px'),
	y: measure(0, 20_000, 'px').describe('From the upper edge, px')
});
/** A place on a root map. */
const placeMm = z.strictObject({
	x: measure(-10_000, 10_000, 'mm').describe('From the middle of the trunk to azimuth 90°, mm'),
	y: measure(-10_000, 10_000, 'mm').describe('From the middle of the trunk to azimuth 180°, mm')
});

const touchesPx = (what: string) => z.array(placePx).min(1).max(60).describe(`Places on ${what}`);

/** Calculations from pictures. */
export const pictureCalculations: readonly Calculation[] = [
	calculation(
		'picture-length',
		'A length in a picture, by a rectangle of known size that lies in its plane, with the error of the touches',
		pictureLengthInput,
		z.object({
			fault: z.enum(planeFaults).nullable().describe('Why the corners do not tell the plane'),
			length: pictureLengthOutput
				.extend({
					tiltDeg: number.nullable(),
					distanceMm: number.describe('From the camera to the middle of the rectangle, mm')
				})
				.nullable()
		}),
		({ corners, rectangle, picture, points, touchPx }, values) => {
			const plane = planeOf(corners, rectangle, picture, values);
			if (typeof plane === 'string') return { fault: plane, length: null };
			const { tiltDeg, distanceMm } = plane;
			const length = lengthIn(plane, points, touchPx, values);
			return length
				? { fault: null, length: { ...length, tiltDeg, distanceMm } }
				: { fault: 'too-far' as const, length: null };
		}
	),
	calculation(
		'picture-card',
		'The plane of the printed card in a picture',
		z.strictObject({ picture: picture(), focalShare: focalShare() }),
		z.object({
			fault: planeFault.nullable().describe('Why the card does not tell the plane'),
			card: z
				.object({
					toMm: homographyOutput.describe('From px of the picture to mm of the card'),
					tiltDeg: number.nullable(),
					distanceMm: number.describe('From the camera to the middle of the card, mm'),
					markers: number.describe('Markers that were found, count'),
					offPx: number.describe('How far their corners lie off, one deviation, px')
				})
				.nullable()
		}),
		async ({ picture: sent, focalShare: lens }, values, decoded) => {
			const found = findCard(await decoded(sent, 'picture'), values, lens);
			if (typeof found === 'string') return { fault: found, card: null };
			const { plane, markers, offPx } = found;
			const { toMm, tiltDeg, distanceMm } = plane;
			return { fault: null, card: { toMm, tiltDeg, distanceMm, markers, offPx } };
		}
	),
	calculation(
		'picture-root',
		'The root between two places in a picture with the printed card: its course and how thick it is along it',
		z.strictObject({
			picture: picture(),
			middle: placePx.describe('Where the middle of the trunk meets the ground'),
			front: placePx.describe('A place towards azimuth 0'),
			base: placeMm.describe('Where the root begins'),
			end: placeMm.describe('Where it ends'),
			trunkDiameterMm: measure(2, 3000, 'mm')
		}),
		z.object({
			fault: planeFault.nullable().describe('Why the card does not tell the plane'),
			root: tracedRootOutput.nullable().describe('Null where no root shows between the two')
		}),
		async ({ picture: sent, middle, front, base, end, trunkDiameterMm }, values, decoded) => {
			const seen = await decoded(sent, 'picture');
			const found = findCard(seen, values);
			if (typeof found === 'string') return { fault: found, root: null };
			const laid = laidOut(found.plane, middle, front);
			if (!laid) return { fault: null, root: null };
			const told = {
				barkMm: () => trunkDiameterMm / 2,
				trunkDiameterMm,
				reachMm: 1.1 * Math.max(Math.hypot(base.x, base.y), Math.hypot(end.x, end.y)),
				shown: []
			};
			const ready = readyPicture(seen, found.plane, laid, told, values);
			const root = tracedBetween(ready, base, end, values);
			return { fault: null, root };
		}
	),
	calculation(
		'root-depth',
		'How deep roots leave a round trunk below its flare, from a picture taken from the side with a rectangle of known size upright beside it',
		rootDepthInput,
		z.object({
			fault: z.enum(planeFaults).nullable().describe('Why the corners do not tell the plane'),
			widthMm: number.nullable().describe('Of the trunk between its two edges, mm'),
			roots: z.array(
				seenFromSideOutput.nullable().describe('Null where it is seen beside the trunk, or too far off')
			)
		}),
		({ corners, rectangle, picture, edges, bases, trunkDiameterMm, ...told }, values) => {
			const plane = planeOf(corners, rectangle, picture, values);
			if (typeof plane === 'string') return { fault: plane, widthMm: null, roots: [] };
			const [left, right] = edges;
			const side = { ...told, plane, edges: [left, right] as const };
			return {
				fault: null,
				widthMm: widthFromSide(side, values),
				roots: bases.map((at) => seenFromSide(side, { trunkDiameterMm }, at, values))
			};
		}
	),
	calculation(
		'leaf-cover',
		'How much of a crown is leaf within a loop of a picture, its light made true by the printed card where it shows',
		z.strictObject({
			picture: picture(),
			loop: z.array(placePx).min(3).max(200).describe('Round the crown'),
			offPx: measure(0, 500, 'px').default(0).describe('How far the loop may lie off, one deviation, px')
		}),
		z.object({
			balanced: z.boolean().describe('The grey of the card was found'),
			leaf: leafCoverOutput.nullable().describe('Null where the loop holds too little that can be read')
		}),
		async ({ picture: sent, loop, offPx }, values, decoded) => {
			const seen = await decoded(sent, 'picture');
			const balance = balanceOf(seen, values);
			const [leaf = null] = leafCover([{ picture: seen, loop, balance }], [offPx], values) ?? [];
			return { balanced: balance !== null, leaf };
		}
	),
	calculation(
		'root-wall',
		'Roots on the wall of a ball in a picture, white, brown or none, by colours that were touched once',
		z.strictObject({
			picture: picture(),
			edge: z.array(placePx).max(200).default([]).describe('Round the wall; left out, the whole picture'),
			white: touchesPx('white roots'),
			brown: touchesPx('brown roots'),
			none: touchesPx('soil and stones')
		}),
		z.object({
			wall: wallReadOutput.nullable().describe('Null where too little can be read')
		}),
		async ({ picture: sent, edge, ...touches }, values, decoded) => {
			const read = wallRead(await decoded(sent, 'picture'), { edge, touches }, values);
			if (!read) return { wall: null };
			const { places: _, ...wall } = read;
			return { wall };
		}
	),
	calculation(
		'picture-line-up',
		'How an earlier picture lies over a later one of the same view, or why the two are not of one view',
		z.strictObject({
			before: picture(),
			after: picture(),
			loop: z.array(placePx).max(200).default([]).describe('Places of the later picture, told in the earlier')
		}),
		z.object({
			fault: z.enum(viewFaults).nullable().describe('Why they are not of one view'),
			how: linedUpOutput
				.extend({
					loop: z.array(
						z.object({
							x: number.describe('From the left edge, px'),
							y: number.describe('From the upper edge, px')
						})
					)
				})
				.nullable()
		}),
		async ({ before, after, loop }, values, decoded) => {
			const [was, is] = [await decoded(before, 'before'), await decoded(after, 'after')];
			const found = linedUp(greyOf(was), greyOf(is), values);
			if (typeof found === 'string') return { fault: found, how: null };
			const back = backOf(found.toAfter);
			return {
				fault: null,
				how: { ...found, loop: loop.map((at) => seenAt(back, at)) }
			};
		}
	)
];
