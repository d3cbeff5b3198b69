import { describe, expect, it } from 'vitest';
import { firmnesses } from '$core/examine/looks/seen-words';
import { oneOf } from '$core/vocabulary/fields';
import {
	answeredByExamination,
	answeredByLook,
	answeredByMeasurement,
	answeredByWatering,
	resultAsked,
	tasksAnswered
} from '$core/aftercare/tasks/result';
import { taskSchema, type Task } from '$core/vocabulary/task';
import { observationInput } from '$core/examine/looks/observation';
import { openFlags, referralResults } from '$core/aftercare/tasks/flags';
import { wateringInput } from '$core/aftercare/water/watering';

const task = (change: Partial<Task>): Task =>
	taskSchema.parse({
		id: 't',
		version: 1,
		kind: 'look',
		title: 'Look',
		fromOn: '2026-04-10',
		toOn: '2026-04-20',
		state: 'open',
		closedOn: null,
		...change
	});

describe('what a task asks for', () => {
	it.each([
		[{ source: 'first-buds@2026-03-01' }, 'buds'],
		[{ source: 'water-by-weight@2026-03-01', kind: 'water' }, 'weight'],
		[{ source: 'water-by-feel@2026-03-01', kind: 'water' }, 'felt'],
		[{ source: 'first-water@2026-03-01', kind: 'dry-rest' }, 'watering'],
		[{ source: '', kind: 'water' }, 'watering'],
		[{ source: 'referral@x', kind: 'referral' }, 'referral'],
		[{ source: 'clear-growth@2026-03-01' }, 'growth'],
		[{ source: 'ground.measure-again@g', kind: 'look' }, 'soil'],
		[{ source: 'crown@2026-03-01', kind: 'crown' }, 'crown'],
		// Shaded instead of cut, the tick is all.
		[{ source: 'crown@2026-03-01', kind: 'shelter' }, null],
		[{ source: 'cold@2026-03-01', kind: 'cold' }, 'place'],
		[{ source: 'rehearsed-place@2026-03-01', kind: 'shelter' }, 'place'],
		[{ source: 'rehearsed-replant@2026-03-01', kind: 'other' }, 'planting'],
		[{ source: '', kind: 'look' }, null],
		[{ source: 'shelter@2026-03-01', kind: 'shelter' }, null]
	] as const)('%j asks for %s', (change, asked) => {
		expect(resultAsked(task(change as Partial<Task>))).toBe(asked);
	});
	it('is answered by the record that holds it, wherever that was written', () => {
		expect(answeredByWatering(wateringInput.parse({ wateredOn: '2026-04-12' }))).toEqual(['watering']);
		expect(
			answeredByWatering(wateringInput.parse({ wateredOn: '2026-04-12', beforeKg: 8, afterKg: 9 }))
		).toEqual(['watering', 'weight', 'felt']);
		const look = (change: object) =>
			answeredByLook(observationInput.parse({ observedOn: '2026-04-12', ...change }));
		expect(look({ buds: 'swelling' })).toEqual(['buds']);
		// None move yet: the question stays.
		expect(look({ buds: 'none' })).toEqual([]);
		expect(look({ weightKg: 9, smell: 'none', leafCover: 0.4 })).toEqual([
			'weight',
			'felt',
			'growth',
			'smell'
		]);
		expect(answeredByMeasurement({ tool: 'moisture', feel: 'dry', probeShare: null })).toEqual(['felt']);
		expect(
			answeredByMeasurement({
				tool: 'weighing',
				wateredOn: '2026-04-10',
				fullKg: 9,
				nowKg: 8,
				dryKg: null,
				neighbours: []
			})
		).toEqual(['weight', 'felt']);
		// Soil measured by depth answers where it was loosened, the water in it does not.
		const rod = { position: 1, depthMm: 150, resistanceMpa: 1.8, readings: 1 };
		expect(
			answeredByMeasurement({ tool: 'penetrometer', source: 'typed', moisture: 'field', readings: [rod] })
		).toEqual(['soil']);
		const core = { fromMm: 50, toMm: 100, ringMl: 100, freshG: 190, dryG: 160 };
		expect(answeredByMeasurement({ tool: 'soil-cores', texture: 'clay', cores: [core] })).toEqual(['soil']);
		expect(answeredByMeasurement({ tool: 'drain-time', minutes: 20 })).toEqual([]);
		expect(
			answeredByExamination({ findings: [{ signId: 'sour-smell', grade: 0, measuredBy: null }] })
		).toEqual(['smell']);
	});
	it('only open tasks whose time has begun; water and buds answer early too, but not before the work', () => {
		const weigh = task({ id: 'w', source: 'water-by-weight@2026-04-01', kind: 'water' });
		const water = task({ id: 'f', source: 'first-water@2026-04-01', kind: 'dry-rest' });
		const answered = (on: string) =>
			tasksAnswered([weigh, water], ['watering', 'weight'], on).map((one) => one.id);
		expect(answered('2026-04-10')).toEqual(['w', 'f']);
		expect(answered('2026-04-05')).toEqual(['f']);
		expect(answered('2026-03-31')).toEqual([]);
		expect(tasksAnswered([{ ...weigh, state: 'done' }], ['weight'], '2026-04-12')).toEqual([]);
		const flag = task({ kind: 'referral', source: 'referral@x' });
		expect(tasksAnswered([flag], ['referral', 'watering'], '2026-04-12')).toEqual([]);
	});
});

describe('red flags', () => {
	const flag = (change: Partial<Task>) =>
		task({ kind: 'referral', source: 'referral@x', reason: 'Brackets.', ...change });
	it('stand while they are open, the nearest first; closed, what was said stays', () => {
		const tasks = [
			flag({ id: 'b', toOn: '2026-05-01' }),
			flag({ id: 'a', toOn: '2026-04-15' }),
			flag({ id: 'c', state: 'done', closedOn: '2026-04-12', result: 'Sound.' }),
			task({ id: 'd' })
		];
		expect(openFlags(tasks).map((one) => one.taskId)).toEqual(['a', 'b']);
		expect(referralResults(tasks)).toEqual([{ on: '2026-04-12', about: 'Brackets.', said: 'Sound.' }]);
	});
});

describe('an answer', () => {
	it('that nobody chose is asked for in the words of the form', () => {
		const said = (firmness: string) => oneOf(firmnesses).safeParse(firmness).error?.issues[0]?.message;
		expect(said('')).toBe('must be chosen');
		expect(said('wobbly')).toBe('must be one of: firm, moves, loose');
		expect(said('firm')).toBeUndefined();
	});
});
