import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { rehearsalSchema, type KeptRehearsal } from '$core/recovery/rehearsal/kept';
import { planInput, planSchema, type Cut } from '$core/roots/plan/plan';
import { rehearsedOn, whatCame, type CameSince } from '$core/rehearse/came';
import { changesOf, strongestOther } from '$core/rehearse/propose';
import { rehearse, type Rehearsal } from '$core/rehearse/rehearse';
import { sceneOf as sceneOfTree } from '$core/rehearse/scene-of-tree';
import { stagesTaken, tasksTaken } from '$core/rehearse/taken-over';
import { recoveryCase } from '$core/tree/recovery-case';
import { rootLosses } from '$core/tree/losses';
import type { TreeRecords } from '$core/tree/case';
import { examinationSchema } from '$core/examine/diagnosis/examination';
import { defaultValues as values, resolveValues } from '$core/values/values';
import { prepared } from '$core/rehearse/prepared';
import { backupSchema } from '$core/recovery/backup';
import type { TreeWater } from '$core/tree/tree-water';
import { taskInput, taskSchema } from '$core/vocabulary/task';
import { stockPotSchema, type StockPot } from '$core/replant/kit/stock';
import { replantPlanSchema } from '$core/replant/pots/replant-plan';
import { roundPot } from '$core/replant/pots/volume';
import { RehearseState } from '$views/rehearse/rehearse-state.svelte';
import type { Rehearser } from '$lib/workers/rehearser';
import { addDays } from '$core/maths/calendar';
import { airyPot, bench, closePot, planOf, sceneOf } from '../rehearsal';
import { cut, plantingOn, treeRecords } from '../records';

const today = '2026-04-18';
const around = (records: TreeRecords) => {
	const [place] = records.places;
	if (!place) throw new Error('no place');
	return {
		recovery: recoveryCase(records, { place, series: [], course: [], referenceShootMm: null }, today, values),
		places: [place, { ...place, id: 'q', name: 'Cold frame', kind: 'cold-frame' as const }],
		series: [],
		water: { pot: null, ground: null, fall: '' },
		stock: [] as StockPot[]
	};
};
const sceneFor = (records: TreeRecords) => {
	const made = sceneOfTree(records, around(records), today, values);
	if (!made) throw new Error('no scene');
	return made;
};
/** The same with no dead root among them. */
const soundOf = (records: TreeRecords): TreeRecords => ({
	...records,
	rootMap: records.rootMap && {
		...records.rootMap,
		segments: records.rootMap.segments.filter(({ condition }) => condition !== 'dead')
	}
});

/** Water of a pot of which nothing but its rest is known. */
const potWater = {
	potKnown: true,
	stores: { rootedMostL: 1, unrootedMostL: 1, surfaceM2: 0.05, crownM2: 0.1 },
	next: { dryness: 0.4 }
} as unknown as TreeWater;

/** The hornbeam of the tests with a plan of one or two stages ahead. */
const planned = (cuts: Cut[], stageDates: string[]): TreeRecords => {
	const records = treeRecords();
	return {
		...records,
		plan: planSchema.parse({
			id: 'plan',
			version: 3,
			temper: 'usual',
			vigour: 'fair',
			reserves: 'field-grown',
			stageDates,
			cuts
		})
	};
};
const segments = treeRecords().rootMap?.segments ?? [];
const dead = segments.find((segment) => segment.condition === 'dead')?.id ?? '';
const living = segments.filter((segment) => segment.condition === 'sound').map(({ id }) => id);

