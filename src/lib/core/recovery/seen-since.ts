import { logOdds } from '../maths/odds';
import { daysBetween } from '../maths/calendar';
import type { Values } from '../values/values';
import { grown, rootWarmth } from '../aftercare/water/regrowth';
import { evidenceOf, functionEvidence, limitEvidence, type Evidence, type Reference } from './evidence';
import type { RecoveryCase } from './forecast-case';
import type { ForecastTime } from './forecast-time';
import { backward, normalised, onward, type Kernel } from './standing-chain';

/** What a recovering tree shows by step: the measure for looks. It does not ask how many roots this tree had, so that fewer never count for it. */
function references(
	tree: RecoveryCase,
	steps: readonly string[],
	seasonsSince: readonly number[],
	values: Values
): Reference[] {
	const warmth = rootWarmth(tree.place, tree.sinceOn, steps.at(-1) ?? tree.sinceOn, values);
	const towards = (start: number, pace: number, seasons: number): number =>
		1 - (1 - start) * Math.exp(-pace * seasons);
	const crown = Math.min(1, Math.max(values['forecast.leastCrown'], tree.crownAtStart ?? 1));
	return steps.map((on, step) => {
		const seasons = seasonsSince[step] ?? 0;
		return {
			cover: towards(values['forecast.coverAtFirst'] * crown, values['forecast.crownPace'], seasons),
			shoots: towards(values['forecast.shootsAtFirst'], values['forecast.crownPace'], seasons),
			rootFunction: grown(values['forecast.functionAtFirst'], warmth(tree.sinceOn, on), values),
			heightMm: tree.heightMm ?? null
		};
	});
}

/** Standings by step in the light of what was seen up to it, and what each thing seen did to the chance. */
export interface SeenSince {
	/** Shares of standings by step, up to today. */
	filtered: Float64Array[];
	/** Shares today, with the last reading of the limit of living wood. */
	shares: Float64Array;
	/** Chance to come through by day of what was seen, roots left out of account. */
	path: { on: string; through: number }[];
	/** Log-odds by which each thing seen moved that chance, in the order of time. */
	moved: { on: string; what: string; by: number }[];
	lastSeenOn: string | null;
}

/** Weighs the standings by everything that was seen since the work, in the order of its days. */
export function seenSince(
	tree: RecoveryCase,
	time: ForecastTime,
	start: Float64Array,
	values: Values
): SeenSince {
	const { through, stepOf } = time;
	const measures = references(tree, time.steps, time.seasonsSince, values);
	const events = eventsOf(tree);
	const filtered: Float64Array[] = [start];
	const path: SeenSince['path'] = [];
	const moved: SeenSince['moved'] = [];
	let shares = start;
	let at = 0;
	let lastLookOn: string | null = null;
	// Living wood does not rise: a later higher reading was a slip or a new shoot.
	let lowestMm: number | null = null;
	let limitBy = 0;
	const goOnTo = (step: number): void => {
		for (; at < step; at++) {
			shares = onward(shares, time.kernelAt(at + 1));
			filtered[at + 1] = shares;
		}
	};
	/** Shares with the last reading of the limit, which counts once, where it was read last. */
	const withLimit = (step: number): { shares: Float64Array; what: string } | null => {
		const measure = measures[step];
		const limit = lowestMm === null || !measure ? null : limitEvidence(lowestMm, measure, values);
		return limit && { shares: weighed(shares, time.shownAt(step), limit, 1), what: limit.what };
	};
	for (const { on, point, look } of events) {
		const step = stepOf(on);
		goOnTo(step);
		const measure = measures[step];
		if (!measure) continue;
		const take = (one: Evidence, power: number): void => {
			const before = through(shares, step);
			shares = weighed(shares, time.shownAt(step), one, power);
			moved.push({ on, what: one.what, by: oddsBetween(before, through(shares, step)) });
		};
		if (point) take(functionEvidence(point.phi, point.sd, measure, values), 1);
		if (look) {
			// Looks soon after each other see the same thing.
			const apart = lastLookOn === null ? values['forecast.apartDays'] : daysBetween(lastLookOn, on);
			const power = Math.min(1, apart / values['forecast.apartDays']);
			for (const one of evidenceOf(look, subjectOf(tree, values), measure, values)) take(one, power);
			if (look.diebackLimitMm !== null) {
				lowestMm = lowestMm === null ? look.diebackLimitMm : Math.min(lowestMm, look.diebackLimitMm);
				const limit = withLimit(step);
				if (limit) {
					const by = oddsBetween(through(shares, step), through(limit.shares, step));
					moved.push({ on, what: limit.what, by: by - limitBy });
					limitBy = by;
				}
			}
			lastLookOn = on;
		}
		filtered[step] = shares;
		path.push({ on, through: through(withLimit(step)?.shares ?? shares, step) });
	}
	const nowStep = stepOf(tree.today);
	goOnTo(nowStep);
	shares = withLimit(nowStep)?.shares ?? shares;
	filtered[nowStep] = shares;
	return { filtered, shares, path, moved, lastSeenOn: events.at(-1)?.on ?? null };
}

/** What was weighed and looked at since the work, by day; of one day the weighing first. */
function eventsOf(tree: RecoveryCase) {
	const since = (on: string): boolean => on > tree.sinceOn && on <= tree.today;
	return [
		...tree.functionSeen
			.filter((point) => since(point.on))
			.map((point) => ({ on: point.on, point, look: null })),
		...tree.looks
			.filter((look) => since(look.observedOn))
			.map((look) => ({ on: look.observedOn, point: null, look }))
	].sort((a, b) => (a.on < b.on ? -1 : a.on > b.on ? 1 : 0));
}

const subjectOf = (tree: RecoveryCase, values: Values): Parameters<typeof evidenceOf>[1] => ({
	evergreen: tree.evergreen,
	healthyShootMm: tree.healthyShootMm,
	beganBare: (tree.crownAtStart ?? 1) < values['forecast.bareCrown']
});

const oddsBetween = (before: number, after: number): number => logOdds(after, 1e-9) - logOdds(before, 1e-9);

/** Shares of standings weighed by a thing seen. */
function weighed(shares: Float64Array, shown: Float64Array, { log }: Evidence, power: number): Float64Array {
	const logs = shown.map((shows) => power * log(shows));
	const most = Math.max(...logs);
	return normalised(shares.map((share, i) => share * Math.exp((logs[i] ?? 0) - most)));
}

/**
 * Standings of the past in the light of all that was seen since (forward filtering, backward smoothing).
 * @param till the last step that was seen, counted from 0
 */
export function smoothed(
	filtered: readonly Float64Array[],
	kernelAt: (step: number) => Kernel,
	till: number,
	last: Float64Array
): Float64Array[] {
	const list: Float64Array[] = [];
	list[till] = last;
	let after = last;
	for (let step = till - 1; step >= 0; step--) {
		const here = filtered[step];
		if (!here) continue;
		const kernel = kernelAt(step + 1);
		const predicted = onward(here, kernel);
		const ratio = after.map((share, i) => ((predicted[i] ?? 0) > 1e-200 ? share / (predicted[i] ?? 1) : 0));
		const back = backward(ratio, kernel);
		after = normalised(here.map((share, i) => share * (back[i] ?? 0)));
		list[step] = after;
	}
	return list;
}
