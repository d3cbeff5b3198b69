import { roundPot } from '$core/replant/pots/volume';
import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import type { TreeRecords } from '$core/tree/case';
import { addDays } from '$core/maths/calendar';
import { examinationSchema } from '$core/examine/diagnosis/examination';
import { cutWays, liftSchema, type LiftLog } from '$core/replant/lifting/lift';
import { emptyRoute } from '$core/replant/lifting/route';
import { liftEnds } from '$core/replant/lifting/ends';
import { liftKept, livedThroughAir, shareInBall } from '$core/replant/lifting/lift-cost';
import { measurementSchema, type RawReading } from '$core/examine/measuring/measurement';
import { pottingMixOf } from '$core/replant/mixes/mixes';
import { plantingSchema } from '$core/replant/pots/replant-plan';
import { recoveryCase, recoverySince } from '$core/tree/recovery-case';
import { recoveryForecast } from '$core/recovery/forecast';
import { observationSchema } from '$core/examine/looks/observation';
import { latest, type Said } from '$core/tree/fact';
import { standingLines } from '$core/tree/lines';
import { looksSeen, looksSince } from '$core/tree/looks';
import { lastRootWork, liftsDone, rootLosses } from '$core/tree/losses';
import { outSince, standingOf, waterKnown } from '$core/tree/standing';
import { triageSchema } from '$core/examine/triage/triage';
import { defaultValues as values } from '$core/values/values';
import { bookEntrySchema } from '$core/aftercare/book/book';
import { groundPlanSchema } from '$core/replant/ground/ground-plan';
import { wateringSchema } from '$core/aftercare/water/watering';
import { usualCrownWidthMm } from '$core/replant/pots/demand';
import { treeDemand } from '$core/tree/tree-demand';
import { RootsState } from '$views/roots/roots-state.svelte';
import { guessedRadiusMm, rootMapSchema } from '$core/roots/map/root-map';
import { cut, freshRoots, treeRecords } from '../records';

const on = '2026-04-18';
const log = (change: Partial<LiftLog> = {}): LiftLog => ({
	liftedOn: '2026-03-10',
	ballDiameterMm: 600,
	ballDepthMm: 400,
	massKg: null,
	cutRoots: [],
	outMinutes: 20,
	soak: 'wetted',
	soakMinutes: 0,
	rooting: null,
	after: 'wrapped',
	backfilled: true,
	assumed: [],
	note: '',
	...change
});
const lift = (change: Partial<LiftLog> = {}, id = 'lift') =>
	liftSchema.parse({
		id,
		version: 1,
		plannedOn: '2026-03-10',
		school: 'field',
		reading: 'across',
		ballDiameterMm: 700,
		ballDepthMm: 450,
		route: emptyRoute,
		ticks: [],
		log: log(change)
	});
const planting = (plantedOn: string, change: object = {}, id = 'planting') =>
	plantingSchema.parse({
		id,
		version: 1,
		plantedOn,
		pot: roundPot(700, 600, 450),
		sizeRule: 'normal',
		ballDiameterMm: 550,
		ballDepthMm: 350,
		mix: pottingMixOf('pumice-bark'),
		headspaceMm: 20,
		...change
	});
const look = (id: string, observedOn: string, change: object) =>
	observationSchema.parse({ id, version: 1, observedOn, ...change });
const examined = (id: string, examinedOn: string, findings: [string, number][]) =>
	examinationSchema.parse({
		id,
		version: 1,
		examinedOn,
		findings: findings.map(([signId, grade]) => ({ signId, grade }))
	});
const measured = (id: string, measuredOn: string, raw: RawReading) =>
	measurementSchema.parse({ id, version: 1, measuredOn, raw });
const decided = (id: string, decidedOn: string, change: object) =>
	triageSchema.parse({
		id,
		version: 1,
		decidedOn,
		purpose: 'lift',
		vitality: 'fair',
		permission: 'written',
		pests: 'unknown',
		decision: 'go',
		...change
	});
const fresh = (change: Partial<TreeRecords> = {}): TreeRecords =>
	treeRecords({ rootMap: null, plan: null, examinations: [], ...change });

