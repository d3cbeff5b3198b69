import { z } from 'zod';
import { createRandom } from '../../maths/random';
import type { Values } from '../../values/values';
import { wordsOf } from '../../vocabulary/words-of';
import { featuresOf, foundAgain } from './features';
import { homographyOf, homographyOutput, seenAt, type Homography, type Point2 } from './plane';
import type { Grey } from './raster';

/** Why two pictures are not of the same view, and what to do. */
export const viewFaultSaid = {
	'few-found':
		'Too little of one picture is found again in the other: they are not of the same view, or too much has changed. The camera lays the earlier picture over the new one: take it from there.',
	'one-corner':
		'Only one part of the picture is found again in the other, which tells too little of how the rest lies. Take in more of what does not change: the pot, a wall, a post.',
	turned: 'One of the two is turned far against the other. Take the later one as the earlier was held.',
	'other-distance':
		'One of the two was taken from much farther away. Take the later one from where the earlier was taken.',
	beside:
		'The two share too little of what they show. Take the later one with the tree in the same place of the picture.'
} as const;
export const viewFaults = wordsOf(viewFaultSaid);
export type ViewFault = keyof typeof viewFaultSaid;

/** How a picture lies over a later one of the same view. */
export const linedUpOutput = z.object({
	toAfter: homographyOutput.describe('From pixels of the earlier to pixels of the later'),
	fits: z.number().describe('Places found again that lie where this says, count'),
	found: z.number().describe('Places found again, count'),
	offPx: z.number().describe('How far such places lie off, one deviation on each axis, px of the later'),
	turnedDeg: z.number(),
	larger: z.number().describe('How much larger things are in the later: 1.1 is a tenth'),
	shared: z.number().describe('Share of the later picture that the earlier shows too, 0 to 1')
});
export type LinedUp = z.infer<typeof linedUpOutput>;

/** Draws of four places; so many find a plane on which a third of the places lies, 99.9 in 100. @see Fischler & Bolles 1981, CACM 24 */
const DRAWS = 700;

/**
 * Lays an earlier picture over a later one of the same view: places found again, and the homography that most of them agree on.
 * @param before, after whole pictures
 * @returns how it lies, or why the two are not of the same view
 * @see Fischler & Bolles 1981, CACM 24 · Hartley & Zisserman 2004, algorithm 4.6
 */
export function linedUp(before: Grey, after: Grey, values: Values): LinedUp | ViewFault {
	const pairs = foundAgain(featuresOf(before, values), featuresOf(after, values), values);
	if (pairs.length < values['picture.likeLeast']) return 'few-found';
	const allowedPx = values['picture.likeOff'] * Math.max(after.width, after.height);
	const agreed = agreedOn(pairs, allowedPx);
	if (!agreed || agreed.fitting.length < values['picture.likeLeast']) return 'few-found';
	const { toAfter, fitting } = agreed;
	const offs = fitting.map(({ before: from, after: to }) => apart(seenAt(toAfter, from), to));
	const how = {
		toAfter,
		fits: fitting.length,
		found: pairs.length,
		offPx: Math.sqrt(offs.reduce((sum, off) => sum + off ** 2, 0) / (2 * offs.length)),
		...movedBy(toAfter, before),
		shared: sharedOf(toAfter, before, after)
	};
	return faultOf(how, fitting, after, values) ?? how;
}

type Pair = { before: Point2; after: Point2 };
const apart = (a: Point2, b: Point2): number => Math.hypot(a.x - b.x, a.y - b.y);

/** The homography that most of the pairs agree on, drawn anew through all of these. */
function agreedOn(
	pairs: readonly Pair[],
	allowedPx: number
): { toAfter: Homography; fitting: Pair[] } | null {
	const random = createRandom(7);
	const through = (some: readonly Pair[]): Homography | null =>
		homographyOf(
			some.map(({ before }) => before),
			some.map(({ after }) => after)
		);
	const fits = (toAfter: Homography): Pair[] =>
		pairs.filter(({ before, after }) => apart(seenAt(toAfter, before), after) <= allowedPx);
	let fitting: Pair[] = [];
	for (let draw = 0; draw < DRAWS; draw++) {
		const four = [0, 1, 2, 3].flatMap(() => pairs[Math.floor(random.next() * pairs.length)] ?? []);
		if (new Set(four).size < 4) continue;
		const toAfter = through(four);
		if (!toAfter) continue;
		const those = fits(toAfter);
		if (those.length > fitting.length) fitting = those;
		// Nearly all agree: another draw finds hardly more.
		if (fitting.length > 0.9 * pairs.length) break;
	}
	const toAfter = through(fitting);
	return toAfter && { toAfter, fitting: fits(toAfter) };
}

/** How the middle of a picture is turned and how much larger it is. */
function movedBy(toAfter: Homography, { width, height }: Grey): { turnedDeg: number; larger: number } {
	const [x, y] = [width / 2, height / 2];
	const by = Math.max(width, height) / 8;
	const [left, right, top, foot] = [
		seenAt(toAfter, { x: x - by, y }),
		seenAt(toAfter, { x: x + by, y }),
		seenAt(toAfter, { x, y: y - by }),
		seenAt(toAfter, { x, y: y + by })
	];
	return {
		turnedDeg: (Math.atan2(right.y - left.y, right.x - left.x) * 180) / Math.PI,
		larger: (apart(left, right) + apart(top, foot)) / (4 * by)
	};
}

/** Fields on each side of a picture, by which is told what two pictures share. */
const FIELDS = 20;

/** Share of the later picture that the earlier one shows too, by fields of it. */
function sharedOf(toAfter: Homography, before: Grey, after: Grey): number {
	// Twice as fine, so that no field is missed where the later is smaller.
	const places = Array.from({ length: 2 * FIELDS }, (_, i) => (i + 0.5) / (2 * FIELDS));
	const seen = new Set<number>();
	for (const v of places)
		for (const u of places) {
			const at = seenAt(toAfter, { x: u * before.width, y: v * before.height });
			const [column, row] = [
				Math.floor((FIELDS * at.x) / after.width),
				Math.floor((FIELDS * at.y) / after.height)
			];
			if (column >= 0 && row >= 0 && column < FIELDS && row < FIELDS) seen.add(FIELDS * row + column);
		}
	return seen.size / FIELDS ** 2;
}

function faultOf(
	{ turnedDeg, larger, shared }: Pick<LinedUp, 'turnedDeg' | 'larger' | 'shared'>,
	fitting: readonly Pair[],
	{ width, height }: Grey,
	values: Values
): ViewFault | null {
	const size = (of: (at: Point2) => number): number => {
		const all = fitting.map(({ after }) => of(after)).sort((a, b) => a - b);
		return (all[Math.floor(0.95 * all.length)] ?? 0) - (all[Math.floor(0.05 * all.length)] ?? 0);
	};
	if ((size(({ x }) => x) * size(({ y }) => y)) / (width * height) < values['picture.likeSpread'])
		return 'one-corner';
	if (Math.abs(turnedDeg) > values['picture.likeTurnDeg']) return 'turned';
	if (Math.max(larger, 1 / larger) > values['picture.likeSize']) return 'other-distance';
	return shared < values['picture.likeShared'] ? 'beside' : null;
}
