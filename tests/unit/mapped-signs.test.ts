import { describe, expect, it } from 'vitest';
import { examinationSchema } from '$core/examine/diagnosis/examination';
import { actedSince, actedWord, pressingOf } from '$core/tree/urgent';
import { foundLately, shownSince } from '$core/tree/carried';
import { claimOf } from '$core/roots/plan/claims';
import { girdlersStaged, signsMapped } from '$core/tree/mapped-signs';
import { defaultValues as values } from '$core/values/values';
import { segmentFromQuick, rootMapSchema, type RootFlaw } from '$core/roots/map/root-map';
import { parseQuickRoot } from '$core/roots/io/quick-entry';
import { cut, treeRecords } from '../records';

/** What was drawn on the map counts in a look: seen once, not asked twice; what nobody noted counts for nothing. */

const ON = '2025-03-01';
/** A map of roots by quick entry, the flaws of each, at a shallow depth. */
const mapOf = (roots: readonly { line: string; flaws?: RootFlaw[] }[], mappedOn = ON) =>
	rootMapSchema.parse({
		id: 'm',
		version: 1,
		mappedOn,
		frame: 'container',
		trunkDiameterMm: 80,
		ballRadiusMm: 180,
		segments: roots.map(({ line, flaws }, i) => {
			const entry = parseQuickRoot(line, 'container', 80, values);
			if (!entry.ok) throw new Error(entry.problem);
			return segmentFromQuick(
				{ ...entry.root, depthMm: 15, flaws: flaws ?? entry.root.flaws },
				{ trunkDiameterMm: 80, ballRadiusMm: 180 },
				`r${i}`
			);
		})
	});
const signs = (
	roots: Parameters<typeof mapOf>[0],
	{ on = ON, cuts = [] as { id: string; on: string }[], mappedOn = ON } = {}
) => {
	const records = treeRecords({ rootMap: mapOf(roots, mappedOn) });
	if (!records.plan) throw new Error('no plan');
	const plan = { ...records.plan, cuts: cuts.map((one) => cut(one.id, 0, one.on)) };
	return signsMapped({ ...records, plan }, on, values).map(({ signId, grade }) => [signId, grade]);
};
const sound = ['12 30', '3 30', '6 30', '9 30'].map((line) => ({ line }));
const girdled = [...sound, { line: '1 20', flaws: ['girdling'] as RootFlaw[] }];

