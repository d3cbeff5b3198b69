import { wordsOf } from '../../vocabulary/words-of';
import { measured } from '../../text/measured';
import { percent } from '../../text/percent';
import { z } from 'zod';
import { calendarDate, count, id, measure, note, oneOf, version } from '../../vocabulary/fields';
import { componentIds } from '../mixes/components';
import { waterSchools } from '../../vocabulary/words';
import { mixReuse, newMix, pottingMix } from '../mixes/bench-test';
import type { Values } from '../../values/values';
import { moundL, seatSchema } from './seat';
import { potSchema, potVolumeL } from './volume';

export const sizeRuleNames = {
	normal: 'normal step up',
	packed: 'packed roots',
	'after-rot': 'after rot or a hard reduction'
};
export type SizeRule = keyof typeof sizeRuleNames;
export const sizeRules = wordsOf(sizeRuleNames);

export const sizeAdviceOutput = z.object({
	rule: z.enum(sizeRules),
	widthMm: z.number().describe('Inner width at the rim to look for, mm'),
	reason: z.string()
});
export type SizeAdvice = z.infer<typeof sizeAdviceOutput>;

/**
 * Width of pot to look for, by the trade's rules: a step up for a normal or packed ball, otherwise the pot follows
 * what is left of the roots.
 * @param ballDiameterMm diameter of the ball as it will be planted
 * @param livingLoss share of living root taken, 0 … 1
 */
export function sizeAdvice(
	ballDiameterMm: number,
	livingLoss: number,
	state: { rot: boolean; packed: boolean },
	values: Values
): SizeAdvice {
	const hard = livingLoss >= values['pot.hardReductionFrom'];
	if (state.rot || hard)
		return {
			rule: 'after-rot',
			widthMm: ballDiameterMm + values['pot.afterRotSizeMm'],
			reason: state.rot
				? 'rot was found: the pot follows the roots that are left'
				: `${percent(livingLoss)} of the living root is gone: the pot follows what is left`
		};
	const packed = state.packed;
	return {
		rule: packed ? 'packed' : 'normal',
		widthMm: ballDiameterMm + (packed ? values['pot.packedSizeMm'] : values['pot.upSizeMm']),
		reason: packed
			? 'roots are packed: a larger step'
			: `one step up, ${measured(values['pot.upSizeMm'] / 2, 'mm')} all round`
	};
}

/** Sizes that the form suggests where nobody measured them. */
const guessable = ['ballDiameterMm', 'ballDepthMm', 'crownWidthMm', 'pot'] as const;
export type Guessable = (typeof guessable)[number];

export const plantingInput = z.strictObject({
	plantedOn: calendarDate(),
	pot: potSchema,
	sizeRule: oneOf(sizeRules),
	ballDiameterMm: measure(10, 4000, 'mm'),
	ballDepthMm: measure(5, 3000, 'mm'),
	mix: pottingMix,
	reuse: mixReuse.default(newMix),
	seat: seatSchema
		.nullable()
		.default(null)
		.describe('How it was set and held; null where it was not written'),
	crownWidthMm: measure(20, 40_000, 'mm').nullable().default(null),
	coarseLayerMm: measure(0, 1000, 'mm').default(0),
	coarseId: oneOf(componentIds).default('grit-coarse').describe('What the coarse layer is of'),
	topLayerMm: measure(0, 300, 'mm').default(0),
	topId: oneOf(componentIds)
		.nullable()
		.default(null)
		.describe('What the top layer is of; null for the mix itself'),
	headspaceMm: measure(0, 300, 'mm'),
	plantCount: count(1, 5000).default(1),
	placeId: id().nullable().default(null).describe('Where it stands afterwards; null leaves it where it is'),
	assumed: z
		.array(oneOf(guessable))
		.max(4)
		.nullable()
		.default(null)
		.describe('Sizes left as they were suggested, measured by nobody; null where that was not written'),
	note: note()
});
export type PlantingInput = z.infer<typeof plantingInput>;
export const plantingSchema = plantingInput.safeExtend({ id: id(), version: version() });
export type Planting = z.infer<typeof plantingSchema>;

/** A planting as it is planned: what to work from on the day, and what to shop for. */
export const replantPlanInput = z.strictObject({
	planting: plantingInput.describe('With the day it is planned for'),
	stockPotId: id().nullable().default(null).describe('The pot of the stock, null for one that is bought'),
	waterSchool: oneOf(waterSchools),
	takeFromStock: z.boolean().default(false)
});
export type ReplantPlanInput = z.infer<typeof replantPlanInput>;
export const replantPlanSchema = replantPlanInput.extend({ id: id(), version: version() });
export type ReplantPlan = z.infer<typeof replantPlanSchema>;

