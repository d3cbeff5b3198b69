import { plain } from '$core/text/format';
import { newShootsOn } from '$core/climate/cold-limit';
import { growingSeason } from '$core/climate/normals';
import { addDays, daysBetween } from '$core/maths/calendar';
import { nextOf } from '$core/tree/next';
import { describe, expect, it } from 'vitest';
import { bareDay, type SeriesDay } from '$core/climate/series';
import { taskKinds, type Task } from '$core/vocabulary/task';
import { shippedKinds } from '$core/vocabulary/shipped';
import type { TodayTree } from '$core/today/item';
import { isAlarm, isUnanswered } from '$core/aftercare/tasks/pressing';
import { isOverdue } from '$core/today/task-items';
import { todayItems, walkingRound } from '$core/today/today';
import { coldOf } from '$core/today/weather-items';
import type { StandingKept } from '$core/tree/kept';
import { todayValues } from '$core/values/today';
import { defaultValues, type Values } from '$core/values/values';

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
/** At rest yet: no new shoots that a cold night could take. */
const closedBuds: TodayTree['facts']['looks'][number] = {
	observedOn: '2026-04-10',
	buds: 'none',
	leafCover: null,
	leafState: null,
	shootExtensionMm: null
};
const entry = (change: Partial<TodayTree> = {}): TodayTree => ({
	tree: {
		id: 'a',
		tag: 'A-1',
		name: 'Beech',
		situation: 'potted',
		state: 'in-care',
		takenInOn: '2026-04-01',
		plantCount: 1,
		sharedPot: '',
		heightM: null
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
		coldestMonthC: null,
		warmestMonthC: null,
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
	facts: { looks: [closedBuds], functionLow: [], evergreen: false, gate: null, closed: [] },
	...change
});
/** Nobody looked at it since the work, and no cold comes where it stands. */
const unseen = (): Pick<TodayTree, 'facts' | 'place'> => {
	const { facts, place } = entry();
	return { facts: { ...facts, looks: [] }, place: { ...place, kind: 'heated', heldMinimumC: 14 } };
};
/** Dry today, as it was last known on a day; null where it never was. */
const waterDry = (knownOn: string | null): NonNullable<TodayTree['water']> => ({
	dryness: 0.9,
	nextOn: today,
	earliest: null,
	latest: null,
	litres: 2,
	way: 'all-round',
	rainPerhaps: false,
	reason: '',
	from: knownOn ? 'watering' : 'assumed',
	lastWaterOn: knownOn,
	firstOwedFrom: null,
	restUntil: null,
	knownOn,
	phi: 1,
	low: 0.8,
	high: 1.1,
	alarms: [],
	fall: null,
	move: null
});
const kept = (change: Partial<StandingKept> = {}): StandingKept => ({
	out: null,
	waterOn: today,
	rootsCutOn: null,
	woundedOn: null,
	underCover: null,
	planned: null,
	urgent: null,
	check: null,
	waits: null,
	alive: 1,
	gate: null,
	pottedOn: null,
	firmness: null,
	pests: null,
	smell: null,
	...change
});
const items = (...entries: TodayTree[]) => todayItems(entries, today, defaultValues);

describe('late work', () => {
	it('cannot wait on Today just where the verdict knows it as late, whatever its kind and how late it is', () => {
		const seen = new Set<string>();
		for (const kind of taskKinds)
			for (const source of ['', 'shelter/2026-01-02', 'backups/2026-01-02'])
				for (const late of [-3, 0, 1, 5, 40, 200]) {
					const one = task({ kind, source, fromOn: addDays(today, -late - 2), toOn: addDays(today, -late) });
					const tree = entry({ tasks: [one] });
					const [found] = items(tree).filter((item) => item.task?.id === 't1');
					const overdue = isOverdue(one, tree.facts, today, defaultValues);
					const what = `${kind} ${source} ${late} days late`;
					expect(found?.level === 'now', what).toBe(overdue || kind === 'referral');
					if (isAlarm(one, today, defaultValues)) expect(overdue, what).toBe(true);
					if (isUnanswered(one, today, defaultValues)) expect(overdue, what).toBe(false);
					seen.add(String(found?.level === 'now'));
					expect(isOverdue({ ...one, state: 'done' }, tree.facts, today, defaultValues)).toBe(false);
				}
		expect(seen.size).toBe(2);
	});
	it('that still waits for the tree is not late', () => {
		const waits = task({
			kind: 'shelter',
			fromOn: '2026-03-01',
			toOn: '2026-03-10',
			release: { condition: 'leaf-cover', value: 0.5, after: '' } as never
		});
		const { facts } = entry();
		const held = items(entry({ tasks: [waits] })).every((item) => item.level !== 'now');
		expect(isOverdue(waits, facts, today, defaultValues)).toBe(!held);
	});
});

describe('a root zone that smells', () => {
	const told = (change: Partial<StandingKept>) =>
		items(entry({ standing: kept({ smell: { value: 'sour', on: '2026-04-10' }, ...change }) })).filter(
			({ figure }) => figure.startsWith('smells')
		);
	it('stands on Today as on Recovery, until it is old or an examination says the same', () => {
		expect(told({ pottedOn: '2026-03-02' })).toMatchObject([
			{
				level: 'now',
				sentence: 'Its pot smells sour: let air in, and water only what has dried',
				stage: 'recovery'
			}
		]);
		expect(told({})[0]?.sentence).toMatch(/^Its soil smells sour/);
		expect(told({ smell: { value: 'sulphur', on: today } })[0]?.figure).toBe('smells of sulphur');
		expect(told({ smell: null })).toEqual([]);
		const days = defaultValues['decision.smellDays'];
		expect(told({ smell: { value: 'sour', on: addDays(today, -days) } })).toHaveLength(1);
		expect(told({ smell: { value: 'sour', on: addDays(today, -days - 1) } })).toEqual([]);
		const urgent = {
			subject: 'Root rot is',
			chance: 0.7,
			on: today,
			stage: 'roots',
			water: 'less',
			meaning: '',
			untilOn: '2099-01-01'
		} as const;
		expect(told({ urgent })).toEqual([]);
	});
	it('a quick check that decides a likely cause is asked for, but beside what is to be acted on now', () => {
		const check: NonNullable<StandingKept['check']> = {
			subject: 'Girdling roots are',
			chance: 0.83,
			on: today,
			check: {
				signId: 'girdler-seen',
				label: 'Roots lie against the trunk',
				how: 'Look under the mulch.',
				minutes: 1
			}
		};
		const asked = (change: Partial<StandingKept>) =>
			items(entry({ standing: kept(change) })).filter((item) => item.stage === 'examine');
		expect(asked({ check })).toMatchObject([
			{
				level: 'due',
				sentence: 'Girdling roots are likely; check first: roots lie against the trunk',
				reason: `Looked at on ${today}. Look under the mulch. 1 minute, and it may turn what is done.`,
				figure: '83 %'
			}
		]);
		expect(asked({ check: { ...check, check: null } })[0]?.reason).toContain('show since then');
		const days = defaultValues['urgent.days'];
		expect(asked({ check: { ...check, on: addDays(today, -days) } })).toHaveLength(1);
		expect(asked({ check: { ...check, on: addDays(today, -days - 1) } })).toEqual([]);
		const urgent = {
			subject: 'Root rot is',
			chance: 0.7,
			on: today,
			stage: 'roots',
			water: 'less',
			meaning: '',
			untilOn: '2099-01-01'
		} as const;
		expect(asked({ check, urgent })).toEqual([]);
	});
	it('what waits for its window is brought up days before it opens, unless it is planned already', () => {
		const waits: NonNullable<StandingKept['waits']> = {
			subject: 'Pot-bound roots are',
			chance: 0.99,
			on: '2026-03-20',
			windowOn: addDays(today, 2),
			stage: 'replant',
			meaning: 'Open the ball.'
		};
		const told = (change: Partial<StandingKept>) =>
			items(entry({ standing: kept(change) })).filter((item) => item.stage === 'replant');
		expect(told({ waits })).toMatchObject([
			{
				level: 'soon',
				urgency: defaultValues['today.rank.soon'] - 2,
				sentence: 'Pot-bound roots are likely: the window for the work opens',
				reason: 'Looked at on 2026-03-20. Open the ball.',
				figure: 'in 2 days'
			}
		]);
		const ahead = defaultValues['today.aheadDays'];
		expect(told({ waits: { ...waits, windowOn: addDays(today, ahead) } })).toHaveLength(1);
		expect(told({ waits: { ...waits, windowOn: addDays(today, ahead + 1) } })).toEqual([]);
		const planned = { what: 'Potting', on: addDays(today, 40), stage: 'replant', undated: false } as const;
		expect(told({ waits, planned })).toEqual([]);
		const urgent = { ...waits, stage: 'roots' as const, water: null, untilOn: '2099-01-01' };
		expect(told({ waits, urgent })).toEqual([]);
	});
});

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
		expect(coldOf(entry({ lastCutOn: '2026-04-01' }), today, defaultValues)).toEqual({
			limitC: 0,
			why: 'with roots freshly cut'
		});
		// They heal as they grow: what was cut before the winter is fresh until it grew for as long in spring.
		const { place } = entry();
		const season = growingSeason(place, false, 2026, defaultValues);
		if (!season) throw new Error('no season');
		const days = defaultValues['cold.cutRootsDays'];
		const rested = (lastCutOn: string, on: string) =>
			coldOf(entry({ lastCutOn, facts: { ...entry().facts, looks: [] } }), on, {
				...defaultValues,
				// What its shoots stand is asked elsewhere.
				'guard.shootsC': -99
			}).limitC;
		expect(rested('2025-12-01', today)).toBe(0);
		expect(rested('2025-12-01', addDays(season.from, days))).toBe(0);
		expect(rested('2025-12-01', addDays(season.from, days + 1))).toBe(-15);
		// What grew before the winter counts.
		const last = growingSeason(place, false, 2025, defaultValues);
		const autumn = addDays(last?.to ?? '', -20);
		expect(rested(autumn, addDays(season.from, days - 20))).toBe(0);
		expect(rested(autumn, addDays(season.from, days - 18))).toBe(-15);
		expect(rested('2025-06-01', today)).toBe(-15);
		expect(rested(addDays(today, -days), today)).toBe(0);
		// Where it never grows it is not fresh for ever.
		const polar = { ...place, latitudeDeg: 75, elevationM: 3000 };
		const cutAtPole = (days: number) =>
			coldOf(entry({ place: polar, lastCutOn: addDays(today, -days) }), today, defaultValues).limitC;
		expect(growingSeason(polar, false, 2026, defaultValues)).toBe(null);
		expect([cutAtPole(365), cutAtPole(366)]).toEqual([0, -15]);
		expect(rested('2025-04-17', today)).toBe(-15);
		expect(rested(addDays(today, 1), today)).toBe(-15);
	});
	it('brings up a tree that nobody looked at for sixty days', () => {
		expect(items(entry({ lastLookOn: '2026-02-16' }))[0]?.figure).toBe('61 days unseen');
		expect(items(entry({ lastLookOn: '2026-02-18' }))).toHaveLength(0);
		// Work that is a look at it asks for it already; work to come, or over for good, and other work do not.
		const beside = (source: string, fromOn: string, toOn: string) =>
			items(
				entry({ lastLookOn: '2026-01-16', tasks: [task({ kind: 'look', source, fromOn, toOn })] })
			).filter(({ figure }) => figure.endsWith('unseen')).length;
		const growth = 'clear-growth@2026-02-01';
		expect(beside(growth, addDays(today, -1), addDays(today, 9))).toBe(0);
		expect(beside(growth, addDays(today, -20), addDays(today, -3))).toBe(0);
		expect(beside(growth, addDays(today, 1), addDays(today, 9))).toBe(1);
		expect(beside(growth, '2024-02-01', '2024-02-20')).toBe(1);
		// Nor is it asked for twice where what waits for the tree wants it looked at first.
		const waits = task({
			kind: 'feeding',
			source: 'feeding@2026-02-01',
			fromOn: '2026-03-01',
			toOn: '2026-05-01',
			release: { condition: 'flush-hardened', value: 0, byOn: '2026-04-10', after: '' }
		});
		const told = items(entry({ lastLookOn: '2026-01-16', tasks: [waits] }));
		expect(told.map(({ sentence }) => sentence)).toEqual([
			'Look first: have its shoots stopped lengthening?'
		]);
		expect(beside('ground.measure-again@g', addDays(today, -1), addDays(today, 9))).toBe(1);
	});
	it('of a lot says what each gets, and asks for the water of all', () => {
		const lot = { ...entry({ water: waterDry('2026-04-15') }).tree, plantCount: 12 };
		const standing = kept({ waterOn: '2026-04-15', pottedOn: '2026-02-01', alive: 12 });
		const said = (change: Partial<TodayTree>) =>
			items(entry({ tree: lot, standing, ...change })).map(({ sentence }) => sentence);
		expect(said({ water: waterDry('2026-04-15') })[0]).toMatch(/^Water all 12: .* each, /);
		// What died of it is not watered.
		expect(said({ water: waterDry('2026-04-15'), standing: { ...standing, alive: 11 } })[0]).toMatch(
			/^Water all 11: .* each, /
		);
		const rain = { ...waterDry('2026-04-15'), rainPerhaps: true };
		expect(said({ water: rain })[0]).toMatch(/^Feel some first; if dry, water all 12: .* each, /);
		// What it would be without that rain is not said to be so.
		const told = (water: NonNullable<TodayTree['water']>) => {
			const [item] = items(entry({ water, standing: kept({ waterOn: '2026-04-15' }) }));
			return [item?.figure, /dry today/.test(item?.reason ?? '')];
		};
		expect(told(rain)).toEqual(['perhaps dry', false]);
		expect(told({ ...rain, rainPerhaps: false })).toEqual(['90 % dry', true]);
		expect(told({ ...rain, nextOn: addDays(today, 1) })[0]).toBe('in 1 day');
		expect(said({ water: rain, standing: { ...standing, alive: 1 } })[0]).toMatch(
			/^Feel it first; if dry, water it: /
		);
		const unknown = kept({ waterOn: null, pottedOn: '2026-02-01', alive: 12 });
		expect(said({ standing: unknown })).toEqual([
			'The water of these 12 is not known: lift or feel them now'
		]);
	});
	it('says of a day whether it was measured or is forecast, and speaks of one tree as of one', () => {
		const frost = (change: object) => ({ ...bareDay(today, { et0Mm: 1, rainMm: 0 }), minC: -30, ...change });
		const said = (day: SeriesDay, tree = entry()) => {
			const found = todayItems([tree], today, defaultValues, new Map([['p', [day]]])).find(({ sentence }) =>
				sentence.startsWith('Cold')
			);
			return [plain(found?.reason ?? '').split(';')[0], found?.sentence.split(': ')[1]];
		};
		const one = 'bring it under cover, or lay fleece';
		expect(said(frost({ source: 'station' }))).toEqual(['-30 °C was measured', one]);
		expect(said(frost({ source: 'forecast' }))).toEqual(['-30 °C is forecast', one]);
		expect(said(frost({ source: 'typed', on: addDays(today, 1) }))).toEqual(['-30 °C is forecast', one]);
		const lot = entry();
		expect(said(frost({}), { ...lot, tree: { ...lot.tree, plantCount: 12 } })[1]).toBe(
			'bring them under cover, or lay fleece'
		);
	});
	it('takes the climate of the season for tonight only where nothing of tonight was measured or forecast', () => {
		const tender = entry({ kind: kind('citrus') });
		const mild = { ...bareDay(today, { et0Mm: 1, rainMm: 0 }), minC: 12 };
		const said = (...days: SeriesDay[]) =>
			todayItems([tender], today, defaultValues, new Map([['p', days]])).filter(({ reason }) =>
				reason.includes('climate of the place, not a forecast')
			).length;
		expect(said()).toBe(1);
		expect(said(mild)).toBe(0);
		// What was filled in is no measurement, and another night is not tonight.
		expect(said({ ...mild, how: 'filled' })).toBe(1);
		expect(said({ ...mild, on: '2026-04-17' }, { ...mild, on: '2026-04-19' })).toBe(1);
		expect(said({ ...mild, on: '2026-04-17' }, mild)).toBe(0);
	});
	it('asks for the first water of what was set in the ground once: by its work, else by itself', () => {
		const owed = { ...waterDry(null), from: 'ground' as const, nextOn: null, firstOwedFrom: '2026-04-16' };
		const said = (change: Partial<TodayTree> = {}) => items(entry({ water: owed, ...change }));
		expect(said().map(({ sentence, level, reason }) => [sentence, level, reason])).toEqual([
			[
				'Give it its first water: soak the ground over the roots',
				'now',
				'Set in the ground on 2026-04-16; nobody wrote down that it was watered in. Soil and roots are to meet, without air between them.'
			]
		]);
		const lot = { ...entry().tree, plantCount: 12 };
		expect(said({ tree: lot, standing: kept({ alive: 12 }) })[0]?.sentence).toMatch(
			/^Give them their first water/
		);
		const work = (state: Task['state']) =>
			task({ kind: 'water', title: 'Soak it', source: 'first-water@2026-04-16', state });
		expect(said({ tasks: [work('open')] }).map(({ sentence }) => sentence)).toEqual(['Soak it']);
		expect(said({ tasks: [work('done')] })).toHaveLength(1);
		expect(said({ water: { ...owed, firstOwedFrom: null } })).toEqual([]);
	});
	it('adds up the round by place, without what is only coming up', () => {
		const round = walkingRound(
			items(
				entry({
					tasks: [task({ minutes: 20 }), task({ id: 't2', fromOn: '2026-04-22', toOn: '2026-04-25' })]
				})
			),
			defaultValues
		);
		expect(round).toEqual([{ placeName: 'Bench', minutes: 20, tags: ['A-1'] }]);
	});
	it('counts only pressing work that is late as an alarm', () => {
		expect(isAlarm(task({ kind: 'water', toOn: '2026-04-17' }), today, defaultValues)).toBe(true);
		expect(isAlarm(task({ kind: 'feeding', toOn: '2026-04-01' }), today, defaultValues)).toBe(false);
		expect(isAlarm(task({ kind: 'water', toOn: today }), today, defaultValues)).toBe(false);
	});
	it('says of a heated place that it is too cold, and of a tree in the ground what can be done there', () => {
		const out = entry({ kind: kind('citrus') });
		const cool = items({ ...out, place: { ...out.place, name: 'Bay', kind: 'heated', heldMinimumC: 1 } })[0];
		expect(cool?.sentence).toBe('Its place is too cold for it: find a warmer one');
		expect(plain(cool?.reason ?? '')).toMatch(/at Bay is about \d °C \(what is held there\)/);
		const reach = defaultValues['cold.coverReachM'];
		const tenderer = { ...out.kind, coldestC: out.kind.coldestC + defaultValues['site.groundHardierC'] };
		const high = (heightM: number | null, change: Partial<TodayTree> = {}) =>
			items({ ...out, kind: tenderer, ...change, tree: { ...out.tree, situation: 'in-ground', heightM } })
				.map(({ sentence }) => sentence)
				.filter((text) => /fleece|freeze back/.test(text));
		expect(high(reach)).toEqual(['Lay fleece and mulch before tonight']);
		// Whose height nobody wrote is neither low nor tall: what can be reached is covered.
		expect(high(null)).toEqual(['Lay mulch, and fleece as far up as you reach, before tonight']);
		expect(high(reach + 0.1)).toEqual(['It may freeze back tonight, too tall to cover: look at it after']);
		// Where only a cold night of the season would touch it, nothing can be made ready for what no cover reaches.
		const near = Array.from({ length: 40 }, (_, i) => ({ kind: { ...out.kind, coldestC: -20 + i } })).filter(
			(change) => high(reach, change)[0] === 'Watch tonight’s low; have fleece ready'
		);
		expect(near.length).toBeGreaterThan(0);
		for (const change of near) expect(high(reach + 0.1, change)).toEqual([]);
		const lot = items({ ...out, tree: { ...out.tree, plantCount: 12 } })[0];
		expect(lot?.sentence).toBe('Bring them under cover before tonight');
		expect(lot?.reason).toMatch(/^Their limit is/);
		// In a pot it is carried, however tall.
		expect(items({ ...out, tree: { ...out.tree, heightM: 4 } })[0]?.sentence).toBe(
			'Bring it under cover before tonight'
		);
	});

	it('heeled in, its roots lie in soil and are no freshly cut ones in a pot; out or wrapped they are', () => {
		const frosty = entry({ lastCutOn: '2026-04-16' });
		const lifted = (how: 'heeled-in' | 'wrapped' | 'out', on = '2026-04-16') =>
			coldOf(
				entry({ lastCutOn: '2026-04-16', standing: kept({ out: { on, how }, woundedOn: '2026-04-16' }) }),
				today,
				defaultValues
			);
		expect(lifted('heeled-in').limitC).toBe(frosty.kind.coldestC - defaultValues['site.groundHardierC']);
		for (const how of ['wrapped', 'out'] as const)
			expect(lifted(how)).toEqual({ limitC: 0, why: 'with roots freshly cut' });
		// Before the day on which it was heeled in, it was not.
		expect(lifted('heeled-in', '2026-04-19').limitC).toBe(0);
		// What is done for it is what is done for a tree that grows there: nobody digs it up again for a night.
		const tender = entry({ kind: { ...kind('citrus'), coldestC: 12 } });
		expect(
			items({
				...tender,
				standing: kept({ out: { on: '2026-04-16', how: 'heeled-in' }, woundedOn: '2026-04-16' })
			}).map(({ sentence }) => sentence)
		).toContain('Lay mulch, and fleece as far up as you reach, before tonight');
	});

	it('what a look says to act on now comes before water, and water does not go against it', () => {
		const urgent = {
			subject: 'Root rot is',
			chance: 0.7,
			on: '2026-04-10',
			stage: 'roots' as const,
			water: 'less',
			meaning: 'Cut back to clean wood.',
			untilOn: '2099-01-01'
		};
		const dry = waterDry('2026-04-15');
		const of = (change: object) =>
			items(
				entry({
					water: dry,
					standing: kept({ urgent, waterOn: '2026-04-15', pottedOn: '2026-02-01', ...change })
				})
			);
		expect(of({})[0]).toMatchObject({
			sentence: 'Root rot is likely: act now',
			figure: '70 %',
			stage: 'roots'
		});
		expect(of({}).map((one) => one.sentence)).toContain('Feel it a finger deep before any water');
		expect(of({}).some((one) => one.pourL !== null)).toBe(false);
		expect(of({ urgent: null }).some((one) => one.pourL !== null)).toBe(true);
		// Nor is a watering told for the days to come.
		const soon = (standing: object) =>
			items(
				entry({
					water: { ...dry, dryness: 0.2, nextOn: addDays(today, 1) },
					standing: kept({ urgent, waterOn: today, pottedOn: '2026-02-01', ...standing })
				})
			).filter((one) => one.stage === 'aftercare');
		expect(soon({}).map(({ sentence, level, pourL }) => [sentence, level, pourL])).toEqual([
			['Feel it a finger deep before any water', 'soon', null]
		]);
		expect(soon({})[0]?.reason).toBe(
			`It is reckoned 20 % dry today, and may want water on ${addDays(today, 1)}, but root rot is likely: it is watered less, and only where it is dry.`
		);
		expect(soon({ urgent: null })[0]?.sentence).toMatch(/^Water it: /);
		// As far ahead as any watering is told, and no farther.
		const ahead = defaultValues['today.waterAheadDays'];
		for (const [days, told] of [
			[ahead, 1],
			[ahead + 1, 0]
		] as const)
			expect(
				items(
					entry({
						water: { ...dry, dryness: 0.2, nextOn: addDays(today, days) },
						standing: kept({ urgent, waterOn: today, pottedOn: '2026-02-01' })
					})
				).filter((one) => one.stage === 'aftercare')
			).toHaveLength(told);
	});

	it('a tree that spends its nights under cover stands a colder one outside, until it comes out', () => {
		const of = (untilOn: string, coldestC: number) =>
			entry({
				kind: { ...kind('citrus'), coldestC },
				standing: kept({ underCover: { fromOn: '2026-04-10', untilOn } })
			});
		const { coldestC } = kind('citrus');
		const warmer = defaultValues['shelter.greenhouseC'];
		expect(coldOf(of('2026-04-25', coldestC), today, defaultValues)).toEqual({
			limitC: coldestC - warmer,
			why: 'under cover until 2026-04-25'
		});
		expect(coldOf(of(today, coldestC), today, defaultValues)).toEqual({ limitC: coldestC, why: '' });
		expect(coldOf(of('2026-04-25', coldestC), '2026-04-25', defaultValues).limitC).toBe(coldestC);
		expect(coldOf(of('2026-04-25', coldestC), '2026-04-09', defaultValues).limitC).toBe(coldestC);
		// A night that reaches it all the same never asks for the cover that it has.
		const cold = items(of('2026-04-25', 12))[0];
		expect(cold?.sentence).toBe('Its cover is too little for it: find a warmer place');
		expect(items(of('2026-04-25', 0)).map((item) => item.sentence)).toEqual([]);
		expect(items(of(today, 0))[0]?.sentence).toMatch(/have cover ready|Bring it under cover/);
	});
	it('brings up what was planned for a day, from a week before; a mere decision has none', () => {
		const of = (on: string, undated = false, out: StandingKept['out'] = null) =>
			items(
				entry({
					standing: kept({ planned: { on, what: 'Lift it, as planned', stage: 'replant', undated }, out })
				})
			).filter((item) => item.sentence === 'Lift it, as planned');
		expect(of('2026-04-18')[0]).toMatchObject({ level: 'due', figure: 'today', stage: 'replant' });
		expect(of('2026-04-16')[0]).toMatchObject({ level: 'due', figure: '2 days late' });
		expect(of('2026-04-25')[0]).toMatchObject({ level: 'soon', figure: 'in 7 days' });
		expect(of('2026-04-26')).toEqual([]);
		expect(of('2026-04-18', true)).toEqual([]);
		const undated = (on: string) =>
			items(
				entry({
					standing: kept({ planned: { on, what: 'Lift it, as decided', stage: 'replant', undated: true } })
				})
			).map(({ sentence, level }) => [sentence, level]);
		expect(undated('2026-04-10')).toEqual([['Lift it, as decided: give it a day', 'soon']]);
		expect(undated('2025-04-10')).toEqual([]);
		expect(of('2026-04-18', false, { on: '2026-04-17', how: 'wrapped' })).toEqual([]);
	});
	it('one question is asked once, by the work that writes its answer down, and names all that waits for it', () => {
		const waits = (title: string, byOn: string) =>
			task({
				id: title,
				kind: 'shelter',
				title,
				reason: 'So.',
				source: `shelter-half@2026-03-01`,
				fromOn: byOn,
				toOn: addDays(byOn, 10),
				release: { condition: 'buds-move', value: 0, byOn, after: '' }
			});
		const late = waits('Half off', '2026-03-20');
		const later = waits('Turn it', '2026-04-12');
		const look = task({
			id: 'look',
			kind: 'look',
			title: 'Do buds move?',
			reason: 'After 2 to 4 weeks.',
			source: 'first-buds@2026-03-01',
			fromOn: '2026-04-10',
			toOn: '2026-05-10'
		});
		const said = (tasks: TodayTree['tasks']) =>
			items(entry({ ...unseen(), tasks })).map(({ level, sentence, reason, figure, task: closes }) => [
				level,
				sentence,
				reason,
				figure,
				closes?.id ?? null
			]);
		const [alone] = said([late]);
		expect(alone?.slice(0, 2)).toEqual(['now', 'Look first: do its buds move?']);
		expect(alone?.[2]).toMatch(/^“Half off” waits for it\. So\./);
		// Two that wait speak with one voice, the more pressing.
		const both = said([later, late]);
		expect(both).toHaveLength(1);
		expect(both[0]?.slice(0, 2)).toEqual(['now', 'Look first: do its buds move?']);
		expect(both[0]?.[2]).toMatch(/^“Half off” and “Turn it” wait for it\. So\./);
		expect(both[0]?.[3]).toBe(alone?.[3]);
		// The look that asks the same leads them, as pressing as they are, and is the one that is done.
		expect(said([later, look, late])).toEqual([
			[
				'now',
				'Do buds move?',
				'After 2 to 4 weeks. “Half off” and “Turn it” wait for it.',
				alone?.[3],
				'look'
			]
		]);
		expect(said([look, late])[0]?.[2]).toBe('After 2 to 4 weeks. “Half off” waits for it.');
		// Before its days it asks nothing yet.
		const ahead = { ...look, fromOn: addDays(today, 3) };
		expect(said([ahead, late]).map(([, sentence]) => sentence)).toEqual([
			'Look first: do its buds move?',
			'Do buds move?'
		]);
	});
	it('work of days long past is asked about, not ordered, and alarms nothing', () => {
		const lapses = defaultValues['aftercare.lapsesDays'];
		const of = (lateBy: number, source: string) =>
			task({
				kind: 'cold',
				title: 'Shelter it',
				source,
				fromOn: '2025-12-01',
				toOn: addDays(today, -lateBy)
			});
		const item = (lateBy: number, source: string) => items(entry({ tasks: [of(lateBy, source)] }))[0];
		expect(item(lapses, 'cold@2025-12-01')).toMatchObject({ level: 'now', sentence: 'Shelter it' });
		expect(item(lapses + 1, 'cold@2025-12-01')).toMatchObject({
			level: 'due',
			sentence: 'Done or missed? Shelter it'
		});
		expect(item(lapses + 1, 'water-by-weight@2025-12-01')?.level).toBe('now');
		// On which day it was done is asked for, also of what would have waited for the tree.
		expect([lapses, lapses + 1].map((late) => item(late, 'cold@2025-12-01')?.task?.lapsed)).toEqual([
			false,
			true
		]);
		const waited = (lateBy: number) =>
			items(
				entry({
					...unseen(),
					tasks: [
						{
							...of(0, 'first-buds@2025-12-01'),
							release: {
								condition: 'buds-move',
								value: 0,
								byOn: addDays(today, -lateBy - daysBetween('2025-12-01', today)),
								after: ''
							}
						}
					]
				})
			)[0];
		const season = defaultValues['aftercare.lapsesSeasonDays'];
		expect(waited(season)).toMatchObject({
			task: null,
			sentence: expect.stringMatching(/^Look first/) as string
		});
		expect(waited(season + 1)).toMatchObject({
			task: { lapsed: true },
			sentence: 'Done or missed? Shelter it'
		});
		// Food of one summer is not given in the next, nor before the winter.
		expect([season, season + 1].map((late) => item(late, 'feeding@2025-12-01')?.task?.lapsed)).toEqual([
			false,
			true
		]);
		const alarm = (lateBy: number) => isAlarm(of(lateBy, 'cold@2025-12-01'), today, defaultValues);
		expect([alarm(lapses), alarm(lapses + 1)]).toEqual([true, false]);
		const unanswered = (lateBy: number, source = 'cold@2025-12-01') =>
			isUnanswered(of(lateBy, source), today, defaultValues);
		expect([unanswered(lapses), unanswered(lapses + 1)]).toEqual([false, true]);
		expect(unanswered(lapses + 1, 'water-by-weight@2025-12-01')).toBe(false);
		expect(isUnanswered({ ...of(lapses + 1, 'cold@2025-12-01'), state: 'done' }, today, defaultValues)).toBe(
			false
		);
	});
	it('is over by the days that the tree gives it: no day to come is told as over', () => {
		const season = defaultValues['aftercare.lapsesSeasonDays'];
		const turning = (seenOn: string | null) =>
			entry({
				tasks: [
					task({
						kind: 'other',
						title: 'Turn it',
						source: 'turning@2025-09-01',
						fromOn: '2025-09-29',
						toOn: '2025-10-20',
						release: { condition: 'buds-move', value: 0, byOn: '2025-11-10', after: '' }
					})
				],
				facts: {
					looks:
						seenOn === null
							? []
							: [
									{
										observedOn: seenOn,
										buds: 'open',
										leafCover: null,
										leafState: null,
										shootExtensionMm: null
									}
								],
					functionLow: [],
					evergreen: false,
					gate: null,
					closed: []
				}
			});
		const said = (seenOn: string | null, on: string) =>
			todayItems([turning(seenOn)], on, defaultValues).find((item) => item.sentence.includes('Turn it'));
		// Buds that open in spring release it anew.
		expect(said('2026-04-10', today)).toMatchObject({ sentence: 'Turn it', figure: '13 days left' });
		expect(said('2026-04-10', addDays('2026-05-01', season))?.sentence).toBe('Turn it');
		expect(said('2026-04-10', addDays('2026-05-01', season + 1))).toMatchObject({
			sentence: 'Done or missed? Turn it',
			reason: 'Its days were over on 2026-05-01. Say that it was done, or skip it with a word of why.'
		});
		// Seen by nobody it is over after the last day on which it was brought up.
		expect(said(null, addDays('2025-12-01', season + 1))?.sentence).toBe('Done or missed? Turn it');
		for (const seenOn of [null, '2025-10-02', '2025-12-20', '2026-04-10'])
			for (let on = '2025-09-20'; on < '2026-09-01'; on = addDays(on, 7)) {
				const over = /were over on (\S+)\./.exec(said(seenOn, on)?.reason ?? '')?.[1];
				if (over) expect(over < on, `${seenOn} ${on}`).toBe(true);
			}
	});
	it('shoots are tender while they are new: buds that opened a season ago warn of no frost', () => {
		const days = defaultValues['cold.shootsTenderDays'];
		const look = (observedOn: string, buds: 'open' | 'none' | null) => ({
			observedOn,
			buds,
			leafCover: null,
			leafState: null,
			shootExtensionMm: null
		});
		const limit = (...looks: ReturnType<typeof look>[]) =>
			coldOf(entry({ facts: { ...entry().facts, looks } }), today, defaultValues);
		const hardened = limit(look('2026-04-10', 'none'));
		expect(hardened.why).not.toMatch(/shoots/);
		expect(limit(look(today, 'open'))).toEqual({
			limitC: defaultValues['guard.shootsC'],
			why: 'tender new shoots'
		});
		expect(limit(look(addDays(today, -days), 'open')).why).toBe('tender new shoots');
		expect(limit(look(addDays(today, -days - 1), 'open')).why).not.toBe('tender new shoots');
		// A later look that says nothing of buds takes nothing back; one that found none does.
		const open = look(addDays(today, -10), 'open');
		expect(limit(open, look(today, null)).why).toBe('tender new shoots');
		expect(limit(open, look(today, 'none'))).toEqual(hardened);
	});
	it('in the first weeks of its season, buds that nobody saw of late may be open; no unknown reads as hardened', () => {
		const { kind: beech, place } = entry();
		const season = growingSeason(place, false, 2026, defaultValues);
		if (!season) throw new Error('no season');
		const [tenderDays, seenDays] = [
			defaultValues['cold.shootsTenderDays'],
			defaultValues['cold.budsSeenDays']
		];
		const on = addDays(season.from, 30);
		const said = (value: string | null, seenOn: string | null, day = on, at = { kind: beech, place }) =>
			newShootsOn({ value, on: seenOn }, at, day, defaultValues);
		expect(said(null, null)).toBe('perhaps');
		expect(said(null, null, addDays(season.from, -1))).toBe('none');
		expect(said(null, null, season.from)).toBe('perhaps');
		expect(said(null, null, addDays(season.from, tenderDays))).toBe('perhaps');
		expect(said(null, null, addDays(season.from, tenderDays + 1))).toBe('none');
		// Seen closed, they are closed for a while; what is seen later, or without a day, was not seen yet.
		for (const closed of ['none', 'swelling']) {
			expect(said(closed, addDays(on, -seenDays))).toBe('none');
			expect(said(closed, addDays(on, -seenDays - 1))).toBe('perhaps');
			expect(said(closed, addDays(on, 1))).toBe('perhaps');
		}
		expect(said('open', addDays(on, 1))).toBe('perhaps');
		expect(said('open', null)).toBe('perhaps');
		expect(said('open', on)).toBe('out');
		// What opened last year may open again; what opened this spring is out for its days and no longer.
		expect(said('open', addDays(season.from, -200))).toBe('perhaps');
		expect(said('open', addDays(on, -tenderDays))).toBe('out');
		const early = { ...defaultValues, 'cold.shootsTenderDays': 20 };
		const later = addDays(season.from, 15);
		expect(newShootsOn({ value: 'open', on: season.from }, { kind: beech, place }, later, early)).toBe('out');
		// A kind that never hardens has one limit; where it grows all year no season brings its shoots.
		for (const day of [on, '2026-01-20'])
			expect(said(null, null, day, { kind: beech, place: { ...place, kind: 'indoors' } })).toBe('none');
		expect(coldOf(entry({ facts: { ...entry().facts, looks: [] } }), on, defaultValues)).toEqual({
			limitC: defaultValues['guard.shootsC'],
			why: 'new shoots that may be out: nobody saw its buds of late'
		});
		// A grown tree is not covered on a guess: in the ground buds count where they were seen.
		const rooted = entry({
			tree: { ...entry().tree, situation: 'in-ground' },
			facts: { ...entry().facts, looks: [] }
		});
		expect(coldOf(rooted, on, defaultValues).why).toBe('');
		expect(
			coldOf(
				{ ...rooted, facts: { ...rooted.facts, looks: [{ ...closedBuds, buds: 'open', observedOn: on }] } },
				on,
				defaultValues
			).why
		).toBe('tender new shoots');
		// Half a year on, the same in the south.
		const south = { ...place, latitudeDeg: -52 };
		expect(said(null, null, on, { kind: beech, place: south })).toBe('none');
		const there = growingSeason(south, false, 2026, defaultValues)?.from ?? '';
		expect(said(null, null, addDays(there, 30), { kind: beech, place: south })).toBe('perhaps');
	});
	it('trees of one place before the same cold night are one line; who stands otherwise has one of its own', () => {
		const open = { ...closedBuds, buds: 'open' as const };
		const tender = (id: string, change: Partial<TodayTree> = {}) =>
			entry({
				tree: { ...entry().tree, id, tag: id.toUpperCase() },
				facts: { ...entry().facts, looks: [open] },
				...change
			});
		const cold = (trees: TodayTree[]) =>
			items(...trees).filter(({ sentence }) => /tonight/.test(sentence) && !/^Look/.test(sentence));
		const few = cold([tender('a'), tender('b')]);
		expect(few.map(({ tag, group }) => [tag, group.length])).toEqual([
			['A', 0],
			['B', 0]
		]);
		const many = cold([tender('a'), tender('b'), tender('c')]);
		expect(many).toHaveLength(1);
		expect(many[0]).toMatchObject({
			treeName: 'A, B, C',
			group: [
				{ id: 'a', tag: 'A' },
				{ id: 'b', tag: 'B' },
				{ id: 'c', tag: 'C' }
			]
		});
		expect(many[0]?.reason).toMatch(/^Their limit is/);
		expect(few[0]?.reason).toMatch(/^Its limit is/);
		expect((many[0]?.urgency ?? 0) - (few[0]?.urgency ?? 0)).toBe(2);
		const ground = { ...entry().tree, situation: 'in-ground' as const };
		const apart = cold([
			tender('a'),
			tender('b'),
			tender('c'),
			tender('d', { tree: { ...ground, id: 'd', tag: 'D' } }),
			tender('e', { place: { ...entry().place, id: 'q', name: 'Yard' } }),
			tender('f', { lastCutOn: '2026-04-10', facts: entry().facts })
		]);
		expect(apart.map(({ tag, group }) => [tag, group.length]).sort()).toEqual([
			['A', 3],
			['D', 0],
			['E', 0],
			['F', 0]
		]);
	});
	it('what is out of the ground comes first until it is set or heeled in', () => {
		const late = task({ kind: 'water', fromOn: '2026-03-01', toOn: '2026-03-02' });
		const found = items(
			entry({ standing: kept({ out: { on: '2026-04-16', how: 'wrapped' } }), tasks: [late] })
		);
		expect(found[0]).toMatchObject({ level: 'now', figure: '2 days', stage: 'replant' });
		expect(found[0]?.sentence).toMatch(/^Out of the ground: set it or heel it in/);
		const heeled = items(
			entry({ standing: kept({ out: { on: '2026-04-16', how: 'heeled-in' } }), tasks: [late] })
		);
		expect(heeled[0]?.task?.id).toBe('t1');
		expect(heeled[1]?.sentence).toMatch(/^Heeled in/);
		const many = items(
			entry({
				tree: { ...entry().tree, plantCount: 30 },
				standing: kept({ out: { on: today, how: 'out' }, alive: 30 })
			})
		);
		expect(many[0]?.sentence).toContain('all 30 of them');
	});
	it('a tree that moves asks to be held, and only for as long as that was seen lately', () => {
		const of = (on: string) => items(entry({ standing: kept({ firmness: { value: 'moves', on } }) }));
		expect(of('2026-04-10')[0]).toMatchObject({ level: 'now', stage: 'replant' });
		expect(of('2026-02-01')).toHaveLength(0);
	});
	it('held since, it is to be tried, on the list and at its head alike', () => {
		const firmness = { value: 'loose' as const, on: '2026-04-10', heldOn: '2026-04-12' };
		const [first] = items(entry({ standing: kept({ firmness }) }));
		expect(first).toMatchObject({
			sentence: 'Held since 2026-04-12: try whether it stands firm',
			reason: expect.stringMatching(/^On 2026-04-10 it .*; nobody has tried it since it was held\./),
			level: 'due',
			stage: 'recovery'
		});
		expect(nextOf([], kept({ firmness }), today, entry().facts, today, defaultValues)?.what).toBe(
			first?.sentence
		);
	});
	it('set anew since, on its own stance, it is to be tried', () => {
		const firmness = { value: 'loose' as const, on: '2026-04-10', setOn: '2026-04-12' };
		expect(items(entry({ standing: kept({ firmness }) }))[0]).toMatchObject({
			sentence: 'Set anew on 2026-04-12: try whether it stands firm',
			reason: expect.stringMatching(/nobody has tried it since it was set anew\./),
			level: 'due',
			stage: 'recovery'
		});
	});
	it('a referral is the first thing there is, from its first day on', () => {
		const found = items(
			entry({
				standing: kept({ out: { on: '2026-04-01', how: 'out' } }),
				tasks: [
					task({ id: 'flag', kind: 'referral', toOn: '2026-05-10' }),
					task({ id: 'water', kind: 'water', fromOn: '2026-01-01', toOn: '2026-01-02' })
				]
			})
		);
		expect(found[0]?.task?.id).toBe('flag');
		expect(found[0]?.level).toBe('now');
	});
	it('water nobody touched for three weeks is asked for, with the day from which it may be dry, and no litres beside it', () => {
		const of = (knownOn: string | null, earliest: string | null) =>
			items(
				entry({
					water: { ...waterDry(knownOn), earliest },
					standing: kept({ waterOn: knownOn, pottedOn: '2026-02-01' })
				})
			);
		const never = of(null, '2026-04-21');
		expect(never).toHaveLength(1);
		// In its dry rest, or due for the first water after it, its water is on the list already.
		const resting = { water: { ...waterDry(null), restUntil: '2026-04-17' } };
		expect(items(entry({ ...resting, standing: kept({ waterOn: null, pottedOn: '2026-04-10' }) }))).toEqual(
			[]
		);
		// The first water after it was set asks for the same pot, in its days and while nobody did it.
		const first = (change: object): string[] =>
			items(
				entry({
					water: waterDry(null),
					standing: kept({ waterOn: null, pottedOn: today }),
					tasks: [
						task({ kind: 'water', source: `first-water@${today}`, fromOn: today, toOn: today, ...change })
					]
				})
			).map(({ sentence }) => sentence);
		const unknown = 'Its water is not known: lift it or feel it now';
		const heavy = items(
			entry({
				water: waterDry(null),
				standing: kept({ waterOn: null, pottedOn: '2026-02-01', tooHeavy: true })
			})
		);
		expect(heavy.map(({ sentence }) => sentence)).toContain('Its water is not known: feel or probe it now');
		expect(first({})).not.toContain(unknown);
		expect(first({ toOn: addDays(today, -1), fromOn: addDays(today, -2) })).toContain(unknown);
		expect(first({ fromOn: addDays(today, 1), toOn: addDays(today, 2) })).toContain(unknown);
		expect(first({ state: 'done', closedOn: today })).toContain(unknown);
		expect(first({ source: `water-by-weight@${today}` })).toContain(unknown);
		expect(never[0]).toMatchObject({ figure: 'not known', pourL: null, stage: 'aftercare' });
		expect(never[0]?.sentence).toBe('Its water is not known: lift it or feel it now');
		expect(never[0]?.reason).toBe(
			'Nobody wrote down a watering or a feel since 2026-02-01, nor a weight that tells how dry it is. It may be dry from 2026-04-21 on.'
		);
		expect(of('2026-03-27', '2026-04-02')[0]).toMatchObject({ figure: '22 days', pourL: null });
		expect(of('2026-03-27', '2026-04-02')[0]?.reason).toContain('It may be dry already.');
		expect(of('2026-03-27', today)[0]?.reason).toContain('It may be dry already.');
		expect(of('2026-03-27', addDays(today, 1))[0]?.reason).toContain('It may be dry from 2026-04-19 on.');
		// A day less, and it is reckoned on.
		expect(of('2026-03-28', '2026-04-02').map((item) => item.pourL)).toEqual([2]);
		const three = ['A', 'B', 'C'].map((id) =>
			entry({
				tree: { ...entry().tree, id, tag: id },
				standing: kept({ waterOn: null, pottedOn: '2026-02-01' })
			})
		);
		expect(items(...three).map((item) => item.group.map((one) => one.tag))).toEqual([['A', 'B', 'C']]);
		expect(items(...three.slice(0, 2))).toHaveLength(2);
	});
});

