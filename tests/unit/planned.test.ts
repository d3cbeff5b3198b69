import { describe, expect, it } from 'vitest';
import type { TreeRecords } from '$core/tree/case';
import { liftSchema, stepsTold } from '$core/replant/lifting/lift';
import { emptyRoute } from '$core/replant/lifting/route';
import { addDays } from '$core/maths/calendar';
import { plannedWork as plannedOn } from '$core/tree/planned';
import { defaultValues as values } from '$core/values/values';
import { triageSchema } from '$core/examine/triage/triage';
import { cut, treeRecords } from '../records';

const lift = (log: object | null) =>
	liftSchema.parse({
		id: 'l',
		version: 1,
		plannedOn: '2025-03-05',
		school: 'field',
		reading: 'across',
		ballDiameterMm: 400,
		ballDepthMm: 300,
		route: emptyRoute,
		ticks: [],
		log
	});
const decided = (change: object = {}) =>
	triageSchema.parse({
		id: 'd',
		version: 1,
		decidedOn: '2025-02-20',
		purpose: 'lift',
		vitality: 'fair',
		permission: 'written',
		pests: 'unknown',
		decision: 'go',
		...change
	});
const grown = (change: Partial<TreeRecords> = {}): TreeRecords => {
	const base = treeRecords({ rootMap: null, plan: null, ...change });
	return { ...base, tree: { ...base.tree, situation: 'in-ground', ...change.tree } };
};

const plannedWork = (records: TreeRecords, on = '2025-02-25') => plannedOn(records, on, values);

describe('work that was planned or decided on', () => {
	it('is the decision until something has a day, and nothing once it was done', () => {
		expect(plannedWork(grown())).toEqual([]);
		const [go] = plannedWork(grown({ triages: [decided()] }));
		expect(go).toEqual({
			on: '2025-02-20',
			what: 'Lift it, as decided',
			stage: 'replant',
			undated: true
		});
		for (const decision of ['ask', 'nurse', 'leave'])
			expect(plannedWork(grown({ triages: [decided({ decision })] }))).toEqual([]);
		expect(plannedWork(grown({ triages: [decided({ purpose: 'treat' })] }))[0]?.what).toMatch(
			/^Treat it where it stands/
		);
		const planned = plannedWork(grown({ triages: [decided()], lifts: [lift(null)] }));
		expect(planned).toEqual([
			{ on: '2025-03-05', what: 'Lift it, as planned', stage: 'replant', undated: false }
		]);
		const log = { liftedOn: '2025-03-05', ballDiameterMm: 400, ballDepthMm: 300 };
		expect(plannedWork(grown({ triages: [decided()], lifts: [lift(log)] }))).toEqual([]);
		// Decided in the morning and lifted that day: done.
		expect(
			plannedWork(grown({ triages: [decided({ decidedOn: '2025-03-05' })], lifts: [lift(log)] }))
		).toEqual([]);
		// What is out of the ground already is not to be lifted, whatever was planned or decided.
		const base = treeRecords({ rootMap: null, plan: null });
		const out = { ...base, tree: { ...base.tree, situation: 'potted' as const } };
		expect(plannedWork({ ...out, lifts: [lift(null)] })).toEqual([]);
		expect(plannedWork({ ...out, triages: [decided()] })).toEqual([]);
		expect(
			plannedWork(grown({ triages: [decided({ decidedOn: '2025-03-06' })], lifts: [lift(log)] }))
		).toHaveLength(1);
	});
	it('a decision that is too old to work by asks for a new look, on the day that Today does', () => {
		const last = addDays('2025-02-20', values['triage.new-look-days']);
		const of = (on: string) => plannedWork(grown({ triages: [decided()] }), on)[0];
		expect(of(last)?.what).toBe('Lift it, as decided');
		expect(of(addDays(last, 1))).toMatchObject({
			what: 'Look again before the work: decided',
			stage: 'examine',
			undated: true
		});
	});
	it('of roots it is the first work; a later stage waits for its gate', () => {
		const of = (...cuts: ReturnType<typeof cut>[]) => plannedWork(treeRecords({}, cuts));
		expect(of(cut('r4', 0), cut('r5', 0), cut('r3', 1))).toEqual([
			{ on: '2025-02-10', what: 'Cut 2 roots, stage I', stage: 'roots', undated: false }
		]);
		expect(of(cut('r3', 1))[0]).toMatchObject({ on: '2026-11-10', what: 'Cut one root, stage II' });
		expect(of(cut('r4', 0, '2025-02-10'), cut('r3', 1))).toEqual([]);
		const closed = treeRecords({}, [cut('r4', 0)]);
		expect(plannedWork({ ...closed, tree: { ...closed.tree, state: 'dead' } })).toEqual([]);
	});
});

describe('steps of a lift that were told before', () => {
	it('are ticked by what is known, never by what is not', () => {
		const known = { permission: 'written', protectedSpecies: false, servicesLocated: true } as const;
		expect(stepsTold(known)).toEqual(['permission', 'services']);
		expect(stepsTold({ ...known, protectedSpecies: null })).toEqual(['services']);
		expect(stepsTold({ ...known, protectedSpecies: true })).toEqual(['services']);
		expect(stepsTold({ ...known, permission: 'not-yet' })).toEqual(['services']);
		expect(stepsTold({ ...known, servicesLocated: null })).toEqual(['permission']);
		expect(stepsTold({ ...known, servicesLocated: false })).toEqual(['permission']);
	});
});
