import { z } from 'zod';
import { percent } from '../../text/percent';
import { type ReleaseCondition, type Release } from '../../vocabulary/task';

import { addDays, daysBetween, yearOf } from '../../maths/calendar';

import type { Observation } from '../../examine/looks/observation';
import type { StageGate } from '../../roots/plan/stage-gate';
import { growingSeason, type PlaceClimate } from '../../climate/normals';
import type { Values } from '../../values/values';
import { AGAIN, ruleOf, workedOn } from './source';
import type { Task } from '../../vocabulary/task';

export interface ReleaseFacts {
	/** Looks since the work, oldest first. */
	looks: readonly Pick<Observation, 'observedOn' | 'buds' | 'leafCover' | 'leafState' | 'shootExtensionMm'>[];
	/** Root function by day, lower edge of its band, and whether weighings of those weeks tell it; empty where it is not known. */
	functionLow: readonly { on: string; low: number; weighed: boolean }[];
	/** It keeps its leaves through the rest, so that their share tells nothing of growth. */
	evergreen: boolean;
	/** Whether the last root stage is paid back, by what was measured; null where no stage waits. */
	gate: Pick<StageGate, 'answer' | 'because'> | null;
	/** Work that was closed, by its source, with its day. */
	closed: readonly { source: string; on: string }[];
	/** Where it grows, and whether it needs warmth for it; left out: its seasons are not known. */
	grows?: { place: PlaceClimate; tender: boolean };
}

export const releasedOutput = z.object({
	state: z
		.enum(['released', 'held', 'overdue'])
		.describe('released: the day it was met · held: not yet · overdue: by its last day it was not met'),
	on: z.string().nullable(),
	because: z.string(),
	ask: z.string().describe('What to look for before it is done, where it is overdue; empty otherwise')
});
export type Released = z.infer<typeof releasedOutput>;

/** The first look at which so much of the crown was in leaf, with what was seen then. */
function inLeafFrom(looks: ReleaseFacts['looks'], wanted: number): { on: string; because: string } | null {
	const look = looks.find(({ leafCover }) => (leafCover ?? 0) >= wanted);
	return look
		? {
				on: look.observedOn,
				because: `${percent(look.leafCover ?? 0)} of the crown was seen in leaf`
			}
		: null;
}

/** New leaves, on a plant that keeps its old ones. */
function newLeavesFrom(looks: ReleaseFacts['looks']): { on: string; because: string } | null {
	const look = looks.find(({ buds, shootExtensionMm }) => buds === 'open' || (shootExtensionMm ?? 0) > 0);
	return look ? { on: look.observedOn, because: 'new leaves were seen' } : null;
}

