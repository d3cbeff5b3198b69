import { rootCourses } from '../recovery/root-courses';
import { forecastTime } from '../recovery/forecast-time';
import { addDays } from '../maths/calendar';
import type { Values } from '../values/values';
import type { DeathCause } from '../recovery/rehearsal/kept';
import { findingOut, type FindingOut } from './finding-out';
import { calendarOf, futuresOf, type Calendar, type Future } from './futures';
import type { RehearsedPlan } from '../recovery/rehearsal/plan';
import { causes, PlayedTree, type Cause } from './played-tree';
import { playedValues, type PlayedValues } from './played-values';
import { prepared, type Prepared } from './prepared';
import type { RehearsalScene } from './scene';
import { beginOf, moveBy, overTipping, weeksFrom, weekOn, type Band, type Begin } from './standings';
import { apart, type Apart } from './apart';

/** A chance on a day: in the mean of all futures, and within which four of five of them lie. */
export interface ChancePoint {
	on: string;
	low: number;
	mean: number;
	high: number;
}

/** What a plan came to in one future. */
export interface FutureEnd {
	/** Chance to be alive, to stand over the tipping point, and to be re-established at the end. */
	alive: number;
	stands: number;
	established: number;
	/** What it is worth: re-established counts whole, standing in part. */
	worth: number;
}

/** What becomes of one plan. */
export interface PlanOutcome {
	plan: RehearsedPlan;
	alive: ChancePoint[];
	established: ChancePoint[];
	/** Root function, 80 % of futures. */
	roots: ChancePoint[];
	/** At the end: chance to be alive, to come through, to be re-established; and that it or a young one of it lives. */
	end: { alive: number; stands: number; established: number; line: number; worth: number; error: number };
	/** What it dies of, the most likely first, and from which day that shows. */
	dies: { cause: DeathCause; chance: number; showsOn: string | null }[];
	/** What it asks of people, in the mean. */
	costs: { waterings: number; covered: number; visits: number; minutes: number };
	/** Planned root work that lies beyond the end, so that it cannot be re-established by then. */
	worksLater: boolean;
	ends: readonly FutureEnd[];
}

/** Plans played side by side through the same futures. */
export interface Rehearsal {
	futures: number;
	seed: number;
	from: string;
	to: string;
	outcomes: PlanOutcome[];
	/** Every pair of plans: in how many futures which is better, and whether they differ at all. */
	pairs: Apart[];
	/** Indexes of the plans, best first. */
	order: number[];
	/** What would be worth knowing before choosing, the most first. */
	finding: FindingOut[];
}

export interface RehearsalOptions {
	futures?: number;
	seed?: number;
	/** Is told the share that is played, 0 … 1; throws to stop. */
	onProgress?: (share: number) => void;
}

/** Same for all futures and plans of one rehearsal. */
interface Stage {
	scene: RehearsalScene;
	values: Values;
	/** The few of them that are asked for every day. */
	played: PlayedValues;
	calendar: Calendar;
	begin: Begin;
	weeks: number;
	bands: readonly Band[];
	seasons: readonly number[];
	/** Root function today: by pace, and how unsure it is. */
	rootsNow: (pace: number) => number;
	rootsSd: number;
}

/** Root function today by how fast its roots grow, as the forecast has it. */
function rootsToday(scene: RehearsalScene, values: Values): Pick<Stage, 'rootsNow' | 'rootsSd'> {
	const tree = {
		...scene.recovery,
		losses: scene.recovery.losses.filter((loss) => loss.on <= scene.recovery.today)
	};
	const { steps, stepOf } = forecastTime(tree, values);
	const { courses, sd } = rootCourses(tree, steps, values);
	const step = stepOf(tree.today);
	const points = courses.map(({ pace, phi }) => ({ pace, phi: phi[step] ?? 1 }));
	const rootsNow = (pace: number): number => {
		const [first, last] = [points[0], points.at(-1)];
		if (!first || !last) return 1;
		if (pace <= first.pace) return first.phi;
		if (pace >= last.pace) return last.phi;
		const i = points.findIndex((point) => point.pace >= pace);
		const [a, b] = [points[i - 1] ?? first, points[i] ?? last];
		return a.phi + ((b.phi - a.phi) * (pace - a.pace)) / Math.max(1e-9, b.pace - a.pace);
	};
	return { rootsNow, rootsSd: sd[step] ?? 0 };
}