describe('a cold night over roots that were cut', () => {
	it('touches those that lost living root, not a dead one that was taken off', () => {
		const cold = (change: Partial<TodayTree>) =>
			items(entry({ lastCutOn: '2026-04-10', ...change })).some(({ reason }) =>
				reason.includes('freshly cut')
			);
		expect(cold({ standing: kept({ rootsCutOn: '2026-04-10', woundedOn: '2026-04-10' }) })).toBe(true);
		expect(cold({ standing: kept({ rootsCutOn: '2026-04-10' }) })).toBe(false);
		// Not yet worked out: what is known of it counts.
		expect(cold({ standing: null })).toBe(true);
		const { woundedOn: _, ...before } = kept({});
		expect(cold({ standing: before })).toBe(true);
	});
});

describe('water of what stands in one pot', () => {
	const urgent = {
		subject: 'A sour, airless root zone is',
		chance: 0.7,
		on: '2026-04-10',
		stage: 'replant' as const,
		water: 'less',
		meaning: '',
		untilOn: '2099-01-01'
	};
	const inPot = (tag: string, change: Partial<TodayTree> = {}, sharedPot = 'Trough'): TodayTree => ({
		...entry({ standing: kept({ pottedOn: '2026-01-01', waterOn: today }), ...change }),
		tree: { ...entry().tree, ...change.tree, id: tag, tag, sharedPot }
	});
	const lines = (...entries: TodayTree[]) =>
		items(...entries)
			.filter(({ stage }) => stage === 'aftercare')
			.map(({ sentence, tag, group, treeName }) =>
				[plain(sentence), group.map((one) => one.tag).join(' ') || tag, treeName].join(' | ')
			);
	const dry = { water: waterDry(today) };
	const less = { ...dry, standing: kept({ pottedOn: '2026-01-01', waterOn: today, urgent }) };

	it('is told once, however the name of the pot was typed, and by what presses most', () => {
		const later = { water: { ...waterDry(today), nextOn: '2026-04-20', litres: 1 } };
		expect(lines(inPot('C-1', later, ' trough'), inPot('C-2', dry))).toEqual([
			'Water it: 2 L, slowly, over the whole surface | C-1 C-2 | C-1, C-2'
		]);
		expect(lines(inPot('C-1', dry), inPot('C-2', later))).toEqual([
			'Water it: 2 L, slowly, over the whole surface | C-1 C-2 | C-1, C-2'
		]);
		expect(lines(inPot('C-1', dry, 'One'), inPot('C-2', dry, 'Two'), inPot('C-3', dry, ''))).toHaveLength(3);
		const ground = { ...dry, tree: { ...entry().tree, situation: 'in-ground' as const } };
		expect(lines(inPot('C-1', ground), inPot('C-2', dry))).toHaveLength(2);
	});
	it('is felt first where one of them is to be watered less', () => {
		for (const both of [
			[inPot('C-1', less), inPot('C-2', dry)],
			[inPot('C-1', dry), inPot('C-2', less)]
		])
			expect(lines(...both)).toEqual(['Feel it a finger deep before any water | C-1 C-2 | C-1, C-2']);
	});
	it('is asked for once, and not in the dry rest of one of them', () => {
		const unknown = { standing: kept({ pottedOn: '2026-01-01', waterOn: null }) };
		const other = inPot('C-3', unknown, '');
		const asked = 'The water of their pot is not known: lift it or feel it now | C-1 C-2 | C-1, C-2';
		expect(lines(inPot('C-1', unknown), inPot('C-2', unknown))).toEqual([asked]);
		expect(lines(inPot('C-1', unknown), other, inPot('C-2', unknown))).toEqual([
			asked,
			expect.stringMatching(/^Its water is not known: lift it or feel it now \| C-3/) as string
		]);
		const resting = { ...unknown, water: { ...waterDry(null), restUntil: '2026-05-01', nextOn: null } };
		expect(lines(inPot('C-1', resting), inPot('C-2', unknown))).toEqual([]);
		// Of several pots of a place one line asks, and names every tree.
		const many = ['a', 'b', 'c'].map((tag) => inPot(tag, unknown, ''));
		expect(lines(...many, inPot('C-1', unknown), inPot('C-2', unknown))).toEqual([
			'Water of 5 trees is not known: lift or feel them now | a b c C-1 C-2 | a, b, c, C-1, C-2'
		]);
	});
	it('is wrong once, and is compared with what stands in other pots', () => {
		const falls = (move: number) => ({ water: { ...waterDry(today), nextOn: null, move } });
		const fallen = { water: { ...falls(0.5).water, fall: { days: 20, by: 0.5 }, alarms: ['It stays wet.'] } };
		const said = lines(
			inPot('C-1', fallen),
			inPot('C-2', fallen),
			inPot('n', falls(1), ''),
			inPot('m', falls(1), '')
		);
		expect(said).toHaveLength(2);
		expect(said.join('\n')).toContain('It stays wet. | C-1 C-2');
		expect(said.join('\n')).toContain('while its 2 weighed neighbours do not');
	});
});

