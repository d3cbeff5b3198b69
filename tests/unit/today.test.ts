import { describe, expect, it } from 'vitest';
import type { Task } from '$core/aftercare/task';
import { shippedKinds } from '$core/kinds/shipped';
import { coldLimitC, isAlarm, todayItems, walkingRound, type TodayTree } from '$core/today/today';
import { defaultValues } from '$core/values/values';

const today = '2026-04-18';
const kind = (id: string) => {
	const found = shippedKinds.find((candidate) => candidate.id === id);
	if (!found) throw new Error(id);
	return found;
};
const task = (change: Partial<Task>): Task => ({
	id: 't1',
	version: 1,
	kind: 'look',
	title: 'Look',
	reason: 'because',
	mark: 'trade',
	stage: 'recovery',
	fromOn: today,
	toOn: today,
	minutes: 10,
	release: null,
	everyDays: null,
	state: 'open',
	closedOn: null,
	skipReason: '',
	result: '',
	source: '',
	...change
});
const entry = (change: Partial<TodayTree> = {}): TodayTree => ({
	tree: {
		id: 'a',
		tag: 'A-1',
		name: 'Beech',
		situation: 'potted',
		state: 'in-care',
		takenInOn: '2026-04-01',
		plantCount: 1
	},
	kind: kind('fagus'),
	place: {
		id: 'p',
		version: 1,
		name: 'Bench',
		kind: 'open',
		latitudeDeg: 52,
		longitudeDeg: null,
		elevationM: 0,
		heldMinimumC: null,
		light: null,
		wind: null,
		waterM: null,
		note: ''
	},
	tasks: [],
	lastLookOn: '2026-04-10',
	lastCutOn: null,
	lastDecision: null,
	water: null,
	standing: null,
	facts: { looks: [], functionLow: [] },
	...change
});
const items = (...entries: TodayTree[]) => todayItems(entries, today, defaultValues);

describe('today', () => {
	it('puts late work before due work before what is coming, and weighs water over feeding', () => {
		const found = items(
			entry({
				tasks: [
					task({ id: 'soon', fromOn: '2026-04-22', toOn: '2026-04-30' }),
					task({ id: 'feed', kind: 'feeding', toOn: '2026-04-19' }),
					task({ id: 'water', kind: 'water', toOn: '2026-04-19' }),
					task({ id: 'late', fromOn: '2026-04-01', toOn: '2026-04-15' }),
					task({ id: 'far', fromOn: '2026-06-01', toOn: '2026-06-02' }),
					task({ id: 'done', state: 'done' })
				]
			})
		);
		expect(found.map((item) => item.task?.id)).toEqual(['late', 'water', 'feed', 'soon']);
		expect(found.map((item) => item.figure)).toEqual([
			'3 days late',
			'1 day left',
			'1 day left',
			'in 4 days'
		]);
	});
	it('warns of cold for a tender tree outside, not in the heated bay, and not for a closed case', () => {
		const out = entry({ kind: kind('citrus') });
		expect(items(out)[0]).toMatchObject({ level: 'now', sentence: 'Bring it under cover before tonight' });
		expect(items({ ...out, place: { ...out.place, kind: 'heated', heldMinimumC: 14 } })).toHaveLength(0);
		expect(items({ ...out, tree: { ...out.tree, state: 'dead' } })).toHaveLength(0);
	});
	it('holds freshly cut roots of hardy trees above frost, for a while', () => {
		expect(coldLimitC(entry({ lastCutOn: '2026-04-01' }), today, defaultValues)).toBe(0);
		expect(coldLimitC(entry({ lastCutOn: '2025-12-01' }), today, defaultValues)).toBe(-15);
	});
	it('brings up a tree that nobody looked at for sixty days', () => {
		expect(items(entry({ lastLookOn: '2026-02-16' }))[0]?.figure).toBe('61 days unseen');
		expect(items(entry({ lastLookOn: '2026-02-18' }))).toHaveLength(0);
	});
	it('adds up the round by place, without what is only coming up', () => {
		const round = walkingRound(
			items(
				entry({
					tasks: [task({ minutes: 20 }), task({ id: 't2', fromOn: '2026-04-22', toOn: '2026-04-25' })]
				})
			)
		);
		expect(round).toEqual([{ placeName: 'Bench', minutes: 20, tags: ['A-1'] }]);
	});
	it('counts only pressing work that is late as an alarm', () => {
		expect(isAlarm(task({ kind: 'water', toOn: '2026-04-17' }), today)).toBe(true);
		expect(isAlarm(task({ kind: 'feeding', toOn: '2026-04-01' }), today)).toBe(false);
		expect(isAlarm(task({ kind: 'water', toOn: today }), today)).toBe(false);
	});
});
