import { roundPot } from '$core/replant/pots/volume';
import { defaultFormatSettings } from '$core/text/format';
import ICAL from 'ical.js';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import * as tables from '$lib/server/db/schema';
import { calendarEvents } from '$core/aftercare/tasks/calendar-events';
import { fallsAway } from '$core/aftercare/tasks/result';
import { headed, metOn, releaseOf, timed, type ReleaseFacts } from '$core/aftercare/tasks/release';
import { aftercareTasks } from '$core/aftercare/tasks/rules';
import { groundPlanInput } from '$core/replant/ground/ground-plan';
import { measurementInput } from '$core/examine/measuring/measurement';
import { treeInput } from '$core/take-in/tree';
import type { Store } from '$lib/server/db/database';
import { recordMeasurement } from '$lib/server/examine';
import { taskInput } from '$core/vocabulary/task';
import { addDays } from '$core/maths/calendar';
import { pottingMixOf } from '$core/replant/mixes/mixes';
import { plantingInput } from '$core/replant/pots/replant-plan';
import { todayItems } from '$core/today/today';
import { defaultValues as values } from '$core/values/values';
import { wateringInput } from '$core/aftercare/water/watering';
import {
	airHours,
	deviceHealth,
	readingFault,
	readingInput,
	readingsBody,
	type DeviceKind
} from '$core/aftercare/weather/device';
import { daysOfHours } from '$core/climate/hours';
import { weatherDayInput } from '$core/climate/weather-day';
import { observationInput } from '$core/examine/looks/observation';
import { recordLook } from '$lib/server/recovery';
import { addTask, closeTask, doTogether, makeAftercare, togetherInput } from '$lib/server/aftercare';
import { asICalendar, feedToken, renewFeed, revokeFeed, sameToken, yardEvents } from '$lib/server/calendar';
import { exportCase, importCase } from '$lib/server/case-file';
import {
	addDevice,
	deviceOf,
	deviceRows,
	keepReadings,
	lastReading,
	removeDevice
} from '$lib/server/devices';
import { readReadingsCsv } from '$lib/server/edge/readings-csv';
import { readWeatherCsv } from '$lib/server/edge/weather-csv';
import { devices, places, tasks } from '$lib/server/records/records';
import { undo } from '$lib/server/records/work';
import { keepGroundPlan, recordPlanting } from '$lib/server/replant';
import { todayTrees } from '$lib/server/tree-lists';
import { loadRecords } from '$lib/server/records/tree-records';
import { takeIn } from '$lib/server/trees';
import { recordWatering, waterOf } from '$lib/server/water';
import { refreshWater, waterStates } from '$lib/server/kept-water';
import {
	fetchForecast,
	hoursBody,
	keepHours,
	keepWeather,
	placeSeries,
	writeForecastSetting
} from '$lib/server/weather';
import { Refusal } from '$lib/server/errors';
import { freshStore, refusal, storeWithTree } from './helpers';

const on = '2026-04-18';
const day = (placeId: string, change: object = {}) =>
	weatherDayInput.parse({
		placeId,
		on: '2026-04-17',
		source: 'station',
		from: 's',
		minC: 2,
		maxC: 11,
		...change
	});

describe('a day of weather', () => {
	it('may be as warm at its coldest as at its warmest, never warmer', () => {
		const taken = (minC: number, maxC: number) =>
			weatherDayInput.safeParse({ placeId: 'p', on, source: 'station', from: 's', minC, maxC }).success;
		expect([taken(4, 4), taken(4, 4.1), taken(4.1, 4)]).toEqual([true, true, false]);
	});
});

describe('aftercare of a later work', () => {
	it('takes the place of what the earlier asked by the same rule, and leaves what is for others to say', async () => {
		const { store, tree } = await storeWithTree();
		const schools = { crownSchool: 'keep-leaves', waterSchool: 'at-once' } as const;
		await makeAftercare(store, tree.id, { ...schools, workOn: '2026-03-02' }, values);
		const open = async () =>
			(await tasks.list(store.db, tree.id))
				.filter((task) => task.state === 'open')
				.map((task) => task.source);
		const before = await open();
		expect(before.length).toBeGreaterThan(1);
		await addTask(
			store,
			tree.id,
			taskInput.parse({
				kind: 'other',
				title: 'Ask the neighbour',
				reason: '',
				mark: 'ours',
				stage: 'aftercare',
				fromOn: '2026-05-01',
				toOn: '2026-05-02',
				minutes: 5
			})
		);
		await makeAftercare(store, tree.id, { ...schools, workOn: '2026-04-10' }, values);
		const after = await open();
		expect(after).toContain('');
		for (const source of before) {
			const rule = source.split('@')[0];
			expect(
				after.filter((one) => one.startsWith(`${rule}@`)),
				source
			).toEqual([`${rule}@2026-04-10`]);
		}
		const gone = (await tasks.list(store.db, tree.id)).filter((task) => before.includes(task.source));
		for (const task of gone)
			expect(task).toMatchObject({
				state: 'skipped',
				closedOn: '2026-04-10',
				skipReason: 'asked anew by later work'
			});
		// What comes up again of itself is no second question either.
		expect(new Set(after).size).toBe(after.length);
	});
	it('a later work answers only the same question of an earlier one', () => {
		const task = (source: string, change: object = {}) => ({
			kind: 'look' as const,
			title: 'Turn it',
			source,
			...change
		});
		expect(fallsAway(task('turning@2026-04-18'), task('turning@2026-09-01'))).toBe(true);
		// Another lift left another hole.
		expect(fallsAway(task('hole@2026-04-18'), task('hole@2026-09-01'))).toBe(false);
		expect(fallsAway(task('again@2026-06-18'), task('turning@2026-09-01'))).toBe(true);
		expect(fallsAway(task('again@2026-06-18', { title: 'Suckers' }), task('turning@2026-09-01'))).toBe(false);
		expect(fallsAway(task('turning@2026-09-01'), task('turning@2026-09-01'))).toBe(false);
		expect(fallsAway(task('turning@2026-10-01'), task('turning@2026-09-01'))).toBe(false);
		expect(fallsAway(task('suckers@2026-04-18'), task('turning@2026-09-01'))).toBe(false);
		expect(fallsAway(task(''), task('turning@2026-09-01'))).toBe(false);
		expect(fallsAway(task('arborist@2026-04-18', { kind: 'referral' }), task('arborist@2026-09-01'))).toBe(
			false
		);
	});
});

