import { describe, expect, it } from 'vitest';
import { examinationSchema } from '$core/examine/diagnosis/examination';
import { observationSchema } from '$core/examine/looks/observation';
import { groundPlanSchema } from '$core/replant/ground/ground-plan';
import type { Holding } from '$core/replant/pots/seat';
import type { TreeRecords } from '$core/tree/case';
import { movesOf, setSince, sinceParts, tiedNow } from '$core/tree/held';
import { taskSchema } from '$core/vocabulary/task';
import { standingSentence } from '$core/tree/line-of-care';
import { standingOf } from '$core/tree/standing';
import { defaultValues as values } from '$core/values/values';
import { plantingOn, seatHeldBy, treeRecords } from '../records';

const set = (on: string, holding: Holding) => plantingOn(on, { seat: seatHeldBy(holding) }, `p-${on}`);
const examined = (examinedOn: string, grade: number) =>
	examinationSchema.parse({
		id: `e-${examinedOn}`,
		version: 1,
		examinedOn,
		findings: [{ signId: 'leans-rocks', grade }]
	});
const looked = (observedOn: string, firmness: 'firm' | 'moves' | 'loose') =>
	observationSchema.parse({ id: `o-${observedOn}`, version: 1, observedOn, firmness });
const held = (change: Partial<TreeRecords>): string | null => {
	const records = treeRecords({ rootMap: null, plan: null, plantings: [], ...change });
	return sinceParts(setSince(records, standingOf(records, '2026-05-01', values))).heldOn ?? null;
};

describe('a tree that rocked', () => {
	const rocked = [examined('2026-04-20', 1)];
	it('is held since it was wired or weighed down with stones, the same day or later', () => {
		for (const on of ['2026-04-20', '2026-04-25'])
			for (const holding of ['wires', 'stones'] as const)
				expect(held({ examinations: rocked, plantings: [set(on, holding)] })).toBe(on);
	});
	it('is not by its own stance, by ties of before, by those of an earlier pot, or where nothing was done', () => {
		expect(held({ examinations: rocked, plantings: [set('2026-04-20', 'own-stance')] })).toBeNull();
		expect(held({ examinations: rocked, plantings: [set('2026-04-19', 'wires')] })).toBeNull();
		expect(
			held({ examinations: rocked, plantings: [set('2026-04-21', 'wires'), set('2026-04-25', 'own-stance')] })
		).toBeNull();
		expect(held({ examinations: rocked })).toBeNull();
	});
	it('is held by stakes and guys in the ground as by ties in a pot, by what it was set with last', () => {
		const work = (doneOn: string | null, by: 'stakes' | 'guys' | null, planted = true) =>
			groundPlanSchema.parse({
				id: `g-${doneOn ?? ''}`,
				version: 1,
				plannedOn: '2026-04-25',
				doneOn,
				...(planted && { hole: { widthMm: 900, depthMm: 350, ballDiameterMm: 450, ballDepthMm: 350 } }),
				...(by === null ? { mulch: { innerM: 0.1, outerM: 1, depthMm: 75 } } : { holding: { by } })
			});
		const of = (...groundPlans: ReturnType<typeof work>[]) => held({ examinations: rocked, groundPlans });
		for (const planted of [true, false])
			for (const by of ['stakes', 'guys'] as const)
				expect(of(work('2026-04-25', by, planted))).toBe('2026-04-25');
		expect(of(work('2026-04-25', null))).toBeNull();
		expect(of(work(null, 'stakes'))).toBeNull();
		// Mulch alone sets nothing, and leaves what held it.
		expect(of(work('2026-04-25', 'stakes'), work('2026-04-27', null, false))).toBe('2026-04-25');
		expect(of(work('2026-04-25', 'stakes'), work('2026-04-27', null))).toBeNull();
		const wired = [set('2026-04-21', 'wires')];
		const after = (on: string) =>
			held({ examinations: rocked, plantings: wired, groundPlans: [work(on, null)] });
		expect(after('2026-04-25')).toBeNull();
		expect(after('2026-04-20')).toBe('2026-04-21');
	});
	it('found loose again after the work of that day, or firm, is no more', () => {
		const plantings = [set('2026-04-20', 'wires')];
		expect(held({ plantings, observations: [looked('2026-04-20', 'moves')] })).toBeNull();
		expect(
			held({ examinations: rocked, plantings, observations: [looked('2026-04-22', 'loose')] })
		).toBeNull();
		expect(
			held({ examinations: rocked, plantings, observations: [looked('2026-04-22', 'firm')] })
		).toBeNull();
		expect(held({ plantings })).toBeNull();
	});
});