describe('what comes along of a lift', () => {
	it('is the integral of a density that falls outward and downward', () => {
		for (const [b, depth] of [
			[300, 200],
			[900, 600],
			[2400, 250]
		] as const) {
			const [reach, deep] = [1500, 600];
			// Summed over rings and layers.
			let [inside, all] = [0, 0];
			const n = 1500;
			for (let i = 0; i < n; i++) {
				const r = ((i + 0.5) / n) * reach;
				const ring = r * (1 - r / reach);
				all += ring;
				if (r <= b / 2) inside += ring;
			}
			let [above, column] = [0, 0];
			for (let i = 0; i < n; i++) {
				const z = ((i + 0.5) / n) * deep;
				column += 1 - z / deep;
				if (z <= depth) above += 1 - z / deep;
			}
			expect(shareInBall(b, depth, reach, deep)).toBeCloseTo((inside / all) * (above / column), 2);
		}
		expect(shareInBall(3000, 600, 1500, 600)).toBeCloseTo(1, 9);
	});
	const tree = { trunkDiameterMm: 50, crownWidthMm: 1600 };
	it('never grows with what went worse: roots cut, a smaller ball, more air', () => {
		const kept = (change: Partial<LiftLog>) => liftKept(log(change), tree, null, values);
		fc.assert(
			fc.property(
				fc.record({
					ball: fc.integer({ min: 100, max: 4000 }),
					depth: fc.integer({ min: 60, max: 900 }),
					minutes: fc.integer({ min: 0, max: 3000 }),
					rooting: fc.constantFrom(null, 'open', 'root-pruned', 'pocket', 'hedge'),
					thick: fc.array(fc.integer({ min: 2, max: 45 }), { maxLength: 8 })
				}),
				({ ball, depth, minutes, rooting, thick }) => {
					const cutRoots = thick.map((diameterMm) => ({ azimuthDeg: 0, diameterMm, how: 'torn' as const }));
					const base = {
						ballDiameterMm: ball,
						ballDepthMm: depth,
						outMinutes: minutes,
						rooting: rooting as LiftLog['rooting'],
						cutRoots
					};
					const one = kept(base);
					expect(one.low).toBeLessThanOrEqual(one.share + 1e-12);
					expect(one.share).toBeLessThanOrEqual(one.high + 1e-12);
					expect(one.low).toBeGreaterThan(0);
					expect(one.high).toBeLessThanOrEqual(1);
					for (const worse of [
						{ ...base, cutRoots: [...cutRoots, { azimuthDeg: 90, diameterMm: 30, how: 'saw' as const }] },
						{ ...base, ballDiameterMm: ball * 0.8 },
						{ ...base, ballDepthMm: depth * 0.7 },
						{ ...base, outMinutes: minutes + 300 },
						{ ...base, soak: 'none' as const }
					]) {
						const less = kept(worse);
						for (const edge of ['share', 'low', 'high'] as const)
							expect(less[edge]).toBeLessThanOrEqual(one[edge] + 1e-12);
					}
				}
			),
			{ seed: 15, numRuns: 300 }
		);
	});
	it('is more where the roots were held together, and in a hedge', () => {
		const kept = (rooting: LiftLog['rooting']) => liftKept(log({ rooting }), tree, null, values).share;
		expect(kept('root-pruned')).toBeCloseTo(values['lifting.prepared'] * kept('open'), 9);
		expect(kept('pocket')).toBe(kept('root-pruned'));
		expect(kept('hedge')).toBeGreaterThan(2 * kept('open'));
		expect(kept(null)).toBe(kept('open'));
	});
	it('counts a root by its thickness, whatever it was cut with', () => {
		const shares = cutWays.map(
			(how) =>
				liftKept(
					log({ cutRoots: [{ azimuthDeg: 10, diameterMm: 60, how }] }),
					{ trunkDiameterMm: 80, crownWidthMm: 1600 },
					null,
					values
				).share
		);
		expect(cutWays).toContain('axe');
		expect(new Set(shares).size).toBe(1);
	});
	it('six torn roots that carried two thirds of the trunk leave a third at most, however large the ball', () => {
		const cutRoots = Array.from({ length: 6 }, (_, i) => ({
			azimuthDeg: i * 60,
			diameterMm: 50 / 3,
			how: 'torn' as const
		}));
		const { share } = liftKept(
			log({ ballDiameterMm: 5000, ballDepthMm: 600, cutRoots, outMinutes: 0 }),
			tree,
			null,
			values
		);
		expect(share).toBeCloseTo(1 - 6 / 9, 9);
	});
	it('roots in the air lose half of what lives in their half time, after the first minutes', () => {
		const lived = (outMinutes: number, soak: LiftLog['soak']) =>
			livedThroughAir({ outMinutes, soak }, values).share;
		const free = values['lifting.out-freeMinutes'];
		expect(lived(free, 'none')).toBe(1);
		expect(lived(free + values['lifting.dryHalfMinutes'], 'none')).toBeCloseTo(0.5, 9);
		expect(lived(free + values['lifting.wetHalfMinutes'], 'stood-in-water')).toBeCloseTo(0.5, 9);
	});
	it('a time or a wetting that nobody noted is a band, and never the best of it', () => {
		const of = (outMinutes: number | null, soak: LiftLog['soak']) =>
			livedThroughAir({ outMinutes, soak }, values);
		const unknown = of(null, null);
		expect(unknown.low).toBe(of(values['lifting.outMostMinutes'], 'none').share);
		expect(unknown.share).toBe(of(values['lifting.outUsualMinutes'], 'none').share);
		expect(unknown.high).toBe(1);
		expect(unknown.share).toBeLessThan(of(values['lifting.outUsualMinutes'], 'wetted').share);
		expect(of(90, 'wetted').low).toBe(of(90, 'wetted').high);
		expect(of(90, null).high).toBe(of(90, 'wetted').share);
		const kept = (change: Partial<LiftLog>) =>
			liftKept(log(change), { trunkDiameterMm: 80, crownWidthMm: 1600 }, null, values);
		const [noted, not] = [kept({ outMinutes: 0 }), kept({ outMinutes: null, soak: null })];
		expect(not.low).toBeLessThan(noted.low);
		expect(not.high).toBe(noted.high);
	});
	it('is read off the map of the ground where one was drawn before: tips outside the ball stay behind', () => {
		const records = treeRecords();
		const segments = records.rootMap?.segments ?? [];
		// r0 stays inside the ball, the other living ones run out of it.
		const [radius, outside] = [200, 900];
		const map = rootMapSchema.parse({
			...records.rootMap,
			frame: 'ground',
			ballRadiusMm: 1000,
			segments: segments.map((segment) => ({
				...segment,
				course: segment.course.map((point, i) => ({
					...point,
					radiusMm: i === 0 ? 40 : segment.id === 'r0' ? 150 : outside
				}))
			}))
		});
		const of = { trunkDiameterMm: 80, crownWidthMm: 1600 };
		const kept = liftKept(log({ ballDiameterMm: 2 * radius, outMinutes: 0 }), of, map, values);
		expect(kept.from).toBe('map');
		// One of five alike.
		expect(kept.share).toBeCloseTo(0.2, 9);
		expect(kept.low).toBeLessThan(0.2);
		expect(kept.high).toBeGreaterThan(0.2);
		// Time that nobody noted lowers the least of it too; a thick root named beside the map bounds all of it.
		const untimed = liftKept(
			log({ ballDiameterMm: 2 * radius, outMinutes: null, soak: null }),
			of,
			map,
			values
		);
		expect(untimed.low).toBeLessThan(kept.low * 0.9);
		const { share: bounded } = liftKept(
			log({
				ballDiameterMm: 2 * radius,
				outMinutes: 0,
				cutRoots: [{ azimuthDeg: 1, diameterMm: 80 * Math.sqrt(0.95), how: 'torn' }]
			}),
			of,
			{ ...map, segments: map.segments.filter((segment) => segment.id === 'r0') },
			values
		);
		expect(bounded).toBeCloseTo(0.05, 9);
		// The log names r0 too: its tip was followed no further than the ball, and is cut at its edge.
		const r0 = map.segments.find((segment) => segment.id === 'r0');
		const azimuthDeg = r0?.course.at(-1)?.azimuthDeg ?? 0;
		const named = (diameterMm: number, turned = 0) =>
			log({
				ballDiameterMm: 2 * radius,
				outMinutes: 0,
				cutRoots: [{ azimuthDeg: azimuthDeg + turned, diameterMm, how: 'torn' }]
			});
		const thick = r0?.diameterEndMm ?? 0;
		expect(liftEnds(named(thick), map, values)).toEqual([
			{ azimuthDeg, radiusMm: radius, diameterMm: thick, how: 'torn', segmentId: 'r0' }
		]);
		expect(liftKept(named(thick), of, map, values).share).toBe(0);
		expect(
			liftEnds(named(thick, values['lifting.endMatchDeg'] + 1), { segments: r0 ? [r0] : [] }, values)[0]
				?.segmentId
		).toBeNull();
		expect(liftEnds(named(thick * 2.1), { segments: r0 ? [r0] : [] }, values)[0]?.segmentId).toBeNull();
		expect(liftEnds(named(thick), null, values)[0]?.segmentId).toBeNull();
		// Of places of a root that are as near to the edge, the one farther along is where it was cut: it is the thinner.
		const [first] = r0?.course ?? [];
		if (!r0 || !first) throw new Error('no root');
		const twofold = {
			...r0,
			diameterStartMm: 3 * thick,
			diameterEndMm: thick / 3,
			course: [
				{ ...first, radiusMm: radius - 40 },
				{ ...first, radiusMm: radius - 10 },
				{ ...first, radiusMm: radius + 10 }
			]
		};
		const endOn = (diameterMm: number): string | null | undefined =>
			liftEnds(
				{ ...named(diameterMm), cutRoots: [{ azimuthDeg: first.azimuthDeg, diameterMm, how: 'torn' }] },
				{ segments: [twofold] },
				values
			)[0]?.segmentId;
		const most = values['lifting.endMatchThick'];
		expect(endOn((thick / 3) * most * 0.99)).toBe('r0');
		expect(endOn((thick / 3) * most * 1.01)).toBeNull();
		// Two ends never share a root.
		const twice = { ...named(thick), cutRoots: [...named(thick).cutRoots, ...named(thick, 5).cutRoots] };
		expect(liftEnds(twice, { segments: r0 ? [r0] : [] }, values).map((end) => end.segmentId)).toEqual([
			'r0',
			null
		]);
		const before = fresh({ rootMap: { ...map, mappedOn: '2026-03-01' }, lifts: [lift()] });
		expect(liftsDone(before, values)[0]?.kept.from).toBe('map');
		const after = fresh({ rootMap: { ...map, mappedOn: '2026-03-12' }, lifts: [lift()] });
		expect(liftsDone(after, values)[0]?.kept.from).toBe('ball');
	});
});