describe('what the tree releases', () => {
	const release = { condition: 'buds-move' as const, value: 0, byOn: '2026-06-01', after: '' };
	const look = (observedOn: string, change: object = {}) => ({
		observedOn,
		buds: null,
		leafCover: null,
		leafState: null,
		shootExtensionMm: null,
		...change
	});
	const facts = (looks: ReleaseFacts['looks'], change: Partial<ReleaseFacts> = {}): ReleaseFacts => ({
		looks,
		functionLow: [],
		evergreen: false,
		gate: null,
		closed: [],
		...change
	});
	it('is held until it was seen, released on the day it was seen, and brought up at the latest day', () => {
		expect(releaseOf(release, facts([]), '2026-05-01', values).state).toBe('held');
		expect(
			releaseOf(release, facts([look('2026-04-20', { buds: 'swelling' })]), '2026-05-01', values)
		).toMatchObject({
			state: 'released',
			on: '2026-04-20'
		});
		expect(
			releaseOf(release, facts([look('2026-04-20', { buds: 'none' })]), '2026-06-02', values).state
		).toBe('overdue');
	});
	it('each condition is met by its own measure', () => {
		const shoots = [
			look('2026-05-01', { shootExtensionMm: 80 }),
			look('2026-05-20', { shootExtensionMm: 82 })
		];
		expect(metOn({ ...release, condition: 'flush-hardened' }, facts(shoots), values)?.on).toBe('2026-05-20');
		expect(metOn({ ...release, condition: 'flush-hardened' }, facts(shoots.slice(0, 1)), values)).toBeNull();
		// A second flush does not undo the first; a look that measured none says nothing of them.
		const flushes = [...shoots, look('2026-06-10', { shootExtensionMm: 140 })];
		expect(metOn({ ...release, condition: 'flush-hardened' }, facts(flushes), values)?.on).toBe('2026-05-20');
		for (const shootExtensionMm of [null, 0])
			expect(
				metOn(
					{ ...release, condition: 'flush-hardened' },
					facts([...shoots.slice(0, 1), look('2026-05-20', { shootExtensionMm })]),
					values
				)
			).toBeNull();
		expect(
			metOn({ ...release, condition: 'leaves-out' }, facts([look('2026-05-01', { leafCover: 0.62 })]), values)
				?.on
		).toBe('2026-05-01');
		const drinks = (weighed: boolean) =>
			metOn(
				{ ...release, condition: 'root-function', value: 0.6 },
				facts([], {
					functionLow: [
						{ on: '2026-05-01', low: 0.5, weighed: true },
						{ on: '2026-05-08', low: 0.62, weighed }
					]
				}),
				values
			)?.on;
		expect(drinks(true)).toBe('2026-05-08');
		// What only a model says releases nothing.
		expect(drinks(false)).toBeUndefined();
		// Enough once and few since releases nothing; enough again does, from that day on.
		const course = (...lows: number[]) =>
			metOn(
				{ ...release, condition: 'root-function', value: 0.6 },
				facts([], {
					functionLow: lows.map((low, i) => ({ on: addDays('2026-05-01', i), low, weighed: true }))
				}),
				values
			)?.on;
		expect(course(0.6)).toBe('2026-05-01');
		expect(course(0.7, 0.59)).toBeUndefined();
		expect(course(0.7, 0.59, 0.6, 0.65)).toBe('2026-05-03');
		expect(course()).toBeUndefined();
	});
	it('leaves that stay firm with half the shelter off do for a scale; firm before that they do not', () => {
		const rest = { ...release, condition: 'root-function' as const, value: 0.6, after: 'shelter-half' };
		const firm = (on: string, cover: number | null, evergreen = false) =>
			metOn(
				rest,
				facts([look(on, { leafState: 'turgid', leafCover: cover })], {
					evergreen,
					closed: [{ source: 'shelter-half@2026-04-01', on: '2026-05-01' }]
				}),
				values
			)?.on;
		expect(firm('2026-05-08', 0.6)).toBe('2026-05-08');
		expect(firm('2026-05-07', 0.6)).toBeUndefined();
		expect(firm('2026-05-08', 0.4)).toBeUndefined();
		expect(firm('2026-05-08', null, true)).toBe('2026-05-08');
	});
	it('half comes off before the rest, whatever else was seen, and nothing before it went on', () => {
		const step = (after: string, closed: ReleaseFacts['closed']) =>
			timed(
				{
					fromOn: '2026-05-01',
					toOn: '2026-05-10',
					source: 'shelter@2026-04-01',
					release: { ...release, condition: 'root-function', value: 0.6, after }
				},
				facts([], { functionLow: [{ on: '2026-05-05', low: 0.9, weighed: true }], closed }),
				'2026-09-01',
				values
			);
		expect(step('shelter-half', []).released).toMatchObject({
			state: 'held',
			because: 'waits until half of the shelter is off'
		});
		// The half of another work is not its half.
		expect(
			step('shelter-half', [{ source: 'shelter-half@2025-04-01', on: '2025-05-01' }]).released?.state
		).toBe('held');
		const off = step('shelter-half', [{ source: 'shelter-half@2026-04-01', on: '2026-05-20' }]);
		expect(off.released?.state).toBe('released');
		expect(off.fromOn).toBe('2026-05-20');
		expect(step('shelter-on', []).released?.because).toBe('waits until the shelter is on');
	});
	it('asks no evergreen for a crown in leaf', () => {
		const out = { ...release, condition: 'leaves-out' as const };
		const covered = [look('2026-05-01', { leafCover: 0.9 })];
		expect(metOn(out, facts(covered), values)?.on).toBe('2026-05-01');
		expect(metOn(out, facts(covered, { evergreen: true }), values)).toBeNull();
		expect(metOn(out, facts([look('2026-05-02', { buds: 'open' })], { evergreen: true }), values)?.on).toBe(
			'2026-05-02'
		);
		expect(releaseOf(out, facts([], { evergreen: true }), '2026-05-01', values).because).toBe(
			'waits until new leaves are seen'
		);
	});
	it('opens a later root stage by its gate alone, never by a date or a full crown', () => {
		const stage = { ...release, condition: 'growth-regained' as const };
		const crown = [look('2026-05-01', { leafCover: 1 })];
		const gate = (answer: 'met' | 'not-met' | 'unknown') =>
			facts(crown, { gate: { answer, because: ['So.'] } });
		expect(releaseOf(stage, gate('met'), '2026-05-20', values)).toMatchObject({
			state: 'released',
			because: 'the last stage is paid back: So'
		});
		for (const answer of ['not-met', 'unknown'] as const)
			expect(releaseOf(stage, gate(answer), '2030-01-01', values)).toMatchObject({
				state: 'held',
				because: 'waits until the last stage is paid back. So'
			});
		expect(releaseOf(stage, facts(crown), '2030-01-01', values).state).toBe('held');
	});
	it('a root stage paid back early still waits for its window', () => {
		const stage = timed(
			{
				fromOn: '2027-02-01',
				toOn: '2027-04-01',
				source: 'next-stage@2026-04-01',
				release: { ...release, condition: 'growth-regained' }
			},
			facts([look('2026-07-01', { leafCover: 1 })], { gate: { answer: 'met', because: [] } }),
			'2026-08-01',
			values
		);
		expect([stage.released?.state, stage.fromOn, stage.toOn]).toEqual([
			'released',
			'2027-02-01',
			'2027-04-01'
		]);
	});
	it('past its last day it asks and orders nothing', () => {
		const task = { title: 'Take half the shade off', fromOn: '2026-05-10', toOn: '2026-05-20', release };
		const late = timed({ ...task, source: 'x@2026-04-01' }, facts([]), '2026-06-02', values);
		expect(headed(late)).toBe('Look first: do its buds move?');
		const seen = timed(
			{ ...task, source: 'x@2026-04-01' },
			facts([look('2026-05-02', { buds: 'open' })]),
			'2026-06-02',
			values
		);
		expect(headed(seen)).toBe('Take half the shade off');
	});
	it('times the task anew with the same length, and doing it twice changes nothing', () => {
		const task = { fromOn: '2026-05-10', toOn: '2026-05-20', release, source: 'x@2026-04-01' };
		const seen = facts([look('2026-03-01', { buds: 'open' }), look('2026-04-20', { buds: 'open' })]);
		const once = timed(task, seen, '2026-05-01', values);
		// Buds of before the work release nothing.
		expect([once.fromOn, once.toOn]).toEqual(['2026-04-20', '2026-04-30']);
		expect(timed(once, seen, '2026-05-01', values)).toEqual(once);
		const held = timed(task, facts([]), '2026-05-15', values);
		expect(held.fromOn > '2026-05-15').toBe(true);
		expect(timed(held, facts([]), '2026-05-15', values)).toEqual(held);
	});
});