describe('every working value of Today', () => {
	const urgent = {
		subject: 'Root rot is',
		chance: 0.7,
		on: '2026-04-10',
		stage: 'roots' as const,
		water: 'less',
		meaning: '',
		untilOn: '2099-01-01'
	};
	const cold = (on: string, minC: number): SeriesDay => ({ ...bareDay(on, { et0Mm: 1, rainMm: 0 }), minC });
	const ahead = (on: string) => new Map([['p', [cold(on, -30)]]]);
	const planned = { what: 'Lift it', stage: 'replant' as const, on: today, undated: false };
	/** Yards in which each of them decides something. */
	const yards: Record<string, { trees: TodayTree[]; weather?: Map<string, SeriesDay[]> }> = {
		late: {
			trees: [
				entry({
					tasks: taskKinds.map((kind) => task({ id: kind, kind, fromOn: '2026-04-01', toOn: '2026-04-15' }))
				})
			]
		},
		open: {
			trees: [entry({ tasks: taskKinds.map((kind) => task({ id: kind, kind, toOn: '2026-04-20' })) })]
		},
		soon: {
			trees: [entry({ tasks: [task({ fromOn: '2026-04-25', toOn: '2026-04-30' })] })]
		},
		lapsed: {
			trees: [
				entry({
					tasks: [task({ kind: 'cold', fromOn: '2025-10-01', toOn: '2025-11-30', source: 'cold@2025-10-01' })]
				})
			]
		},
		standing: {
			trees: [
				entry({ standing: kept({ urgent, out: { on: '2026-04-16', how: 'wrapped' } }) }),
				entry({ standing: kept({ out: { on: '2026-03-01', how: 'heeled-in' } }) }),
				entry({ standing: kept({ check: { subject: 'Rot is', chance: 0.4, on: today, check: null } }) }),
				entry({ standing: kept({ planned }) }),
				entry({ standing: kept({ planned: { ...planned, on: '2026-04-25' } }) }),
				entry({ standing: kept({ planned: { ...planned, undated: true } }) }),
				entry({ standing: kept({ firmness: { value: 'loose', on: today } }) }),
				entry({ standing: kept({ smell: { value: 'mouldy', on: today }, pottedOn: '2026-01-01' }) })
			]
		},
		water: {
			trees: [
				entry({ water: { ...waterDry(today), alarms: ['Its roots drink less.'] } }),
				entry({ water: { ...waterDry(today), nextOn: '2026-04-15', latest: '2026-04-16' } }),
				entry({ water: { ...waterDry(today), nextOn: '2026-04-21' } }),
				entry({ water: waterDry(today), standing: kept({ urgent }) })
			]
		},
		unknown: {
			trees: ['a', 'b', 'c'].map((id) =>
				entry({
					tree: { ...entry().tree, id },
					standing: kept({ waterOn: null, pottedOn: '2026-01-01' })
				})
			)
		},
		cold: { trees: [entry({ kind: kind('citrus') })] },
		mild: { trees: [entry({ kind: { ...kind('citrus'), coldestC: 0 } })] },
		tonight: { trees: [entry()], weather: ahead(today) },
		tomorrow: { trees: [entry()], weather: ahead('2026-04-19') },
		later: { trees: [entry()], weather: ahead('2026-04-20') },
		wind: {
			trees: [
				entry({ water: { ...waterDry(today), nextOn: null, phi: 0.4 } }),
				entry({ kind: kind('citrus') })
			],
			weather: new Map([
				[
					'p',
					[
						{ ...cold(today, 10), maxC: 44, gustMs: 31, windMs: 12, vpdKpa: 4.2 },
						{ ...cold('2026-04-19', -30), how: 'filled' }
					]
				]
			])
		},
		old: {
			trees: [
				entry({ lastDecision: { on: '2026-02-01', decision: 'go', workedSince: false } }),
				entry({
					lastDecision: { on: '2026-02-01', decision: 'nurse', workedSince: false },
					lastCutOn: '2026-01-31'
				}),
				entry({
					lastDecision: { on: '2026-02-01', decision: 'go', workedSince: false },
					lastCutOn: '2026-02-01'
				}),
				entry({ lastDecision: { on: '2026-02-01', decision: 'go', workedSince: true } }),
				entry({ lastDecision: { on: '2026-02-01', decision: 'leave', workedSince: false } }),
				entry({ lastDecision: { on: '2026-04-17', decision: 'go', workedSince: false } }),
				entry({ lastLookOn: '2026-01-01' })
			]
		},
		released: {
			trees: [
				entry({
					...unseen(),
					tasks: [
						task({
							id: 'held',
							release: { condition: 'leaves-out', value: 0.6, byOn: '2026-09-01', after: '' }
						}),
						task({
							id: 'asks',
							release: { condition: 'buds-move', value: 0.6, byOn: '2026-04-10', after: '' }
						})
					]
				})
			]
		},
		rest: {
			trees: [
				entry({ standing: kept({ firmness: { value: 'moves', on: '2026-02-17' } }) }),
				entry({ standing: kept({ firmness: { value: 'moves', on: '2026-02-16' } }) }),
				entry({
					tree: { ...entry().tree, plantCount: 12 },
					standing: kept({ out: { on: today, how: 'out' }, alive: 12 })
				}),
				entry({
					tree: { ...entry().tree, plantCount: 12 },
					standing: kept({ out: { on: '2026-04-17', how: 'heeled-in' }, alive: 12 })
				}),
				entry({ standing: kept({ planned: { ...planned, on: '2026-04-15' } }) }),
				entry({
					tree: { ...entry().tree, state: 'dead' },
					standing: kept({ pottedOn: '2026-01-01', waterOn: null })
				}),
				entry({ standing: kept({ pottedOn: '2026-01-01', waterOn: null }) }),
				entry({
					water: { ...waterDry('2026-03-01'), earliest: '2026-04-25' },
					standing: kept({ pottedOn: '2026-01-01', waterOn: '2026-03-05' })
				}),
				entry({
					place: { ...entry().place, id: 'q', name: 'Annex' },
					water: {
						...waterDry('2026-04-10'),
						litres: 0.4,
						earliest: '2026-04-16',
						latest: '2026-04-20',
						from: 'ground'
					}
				}),
				entry({
					place: { ...entry().place, id: 'q', name: 'Annex' },
					water: { ...waterDry('2026-01-10'), from: 'ground', nextOn: '2026-04-22' }
				})
			]
		}
	};
	// Each stands in a pot of its own.
	for (const name of ['water', 'rest'] as const)
		yards[name] = {
			trees: (yards[name]?.trees ?? []).map((one, i) => ({
				...one,
				tree: { ...one.tree, id: `${name}${i}` }
			}))
		};
	const said = (values: Values): string =>
		JSON.stringify(
			Object.values(yards).map(({ trees, weather }) => {
				const found = todayItems(trees, today, values, weather);
				return [
					found,
					walkingRound(found, values),
					trees.map((one) => one.tasks.filter((open) => isAlarm(open, today, values)).length)
				];
			})
		);
	const usual = said(defaultValues);
	it.each(Object.keys(todayValues) as (keyof typeof todayValues)[])('%s decides something', (key) => {
		const { min, max } = todayValues[key];
		const value = defaultValues[key];
		// Somewhere within its bounds, and not only at the far end.
		const others = [min, value + 1, value - 1, value * 2 + 1, value / 2].filter(
			(other) => other >= min && other <= max && other !== value
		);
		expect(others.some((other) => said({ ...defaultValues, [key]: other }) !== usual)).toBe(true);
	});
	it('ranks what harms first before what can wait', () => {
		const first = (name: keyof typeof yards, at = 0): number => {
			const yard = yards[name];
			return todayItems(yard?.trees ?? [], today, defaultValues, yard?.weather)[at]?.urgency ?? Number.NaN;
		};
		// By default: an arborist 220 and 3 days waited; water late 100, 3 times 10, and 3 days.
		expect(first('late')).toBe(223);
		expect(
			todayItems(yards.late?.trees ?? [], today, defaultValues).find((one) => one.task?.id === 'water')
				?.urgency
		).toBe(133);
		expect(
			todayItems(yards.open?.trees ?? [], today, defaultValues).find((one) => one.task?.id === 'feeding')
				?.urgency
		).toBe(50 + 2 - 2 - 15);
		expect(first('standing')).toBe(202);
		expect(first('tonight')).toBeGreaterThan(first('cold'));
		expect(first('cold')).toBeGreaterThan(first('tomorrow'));
		expect(first('tomorrow')).toBeGreaterThan(first('later'));
	});
	it('waiting never lifts a line above what stands a most higher', () => {
		for (const days of [1, 30, 400, 4000]) {
			const on = addDays(today, -days);
			expect(
				todayItems([entry({ standing: kept({ out: { on, how: 'wrapped' } }) })], today, defaultValues)[0]
					?.urgency
			).toBeLessThanOrEqual(defaultValues['today.rank.referral']);
		}
	});
	it('what rocks is held when it is set anew, where what presses takes it out of its pot first', () => {
		const firmness = { value: 'moves', on: '2026-04-10' } as const;
		const said = (stage: 'roots' | 'examine', situation: 'potted' | 'in-ground') => {
			const urgent = {
				subject: 'Root rot is',
				chance: 0.7,
				on: '2026-04-10',
				stage,
				water: null,
				meaning: 'Cut it back.',
				untilOn: '2099-01-01'
			};
			const one = entry({ standing: kept({ firmness, urgent }) });
			return todayItems([{ ...one, tree: { ...one.tree, situation } }], today, defaultValues)
				.filter(({ sentence }) => sentence.startsWith('It rocks'))
				.map(({ sentence, reason }) => `${sentence}. ${reason.split('grow: ')[1] ?? ''}`);
		};
		expect([said('roots', 'potted'), said('examine', 'potted'), said('roots', 'in-ground')].flat()).toEqual([
			'It rocks a little: hold it firm when it is set anew. wires, where, and over which roots, once what presses is done.',
			'It rocks a little: hold it firm. wires, where, and over which roots, before all else.',
			'It rocks a little: hold it firm. stakes or guys, with a tie that gives, before all else.'
		]);
	});
	it('says each line in full', () => {
		const lines = Object.entries(yards).flatMap(([name, { trees, weather }]) =>
			todayItems(trees, today, defaultValues, weather).map(
				({ urgency, level, tag, group, sentence, reason, figure, stage, pourL, task: closes }) =>
					`${name}: ${urgency} ${level} ${group.length > 0 ? group.map((one) => `${one.id}/${one.tag}`).join(',') : tag}` +
					` | ${plain(sentence)} | ${plain(reason)} | ${plain(figure)} | ${stage}${pourL === null ? '' : `, ${pourL} L`}${closes ? `, ${closes.kind}` : ''}`
			)
		);
		expect(lines).toMatchInlineSnapshot(`
			[
			  "late: 223 now A-1 | Look | because | 3 days late | recovery, referral",
			  "late: 133 now A-1 | Look | because | 3 days late | recovery, water",
			  "late: 130 now A-1 | Look | because | 3 days late | recovery, cold",
			  "late: 124 now A-1 | Look | because | 3 days late | recovery, dry-rest",
			  "late: 121 now A-1 | Look | because | 3 days late | recovery, pest",
			  "late: 121 now A-1 | Look | because | 3 days late | recovery, neighbours",
			  "late: 121 now A-1 | Look | because | 3 days late | recovery, backup",
			  "late: 118 now A-1 | Look | because | 3 days late | recovery, crown",
			  "late: 118 now A-1 | Look | because | 3 days late | recovery, collar",
			  "late: 115 now A-1 | Look | because | 3 days late | recovery, shelter",
			  "late: 112 now A-1 | Look | because | 3 days late | recovery, look",
			  "late: 112 now A-1 | Look | because | 3 days late | recovery, root-stage",
			  "late: 109 now A-1 | Look | because | 3 days late | recovery, other",
			  "late: 37 due A-1 | Look | because | 3 days late | recovery, feeding",
			  "late: 37 due A-1 | Look | because | 3 days late | recovery, suckers",
			  "late: 36 due A-1 | Look | because | 3 days late | recovery, turning",
			  "open: 220 now A-1 | Look | because | 2 days left | recovery, referral",
			  "open: 68 due A-1 | Look | because | 2 days left | recovery, water",
			  "open: 66 due A-1 | Look | because | 2 days left | recovery, cold",
			  "open: 62 due A-1 | Look | because | 2 days left | recovery, dry-rest",
			  "open: 60 due A-1 | Look | because | 2 days left | recovery, pest",
			  "open: 60 due A-1 | Look | because | 2 days left | recovery, neighbours",
			  "open: 60 due A-1 | Look | because | 2 days left | recovery, backup",
			  "open: 58 due A-1 | Look | because | 2 days left | recovery, crown",
			  "open: 58 due A-1 | Look | because | 2 days left | recovery, collar",
			  "open: 56 due A-1 | Look | because | 2 days left | recovery, shelter",
			  "open: 54 due A-1 | Look | because | 2 days left | recovery, look",
			  "open: 54 due A-1 | Look | because | 2 days left | recovery, root-stage",
			  "open: 52 due A-1 | Look | because | 2 days left | recovery, other",
			  "open: 35 due A-1 | Look | because | 2 days left | recovery, feeding",
			  "open: 35 due A-1 | Look | because | 2 days left | recovery, suckers",
			  "open: 34 due A-1 | Look | because | 2 days left | recovery, turning",
			  "soon: -4 soon A-1 | Look | because | in 7 days | recovery, look",
			  "lapsed: 25 due A-1 | Done or missed? Look | Its days were over on 2025-11-30. Say that it was done, or skip it with a word of why. | 139 days late | recovery, cold",
			  "standing: 202 now A-1 | Out of the ground: set it or heel it in | Wrapped since 2026-04-16; roots in the air die by the hour. | 2 days | replant",
			  "standing: 190 now A-1 | Root rot is likely: act now | Looked at on 2026-04-10.  | 70 % | roots",
			  "standing: 150 now A-1 | It moves at the base: hold it firm | Seen on 2026-04-18. Roots that are moved tear as they grow: wires, where, and over which roots, before all else. | moves at the base | replant",
			  "standing: 145 now A-1 | Its pot smells mouldy: let air in, and water only what has dried | Smelt on 2026-04-18. Air is short there, or rot goes on: smell again within two weeks. | smells mouldy | recovery",
			  "standing: 61.857142857142854 due A-1 | Heeled in: pot or plant it in its window | Heeled in since 2026-03-01; its place there is for days or weeks, not for seasons. | 48 days | replant",
			  "standing: 60 due A-1 | Rot is possible; look anew, with what was seen since | Looked at on 2026-04-18. Its records show since then what that look does not say. | 40 % | examine",
			  "standing: 60 due A-1 | Lift it | Planned for 2026-04-18. | today | replant",
			  "standing: 15 soon A-1 | Lift it: give it a day | Decided on 2026-04-18. | no day yet | replant",
			  "standing: 13 soon A-1 | Lift it | Planned for 2026-04-25. | in 7 days | replant",
			  "water: 190 now A-1 | Root rot is likely: act now | Looked at on 2026-04-10.  | 70 % | roots",
			  "water: 138 now A-1 | Water it: 2 L, slowly, over the whole surface |  90 % dry today. | 90 % dry | aftercare, 2 L",
			  "water: 105 now A-1 | Water it: 2 L, slowly, over the whole surface |  90 % dry today. | 90 % dry | aftercare, 2 L",
			  "water: 104 due A-1 | Feel it a finger deep before any water | It is reckoned 90 % dry, but root rot is likely: it is watered less, and only where it is dry. | 90 % dry | aftercare",
			  "water: 70 due A-1 | Its roots drink less. | Root function 100 %, between 80 and 110. | 90 % dry | aftercare",
			  "water: 17 soon A-1 | Water it: 2 L, slowly, over the whole surface |  90 % dry today. | in 3 days | aftercare, 2 L",
			  "unknown: 73.28571428571429 due a/A-1,b/A-1,c/A-1 | Water of 3 trees is not known: lift or feel them now | Nobody wrote down for weeks, or ever, what tells how dry they are: a watering, a feel, or a weight to set against one after water. | not known | aftercare",
			  "cold: 160 now A-1 | Bring it under cover before tonight | Its limit is 4 °C; a usual night of the season at Bench is about 4 °C (climate of the place, not a forecast). | 4 °C | aftercare",
			  "mild: 90 due A-1 | Watch tonight’s low; have cover ready | Its limit is 0 °C; a cold night of the season at Bench is about 0 °C (climate of the place, not a forecast). | 0 °C | aftercare",
			  "tonight: 171 now a/A-1 | Cold tonight, before dusk: bring it under cover, or lay fleece | -30 °C was measured; one tree stands less, the tightest -15 °C. | -30 °C | aftercare",
			  "tomorrow: 111 due a/A-1 | Cold tomorrow, before dusk: bring it under cover, or lay fleece | -30 °C is forecast; one tree stands less, the tightest -15 °C. | -30 °C | aftercare",
			  "later: 61 due a/A-1 | Cold on 2026-04-20, before dusk: bring it under cover, or lay fleece | -30 °C is forecast; one tree stands less, the tightest -15 °C. | -30 °C | aftercare",
			  "wind: 172 now a/A-1,a/A-1 | Heat today, at once: shade them, water in the morning, no work at roots | 44 °C was measured; 2 trees stand less, the tightest 27 °C (few roots). | 44 °C | aftercare",
			  "wind: 172 now a/A-1,a/A-1 | Gusts today, before the wind rises: set them down and tie them; pots off the bench | 31 m/s was measured; 2 trees stand less, the tightest 17 m/s. | 31 m/s | aftercare",
			  "wind: 171 now a/A-1 | Dry air today, by mid-morning: shade and mist, or a tent | 4.2 kPa was measured; one tree stands less, the tightest 1.2 kPa (few roots). | 4.2 kPa | aftercare",
			  "old: 90 due A-1 | Watch tonight’s low; have cover ready | Its limit is 0 °C, with roots freshly cut; a cold night of the season at Bench is about 0 °C (climate of the place, not a forecast). | 0 °C | aftercare",
			  "old: 90 due A-1 | Watch tonight’s low; have cover ready | Its limit is 0 °C, with roots freshly cut; a cold night of the season at Bench is about 0 °C (climate of the place, not a forecast). | 0 °C | aftercare",
			  "old: 55.85714285714286 due A-1 | Look again before the work | “Go” was decided 76 days ago; a decision stands for 14 days. | 76 days old | examine",
			  "old: 55.85714285714286 due A-1 | Look again before the work | “Nurse it first” was decided 76 days ago; a decision stands for 14 days. | 76 days old | examine",
			  "old: 55.285714285714285 due A-1 | Nobody has looked at it for long | A look is due every 30 days while it is in care; after 60 it is brought up. | 107 days unseen | recovery",
			  "released: 117 now A-1 | Look first: do its buds move? | “Look” waits for it. because Waited until buds move; by 2026-04-10 nobody saw it. | 8 days late | recovery",
			  "rest: 200 now A-1 | Out of the ground: set all 12 of them or heel them in | Out since 2026-04-18; roots in the air die by the hour. | today | replant",
			  "rest: 150 now A-1 | It rocks a little: hold it firm | Seen on 2026-02-17. Roots that are moved tear as they grow: wires, where, and over which roots, before all else. | rocks a little | replant",
			  "rest: 105 now A-1 | Water it: 400 ml, slowly, over the whole surface |  90 % dry today; between 2026-04-16 and 2026-04-20, by what is known of its roots. | 90 % dry | aftercare, 0.4 L",
			  "rest: 73.28571428571429 due A-1 | Its water is not known: lift it or feel it now | Nobody wrote down a watering or a feel since 2026-01-01, nor a weight that tells how dry it is. | not known | aftercare",
			  "rest: 64.28571428571429 due A-1 | Its water is not known: lift it or feel it now | It was last known on 2026-03-05, when it was poured, weighed or felt. It may be dry from 2026-04-25 on. | 44 days | aftercare",
			  "rest: 63 due A-1 | Lift it | Planned for 2026-04-15. | 3 days late | replant",
			  "rest: 55.142857142857146 due A-1 | Heeled in: pot or plant all 12 of them in their window | Heeled in since 2026-04-17; their place there is for days or weeks, not for seasons. | 1 day | replant",
			]
		`);
	});
});

describe('lines that are known already', () => {
	const values = defaultValues;
	it('are those of the tree, the day and the numbers they were made for, and of nothing else', () => {
		const one = entry({ lastLookOn: '2026-01-01' });
		const said = (of: TodayTree, on: string, numbers = values): string =>
			JSON.stringify(todayItems([of], on, numbers));
		const fresh = (on: string, numbers = values): string => said(structuredClone(one), on, numbers);
		const other = { ...values, 'today.rank.unseen': values['today.rank.unseen'] + 7 };
		for (const [on, numbers] of [
			['2026-04-18', values],
			['2026-04-18', values],
			['2026-05-20', values],
			['2026-05-20', other],
			['2026-04-18', other],
			['2026-04-18', values]
		] as const)
			expect(said(one, on, numbers)).toBe(fresh(on, numbers));
		expect(fresh('2026-04-18')).not.toBe(fresh('2026-04-18', other));
		expect(fresh('2026-04-18')).not.toBe(fresh('2026-05-20'));
	});
});
