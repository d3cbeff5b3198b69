import { describe, expect, it } from 'vitest';
import { addDays } from '$core/maths/calendar';
import { liftDay } from '$core/replant/lifting/lift-day';
import { liftSchema } from '$core/replant/lifting/lift';
import { endSaid, endsOnceSet, leftOf, liftTasks } from '$core/replant/lifting/lift-tasks';
import { createFormat, defaultFormatSettings } from '$core/text/format';
import { triageSchema } from '$core/examine/triage/triage';
import { shippedKinds } from '$core/vocabulary/shipped';
import { placeSchema } from '$core/vocabulary/place';
import { standingOf } from '$core/tree/standing';
import { defaultValues as values } from '$core/values/values';
import { LiftState, type LiftOf } from '$views/replant/lift-state.svelte';
import { treeRecords } from '../records';

const whole = treeRecords();
const kind = { ...whole.kind, origin: 'shipped' as const, version: 1 };
const placeAt = (latitudeDeg: number) =>
	placeSchema.parse({ id: 'p', version: 1, name: 'Bank', kind: 'open', latitudeDeg });
const place = placeAt(52);
const tree = { ...whole.tree, situation: 'in-ground' as const, trunkDiameterMm: 60 };
const records = (told: object = {}) =>
	treeRecords({ tree, rootMap: null, plan: null, examinations: [], ...told });
const of = (change: Partial<LiftOf> = {}): LiftOf => ({
	tree,
	kind,
	place,
	values,
	today: '2026-03-01',
	thickestMm: 0,
	mapBefore: null,
	lifts: [],
	tasks: [],
	known: standingOf(records(), '2026-03-01', values),
	helpers: 0,
	stopped: false,
	...change
});
const planned = (change: object = {}) =>
	liftSchema.parse({
		id: 'l',
		version: 3,
		plannedOn: '2026-03-20',
		school: 'nursery',
		reading: 'each-side',
		ballDiameterMm: 512,
		ballDepthMm: 333,
		people: 3,
		route: new LiftState(of()).route,
		ticks: ['hands'],
		log: null,
		...change
	});

describe('the day that a lift is planned for', () => {
	const saidOf = (plannedOn: string, change: Partial<LiftOf> = {}) => {
		const state = new LiftState(of(change));
		state.plannedOn = plannedOn;
		return state;
	};
	it('is told where it lies outside the windows, or at their edge, and not where it is over or there is none', () => {
		expect(saidOf('2026-12-20').plannedDay).toBe('');
		expect(saidOf('2026-07-15').plannedDay).toBe(
			`That day lies outside the windows of ${kind.commonName} here`
		);
		const end = new LiftState(of()).day.windows[0]?.to ?? '';
		expect(saidOf(end).plannedDay).toBe('');
		expect(saidOf(addDays(end, 1)).plannedDay).toContain('at the edge of');
		expect(saidOf('2026-07-15', { today: '2026-07-16' }).plannedDay).toBe('');
		expect(saidOf('').plannedDay).toBe('');
		expect(saidOf('2026-07-15', { today: '2026-07-15' }).plannedDay).toContain('outside');
	});
	it('is no matter once it is out of the ground', () => {
		const state = saidOf('2026-07-15');
		state.beginLog();
		expect(state.plannedDay).toBe('');
	});
});