export const layerAmountsOutput = z.object({
	potL: z.number(),
	ballL: z.number(),
	coarseL: z.number(),
	mainL: z.number(),
	topL: z.number(),
	moundL: z.number().describe('Heaped over the level fill'),
	readyMainL: z.number().describe('What to have ready for one pot, settling included'),
	problems: z
		.array(z.string())
		.describe('What is wrong with the layers, in sentences; whether the ball fits is for `fitInPot`')
});
export type LayerAmounts = z.infer<typeof layerAmountsOutput>;

/** Ball and layers of a planting in its pot. */
export type PotLayers = Pick<
	PlantingInput,
	'pot' | 'ballDiameterMm' | 'ballDepthMm' | 'coarseLayerMm' | 'topLayerMm' | 'headspaceMm'
>;
/** The same, and what the layers are of. */
export type FilledPot = PotLayers & Pick<PlantingInput, 'mix' | 'coarseId'>;

/**
 * Litres of each layer around a ball in a pot: coarse layer on the floor, main mix beside and below the ball, top
 * layer up to the headspace. The ball sits with its top at the top of the fill. Parts always add up to the fill; a mound
 * comes on top.
 */
export function layerAmounts(planting: PotLayers & { moundMm?: number }, values: Values): LayerAmounts {
	const { pot, ballDiameterMm, ballDepthMm, coarseLayerMm, topLayerMm, headspaceMm, moundMm = 0 } = planting;
	const problems: string[] = [];
	const fillMm = pot.heightMm - headspaceMm;
	if (fillMm <= 0)
		problems.push(
			`The headspace (${measured(headspaceMm, 'mm')}) leaves no room in a pot ${measured(pot.heightMm, 'mm')} deep.`
		);
	const topOfMainMm = Math.max(0, fillMm - topLayerMm);
	const coarseMm = Math.min(coarseLayerMm, topOfMainMm);
	if (coarseLayerMm + topLayerMm > Math.max(0, fillMm))
		problems.push('The coarse and top layers together are deeper than the fill.');

	const coarseL = potVolumeL(pot, 0, coarseMm);
	const topWholeL = potVolumeL(pot, topOfMainMm, Math.max(topOfMainMm, fillMm));
	const mainWholeL = potVolumeL(pot, coarseMm, topOfMainMm);
	const ballRoomMm = fillMm - coarseMm;
	const seatedDepthMm = Math.max(0, Math.min(ballDepthMm, ballRoomMm));
	const wholeBallL = ((Math.PI / 4) * ballDiameterMm ** 2 * seatedDepthMm * values['pot.ballShape']) / 1e6;
	const inTopL =
		seatedDepthMm > 0 ? Math.min(topWholeL, wholeBallL * Math.min(1, topLayerMm / seatedDepthMm)) : 0;
	// A ball that is too large fills its layer and no more, so that the parts always add up to the fill.
	const inMainL = Math.min(mainWholeL, wholeBallL - inTopL);
	const ballL = inMainL + inTopL;
	const mainL = mainWholeL - inMainL;
	const topL = topWholeL - inTopL;
	const mound = moundL(pot, headspaceMm, moundMm, values);
	return {
		potL: potVolumeL(pot),
		ballL,
		coarseL,
		mainL,
		topL,
		moundL: mound,
		readyMainL: (mainL + mound) * (1 + values['pot.settling']),
		problems
	};
}

/** Layers of a pot in which balls of others stand too: they take the place of mix, of the main layer first. */
export function besideOthers(amounts: LayerAmounts, ballsL: number, values: Values): LayerAmounts {
	const inMainL = Math.min(amounts.mainL, ballsL);
	const inTopL = Math.min(amounts.topL, ballsL - inMainL);
	const mainL = amounts.mainL - inMainL;
	return {
		...amounts,
		ballL: amounts.ballL + inMainL + inTopL,
		mainL,
		topL: amounts.topL - inTopL,
		readyMainL: (mainL + amounts.moundL) * (1 + values['pot.settling'])
	};
}

/** Unrooted mix as a share of the fill: high means wet corners and a sour pot. */
export const unrootedShare = (amounts: LayerAmounts): number => {
	const fill = amounts.ballL + amounts.mainL + amounts.topL;
	return fill > 0 ? (amounts.mainL + amounts.topL) / fill : 0;
};