const WEEK = 7;

/** How one future went under one plan, week by week. */
interface Course {
	alive: Float64Array;
	roots: Float64Array;
	/** Week from which its roots are enough and no work is left; −1 where they are not by the end. */
	enoughWeek: number;
	end: FutureEnd;
	odds: Float64Array;
	/** Week in which each cause had done so much of its harm that it shows. */
	showsWeek: Int32Array;
	dead: number;
	waterings: number;
	covered: number;
}

/** Plays one future under one plan. */
function playedFuture(stage: Stage, to: Prepared, future: Future): Course {
	const { scene, values, played, calendar, begin, weeks, bands, seasons } = stage;
	const place = future.days[to.placeAt];
	const rootsNow = Math.min(
		1,
		Math.max(values['forecast.leastRoots'], stage.rootsNow(future.pace) + stage.rootsSd * future.rootsZ)
	);
	const tree = new PlayedTree(scene, to, future, rootsNow, played);
	let shares = new Float64Array(begin.shares);
	let next = new Float64Array(shares.length);
	moveBy(
		shares,
		begin.perOdds * (begin.even + future.z * begin.spread + (future.rot ? begin.rotOdds : 0)),
		next
	);
	const alive = new Float64Array(weeks + 1);
	const roots = new Float64Array(weeks + 1);
	const oddsBy = new Float64Array(weeks * causes.length);
	const rootBaseC = values['degreeDays.rootBaseC'];
	const enoughRoots = values['verdict.rootFunction'];
	alive[0] = 1 - (shares[0] ?? 0);
	roots[0] = tree.phi;
	const lastWork = to.works.at(-1)?.day ?? -1;
	let enoughWeek = -1;
	let pending = 0;
	let before = 0;
	let warmth = 0;
	for (let week = 0; week < weeks; week++) {
		warmth = 0;
		for (let day = week * WEEK; day < (week + 1) * WEEK; day++) {
			const [minC, maxC] = [place?.minC[day] ?? 0, place?.maxC[day] ?? 0];
			tree.day(day, {
				on: calendar.days[day] ?? '',
				minC,
				maxC,
				et0Mm: place?.et0Mm[day] ?? 0,
				rainMm: place?.rainMm[day] ?? 0
			});
			warmth += Math.max(0, (minC + maxC) / 2 - rootBaseC);
		}
		tree.week(seasons[week] ?? 0, warmth);
		const band = bands[week];
		if (band) {
			weekOn(shares, next, band);
			[shares, next] = [next, shares];
		}
		let sum = 0;
		for (let cause = 0; cause < causes.length; cause++) sum += tree.odds[cause] ?? 0;
		// Whole standings at a time: parts of one each week would smear them.
		pending += begin.perOdds * (sum - before);
		before = sum;
		const whole = Math.trunc(pending);
		moveBy(shares, whole, next);
		pending -= whole;
		oddsBy.set(tree.odds, week * causes.length);
		alive[week + 1] = 1 - (shares[0] ?? 0);
		roots[week + 1] = tree.phi;
		const enough = !to.worksLater && (week + 1) * WEEK > lastWork && tree.phi * future.fitness >= enoughRoots;
		if (enough && enoughWeek < 0) enoughWeek = week;
	}
	moveBy(shares, pending, next);
	const stands = overTipping(shares);
	const established = enoughWeek >= 0 ? stands : 0;
	return {
		alive,
		roots,
		enoughWeek,
		odds: tree.odds,
		showsWeek: showsWeeks(oddsBy, tree.odds, values),
		dead: shares[0] ?? 0,
		end: {
			alive: 1 - (shares[0] ?? 0),
			stands,
			established,
			worth: established + values['rehearse.hardlyHeldWorth'] * (stands - established)
		},
		waterings: tree.waterings,
		covered: tree.covered
	};
}

/** Week in which each cause had done a share of its whole harm. */
function showsWeeks(oddsBy: Float64Array, whole: Float64Array, values: Values): Int32Array {
	const shows = new Int32Array(causes.length).fill(-1);
	for (let cause = 0; cause < causes.length; cause++) {
		const all = whole[cause] ?? 0;
		if (all >= 0) continue;
		let week = 0;
		while ((oddsBy[week * causes.length + cause] ?? all) > values['rehearse.showsAt'] * all) week++;
		shows[cause] = week;
	}
	return shows;
}

