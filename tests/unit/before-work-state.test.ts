import { addDays } from '$core/maths/calendar';
import { shippedKinds } from '$core/vocabulary/shipped';
import { placeSchema } from '$core/vocabulary/place';
import { examinationSchema } from '$core/examine/diagnosis/examination';
import { survival, triageSchema } from '$core/examine/triage/triage';
import { triageSubjectOf } from '$core/tree/before-work';
import { rotKnown, rotLeft } from '$core/tree/rot-known';
import { urgentOf } from '$core/tree/urgent';
import { conditionIds, conditionOf } from '$core/vocabulary/conditions';
import { defaultValues as values } from '$core/values/values';
import { BeforeWorkState } from '$views/examine/before-work-state.svelte';
import { describe, expect, it } from 'vitest';
import { cut, treeRecords } from '../records';
import type { Cut } from '$core/roots/plan/plan';

const today = '2026-04-18';
const hornbeam = shippedKinds.find((kind) => kind.id === 'carpinus');
if (!hornbeam) throw new Error('no hornbeam');
const kind = { ...hornbeam, origin: 'shipped' as const, version: 1 };
const place = placeSchema.parse({
	id: 'p',
	version: 1,
	name: 'Hill',
	kind: 'open',
	latitudeDeg: 52,
	note: ''
});
const look = (examinedOn: string, findings: readonly { signId: string; grade: number }[]) =>
	examinationSchema.parse({ id: `e-${examinedOn}`, version: 1, examinedOn, findings, note: '' });
const decided = (change: object) =>
	triageSchema.parse({
		id: 't',
		version: 1,
		decidedOn: today,
		purpose: 'lift',
		vitality: 'fair',
		permission: 'written',
		pests: 'none',
		decision: 'go',
		note: '',
		...change
	});
const state = (change: Parameters<typeof treeRecords>[0] = {}, on = today) =>
	new BeforeWorkState({ records: treeRecords(change), kind, place, values, today: on });
const inGround = { tree: { ...treeRecords().tree, situation: 'in-ground' as const, trunkDiameterMm: 60 } };

describe('a look before the work', () => {
	it('begins with what was told lately and asks anew for what is older', () => {
		const told = decided({
			decidedOn: addDays(today, -3),
			scratchAlive: true,
			servicesLocated: true,
			helpers: 2,
			rootsKept: 0.2
		});
		const lately = state({ ...inGround, triages: [told] });
		expect(lately.typed).toMatchObject({
			purpose: 'lift',
			scratchAlive: true,
			servicesLocated: true,
			pests: 'none',
			helpers: 2,
			rootsKept: 0.2
		});
		const later = state({ ...inGround, triages: [told] }, addDays(today, values['triage.new-look-days'] + 4));
		expect(later.typed).toMatchObject({
			scratchAlive: null,
			servicesLocated: null,
			pests: 'unknown',
			rootsKept: 0.2
		});
		expect(lately.stale).toBeNull();
		expect(later.stale?.id).toBe('t');
	});
	it('is to lift a small tree in the ground, and to treat one in a pot or one that may hurt someone', () => {
		expect(state(inGround).lifting).toBe(true);
		expect(state().lifting).toBe(false);
		expect(state({ tree: { ...inGround.tree, trunkDiameterMm: 900 } }).lifting).toBe(false);
	});
	it('counts what belongs to lifting only while it is lifted, and keeps it typed', () => {
		const one = state(inGround);
		Object.assign(one.typed, {
			ballDiameterMm: 900,
			ballDepthMm: 400,
			rootsKept: 0.3,
			servicesLocated: false
		});
		expect(one.advice?.mass?.usualKg).toBeGreaterThan(100);
		one.typed.purpose = 'treat';
		expect(one.look).toMatchObject({
			ballDiameterMm: null,
			ballDepthMm: null,
			rootsKept: null,
			servicesLocated: null
		});
		expect(one.advice?.mass).toBeNull();
		one.typed.purpose = 'lift';
		expect(one.look.ballDiameterMm).toBe(900);
	});
	it('says nothing while something in it cannot be', () => {
		const one = state(inGround);
		one.typed.ballDiameterMm = 3;
		expect(one.advice).toBeNull();
		expect(one.checked.error?.issues[0]?.path).toEqual(['ballDiameterMm']);
	});
});

