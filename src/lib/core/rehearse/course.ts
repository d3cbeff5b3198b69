import { createRandom } from '../maths/random';
import { forecastTime } from '../recovery/forecast-time';
import type { RehearsedPlan } from '../recovery/rehearsal/plan';
import { rootCourses } from '../recovery/root-courses';
import type { Values } from '../values/values';
import { anyFuture, calendarOf, type Calendar, type Future } from './futures';
import { PlannedHands } from './hands';
import { causes, PlayedTree } from './played-tree';
import { playedValues, type PlayedValues } from './played-values';
import { prepared, type Prepared } from './prepared';
import type { RehearsalScene } from './scene';
import { beginOf, DrawnStanding, weeksFrom, type Band, type Begin, type Carried } from './standings';

/** What a plan came to in one future. */
export interface FutureEnd {
	/** Chance to be alive, to stand over the tipping point, and to be re-established at the end. */
	alive: number;
	stands: number;
	established: number;
	/** What it is worth: re-established counts whole, standing in part. */
	worth: number;
}

/** Same for all futures and plans of one rehearsal. */
export interface Stage {
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

export const WEEK = 7;

/** How one future went under one plan, week by week. */
export interface Course {
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

/** What rot and a mix without air have left of its roots before the first day; what was counted and weighed says nothing of it. */
const rootsLeft = (future: Pick<Future, 'rot' | 'airless'>, values: Values): number =>
	(future.rot ? 1 - values['rehearse.rotHasTaken'] : 1) *
	(future.airless ? 1 - values['rehearse.airlessHasTaken'] : 1);

/** Plays one future under one plan, its standing carried on whole or drawn. */
export function playedFuture(stage: Stage, to: Prepared, future: Future, standing: Carried): Course {
	const { scene, values, played, calendar, begin, weeks, bands, seasons } = stage;
	const place = future.days[to.placeAt];
	const rootsNow = Math.min(
		1,
		Math.max(
			values['forecast.leastRoots'],
			(stage.rootsNow(future.pace) + stage.rootsSd * future.rootsZ) * rootsLeft(future, values)
		)
	);
	const hands = new PlannedHands(scene, to, future, played);
	const tree = new PlayedTree(scene, to, hands, future, rootsNow, played);
	const alive = new Float64Array(weeks + 1);
	const roots = new Float64Array(weeks + 1);
	const oddsBy = new Float64Array(weeks * causes.length);
	const rootBaseC = values['degreeDays.rootBaseC'];
	const enoughRoots = values['verdict.rootFunction'];
	alive[0] = 1 - standing.dead();
	roots[0] = tree.phi;
	let enoughWeek = -1;
	let before = 0;
	for (let week = 0; week < weeks; week++) {
		let warmth = 0;
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
		if (band) standing.weekOn(band);
		let sum = 0;
		for (let cause = 0; cause < causes.length; cause++) sum += tree.odds[cause] ?? 0;
		standing.move(begin.perOdds * (sum - before));
		before = sum;
		oddsBy.set(tree.odds, week * causes.length);
		alive[week + 1] = 1 - standing.dead();
		roots[week + 1] = tree.phi;
		const enough = !to.worksLater && hands.stagesLeft === 0 && tree.phi * future.fitness >= enoughRoots;
		if (enough && enoughWeek < 0) enoughWeek = week;
	}
	const stands = standing.over();
	const dead = standing.dead();
	const established = enoughWeek >= 0 ? stands : 0;
	return {
		alive,
		roots,
		enoughWeek,
		odds: tree.odds,
		showsWeek: showsWeeks(oddsBy, tree.odds, values),
		dead,
		end: {
			alive: 1 - dead,
			stands,
			established,
			worth: established + values['rehearse.hardlyHeldWorth'] * (stands - established)
		},
		waterings: tree.waterings,
		covered: tree.covered
	};
}

/** How far the standings are moved where a future begins. @returns standings of the chain */
export const beginsBy = (begin: Begin, future: Pick<Future, 'z' | 'rot'>): number =>
	begin.perOdds * (begin.even + future.z * begin.spread + (future.rot ? begin.rotOdds : 0));

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

/** What is the same for all futures and plans of a scene. */
export function stageOf(scene: RehearsalScene, values: Values): Stage {
	const calendar = calendarOf(scene, values);
	const weeks = Math.floor(calendar.days.length / WEEK);
	return {
		scene,
		values,
		played: playedValues(values),
		calendar,
		begin: beginOf(scene.recovery, scene.rotChance, values),
		weeks,
		...weeksFrom(scene.recovery, weeks, values),
		...rootsToday(scene, values)
	};
}

/**
 * Single trees that live under a plan, everything about each drawn, its standing too: what a rehearsal has to foretell.
 * @param count how many trees
 */
export function livedTrees(
	scene: RehearsalScene,
	plan: RehearsedPlan,
	{ count, seed }: { count: number; seed: number },
	values: Values
): FutureEnd[] {
	const stage = stageOf(scene, values);
	const { calendar, begin } = stage;
	const to = prepared(scene, plan, calendar.days, values);
	const used = new Set([to.placeAt]);
	return Array.from({ length: count }, (_, i) => {
		const random = createRandom(seed + i * 7919);
		const future = anyFuture(scene, calendar, begin, { random, used }, values);
		const standing = new DrawnStanding(begin.shares, beginsBy(begin, future), random);
		return playedFuture(stage, to, future, standing).end;
	});
}
