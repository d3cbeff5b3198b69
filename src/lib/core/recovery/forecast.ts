import { z } from 'zod';
import { Z80 } from '../maths/normal';
import { logistic, LOGISTIC_SD, logOdds } from '../maths/odds';
import { daysBetween } from '../maths/calendar';
import type { Values } from '../values/values';
import type { RecoveryCase } from './forecast-case';
import { forecastTime, type ForecastTime } from './forecast-time';
import { functionBand, rootCourses, rootsEnough } from './root-courses';
import { seenSince, smoothed } from './seen-since';
import { onward, startingShares } from './standing-chain';

export type { LookSeen } from './evidence';
export type { RecoveryCase } from './forecast-case';

export const coursePointOutput = z.object({
	on: z.string(),
	low: z.number(),
	middle: z.number(),
	high: z.number()
});
export type CoursePoint = z.infer<typeof coursePointOutput>;

export const recoveryForecastOutput = z.object({
	prior: z.number().describe('Probability of re-establishment as judged at the work, and now'),
	now: z.number(),
	through: z
		.number()
		.describe('Probability that it comes through, however long its roots take: now is this times inTime'),
	inTime: z
		.number()
		.describe('Probability that its roots, or its shoots against a healthy one’s, are enough by the horizon'),
	low: z
		.number()
		.describe(
			'80 % range of now: what is not known of the odds at the work, and what nobody has looked at since, stays not known'
		),
	high: z.number(),
	path: z.array(z.object({ on: z.string(), probability: z.number() })).describe('By day of what was seen'),
	moved: z
		.array(z.object({ on: z.string(), what: z.string(), by: z.number() }))
		.describe('What moved it, strongest first: log-odds by which each thing seen did'),
	expected: z
		.array(coursePointOutput)
		.describe('Root function over time, 90 % band: as expected at the work, and with what was seen'),
	course: z.array(coursePointOutput),
	reaches: z
		.object({ early: z.string(), middle: z.string(), late: z.string() })
		.nullable()
		.describe('Day on which enough root function is reached, if it recovers: 10, 50 and 90 % of the courses'),
	effective: z
		.number()
		.describe('Standings that carry the weight: few means that what was seen leaves little doubt'),
	horizonOn: z.string(),
	lastSeenOn: z
		.string()
		.nullable()
		.describe('Day on which anything was seen of it last; null when nothing was since the work'),
	known: z
		.boolean()
		.describe('False when nobody has seen anything for so long that the chance is not known any more'),
	dead: z
		.array(z.string())
		.nullable()
		.describe('What says that it is dead, the strongest first, when it does; null otherwise')
});
export type RecoveryForecast = z.infer<typeof recoveryForecastOutput>;

/**
 * Whether it comes back: a hidden standing from the work on, moved by the season, weighed by everything that was seen since
 * (a hidden Markov model, solved exactly; Rabiner 1989). The probability is that of re-establishment within the horizon: of
 * standing above the tipping point then, with roots enough. In every single thing seen, and in roots, losses and odds at the
 * start, worse never makes it better. Looks soon after each other count less [our own numbers].
 */
export function recoveryForecast(
	tree: RecoveryCase,
	values: Values,
	{ bands = true }: { bands?: boolean } = {}
): RecoveryForecast {
	const { time, start, seen, nowStep } = standingNow(tree, values);
	const { steps, horizonOn } = time;
	const horizon = time.stepOf(horizonOn);
	const roots = rootCourses(tree, steps, values);
	const { reached, inTime: byRoots } = rootsEnough(roots.courses, horizon, values);
	/** Roots are enough by their course, or shoots as long as a healthy one’s say so. */
	const enough = (on: string): number => 1 - (1 - byRoots) * (1 - shootsEnough(tree, on, values));
	const prior = time.through(start, 0) * byRoots;
	const through = time.through(seen.shares, nowStep);
	const inTime = enough(tree.today);
	const now = through * inTime;

	const path = [{ on: tree.sinceOn, probability: prior }];
	for (const point of seen.path) path.push({ on: point.on, probability: point.through * enough(point.on) });
	if (path.at(-1)?.on === tree.today) path.pop();
	path.push({ on: tree.today, probability: now });

	const band = (of: readonly Float64Array[], till: number): CoursePoint[] =>
		bands ? functionCourse(of, till, time, roots, values) : [];
	const dayAt = (share: number): string =>
		steps[reached[Math.min(reached.length - 1, Math.floor(share * reached.length))] ?? horizon] ?? horizonOn;
	const { moved } = seen;
	const against = moved.filter((one) => one.by <= -values['forecast.movedLeast']).sort((a, b) => a.by - b.by);
	return {
		prior,
		now,
		through,
		inTime,
		...rangeOf(tree, now, seen.lastSeenOn, values),
		path,
		moved: moved
			.filter((one) => Math.abs(one.by) >= values['forecast.movedLeast'])
			.sort((a, b) => Math.abs(b.by) - Math.abs(a.by)),
		expected: band([start], 0),
		course: bands ? band(smoothed(seen.filtered, time.kernelAt, nowStep, seen.shares), nowStep) : [],
		reaches:
			reached.length > 0 && now > 1e-6 ? { early: dayAt(0.1), middle: dayAt(0.5), late: dayAt(0.9) } : null,
		effective: 1 / seen.shares.reduce((total, share) => total + share ** 2, 0),
		horizonOn,
		dead: through < values['forecast.deadUnder'] && against.length > 0 ? against.map((one) => one.what) : null
	};
}

