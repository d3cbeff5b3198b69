import { logistic } from '../maths/odds';
import { addDays, daysBetween } from '../maths/calendar';
import type { Values } from '../values/values';
import { growingDayCounter } from './expected';
import type { RecoveryCase } from './forecast-case';
import { backward, kernelOf, standings, type Kernel } from './standing-chain';

const STEP_DAYS = 7;

/** The weeks of a forecast: how a standing moves through them, how much of it shows, and what it is worth in the end. */
export interface ForecastTime {
	horizonOn: string;
	/** First day of each week, from the work to the horizon, or to today where that is later. */
	steps: readonly string[];
	stepOf: (on: string) => number;
	/** Growing seasons since the work, by step. */
	seasonsSince: readonly number[];
	/** Move into a step from the one before it. */
	kernelAt: (step: number) => Kernel;
	/** How well each standing shows at a step, 0 … 1. */
	shownAt: (step: number) => Float64Array;
	/** Chance to stand above the tipping point at the horizon, by the shares of standings at a step. */
	through: (shares: Float64Array, step: number) => number;
	/** That chance from each standing at the work. */
	worthAtStart: Float64Array;
}

/** The steps of a forecast, with the season that each lies in. */
export function forecastTime(tree: RecoveryCase, values: Values): ForecastTime {
	const horizonOn = addDays(tree.sinceOn, values['forecast.horizonDays']);
	const to = horizonOn > tree.today ? horizonOn : tree.today;
	const steps: string[] = [];
	for (let on = tree.sinceOn; on <= to; on = addDays(on, STEP_DAYS)) steps.push(on);

	// Time as the tree has it: the growing season whole, the rest of the year a little.
	const growing = growingDayCounter(tree.place, tree.tender, tree.sinceOn, steps.at(-1) ?? to, values);
	const season = Math.max(60, growing(tree.sinceOn, addDays(tree.sinceOn, 365)));
	const grew = steps.map((on, step) => (step === 0 ? 0 : growing(steps[step - 1] ?? on, on)));
	const growingKernel = kernelOf(STEP_DAYS / season, values);
	const restingKernel = kernelOf((values['forecast.restPace'] * STEP_DAYS) / season, values);
	const kernelAt = (step: number): Kernel =>
		(grew[step] ?? 0) > STEP_DAYS / 2 ? growingKernel : restingKernel;
	let sum = 0;
	const seasonsSince = grew.map((days) => (sum += days) / season);
	// Stores carry a tree at first, so that it shows more than it has; with time it shows how it stands.
	const bendAt = seasonsSince.map(
		(seasons) =>
			1 - (1 - values['forecast.storesShow']) * Math.exp(-seasons / values['forecast.storesSeasons'])
	);
	const worth = chanceToComeThrough(steps.length, kernelAt);
	return {
		horizonOn,
		steps,
		stepOf: (on) =>
			Math.min(steps.length - 1, Math.max(0, Math.round(daysBetween(tree.sinceOn, on) / STEP_DAYS))),
		seasonsSince,
		kernelAt,
		shownAt: (step) =>
			Float64Array.from(standings, (y, i) => (i === 0 ? 0 : logistic(y) ** (bendAt[step] ?? 1))),
		through: (shares, step) => {
			let chance = 0;
			const at = worth[step];
			for (let i = 0; i < shares.length; i++) chance += (shares[i] ?? 0) * (at?.[i] ?? 0);
			return chance;
		},
		worthAtStart: worth[0] ?? new Float64Array(standings.length)
	};
}

/** Chance to come through from each standing at each step. */
function chanceToComeThrough(count: number, kernelAt: (step: number) => Kernel): Float64Array[] {
	const worth: Float64Array[] = [];
	let later: Float64Array = Float64Array.from(standings, (y) => (y > 0 ? 1 : y === 0 ? 0.5 : 0));
	for (let step = count - 1; step >= 0; step--) {
		worth[step] = later;
		if (step > 0) later = backward(later, kernelAt(step));
	}
	return worth;
}
