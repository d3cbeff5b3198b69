import { describe, expect, it } from 'vitest';
import { addDays, daysBetween } from '$core/maths/calendar';
import { diagnose } from '$core/examine/diagnosis/diagnose';
import { examinationSchema } from '$core/examine/diagnosis/examination';
import { conditionIds, conditionOf, type ConditionId } from '$core/vocabulary/conditions';
import { signIds, signOf } from '$core/vocabulary/signs';
import { carriedOver, contextFor, eventsTold, type LookContext } from '$core/tree/carried';
import { movedBy } from '$core/tree/moved-by';
import { changeSchema, factors, type Factor } from '$core/tree/changes';
import { bookEntrySchema } from '$core/aftercare/book/book';
import { measurementSchema } from '$core/examine/measuring/measurement';
import { actedOn, asksForDryRest, followsFrom, pressingOf, urgentOf } from '$core/tree/urgent';
import { defaultValues as values } from '$core/values/values';
import { wateringSchema } from '$core/aftercare/water/watering';
import { observationSchema } from '$core/examine/looks/observation';
import { liftSchema } from '$core/replant/lifting/lift';
import { groundPlanSchema } from '$core/replant/ground/ground-plan';
import { cut, treeRecords, plantingOn } from '../records';

const look = (id: string, examinedOn: string, findings: [string, number][]) =>
	examinationSchema.parse({
		id,
		version: 1,
		examinedOn,
		findings: findings.map(([signId, grade]) => ({ signId, grade }))
	});
const rot = look('r', '2025-06-01', [
	['sour-smell', 2],
	['roots-dark-soft', 1],
	['stays-wet', 2]
]);
const place = treeRecords().places[0] ?? null;
const times = (on: string, before = rot, cuts: Parameters<typeof treeRecords>[1] = []) =>
	carriedOver(treeRecords({}, cuts), place, before, on, values).find((one) => one.conditionId === 'root-rot')
		?.times ?? 1;

