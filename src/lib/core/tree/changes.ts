import { wordsOf } from '../vocabulary/words-of';
import { z } from 'zod';
import { addDays } from '../maths/calendar';
import { calendarDate, id, note, oneOf, version } from '../vocabulary/fields';
import { sameMix } from '../replant/mixes/bench-test';
import type { Planting } from '../replant/pots/replant-plan';
import type { Plan } from '../roots/plan/plan';
import type { Values } from '../values/values';

/** What can be changed about a tree and act on its health. In the order in which they are tried one by one. */
export const factorNames = {
	watering: 'watering',
	light: 'light',
	place: 'place',
	feeding: 'feeding',
	treatment: 'a treatment',
	'crown-cut': 'crown cut',
	pot: 'pot',
	mix: 'mix',
	'roots-cut': 'roots cut'
};
export type Factor = keyof typeof factorNames;
export const factors = wordsOf(factorNames);

/** What a person changed on a day. */
export const changeInput = z.strictObject({
	changedOn: calendarDate(),
	factors: z
		.array(oneOf(factors))
		.min(1, { error: 'must name at least one thing that was changed' })
		.max(factors.length)
		.refine((list) => new Set(list).size === list.length, { error: 'must name each thing once' }),
	note: note(400)
});
export type ChangeInput = z.infer<typeof changeInput>;
export const changeSchema = changeInput.extend({ id: id(), version: version() });
export type FactorChange = z.infer<typeof changeSchema>;

export interface DayOfChange {
	on: string;
	factors: Factor[];
	notes: string[];
}

/**
 * Everything that is known to have been changed, by day, oldest first: what was written down, plantings (pot, mix where it
 * differs from the one before, place) and cuts.
 */
export function daysOfChange(
	changes: readonly FactorChange[],
	plantings: readonly Pick<Planting, 'plantedOn' | 'mix' | 'placeId'>[],
	plan: Pick<Plan, 'cuts'> | null
): DayOfChange[] {
	const days = new Map<string, { factors: Set<Factor>; notes: string[] }>();
	const add = (on: string, list: readonly Factor[], text = ''): void => {
		const day = days.get(on) ?? { factors: new Set<Factor>(), notes: [] };
		for (const factor of list) day.factors.add(factor);
		if (text) day.notes.push(text);
		days.set(on, day);
	};
	for (const change of changes) add(change.changedOn, change.factors, change.note);
	const planted = [...plantings].sort((a, b) => a.plantedOn.localeCompare(b.plantedOn));
	for (const [i, planting] of planted.entries()) {
		const before = planted[i - 1];
		add(planting.plantedOn, [
			'pot',
			...(before && sameMix(before.mix, planting.mix) ? [] : (['mix'] as const)),
			...(planting.placeId !== null && planting.placeId !== before?.placeId ? (['place'] as const) : [])
		]);
	}
	for (const cut of plan?.cuts ?? []) if (cut.state === 'done' && cut.doneOn) add(cut.doneOn, ['roots-cut']);
	return [...days]
		.sort(([a], [b]) => (a < b ? -1 : 1))
		.map(([on, day]) => ({
			on,
			factors: factors.filter((factor) => day.factors.has(factor)),
			notes: day.notes
		}));
}

export const changedTogetherOutput = z.object({
	fromOn: z.string(),
	toOn: z.string(),
	factors: z.array(z.enum(factors))
});
export type ChangedTogether = z.infer<typeof changedTogetherOutput>;

/**
 * Changes whose effects cannot be told apart, because more than one thing was changed on the same or the next day.
 * @param days as from `daysOfChange`, oldest first
 */
export function changedTogether(days: readonly DayOfChange[]): ChangedTogether[] {
	const groups: DayOfChange[][] = [];
	for (const day of days) {
		const last = groups.at(-1);
		const before = last?.at(-1);
		if (last && before && day.on <= addDays(before.on, 1)) last.push(day);
		else groups.push([day]);
	}
	return groups
		.map((group) => ({
			fromOn: group[0]?.on ?? '',
			toOn: group.at(-1)?.on ?? '',
			factors: factors.filter((factor) => group.some((day) => day.factors.includes(factor)))
		}))
		.filter((group) => group.factors.length > 1);
}

export const staggeredStepOutput = z.object({
	factor: z.enum(factors),
	on: z.string(),
	watchUntil: z.string().describe('Until then nothing else is changed and the tree is watched')
});
export type StaggeredStep = z.infer<typeof staggeredStepOutput>;

/**
 * One thing at a time: what is easily taken back first, the roots last, each followed by a time of watching.
 * @param startOn first day
 */
export function staggeredPlan(wanted: readonly Factor[], startOn: string, values: Values): StaggeredStep[] {
	const gap = Math.round(values['changes.watch-days']);
	return factors
		.filter((factor) => wanted.includes(factor))
		.map((factor, i) => ({
			factor,
			on: addDays(startOn, i * gap),
			watchUntil: addDays(startOn, (i + 1) * gap)
		}));
}