describe('work that comes up again, and several at once', () => {
	const again = (title: string, everyDays: number | null) =>
		taskInput.parse({
			kind: 'turning',
			title,
			reason: '',
			fromOn: '2026-04-16',
			toOn: '2026-04-20',
			everyDays
		});
	const openOf = async (store: Store, treeId: string) =>
		(await loadRecords(store.db, treeId)).tasks.filter((task) => task.state === 'open');
	it('is planned anew when it is done or skipped, unless it is ended; undo takes both back', async () => {
		const { store, tree } = await storeWithTree();
		await addTask(store, tree.id, again('Turn it', 21));
		const [first] = await openOf(store, tree.id);
		if (!first) throw new Error('no task');
		const closing = { taskId: first.id, version: 1, state: 'done', skipReason: '', on } as const;
		const entry = await closeTask(store, tree.id, closing);
		const [second] = await openOf(store, tree.id);
		expect(second).toMatchObject({
			title: 'Turn it',
			fromOn: '2026-05-09',
			toOn: '2026-05-13',
			everyDays: 21
		});
		await undo(store, ...entry);
		expect((await openOf(store, tree.id)).map((task) => task.id)).toEqual([first.id]);
		await closeTask(store, tree.id, {
			...closing,
			version: 3,
			state: 'skipped',
			skipReason: 'light from above',
			ends: true
		});
		expect(await openOf(store, tree.id)).toEqual([]);
	});
	it('all are done or none, each in the journal of its tree, and taken back together', async () => {
		const { store, tree, placeId } = await storeWithTree();
		const { tree: other } = await takeIn(
			store,
			treeInput.parse({
				tag: 'Z-9',
				name: 'Other',
				kindId: 'fagus',
				placeId,
				situation: 'potted',
				trunkDiameterMm: 40,
				origin: 'hedge',
				takenInOn: '2026-03-01'
			})
		);
		await addTask(store, tree.id, again('A', null));
		await addTask(store, other.id, again('B', null));
		const [a] = await openOf(store, tree.id);
		const [b] = await openOf(store, other.id);
		if (!a || !b) throw new Error('no task');
		const both = [
			{ treeId: tree.id, taskId: a.id, version: 1 },
			{ treeId: other.id, taskId: b.id, version: 1 }
		];
		const stale = { tasks: [both[0], { ...both[1], version: 7 }], waterings: [] };
		expect((await refusal(doTogether(store, togetherInput.parse(stale), on))).status).toBe(409);
		expect(await openOf(store, tree.id)).toHaveLength(1);
		const entries = await doTogether(
			store,
			togetherInput.parse({ tasks: both, waterings: [{ treeId: other.id, litres: 2 }] }),
			on
		);
		expect(entries).toHaveLength(3);
		expect(await openOf(store, other.id)).toEqual([]);
		expect((await loadRecords(store.db, other.id)).waterings).toHaveLength(1);
		await undo(store, ...entries);
		expect(await openOf(store, tree.id)).toHaveLength(1);
		expect((await loadRecords(store.db, other.id)).waterings).toEqual([]);
		expect((await refusal(doTogether(store, { tasks: [], waterings: [] }, on))).status).toBe(422);
	});
	it('turning, suckers and the pot come up again; what spread is looked for twice', () => {
		const work = {
			workOn: '2026-04-01',
			group: 'deciduous' as const,
			tender: false,
			coldestC: -15,
			inGround: false,
			livingLoss: 0.2,
			lifted: false,
			rotWasCut: true,
			structuralCut: false,
			collarWork: false,
			tooHeavy: false,
			seasonFit: 'in-window' as const,
			crownSchool: 'keep-leaves' as const,
			waterSchool: 'at-once' as const,
			crownExcess: 0,
			nextStageOn: null,
			plantCount: 1,
			suckers: true,
			inLeaf: true,
			leafOutOn: null,
			crownTaken: 0,
			feedSeasonOn: null,
			budsOn: null,
			coldLimitC: 0,
			coldFromOn: null
		};
		const every = (change: object = {}) =>
			Object.fromEntries(
				aftercareTasks({ ...work, ...change }, values).map((task) => [task.rule, task.everyDays])
			);
		expect(every()).toMatchObject({
			turning: values['aftercare.turnEvery'],
			suckers: 365,
			'repot-need': 365,
			'neighbours-again': null
		});
		expect(every({ inGround: true, suckers: false, collarWork: true })).toMatchObject({
			'collar-again': 365
		});
		expect(Object.keys(every({ inGround: true, suckers: false }))).not.toContain('turning');
		// Slow kinds are fed from the next season on, never in the winter before it; others need no season.
		const fed = (change: object) =>
			aftercareTasks({ ...work, ...change }, values).find(({ rule }) => rule === 'feeding')?.fromOn;
		expect(fed({ group: 'conifer' })).toBe('2027-01-26');
		expect(fed({ group: 'conifer', feedSeasonOn: '2027-04-02' })).toBe('2027-04-02');
		expect(fed({ group: 'conifer', feedSeasonOn: '2026-09-01' })).toBe('2027-01-26');
		expect(fed({ feedSeasonOn: '2027-04-02' })).toBe(fed({}));
	});
	it('begins on the day that was seen first, on Today as on its page, however long ago that was', async () => {
		const { store, tree } = await storeWithTree({ takenInOn: '2024-11-01' });
		await addTask(
			store,
			tree.id,
			taskInput.parse({
				kind: 'other',
				title: 'Turn it',
				reason: 'light',
				fromOn: '2024-12-01',
				toOn: '2024-12-20',
				release: { condition: 'buds-move', byOn: '2025-06-01' }
			})
		);
		for (const day of ['2025-04-20', '2026-04-10'])
			await recordLook(store, tree.id, observationInput.parse({ observedOn: day, buds: 'open' }));
		const [entry] = await todayTrees(store.db, '2026-12-01');
		expect(entry?.facts.looks.map((look) => look.observedOn)).toEqual(['2025-04-20', '2026-04-10']);
	});
});

