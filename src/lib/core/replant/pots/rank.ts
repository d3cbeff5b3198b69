import { wordsOf } from '../../vocabulary/words-of';
import type { Kind } from '../../vocabulary/kind';
import { bodyOf, type PottingMix } from '../mixes/bench-test';
import { componentOf, type ComponentId } from '../mixes/components';
import { waterAndAir } from '../mixes/retention';
import type { Values } from '../../values/values';
import { dryDown, type DryDay } from './dry-down';
import { storesOf, withOthers, type OthersInPot } from './stores';
import { fitInPot, type Ball, type Fit, type Standing } from './fit';
import { besideOthers, layerAmounts, unrootedShare } from './replant-plan';
import { floorOf, isRound, type Pot, type PotShape } from './volume';
import { wetMassKg } from './wet-mass';
import { crownOf, tippingWindMs } from './wind';

/** What is the same for every pot that is tried. */
export interface PotQuestion {
	ball: Ball;
	ballDiameterMm: number;
	ballDepthMm: number;
	standing: Omit<Standing, 'flareOverRimMm' | 'floorMm'>;
	mix: PottingMix;
	coarseLayerMm: number;
	coarseId: ComponentId;
	/** Mound over the level fill, mm. */
	moundMm: number;
	topLayerMm: number;
	headspaceMm: number;
	/** Flare over the rim; negative below it. */
	flareOverRimMm: number;
	wetnessTrigger: Kind['wetnessTrigger'];
	/** What the days from planting on ask for, and what is left of the roots. */
	days: readonly DryDay[];
	crownWidthMm: number;
	rootFunction: number;
	heightM: number | null;
	/** Width it should have by the two schools of pot size, mm. */
	largerWidthMm: number;
	sameWidthMm: number;
	/** What else stands in it. */
	others: OthersInPot;
}

export const potVerdictNames = {
	'no-fit': 'does not go in',
	over: 'stays wet too long',
	watch: 'dries slowly: watch it',
	right: 'dries as it should',
	under: 'dries too soon'
};
export type PotVerdict = keyof typeof potVerdictNames;
export const potVerdicts = wordsOf(potVerdictNames);

export interface JudgedPot {
	pot: Pot;
	fit: Fit;
	/** Litres of mix around the ball, and the share of the fill without roots. */
	mixL: number;
	unrooted: number;
	/** Water that roots can draw, drained to dry; litres. */
	waterL: number;
	airSpace: number;
	/** Days from drained to the dryness at which it is watered, without rain. */
	dryDownDays: number;
	wetKg: number;
	/** Wind that tips it, m/s; null where the height of the tree is not known. */
	tipsMs: number | null;
	/** Wider than the ball by, mm at the rim. */
	widerMm: number;
	verdict: PotVerdict;
	/** Off the width that each school would take, mm: above 0 is larger. */
	offLargerMm: number;
	offSameMm: number;
}