describe('whether a day will do for a lift', () => {
	const day = (on: string, change: object = {}, at = place) =>
		liftDay({ kind, place: at, leafy: false, newShoots: 'none', stopped: false, ...change }, on, values);
	it('goes by the window, and a day that is stopped is never told as good', () => {
		expect(day('2026-12-20')).toMatchObject({ fit: 'in-window', answer: 'Today will do' });
		expect(day('2026-07-15')).toMatchObject({
			fit: 'out-of-window',
			answer: 'Not today, unless it cannot wait'
		});
		for (const on of ['2026-12-20', '2026-04-18', '2026-07-15'])
			expect(day(on, { stopped: true }).answer).toMatch(/not today/i);
	});
	it('says of leaves what is so, and warns of a cold night it would not stand', () => {
		expect(day('2026-07-15', { leafy: true }).reasons[0]).toMatch(/in leaf/);
		expect(day('2026-12-20').reasons[0]).toBe('it is leafless now');
		// A larch is a conifer and stands bare all the same.
		const larch = shippedKinds.find(({ genus }) => genus === 'Larix');
		expect(day('2026-12-20', { kind: larch }).reasons[0]).toBe('it is leafless now');
		const pine = shippedKinds.find(({ genus }) => genus === 'Pinus');
		expect(day('2026-12-20', { kind: pine }).reasons[0]).toMatch(/keeps its leaves/);
		expect(day('2026-12-20').reasons.at(-1)).toMatch(
			/and it stands \S+ °C\S*, with roots freshly cut: keep it from that$/
		);
		expect(day('2026-07-15').reasons.at(-1)).toMatch(/^nights are about/);
	});
	it('a hot day is said to be too hot, at the limit that is set', () => {
		expect(day('2026-07-15').reasons.join()).not.toMatch(/too hot/);
		const cool = liftDay({ kind, place, leafy: true, newShoots: 'none', stopped: false }, '2026-07-15', {
			...values,
			'lifting.hot-C': 5
		});
		expect(cool.reasons.join()).toMatch(/too hot, lift at dawn or wait/);
	});
	it('half a year on, south of the line, it says the same', () => {
		const north = day('2026-01-15');
		const south = day('2026-07-16', {}, placeAt(-52));
		expect([south.fit, south.answer]).toEqual([north.fit, north.answer]);
	});
	it('names windows that run or lie ahead, and none that is over', () => {
		for (const on of ['2026-01-10', '2026-06-10', '2026-11-30'])
			for (const span of day(on).windows) expect(span.to >= on).toBe(true);
	});
});

