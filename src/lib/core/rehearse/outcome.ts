import { z } from 'zod';
import { addDays } from '../maths/calendar';
import { deathCauses, type DeathCause } from '../recovery/rehearsal/kept';
import type { RehearsedPlan } from '../recovery/rehearsal/plan';
import { WEEK, type Course, type FutureEnd, type Stage } from './course';
import type { Future } from './futures';
import { causes, type Cause } from './played-tree';
import type { Prepared } from './prepared';
import { WholeStanding } from './standings';

/** A chance on a day: in the mean of all futures, and within which four of five of them lie. */
export const chancePointOutput = z.object({
	on: z.string(),
	low: z.number().describe('a tenth of the futures lie under it, 0 to 1'),
	mean: z.number().describe('mean of the futures, 0 to 1'),
	high: z.number().describe('a tenth of the futures lie over it, 0 to 1')
});
export type ChancePoint = z.infer<typeof chancePointOutput>;

const chance = z.number().describe('chance, 0 to 1');

/** What a plan comes to. */
export const planEndsOutput = z.object({
	alive: z.array(chancePointOutput).describe('Chance to be alive, by day'),
	established: z.array(chancePointOutput).describe('Chance to be re-established, by day'),
	roots: z.array(chancePointOutput).describe('Root function, by day'),
	end: z.object({
		alive: chance,
		stands: chance,
		established: chance,
		line: z.number().describe('chance that it or a young one of it lives, 0 to 1'),
		worth: z.number().describe('re-established counts 1, standing in part, 0 to 1'),
		error: z.number().describe('standard error of the worth, share')
	}),
	dies: z
		.array(z.object({ cause: z.enum(deathCauses), chance, showsOn: z.string().nullable() }))
		.describe('What it dies of, the most likely first, and from which day that shows'),
	costs: z.object({
		waterings: z.number().describe('times, in the mean'),
		covered: z.number().describe('times it is carried in or covered, in the mean'),
		visits: z.number().describe('visits, in the mean'),
		minutes: z.number().describe('minutes, in the mean')
	}),
	worksLater: z
		.boolean()
		.describe('Planned root work lies beyond the end, so that it cannot be re-established by then')
});

/** What becomes of one plan. */
export interface PlanOutcome extends z.infer<typeof planEndsOutput> {
	plan: RehearsedPlan;
	ends: readonly FutureEnd[];
}

/** Chance to be dead at the end by how unsure its odds are, where nothing happens to it: what it would die of as it stands. */
export function deadAnyway(stage: Stage): (z: number) => number {
	const { begin, bands } = stage;
	const known = new Map<number, number>();
	return (z) => {
		const key = Math.round(z * 10) / 10;
		const before = known.get(key);
		if (before !== undefined) return before;
		const standing = new WholeStanding(begin.shares).begin(begin.perOdds * (begin.even + key * begin.spread));
		for (const band of bands) standing.weekOn(band);
		const dead = standing.dead();
		known.set(key, dead);
		return dead;
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
export function outcomeOf(
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
			line: alive + (1 - alive) * (1 - (1 - scene.backupRate) ** (scene.backupsAlive + plan.backups)),
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