describe('water', () => {
	const pot = roundPot(300, 240, 200);
	const potted = async () => {
		const made = await storeWithTree({ heightM: 0.9 });
		await recordPlanting(
			made.store,
			made.tree.id,
			plantingInput.parse({
				plantedOn: '2026-03-05',
				pot,
				sizeRule: 'normal',
				ballDiameterMm: 240,
				ballDepthMm: 140,
				mix: pottingMixOf('pumice-bark'),
				headspaceMm: 20
			}),
			{ waterSchool: 'at-once', fromStock: null },
			values
		);
		return made;
	};
	it('is corrected by what is felt and by the scale under it, each in its own way', async () => {
		const { store, tree } = await potted();
		await recordWatering(
			store,
			tree.id,
			wateringInput.parse({ wateredOn: '2026-04-10', litres: 4, ranOutL: 1 })
		);
		const before = (await waterOf(store.db, tree.id, values)).pot;
		await recordMeasurement(
			store,
			tree.id,
			measurementInput.parse({ measuredOn: on, raw: { tool: 'moisture', feel: 'dry' } })
		);
		const felt = (await waterOf(store.db, tree.id, values)).pot;
		expect(felt?.from).toBe('felt');
		expect(felt?.next.dryness).toBeGreaterThan(before?.next.dryness ?? 1);
		expect(felt?.next.dryness).toBeLessThan(values['water.felt.dry']);
		const { device } = await addDevice(store, {
			name: 'Scale',
			kind: 'scale',
			onTreeId: tree.id,
			placeId: null,
			simulated: true
		});
		await keepReadings(
			store,
			device,
			[12.5, 14, 13.9, 13.8, 13.7].map((weightKg, i) =>
				readingInput.parse({ at: `2026-04-${13 + i}T07:00:00Z`, weightKg })
			),
			values
		);
		const weighed = (await waterOf(store.db, tree.id, values)).pot;
		// The scale saw hardly any loss: it speaks louder than a finger.
		expect(weighed?.next.dryness).toBeLessThan(felt?.next.dryness ?? 0);
		expect(weighed?.pairs.at(-1)).toMatchObject({ from: '2026-04-14', to: '2026-04-17' });
		// A reading of a device makes the kept state stale though no record was written.
		await refreshWater(store, values);
		const state = (await waterStates(store.db)).get(tree.id);
		expect(state?.dryness).toBeCloseTo(weighed?.next.dryness ?? -1, 9);
	});
	it('in the ground is that of the ball and its backfill, fed by what is poured', async () => {
		const { store, tree } = await storeWithTree({ situation: 'in-ground', trunkDiameterMm: 50, heightM: 3 });
		const grown = (await waterOf(store.db, tree.id, values)).ground;
		expect(grown).toMatchObject({ how: 'grown', tradeL: null });
		await keepGroundPlan(
			store,
			tree.id,
			groundPlanInput.parse({
				plannedOn: '2026-04-01',
				hole: { widthMm: 900, depthMm: 350, ballDiameterMm: 450, ballDepthMm: 320 },
				doneOn: '2026-04-01'
			}),
			null,
			values
		);
		const planted = (await waterOf(store.db, tree.id, values)).ground;
		// A ball of 450 × 320 mm at a quarter of its volume is 80 mm over its ground.
		expect(planted?.stores.ballMm).toBeCloseTo(80, 9);
		expect(planted?.stores.areaM2).toBeCloseTo(Math.PI * 0.225 ** 2, 9);
		// One to two gallons for each inch of its trunk.
		expect(planted?.tradeL?.[1]).toBeCloseTo((2 * 3.785 * 50) / 25.4, 9);
		expect(planted?.days[0]?.on).toBe('2026-04-01');
		await recordWatering(store, tree.id, wateringInput.parse({ wateredOn: '2026-04-17', litres: 12 }));
		const watered = (await waterOf(store.db, tree.id, values)).ground;
		expect(watered?.now?.dryness).toBeLessThan((planted?.now?.dryness ?? 0) + 1e-9);
		await refreshWater(store, values);
		expect((await waterStates(store.db)).get(tree.id)).toMatchObject({
			from: 'ground',
			lastWaterOn: '2026-04-17'
		});
	});
	it('is reckoned for a potted tree, kept for Today until something changes, and part of its export', async () => {
		const { store, tree } = await potted();
		const days = Array.from({ length: 40 }, (_, i) =>
			day(tree.placeId, { on: addDays('2026-03-09', i), minC: 8, maxC: 21 })
		);
		await keepWeather(store, days, values);
		for (const [wateredOn, beforeKg, afterKg] of [
			['2026-03-20', null, 14.2],
			['2026-03-28', 13.1, 14.2],
			['2026-04-05', 13, 14.2]
		] as const)
			await recordWatering(
				store,
				tree.id,
				wateringInput.parse({ wateredOn, beforeKg, afterKg, litres: 1.4 })
			);
		const water = await waterOf(store.db, tree.id, values);
		expect(water.pot?.pairs.length).toBe(2);
		expect(water.pot?.lastWaterOn).toBe('2026-04-05');
		await refreshWater(store, values);
		const [first] = [...(await waterStates(store.db)).values()];
		expect(first?.lastWaterOn).toBe('2026-04-05');
		const { entryId } = await recordWatering(
			store,
			tree.id,
			wateringInput.parse({ wateredOn: '2026-04-17' })
		);
		await refreshWater(store, values);
		expect([...(await waterStates(store.db)).values()][0]?.lastWaterOn).toBe('2026-04-17');
		await undo(store, entryId);
		await refreshWater(store, values);
		expect([...(await waterStates(store.db)).values()][0]).toEqual(first);
		const written = await exportCase(store.db, tree.id);
		expect(written.waterings).toHaveLength(3);
		const elsewhere = await freshStore();
		await importCase(elsewhere, written);
		expect(await exportCase(elsewhere.db, tree.id)).toEqual(written);
	});
	it('that is due stands on Today with litres, and a frost that is forecast with all trees it touches', async () => {
		const { store, tree, placeId } = await potted();
		const dry = Array.from({ length: 25 }, (_, i) =>
			day(placeId, {
				on: addDays('2026-03-24', i),
				minC: 12,
				maxC: 29,
				windMs: 3,
				sunMj: 20,
				humidityPercent: 40
			})
		);
		await keepWeather(store, dry, values);
		await recordWatering(store, tree.id, wateringInput.parse({ wateredOn: '2026-03-30' }));
		await keepWeather(store, [day(placeId, { on, source: 'forecast', minC: -22, maxC: 4 })], values);
		await refreshWater(store, values);
		const [trees, weather] = await Promise.all([
			todayTrees(store.db, on),
			placeSeries(store.db, on, addDays(on, 3), values)
		]);
		const items = todayItems(
			trees,
			on,
			values,
			new Map([...weather].map(([id, { series }]) => [id, series]))
		);
		expect(items[0]?.sentence).toMatch(/Cold tonight, before dusk/);
		expect(items[0]?.group.map((one) => one.tag)).toEqual(['T-1']);
		const water = items.find((item) => item.pourL !== null);
		expect(water?.sentence).toMatch(/^Water it: /);
		expect(water?.pourL ?? 0).toBeGreaterThan(0.1);
	});
});