describe('a decision', () => {
	it('holds while its advice does, and is asked for anew when the advice turns', () => {
		const one = state(inGround);
		Object.assign(one.typed, {
			vitality: 'strong',
			scratchAlive: true,
			protectedSpecies: false,
			servicesLocated: true,
			permission: 'written',
			pests: 'none',
			rootsKept: 0.2
		});
		const before = one.advice?.decision;
		one.decide('go');
		expect([one.decision, one.turned]).toEqual(['go', false]);
		one.typed.protectedSpecies = true;
		expect(one.advice?.decision).not.toBe(before);
		expect([one.decision, one.turned]).toEqual(['', true]);
		one.typed.protectedSpecies = false;
		expect(one.decision).toBe('go');
		one.kept();
		expect([one.decision, one.turned]).toEqual(['', false]);
	});
});

describe('rot before the work', () => {
	const rotten = look('2026-04-01', [
		{ signId: 'sour-smell', grade: 1 },
		{ signId: 'roots-dark-soft', grade: 1 }
	]);
	const mapped = treeRecords().rootMap;
	if (!mapped) throw new Error('the example has a map of its roots');
	const roots = (change: object) => ({
		...mapped,
		segments: mapped.segments.map((segment) => ({ ...segment, ...change }))
	});
	const dead = roots({ condition: 'dead', deadFromMm: 0, doubtfulFromMm: null });
	const sound = roots({ condition: 'sound', deadFromMm: null, doubtfulFromMm: null });
	it('is known by roots laid open too: dead ones count, sound ones are none, covered ones tell nothing', () => {
		const known = (rootMap: typeof sound | null, examinations: (typeof rotten)[] = [], on = today) =>
			rotKnown(treeRecords({ examinations, rootMap }), on, values);
		expect(known(dead)).toEqual({ on: mapped.mappedOn, by: 'map', chance: values['forecast.rotChance'] });
		expect(known(dead, [], addDays(mapped.mappedOn, -1))).toBeNull();
		expect(known(sound)).toEqual({ on: mapped.mappedOn, by: 'map', chance: 0 });
		expect(known(roots({ condition: 'sound', deadFromMm: null, seenToMm: 0 }))).toBeNull();
		const worse = known(sound, [rotten])?.chance ?? 0;
		expect(worse).toBe(known(null, [rotten])?.chance);
		const both = known(dead, [rotten])?.chance ?? 0;
		expect(both).toBe(Math.max(worse, values['forecast.rotChance']));
		expect(known(sound, [rotten])?.by).toBe('look');
	});
	it('that was cut out is not known to be gone, and counts no more by the old map', () => {
		const first = dead.segments[0];
		if (!first) throw new Error('a map without a root');
		const one = {
			...sound,
			segments: sound.segments.map((segment) =>
				segment.id === first.id
					? { ...segment, condition: 'dead' as const, deadFromMm: 60, fineScore: 2 as const }
					: segment
			)
		};
		const known = (cuts: Cut[], change: object = {}) =>
			rotLeft(treeRecords({ examinations: [], rootMap: one, ...change }, cuts), today, values);
		const at = (atMm: number, doneOn: string | null) => [{ ...cut(first.id, 0, doneOn), atMm }];
		expect(known([])?.by).toBe('map');
		expect(known(at(60, null))?.by).toBe('map');
		expect(known(at(60, '2025-03-01'))).toEqual({ on: '2025-03-01', by: 'cut-out', chance: null });
		expect(known(at(0, '2025-03-01'))?.by).toBe('cut-out');
		// Beyond the dead wood nothing of it is off; a cut that is still to come is none.
		expect(known(at(61, '2025-03-01'))?.by).toBe('map');
		expect(known(at(60, addDays(today, 1)))?.by).toBe('map');
		// Who looked knows.
		expect(known(at(60, '2025-03-01'), { examinations: [rotten] })?.by).toBe('look');
		const before = state({ examinations: [], rootMap: null }).subject.rotChance;
		expect([
			before,
			new BeforeWorkState({
				records: treeRecords({ examinations: [], rootMap: one }, at(60, '2025-03-01')),
				kind,
				place,
				values,
				today
			}).subject.rotChance
		]).toEqual([null, null]);
	});
	it('is not known where nobody looked, and known from the last look up to the day', () => {
		expect(rotKnown(treeRecords({ examinations: [], rootMap: null }), today, values)).toBeNull();
		expect(state({ examinations: [], rootMap: null }).subject.rotChance).toBeNull();
		const records = treeRecords({ examinations: [rotten], rootMap: null });
		expect(rotKnown(records, '2026-03-31', values)).toBeNull();
		expect(rotKnown(records, today, values)).toMatchObject({ on: '2026-04-01' });
		expect(rotKnown(records, today, values)?.chance).toBeGreaterThan(0.3);
	});
	it('that nobody looked for never stands better than none found, and widens the range', () => {
		const one = state();
		const chance = (rotChance: number | null) => survival(one.look, { ...one.subject, rotChance }, values);
		const [none, unknown, sure] = [chance(0), chance(null), chance(1)];
		expect(unknown.chance).toBeLessThan(none.chance);
		expect(sure.chance).toBeLessThan(unknown.chance);
		const odds = (share: number) => Math.log(share / (1 - share));
		expect(odds(unknown.high) - odds(unknown.low)).toBeGreaterThan(odds(none.high) - odds(none.low) + 0.01);
		expect(unknown.factors.find((factor) => factor.label === 'chance of rot')?.known).toBe(false);
		expect(odds(none.chance) - odds(unknown.chance)).toBeCloseTo(
			-values['triage.rot'] * values['triage.rot-unknown'],
			9
		);
	});
});