/** When a condition was met by what was seen; null where it was not. A number of a model alone never meets one. */
export function metOn(
	release: Release,
	{ looks, functionLow, evergreen, gate, closed }: ReleaseFacts,
	values: Values
): { on: string; because: string } | null {
	switch (release.condition) {
		case 'buds-move': {
			const budsOn = looks.find((look) => look.buds === 'swelling' || look.buds === 'open')?.observedOn;
			return budsOn ? { on: budsOn, because: 'buds were seen to move' } : null;
		}
		case 'leaves-out':
			return evergreen ? newLeavesFrom(looks) : inLeafFrom(looks, values['release.leavesOut']);
		case 'flush-hardened': {
			const measured = looks.filter((look) => look.shootExtensionMm !== null && look.shootExtensionMm > 0);
			for (const [i, look] of measured.entries())
				for (const later of measured.slice(i + 1))
					if (
						daysBetween(look.observedOn, later.observedOn) >= values['release.hardenedDays'] &&
						(later.shootExtensionMm ?? 0) <= (look.shootExtensionMm ?? 0) * (1 + values['release.hardenedBy'])
					)
						return { on: later.observedOn, because: 'shoots stopped lengthening between two looks' };
			return null;
		}
		case 'root-function': {
			const halved = closed.find((one) => ruleOf(one.source) === release.after)?.on ?? null;
			// As the last weighings have it: what was enough once, and is no more, releases nothing.
			const weighings = functionLow.filter(({ weighed }) => weighed);
			const point = weighings[weighings.findLastIndex(({ low }) => low < release.value) + 1];
			if (point)
				return {
					on: point.on,
					because: `root function is at least ${percent(point.low)}, by its weighings`
				};
			// Leaves that stay firm with half of it off say the same as a scale.
			const firm = looks.find(
				(look) =>
					halved !== null &&
					look.leafState === 'turgid' &&
					(evergreen || (look.leafCover ?? 0) >= values['release.leavesOut']) &&
					daysBetween(halved, look.observedOn) >= values['release.firmDays']
			);
			return firm
				? {
						on: firm.observedOn,
						because: `its leaves were firm ${daysBetween(halved ?? firm.observedOn, firm.observedOn)} days after half of it came off`
					}
				: null;
		}
		case 'growth-regained': {
			const last = looks.at(-1)?.observedOn;
			return gate?.answer === 'met' && last !== undefined
				? { on: last, because: `the last stage is paid back: ${gate.because.join(' ')}`.replace(/\.$/, '') }
				: null;
		}
	}
}

/** The last day on which somebody looked for what work waits for, and did not find it; null where nobody did. */
function missedOn({ condition }: Release, { looks, evergreen }: ReleaseFacts): string | null {
	const tells = (
		{ buds, leafCover, leafState, shootExtensionMm }: ReleaseFacts['looks'][number],
		at: number
	): boolean => {
		switch (condition) {
			case 'buds-move':
				return buds !== null;
			case 'leaves-out':
				return evergreen ? buds !== null || shootExtensionMm !== null : leafCover !== null;
			case 'flush-hardened':
				// Measured once, nobody knows whether they lengthen.
				return (
					shootExtensionMm !== null && looks.slice(0, at).some((before) => before.shootExtensionMm !== null)
				);
			case 'root-function':
				return leafState !== null && leafState !== 'turgid';
			case 'growth-regained':
				return false;
		}
	};
	return looks.findLast(tells)?.observedOn ?? null;
}

/** The day from which on work that waited too long is asked for: its last one, or some time after somebody saw that it is not so yet. */
function askedFrom(
	release: Release,
	facts: ReleaseFacts,
	values: Values
): { on: string; missed: string | null } {
	const missed = missedOn(release, facts);
	const again = missed === null ? '' : addDays(missed, values['release.askAgainDays']);
	return again > release.byOn ? { on: again, missed } : { on: release.byOn, missed: null };
}

/** What a piece of work waits for, with the number that will do. */
function waitingFor(
	{ condition, value }: Release,
	{ evergreen, gate }: ReleaseFacts,
	values: Values
): string {
	switch (condition) {
		case 'buds-move':
			return 'until buds move';
		case 'leaves-out':
			return evergreen
				? 'until new leaves are seen'
				: `until ${percent(values['release.leavesOut'])} of the crown is in leaf`;
		case 'flush-hardened':
			return 'until the first flush has hardened';
		case 'root-function':
			return `until it is weighed to drink for ${percent(value)} of the crown, or its leaves are firm ${values['release.firmDays']} days after half came off`;
		case 'growth-regained':
			return gate
				? `until the last stage is paid back. ${gate.because.join(' ')}`.replace(/\.$/, '')
				: 'until the last stage is paid back';
	}
}

/** What is looked for before work that waited too long is done. */
export const askedFirst: Record<ReleaseCondition, string> = {
	'buds-move': 'do its buds move?',
	'leaves-out': 'is it in leaf?',
	'flush-hardened': 'have its shoots stopped lengthening?',
	'root-function': 'does it drink, and are its leaves firm?',
	'growth-regained': 'has it paid the last stage back?'
};