/**
 * Chance that the shoots of its last seasons were as long as the verdict wants them, by the best that was measured; none where no
 * healthy one’s are known.
 */
function shootsEnough(
	{ looks, sinceOn, referenceShootMm = null }: RecoveryCase,
	on: string,
	values: Values
): number {
	if (referenceShootMm === null || referenceShootMm <= 0) return 0;
	const best = looks
		.filter(
			(look) =>
				look.observedOn > sinceOn &&
				look.observedOn <= on &&
				daysBetween(look.observedOn, on) <= values['verdict.shootDays']
		)
		.reduce((most, look) => Math.max(most, look.shootExtensionMm ?? 0), 0);
	return best === 0
		? 0
		: logistic(
				(best / referenceShootMm - values['verdict.shootShareOfReference']) /
					(LOGISTIC_SD * values['forecast.shootRead'])
			);
}

/** How a tree stands today in the light of all that was seen of it, and the weeks that it is judged over. */
export function standingNow(tree: RecoveryCase, values: Values) {
	const time = forecastTime(tree, values);
	// Losses since the work cost their share of the odds, like those at the work.
	const lostSince = tree.losses
		.filter((loss) => loss.on > tree.sinceOn && loss.on <= tree.today)
		.reduce((total, loss) => total + loss.share, 0);
	const odds = tree.odds + values['forecast.lossOdds'] * lostSince;
	const start = startingShares(odds, time.worthAtStart, values);
	return { time, odds, start, seen: seenSince(tree, time, start, values), nowStep: time.stepOf(tree.today) };
}

/**
 * How unsure the chance is, one deviation of its log-odds: as it was judged at the work, and more the longer nobody has looked beyond
 * the usual time.
 */
export function oddsUnsure(
	tree: Pick<RecoveryCase, 'sinceOn' | 'today' | 'oddsSpread'>,
	lastSeenOn: string | null,
	values: Values
): number {
	const unseen = daysBetween(lastSeenOn ?? tree.sinceOn, tree.today);
	const beyond = Math.max(0, unseen - values['look.overdueDays']);
	return Math.hypot(tree.oddsSpread, (values['forecast.unseenSpread'] * beyond) / 365);
}

/** 80 % range of the chance now: wider the longer nobody has looked beyond the usual time. */
function rangeOf(
	tree: RecoveryCase,
	now: number,
	lastSeenOn: string | null,
	values: Values
): Pick<RecoveryForecast, 'low' | 'high' | 'lastSeenOn' | 'known'> {
	const unseen = daysBetween(lastSeenOn ?? tree.sinceOn, tree.today);
	const spread = oddsUnsure(tree, lastSeenOn, values);
	const told = logOdds(now, 1e-9);
	return {
		low: Math.min(now, logistic(told - Z80 * spread)),
		high: Math.max(now, logistic(told + Z80 * spread)),
		lastSeenOn,
		known: unseen <= values['forecast.unknownDays']
	};
}

/**
 * Root function every other week, 90 % band. Beyond what was seen nothing is; before it, what came later tells of what was.
 * @param of shares of standings by step
 * @param till last step that is known
 */
function functionCourse(
	of: readonly Float64Array[],
	till: number,
	time: ForecastTime,
	{ courses, sd }: ReturnType<typeof rootCourses>,
	values: Values
): CoursePoint[] {
	const points: CoursePoint[] = [];
	const begin = of[0] ?? new Float64Array();
	let ahead = of[till] ?? begin;
	time.steps.forEach((on, step) => {
		if (step > till) ahead = onward(ahead, time.kernelAt(step));
		if (step % 2 === 1) return;
		const [low, middle, high] = functionBand(
			step <= till ? (of[step] ?? begin) : ahead,
			time.shownAt(step),
			courses.map((course) => course.phi[step] ?? 0),
			sd[step] ?? 0,
			values
		);
		points.push({ on, low, middle, high });
	});
	return points;
}