it('is said at the head of the tree as on the lists', () => {
	const head = (change: Partial<TreeRecords>): string => {
		const records = treeRecords({ rootMap: null, plan: null, plantings: [], tasks: [], ...change });
		const standing = standingOf(records, '2026-05-01', values);
		const facts = { looks: [], functionLow: [], evergreen: false, gate: null, closed: [] };
		return standingSentence(
			records,
			'2026-05-01',
			{ facts, urgent: null, check: null, waits: null, standing },
			values
		).next;
	};
	const examinations = [examined('2026-04-20', 1)];
	expect(head({ examinations })).toBe('It rocks a little: hold it firm');
	expect(head({ examinations, plantings: [set('2026-04-20', 'wires')] })).toBe(
		'Held since 2026-04-20: try whether it stands firm'
	);
	// Set anew on its own stance, what rocked before is tried again: nobody saw it rock there.
	expect(head({ examinations, plantings: [set('2026-04-25', 'own-stance')] })).toBe(
		'Set anew on 2026-04-25: try whether it stands firm'
	);
	expect(head({ examinations, plantings: [set('2026-04-19', 'own-stance')] })).toBe(
		'It rocks a little: hold it firm'
	);
	expect(
		head({ observations: [looked('2026-04-25', 'moves')], plantings: [set('2026-04-25', 'own-stance')] })
	).toBe('It rocks a little: hold it firm');
	const firm = treeRecords({ rootMap: null, plan: null, observations: [looked('2026-04-20', 'firm')] });
	expect(movesOf(firm, standingOf(firm, '2026-05-01', values))).toBeNull();
});

describe('what holds a tree', () => {
	const off = (source: string, state: 'open' | 'done' | 'skipped' = 'open') =>
		taskSchema.parse({
			id: 'off',
			version: 1,
			kind: 'other',
			title: 'Off',
			reason: '',
			fromOn: '2027-04-20',
			toOn: '2027-05-20',
			source,
			state,
			closedOn: state === 'open' ? null : '2027-04-21',
			skipReason: '',
			result: ''
		});
	const tied = (holding: Holding, tasks: TreeRecords['tasks']) =>
		tiedNow(treeRecords({ plantings: [set('2026-04-20', holding)], tasks }));
	it('holds it until it came off', () => {
		for (const rule of ['ties-off', 'stones-off', 'ground.ties-off']) {
			expect(tied('wires', [off(`${rule}@x`)]), rule).toEqual({
				on: '2026-04-20',
				untilOn: '2027-04-20',
				offOn: null
			});
			expect(tied('wires', [off(`${rule}@x`, 'skipped')]), rule).toBeNull();
			// Stakes come off when it was tried by itself; what is loosened in a pot is tried afterwards.
			expect(tied('wires', [off(`${rule}@x`, 'done')])?.offOn ?? null, rule).toBe(
				rule === 'ground.ties-off' ? null : '2027-04-21'
			);
		}
		expect(tied('wires', [off('ties@x')])).toBeNull();
		expect(tied('wires', [])).toBeNull();
		expect(tied('own-stance', [off('ties-off@x')])).toBeNull();
		// What came off before it was held anew says nothing.
		const again = { ...off('ties-off@x', 'done'), closedOn: '2026-04-19' };
		expect(tied('wires', [again])).toBeNull();
		expect(tied('wires', [again, off('stones-off@x')])?.offOn).toBeNull();
	});
});