describe('a size that a new map began with', () => {
	it('is nobody’s measure; the map of a ball that was measured begins with its size', () => {
		const records = treeRecords();
		const of = (ballRadiusMm: number) =>
			standingOf({ ...records, rootMap: records.rootMap && { ...records.rootMap, ballRadiusMm } }, on, values)
				.ballWidthMm;
		expect(of(180)).toMatchObject({ value: 360, known: 'measured' });
		expect(of(guessedRadiusMm(records.tree))).toMatchObject({ known: 'assumed' });
		const fresh_ = (ball: { widthMm: number | null; depthMm: number | null }) =>
			new RootsState({ ...freshRoots, ball }).map;
		expect(fresh_({ widthMm: 440, depthMm: 300 })).toMatchObject({ ballRadiusMm: 220, ballDepthMm: 300 });
		expect(fresh_({ widthMm: null, depthMm: null })).toMatchObject({ ballRadiusMm: 160, ballDepthMm: null });
	});
});

describe('a size that the plan of a lift suggested', () => {
	it('is nobody’s measure until it is touched or said to be so', () => {
		const of = (assumed: LiftLog['assumed']) => standingOf(fresh({ lifts: [lift({ assumed })] }), on, values);
		expect(of([]).ballWidthMm).toMatchObject({ value: 600, known: 'measured', by: 'as lifted' });
		const half = of(['ballDepthMm']);
		expect(half.ballWidthMm.known).toBe('measured');
		expect(half.ballDepthMm).toMatchObject({ value: 400, known: 'assumed', by: 'as its lift was planned' });
	});
});

