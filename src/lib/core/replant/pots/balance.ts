import { z } from 'zod';
import type { SeriesDay } from '../../climate/series';
import type { Values } from '../../values/values';

/** A pot as two stores of water: where roots are, and the mix that has none yet. Litres above dry. */
export const potWaterOutput = z.object({
	rootedL: z.number(),
	unrootedL: z.number()
});
export type PotWater = z.infer<typeof potWaterOutput>;
export interface PotStores {
	/** Most that each holds when drained. */
	rootedMostL: number;
	unrootedMostL: number;
	/** Open surface, and ground the crown covers, m². */
	surfaceM2: number;
	crownM2: number;
}

export const potDayOutput = z.object({
	on: z.string(),
	water: potWaterOutput.describe('At the end of the day'),
	rainL: z.number(),
	irrigationL: z.number(),
	transpirationL: z.number(),
	evaporationL: z.number(),
	outflowL: z.number(),
	dryness: z.number().describe('From 0 drained to 1 dry, over both')
});
export type PotDay = z.infer<typeof potDayOutput>;

/** The numbers that a balance goes by. */
export type BalanceValues = Pick<
	Values,
	'water.crownFactor' | 'water.surfaceFactor' | 'water.crossing' | 'water.groundFree'
>;

/** What a day asks of roots and soil. */
interface DayOfRoots {
	day: Pick<SeriesDay, 'on' | 'et0Mm' | 'rainMm'>;
	/** 0 … 1 and a little over. */
	rootFunction: number;
	inLeaf: boolean;
}

/** A pot that has drained after a watering. */
export const fullPot = (stores: PotStores): PotWater => ({
	rootedL: stores.rootedMostL,
	unrootedL: stores.unrootedMostL
});
/**
 * How dry a pot is, by all that it holds.
 * @returns 0 drained … 1 dry
 */
export const drynessOf = (water: PotWater, stores: PotStores): number => {
	const most = stores.rootedMostL + stores.unrootedMostL;
	return most > 0 ? Math.min(1, Math.max(0, 1 - (water.rootedL + water.unrootedL) / most)) : 1;
};

/**
 * One day of a pot: rain and irrigation in, what does not fit runs out; the crown draws from the rooted mix, the less the
 * drier it is beyond half; the surface dries both; then water moves from the wetter to the drier part, slowly. Water is
 * conserved: before + rain + irrigation = after + transpiration + evaporation + outflow.
 */
export function potDay(
	before: PotWater,
	stores: PotStores,
	{ day, rootFunction, inLeaf, irrigationL }: DayOfRoots & { irrigationL: number },
	values: BalanceValues
): PotDay {
	const rainL = day.rainMm * stores.surfaceM2;
	const most = stores.rootedMostL + stores.unrootedMostL;
	const share = most > 0 ? stores.rootedMostL / most : 1;
	const inL = rainL + irrigationL;
	// Water goes where it is poured, by volume, then over into the other part before any runs out.
	let rooted = before.rootedL + inL * share;
	let unrooted = before.unrootedL + inL * (1 - share);
	const overRooted = Math.max(0, rooted - stores.rootedMostL);
	rooted -= overRooted;
	unrooted += overRooted;
	const overUnrooted = Math.max(0, unrooted - stores.unrootedMostL);
	unrooted -= overUnrooted;
	const back = Math.min(overUnrooted, stores.rootedMostL - rooted);
	rooted += back;
	const outflowL = overUnrooted - back;

	const wetness = stores.rootedMostL > 0 ? rooted / stores.rootedMostL : 0;
	// FAO-56, equation 84, with a depletion of a half that is drawn freely.
	const stress = Math.min(1, wetness / 0.5);
	const transpirationL = Math.min(
		rooted,
		(inLeaf ? day.et0Mm * stores.crownM2 * values['water.crownFactor'] : 0) * rootFunction * stress
	);
	rooted -= transpirationL;
	const wet = most > 0 ? (rooted + unrooted) / most : 0;
	const evaporationL = Math.min(
		rooted + unrooted,
		day.et0Mm * stores.surfaceM2 * values['water.surfaceFactor'] * Math.min(1, wet * 2)
	);
	const fromRooted = rooted + unrooted > 0 ? evaporationL * (rooted / (rooted + unrooted)) : 0;
	rooted -= fromRooted;
	unrooted -= evaporationL - fromRooted;

	if (stores.rootedMostL > 0 && stores.unrootedMostL > 0) {
		const apart = unrooted / stores.unrootedMostL - rooted / stores.rootedMostL;
		const even =
			(apart * stores.rootedMostL * stores.unrootedMostL) / (stores.rootedMostL + stores.unrootedMostL);
		const moved = even * values['water.crossing'];
		rooted += moved;
		unrooted -= moved;
	}
	const water = { rootedL: Math.max(0, rooted), unrootedL: Math.max(0, unrooted) };
	return {
		on: day.on,
		water,
		rainL,
		irrigationL,
		transpirationL,
		evaporationL,
		outflowL,
		dryness: drynessOf(water, stores)
	};
}

