import { z } from 'zod';
import { planPoint } from '../../roots/map/geometry';
import type { RootMapInput } from '../../roots/map/root-map';
import { floorOf, isRound, type Pot } from './volume';

/** A ball by how far it reaches in each direction, and how it narrows downward. */
export interface Ball {
	/** Reach at its widest in 36 directions, from azimuth 0 clockwise, mm. */
	reachMm: readonly number[];
	depthMm: number;
	/** How full it is: 1 is a cylinder, 2/3 a half-ellipsoid. */
	fullness: number;
}

const DIRECTIONS = 36;
const LEVELS = 16;

/**
 * A round ball from its sizes.
 * @param fullness volume as a share of the cylinder around it, 0.3 … 0.98
 */
export const ballOfSizes = (diameterMm: number, depthMm: number, fullness: number): Ball => ({
	reachMm: new Array<number>(DIRECTIONS).fill(diameterMm / 2),
	depthMm,
	fullness
});

/**
 * A ball from the map: as far as the roots that stay reach in each direction, never less than half the thickness of the
 * trunk; where no root runs, between its neighbours.
 * @param gone ids of roots that are cut
 * @param fullness volume as a share of the cylinder around it, 0.3 … 0.98
 */
export function ballOfMap(
	map: Pick<RootMapInput, 'segments' | 'trunkDiameterMm' | 'ballRadiusMm'>,
	gone: ReadonlySet<string>,
	depthMm: number,
	fullness: number
): Ball {
	const reach = new Array<number>(DIRECTIONS).fill(map.trunkDiameterMm / 2);
	for (const segment of map.segments) {
		if (gone.has(segment.id)) continue;
		for (const point of segment.course) {
			const at = ((Math.round(point.azimuthDeg / 10) % DIRECTIONS) + DIRECTIONS) % DIRECTIONS;
			reach[at] = Math.max(
				reach[at] ?? 0,
				Math.min(map.ballRadiusMm, point.radiusMm + segment.diameterEndMm / 2)
			);
		}
	}
	// Soil between two roots hangs together: half way between the two neighbours where nothing was mapped.
	const bare = map.trunkDiameterMm / 2 + 1;
	const filled = reach.map((mm, i) => {
		if (mm > bare) return mm;
		const next = (step: 1 | -1): { mm: number; away: number } => {
			for (let k = 1; k <= DIRECTIONS; k++) {
				const found = reach[(((i + step * k) % DIRECTIONS) + DIRECTIONS) % DIRECTIONS] ?? 0;
				if (found > bare) return { mm: found, away: k };
			}
			return { mm, away: 1 };
		};
		const [left, right] = [next(-1), next(1)];
		return (left.mm * right.away + right.mm * left.away) / (left.away + right.away);
	});
	return { reachMm: filled, depthMm, fullness };
}

/**
 * Share of the widest reach at a share of the depth, so that the volume is `fullness` of the cylinder.
 * @param fullness volume as a share of the cylinder around it, held to 0.3 … 0.98
 */
export function narrowing(depthShare: number, fullness: number): number {
	// The area at a share t of the depth is 1 − t^p of the widest, so that the volume is p / (p + 1): 2/3 gives p = 2.
	const full = Math.min(0.98, Math.max(0.3, fullness));
	const t = Math.min(1, Math.max(0, depthShare));
	return Math.sqrt(1 - t ** (full / (1 - full)));
}

/** How the ball stands in the pot. */
export interface Standing {
	tiltDeg: number;
	tiltTowardDeg: number;
	/** The flare over the rim; negative below it. */
	flareOverRimMm: number;
	/** The top of the coarse layer: nothing of the ball lies lower. */
	floorMm: number;
}

export const fitPointOutput = z.object({
	azimuthDeg: z.number().describe('Direction in the pot, degrees clockwise from the front'),
	clearanceMm: z
		.number()
		.describe('Least room in this direction, over all depths; negative where the ball goes through the wall'),
	heightMm: z.number().describe('Height above the floor where that is')
});
export type FitPoint = z.infer<typeof fitPointOutput>;

export const fitOutput = z.object({
	shift: z
		.object({ azimuthDeg: z.number(), mm: z.number() })
		.describe('Moved by so much from the middle of the pot, for the most room'),
	round: z.array(fitPointOutput).describe('Room all round, by direction'),
	tightest: fitPointOutput,
	underMm: z
		.number()
		.describe(
			'Room under the ball; negative where it stands on the coarse layer or the floor before it is seated'
		),
	fits: z.boolean(),
	shaveEvenlyMm: z
		.number()
		.describe(
			'What must come off the sides as a whole, evenly, and from the worst side alone, mm; 0 where it fits'
		),
	shaveWorstMm: z.number(),
	shaveUnderMm: z.number()
});
export type Fit = z.infer<typeof fitOutput>;

interface Point3 {
	x: number;
	y: number;
	heightMm: number;
}