describe('a lift counts everywhere', () => {
	const before = fresh({ tree: { ...fresh().tree, situation: 'in-ground' as const } });
	const lifted = fresh({
		tree: { ...fresh().tree, situation: 'just-lifted' as const },
		lifts: [lift({ cutRoots: [{ azimuthDeg: 10, diameterMm: 30, how: 'torn' }] })]
	});
	it('as a loss of what it had, with its band; one that is only planned does not', () => {
		const { done } = rootLosses(lifted, values);
		expect(done).toHaveLength(1);
		expect(done[0]).toMatchObject({ by: 'lift', on: '2026-03-10' });
		expect(done[0]?.share).toBeGreaterThan(0.8);
		expect(done[0]?.low).toBeLessThan(done[0]?.share ?? 0);
		expect(done[0]?.high).toBeGreaterThan(done[0]?.share ?? 1);
		const planned = fresh({ lifts: [{ ...lift(), log: null }] });
		expect(rootLosses(planned, values).done).toEqual([]);
	});
	it('in what its roots drink, in what is said of its recovery, and in how it stands', () => {
		const place = lifted.places[0];
		if (!place) throw new Error('no place');
		const drinks = (records: TreeRecords) => treeDemand(records, place, on, values).rootFunction;
		expect(drinks(before)).toBe(1);
		expect(drinks(lifted)).toBeLessThan(0.25);
		expect(recoverySince(lifted, values)).toEqual({ on: '2026-03-10', what: 'lift' });
		const stands = standingOf(lifted, on, values);
		expect(stands.rootsLiving).toMatchObject({ known: 'worked-out', on: '2026-03-10' });
		expect(stands.rootsLiving.by).toContain('the lift, by its ball');
		expect(stands.rootsLiving.value).toBeCloseTo(drinks(lifted), 6);
		expect(stands.rootsLiving.low ?? 1).toBeLessThan(stands.rootsLiving.value ?? 0);
		expect(outSince(stands)).toEqual({ on: '2026-03-10', how: 'wrapped' });
		expect(standingOf(before, on, values).rootsLiving.known).toBe('unknown');
	});
	it('its chance is that of a lift with so many roots, and the cuts after it come on top', () => {
		const place = lifted.places[0];
		if (!place) throw new Error('no place');
		const chance = (records: TreeRecords) =>
			recoveryForecast(
				recoveryCase(
					records,
					{ place, series: [], course: [], referenceShootMm: null },
					'2026-03-20',
					values
				),
				values,
				{
					bands: false
				}
			).now;
		const half = fresh({ lifts: [lift({ ballDiameterMm: 250, ballDepthMm: 150 })] });
		const whole = fresh({ lifts: [lift({ ballDiameterMm: 1800, ballDepthMm: 600 })] });
		expect(chance(half)).toBeLessThan(chance(whole));
		// A usual lift of a leafless field-grown tree in its window is no sentence of death.
		expect(chance(fresh({ lifts: [lift()] }))).toBeGreaterThan(0.5);
		// Planted weeks later, it is still the lift that it has to get over.
		const planted = fresh({ lifts: half.lifts, plantings: [planting('2026-03-18')] });
		const potted = fresh({ plantings: [planting('2026-03-18')] });
		expect(chance(planted)).toBeLessThan(chance(potted));
	});
	it('as the work that aftercare follows; cuts close by belong to it, and the pot goes by what is in the ball', () => {
		expect(lastRootWork(lifted, values)).toMatchObject({ by: 'lift', on: '2026-03-10', ofBall: 0 });
		const both = treeRecords({ lifts: [lift({ liftedOn: '2025-02-01' })] }, [cut('r4', 0, '2025-02-10')]);
		const work = lastRootWork(both, values);
		expect(work).toMatchObject({ by: 'lift-and-cut', on: '2025-02-10', ofBall: expect.closeTo(0.2, 9) });
		const kept = liftsDone(both, values)[0]?.kept.share ?? 1;
		expect(work?.livingLoss).toBeCloseTo(1 - kept * 0.8, 9);
		const apart = treeRecords({ lifts: [lift({ liftedOn: '2024-12-01' })] }, [cut('r4', 0, '2025-02-10')]);
		expect(lastRootWork(apart, values)).toMatchObject({ by: 'cut', livingLoss: expect.closeTo(0.2, 9) });
	});
});