describe('what the map shows as signs', () => {
	it('a map of which nothing was noted says nothing, and neither does none', () => {
		expect(signs(sound)).toEqual([]);
		expect(signsMapped(treeRecords({ rootMap: null }), ON, values)).toEqual([]);
	});

	it('a root that girdles is seen until it is cut, however long ago it was mapped; not before', () => {
		expect(signs(girdled)).toEqual([['girdler-seen', 1]]);
		expect(signs(girdled, { on: '2027-03-01' })).toEqual([['girdler-seen', 1]]);
		expect(signs(girdled, { on: '2025-02-28' })).toEqual([]);
		const cuts = [{ id: 'r4', on: '2025-04-01' }];
		expect(signs(girdled, { on: '2025-03-31', cuts })).toEqual([['girdler-seen', 1]]);
		expect(signs(girdled, { on: '2025-04-01', cuts })).toEqual([]);
		// Its tip cut off it girdles as before.
		const records = treeRecords({ rootMap: mapOf(girdled) });
		const plan = records.plan && { ...records.plan, cuts: [{ ...cut('r4', 0, ON), atMm: 60 }] };
		expect(signsMapped({ ...records, plan }, ON, values)).toHaveLength(1);
		// Another root that was cut frees nothing.
		expect(signs(girdled, { cuts: [{ id: 'r0', on: ON }] })).toEqual([['girdler-seen', 1]]);
	});

	it('its grade is by how much of the trunk it lies along', () => {
		const map = mapOf(girdled);
		const wound = (deg: number) => ({
			...map,
			segments: map.segments.map((segment, i) =>
				i < 4
					? segment
					: {
							...segment,
							course: Array.from({ length: 13 }, (_, step) => ({
								azimuthDeg: 30 + (step * deg) / 12,
								radiusMm: step === 0 ? 40 : 51,
								depthMm: 15
							}))
						}
			)
		});
		const grade = (deg: number) => signsMapped(treeRecords({ rootMap: wound(deg) }), ON, values)[0]?.grade;
		expect([100, 165, 230].map(grade)).toEqual([1, 2, 3]);
	});

	it('roots that circle are many from their share on', () => {
		const circling = { line: '2 20', flaws: ['circling'] as RootFlaw[] };
		const of = (many: number, all: number) =>
			Array.from({ length: all }, (_, i) => (i < many ? circling : { line: `${i + 1} 20` }));
		const least = Math.ceil(values['diagnosis.mapped-circling'] * 10);
		expect(signs(of(least, 10))).toEqual([['solid-mat', 1]]);
		expect(signs(of(least - 1, 10))).toEqual([]);
		expect(signs([])).toEqual([]);
	});

	it('dead, rotten and torn roots count as long as a measurement does, and no longer once cut', () => {
		const rotten = [...sound, { line: '1 30 dead', flaws: ['rotten'] as RootFlaw[] }];
		expect(signs(rotten)).toEqual([
			['roots-dead-share', 1],
			['roots-dark-soft', 1]
		]);
		const lasts = values['diagnosis.measured-days'];
		const day = (days: number) => new Date(Date.parse(ON) + days * 86_400_000).toISOString().slice(0, 10);
		expect(signs(rotten, { on: day(lasts) })).toHaveLength(2);
		expect(signs(rotten, { on: day(lasts + 1) })).toEqual([]);
		expect(signs(rotten, { cuts: [{ id: 'r4', on: ON }] })).toEqual([]);
		const most = [{ line: '12 10' }, ...['3', '6', '9'].map((at) => ({ line: `${at} 30 dead` }))];
		expect(signs(most)).toEqual([['roots-dead-share', 2]]);
		expect(signs([...sound, { line: '1 10', flaws: ['torn'] }])).toEqual([['torn-roots', 1]]);
	});

	it('stands in a look beside what was measured, which outranks it, and tells where it is from', () => {
		const records = treeRecords({ rootMap: mapOf(girdled) });
		expect(foundLately(records, ON, values)).toEqual([{ signId: 'girdler-seen', grade: 1, measuredBy: 'm' }]);
		const collar = {
			id: 'c',
			version: 1,
			measuredOn: ON,
			note: '',
			raw: {
				tool: 'collar' as const,
				flare: 'all-round' as const,
				buriedMm: 0,
				across: [],
				heaped: false,
				rootsAboveFlare: false
			}
		};
		const found = foundLately({ ...records, measurements: [collar] }, ON, values);
		// What was measured as not there is news only for who had seen it.
		const since = (findings: Parameters<typeof shownSince>[1]['findings']) =>
			shownSince({ ...records, measurements: [collar] }, { examinedOn: ON, findings }, ON, values).map(
				(one) => one.signId
			);
		expect(since([])).toEqual([]);
		expect(since([{ signId: 'girdler-seen', grade: 2, measuredBy: null }])).toEqual(['girdler-seen']);
		expect(found.find((one) => one.signId === 'girdler-seen')).toMatchObject({ grade: 0, measuredBy: 'c' });
	});

	it('is told at the last look where that does not say it: from its day on, and not where it says the same', () => {
		const records = treeRecords({ rootMap: mapOf(girdled) });
		const look = (examinedOn: string, grade: number | null = null) => ({
			examinedOn,
			findings: grade === null ? [] : [{ signId: 'girdler-seen' as const, grade, measuredBy: null }]
		});
		const since = (of: ReturnType<typeof look>) =>
			shownSince(records, of, '2025-05-01', values).map((one) => one.signId);
		expect(since(look('2025-02-02'))).toEqual(['girdler-seen']);
		expect(since(look(ON))).toEqual(['girdler-seen']);
		expect(since(look('2025-02-02', 0))).toEqual(['girdler-seen']);
		expect(since(look('2025-02-02', 1))).toEqual([]);
		// Who looked after it was mapped has said what was seen then.
		expect(since(look('2025-03-02'))).toEqual([]);
	});
});

describe('a check that decides a likely cause', () => {
	it('is not asked for once the map answers it: then to look anew is', () => {
		const found = examinationSchema.parse({
			id: 'g',
			version: 1,
			examinedOn: ON,
			findings: [
				{ signId: 'bark-groove', grade: 1 },
				{ signId: 'roots-above-flare', grade: 1 }
			]
		});
		const asked = (map: ReturnType<typeof mapOf>) =>
			pressingOf(treeRecords({ examinations: [found], plan: null, rootMap: map }), '2025-03-05', values)
				.check;
		expect(asked(mapOf(sound))?.check?.label).toBe('Root across the trunk');
		expect(asked(mapOf(girdled, '2025-03-03'))).toMatchObject({ subject: 'Girdling roots are', check: null });
	});
});

