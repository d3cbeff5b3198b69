import { z } from 'zod';
import { addDays, daysBetween } from '../climate/calendar';
import { calendarDate, measure, oneOf } from '../fields/fields';
import type { Observation } from '../recovery/observation';
import type { Values } from '../values/values';
import type { Task } from './task';

/** What has to happen before a piece of work is due: the tree releases it, not the calendar. */
export const releaseConditions = [
	'buds-move',
	'leaves-out',
	'flush-hardened',
	'root-function',
	'growth-regained'
] as const;
export type ReleaseCondition = (typeof releaseConditions)[number];
export const releaseSchema = z.strictObject({
	condition: oneOf(releaseConditions),
	/** Root function to reach; unused for others. */
	value: measure(0, 1.2, '').default(0.6),
	/** It is brought up by this day, met or not. */
	byOn: calendarDate()
});
export type Release = z.infer<typeof releaseSchema>;

export interface ReleaseFacts {
	/** Looks since the work, oldest first. */
	looks: readonly Pick<Observation, 'observedOn' | 'buds' | 'leafCover' | 'shootExtensionMm'>[];
	/** Root function by day, lower edge of its band; empty where it is not known. */
	functionLow: readonly { on: string; low: number }[];
}

export interface Released {
	/** released: the day it was met · held: not yet · overdue: by its last day it was not met. */
	state: 'released' | 'held' | 'overdue';
	on: string | null;
	because: string;
}

/** The first look at which so much of the crown was in leaf, with what was seen then. */
function inLeafFrom(looks: ReleaseFacts['looks'], wanted: number): { on: string; because: string } | null {
	const look = looks.find(({ leafCover }) => (leafCover ?? 0) >= wanted);
	return look
		? {
				on: look.observedOn,
				because: `${Math.round((look.leafCover ?? 0) * 100)} % of the crown was seen in leaf`
			}
		: null;
}

/** When a condition was met by what was seen; null where it was not. */
export function metOn(
	release: Release,
	{ looks, functionLow }: ReleaseFacts,
	values: Values
): { on: string; because: string } | null {
	const budsOn = looks.find((look) => look.buds === 'swelling' || look.buds === 'open')?.observedOn;
	switch (release.condition) {
		case 'buds-move':
			return budsOn ? { on: budsOn, because: 'buds were seen to move' } : null;
		case 'leaves-out': {
			return inLeafFrom(looks, values['release.leavesOut']);
		}
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
			const point = functionLow.find(({ low }) => low >= release.value);
			return point
				? { on: point.on, because: `root function is at least ${Math.round(point.low * 100)} %` }
				: null;
		}
		case 'growth-regained': {
			return inLeafFrom(looks, values['release.regained']);
		}
	}
}

/** What a piece of work waits for, with the number that will do. */
function waitingFor({ condition, value }: Release, values: Values): string {
	const percent = (share: number): string => `${Math.round(share * 100)} %`;
	switch (condition) {
		case 'buds-move':
			return 'until buds move';
		case 'leaves-out':
			return `until ${percent(values['release.leavesOut'])} of the crown is in leaf`;
		case 'flush-hardened':
			return 'until the first flush has hardened';
		case 'root-function':
			return `until its roots drink for ${percent(value)} of the crown`;
		case 'growth-regained':
			return `until ${percent(values['release.regained'])} of the crown is in leaf again`;
	}
}

/** How a piece of work stands on a day. */
export function releaseOf(release: Release, facts: ReleaseFacts, today: string, values: Values): Released {
	const met = metOn(release, facts, values);
	if (met && met.on <= today) return { state: 'released', ...met };
	if (today > release.byOn)
		return {
			state: 'overdue',
			on: null,
			because: `waited ${waitingFor(release, values)}; by ${release.byOn} nobody saw it`
		};
	return { state: 'held', on: null, because: `waits ${waitingFor(release, values)}` };
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
	if (!task.release) return { ...task, released: null };
	// Only what was seen after the work counts: last year's buds release nothing.
	const since = /@(\d{4}-\d{2}-\d{2})$/.exec(task.source)?.[1] ?? '';
	const facts = {
		looks: all.looks.filter((look) => look.observedOn > since),
		functionLow: all.functionLow.filter((point) => point.on > since)
	};
	const released = releaseOf(task.release, facts, today, values);
	const length = Math.max(0, daysBetween(task.fromOn, task.toOn));
	if (released.state === 'released' && released.on)
		return { ...task, fromOn: released.on, toOn: addDays(released.on, length), released };
	if (released.state === 'held') {
		const fromOn = [task.fromOn, addDays(today, 1)].sort()[1] ?? task.fromOn;
		return { ...task, fromOn, toOn: addDays(fromOn, length), released };
	}
	return { ...task, fromOn: task.release.byOn, toOn: addDays(task.release.byOn, length), released };
}