describe('facts', () => {
	const said = (
		value: number,
		day: string,
		known: Said<number>['known'] = 'seen',
		id = day
	): Said<number> => ({
		value,
		on: day,
		known,
		from: { record: 'look', id },
		by: id
	});
	it('the latest evidence stands; nothing reckoned or assumed outranks it, and a later day says nothing yet', () => {
		const of = [said(1, '2026-01-01'), said(2, '2026-02-01', 'worked-out'), said(3, '2026-03-01', 'assumed')];
		expect(latest(of, on, 7)).toMatchObject({ value: 1, known: 'seen' });
		expect(latest(of.slice(1), on, 7)).toMatchObject({ value: 2, known: 'worked-out' });
		expect(latest(of.slice(2), on, 7)).toMatchObject({ value: 3, known: 'assumed' });
		expect(latest(of, '2025-12-31', 7)).toMatchObject({ value: null, known: 'unknown', on: null });
	});
	it('of one day the one kept last stands, and what does not agree with it is said', () => {
		const fact = latest([said(1, '2026-02-01', 'seen', 'a'), said(2, '2026-02-01', 'seen', 'b')], on, 7);
		expect(fact.value).toBe(2);
		expect(fact.against.map((one) => one.value)).toEqual([1]);
		expect(latest([said(1, '2026-01-01', 'seen', 'a'), said(2, '2026-02-01')], on, 7).against).toEqual([]);
	});
});