describe('a tree as a scene', () => {
	it('tells what its plan takes of what lives then, and the rot that it cuts out', () => {
		const records = planned(
			[cut(living[0] ?? '', 0, null), cut(dead, 0, null), cut(living[1] ?? '', 1, null)],
			['2026-11-20', '2027-12-01']
		);
		const { scene, planned: plan } = sceneFor(records);
		const losses = rootLosses(records, values).planned;
		expect(scene.stages.map(({ on }) => on)).toEqual(['2026-11-20', '2027-12-01']);
		expect(scene.stages[0]?.share).toBeCloseTo(losses[0]?.share ?? 0, 9);
		// The second takes its part of the roots that the first has left.
		expect(scene.stages[1]?.share).toBeCloseTo((losses[1]?.share ?? 0) / (1 - (losses[0]?.share ?? 0)), 9);
		expect(scene.stages.map(({ rot }) => rot)).toEqual([1, 0]);
		expect(plan).toMatchObject({
			name: 'As planned',
			roots: 'as-planned',
			crown: 'keep-leaves',
			potId: null
		});
		// Losses to come are played by the plan, not told twice.
		expect(scene.recovery.losses.every(({ on }) => on <= today)).toBe(true);
	});
	it('holds its place first, its pot as it stands, and others that it could have', () => {
		const records = treeRecords();
		const sound = soundOf(records);
		const { scene } = sceneFor(sound);
		// After rot the pot follows the roots: none that is larger is offered.
		expect(sceneFor(records).scene.pots.map(({ id }) => id)).toEqual(['now', 'fresh', 'draining']);
		expect(scene.places.map(({ label }) => label)).toEqual([treeRecords().places[0]?.name, 'Cold frame']);
		expect(scene.pots.map(({ id, replants }) => [id, replants])).toEqual([
			['now', false],
			['larger', true],
			['draining', true]
		]);
		const [now, larger] = scene.pots;
		expect(larger?.unrootedMostL ?? 0).toBeGreaterThan(now?.unrootedMostL ?? 0);
		expect(larger?.rootedMostL).toBeCloseTo(now?.rootedMostL ?? 0, 6);
	});
	it('offers the pots of the stock that come nearest to what is advised, none too small or far too large', () => {
		const rotten = treeRecords();
		const sound = soundOf(rotten);
		const stock = [60, 300, 400, 460, 470, 480, 500, 900].map((width, i) =>
			stockPotSchema.parse({
				id: `s${i}`,
				version: 1,
				name: `Pot of ${width}`,
				pot: roundPot(width, width * 0.8, width * 0.7),
				count: width === 460 ? 0 : 2,
				note: ''
			})
		);
		const offered = (records: TreeRecords): string[] =>
			sceneOfTree(records, { ...around(records), stock }, today, values)
				?.scene.pots.map(({ label }) => label)
				.filter((label) => label.includes('of the stock')) ?? [];
		expect(offered(sound).sort()).toEqual(
			[400, 470, 480].map((width) => `Pot of ${width} of the stock, fresh mix of the same kind`)
		);
		// After rot none that is larger than the one it stands in.
		expect(offered(rotten).join()).not.toMatch(/Pot of (470|480|500)/);
	});
	it('offers a planting that is planned beside the pot it stands in, and none that is not', () => {
		const bound = { ...treeRecords(), plantings: [plantingOn('2025-03-01')] };
		const labels = (records: TreeRecords) =>
			sceneFor(records).scene.pots.flatMap(({ label, replants }) =>
				/stands in|is planned/.test(label) ? [[label, replants]] : []
			);
		const stands = ['the pot it stands in', false];
		expect(labels(bound)).toEqual([stands]);
		const { id: _id, version: _version, ...planting } = plantingOn('2026-05-01');
		const replantPlan = replantPlanSchema.parse({ id: 'plan', version: 1, planting, waterSchool: 'at-once' });
		expect(labels({ ...bound, replantPlan })).toEqual([stands, ['the planting that is planned', true]]);
	});
	it('takes rot that was cut out for less likely and not for gone, and does not ask for it again at once', () => {
		const records = planned([cut(dead, 0, '2026-04-16')], ['2026-04-16']);
		const seen = examinationSchema.parse({
			id: 'e3',
			version: 1,
			examinedOn: '2026-04-15',
			findings: [
				{ signId: 'roots-dark-soft', grade: 1 },
				{ signId: 'sour-smell', grade: 2 }
			]
		});
		const before = sceneFor(treeRecords({ examinations: [seen] })).scene.rotChance ?? 0;
		const { scene } = sceneFor({ ...records, examinations: [seen] });
		expect(before).toBeGreaterThan(0.7);
		expect(scene.rotChance).toBeCloseTo(before * (1 - values['rehearse.treatClears']), 6);
		expect(scene.rotChance).toBeGreaterThan(values['rehearse.treatFrom']);
		expect(changesOf(scene, planOf(), values).some(({ plan }) => plan.roots === 'treat')).toBe(false);
		const later = { ...scene, recovery: { ...scene.recovery, today: '2027-03-01' } };
		expect(changesOf(later, planOf(), values).some(({ plan }) => plan.roots === 'treat')).toBe(true);
	});
	it('takes a crown that nobody measured for no larger than its pot has fed', () => {
		const { scene } = sceneFor(treeRecords());
		const [now] = scene.pots;
		const daily = values['rehearse.usualDayMm'] * values['water.crownFactor'] * (now?.crownM2 ?? 0);
		const days = (((now?.rootedMostL ?? 0) + (now?.unrootedMostL ?? 0)) * scene.wetnessTrigger) / daily;
		expect(days).toBeGreaterThanOrEqual(values['rehearse.guessedDryDays'] - 1e-6);
		expect(new Set(scene.pots.map(({ crownM2 }) => crownM2)).size).toBe(1);
	});
	it('goes by what was seen: rot of the map, air of the mix, and nothing looked at is not known', () => {
		const clean = treeRecords({ examinations: [] });
		const { scene } = sceneFor({ ...clean, rootMap: null, plan: null });
		expect([scene.rotChance, scene.airlessChance]).toEqual([null, null]);
		expect(sceneFor(treeRecords()).scene.rotChance).toBe(values['forecast.rotChance']);
		const sour = examinationSchema.parse({
			id: 'e2',
			version: 1,
			examinedOn: '2026-04-10',
			findings: [
				{ signId: 'lump-squeezed', grade: 2 },
				{ signId: 'water-stands', grade: 2 },
				{ signId: 'sour-smell', grade: 1 }
			]
		});
		const airless = sceneFor(treeRecords({ examinations: [sour] })).scene.airlessChance ?? 0;
		const before = sceneFor(treeRecords()).scene.airlessChance ?? 1;
		expect(airless).toBeGreaterThan(0.5);
		expect(airless).toBeGreaterThan(before);
	});
	it('goes on from what is on its list: dry rest, shelter, crown, cuttings', () => {
		const records = treeRecords();
		const task = (kind: 'shelter' | 'crown', source: string) =>
			taskSchema.parse({
				id: kind,
				version: 1,
				kind,
				title: 'x',
				reason: '',
				fromOn: today,
				toOn: today,
				state: 'open',
				closedOn: null,
				skipReason: '',
				result: '',
				source
			});
		const batch = {
			takenOn: '2026-03-01',
			kind: 'hardwood',
			source: 'low branch',
			lengthMm: null,
			treatment: '',
			note: ''
		};
		const backups = [
			backupSchema.parse({
				...batch,
				id: 'b',
				version: 1,
				count: 5,
				events: [{ on: '2026-04-01', what: 'lost', count: 2 }]
			})
		];
		const busy = {
			...records,
			tasks: [task('shelter', 'shelter-half@2026-04-10'), task('crown', 'crown@2026-04-10')],
			backups
		};
		const here = around(busy);
		const made = sceneOfTree(
			busy,
			// Only the day of the first water is read of it.
			{ ...here, water: { ...here.water, pot: { ...potWater, restUntil: '2026-04-24' } } },
			today,
			values
		);
		expect(made?.planned).toMatchObject({ shade: true, crown: 'balance', water: 'dry-first' });
		expect(made?.scene).toMatchObject({ restUntil: '2026-04-24', backupsAlive: 3 });
		expect(sceneFor(records).planned).toMatchObject({ shade: false, crown: 'keep-leaves', water: 'by-need' });
		// In its rest it is not watered before that day, and from it by need.
		const days = Array.from({ length: 30 }, (_, i) => addDays(today, i + 1));
		expect(prepared(made?.scene ?? sceneOf(), made?.planned ?? planOf(), days, values).restUntil).toBe(5);
	});
	it('is none where it is not known what it stands in', () => {
		const records = treeRecords();
		const lifted = { ...records, tree: { ...records.tree, situation: 'just-lifted' as const } };
		expect(sceneOfTree(lifted, around(lifted), today, values)).toBeNull();
	});
});

