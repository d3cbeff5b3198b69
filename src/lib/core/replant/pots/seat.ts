import { wordsOf } from '../../vocabulary/words-of';
import { isStructural } from '../../roots/map/shares';
import { z } from 'zod';
import { calendarDate, count, id, measure, oneOf } from '../../vocabulary/fields';
import { planPoint } from '../../roots/map/geometry';
import { startAzimuth, type Segment } from '../../roots/map/root-map';
import type { Values } from '../../values/values';
import { crossSectionMm2, floorOf, type Pot } from './volume';
import { tippingWindMs, type TippingInput } from './wind';

/** Schools of setting (handbook 12): each by its neutral name, and when it is usual. */
export const heightSchoolNames = {
	mound: 'flare at or above the surface, on a mound',
	'below-rim': 'ball below the rim, roots covered'
};
export type HeightSchool = keyof typeof heightSchoolNames;
export const heightSchools = wordsOf(heightSchoolNames);
export const pocketSchools = ['stick', 'slurry'] as const;
export const pocketSchoolNames: Record<(typeof pocketSchools)[number], string> = {
	stick: 'stick and fingers',
	slurry: 'flood to a slurry'
};
export const firmings = ['press', 'loose'] as const;
export const firmingNames: Record<(typeof firmings)[number], string> = {
	press: 'press and tamp',
	loose: 'never compact'
};
export const holdingNames = {
	wires: 'wire through the pot, over structural roots',
	stones: 'stones on the ball',
	'own-stance': 'its own stance'
};
export type Holding = keyof typeof holdingNames;
export const holdings = wordsOf(holdingNames);

export const wireSchema = z.strictObject({
	rootId: id(),
	azimuthDeg: measure(0, 360, '°'),
	/** How far from the middle of the trunk it crosses the root. */
	radiusMm: measure(0, 5000, 'mm')
});
export type Wire = z.infer<typeof wireSchema>;

/** How a tree is set in its pot and held there. */
export const seatSchema = z
	.strictObject({
		height: oneOf(heightSchools),
		flareOverRimMm: measure(-300, 500, 'mm').describe('Flare over the rim; negative below it'),
		moundMm: measure(0, 400, 'mm').describe('Height of the mound over the level fill'),
		screens: count(0, 100).describe('Screens over drain holes'),
		extraHoles: count(0, 100).describe('Drain holes to add'),
		holeMm: measure(0, 200, 'mm').describe('Width of an added hole'),
		pockets: oneOf(pocketSchools),
		firming: oneOf(firmings),
		holding: oneOf(holdings),
		wires: z.array(wireSchema).max(12, { error: 'must be at most 12 wires' }),
		pads: count(0, 48).describe('Pads between wire and bark'),
		stones: count(0, 40),
		stoneKg: measure(0, 500, 'kg').describe('Mass of all stones'),
		tiltDeg: measure(0, 60, '°')
			.nullable()
			.default(null)
			.describe('How far it was tilted as it was set; null when nobody looked'),
		tiltTowardDeg: measure(0, 360, '°').nullable().default(null).describe('Where its top was tilted to'),
		offOn: calendarDate().nullable().describe('Day on which ties or stones come off')
	})
	.refine((seat) => seat.holding === 'own-stance' || seat.offOn !== null, {
		path: ['offOn'],
		error: 'must say when ties or stones come off; forgotten they bite'
	});
export type Seat = z.infer<typeof seatSchema>;

/**
 * Where wires go over: living structural roots of known source that stay, the thickest of those that stand most evenly round the trunk, at
 * most `most`. Each wire crosses its root where it is still strong, at a share of its reach, and goes down through the floor on
 * both sides of it.
 * @param gone ids of roots that are cut, or planned to be
 */
export function wiresOver(
	segments: readonly Segment[],
	gone: ReadonlySet<string>,
	values: Values,
	most = 4
): Wire[] {
	const fit = segments.filter(
		(root) =>
			root.parentId === null &&
			!gone.has(root.id) &&
			isStructural(root) &&
			root.condition === 'sound' &&
			root.sourceKnown
	);
	const chosen: Segment[] = [];
	for (const first of [...fit].sort((a, b) => b.diameterStartMm - a.diameterStartMm).slice(0, 1))
		chosen.push(first);
	const apart = (a: Segment, b: Segment): number => {
		const turn = Math.abs(startAzimuth(a) - startAzimuth(b)) % 360;
		return Math.min(turn, 360 - turn);
	};
	while (chosen.length > 0 && chosen.length < most) {
		const next = fit
			.filter((root) => !chosen.includes(root))
			.map((root) => ({ root, free: Math.min(...chosen.map((other) => apart(root, other))) }))
			.filter(({ free }) => free >= values['seat.wireApartDeg'])
			.sort((a, b) => b.free - a.free || b.root.diameterStartMm - a.root.diameterStartMm)[0];
		if (!next) break;
		chosen.push(next.root);
	}
	return chosen
		.map((root): Wire => {
			const reach = root.course.reduce((far, point) => Math.max(far, point.radiusMm), 0);
			const wanted = reach * values['seat.wireReachShare'];
			const nearest = root.course.reduce(
				(best, point) =>
					Math.abs(point.radiusMm - wanted) < Math.abs(best.radiusMm - wanted) ? point : best,
				root.course[0] ?? { azimuthDeg: 0, radiusMm: wanted, depthMm: 0 }
			);
			return {
				rootId: root.id,
				azimuthDeg: ((Math.round(nearest.azimuthDeg) % 360) + 360) % 360,
				radiusMm: Math.round(Math.max(nearest.radiusMm, reach * 0.2))
			};
		})
		.sort((a, b) => a.azimuthDeg - b.azimuthDeg);
}