describe('how a tree stands', () => {
	it('knows nothing of a tree nobody looked at, but what was said when it was taken in', () => {
		const stands = standingOf(fresh(), on, values);
		for (const [name, fact] of Object.entries(stands)) {
			if (typeof fact === 'string' || ['trunkMm', 'stands', 'place', 'permission'].includes(name)) continue;
			expect({ name, known: fact.known }).toEqual({
				name,
				known: name === 'crownWidthMm' ? 'assumed' : 'unknown'
			});
		}
	});
	it('has one ball: lifted, then planted, then mapped', () => {
		const lifts = [lift()];
		expect(standingOf(fresh({ lifts }), on, values).ballWidthMm).toMatchObject({
			value: 600,
			on: '2026-03-10',
			by: 'as lifted'
		});
		const plantings = [planting('2026-03-20')];
		const set = standingOf(fresh({ lifts, plantings }), on, values);
		expect([set.ballWidthMm.value, set.ballDepthMm.value]).toEqual([550, 350]);
		expect(set.stands).toMatchObject({ value: 'potted', on: '2026-03-20' });
		expect(outSince(set)).toBeNull();
		const mapped = treeRecords({ lifts, plantings });
		const map = { ...mapped, rootMap: mapped.rootMap && { ...mapped.rootMap, mappedOn: '2026-04-02' } };
		expect(standingOf(map, on, values).ballWidthMm).toMatchObject({ value: 360, by: 'as mapped' });
		// What lies ahead of the day counts for nothing.
		expect(standingOf(map, '2026-03-12', values).ballWidthMm.value).toBe(600);
	});
	it('what the planting form suggested and nobody changed is assumed, and gives way to anything measured', () => {
		const tree = fresh().tree;
		const left = planting('2026-03-20', {
			ballDiameterMm: tree.trunkDiameterMm * values['lifting.trunks-least'],
			crownWidthMm: Math.round(usualCrownWidthMm(tree, values))
		});
		const stands = standingOf(fresh({ plantings: [left] }), on, values);
		expect([stands.ballWidthMm.known, stands.ballDepthMm.known, stands.crownWidthMm.known]).toEqual([
			'assumed',
			'assumed',
			'assumed'
		]);
		expect(standingOf(fresh({ plantings: [left], lifts: [lift()] }), on, values).ballWidthMm).toMatchObject({
			value: 600,
			known: 'measured'
		});
		const touched = standingOf(
			fresh({ plantings: [planting('2026-03-20', { crownWidthMm: 900 })] }),
			on,
			values
		);
		expect([touched.ballWidthMm.known, touched.crownWidthMm.known]).toEqual(['measured', 'seen']);
	});
	it('a fact said anywhere serves everywhere: firm, alive, the limit, pests, buds', () => {
		const stands = standingOf(
			fresh({
				examinations: [
					examined('x', '2026-04-10', [
						['leans-rocks', 1],
						['galls-wool', 1],
						['buds-late', 1]
					])
				],
				measurements: [
					measured('m', '2026-04-11', {
						tool: 'scratch-tap',
						heightMm: 1000,
						points: [
							{ heightMm: 200, sideDeg: 0, reading: 'alive' },
							{ heightMm: 500, sideDeg: 90, reading: 'alive' },
							{ heightMm: 620, sideDeg: 0, reading: 'dead' },
							{ heightMm: 900, sideDeg: 180, reading: 'hollow' }
						]
					})
				],
				triages: [decided('d', '2026-04-10', { pests: 'none', servicesLocated: true })]
			}),
			on,
			values
		);
		expect(stands.firmness).toMatchObject({ value: 'moves', from: { record: 'examination', id: 'x' } });
		expect(stands.buds.value).toBe('none');
		expect(stands.twigAlive).toMatchObject({ value: true, known: 'measured' });
		expect(stands.livingLimitMm.value ?? 0).toBeGreaterThan(480);
		expect(stands.livingLimitMm.value ?? 0).toBeLessThan(640);
		// Galls found outrank "none" that another page said on the day.
		expect(stands.pests).toMatchObject({ value: 'root' });
		expect(stands.servicesLocated.value).toBe(true);
		expect(stands.permission).toMatchObject({ value: 'written', by: 'before the work' });
	});
	it('"none" on a leaf says nothing of the root: what sits there stands until it is looked at again', () => {
		const found = examined('x', '2026-03-01', [['root-grubs', 1]]);
		const leaf = look('o', '2026-04-10', { pests: 'none' });
		expect(standingOf(fresh({ examinations: [found], observations: [leaf] }), on, values).pests.value).toBe(
			'root'
		);
		const again = examined('y', '2026-04-12', [['root-grubs', 0]]);
		expect(
			standingOf(fresh({ examinations: [found, again], observations: [leaf] }), on, values).pests.value
		).toBe('none');
	});
	it('says which record disagrees, and the sheet names both', () => {
		const stands = standingOf(
			fresh({
				examinations: [examined('x', '2026-04-10', [['leans-rocks', 2]])],
				observations: [look('o', '2026-04-12', { firmness: 'firm' })]
			}),
			on,
			values
		);
		expect(stands.firmness.value).toBe('firm');
		expect(stands.firmness.against).toMatchObject([{ value: 'loose', from: { record: 'examination' } }]);
		const line = standingLines(stands)
			.flatMap((group) => group.lines)
			.find(({ label }) => label === 'At its base');
		expect(line).toMatchObject({
			shown: { value: 'stands firm' },
			page: 'recovery',
			against: [{ shown: { value: 'moves at the base' }, page: 'examine' }]
		});
	});
	it('two records agree within what the working values say, and only where they speak of the same time', () => {
		const against = (
			fact: 'trunkMm' | 'heightMm' | 'leafCover' | 'lean' | 'ph' | 'ballWidthMm' | 'ballDepthMm',
			records: TreeRecords,
			change: Partial<typeof values> = {}
		): number => standingOf(records, on, { ...values, ...change })[fact].against.length;
		const book = (id: string, details: object) =>
			bookEntrySchema.parse({ id, version: 1, on: '2026-03-12', kind: 'leans', details });
		const phs = (phNow: number) =>
			groundPlanSchema.parse({
				id: `g${phNow * 10}`,
				version: 1,
				plannedOn: '2026-03-12',
				sulphur: { phNow, phAim: 5, soil: 'loam', areaM2: 1 }
			});
		const cover = (leafCover: number, day: string) => look(`l${leafCover * 100}-${day}`, day, { leafCover });
		const map = treeRecords().rootMap;
		const mappedMm = (trunkDiameterMm: number) =>
			fresh({
				tree: { ...fresh().tree, takenInOn: '2025-02-01' },
				rootMap: map && { ...map, mappedOn: '2025-02-03', trunkDiameterMm }
			});
		// The tree's own trunk is 80 mm; a tenth of the larger is 8.8 of 88 and 9 of 90.
		expect(against('trunkMm', mappedMm(88))).toBe(0);
		expect(against('trunkMm', mappedMm(90))).toBe(1);
		expect(against('trunkMm', mappedMm(90), { 'standing.sameTrunk': 0.2 })).toBe(0);

		const covers = (second: number, day: string) =>
			fresh({ observations: [cover(0.5, '2026-04-01'), cover(second, day)] });
		expect(against('leafCover', covers(0.64, '2026-04-05'))).toBe(0);
		expect(against('leafCover', covers(0.66, '2026-04-05'))).toBe(1);
		expect(against('leafCover', covers(0.66, '2026-04-08'))).toBe(1);
		expect(against('leafCover', covers(0.66, '2026-04-09'))).toBe(0);
		expect(against('leafCover', covers(0.66, '2026-04-09'), { 'standing.sameTimeDays': 8 })).toBe(1);
		expect(against('leafCover', covers(0.66, '2026-04-05'), { 'standing.sameCover': 0.2 })).toBe(0);

		const leans = (leanDeg: number) =>
			fresh({
				book: [book('a', { bearingDeg: 90, leanDeg: 10 }), book('b', { bearingDeg: 90, leanDeg })]
			});
		expect(against('lean', leans(13))).toBe(0);
		expect(against('lean', leans(13.5))).toBe(1);
		expect(against('lean', leans(13.5), { 'standing.sameLeanDeg': 4 })).toBe(0);

		const soured = (phNow: number) => fresh({ groundPlans: [phs(6), phs(phNow)] });
		expect(against('ph', soured(6.5))).toBe(0);
		expect(against('ph', soured(6.6))).toBe(1);
		expect(against('ph', soured(6.6), { 'standing.samePh': 1 })).toBe(0);

		const balls = (ballDiameterMm: number, ballDepthMm: number) =>
			fresh({
				lifts: [lift({ ballDiameterMm: 600, ballDepthMm: 400, liftedOn: '2026-03-10' })],
				plantings: [planting('2026-03-12', { ballDiameterMm, ballDepthMm, assumed: [] })]
			});
		expect(against('ballWidthMm', balls(520, 400))).toBe(0);
		expect(against('ballWidthMm', balls(500, 400))).toBe(1);
		expect(against('ballWidthMm', balls(500, 400), { 'standing.sameSize': 0.2 })).toBe(0);
		expect(against('ballDepthMm', balls(600, 325))).toBe(0);
		expect(against('ballDepthMm', balls(600, 310))).toBe(1);
		expect(against('ballDepthMm', balls(600, 310), { 'standing.sameBallDepth': 0.3 })).toBe(0);
	});
	it('water is known for as long as the working value says, by whatever touched it', () => {
		const poured = wateringSchema.parse({ id: 'w', version: 1, wateredOn: '2026-04-01', litres: 2 });
		const known = (records: TreeRecords, day: string) => waterKnown(standingOf(records, day, values), values);
		const last = addDays('2026-04-01', values['decision.waterKnownDays']);
		expect(known(fresh(), on)).toBe(false);
		expect(known(fresh({ waterings: [poured] }), last)).toBe(true);
		expect(known(fresh({ waterings: [poured] }), addDays(last, 1))).toBe(false);
		const felt = measured('f', '2026-04-10', { tool: 'moisture', feel: 'damp', probeShare: null });
		expect(known(fresh({ waterings: [poured], measurements: [felt] }), addDays(last, 1))).toBe(true);
	});
});