describe('a lift in the making', () => {
	it('takes up the plan that was kept, whole', () => {
		const state = new LiftState(of({ lifts: [planned()] }));
		expect(state.draft).toMatchObject({
			plannedOn: '2026-03-20',
			school: 'nursery',
			reading: 'each-side',
			ballDiameterMm: 512,
			ballDepthMm: 333,
			people: 3,
			ticks: ['hands']
		});
		expect(state.open?.version).toBe(3);
	});
	it('a log that was begun comes back as it was left, and what cannot be read of it as it begins', () => {
		const left = new LiftState(of());
		left.beginLog();
		if (!left.log) throw new Error('no log');
		Object.assign(left.log, {
			massKg: 58,
			note: 'Heavy clay',
			assumed: ['ballDepthMm'],
			cutRoots: [{ azimuthDeg: 60, diameterMm: 14, how: 'saw' }]
		});
		const back = (text: string) => {
			const state = new LiftState(of());
			state.takeBackLog(text);
			return state.log;
		};
		expect(back(JSON.stringify(left.log))).toEqual(left.log);
		// One field that was cleared, or is beyond its bounds, loses none of the others.
		const broken = { ...left.log, ballDiameterMm: null, outMinutes: -5, strange: 1 };
		expect(back(JSON.stringify(broken))).toEqual(left.log);
		expect(back('null')).toBeNull();
	});

	it('follows the school until somebody sets a size, and again when another is asked', () => {
		const state = new LiftState(of());
		const { leastDiameterMm, mostDiameterMm } = state.size;
		expect(state.diameterMm).toBe(Math.round((leastDiameterMm + mostDiameterMm) / 2));
		state.chosenMm = 700;
		state.chosenDepthMm = 310;
		expect([state.diameterMm, state.depthMm]).toEqual([700, 310]);
		const before = state.mass.usualKg;
		state.reckonBy({ school: 'nursery' });
		expect([state.school, state.chosenMm, state.chosenDepthMm]).toEqual(['nursery', null, null]);
		expect(state.mass.usualKg).not.toBe(before);
	});
	it('begins with the ball and the hands that were meant before the work, and says so; a plan goes before it', () => {
		const meant = triageSchema.parse({
			id: 't',
			version: 1,
			decidedOn: '2026-02-20',
			purpose: 'lift',
			vitality: 'fair',
			pests: 'unknown',
			machine: false,
			dyingInPlace: false,
			permission: 'own',
			ballDiameterMm: 700,
			ballDepthMm: 350,
			decision: 'go'
		});
		const told = (lifts: ReturnType<typeof planned>[] = []) => {
			const known = standingOf(records({ triages: [meant], lifts }), '2026-03-21', values);
			return { known, lifts, helpers: 3 };
		};
		const state = new LiftState(of(told()));
		expect([state.diameterMm, state.depthMm, state.people]).toEqual([700, 350, 4]);
		expect(state.meant).toEqual({ widthMm: 700, depthMm: 350, on: '2026-02-20' });
		expect(state.begunMm).toEqual({ width: 700, depth: 350 });
		expect(new LiftState(of({ lifts: [planned({ ballDiameterMm: 900 })] })).begunMm.width).toBe(900);
		expect(new LiftState(of()).begunMm).toEqual({ width: 0, depth: 0 });
		// Meant is not measured.
		expect(state.of.known.ballWidthMm).toMatchObject({ known: 'assumed', by: 'as meant before the work' });
		const open = new LiftState(of(told([planned()])));
		expect([open.diameterMm, open.people, open.meant]).toEqual([512, 3, null]);
		expect(open.of.known.ballWidthMm).toMatchObject({
			value: 512,
			by: 'as its lift is planned',
			known: 'assumed'
		});
		const unsaid = new LiftState(of({ known: standingOf(records(), '2026-03-21', values) }));
		expect([unsaid.meant, unsaid.people]).toEqual([null, 2]);
		// What is in a pot is no more as it was meant in the ground.
		const potted = standingOf(
			records({ triages: [meant], tree: { ...tree, situation: 'potted' } }),
			'2026-03-21',
			values
		);
		expect(potted.ballWidthMm.value).toBeNull();
		const treated = standingOf(records({ triages: [{ ...meant, purpose: 'treat' }] }), '2026-03-21', values);
		expect(treated.ballWidthMm.value).toBeNull();
	});
	it('fewer hands than it takes are said; a machine needs none', () => {
		const state = new LiftState(of());
		state.people = state.usual.people - 1;
		expect(state.tooFewHands).toBe(true);
		state.people = state.usual.people;
		expect(state.tooFewHands).toBe(false);
		state.chosenMm = 2500;
		state.chosenDepthMm = 1200;
		state.people = 1;
		expect(state.usual.way).toBe('barrow or machine');
		expect(state.tooFewHands).toBe(false);
	});
	it('the sizes of a log begun from the plan are assumed, never measured', () => {
		const state = new LiftState(of({ lifts: [planned({ ticks: ['hole'] })] }));
		expect(state.kept).toBeNull();
		state.beginLog();
		expect(state.log).toMatchObject({
			liftedOn: '2026-03-01',
			ballDiameterMm: 512,
			assumed: ['ballDiameterMm', 'ballDepthMm'],
			outMinutes: null,
			backfilled: true
		});
		expect(state.kept?.share).toBeGreaterThan(0);
	});
	it('a step told elsewhere is ticked with its day, until the tick is taken off; no tick is kept twice', () => {
		const known = {
			...of().known,
			permission: { ...of().known.permission, value: 'written' as const, on: '2026-02-03' },
			protectedSpecies: { ...of().known.protectedSpecies, value: false, on: '2026-02-03' }
		};
		const state = new LiftState(of({ known }));
		expect(state.ticks).toContain('permission');
		expect(state.toldOn('permission')).toBe('2026-02-03');
		state.tick('permission', false);
		expect(state.toldOn('permission')).toBeNull();
		state.tick('hands', true);
		state.tick('hands', true);
		expect(state.ticks.filter((id) => id === 'hands')).toHaveLength(1);
		expect(state.toldOn('hands')).toBeNull();
	});
	it('one that was done is not taken for the plan of another', () => {
		const log = { liftedOn: '2026-02-20', ballDiameterMm: 500, ballDepthMm: 300 };
		const state = new LiftState(of({ lifts: [planned({ log })] }));
		expect(state.open).toBeNull();
		expect(state.done).toHaveLength(1);
		expect(state.draft.log).toBeNull();
	});
});