describe('a look begins from the one before', () => {
	it('what spoke for a cause still does, by the root of its weight at first and less with time', () => {
		const then = diagnose(
			contextFor(treeRecords(), rot.examinedOn, [], null, values).context,
			rot.findings,
			values
		);
		const cause = then.ranking.find((one) => one.conditionId === 'root-rot');
		const odds = (p: number): number => p / (1 - p);
		const said = odds(cause?.chance ?? 0) / odds(cause?.prior ?? 1);
		expect(said).toBeGreaterThan(2);
		const power = values['diagnosis.carryPower'] * 0.5 ** (7 / values['diagnosis.carryHalfDays']);
		expect(times('2025-06-08')).toBeCloseTo(said ** power, 6);
		const later = [1, 30, 90, 300, 700].map((days) => times(addDays(rot.examinedOn, days)));
		for (const [i, one] of later.entries()) {
			expect(one).toBeGreaterThanOrEqual(1);
			if (i > 0) expect(one).toBeLessThanOrEqual(later[i - 1] ?? 0);
		}
		expect(times(addDays(rot.examinedOn, values['diagnosis.carryDays'] + 1))).toBe(1);
		// What hardly moves anything is passed over, and by how much is said.
		const carriedAt = (least: number): number =>
			carriedOver(treeRecords(), place, rot, '2025-06-08', { ...values, 'diagnosis.carryLeast': least })
				.length;
		expect(carriedAt(0)).toBeGreaterThan(carriedAt(0.1));
		expect(carriedAt(0.1)).toBeGreaterThan(carriedAt(1));
	});
	it('a second look of the day corrects the first: it begins from nothing of it', () => {
		expect(times(rot.examinedOn)).toBe(1);
		const again = look('s', rot.examinedOn, []);
		const { carried } = contextFor(
			treeRecords({ examinations: [rot, again] }),
			rot.examinedOn,
			[],
			's',
			values
		);
		expect(carried).toEqual([]);
	});
	it('work at the roots since treats what is treated there', () => {
		const treated = times('2025-07-15', rot, [cut('r5', 0, '2025-06-10')]);
		expect(treated).toBeGreaterThan(1);
		expect(treated).toBeLessThan(times('2025-07-15'));
		// Work before the look treated nothing that it found.
		expect(times('2025-07-15', rot, [cut('r5', 0, '2025-05-10')])).toBe(times('2025-07-15'));
	});
	it('what spoke against a cause still does', () => {
		const well = look('w', '2025-06-01', [
			['sour-smell', 0],
			['roots-dark-soft', 0],
			['no-white-tips', 0]
		]);
		expect(times('2025-06-20', well)).toBeLessThan(1);
	});
	it('the chance a new look begins with is shifted by it, and a kept look by the one before it only', () => {
		const records = treeRecords({ examinations: [rot, look('t', '2025-07-01', [])] });
		const fresh = contextFor(records, '2025-07-20', [], null, values);
		expect(fresh.carried.every((one) => one.on === '2025-07-01')).toBe(true);
		const begins = (context: LookContext['context']) =>
			diagnose(context, [], values).ranking.find((one) => one.conditionId === 'root-rot')?.chance ?? 0;
		const kept = contextFor(records, '2025-07-01', [], 't', values);
		expect(kept.carried[0]?.on).toBe('2025-06-01');
		expect(begins(kept.context)).toBeGreaterThan(
			1.5 * begins(contextFor(treeRecords(), '2025-07-01', [], null, values).context)
		);
		expect(contextFor(records, '2025-06-01', [], 'r', values).carried).toEqual([]);
	});
	it('what its records tell of the last weeks counts as having befallen it', () => {
		// Dead root alone is no loss that counts.
		expect(eventsTold(treeRecords({}, [cut('r5', 0, '2025-06-10')]), '2025-06-20', values)).toEqual([]);
		const records = treeRecords({}, [cut('r4', 0, '2025-06-10')]);
		expect(eventsTold(records, '2025-06-20', values)).toEqual(['dug']);
		expect(eventsTold(records, addDays('2025-06-10', values['diagnosis.recentDays']), values)).toEqual([
			'dug'
		]);
		expect(eventsTold(records, addDays('2025-06-11', values['diagnosis.recentDays']), values)).toEqual([]);
		expect(eventsTold(records, '2025-06-09', values)).toEqual([]);
		// A kept look led to the work of its day; a new one is taken after it.
		expect(eventsTold(records, '2025-06-10', values)).toEqual(['dug']);
		expect(eventsTold(records, '2025-06-10', values, true)).toEqual([]);
		expect(eventsTold(records, '2025-06-11', values, true)).toEqual(['dug']);
		const { context, told } = contextFor(records, '2025-06-20', ['dug'], null, values);
		expect(told).toEqual([]);
		expect(context.events).toEqual(['dug']);
	});
});