export const wireHoleOutput = z.object({
	azimuthDeg: z.number().describe('In the pot, seen from above: x to the right, y down, front at azimuth 0'),
	radiusMm: z.number(),
	wire: z.number(),
	inFloor: z.boolean().describe('False where the floor does not reach so far; the hole then goes at its edge')
});
export type WireHole = z.infer<typeof wireHoleOutput>;

/** Two holes a wire, one on each side of its root, drilled through the floor. */
export function wireHoles(wires: readonly Wire[], pot: Pot, values: Values): WireHole[] {
	const { bottomLengthMm, bottomWidthMm } = floorOf(pot);
	const edge = Math.min(bottomLengthMm, bottomWidthMm) / 2 - values['seat.holeFromEdgeMm'];
	return wires.flatMap((wire, index) => {
		const radiusMm = Math.max(10, Math.min(wire.radiusMm, edge));
		const aside = ((values['seat.holeAsideMm'] / Math.max(radiusMm, 1)) * 180) / Math.PI;
		return [-1, 1].map((sideOf) => ({
			azimuthDeg: (((wire.azimuthDeg + sideOf * Math.min(80, aside)) % 360) + 360) % 360,
			radiusMm,
			wire: index,
			inFloor: wire.radiusMm <= edge
		}));
	});
}

/** Where a hole lies, mm from the middle of the pot. */
export const holeAt = (hole: WireHole): { x: number; y: number } => planPoint(hole);

/** Metres of wire: down, up and across for each, and a third to twist. */
export const wireLengthM = (wires: readonly Wire[], pot: Pot, values: Values): number =>
	(wires.length * (2 * pot.heightMm + 2 * values['seat.holeAsideMm']) * (1 + values['seat.wireExtra'])) /
	1000;

/** Litres of a mound: a cone over the level fill, over the share of the surface that it covers. */
export const moundL = (pot: Pot, headspaceMm: number, moundMm: number, values: Values): number =>
	(crossSectionMm2(pot, Math.max(0, pot.heightMm - headspaceMm)) * values['seat.moundCover'] * moundMm) / 3e6;

/** Drain holes to add so that the open area is the wanted share of the floor; 0 where there are enough. */
export function extraHoles(
	pot: Pot,
	holes: { count: number; holeMm: number },
	holeMm: number,
	values: Values
): number {
	const floorMm2 = crossSectionMm2(pot, 0);
	const open = holes.count * Math.PI * (holes.holeMm / 2) ** 2;
	const missing = floorMm2 * values['seat.openFloor'] - open;
	return missing <= 0 || holeMm <= 0 ? 0 : Math.ceil(missing / (Math.PI * (holeMm / 2) ** 2));
}

export const heldWindOutput = z.object({
	looseMs: z.number().describe('Wind that rocks a loose tree over the edge of its own ball'),
	stonesMs: z.number().describe('The same with stones on the ball'),
	tiedMs: z.number().describe('Wind that tips pot and tree as one, when they are tied together')
});
export type HeldWind = z.infer<typeof heldWindOutput>;

/**
 * Wind before and after holding. A loose tree pivots over the edge of its ball, with nothing but ball and stones to hold it;
 * tied down, the whole pot has to tip. The crown is the same, its middle measured from the turning edge.
 * @param ball its mass with the tree, and its width; rooted-in trees stand better
 */
export function heldWind(
	ball: { massKg: number; widthMm: number; depthMm: number },
	whole: TippingInput,
	stoneKg: number,
	values: Values
): HeldWind {
	const crownOverBallM = Math.max(0.05, whole.crownMiddleM - Math.max(0, ball.depthMm) / 1000 / 2);
	const loose = (massKg: number): number =>
		tippingWindMs(
			{ massKg, baseWidthMm: ball.widthMm, crownAreaM2: whole.crownAreaM2, crownMiddleM: crownOverBallM },
			values
		);
	const tiedMs = tippingWindMs({ ...whole, massKg: whole.massKg + stoneKg }, values);
	return {
		looseMs: Math.min(loose(ball.massKg), tiedMs),
		stonesMs: Math.min(loose(ball.massKg + stoneKg), tiedMs),
		tiedMs
	};
}