describe('weather', () => {
	it('kept twice changes nothing; a measured night below a limit is in the journal once', async () => {
		const { store, tree, placeId } = await storeWithTree();
		const cold = [day(placeId, { minC: -25, maxC: -9 })];
		expect(await keepWeather(store, cold, values)).toEqual({ kept: 1, missed: 1 });
		expect(await keepWeather(store, cold, values)).toEqual({ kept: 1, missed: 0 });
		const { journal } = await loadRecords(store.db, tree.id);
		expect(journal.filter((entry) => entry.what.startsWith('Cold night'))).toHaveLength(1);
	});
	it('of an unknown place or of days to come is refused, and nothing is kept', async () => {
		const { store, placeId } = await storeWithTree();
		expect(
			(await refusal(keepWeather(store, [day(placeId), day('nowhere')], values))).problems[0]?.field
		).toBe('1.placeId');
		expect((await refusal(keepWeather(store, [day(placeId, { on: '2026-05-01' })], values))).status).toBe(
			422
		);
		expect(
			(await placeSeries(store.db, '2026-04-17', '2026-04-17', values)).get(placeId)?.series[0]?.source
		).toBe('normals');
	});
	it('by the hour becomes days; a day with too few hours, a day that runs and a clock that jumped are left out or refused', async () => {
		const { store, placeId } = await storeWithTree();
		const { per, rows } = readWeatherCsv(
			[
				'at,temperature_c,sun_wm2,rain_mm,gust_ms',
				...Array.from(
					{ length: 30 },
					(_, i) =>
						`2026-04-${16 + Math.floor(i / 24)}T${String(i % 24).padStart(2, '0')}:00:00Z,${i % 24},100,0.5,${i}`
				)
			].join('\n'),
			on
		);
		expect(per).toBe('hour');
		const body = { placeId, from: 'file', hours: rows };
		expect(await keepHours(store, hoursBody.parse(body), values)).toMatchObject({ kept: 1, short: 1 });
		const series = (await placeSeries(store.db, '2026-04-16', '2026-04-17', values)).get(placeId)?.series;
		expect(series?.[0]).toMatchObject({ minC: 0, maxC: 23, rainMm: 12, gustMs: 23, source: 'station' });
		const ahead = hoursBody.parse({ ...body, hours: [{ at: '2026-04-19T00:00:00Z', temperatureC: 4 }] });
		expect((await refusal(keepHours(store, ahead, values))).problems[0]?.message).toMatch(/clock/);
	});
	it('a forecast is simulated, kept, and a service that does not answer leaves what stands', async () => {
		const { store, placeId } = await storeWithTree();
		// Neither a service without a place nor a place without a service is one that was chosen.
		for (const chosen of [
			{ service: 'simulated', placeId: null },
			{ service: 'off', placeId }
		]) {
			await writeForecastSetting(store, { ...chosen, fetchedAt: null });
			expect((await refusal(fetchForecast(store, values))).status, chosen.service).toBe(409);
		}
		await writeForecastSetting(store, { service: 'simulated', placeId, fetchedAt: null });
		expect(await fetchForecast(store, values)).toBe(10);
		const before = (await placeSeries(store.db, on, addDays(on, 9), values)).get(placeId)?.series;
		expect(before?.every((one) => one.source === 'forecast')).toBe(true);
		await writeForecastSetting(store, { service: 'http://127.0.0.1:9/none', placeId, fetchedAt: null });
		expect((await refusal(fetchForecast(store, values))).status).toBe(502);
		expect((await placeSeries(store.db, on, addDays(on, 9), values)).get(placeId)?.series).toEqual(before);
		await writeForecastSetting(store, { service: 'off', placeId, fetchedAt: null });
		const off = (await placeSeries(store.db, on, addDays(on, 9), values)).get(placeId)?.series;
		expect(off?.every((one) => one.source === 'normals')).toBe(true);
		expect(
			(await refusal(writeForecastSetting(store, { service: 'ftp://x', placeId, fetchedAt: null }))).status
		).toBe(422);
	});
});

