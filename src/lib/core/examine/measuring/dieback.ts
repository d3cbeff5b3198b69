import { z } from 'zod';
import { measure, oneOf } from '../../vocabulary/fields';
import type { Values } from '../../values/values';

export const tissueReadings = ['alive', 'dead', 'hollow'] as const;
export type TissueReading = (typeof tissueReadings)[number];
export const tissueReadingNames: Record<TissueReading, string> = {
	alive: 'alive, green or moist white',
	dead: 'dead, brown and dry',
	hollow: 'hollow knock, loose bark'
};

export const scratchTapData = z
	.strictObject({
		heightMm: measure(20, 60_000, 'mm').describe('Height of the stem above the ground, dead top included'),
		points: z
			.array(
				z.strictObject({
					heightMm: measure(0, 60_000, 'mm'),
					sideDeg: measure(0, 360, '°'),
					reading: oneOf(tissueReadings)
				})
			)
			.min(1, { error: 'must hold at least one scratch or tap' })
			.max(200, { error: 'must be at most 200 points' })
	})
	.refine((map) => map.points.every((point) => point.heightMm <= map.heightMm), {
		path: ['heightMm'],
		error: 'must not be lower than a point that was looked at'
	});
export type ScratchTapData = z.infer<typeof scratchTapData>;

export interface DiebackResult {
	/** Height to which the stem lives, and its 80 % range, mm. */
	limitMm: number;
	lowMm: number;
	highMm: number;
	deadShare: number;
	grade: number;
	/** Where the next scratch tells most; null when the limit is close enough. */
	next: { heightMm: number; sideDeg: number } | null;
	/** Dead or hollow places that lie below living ones on the same side: a wound or a misreading, not dieback from the top. */
	below: number[];
	/** How high each side that was looked at lives, by its own readings: highest living, and lowest that is not above it. */
	levels: { sideDeg: number; aliveToMm: number | null; deadFromMm: number | null }[];
}

const STEPS = 400;

/**
 * The dieback limit from scratches and taps: below it the stem lives, above it is dead, each reading wrong now and then. It is a level
 * of the whole stem: dead places near each other at one side, with two
 * or more living ones well above them on whatever side, are one patch and count once.
 * Bayes over a grid of heights, every limit from the ground to the top equally likely beforehand [our own].
 * The next scratch goes where the limit is as likely above as below, on the side least looked at.
 */
export function diebackLimit({ heightMm, points }: ScratchTapData, values: Values): DiebackResult {
	const wrong = values['measuring.misread'];
	const limits = Array.from({ length: STEPS + 1 }, (_, i) => (i / STEPS) * heightMm);
	const livesAbove = ({ heightMm: at }: { heightMm: number }): number =>
		points.filter(
			(other) =>
				other.reading === 'alive' && other.heightMm >= at + values['measuring.wound-below'] * heightMm
		).length;
	const apartDeg = (a: number, b: number): number => Math.abs(((a - b + 540) % 360) - 180);
	// Read again and again, a patch is one thing that was seen.
	const telling = points.filter(
		(point, i) =>
			point.reading === 'alive' ||
			livesAbove(point) < 2 ||
			!points
				.slice(0, i)
				.some(
					(before) =>
						before.reading !== 'alive' &&
						apartDeg(before.sideDeg, point.sideDeg) <= 45 &&
						Math.abs(before.heightMm - point.heightMm) <= values['measuring.wound-below'] * heightMm
				)
	);
	const weights = limits.map((limit) =>
		telling.reduce((weight, point) => {
			const alive = point.heightMm <= limit;
			return weight * ((point.reading === 'alive') === alive ? 1 - wrong : wrong);
		}, 1)
	);
	const total = weights.reduce((sum, weight) => sum + weight, 0);
	const quantile = (share: number): number => {
		let sum = 0;
		for (const [i, weight] of weights.entries()) {
			sum += weight / total;
			if (sum >= share) return limits[i] ?? heightMm;
		}
		return heightMm;
	};
	const limitMm = quantile(0.5);
	const [lowMm, highMm] = [quantile(0.1), quantile(0.9)];
	// A stem that is alive at its top has no limit below it.
	const topAlive = points.some((point) => point.reading === 'alive' && point.heightMm >= 0.97 * heightMm);
	const settled = topAlive && points.every((point) => point.reading === 'alive');
	const deadShare = settled ? 0 : Math.max(0, 1 - limitMm / heightMm);
	const close = highMm - lowMm <= values['measuring.dieback-close'] * heightMm;
	const quarters = [0, 90, 180, 270];
	const near = (side: number): number => points.filter((point) => apartDeg(point.sideDeg, side) <= 45).length;
	const sideDeg = quarters.reduce((best, side) => (near(side) < near(best) ? side : best), 0);
	return {
		limitMm: settled ? heightMm : limitMm,
		lowMm: settled ? heightMm : lowMm,
		highMm: settled ? heightMm : highMm,
		deadShare,
		grade:
			deadShare < values['measuring.dieback-none']
				? 0
				: 1 - deadShare <= values['measuring.dieback-base']
					? 3
					: deadShare >= values['measuring.dieback-third']
						? 2
						: 1,
		next: settled || close ? null : { heightMm: limitMm, sideDeg },
		below: points.flatMap((point, i) =>
			point.reading !== 'alive' &&
			points.some(
				(other) =>
					other.reading === 'alive' &&
					other.heightMm > point.heightMm &&
					apartDeg(other.sideDeg, point.sideDeg) <= 45
			)
				? [i]
				: []
		),
		levels: quarters.flatMap((side) => {
			const here = points.filter((point) => apartDeg(point.sideDeg, side) < 45);
			if (here.length === 0) return [];
			const alive = here.filter((point) => point.reading === 'alive').map((point) => point.heightMm);
			const aliveToMm = alive.length > 0 ? Math.max(...alive) : null;
			const dead = here
				.filter((point) => point.reading !== 'alive' && point.heightMm > (aliveToMm ?? -1))
				.map((point) => point.heightMm);
			return [{ sideDeg: side, aliveToMm, deadFromMm: dead.length > 0 ? Math.min(...dead) : null }];
		})
	};
}