describe('a plan that is taken over', () => {
	const records = planned(
		[
			cut(living[0] ?? '', 0, null),
			cut(living[1] ?? '', 0, null),
			cut(dead, 0, null),
			cut(living[2] ?? '', 1, null)
		],
		['2026-11-20', '2027-12-01']
	);
	const place = records.places[0];
	if (!place) throw new Error('no place');
	it('leaves the stages as they are where they are as planned', () => {
		expect(stagesTaken(records, place, planOf(), today, values)).toBeNull();
		expect(
			stagesTaken({ ...records, plan: null }, place, planOf({ roots: 'wait' }), today, values)
		).toBeNull();
	});
	it('waits a year with every stage that is not done', () => {
		const taken = stagesTaken(records, place, planOf({ roots: 'wait' }), today, values);
		expect(taken?.stageDates).toEqual(['2027-11-20', '2028-11-30']);
		expect(taken?.cuts).toEqual(records.plan?.cuts);
	});
	it('cuts half of the living share and all that is dead now, and puts a stage behind it for the rest', () => {
		const taken = stagesTaken(records, place, planOf({ roots: 'half-now' }), today, values);
		expect(taken?.stageDates).toEqual(['2026-11-20', '2027-11-20', '2028-11-30']);
		const stageOf = (id: string): number | undefined =>
			taken?.cuts.find((one) => one.segmentId === id)?.stage;
		expect(stageOf(dead)).toBe(0);
		expect([stageOf(living[0] ?? ''), stageOf(living[1] ?? '')].sort()).toEqual([0, 1]);
		expect(stageOf(living[2] ?? '')).toBe(2);
		expect(planInput.safeParse(taken).success).toBe(true);
		// As rehearsed: half of it, not more.
		const half = rootLosses(
			{ ...records, plan: planSchema.parse({ ...records.plan, ...taken }) },
			values
		).planned;
		const whole = rootLosses(records, values).planned;
		expect(half[0]?.share ?? 1).toBeLessThanOrEqual((whole[0]?.share ?? 0) / 2 + 0.11);
	});
	it('never sets a cut that was made into another stage', () => {
		const worked = planned(
			[cut(living[0] ?? '', 0, '2026-03-01'), cut(living[1] ?? '', 1, null), cut(living[2] ?? '', 1, null)],
			['2026-03-01', '2026-11-20']
		);
		const taken = stagesTaken(worked, place, planOf({ roots: 'half-now' }), today, values);
		expect(taken?.cuts[0]).toEqual(worked.plan?.cuts[0]);
		expect(taken?.stageDates).toEqual(['2026-03-01', '2026-11-20', '2027-11-20']);
	});
	it('asks for everything that it does besides, each once, with the rehearsal as its reason', () => {
		const { scene } = sceneFor(records);
		const planned = planOf();
		const taking = (taken: ReturnType<typeof planOf>, of = planned) =>
			tasksTaken(scene, { taken, planned: of }, today, values);
		const tasks = taking(
			planOf({
				name: 'All at once',
				crown: 'balance',
				potId: 'draining',
				placeId: 'q',
				shade: true,
				water: 'every-days',
				everyDays: 5,
				backups: 6
			})
		);
		expect(tasks.map(({ kind, title, fromOn, everyDays }) => [kind, title, fromOn, everyDays])).toEqual([
			['crown', expect.stringMatching(/^Take about \d+ % of the crown/), '2026-11-20', null],
			['other', 'Replant it: its pot, a mix that drains well', '2026-11-20', null],
			['shelter', 'Move it: Cold frame', today, null],
			['shelter', 'Shade cloth over it for 60 days', '2026-11-20', null],
			['water', 'Water it every 5 days', '2026-04-19', 5],
			['backup', 'Take 6 cuttings of it', today, null]
		]);
		expect(new Set(tasks.map(({ source }) => source)).size).toBe(tasks.length);
		expect(tasks.every(({ reason }) => reason.includes('rehearsal of 2026-04-18: “All at once”'))).toBe(true);
		expect(taking(planOf())).toEqual([]);
		const dry = taking(planOf({ water: 'dry-first' }));
		expect(dry).toMatchObject([{ kind: 'dry-rest', fromOn: addDays('2026-11-20', 10) }]);
		// What is planned already is not asked a second time.
		const all = planOf({
			crown: 'balance',
			potId: 'draining',
			placeId: 'q',
			shade: true,
			water: 'dry-first'
		});
		expect(taking(all, all)).toEqual([]);
	});
});