describe('devices', () => {
	const reading = (at: string, change: object = {}) => readingInput.parse({ at, weightKg: 12, ...change });
	it('are known by a token that is kept as a hash; a reading twice or out of order is kept once', async () => {
		const { store, tree } = await storeWithTree();
		const { device, token } = await addDevice(store, {
			name: 'Scale',
			kind: 'scale',
			onTreeId: tree.id,
			placeId: null,
			simulated: false
		});
		expect(JSON.stringify(await devices.list(store.db))).not.toContain(token);
		expect((await deviceOf(store.db, `Bearer ${token}`)).id).toBe(device.id);
		for (const wrong of [null, 'Bearer ', 'Bearer nothing-at-all', token])
			expect((await refusal(deviceOf(store.db, wrong))).status).toBe(401);
		const readings = [reading('2026-04-17T10:00:00Z'), reading('2026-04-17T08:00:00Z', { weightKg: 13 })];
		expect(await keepReadings(store, device, readings, values)).toEqual({ kept: 2, known: 0 });
		expect(await keepReadings(store, device, readings, values)).toEqual({ kept: 0, known: 2 });
		const [row] = await deviceRows(store.db);
		expect(row?.last?.lastAt).toBe('2026-04-17T10:00:00.000Z');
		expect(row?.at).toBe('T-1 Beech by the gate');
		await removeDevice(store, device.id, 1);
		expect((await refusal(deviceOf(store.db, `Bearer ${token}`))).status).toBe(401);
	});
	it('and weather each want a token that is for them', async () => {
		const { store, tree, placeId } = await storeWithTree();
		const add = (kind: DeviceKind) =>
			addDevice(store, {
				name: kind,
				kind,
				onTreeId: kind === 'scale' ? tree.id : null,
				placeId: kind === 'scale' ? null : placeId,
				simulated: false
			});
		const [scale, air, station] = [await add('scale'), await add('air'), await add('station')];
		const sends = async ({ token }: { token: string }, what: 'readings' | 'weather') => {
			try {
				return (await deviceOf(store.db, `Bearer ${token}`, what)).name;
			} catch (cause) {
				return cause instanceof Refusal ? cause.status : 'broke';
			}
		};
		expect(await Promise.all([scale, air, station].map((one) => sends(one, 'readings')))).toEqual([
			'scale',
			'air',
			403
		]);
		expect(await Promise.all([scale, air, station].map((one) => sends(one, 'weather')))).toEqual([
			403,
			403,
			'station'
		]);
		const nowhere = {
			name: 'Mast',
			kind: 'station' as const,
			onTreeId: tree.id,
			placeId: null,
			simulated: false
		};
		expect((await refusal(addDevice(store, nowhere))).problems[0]?.field).toBe('placeId');
	});
	it('with a clock that jumped ahead or an empty scale are refused; nothing is half kept', async () => {
		const { store, tree } = await storeWithTree();
		const { device } = await addDevice(store, {
			name: 'Scale',
			kind: 'scale',
			onTreeId: tree.id,
			placeId: null,
			simulated: true
		});
		const good = reading('2026-04-17T10:00:00Z');
		const ahead = await refusal(keepReadings(store, device, [good, reading('2031-01-01T00:00:00Z')], values));
		expect(ahead.problems[0]?.message).toMatch(/clock of the device/);
		expect(
			(
				await refusal(
					keepReadings(store, device, [good, reading('2026-04-17T11:00:00Z', { weightKg: -0.2 })], values)
				)
			).status
		).toBe(422);
		expect((await deviceRows(store.db))[0]?.last).toBeNull();
		expect(readingsBody.safeParse([]).success).toBe(false);
		expect(readingInput.safeParse({ at: '2026-04-17T10:00:00Z' }).success).toBe(false);
	});
	it('of another kind than the device, or of a clock that is lost, are refused by their field', () => {
		const at = '2026-04-17T10:00:00Z';
		const nowMs = Date.parse('2026-04-18T09:00:00Z');
		const fault = (kind: DeviceKind, change: object) => {
			const told = readingInput.parse({ at, ...change });
			const found = readingFault(kind, told, nowMs, 400);
			return found && `${found.field} ${found.message}`;
		};
		expect(fault('scale', { weightKg: 12, temperatureC: 8, battery: 1 })).toBeNull();
		expect(fault('soil-probe', { moisture: 0, temperatureC: 8 })).toBeNull();
		expect(fault('air', { temperatureC: 0, humidityPercent: 80 })).toBeNull();
		expect(fault('scale', { weightKg: 12, moisture: 0.3 })).toMatch(
			/^moisture is nothing .* scale under a pot$/
		);
		expect(fault('air', { temperatureC: 3, weightKg: 3 })).toMatch(/^weightKg is nothing/);
		expect(fault('scale', { temperatureC: 3 })).toMatch(/^weightKg must be told: .* a weight$/);
		expect(fault('air', { humidityPercent: 3 })).toMatch(/^temperatureC must be told/);
		expect(fault('scale', { weightKg: 12, at: '2025-03-15T00:00:00Z' })).toBeNull();
		expect(fault('scale', { weightKg: 12, at: '2025-03-13T00:00:00Z' })).toMatch(
			/^at lies more than 400 days back/
		);
		expect(fault('scale', { weightKg: 12, at: '2026-04-18T09:14:00Z' })).toBeNull();
		expect(fault('scale', { weightKg: 12, at: '2026-04-18T09:16:00Z' })).toMatch(/^at lies ahead/);
	});
	it('are told by the hour as they would be told one by one, in whatever order they came', async () => {
		const { store, tree } = await storeWithTree();
		const { device } = await addDevice(store, {
			name: 'Scale',
			kind: 'scale',
			onTreeId: tree.id,
			placeId: null,
			simulated: true
		});
		const minutes = fc.uniqueArray(fc.integer({ min: 0, max: 5 * 60 }), { minLength: 1, maxLength: 40 });
		await fc.assert(
			fc.asyncProperty(minutes, fc.integer({ min: 1, max: 40 }), async (at, cut) => {
				await store.db.delete(tables.reading);
				await store.db.delete(tables.readingHour);
				const all = at.map((minute) =>
					reading(new Date(Date.parse('2026-04-17T10:00:00Z') + minute * 60_000).toISOString(), {
						weightKg: 5 + ((minute * 7) % 11)
					})
				);
				await keepReadings(store, device, all.slice(0, cut), values);
				// Sent again with the rest, they count once.
				await keepReadings(store, device, all, values);
				const sorted = all.toSorted((a, b) => (a.at < b.at ? -1 : 1));
				for (const row of await store.db.select().from(tables.readingHour)) {
					const own = sorted.filter((one) => one.at.startsWith(row.hour));
					expect(row).toMatchObject({
						count: own.length,
						firstAt: own[0]?.at,
						lastAt: own.at(-1)?.at,
						weightKg: own.at(-1)?.weightKg,
						lowestKg: Math.min(...own.map(({ weightKg }) => weightKg ?? 0))
					});
				}
				expect((await deviceRows(store.db))[0]?.last?.lastAt).toBe(sorted.at(-1)?.at);
				expect(await lastReading(store.db, device.id)).toEqual(sorted.at(-1));
			}),
			{ numRuns: 25 }
		);
	});
	it('an air sensor makes days of its place, but not of the day that runs', async () => {
		const { store, placeId } = await storeWithTree();
		const { device } = await addDevice(store, {
			name: 'Air',
			kind: 'air',
			onTreeId: null,
			placeId,
			simulated: true
		});
		const hours = ['16', '17', '18'].flatMap((date) =>
			Array.from({ length: 8 }, (_, hour) =>
				readingInput.parse({
					at: `2026-04-${date}T0${hour}:00:00Z`,
					temperatureC: hour,
					humidityPercent: 70
				})
			)
		);
		await keepReadings(store, device, hours, values);
		const series = (await placeSeries(store.db, '2026-04-16', on, values)).get(placeId)?.series;
		expect(series?.map((one) => one.source)).toEqual(['station', 'station', 'normals']);
		expect(series?.[0]).toMatchObject({ minC: 0, maxC: 7 });
		const byHour = hours.map((one) => ({
			...one,
			firstAt: one.at,
			lastAt: one.at,
			count: 1,
			lowestKg: null
		}));
		expect(daysOfHours(airHours(byHour), null, 9)).toEqual([]);
	});
	it('tell their battery, gaps and drift; CSV is read like JSON', () => {
		const hour = (at: string, change: object = {}) => ({
			...reading(at),
			firstAt: at,
			lastAt: at,
			count: 1,
			lowestKg: 12,
			...change
		});
		const days = [
			hour('2026-04-10T00:00:00Z', { battery: 0.9 }),
			hour('2026-04-12T06:00:00Z', { lowestKg: 11.8 }),
			hour('2026-04-14T00:00:00Z', {
				lowestKg: 11.6,
				battery: 0.7,
				lastAt: '2026-04-14T00:50:00Z',
				count: 3
			}),
			hour('2026-04-14T01:00:00Z', { battery: null })
		];
		const health = deviceHealth(days);
		expect(health).toMatchObject({ lastAt: '2026-04-14T01:00:00Z', battery: 0.7, gapH: 54 });
		expect(health.driftKgPerDay).toBeCloseTo(-0.1, 9);
		expect(deviceHealth(days.slice(2)).gapH).toBeCloseTo(25 / 60, 9);
		expect(deviceHealth(days.slice(1)).driftKgPerDay).toBeNull();
		expect(deviceHealth([])).toEqual({ lastAt: null, battery: null, gapH: null, driftKgPerDay: null });
		expect(
			readingsBody.parse(readReadingsCsv('at,weight_kg,battery\n2026-04-17T10:00:00Z,12.5,0.8'))
		).toMatchObject([{ weightKg: 12.5, battery: 0.8 }]);
		expect(readReadingsCsv('at;weight_kg\n2026-04-17T10:00:00Z;12,5')).toEqual([
			{ at: '2026-04-17T10:00:00Z', weightKg: 12.5 }
		]);
		expect(() => readReadingsCsv('time,kg\n1,2')).toThrow(/columns/);
	});
	it('need what they belong to', async () => {
		const store = await freshStore();
		const lost = { name: 'X', kind: 'scale' as const, onTreeId: null, placeId: null, simulated: false };
		expect((await refusal(addDevice(store, lost))).problems[0]?.field).toBe('onTreeId');
		expect(await places.list(store.db)).toEqual([]);
	});
});