/** Chance to be dead at the end by how unsure its odds are, where nothing happens to it: what it would die of as it stands. */
function deadAnyway(stage: Stage): (z: number) => number {
	const { begin, bands } = stage;
	const known = new Map<number, number>();
	return (z) => {
		const key = Math.round(z * 10) / 10;
		const before = known.get(key);
		if (before !== undefined) return before;
		let shares = Float64Array.from(begin.shares);
		let next = new Float64Array(shares.length);
		moveBy(shares, begin.perOdds * (begin.even + key * begin.spread), next);
		for (const band of bands) {
			weekOn(shares, next, band);
			[shares, next] = [next, shares];
		}
		const dead = shares[0] ?? 0;
		known.set(key, dead);
		return dead;
	};
}

/**
 * Plays plans forward through the same futures: for each future its weather, what is not known of the tree and what its people miss
 * are drawn once, and every plan meets them (common random numbers; Law, Simulation Modeling and Analysis). Within a future the
 * standing of the tree is not drawn but carried on whole, by the chain that Recovery judges by, so that four hundred futures tell
 * what thousands would [our own].
 * @param plans one to four
 * @returns the same to the digit for the same scene, plans, futures and seed
 */
export function rehearse(
	scene: RehearsalScene,
	plans: readonly RehearsedPlan[],
	options: RehearsalOptions,
	values: Values
): Rehearsal {
	const { futures: count = values['rehearse.futures'], seed = 1, onProgress } = options;
	const calendar = calendarOf(scene, values);
	const weeks = Math.floor(calendar.days.length / WEEK);
	const begin = beginOf(scene.recovery, scene.rotChance, values);
	const stage: Stage = {
		scene,
		values,
		played: playedValues(values),
		calendar,
		begin,
		weeks,
		...weeksFrom(scene.recovery, weeks, values),
		...rootsToday(scene, values)
	};
	const anyway = deadAnyway(stage);
	const ready = plans.map((plan) => prepared(scene, plan, calendar.days, values));
	const used = new Set(ready.map((to) => to.placeAt));
	const draw = futuresOf(scene, calendar, begin, { count, seed, used }, values);
	const courses = plans.map((): Course[] => []);
	const futures: Omit<Future, 'days'>[] = [];
	for (let i = 0; i < count; i++) {
		const future = draw(i);
		ready.forEach((to, p) => courses[p]?.push(playedFuture(stage, to, future)));
		const { days: _, ...rest } = future;
		futures.push(rest);
		onProgress?.((i + 1) / count);
	}
	const outcomes = ready.map((to, p) => outcomeOf(stage, to, courses[p] ?? [], futures, anyway));
	const pairs = outcomes.flatMap((one, a) =>
		outcomes.slice(a + 1).map((other, i) => apart(a, a + 1 + i, one.ends, other.ends, values))
	);
	return {
		futures: count,
		seed,
		from: scene.recovery.today,
		to: addDays(scene.recovery.today, weeks * WEEK),
		outcomes,
		pairs,
		order: outcomes
			.map((outcome, index) => ({ index, worth: outcome.end.worth }))
			.sort((a, b) => b.worth - a.worth || a.index - b.index)
			.map(({ index }) => index),
		finding: findingOut(
			futures.map((future) => ({ ...future, standing: future.z })),
			outcomes.map((outcome) => outcome.ends.map((end) => end.worth)),
			{ known: { rot: scene.rotChance === 0 }, potted: scene.pots.length > 0 },
			values
		)
	};
}

const meanOf = (list: readonly number[]): number =>
	list.length === 0 ? 0 : list.reduce((sum, one) => sum + one, 0) / list.length;

/** 10 and 90 % of a list, and its mean. */
function pointOf(on: string, list: number[]): ChancePoint {
	const mean = meanOf(list);
	const sorted = list.sort((a, b) => a - b);
	const at = (share: number): number => sorted[Math.round(share * (sorted.length - 1))] ?? 0;
	return { on, low: at(0.1), mean, high: at(0.9) };
}