export const groundWaterOutput = z.object({
	ballMm: z.number(),
	backfillMm: z.number()
});
export type GroundWater = z.infer<typeof groundWaterOutput>;
export interface GroundStores extends GroundWater {
	/** Ground of the ball, or of the root zone of a tree grown there, m². The mm above are over this. */
	areaM2: number;
	/** Ground its crown covers over that area. */
	crownRatio: number;
	/** Share of that area under grass or other plants, which drink too. */
	grassShare: number;
}

export const groundDayOutput = z.object({
	on: z.string(),
	water: groundWaterOutput,
	drawnMm: z.number(),
	grassMm: z.number(),
	drainedMm: z.number(),
	stress: z.number().describe('FAO-56 stress coefficient: 1 it drinks freely, 0 not at all'),
	dryness: z.number().describe('From 0 drained to 1 dry, of the ball or the root zone')
});
export type GroundDay = z.infer<typeof groundDayOutput>;

/**
 * How freely roots drink: wholly while a ball or a root zone holds more than what is not free, then less and less as it dries.
 * @param ballMm water it holds, mm
 * @returns 0 not at all … 1 freely
 * @see Allen et al. 1998, equation 84
 */
export const groundStress = (
	ballMm: number,
	stores: Pick<GroundStores, 'ballMm'>,
	values: BalanceValues
): number =>
	stores.ballMm > 0 ? Math.min(1, ballMm / ((1 - values['water.groundFree']) * stores.ballMm)) : 0;

/**
 * One day of a tree in the ground: what does not fit the ball goes to the backfill, what does not fit that drains; roots draw
 * from the ball by FAO-56 stress once the free share of it is gone; the backfill feeds the ball. Water is conserved: before +
 * rain + irrigation = after + drawn + grass + drained.
 * @see Allen et al. 1998, chapter 8, equations 82–85
 */
export function groundDay(
	before: GroundWater,
	stores: GroundStores,
	{ day, rootFunction, inLeaf, irrigationMm }: DayOfRoots & { irrigationMm: number },
	values: BalanceValues
): GroundDay {
	let ball = before.ballMm + day.rainMm + irrigationMm;
	const over = Math.max(0, ball - stores.ballMm);
	ball -= over;
	let backfill = before.backfillMm + over;
	const drainedMm = Math.max(0, backfill - stores.backfillMm);
	backfill -= drainedMm;
	const stress = groundStress(ball, stores, values);
	const drawnMm = Math.min(
		ball,
		(inLeaf ? day.et0Mm * values['water.crownFactor'] * stores.crownRatio : 0) * rootFunction * stress
	);
	ball -= drawnMm;
	const grassMm = Math.min(ball, day.et0Mm * stores.grassShare * stress);
	ball -= grassMm;
	if (stores.backfillMm > 0 && stores.ballMm > 0) {
		const apart = backfill / stores.backfillMm - ball / stores.ballMm;
		const even = (apart * stores.ballMm * stores.backfillMm) / (stores.ballMm + stores.backfillMm);
		const moved = even * values['water.crossing'];
		ball += moved;
		backfill -= moved;
	}
	return {
		on: day.on,
		water: { ballMm: ball, backfillMm: backfill },
		drawnMm,
		grassMm,
		drainedMm,
		stress,
		dryness: stores.ballMm > 0 ? Math.min(1, Math.max(0, 1 - ball / stores.ballMm)) : 1
	};
}