describe('what a look says to act on now', () => {
	const dire = examinationSchema.parse({
		...rot,
		findings: [
			['sour-smell', 2],
			['roots-dark-soft', 1],
			['stays-wet', 2],
			['no-white-tips', 1],
			['fungus-gnats', 1]
		]
			.map(([signId, grade]) => ({ signId, grade }))
			.filter(({ signId }) => (signIds as readonly unknown[]).includes(signId)),
		failingFast: true
	});
	const urgent = (change: object, on = addDays(rot.examinedOn, 5)) =>
		urgentOf(treeRecords({ examinations: [dire], plan: null, ...change }), on, values);
	it('presses until it is done, and says what it asks of water and pot', () => {
		expect(urgent({})).toMatchObject({
			conditionId: 'root-rot',
			water: 'less',
			pot: 'smaller',
			atRoots: true
		});
		expect(urgent({})?.chance).toBeGreaterThan(0.5);
		expect(urgent({}, addDays(rot.examinedOn, values['urgent.days'] + 1))).toBeNull();
		expect(urgent({}, addDays(rot.examinedOn, -1))).toBeNull();
		const { tree } = treeRecords();
		expect(urgent({ tree: { ...tree, state: 'gone' } })).toBeNull();
	});
	it('roots that were worked on since are no more pressed for; watered they still are', () => {
		const worked = urgentOf(
			treeRecords({ examinations: [dire] }, [cut('r5', 0, addDays(rot.examinedOn, 2))]),
			addDays(rot.examinedOn, 5),
			values
		);
		// The soil it stood in is as sour as it was.
		expect(worked?.conditionId).toBe('sour-root-zone');
		// Worked on the very day of the look too.
		const atOnce = treeRecords({ examinations: [dire] }, [cut('r5', 0, rot.examinedOn)]);
		expect(urgentOf(atOnce, addDays(rot.examinedOn, 5), values)?.conditionId).toBe('sour-root-zone');
		const repotted = { ...atOnce, plantings: [plantingOn(rot.examinedOn)] };
		expect(urgentOf(repotted, addDays(rot.examinedOn, 5), values)).toBeNull();
		expect(actedOn(atOnce, 'root-rot', rot.examinedOn, values)).toBe(rot.examinedOn);
		expect(actedOn(atOnce, 'root-rot', addDays(rot.examinedOn, 1), values)).toBeNull();
		// Of more than one work the first is what the look led to.
		const twice = treeRecords({ examinations: [dire] }, [
			cut('r5', 0, addDays(rot.examinedOn, 2)),
			cut('r4', 1, addDays(rot.examinedOn, 400))
		]);
		expect(actedOn(twice, 'root-rot', rot.examinedOn, values)).toBe(addDays(rot.examinedOn, 2));
		const watered = wateringSchema.parse({ id: 'w', version: 1, wateredOn: addDays(rot.examinedOn, 2) });
		expect(urgent({ waterings: [watered] })).not.toBeNull();
	});
	it('a lift frees no root of what ails it: rot and girdlers press on', () => {
		const on = addDays(rot.examinedOn, 2);
		const lift = liftSchema.parse({
			id: 'l',
			version: 1,
			plannedOn: on,
			school: 'field',
			reading: 'across',
			ballDiameterMm: 400,
			ballDepthMm: 300,
			route: {},
			ticks: [],
			log: { liftedOn: on, ballDiameterMm: 400, ballDepthMm: 300 }
		});
		const of = (cause: ConditionId, cuts: Parameters<typeof treeRecords>[1] = []) =>
			actedOn(treeRecords({ examinations: [dire], lifts: [lift] }, cuts), cause, rot.examinedOn, values);
		for (const cause of ['root-rot', 'girdling-roots'] as const) {
			expect(of(cause), cause).toBeNull();
			expect(of(cause, [cut('r5', 0, addDays(on, 1))]), cause).toBe(addDays(on, 1));
		}
		expect(urgent({ lifts: [lift] })?.conditionId).toBe('root-rot');
	});
	it('a cut leaves sour soil as it is: a new pot ends it, or works in the ground', () => {
		const on = addDays(rot.examinedOn, 2);
		const records = (change: object, cuts: ReturnType<typeof cut>[] = []) =>
			treeRecords({ examinations: [dire], ...change }, cuts);
		const ended = (change: object, cuts: ReturnType<typeof cut>[] = []) =>
			actedOn(records(change, cuts), 'sour-root-zone', rot.examinedOn, values);
		expect(ended({}, [cut('r5', 0, on)])).toBeNull();
		expect(ended({ plantings: [plantingOn(on)] })).toBe(on);
		expect(actedOn(records({}, [cut('r5', 0, on)]), 'stem-rot', rot.examinedOn, values)).toBeNull();
	});
	it('what is not at the roots is done with when it is looked at again, and water helps only what wants it', () => {
		const on = addDays(rot.examinedOn, 2);
		const watered = wateringSchema.parse({ id: 'w', version: 1, wateredOn: on });
		const ended = (change: object, cause: Parameters<typeof actedOn>[1]) =>
			actedOn(treeRecords({ examinations: [dire], ...change }), cause, rot.examinedOn, values);
		const seenOn = (day: string) => ({
			observations: [observationSchema.parse({ id: 'o', version: 1, observedOn: day, leafCover: 1 })]
		});
		const seen = seenOn(on);
		expect(ended(seenOn(rot.examinedOn), 'sour-root-zone')).toBeNull();
		expect(ended(seenOn(addDays(rot.examinedOn, 1)), 'sour-root-zone')).not.toBeNull();
		for (const cause of ['sour-root-zone', 'drought', 'weather-injury'] as const)
			expect(ended(seen, cause), cause).toBe(on);
		expect(ended(seen, 'root-rot')).toBeNull();
		expect(ended({ waterings: [watered] }, 'drought')).toBe(on);
		expect(ended({ waterings: [watered] }, 'uneven-water')).toBe(on);
		for (const cause of ['sour-root-zone', 'stem-rot', 'weather-injury'] as const)
			expect(ended({ waterings: [watered] }, cause), cause).toBeNull();
	});
	it('what was written down as changed counts where it is the treatment, from the day of the look on', () => {
		const on = addDays(rot.examinedOn, 2);
		const ended = (cause: Parameters<typeof actedOn>[1], factor: Factor, day = on) =>
			actedOn(
				treeRecords({
					examinations: [dire],
					factorChanges: [changeSchema.parse({ id: 'f', version: 1, changedOn: day, factors: [factor] })]
				}),
				cause,
				rot.examinedOn,
				values
			);
		const counts: [Parameters<typeof actedOn>[1], Factor[]][] = [
			['sour-root-zone', ['watering', 'pot', 'mix']],
			['dry-core', ['watering', 'pot', 'mix']],
			['drought', ['watering', 'pot', 'mix']],
			['uneven-water', ['watering', 'pot', 'mix']],
			['stem-rot', ['treatment', 'crown-cut', 'pot', 'mix']],
			['pest', ['treatment', 'pot', 'mix']],
			['weather-injury', ['pot', 'mix', 'place', 'light']],
			['low-light', ['pot', 'mix', 'place', 'light']],
			['not-used-to-place', ['pot', 'mix']],
			['salt-ph-nutrient', ['pot', 'mix', 'feeding', 'watering']],
			['collapsed-mix', ['pot', 'mix']],
			['root-rot', ['roots-cut']]
		];
		for (const [cause, those] of counts)
			for (const factor of factors)
				expect(ended(cause, factor), `${cause}, ${factor}`).toBe(those.includes(factor) ? on : null);
		expect(ended('root-rot', 'roots-cut', addDays(rot.examinedOn, -1))).toBeNull();
		// Beside other things that were changed it counts alike.
		const beside = changeSchema.parse({
			id: 'f',
			version: 1,
			changedOn: on,
			factors: ['light', 'roots-cut']
		});
		expect(
			actedOn(
				treeRecords({ examinations: [dire], factorChanges: [beside] }),
				'root-rot',
				rot.examinedOn,
				values
			)
		).toBe(on);
	});
	it('what stands wet asks for a dry rest, roots that are to be left alone for none', () => {
		const of = (conditionId: ConditionId, water: 'less' | 'more' | null = 'less') =>
			asksForDryRest({ conditionId, water });
		expect(of('root-rot')).toBe(true);
		expect(of('root-rot', 'more')).toBe(false);
		expect(of('root-rot', null)).toBe(false);
		expect(asksForDryRest(null)).toBe(false);
		const left = conditionIds.filter((id) => conditionOf(id).asks?.roots === 'leave');
		expect(left.length).toBeGreaterThan(0);
		for (const id of left) expect(of(id), id).toBe(false);
	});
	it('works in the ground end what they treat: soil that was loosened frees no collar, a collar laid open loosens no soil', () => {
		const on = addDays(rot.examinedOn, 2);
		const works = {
			hole: { widthMm: 900, depthMm: 350, ballDiameterMm: 450, ballDepthMm: 320 },
			collar: { openMm: 200, depthMm: 80, tool: 'hand' },
			loosening: { method: 'trenches', innerM: 1, outerM: 3, depthMm: 300, widthMm: 150 },
			mulch: { innerM: 0.2, outerM: 2, depthMm: 60 },
			sulphur: { phNow: 7.5, phAim: 6, soil: 'loam', areaM2: 4 }
		};
		const ended = (cause: Parameters<typeof actedOn>[1], change: object) =>
			actedOn(treeRecords({ examinations: [dire], ...change }), cause, rot.examinedOn, values);
		const byWork = (cause: Parameters<typeof actedOn>[1]): string[] =>
			Object.entries(works)
				.filter(
					([work, plan]) =>
						ended(cause, {
							groundPlans: [
								groundPlanSchema.parse({ id: 'g', version: 1, plannedOn: on, doneOn: on, [work]: plan })
							]
						}) === on
				)
				.map(([work]) => work);
		expect(byWork('compaction')).toEqual(['hole', 'loosening']);
		expect(byWork('buried-collar')).toEqual(['hole', 'collar']);
		expect(byWork('sour-root-zone')).toEqual(['hole', 'loosening']);
		expect(byWork('soil-gas')).toEqual(['hole', 'loosening']);
		expect(byWork('salt-ph-nutrient')).toEqual(['hole', 'sulphur']);
		expect(byWork('collapsed-mix')).toEqual(['hole']);
		expect(byWork('root-rot')).toEqual([]);
		// What is only planned treats nothing yet, and neither does a further look.
		const planned = groundPlanSchema.parse({ id: 'g', version: 1, plannedOn: on, collar: works.collar });
		expect(ended('buried-collar', { groundPlans: [planned] })).toBeNull();
		const seen = { observations: [observationSchema.parse({ id: 'o', version: 1, observedOn: on })] };
		expect(ended('buried-collar', seen)).toBeNull();
		expect(ended('compaction', seen)).toBeNull();
		expect(ended('weather-injury', seen)).toBe(on);
	});
	it('presses by what Examine goes by too: that it fails within weeks, and how far a girdler goes round', () => {
		const presses = (findings: [string, number][], failingFast = false) =>
			pressingOf(
				treeRecords({
					examinations: [{ ...look('e', rot.examinedOn, findings), failingFast }],
					plan: null,
					rootMap: null
				}),
				addDays(rot.examinedOn, 1),
				values
			);
		const drops = (grade: number): [string, number][] => [
			['leaf-drop', 1],
			['girdler-seen', grade]
		];
		expect(presses(drops(1)).urgent).toBeNull();
		expect(presses(drops(2)).urgent?.conditionId).toBe('girdling-roots');
		const grooved: [string, number][] = [
			['leaf-drop', 1],
			['bark-groove', 1]
		];
		expect(presses(grooved)).toMatchObject({ urgent: null, check: { subject: 'Girdling roots are' } });
		expect(presses(grooved, true)).toMatchObject({
			urgent: { conditionId: 'girdling-roots' },
			check: null
		});
	});
	it('of two causes to act on now, the second presses once the first was acted on', () => {
		const both = look('b', rot.examinedOn, [
			['sour-smell', 2],
			['wilts-wet', 1],
			['dieback-hollow', 1]
		]);
		const presses = (of: readonly Factor[]) =>
			urgentOf(
				treeRecords({
					examinations: [both],
					plan: null,
					factorChanges: of.map((factor) =>
						changeSchema.parse({ id: factor, version: 1, changedOn: rot.examinedOn, factors: [factor] })
					)
				}),
				addDays(rot.examinedOn, 3),
				values
			)?.conditionId;
		expect(presses([])).toBe('sour-root-zone');
		expect(presses(['watering'])).toBe('root-rot');
		expect(presses(['watering', 'roots-cut'])).toBeUndefined();
	});
	it('a new pot takes no rot away; rot written down as cut out does', () => {
		const on = addDays(rot.examinedOn, 2);
		const planted = plantingOn(on);
		expect(urgent({ plantings: [planted] })?.conditionId).toBe('root-rot');
		const cutOut = (day: string) =>
			bookEntrySchema.parse({ id: 'b', version: 1, kind: 'rot-cut-out', on: day, details: {} });
		expect(urgent({ book: [cutOut(on)], plantings: [planted] })).toBeNull();
		expect(urgent({ book: [cutOut(addDays(rot.examinedOn, -1))] })?.conditionId).toBe('root-rot');
		// What else is written in the book of that day cut nothing out.
		const labelled = bookEntrySchema.parse({ id: 'n', version: 1, kind: 'labelled', on, details: {} });
		expect(urgent({ book: [labelled] })?.conditionId).toBe('root-rot');
	});
	it('a likely cause waits for the check that Examine names, as long as a look presses and nothing was done', () => {
		const found = look('g', rot.examinedOn, [
			['bark-groove', 1],
			['roots-above-flare', 1]
		]);
		const of = (change: object, days = 5) =>
			pressingOf(
				treeRecords({ examinations: [found], plan: null, ...change }),
				addDays(rot.examinedOn, days),
				values
			);
		const { urgent, check } = of({}, 0);
		expect(urgent).toBeNull();
		expect(check).toMatchObject({
			subject: 'Girdling roots are',
			on: rot.examinedOn,
			check: {
				label: 'Root across the trunk',
				how: signOf('girdler-seen').how,
				minutes: values['diagnosis.minutes.girdler-seen']
			}
		});
		expect(check?.chance).toBeGreaterThan(values['diagnosis.likely']);
		// The season turns a check into waiting; within it, the days decide.
		const within = (days: number) =>
			pressingOf(treeRecords({ examinations: [found], plan: null }), addDays(rot.examinedOn, days), {
				...values,
				'urgent.days': 20
			}).check;
		expect([within(20), within(21)]).toEqual([check, null]);
		// Reckoned once for a day and its values, and anew for others.
		const records = treeRecords({ examinations: [found], plan: null });
		const likely = (least: number) =>
			pressingOf(records, rot.examinedOn, { ...values, 'diagnosis.likely': least }).check !== null;
		expect([likely(values['diagnosis.likely']), likely(0.999), likely(values['diagnosis.likely'])]).toEqual([
			true,
			false,
			true
		]);
		const changed = changeSchema.parse({
			id: 'c',
			version: 1,
			changedOn: addDays(rot.examinedOn, 1),
			factors: ['roots-cut']
		});
		expect(of({ factorChanges: [changed] }).check).toBeNull();
		// What is not likely asks for no check on Today.
		const faint = look('f', rot.examinedOn, [['growth-stopped', 1]]);
		expect(of({ examinations: [faint] }).check).toBeNull();
	});
	it('what waits for its window is kept until that opens, and presses from then on, however old the look', () => {
		const bound = look('p', '2026-07-01', [
			['solid-mat', 2],
			['roots-out-of-holes', 1]
		]);
		const records = treeRecords({ examinations: [bound], plan: null });
		const of = (on: string) => pressingOf(records, on, values);
		const { urgent, check, waits } = of('2026-07-01');
		expect([urgent, check]).toEqual([null, null]);
		expect(waits).toMatchObject({ on: '2026-07-01', stage: 'replant' });
		const opensOn = waits?.windowOn ?? '';
		const days = values['urgent.days'];
		expect(daysBetween('2026-07-01', opensOn)).toBeGreaterThan(days);
		expect(of(addDays(opensOn, -1))).toMatchObject({ urgent: null, waits: { windowOn: opensOn } });
		expect(of(opensOn)).toMatchObject({
			urgent: { conditionId: 'pot-bound', on: '2026-07-01', untilOn: addDays(opensOn, days) },
			waits: null
		});
		expect(of(addDays(opensOn, days)).urgent).not.toBeNull();
		expect(of(addDays(opensOn, days + 1)).urgent).toBeNull();
		// Found in its window it presses from the look on.
		const found = { ...bound, examinedOn: addDays(opensOn, 3) };
		expect(
			pressingOf(treeRecords({ examinations: [found], plan: null }), addDays(opensOn, 4), values).urgent
				?.untilOn
		).toBe(addDays(opensOn, 3 + days));
	});
	it('what no window is waited for presses from its look on, whatever window opened since', () => {
		const dry = look('d', '2026-07-01', [
			['wilts-dry', 1],
			['pot-light', 1]
		]);
		const found = urgentOf(treeRecords({ examinations: [dry], plan: null }), '2026-07-02', values);
		expect(found).toMatchObject({ conditionId: 'drought', atRoots: false });
		const days = { ...values, 'urgent.days': 300 };
		const late = urgentOf(treeRecords({ examinations: [dry], plan: null }), '2027-03-25', days);
		expect(late?.untilOn).toBe(addDays('2026-07-01', 300));
	});
	it('a sound tree presses for nothing', () => {
		expect(urgent({ examinations: [look('h', rot.examinedOn, [['sour-smell', 0]])] })).toBeNull();
		expect(urgent({ examinations: [] })).toBeNull();
	});
});