/** What closes first, in words. */
const afterWords: Readonly<Record<string, string>> = {
	'shelter-on': 'until the shelter is on',
	'shelter-half': 'until half of the shelter is off'
};

/** How a piece of work stands on a day. */
export function releaseOf(release: Release, facts: ReleaseFacts, today: string, values: Values): Released {
	if (release.after !== '' && !facts.closed.some((one) => ruleOf(one.source) === release.after))
		return {
			state: 'held',
			on: null,
			because: `waits ${afterWords[release.after] ?? 'for the work before it'}`,
			ask: ''
		};
	const met = metOn(release, facts, values);
	if (met && met.on <= today) return { state: 'released', ...met, ask: '' };
	const asked = askedFrom(release, facts, values);
	const notYet = asked.missed === null ? '' : `; on ${asked.missed} it was not so yet`;
	// A later root stage is opened by what the tree paid back, never by a date.
	if (today > asked.on && release.condition !== 'growth-regained')
		return {
			state: 'overdue',
			on: null,
			because: `waited ${waitingFor(release, facts, values)}${notYet || `; by ${release.byOn} nobody saw it`}`,
			ask: askedFirst[release.condition]
		};
	return {
		state: 'held',
		on: null,
		because: `waits ${waitingFor(release, facts, values)}${notYet}`,
		ask: ''
	};
}

/**
 * The day from which feeding makes sense, as seen on a day: the beginning of the season that runs; of the next one where this is too far on
 * for growth to harden, or it rests. Null where it never rests, or its seasons are not known.
 */
export function feedFrom(grows: ReleaseFacts['grows'], today: string, values: Values): string | null {
	if (!grows) return null;
	const year = yearOf(today);
	const spans = [year - 1, year, year + 1, year + 2].flatMap(
		(one) => growingSeason(grows.place, grows.tender, one, values) ?? []
	);
	const at = spans.findIndex(({ to }) => to >= today);
	const [span, next] = [spans[at], spans[at + 1]];
	if (!span || !next || daysBetween(span.to, next.from) < values['aftercare.restLeast']) return null;
	const over = daysBetween(span.from, today) / Math.max(1, daysBetween(span.from, span.to));
	return over > values['aftercare.feedLatest'] ? next.from : span.from;
}

/** What asks for feeding too late in a season is asked in the next one, and as long after its beginning as it would have waited. */
function inFeedingTime<
	T extends Pick<Task, 'fromOn' | 'toOn' | 'release' | 'source'> & { released: Released | null }
>(task: T, own: Pick<Task, 'fromOn'>, { grows }: ReleaseFacts, today: string, values: Values): T {
	const from = ruleOf(task.source) === 'feeding' ? feedFrom(grows, today, values) : null;
	if (from === null || from <= task.fromOn) return task;
	const { released, release } = task;
	const patience = released?.state === 'overdue' && release ? daysBetween(own.fromOn, release.byOn) : 0;
	const fromOn = addDays(from, Math.max(0, patience));
	const length = Math.max(0, daysBetween(task.fromOn, task.toOn));
	return {
		...task,
		fromOn,
		toOn: addDays(fromOn, length),
		...(fromOn > today &&
			released && {
				released: {
					state: 'held' as const,
					// Seen it was all the same.
					on: released.on,
					because:
						from > today
							? 'this season is too far on: what is fed late does not harden'
							: 'the season is young, and nobody saw it yet',
					ask: ''
				}
			})
	};
}

/**
 * A task as the tree times it: released early it begins when the condition was met, with the same length; held it waits; past
 * its last day it is brought up as a question. Nothing is written, so that doing it twice changes nothing.
 */
export function timed<T extends Pick<Task, 'fromOn' | 'toOn' | 'release' | 'source'>>(
	task: T,
	all: ReleaseFacts,
	today: string,
	values: Values
): T & { released: Released | null } {
	return inFeedingTime(byTheTree(task, all, today, values), task, all, today, values);
}