it('takes parts of days and minutes that the owner may set, and makes whole tasks and whole futures of them', () => {
	const odd = resolveValues({
		'rehearse.minutes.roots': 90.4,
		'rehearse.minutes.water': 5.5,
		'rehearse.minutes.shelter': 7.7,
		'rehearse.minutes.backup': 6.3,
		'rehearse.restDays': 9.6,
		'rehearse.shadeDays': 59.5,
		'rehearse.waitDays': 100.4,
		'rehearse.days': 300.5,
		'rehearse.futures': 81.4
	});
	expect(odd['rehearse.waitDays']).toBe(100.4);
	const scene = sceneOf({
		lastCutOn: '2026-03-01',
		stages: [{ on: '2026-04-20', share: 0.05, rot: 0, girdles: 0 }],
		rotChance: 0.5
	});
	for (const change of [{ water: 'dry-first' }, { water: 'every-days' }] as const) {
		const taken = planOf({ ...change, roots: 'treat', shade: true, backups: 3 });
		const tasks = tasksTaken(scene, { taken, planned: planOf() }, today, odd);
		expect(tasks.length).toBeGreaterThan(3);
		for (const { source: _source, ...task } of tasks) expect(taskInput.safeParse(task).error).toBeUndefined();
		expect(tasks.map(({ title }) => title)).toContain('Shade cloth over it for 60 days');
	}
	const { outcomes, futures } = rehearse(scene, [planOf()], {}, odd);
	expect(futures).toBe(81);
	// A stage that is put off by parts of a day is worked all the same.
	expect(outcomes[0]?.end.established).toBeGreaterThan(0);
});