describe('a protected species or site', () => {
	it('is asked about before a lift, not of what is treated in its pot, and an answer stays in sight', () => {
		const potted = state({ tree: { ...treeRecords().tree, situation: 'potted' }, triages: [] });
		expect(potted.typed).toMatchObject({ purpose: 'treat', protectedSpecies: null });
		expect(potted.asksProtected).toBe(false);
		expect(potted.advice?.reasons.some(({ text }) => /protected/.test(text))).toBe(false);
		potted.typed.purpose = 'lift';
		expect(potted.asksProtected).toBe(true);
		potted.typed.protectedSpecies = true;
		potted.typed.purpose = 'treat';
		expect(potted.asksProtected).toBe(true);
		expect(potted.advice?.decision).toBe('leave');
		const growing = state({ tree: { ...treeRecords().tree, situation: 'in-ground' }, triages: [] });
		growing.typed.purpose = 'treat';
		expect(growing.asksProtected).toBe(true);
	});
});

describe('what presses before the work', () => {
	const rotten = look(today, [
		{ signId: 'roots-dark-soft', grade: 1 },
		{ signId: 'sour-smell', grade: 2 },
		{ signId: 'wilts-wet', grade: 1 }
	]);
	it('is what work answers, and leaves no time to nurse', () => {
		const { subject, advice } = state({ examinations: [rotten], plantings: [] });
		expect(subject.pressing?.subject).toBe('Root rot is');
		expect(advice?.nursed).toBeNull();
	});
	it('is nothing that care answers, or that wants its roots left alone', () => {
		const pressing = (...signs: [signId: string, grade: number][]) => {
			const examinations = [
				look(
					today,
					signs.map(([signId, grade]) => ({ signId, grade }))
				)
			];
			const records = treeRecords({ examinations, plantings: [] });
			const urgent = urgentOf(records, today, values);
			return [urgent?.conditionId, triageSubjectOf(records, kind, place, today, values).pressing?.subject];
		};
		expect(pressing(['watered-as-before', 1], ['decline-after-work', 1], ['stays-wet', 2])).toEqual([
			'repotted-too-early',
			undefined
		]);
		expect(pressing(['insects-seen', 1], ['sticky-leaves', 1])).toEqual(['pest', undefined]);
		expect(pressing(['watered-as-before', 1], ['decline-after-work', 1], ['pot-too-wide', 1])).toEqual([
			'over-potting',
			'Over-potting is'
		]);
	});
	it('is at the roots, at pot or mix for no cause that wants its roots left alone', () => {
		for (const id of conditionIds)
			if (conditionOf(id).asks?.roots === 'leave') expect(conditionOf(id).atRoots, id).toBe(false);
	});
});