describe('what a reading moves', () => {
	const found = [{ signId: 'girdler-seen', grade: 3 }] as const;
	const records = treeRecords({ examinations: [rot], measurements: [], plan: null, rootMap: null });
	const judged = (findings: typeof rot.findings) =>
		new Map(
			diagnose(
				contextFor(records, rot.examinedOn, rot.events, rot.id, values).context,
				findings,
				values
			).ranking.map(({ conditionId, chance }) => [conditionId, chance])
		);
	it('begins from the last look as Examine judges it, whatever day it is, never counting it twice', () => {
		const was = judged(rot.findings);
		const is = judged([...rot.findings, { signId: 'girdler-seen', grade: 3, measuredBy: null }]);
		for (const days of [0, 2, 40]) {
			const moved = movedBy(records, found, addDays(rot.examinedOn, days), values);
			expect(moved[0]?.conditionId).toBe('girdling-roots');
			for (const cause of moved) {
				expect(cause.was).toBeCloseTo(was.get(cause.conditionId) ?? -1, 12);
				expect(cause.is).toBeCloseTo(is.get(cause.conditionId) ?? -1, 12);
				expect(Math.abs(cause.is - cause.was)).toBeGreaterThanOrEqual(0.01);
			}
			const steps = moved.map((cause) => Math.abs(cause.is - cause.was));
			expect(steps).toEqual(steps.toSorted((a, b) => b - a));
		}
	});
	it('moves nothing by what the look had seen already, and stands alone where nobody looked', () => {
		expect(movedBy(records, [{ signId: 'sour-smell', grade: 2 }], rot.examinedOn, values)).toEqual([]);
		const unseen = movedBy({ ...records, examinations: [] }, found, rot.examinedOn, values);
		expect(unseen.find(({ conditionId }) => conditionId === 'girdling-roots')?.was).toBeLessThan(0.5);
		// A look of a later day is not known yet.
		expect(movedBy(records, found, addDays(rot.examinedOn, -1), values)).toEqual(
			movedBy({ ...records, examinations: [] }, found, addDays(rot.examinedOn, -1), values)
		);
	});
});