it('goes along with a tree that was seen a thousand times', () => {
	const records = treeRecords();
	const here = around(records);
	const looks = Array.from({ length: 1000 }, (_, day) => ({
		observedOn: addDays('2023-01-01', day),
		progress: 0.3,
		buds: null,
		leafCover: 0.8,
		leafState: null,
		shootExtensionMm: null,
		diebackLimitMm: null,
		firmness: null,
		whiteTips: null,
		smell: null
	}));
	const made = sceneOfTree(records, { ...here, recovery: { ...here.recovery, looks } }, today, values);
	expect(made?.scene.recovery.looks).toHaveLength(500);
	expect(made?.scene.recovery.looks.at(-1)?.observedOn).toBe(looks.at(-1)?.observedOn);
});

describe('the strongest other plan', () => {
	it('is the change that helps most, called by what it changes', () => {
		const scene = sceneOf({
			pots: [
				closePot,
				{ ...airyPot, id: 'draining', label: 'its pot, a mix that drains well', replants: true }
			]
		});
		const calendar = planOf({ water: 'every-days', everyDays: 2 });
		const other = strongestOther(scene, calendar, {}, values);
		expect(other).not.toBeNull();
		expect(other?.name).not.toBe(calendar.name);
		const [before, after] = rehearse(scene, [calendar, other ?? calendar], { futures: 81 }, values).outcomes;
		expect(after?.end.worth ?? 0).toBeGreaterThan((before?.end.worth ?? 1) + 0.05);
	});
	it('never moves a hardy kind into the warm, and offers only what the tree has', () => {
		const heated = { id: 'in', label: 'Heated bay', ...bench, kind: 'heated' as const };
		const scene = sceneOf({ places: [{ id: 'here', label: 'Bench', ...bench }, heated] });
		expect(changesOf(scene, planOf(), values).map(({ part }) => part)).toEqual(['shade', 'water']);
		const rotten = sceneOf({ rotChance: 0.4 });
		expect(changesOf(rotten, planOf(), values)[0]).toMatchObject({ part: 'roots', plan: { roots: 'treat' } });
		const tender = sceneOf(
			{ places: [{ id: 'here', label: 'Bench', ...bench }, heated], group: 'tropical' },
			{ tender: true }
		);
		expect(changesOf(tender, planOf(), values).some(({ plan }) => plan.placeId === 'in')).toBe(true);
	});
});