/** The skin of a tilted ball, with its flare at the middle of the pot. */
function skinOf(ball: Ball, pot: Pot, standing: Standing): Point3[] {
	const tilt = (standing.tiltDeg * Math.PI) / 180;
	const toward = (standing.tiltTowardDeg * Math.PI) / 180;
	const [ux, uy] = [Math.sin(toward), -Math.cos(toward)];
	const flareMm = pot.heightMm + standing.flareOverRimMm;
	const points: Point3[] = [];
	for (let level = 0; level <= LEVELS; level++) {
		const share = level / LEVELS;
		const narrow = narrowing(share, ball.fullness);
		for (const [i, reach] of ball.reachMm.entries()) {
			const flat = planPoint({ azimuthDeg: i * 10, radiusMm: reach * narrow });
			const depth = share * ball.depthMm;
			const along = flat.x * ux + flat.y * uy;
			// The side that the top is tilted to sinks.
			const turned = along * Math.cos(tilt) - depth * Math.sin(tilt);
			points.push({
				x: flat.x + (turned - along) * ux,
				y: flat.y + (turned - along) * uy,
				heightMm: flareMm - (depth * Math.cos(tilt) + along * Math.sin(tilt))
			});
		}
	}
	return points;
}

/** Half the inner length and width of a pot by height. */
function halvesOf(pot: Pot): (heightMm: number) => { a: number; b: number } {
	const { bottomLengthMm, bottomWidthMm } = floorOf(pot);
	return (heightMm) => {
		const t = pot.heightMm === 0 ? 1 : Math.min(1, Math.max(0, heightMm / pot.heightMm));
		return {
			a: (bottomLengthMm + t * (pot.topLengthMm - bottomLengthMm)) / 2,
			b: (bottomWidthMm + t * (pot.topWidthMm - bottomWidthMm)) / 2
		};
	};
}

/**
 * Level distance from a point to a wall, by half its inner length and width at the height of the point; negative outside. Exact for round
 * and straight pots; for an oval along its own radius.
 */
function roomWithin(shape: Pot['shape'], a: number, b: number, x: number, y: number): number {
	if (isRound(shape)) return a - Math.sqrt(x * x + y * y);
	if (shape === 'oval') {
		const share = Math.sqrt((x / a) ** 2 + (y / b) ** 2);
		const far = Math.sqrt(x * x + y * y);
		return share === 0 ? Math.min(a, b) : far / share - far;
	}
	return Math.min(a - Math.abs(x), b - Math.abs(y));
}

/**
 * Does a ball, turned to its planting angle, go into a pot: the room all round, where it binds, and the least to shave.
 * The ball is moved level to where it has most room. What stands over the rim is free.
 */
export function fitInPot(ball: Ball, pot: Pot, standing: Standing): Fit {
	const skin = skinOf(ball, pot, standing);
	const halves = halvesOf(pot);
	const lowestMm = skin.reduce((low, point) => Math.min(low, point.heightMm), Infinity);
	// Of a ball that stands over the rim altogether, its foot has to pass the rim.
	const inside = skin
		.filter((point) => point.heightMm <= Math.max(pot.heightMm, lowestMm))
		.map(({ x, y, heightMm }) => ({ x, y, heightMm, ...halves(heightMm) }));
	/** Least room of all, or the first that is no more than `enough`: what is no better is not told further. */
	const least = (dx: number, dy: number, enough: number): number => {
		let worst = Infinity;
		for (const { x, y, a, b } of inside) {
			const room = roomWithin(pot.shape, a, b, x + dx, y + dy);
			if (room < worst) worst = room;
			if (worst <= enough) break;
		}
		return worst;
	};
	let [dx, dy] = [0, 0];
	let best = least(0, 0, -Infinity);
	for (let step = Math.max(pot.topLengthMm, pot.topWidthMm) / 8; step > 0.2; step /= 2)
		for (let moved = true; moved;) {
			moved = false;
			for (let i = 0; i < 8; i++) {
				const [tx, ty] = [dx + step * Math.cos((i * Math.PI) / 4), dy + step * Math.sin((i * Math.PI) / 4)];
				const room = least(tx, ty, best);
				if (room > best + 1e-6) {
					[dx, dy, best, moved] = [tx, ty, room, true];
				}
			}
		}
	const round = Array.from({ length: DIRECTIONS }, (_, i): FitPoint => ({
		azimuthDeg: i * 10,
		clearanceMm: Infinity,
		heightMm: 0
	}));
	for (const p of inside) {
		const at = { ...p, x: p.x + dx, y: p.y + dy };
		const azimuthDeg = ((Math.atan2(at.x, -at.y) * 180) / Math.PI + 360) % 360;
		const sector = round[Math.round(azimuthDeg / 10) % DIRECTIONS];
		const room = roomWithin(pot.shape, p.a, p.b, at.x, at.y);
		if (sector && room < sector.clearanceMm) {
			sector.clearanceMm = room;
			sector.heightMm = at.heightMm;
		}
	}
	const seen = round.filter((point) => point.clearanceMm < Infinity);
	const tightest = seen.reduce((worst, point) => (point.clearanceMm < worst.clearanceMm ? point : worst), {
		azimuthDeg: 0,
		clearanceMm: Infinity,
		heightMm: 0
	});
	const underMm = lowestMm - standing.floorMm;
	const over = Math.max(0, -tightest.clearanceMm);
	return {
		shift: {
			azimuthDeg: ((Math.atan2(dx, -dy) * 180) / Math.PI + 360) % 360,
			mm: Math.hypot(dx, dy)
		},
		round: seen,
		tightest,
		underMm,
		fits: over === 0 && underMm >= -0.5,
		shaveEvenlyMm: over,
		// Pushed against the other side, all that is too much comes off one side.
		shaveWorstMm: 2 * over,
		shaveUnderMm: Math.max(0, -underMm)
	};
}
