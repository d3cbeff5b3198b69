import { z } from 'zod';
import { percent } from '../../text/percent';
import { isStructural } from '../map/shares';
import { turnDeg } from '../../maths/circular';
import type { Values } from '../../values/values';
import type { RootMapInput, Segment } from '../map/root-map';
import { startAzimuth } from '../map/root-map';

/** A side a tree may be looked at from. */
export const frontOutput = z.object({
	azimuthDeg: z.number(),
	points: z.number().describe('0 … 100'),
	flare: z.number().describe('0 … 1'),
	spread: z.number().describe('0 … 1'),
	gaps: z.number().describe('0 … 1'),
	lean: z.number().nullable().describe('0 … 1; null where there is nothing to judge by'),
	reasons: z.array(z.string()).describe('What speaks for and against it, in words')
});
export type Front = z.infer<typeof frontOutput>;

const EVERY_DEG = 15;
/** Half the width of what lies before the viewer. */
const VIEW_DEG = 60;
/** How far to a side a root still counts as spreading there. */
const SIDE_DEG = 110;

const total = (list: readonly Segment[], of: (segment: Segment) => number): number =>
	list.reduce((sum, segment) => sum + of(segment), 0);

/** How the roots that show lie before somebody who looks from a side. */
function viewFrom(azimuthDeg: number, surface: readonly Segment[], values: Values) {
	const turn = (segment: Segment): number => turnDeg(azimuthDeg, startAzimuth(segment));
	const facing = surface.filter((segment) => Math.abs(turn(segment)) <= 90);
	const thickness = total(surface, (segment) => segment.diameterStartMm);
	const sideways = (segment: Segment): number =>
		segment.diameterStartMm * Math.abs(Math.sin((turn(segment) * Math.PI) / 180));
	const beside = (side: -1 | 1): number =>
		total(
			surface.filter((segment) => side * turn(segment) > 0 && Math.abs(turn(segment)) <= SIDE_DEG),
			sideways
		);
	const straight = facing.filter((segment) => Math.abs(turn(segment)) <= values['front.straightDeg']);
	const thickest = Math.max(1, ...surface.map((segment) => segment.diameterStartMm));
	// The widest stretch without a root before the viewer.
	const within = surface
		.map(turn)
		.filter((deg) => Math.abs(deg) < VIEW_DEG)
		.sort((a, b) => a - b);
	return {
		flare: thickness > 0 ? total(facing, (segment) => segment.diameterStartMm) / thickness : 0,
		left: beside(-1),
		right: beside(1),
		/** Thickness of what points at the viewer, of the thickest. */
		poking: Math.max(0, ...straight.map((segment) => segment.diameterStartMm)) / thickest,
		bareDeg: [...within, VIEW_DEG].reduce(
			(widest, deg, k) => Math.max(widest, deg - (within[k - 1] ?? -VIEW_DEG)),
			0
		)
	};
}

function frontAt(
	azimuthDeg: number,
	surface: readonly Segment[],
	tilt: RootMapInput['lean'],
	values: Values
): Front {
	const { flare, left, right, poking, bareDeg } = viewFrom(azimuthDeg, surface, values);
	const spread =
		left + right > 0
			? ((2 * Math.min(left, right)) / (left + right)) * (1 - values['front.pokingCosts'] * poking)
			: 0;
	const free = values['front.gapDeg'];
	const gaps = surface.length === 0 ? 0 : 1 - Math.max(0, bareDeg - free) / (2 * VIEW_DEG - free);
	const lean = tilt
		? 0.5 +
			0.5 *
				Math.cos((turnDeg(azimuthDeg, tilt.towardDeg) * Math.PI) / 180) *
				Math.min(1, tilt.deg / values['front.leanDeg'])
		: null;
	const parts: [number, number][] = [
		[values['front.flare'], flare],
		[values['front.spread'], spread],
		[values['front.gaps'], gaps],
		...(lean === null ? [] : [[values['front.lean'], lean] as [number, number]])
	];
	const weights = parts.reduce((sum, [weight]) => sum + weight, 0);
	return {
		azimuthDeg,
		points: weights > 0 ? (100 * parts.reduce((sum, [weight, part]) => sum + weight * part, 0)) / weights : 0,
		flare,
		spread,
		gaps,
		lean,
		reasons: [
			surface.length === 0 ? 'no structural root shows at the flare' : `${percent(flare)} of the flare shows`,
			left + right > 0
				? `roots spread ${percent(left / (left + right))} to the left, ${percent(right / (left + right))} to the right`
				: 'no root spreads to the sides',
			poking > values['front.poking'] ? 'a thick root points straight at the viewer' : '',
			bareDeg > values['front.bareFrom'] * free
				? `${Math.round(bareDeg)}° before the viewer are bare of roots`
				: '',
			lean !== null && lean > 0.5 + values['front.leanSaid'] ? 'the trunk leans to the viewer' : '',
			lean !== null && lean < 0.5 - values['front.leanSaid'] ? 'the trunk leans away' : ''
		].filter(Boolean)
	};
}

/**
 * Ranks the sides a tree may be looked at from: how much flare shows, whether roots spread to both sides and none points
 * straight at the viewer, whether a gap faces the viewer, and whether the trunk leans to the viewer [what is looked for:
 * common practice, no source; the weights are ours]. Only sound structural roots that leave the trunk count.
 * @returns 24 fronts, the best first
 */
export function rankFronts(map: Pick<RootMapInput, 'segments' | 'lean'>, values: Values): Front[] {
	const surface = map.segments.filter(
		(segment) =>
			segment.parentId === null &&
			isStructural(segment) &&
			segment.condition !== 'dead' &&
			(segment.course[0]?.depthMm ?? 0) - segment.diameterStartMm / 2 <= values['front.flareDepthMm']
	);
	return Array.from({ length: 360 / EVERY_DEG }, (_, i) =>
		frontAt(i * EVERY_DEG, surface, map.lean, values)
	).sort((a, b) => b.points - a.points || a.azimuthDeg - b.azimuthDeg);
}

/** The best fronts that are really different: each at least `apartDeg` from a better one. */
export function differentFronts(fronts: readonly Front[], count: number, apartDeg = 60): Front[] {
	const chosen: Front[] = [];
	for (const front of fronts) {
		if (chosen.length === count) break;
		if (chosen.every((other) => Math.abs(turnDeg(other.azimuthDeg, front.azimuthDeg)) >= apartDeg))
			chosen.push(front);
	}
	return chosen;
}