describe('what follows from a cause', () => {
	const on = '2026-03-20';
	const probed = (measuredOn: string) =>
		measurementSchema.parse({
			id: 'p',
			version: 1,
			measuredOn,
			note: '',
			raw: {
				tool: 'penetrometer',
				source: 'typed',
				moisture: 'field',
				readings: [{ position: 1, depthMm: 150, resistanceMpa: 2.8, readings: 1 }]
			}
		});
	const said = (cause: ConditionId, change: Parameters<typeof treeRecords>[0] = {}) =>
		followsFrom(treeRecords({ rootMap: null, plan: null, ...change }), cause, on, values);
	it('asks to be found out only what was not', () => {
		expect(said('compaction')).toMatch(/^Measure by depth, then/);
		expect(said('compaction', { measurements: [probed(on)] })).toMatch(/^Loosen between/);
		const days = values['urgent.days'];
		expect(said('compaction', { measurements: [probed(addDays(on, -days))] })).toMatch(/^Loosen/);
		expect(said('compaction', { measurements: [probed(addDays(on, -days - 1))] })).toMatch(/^Measure/);
		expect(said('compaction', { measurements: [probed(addDays(on, 1))] })).toMatch(/^Measure/);
		expect(said('girdling-roots')).toMatch(/^Map the collar/);
		expect(said('girdling-roots', { rootMap: treeRecords().rootMap })).toMatch(/^Free the trunk/);
		// What was measured of one says nothing of another.
		expect(said('girdling-roots', { measurements: [probed(on)] })).toMatch(/^Map the collar/);
		expect(said('root-rot', { measurements: [probed(on)] })).toBe(conditionOf('root-rot').meaning);
	});
	it('leads to where it is done: what only work in the ground takes away, to that', () => {
		const hard = look('h', on, [
			['probe-stops', 2],
			['traffic', 1],
			['dieback-hollow', 1]
		]);
		const tree = { ...treeRecords().tree, situation: 'in-ground' as const };
		const { urgent } = pressingOf(
			treeRecords({ tree, examinations: [hard], measurements: [probed(on)], rootMap: null, plan: null }),
			on,
			values
		);
		expect(urgent).toMatchObject({
			conditionId: 'compaction',
			subject: 'Soil compaction is',
			stage: 'replant',
			meaning: 'Loosen between the roots and mulch.'
		});
	});
});