describe('what a lift leaves behind', () => {
	const lift = (log: object) => {
		const parsed = liftSchema.parse({
			id: 'l',
			version: 1,
			plannedOn: '2026-03-01',
			school: 'field',
			reading: 'across',
			ballDiameterMm: 400,
			ballDepthMm: 300,
			route: {},
			ticks: [],
			log: { liftedOn: '2026-03-01', ballDiameterMm: 400, ballDepthMm: 300, ...log }
		});
		if (!parsed.log) throw new Error('a log was expected');
		return parsed.log;
	};
	const ends = [
		{ azimuthDeg: 120, diameterMm: 30, how: 'torn' },
		{ azimuthDeg: 270, diameterMm: 20, how: 'saw' },
		{ azimuthDeg: 0, diameterMm: 12, how: 'axe' }
	];
	it('is an open hole and ragged ends, and nothing of what was seen to at once', () => {
		const rules = (log: object) => liftTasks(lift(log), '2026-03-01').map(({ source }) => source);
		expect(rules({ cutRoots: ends })).toEqual(['hole@2026-03-01', 'clean@2026-03-01']);
		expect(rules({ cutRoots: ends, backfilled: true })).toEqual(['clean@2026-03-01']);
		expect(rules({ cutRoots: [ends[1]], backfilled: true })).toEqual([]);
		const [, clean] = liftTasks(lift({ cutRoots: ends }), '2026-03-01');
		expect(createFormat(defaultFormatSettings).withMeasures(clean?.reason ?? '')).toMatch(
			/^30 mm at 4:00 and 12 mm at 12:00\. /
		);
		expect(clean?.minutes).toBe(20);
	});
	it('is due on the day it is written down, where the lift was some days ago', () => {
		const days = (today: string) => liftTasks(lift({}), today).map(({ fromOn, toOn }) => [fromOn, toOn]);
		expect(days('2026-03-01')).toEqual([['2026-03-01', '2026-03-01']]);
		expect(days('2026-03-05')).toEqual([['2026-03-01', '2026-03-05']]);
		expect(days('2026-02-20')).toEqual([['2026-03-01', '2026-03-01']]);
	});
	it('ragged ends that went in are asked for: nobody is sent to cut them in the soil', () => {
		const log = lift({ cutRoots: ends });
		const asked = endsOnceSet(log, '2026-03-02', '2026-03-05', values);
		if (!asked) throw new Error('ends were expected');
		expect(asked.title).toBe('Were the torn and chopped ends cut clean before it was set?');
		expect(createFormat(defaultFormatSettings).withMeasures(asked.reason)).toMatch(
			/^30 mm at 4:00 and 12 mm at 12:00\. It was set on 2026-03-02, /
		);
		const until = values['lifting.endsAskedDays'];
		expect([asked.fromOn, asked.toOn]).toEqual(['2026-03-02', addDays('2026-03-05', until)]);
		expect(endsOnceSet(log, '2026-03-09', '2026-03-05', values)?.toOn).toBe(addDays('2026-03-09', until));
		expect(liftTasks(log, '2026-03-01').map(({ source }) => source)).toContain(asked.source);
		expect(endsOnceSet(lift({ cutRoots: [ends[1]] }), '2026-03-02', '2026-03-05', values)).toBeNull();
	});
	it('is told as it stands since: only what was done counts, not what was skipped', () => {
		const of = (state: 'open' | 'done' | 'skipped', log: object = {}) =>
			leftOf(
				lift(log),
				['hole', 'clean'].map((rule) => ({ source: `${rule}@2026-03-01`, state, closedOn: '2026-03-02' }))
			);
		for (const state of ['open', 'skipped'] as const)
			expect(of(state)).toEqual({ hole: 'open', filledOn: null, cleanOn: null });
		expect(of('done')).toEqual({ hole: 'filled', filledOn: '2026-03-02', cleanOn: '2026-03-02' });
		expect(leftOf(lift({ backfilled: true }), [])).toEqual({ hole: 'filled', filledOn: null, cleanOn: null });
		expect(
			leftOf(lift({}), [{ source: 'hole@2026-02-01', state: 'done', closedOn: '2026-03-02' }]).hole
		).toBe('open');
		expect(endSaid('torn', null)).toBe('torn, to be cut clean');
		expect(endSaid('torn', '2026-03-02')).toBe('torn, cut clean on 2026-03-02');
		expect(endSaid('axe', '2026-03-02')).toBe('chopped with axe or spade, cut clean on 2026-03-02');
		expect(endSaid('saw', '2026-03-02')).toBe('sawn');
	});
});