/** The same before its season is asked. */
function byTheTree<T extends Pick<Task, 'fromOn' | 'toOn' | 'release' | 'source'>>(
	task: T,
	all: ReleaseFacts,
	today: string,
	values: Values
): T & { released: Released | null } {
	if (!task.release) return { ...task, released: null };
	// Only what was seen after the work counts: last year's buds release nothing.
	const since = workedOn(task.source) ?? '';
	const facts: ReleaseFacts = {
		...all,
		looks: all.looks.filter((look) => look.observedOn > since),
		functionLow: all.functionLow.filter((point) => point.on > since),
		closed: all.closed.filter((one) => workedOn(one.source) === since)
	};
	const released = releaseOf(task.release, facts, today, values);
	const length = Math.max(0, daysBetween(task.fromOn, task.toOn));
	if (released.state === 'released' && released.on) {
		// What comes after another step does not begin before it.
		const before = facts.closed.find((one) => ruleOf(one.source) === task.release?.after)?.on ?? '';
		// Paid back early, a root stage still waits for its window; what only waits for the tree begins with it.
		const window = task.release.condition === 'growth-regained' ? task.fromOn : '';
		const fromOn = [released.on, before, window].sort().at(-1) ?? released.on;
		return { ...task, fromOn, toOn: addDays(fromOn, length), released };
	}
	if (released.state === 'held') {
		const fromOn = [task.fromOn, addDays(today, 1)].sort()[1] ?? task.fromOn;
		return { ...task, fromOn, toOn: addDays(fromOn, length), released };
	}
	const { on: fromOn } = askedFrom(task.release, facts, values);
	return { ...task, fromOn, toOn: addDays(fromOn, length), released };
}

/** Rules whose work belongs to the days of the root work: weeks later it was done or missed, and is no order any more. */
const ofItsDays: ReadonlySet<string> = new Set([
	'first-water',
	'shelter-on',
	'shade',
	'cold',
	'crown',
	'backup'
]);

/** Rules whose work belongs to the season after it: months later nobody is sent to do it. */
const ofItsSeason: ReadonlySet<string> = new Set([
	'water-by-weight',
	'water-by-feel',
	'rot-recheck',
	'neighbours',
	'neighbours-again',
	'turning',
	'first-buds',
	'clear-growth',
	'feeding',
	'ground.ties'
]);

/**
 * Whether the time of an open task, as the tree gives it (see `timed`), is over for good: it is asked whether it was done, and leads and alarms nothing.
 * Of work done again and again that is where its next turn has come and gone too.
 */
export const hasLapsed = (
	{ toOn, source, everyDays }: Pick<Task, 'toOn' | 'source' | 'everyDays'>,
	today: string,
	values: Values
): boolean => {
	const rule = ruleOf(source);
	const late = daysBetween(toOn, today);
	return (
		(ofItsDays.has(rule) && late > values['aftercare.lapsesDays']) ||
		(rule === AGAIN && late > Math.max(values['aftercare.lapsesDays'], everyDays ?? 0)) ||
		(ofItsSeason.has(rule) && late > values['aftercare.lapsesSeasonDays'])
	);
};

/** What a task is headed with: past its last day unseen it asks, and orders nothing. */
export const headed = (task: { title: string; released: Released | null }): string =>
	task.released && task.released.ask !== '' ? `Look first: ${task.released.ask}` : task.title;

/** Whether work that is only thought of had its days before a day: nobody is offered to plan it any more. */
export const overForGood = (
	task: Pick<Task, 'toOn' | 'source' | 'release' | 'everyDays'>,
	today: string,
	values: Values
): boolean =>
	hasLapsed({ ...task, toOn: [task.toOn, task.release?.byOn ?? ''].sort()[1] ?? task.toOn }, today, values);