describe('a rehearsal that is kept', () => {
	const course = (means: number[]) =>
		means.map((mean, i) => ({
			on: addDays('2026-04-18', i * 100),
			low: mean - 0.1,
			mean,
			high: mean + 0.1
		}));
	const kept: KeptRehearsal = rehearsalSchema.parse({
		id: 'r',
		version: 1,
		rehearsedOn: '2026-04-18',
		futures: 405,
		seed: 1,
		taken: 0,
		outcomes: [
			{
				plan: planOf(),
				alive: course([0.9, 0.8, 0.7]),
				established: course([0.1, 0.3, 0.6]),
				roots: course([0.4, 0.6, 0.8]),
				end: { alive: 0.7, stands: 0.65, established: 0.6 },
				dies: [],
				waterings: 90,
				minutes: 600
			}
		]
	});
	const since = (change: Partial<CameSince> = {}): CameSince => ({
		state: 'in-care',
		chance: null,
		roots: null,
		waterings: 0,
		...change
	});
	it('is read between its points, and not before it began', () => {
		expect(rehearsedOn(kept.outcomes[0]?.alive ?? [], '2026-06-07')?.mean).toBeCloseTo(0.85, 9);
		expect(rehearsedOn(kept.outcomes[0]?.alive ?? [], '2026-04-17')).toBeNull();
		expect(rehearsedOn(kept.outcomes[0]?.alive ?? [], '2029-01-01')?.mean).toBeCloseTo(0.7, 9);
	});
	it('is set against what came, and what nobody saw is said to be so', () => {
		const lines = whatCame(kept, since(), '2026-07-27');
		expect(lines.map(({ what, came, within }) => [what, came, within])).toEqual([
			['Alive', 'in care; nobody has closed its case', true],
			['Re-established', 'not yet; nobody has seen enough of it lately', true],
			['Root function', 'nothing was weighed since', null],
			['Waterings', 'none written down', null]
		]);
		expect(lines[0]?.rehearsed).toBe('80 % by now, 70 % to 90 %');
	});
	it('says where it came otherwise', () => {
		const weighed = { phi: 0.2, low: 0.15, high: 0.3, on: '2026-07-27' };
		const lines = whatCame(kept, since({ state: 'dead', roots: weighed, waterings: 1 }), '2026-07-27');
		expect(lines.map(({ within }) => within)).toEqual([false, true, false, null]);
		expect(lines[2]?.rehearsed).toBe('60 % on 2026-07-27, 50 % to 70 %');
		expect(lines[3]?.came).toBe('1 watering written down so far');
		expect(whatCame(kept, since({ state: 're-established' }), '2026-11-04')[1]?.within).toBe(true);
		expect(whatCame(kept, since({ roots: { ...weighed, high: 0.55 } }), '2026-07-27')[2]?.within).toBe(true);
	});
});