describe('everything seen, one look a day', () => {
	it('a look is one whatever it says, but of the things that are asked for', () => {
		const silent = observationSchema.parse({ id: 'o', version: 1, observedOn: '2026-03-01' });
		const firm = observationSchema.parse({ id: 'p', version: 1, observedOn: '2026-03-02', firmness: 'firm' });
		const of = (things?: Parameters<typeof looksSeen>[2]) =>
			looksSeen({ observations: [silent, firm], examinations: [], measurements: [] }, values, things).map(
				({ observedOn }) => observedOn
			);
		expect(of()).toEqual(['2026-03-01', '2026-03-02']);
		expect(of(['firmness'])).toEqual(['2026-03-02']);
		expect(of(['leafCover'])).toEqual([]);
	});
	it('takes in what Examine and the tools saw, and lets the later record of a day speak last', () => {
		const looks = looksSeen(
			fresh({
				examinations: [
					examined('x', '2026-04-10', [
						['leans-rocks', 0],
						['sour-smell', 2],
						['no-white-tips', 1]
					]),
					examined('y', '2026-04-10', [['sour-smell', 0]]),
					examined('z', '2026-04-11', [['brackets', 1]])
				],
				observations: [
					look('o', '2026-04-10', { firmness: 'moves', leafCover: 0.4 }),
					look('p', '2026-04-10', { leafCover: 0.6 })
				]
			}),
			values
		);
		expect(looks).toHaveLength(1);
		expect(looks[0]).toMatchObject({
			observedOn: '2026-04-10',
			firmness: 'moves',
			smell: 'none',
			whiteTips: false,
			leafCover: 0.6,
			buds: null
		});
	});
	it('what led to the work on its very day speaks for the tree before, not since; how it stood holds on', () => {
		const records = fresh({
			examinations: [
				examined('w', '2026-03-01', [['wilts-wet', 1]]),
				examined('x', '2026-03-20', [
					['wilts-wet', 1],
					['sour-smell', 2],
					['leans-rocks', 1]
				]),
				examined('y', '2026-04-02', [['wilts-dry', 1]])
			],
			observations: [look('o', '2026-03-20', { leafCover: 0.5 })]
		});
		const since = (what: string) => looksSince(records, { on: '2026-03-20', what }, values);
		expect(since('planting')).toMatchObject([
			{ observedOn: '2026-03-20', leafState: null, smell: null, firmness: 'moves', leafCover: 0.5 },
			{ observedOn: '2026-04-02', leafState: 'wilted', wiltedIn: 'dry' }
		]);
		expect(since('taking-in')[0]).toMatchObject({ leafState: 'wilted', wiltedIn: 'wet', smell: 'sour' });
	});
	it('that it stood firm before it was lifted or set says nothing of how it stands since; that it moved does', () => {
		const moves: [string, Parameters<typeof fresh>[0]][] = [
			['lifted', { lifts: [lift({ liftedOn: '2026-03-20' })] }],
			['set', { plantings: [planting('2026-03-20')] }],
			['not moved', {}]
		];
		for (const [moved, change] of moves)
			for (const grade of [0, 1, 2])
				for (const on of ['2026-03-19', '2026-03-20', '2026-03-21']) {
					const records = fresh({
						lifts: [],
						plantings: [],
						...change,
						examinations: [examined('x', on, [['leans-rocks', grade]])]
					});
					const what = `${moved}, grade ${grade} on ${on}`;
					const holds = moved === 'not moved' || grade > 0 || on > '2026-03-20';
					const felt = standingOf(records, '2026-04-10', values).firmness.value;
					expect(felt !== null, what).toBe(holds);
					if (on !== '2026-03-20') continue;
					const [seen] = looksSince(records, { on: '2026-03-20', what: 'planting' }, values);
					expect((seen?.firmness ?? null) !== null, what).toBe(holds);
					// Nor does it where roots were cut that day.
					const [cutSince] = looksSince(records, { on: '2026-03-20', what: 'root-work' }, values);
					expect((cutSince?.firmness ?? null) !== null, what).toBe(grade > 0);
				}
		// A look at it where it stands now is one, also of that very day.
		const looked = fresh({
			plantings: [planting('2026-03-20')],
			observations: [look('o', '2026-03-20', { firmness: 'firm' })]
		});
		expect(standingOf(looked, '2026-04-10', values).firmness.value).toBe('firm');
		expect(looksSince(looked, { on: '2026-03-20', what: 'planting' }, values)[0]?.firmness).toBe('firm');
	});
	it('worse seen in Examine never makes the chance better', () => {
		const base = fresh({ lifts: [lift()], plantings: [planting('2026-03-20')] });
		const place = base.places[0];
		if (!place) throw new Error('no place');
		const chance = (findings: [string, number][]) =>
			recoveryForecast(
				recoveryCase(
					{ ...base, examinations: [examined('x', '2026-06-10', findings)] },
					{ place, series: [], course: [], referenceShootMm: null },
					'2026-06-20',
					values
				),
				values,
				{ bands: false }
			).now;
		for (const [better, worse] of [
			[
				['leans-rocks', 0],
				['leans-rocks', 2]
			],
			[
				['sour-smell', 0],
				['sour-smell', 2]
			],
			[
				['no-white-tips', 0],
				['no-white-tips', 1]
			]
		] as [[string, number], [string, number]][])
			expect(chance([worse])).toBeLessThan(chance([better]));
	});
});