describe('girdling roots that go in stages', () => {
	const both = [...girdled, { line: '7 14', flaws: ['girdling'] as RootFlaw[] }, { line: '10 6 dead' }];
	const staged = (
		cuts: readonly { id: string; on?: string; stage?: number; atMm?: number }[],
		roots: Parameters<typeof mapOf>[0] = both
	) => {
		const records = treeRecords({ rootMap: mapOf(roots) });
		if (!records.plan) throw new Error('no plan');
		const plan = {
			...records.plan,
			cuts: cuts.map(({ id, on, stage = 0, atMm }) => {
				const one = cut(id, stage, on);
				return { ...one, atMm: atMm ?? one.atMm };
			})
		};
		return { ...records, plan };
	};
	const since = (...of: Parameters<typeof staged>) => girdlersStaged(staged(...of), values);

	it('were acted on when the first went, as long as each of the rest stands in a stage', () => {
		const first = { id: 'r4', on: ON };
		expect(since([first, { id: 'r5', stage: 1 }])).toBe(ON);
		expect(since([first])).toBeNull();
		expect(since([{ id: 'r4' }, { id: 'r5', stage: 1 }])).toBeNull();
		expect(since([{ id: 'r6', on: ON }, { id: 'r4' }, { id: 'r5', stage: 1 }])).toBeNull();
		expect(since([first, { id: 'r5', on: '2025-03-09' }])).toBe('2025-03-09');
		// A cut beyond where it lies against the trunk frees nothing, done or planned.
		expect(since([first, { id: 'r5', stage: 1, atMm: 400 }])).toBeNull();
		expect(
			since([
				{ ...first, atMm: 400 },
				{ id: 'r5', stage: 1 }
			])
		).toBeNull();
		// Just where it begins to lie there is no cut beyond it.
		const records = treeRecords({ rootMap: mapOf(both) });
		const segment = records.rootMap?.segments.find(({ id }) => id === 'r5');
		const claim = segment && records.rootMap ? claimOf(segment, records.rootMap, values) : null;
		const fromMm = claim?.kind === 'girdling' ? claim.fromMm : NaN;
		expect(fromMm).toBeGreaterThan(0);
		expect(since([first, { id: 'r5', stage: 1, atMm: fromMm }])).toBe(ON);
		expect(since([first, { id: 'r5', stage: 1, atMm: fromMm + 1 }])).toBeNull();
		expect(since([], sound)).toBeNull();
		expect(girdlersStaged({ ...staged([first]), rootMap: null }, values)).toBeNull();
	});
	it('press no more, whatever a look between two stages sees of them; rot presses on', () => {
		const seen = (signId: string, grade: number) =>
			examinationSchema.parse({
				id: 'g',
				version: 1,
				examinedOn: '2025-03-20',
				failingFast: true,
				findings: [
					{ signId, grade },
					{ signId: 'bark-groove', grade: 1 },
					{ signId: 'dieback-hollow', grade: 2 }
				]
			});
		const presses = (cuts: Parameters<typeof staged>[0], signId = 'girdler-seen') =>
			pressingOf({ ...staged(cuts), examinations: [seen(signId, 2)] }, '2025-03-21', values).urgent
				?.conditionId;
		const inStages = [
			{ id: 'r4', on: ON },
			{ id: 'r5', stage: 1 }
		];
		expect(presses([{ id: 'r4', on: ON }])).toBe('girdling-roots');
		expect(presses(inStages)).not.toBe('girdling-roots');
		const records = staged(inStages);
		expect(actedSince(records, 'girdling-roots', '2025-03-20', values)).toEqual({ on: ON, inStages: true });
		expect(actedSince(records, 'girdling-roots', null, values)).toEqual({ on: ON, inStages: true });
		expect(actedSince(records, 'girdling-roots', ON, values)).toEqual({ on: ON, inStages: false });
		expect(actedSince(records, 'root-rot', '2025-03-20', values)).toBeNull();
		expect(actedSince(records, 'root-rot', null, values)).toBeNull();
		expect(actedWord('girdling-roots', { on: ON, inStages: true })).toBe('in stages since');
		expect(actedWord('root-rot', { on: ON, inStages: false })).toBe('acted on');
		expect(actedWord('drought', { on: ON, inStages: false })).toBe('seen to');
	});
});