describe('the page of a rehearsal', () => {
	beforeEach(() => void vi.useFakeTimers());
	afterEach(() => void vi.useRealTimers());
	const result = (count: number): Rehearsal =>
		rehearse(
			sceneOf({ days: 70 }),
			Array.from({ length: count }, (_, i) => planOf({ name: `P${i}` })),
			{ futures: 9 },
			values
		);
	const made = (other = true) => {
		const asked: string[] = [];
		const rehearser: Rehearser = {
			other: () => {
				asked.push('other');
				return Promise.resolve(other ? planOf({ name: 'Shade it', shade: true }) : null);
			},
			play: (_, plans, __, ___, tell) => {
				asked.push(`play ${plans.map(({ name }) => name).join(', ')}`);
				tell(0.5);
				const played = result(plans.length);
				return Promise.resolve({
					...played,
					outcomes: played.outcomes.map((outcome, i) => ({ ...outcome, plan: plans[i] ?? outcome.plan }))
				});
			},
			stop: () => void asked.push('stop')
		};
		return { asked, state: new RehearseState(sceneOf({ days: 70 }), planOf(), values, () => rehearser) };
	};
	it('begins with what is planned and the strongest other plan', async () => {
		const { asked, state } = made();
		await state.begin();
		expect(asked).toEqual(['other', 'stop', 'play As planned, Shade it', 'stop']);
		expect([state.current, state.running, state.noOther]).toEqual([true, '', false]);
		expect(state.kept(1, today)).toMatchObject({ rehearsedOn: today, taken: 1, futures: 9 });
		expect(rehearsalSchema.safeParse({ ...state.kept(1, today), id: 'r', version: 1 }).success).toBe(true);
	});
	it('says so where there is no other', async () => {
		const { state } = made(false);
		await state.begin();
		expect([state.noOther, state.plans.length]).toEqual([true, 1]);
	});
	it('follows a change in a moment, and takes nothing over that was not played', async () => {
		const { asked, state } = made();
		await state.begin();
		state.change(0, { water: 'every-days', everyDays: 3 });
		expect([state.current, state.kept(0, today), state.outcomeOf(0)]).toEqual([false, null, null]);
		// The plan that was not touched keeps its outcome beside it.
		expect(state.outcomeOf(1)).not.toBeNull();
		state.change(0, { everyDays: 4 });
		await vi.runAllTimersAsync();
		expect(asked.filter((one) => one.startsWith('play'))).toHaveLength(2);
		expect(state.kept(0, today)?.outcomes[0]?.plan.everyDays).toBe(4);
	});
	it('gives a plan another name without playing it anew, and keeps the old where none is left', async () => {
		const { asked, state } = made();
		await state.begin();
		state.rename(1, '  Under the cloth ');
		state.rename(0, '   ');
		expect(state.plans.map(({ name }) => name)).toEqual(['As planned', 'Under the cloth']);
		expect(state.kept(1, today)?.outcomes[1]?.plan.name).toBe('Under the cloth');
		expect(asked.filter((one) => one.startsWith('play'))).toHaveLength(1);
	});
	it('holds four plans at the most and one at the least', async () => {
		const { state } = made();
		await state.begin();
		state.add();
		state.add();
		state.add();
		expect([state.plans.length, state.full]).toEqual([4, true]);
		for (let i = 0; i < 5; i++) state.remove(0);
		expect(state.plans).toHaveLength(1);
	});
	it('stops when it is told to, and what was played before stays', async () => {
		const { state } = made();
		await state.begin();
		const before = state.result;
		state.add();
		state.stop();
		await vi.runAllTimersAsync();
		expect([state.result, state.current, state.running]).toEqual([before, false, '']);
	});
});
