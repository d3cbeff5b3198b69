import { wordsOf } from '../../vocabulary/words-of';
import { z } from 'zod';
import { measure, oneOf } from '../../vocabulary/fields';
import { turnDeg } from '../../maths/circular';
import type { Values } from '../../values/values';

export const tissueReadingNames = {
	alive: 'alive, green or moist white',
	dead: 'dead, brown and dry',
	hollow: 'hollow knock, loose bark'
};
export type TissueReading = keyof typeof tissueReadingNames;
export const tissueReadings = wordsOf(tissueReadingNames);

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

export const diebackOutput = z.object({
	limitMm: z.number().describe('Height to which the stem lives, and its 80 % range, mm'),
	lowMm: z.number(),
	highMm: z.number(),
	deadShare: z.number(),
	grade: z.number(),
	next: z
		.object({ heightMm: z.number(), sideDeg: z.number() })
		.nullable()
		.describe('Where the next scratch tells most; null when the limit is close enough'),
	below: z
		.array(z.number())
		.describe(
			'Dead or hollow places that lie below living ones on the same side: a wound or a misreading, not dieback from the top'
		),
	levels: z
		.array(
			z.object({ sideDeg: z.number(), aliveToMm: z.number().nullable(), deadFromMm: z.number().nullable() })
		)
		.describe(
			'How high each side that was looked at lives, by its own readings: highest living, and lowest that is not above it'
		)
});
export type DiebackResult = z.infer<typeof diebackOutput>;

const STEPS = 400;

const QUARTERS_DEG = [0, 90, 180, 270];
/** A side is a quarter of the stem: so far to either hand of its middle. */
const HALF_SIDE_DEG = 45;

type Scratch = ScratchTapData['points'][number];
const isAlive = ({ reading }: Scratch): boolean => reading === 'alive';
const apartDeg = (a: number, b: number): number => Math.abs(turnDeg(a, b));

/** Readings that tell something: a patch that was read again and again is one thing that was seen. */
function tellingOnes({ heightMm, points }: ScratchTapData, values: Values): Scratch[] {
	const patchMm = values['measuring.wound-below'] * heightMm;
	const livesAbove = (at: number): number =>
		points.filter((other) => isAlive(other) && other.heightMm >= at + patchMm).length;
	return points.filter(
		(point, i) =>
			isAlive(point) ||
			livesAbove(point.heightMm) < 2 ||
			!points
				.slice(0, i)
				.some(
					(before) =>
						!isAlive(before) &&
						apartDeg(before.sideDeg, point.sideDeg) <= HALF_SIDE_DEG &&
						Math.abs(before.heightMm - point.heightMm) <= patchMm
				)
	);
}

/** Height below which the stem lives, by quantile, from readings each of which is wrong now and then. */
function limitQuantiles(
	telling: readonly Scratch[],
	heightMm: number,
	wrong: number
): (share: number) => number {
	const limits = Array.from({ length: STEPS + 1 }, (_, i) => (i / STEPS) * heightMm);
	const weights = limits.map((limit) =>
		telling.reduce(
			(weight, point) => weight * (isAlive(point) === point.heightMm <= limit ? 1 - wrong : wrong),
			1
		)
	);
	const total = weights.reduce((sum, weight) => sum + weight, 0);
	return (share) => {
		let sum = 0;
		for (const [i, weight] of weights.entries()) {
			sum += weight / total;
			if (sum >= share) return limits[i] ?? heightMm;
		}
		return heightMm;
	};
}

/** How high one side lives by its own readings. */
function levelOf(sideDeg: number, points: readonly Scratch[]): DiebackResult['levels'] {
	const here = points.filter((point) => apartDeg(point.sideDeg, sideDeg) < HALF_SIDE_DEG);
	if (here.length === 0) return [];
	const alive = here.filter(isAlive).map((point) => point.heightMm);
	const aliveToMm = alive.length > 0 ? Math.max(...alive) : null;
	const dead = here
		.filter((point) => !isAlive(point) && point.heightMm > (aliveToMm ?? -1))
		.map((point) => point.heightMm);
	return [{ sideDeg, aliveToMm, deadFromMm: dead.length > 0 ? Math.min(...dead) : null }];
}

/** Share of the stem that is dead as a grade: 0 nothing to speak of, 1 some, 2 a third or more, 3 down to the base. */
function diebackGrade(deadShare: number, values: Values): number {
	if (deadShare < values['measuring.dieback-none']) return 0;
	if (1 - deadShare <= values['measuring.dieback-base']) return 3;
	return deadShare >= values['measuring.dieback-third'] ? 2 : 1;
}

/**
 * The dieback limit from scratches and taps: below it the stem lives, above it is dead, each reading wrong now and then. It is a level
 * of the whole stem: dead places near each other at one side, with two
 * or more living ones well above them on whatever side, are one patch and count once.
 * Bayes over a grid of heights, every limit from the ground to the top equally likely beforehand [our own].
 * The next scratch goes where the limit is as likely above as below, on the side least looked at.
 */
export function diebackLimit(data: ScratchTapData, values: Values): DiebackResult {
	const { heightMm, points } = data;
	const quantile = limitQuantiles(tellingOnes(data, values), heightMm, values['measuring.misread']);
	const limitMm = quantile(0.5);
	const [lowMm, highMm] = [quantile(0.1), quantile(0.9)];
	// A stem that is alive at its top has no limit below it.
	const topMm = (1 - values['measuring.topShare']) * heightMm;
	const settled = points.every(isAlive) && points.some((point) => point.heightMm >= topMm);
	const deadShare = settled ? 0 : Math.max(0, 1 - limitMm / heightMm);
	const close = highMm - lowMm <= values['measuring.dieback-close'] * heightMm;
	const near = (side: number): number =>
		points.filter((point) => apartDeg(point.sideDeg, side) <= HALF_SIDE_DEG).length;
	const sideDeg = QUARTERS_DEG.reduce((best, side) => (near(side) < near(best) ? side : best), 0);
	const liesBelowLiving = (point: Scratch): boolean =>
		points.some(
			(other) =>
				isAlive(other) &&
				other.heightMm > point.heightMm &&
				apartDeg(other.sideDeg, point.sideDeg) <= HALF_SIDE_DEG
		);
	return {
		limitMm: settled ? heightMm : limitMm,
		lowMm: settled ? heightMm : lowMm,
		highMm: settled ? heightMm : highMm,
		deadShare,
		grade: diebackGrade(deadShare, values),
		next: settled || close ? null : { heightMm: limitMm, sideDeg },
		below: points.flatMap((point, i) => (!isAlive(point) && liesBelowLiving(point) ? [i] : [])),
		levels: QUARTERS_DEG.flatMap((side) => levelOf(side, points))
	};
}