/** Air, water, weight and dry-down of a ball in one pot. */
export function judgePot(pot: Pot, massKg: number | null, question: PotQuestion, values: Values): JudgedPot {
	const { headspaceMm, coarseLayerMm, coarseId } = question;
	const fit = fitInPot(question.ball, pot, {
		...question.standing,
		flareOverRimMm: question.flareOverRimMm,
		floorMm: coarseLayerMm
	});
	const amounts = besideOthers(layerAmounts({ ...question, pot }, values), question.others.ballsL, values);
	const fillMm = Math.max(10, pot.heightMm - headspaceMm);
	const body = bodyOf(question.mix, values);
	const coarsePoreMm = componentOf(coarseId).fineMm * values['mix.poreOfGrain'];
	const water = waterAndAir(body, pot, { coarseLayerMm, coarsePoreMm }, fillMm);
	const mixL = amounts.mainL + amounts.topL + amounts.moundL;
	const stores = withOthers(
		storesOf(
			{ ...question, pot, seat: { moundMm: question.moundMm } },
			{ heightM: question.heightM, trunkDiameterMm: 0 },
			values
		),
		question.others
	);
	const waterL = stores.rootedMostL + stores.unrootedMostL;
	const days = dryDown(stores, question.days, question.wetnessTrigger, question.rootFunction, values);
	const wetKg = wetMassKg({ ...question, pot }, values) + (massKg ?? 0);
	const width = Math.min(pot.topLengthMm, pot.topWidthMm);
	return {
		pot,
		fit,
		mixL,
		unrooted: unrootedShare(amounts),
		waterL,
		airSpace: water.airSpace,
		dryDownDays: days,
		wetKg,
		tipsMs:
			question.heightM === null
				? null
				: tippingWindMs({ massKg: wetKg, ...crownOf(question.heightM, pot, values) }, values),
		widerMm: width - question.ballDiameterMm,
		verdict:
			!fit.fits || amounts.problems.length > 0
				? 'no-fit'
				: days > values['pot.dryDownMostDays']
					? 'over'
					: days > values['pot.dryDownWatchDays']
						? 'watch'
						: days < values['pot.dryDownLeastDays']
							? 'under'
							: 'right',
		offLargerMm: width - question.largerWidthMm,
		offSameMm: width - question.sameWidthMm
	};
}

const order: Record<PotVerdict, number> = { right: 0, watch: 1, under: 2, over: 3, 'no-fit': 4 };

/**
 * The pots at hand, best first: what goes in before what must be shaved; then how it dries; then how near its width is to the
 * school that is followed; of those that do not go in, the least to shave.
 */
export function rankPots<T extends { pot: Pot; massKg: number | null }>(
	pots: readonly T[],
	question: PotQuestion,
	school: 'larger' | 'same',
	values: Values
): (T & { judged: JudgedPot })[] {
	const off = (judged: JudgedPot): number =>
		Math.abs(school === 'larger' ? judged.offLargerMm : judged.offSameMm);
	const shave = ({ fit }: JudgedPot): number => fit.shaveEvenlyMm + fit.shaveUnderMm;
	return pots
		.map((entry) => ({ ...entry, judged: judgePot(entry.pot, entry.massKg, question, values) }))
		.sort(
			({ judged: a }, { judged: b }) =>
				order[a.verdict] - order[b.verdict] ||
				(a.verdict === 'no-fit' ? shave(a) - shave(b) : off(a) - off(b))
		);
}

export interface ProposedPot {
	name: string;
	pot: Pot;
}

/**
 * Sizes to look for, by rule: both schools of width, and both of depth (deep and free-draining, or shallow and flat). The
 * depth takes ball, coarse layer and headspace.
 */
export function proposePots(question: PotQuestion, shape: PotShape, values: Values): ProposedPot[] {
	const taper = isRound(shape) ? values['pot.taperRound'] : values['pot.taperSquare'];
	const least = question.ballDepthMm + question.coarseLayerMm - question.flareOverRimMm;
	const make = (width: number, heightMm: number): Pot => {
		const top = Math.round(width / 5) * 5;
		const bottom = Math.round((top * taper) / 5) * 5;
		const pot: Pot = {
			shape,
			topLengthMm: top,
			topWidthMm: top,
			bottomLengthMm: bottom,
			bottomWidthMm: bottom,
			heightMm: Math.ceil(Math.max(30, heightMm) / 5) * 5
		};
		return { ...pot, ...floorOf(pot) };
	};
	return [
		{ name: 'same or smaller, shallow', pot: make(question.sameWidthMm, least) },
		{ name: 'same or smaller, deep', pot: make(question.sameWidthMm, least * values['pot.deepFactor']) },
		{ name: 'clearly larger, shallow', pot: make(question.largerWidthMm, least) },
		{ name: 'clearly larger, deep', pot: make(question.largerWidthMm, least * values['pot.deepFactor']) }
	];
}