/** What a plan came to, over all futures. */
function outcomeOf(
	stage: Stage,
	to: Prepared,
	courses: readonly Course[],
	futures: readonly Omit<Future, 'days'>[],
	anyway: (z: number) => number
): PlanOutcome {
	const { scene, values, weeks } = stage;
	const { today } = scene.recovery;
	const { plan } = to;
	const every = Math.max(1, Math.round(weeks / 52));
	const weeksShown = Array.from({ length: weeks + 1 }, (_, week) => week).filter(
		(week) => week % every === 0 || week === weeks
	);
	const points = (of: (course: Course, week: number) => number): ChancePoint[] =>
		weeksShown.map((week) =>
			pointOf(
				addDays(today, week * WEEK),
				courses.map((course) => of(course, week))
			)
		);
	const ends = courses.map((course) => course.end);
	const worth = meanOf(ends.map((end) => end.worth));
	const alive = meanOf(ends.map((end) => end.alive));
	const waterings = meanOf(courses.map((course) => course.waterings));
	const covered = meanOf(courses.map((course) => course.covered));
	const looks = Math.floor((weeks * WEEK) / values['rehearse.lookEvery']);
	const works = to.works.length;
	const replants = to.replantDay >= 0 ? 1 : 0;
	return {
		plan,
		alive: points((course, week) => course.alive[week] ?? 0),
		established: points((course, week) =>
			course.enoughWeek >= 0 && course.enoughWeek < week ? course.end.stands : 0
		),
		roots: points((course, week) => course.roots[week] ?? 0),
		end: {
			alive,
			stands: meanOf(ends.map((end) => end.stands)),
			established: meanOf(ends.map((end) => end.established)),
			line: alive + (1 - alive) * (1 - (1 - scene.backupRate) ** plan.backups),
			worth,
			error: Math.sqrt(meanOf(ends.map((end) => (end.worth - worth) ** 2)) / Math.max(1, ends.length - 1))
		},
		dies: diesOf(stage, to, courses, futures, anyway),
		costs: {
			waterings,
			covered,
			visits: waterings + covered + looks + works + replants,
			minutes:
				waterings * values['rehearse.minutes.water'] +
				covered * values['rehearse.minutes.shelter'] +
				looks * values['rehearse.minutes.look'] +
				works * values['rehearse.minutes.roots'] +
				replants * values['rehearse.minutes.replant'] +
				plan.backups * values['rehearse.minutes.backup']
		},
		worksLater: to.worksLater,
		ends
	};
}

/**
 * What trees die of under a plan: what they would have died of as they stood first, and what is over that by the harm that each
 * cause did.
 */
function diesOf(
	{ begin, scene, calendar }: Stage,
	{ inLeaf }: Prepared,
	courses: readonly Course[],
	futures: readonly Omit<Future, 'days'>[],
	anyway: (z: number) => number
): PlanOutcome['dies'] {
	/** What happened to bare twigs shows when leaves are due. */
	const showsFrom = (on: string): string =>
		calendar.days.find((day, i) => day >= on && inLeaf[i] === 1) ?? on;
	const chance = new Map<DeathCause, number>();
	const shows = new Map<Cause, number[]>();
	const add = (cause: DeathCause, by: number): void =>
		void chance.set(cause, (chance.get(cause) ?? 0) + by / courses.length);
	courses.forEach((course, i) => {
		const future = futures[i];
		const before = Math.min(course.dead, anyway(future?.z ?? 0));
		add('stood', before);
		const over = course.dead - before;
		const harms = causes.map((cause, c) =>
			Math.max(0, -(course.odds[c] ?? 0) - (cause === 'rot' && future?.rot ? begin.rotOdds : 0))
		);
		const all = harms.reduce((sum, one) => sum + one, 0);
		if (all <= 0) return add('stood', over);
		causes.forEach((cause, c) => {
			const part = (over * (harms[c] ?? 0)) / all;
			if (part <= 0) return;
			add(cause, part);
			const week = course.showsWeek[c] ?? -1;
			if (week >= 0) shows.set(cause, [...(shows.get(cause) ?? []), week]);
		});
	});
	return [...chance]
		.filter(([, one]) => one > 0)
		.sort((a, b) => b[1] - a[1])
		.map(([cause, one]) => {
			const weeks = cause === 'stood' ? [] : (shows.get(cause) ?? []).sort((a, b) => a - b);
			const middle = weeks[Math.floor(weeks.length / 2)];
			return {
				cause,
				chance: one,
				showsOn: middle === undefined ? null : showsFrom(addDays(scene.recovery.today, (middle + 1) * WEEK))
			};
		});
}