describe('the calendar', () => {
	it('is read by an independent library: each event with its identity, whole days, and it moves without doubling', async () => {
		const { store, tree } = await storeWithTree();
		await addTask(
			store,
			tree.id,
			taskInput.parse({
				kind: 'look',
				title: 'Look; at the buds, all of them',
				reason: 'Because\nof two lines',
				fromOn: '2026-05-01',
				toOn: '2026-05-03'
			})
		);
		await addTask(
			store,
			tree.id,
			taskInput.parse({
				kind: 'feeding',
				title: 'Feed it',
				fromOn: '2026-05-10',
				toOn: '2026-05-20',
				release: { condition: 'buds-move', value: 0, byOn: '2026-07-01' }
			})
		);
		const events = await yardEvents(store.db);
		const read = new ICAL.Component(ICAL.parse(asICalendar(events, defaultFormatSettings)));
		const found = read.getAllSubcomponents('vevent').map((one) => new ICAL.Event(one));
		expect(found.map((one) => one.uid)).toEqual(events.map((one) => one.uid));
		const [look] = found;
		expect(look?.summary).toBe('T-1: Look; at the buds, all of them');
		expect(look?.startDate.isDate).toBe(true);
		expect(look?.startDate.toString()).toBe('2026-05-01');
		// The last day is outside, as RFC 5545 has it.
		expect(look?.endDate.toString()).toBe('2026-05-04');
		expect(look?.description).toContain('of two lines');
		expect(found[1]?.component.getFirstPropertyValue('status')).toBe('TENTATIVE');
		const moved = calendarEvents(
			[
				{
					tag: 'T-1',
					name: '',
					placeName: '',
					facts: {
						looks: [
							{
								leafState: null,
								observedOn: '2026-04-30',
								buds: 'open',
								leafCover: null,
								shootExtensionMm: null
							}
						],
						functionLow: [],
						evergreen: false,
						gate: null,
						closed: []
					},
					tasks: (await loadRecords(store.db, tree.id)).tasks
				}
			],
			'2026-05-01',
			values
		);
		expect(moved.map((one) => one.uid).sort()).toEqual(events.map((one) => one.uid).sort());
		expect(moved.find((one) => one.title.endsWith('Feed it'))).toMatchObject({
			fromOn: '2026-04-30',
			tentative: false
		});
	});
	it('an empty one is still a calendar; its address can be renewed and revoked', async () => {
		const store = await freshStore();
		expect(
			new ICAL.Component(ICAL.parse(asICalendar([], defaultFormatSettings))).getAllSubcomponents('vevent')
		).toEqual([]);
		expect(await feedToken(store.db)).toBeNull();
		const first = await renewFeed(store);
		const second = await renewFeed(store);
		expect(sameToken(first, second)).toBe(false);
		expect(await feedToken(store.db)).toBe(second);
		await revokeFeed(store);
		expect(await feedToken(store.db)).toBeNull();
	});
});
