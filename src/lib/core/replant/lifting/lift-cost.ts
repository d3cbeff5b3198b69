import { z } from 'zod';
import type { RootMap } from '../../roots/map/root-map';
import { courseLengthMm } from '../../roots/map/geometry';
import { rootShares } from '../../roots/map/shares';
import type { Values } from '../../values/values';
import { liftEnds } from './ends';
import type { LiftLog } from './lift';

export const liftKeptOutput = z.object({
	share: z
		.number()
		.describe(
			'Share of its living absorbing roots that came along, of what it had before the lift; with its band'
		),
	low: z.number(),
	high: z.number(),
	from: z.enum(['map', 'ball']).describe('What the share was worked out from')
});
export type LiftKept = z.infer<typeof liftKeptOutput>;

/**
 * Share of the absorbing roots that lie in a ball: their density falls in a straight line from the trunk out to their reach, and
 * from the surface down to their depth. Round the trunk 3x² − 2x³ with x = ball / reach, downward 2y − y² with y = depth / root depth
 * [our own working model; studies of field-grown trees found 2 to 20 % in a ball of usual size: Watson & Himelick 1982, Gilman 1988, from memory].
 * @param ballDiameterMm, ballDepthMm > 0
 * @param reachMm how far roots reach from the trunk, > 0
 * @returns 0 … 1
 */
export function shareInBall(
	ballDiameterMm: number,
	ballDepthMm: number,
	reachMm: number,
	rootDepthMm: number
): number {
	const x = Math.min(1, ballDiameterMm / 2 / reachMm);
	const y = Math.min(1, ballDepthMm / rootDepthMm);
	return (3 * x * x - 2 * x ** 3) * (2 * y - y * y);
}

/**
 * How much of the fine roots that were laid bare lived through the time out of the ground, with its band; time or wetting that nobody
 * noted is taken as usual time, not wetted, within what it may have been.
 */
export function livedThroughAir(
	{ outMinutes, soak }: Pick<LiftLog, 'outMinutes' | 'soak'>,
	values: Values
): { share: number; low: number; high: number } {
	const lived = (minutes: number, wet: boolean): number =>
		2 **
		(-Math.max(0, minutes - values['lifting.out-freeMinutes']) /
			values[wet ? 'lifting.wetHalfMinutes' : 'lifting.dryHalfMinutes']);
	const wet = soak !== null && soak !== 'none';
	return {
		share: lived(outMinutes ?? values['lifting.outUsualMinutes'], wet),
		low: lived(outMinutes ?? values['lifting.outMostMinutes'], wet),
		high: lived(outMinutes ?? 0, wet || soak === null)
	};
}

/**
 * What came along of a lift, of what it had before: by a map of the roots where one was drawn in the ground before, otherwise by the
 * ball against where roots of such a tree reach. Roots that the log names as cut or torn bound it by their cross-section (pipe model), and
 * time in the air takes its part. Never more than all.
 * @param tree trunk, and crown from which the reach follows
 * @param map of the roots in the ground, drawn before the lift; null for none
 */
export function liftKept(
	log: Pick<LiftLog, 'ballDiameterMm' | 'ballDepthMm' | 'cutRoots' | 'outMinutes' | 'soak' | 'rooting'>,
	tree: { trunkDiameterMm: number; crownWidthMm: number },
	map: Pick<RootMap, 'segments' | 'ballRadiusMm'> | null,
	values: Values
): LiftKept {
	const air = livedThroughAir(log, values);
	const named = log.cutRoots.reduce((sum, root) => sum + root.diameterMm ** 2, 0) / tree.trunkDiameterMm ** 2;
	const most = Math.max(values['lifting.keptLeast'], 1 - named);
	if (map && map.segments.length > 0) {
		// A root that the log names was cut at the edge, however far out it had been followed.
		const named = liftEnds(log, map, values).flatMap(({ segmentId }) =>
			segmentId === null ? [] : [segmentId]
		);
		const mapped = keptOfMap(map, log.ballDiameterMm / 2, new Set(named), values);
		if (mapped !== null) {
			const inBall = Math.min(most, mapped);
			const share = inBall * air.share;
			const spread = values['lifting.mapSpread'] * share * (1 - share);
			return {
				share,
				low: Math.max(0, inBall * air.low - spread),
				high: Math.min(most * air.high, inBall * air.high + spread),
				from: 'map'
			};
		}
	}
	const prepared = log.rooting === 'root-pruned' || log.rooting === 'pocket';
	const times = (factor: number): number => (prepared ? factor : 1);
	const within = (reachCrowns: number, factor: number, lived: number): number => {
		const hedge = log.rooting === 'hedge' ? values['lifting.reachHedge'] / values['lifting.reachUsual'] : 1;
		const reachMm = (reachCrowns * hedge * tree.crownWidthMm) / 2;
		const found = shareInBall(log.ballDiameterMm, log.ballDepthMm, reachMm, values['lifting.rootDepthMm']);
		return Math.min(most, Math.max(values['lifting.keptLeast'], found * times(factor))) * lived;
	};
	return {
		share: within(values['lifting.reachUsual'], values['lifting.prepared'], air.share),
		low: within(values['lifting.reachMost'], values['lifting.preparedLeast'], air.low),
		high: within(values['lifting.reachLeast'], values['lifting.preparedMost'], air.high),
		from: 'ball'
	};
}

/** Living absorbing share of the roots on a map whose tips lie inside a ball; null where the map shows none that live. */
function keptOfMap(
	map: Pick<RootMap, 'segments' | 'ballRadiusMm'>,
	radiusMm: number,
	cutAtEdge: ReadonlySet<string>,
	values: Values
): number | null {
	const { absorbing, children } = rootShares(map.segments, values);
	const out = new Set<string>();
	const cutAt = (segment: RootMap['segments'][number]): number | null => {
		const beyond = segment.course.findIndex((point) => point.radiusMm > radiusMm);
		if (beyond < 0 && cutAtEdge.has(segment.id)) return courseLengthMm(segment.course);
		return beyond < 0 ? null : courseLengthMm(segment.course.slice(0, Math.max(1, beyond)));
	};
	const loseBeyond = (id: string): void => {
		out.add(id);
		for (const side of children.get(id) ?? []) loseBeyond(side.id);
	};
	for (const segment of map.segments) {
		const at = cutAt(segment);
		if (at === null) continue;
		// Its tip lies outside; so do the side roots that leave it beyond the edge.
		out.add(segment.id);
		for (const side of children.get(segment.id) ?? []) if (side.attachMm >= at) loseBeyond(side.id);
	}
	let [kept, all] = [0, 0];
	for (const [id, share] of absorbing) {
		all += share;
		if (!out.has(id)) kept += share;
	}
	return all > 0 ? kept / all : null;
}
