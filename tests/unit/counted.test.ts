import { roundPot } from '$core/replant/pots/volume';
import { describe, expect, it } from 'vitest';
import { taskSchema } from '$core/vocabulary/task';
import {
	bookDetails,
	bookEntrySchema,
	bookInput,
	putOff,
	type BookDetails,
	type BookKind
} from '$core/aftercare/book/book';
import { ballAfter, broughtUp, spokenAgainst, type BookFacts } from '$core/aftercare/book/effects';
import type { PotMateRecords, TreeRecords } from '$core/tree/case';
import { examinationSchema } from '$core/examine/diagnosis/examination';
import { liftEnds } from '$core/replant/lifting/ends';
import { measurementSchema, type RawReading } from '$core/examine/measuring/measurement';
import { observationSchema } from '$core/examine/looks/observation';
import { isOwnersToSay } from '$core/roots/plan/consent';
import { ballOf } from '$core/tree/ball';
import { bookFacts } from '$core/tree/booked';
import { lastRootWork, woundedOn } from '$core/tree/losses';
import { standingOf } from '$core/tree/standing';
import { othersInPot, ofThePot, potWeights, withMates } from '$core/tree/shared-pot';
import { ballOfSizes } from '$core/replant/pots/fit';
import { judgePot } from '$core/replant/pots/rank';
import { steadyDays } from '$core/replant/pots/dry-down';
import { aboutKg, tooHeavyToWeigh } from '$core/tree/weights';
import { defaultValues as values, resolveValues } from '$core/values/values';
import { wateringSchema } from '$core/aftercare/water/watering';
import { besideOthers, layerAmounts } from '$core/replant/pots/replant-plan';
import { nobodyElse, storesOf, withOthers } from '$core/replant/pots/stores';
import { cut, treeRecords, plantingOn } from '../records';

const entry = (kind: BookKind, on: string, details: Partial<BookDetails> = {}, id = `b-${kind}-${on}`) =>
	bookEntrySchema.parse({ id, version: 1, kind, on, details: { ...bookDetails.parse({}), ...details } });
const wide = roundPot(500, 400, 250);
const planting = (plantedOn: string, change: object = {}, id = 'planting') =>
	plantingOn(plantedOn, { pot: wide, ballDiameterMm: 300, ballDepthMm: 200, ...change }, id);
const measured = (id: string, measuredOn: string, raw: RawReading) =>
	measurementSchema.parse({ id, version: 1, measuredOn, raw });
const bare = (change: Partial<TreeRecords> = {}) => treeRecords({ rootMap: null, plan: null, ...change });

describe('what was taken off a ball', () => {
	const planted = { plantings: [planting('2025-03-01')] };
	const depthOn = (records: TreeRecords, on: string) => ballOf(records, on, values).ballDepthMm.value;
	it('of the day of a planting is in the size that it was planted with', () => {
		const sliced = (on: string) => bare({ ...planted, book: [entry('ball-sliced', on, { depthMm: 40 })] });
		expect(depthOn(sliced('2025-03-01'), '2025-04-01')).toBe(200);
		expect(depthOn(sliced('2025-03-02'), '2025-04-01')).toBe(160);
	});
	it('outranks the measure before it, and gives way to the next one', () => {
		const records = bare({
			plantings: [planting('2025-03-01'), planting('2026-03-01', { ballDepthMm: 190 }, 'next')],
			book: [entry('ball-sliced', '2025-06-01', { depthMm: 40 })]
		});
		expect(depthOn(records, '2025-05-31')).toBe(200);
		expect(ballOf(records, '2025-06-01', values).ballDepthMm).toMatchObject({
			value: 160,
			known: 'worked-out'
		});
		expect(ballOf(records, '2026-03-01', values).ballDepthMm).toMatchObject({
			value: 190,
			known: 'measured'
		});
	});
	it('one side shaved takes its depth once, both sides twice', () => {
		const shaved = (bearingDeg: number | null) =>
			ballAfter(
				{ kind: 'ball-shaved', details: { ...bookDetails.parse({}), depthMm: 30, bearingDeg } },
				{ widthMm: 300, depthMm: 200 }
			);
		expect(shaved(90)).toEqual({ widthMm: 270, depthMm: 200 });
		expect(shaved(null)).toEqual({ widthMm: 240, depthMm: 200 });
	});
});

describe('the last work at the roots', () => {
	it('took rot where rot was written down as cut out that day, and on no other', () => {
		const work = (on: string) =>
			lastRootWork(treeRecords({ book: [entry('rot-cut-out', on)] }, [cut('r4', 0, '2025-02-10')]), values)
				?.rotWasCut;
		expect(work('2025-02-10')).toBe(true);
		expect(work('2025-02-11')).toBe(false);
	});
});

describe('rot', () => {
	const of = (flaws: 'rotten'[], grade: number | null, on = '2025-02-01') => {
		const records = treeRecords({}, [cut('r5', 0, '2025-02-10')]);
		const { rootMap } = records;
		return lastRootWork(
			{
				...records,
				rootMap: rootMap && {
					...rootMap,
					segments: rootMap.segments.map((segment) => (segment.id === 'r5' ? { ...segment, flaws } : segment))
				},
				examinations:
					grade === null
						? []
						: [
								examinationSchema.parse({
									id: 'e',
									version: 1,
									examinedOn: on,
									findings: [{ signId: 'roots-dark-soft', grade }]
								})
							]
			},
			values
		)?.rotWasCut;
	};
	it('is what was rotten or seen soft; a dead root is not rot by itself', () => {
		expect(of([], null)).toBe(false);
		expect(of(['rotten'], null)).toBe(true);
		expect(of([], 1)).toBe(true);
		expect(of([], 0)).toBe(false);
		expect(of([], 1, '2025-02-11')).toBe(false);
		expect(of([], 1, '2024-06-01')).toBe(false);
	});
});

describe('what speaks for or against an entry', () => {
	const look = (id: string, observedOn: string) =>
		observationSchema.parse({ id, version: 1, observedOn, diebackLimitMm: 400 });
	const feeding = (state: 'open' | 'done') =>
		taskSchema.parse({
			id: 'f',
			version: 1,
			title: 'Feed',
			kind: 'feeding',
			mark: 'trade',
			stage: 'aftercare',
			fromOn: '2025-05-01',
			toOn: '2025-06-01',
			minutes: 5,
			reason: '',
			source: 'feeding@2025-02-10',
			state,
			closedOn: state === 'done' ? '2025-05-01' : null
		});
	const facts = (change: Partial<TreeRecords>, on: string, cuts = [cut('r4', 0, '2025-02-10')]) =>
		bookFacts(treeRecords(change, cuts), on, values);
	it('is what was known on the day of the entry, not what came after it', () => {
		const observations = [look('a', '2025-05-01'), look('b', '2025-07-01')];
		expect(facts({ observations }, '2025-05-01').limitSteady).toBe(false);
		expect(facts({ observations }, '2025-07-01').limitSteady).toBe(true);
		const twice = [cut('r4', 0, '2025-02-10'), cut('r0', 1, '2025-08-01')];
		expect(facts({}, '2025-07-01', twice).rootsCutOn).toBe('2025-02-10');
		expect(facts({}, '2025-08-01', twice).rootsCutOn).toBe('2025-08-01');
		expect(facts({}, '2025-02-09', twice).rootsCutOn).toBeNull();
	});
	it('feeding waits while its task is open, and no longer', () => {
		expect(facts({ tasks: [feeding('open')] }, '2025-05-02').feedingWaits).toBe(true);
		expect(facts({ tasks: [feeding('done')] }, '2025-05-02').feedingWaits).toBe(false);
	});
	it('lime that was laid later does not speak against sulphur before it', () => {
		const no: BookFacts = { rootsCutOn: null, feedingWaits: false, livingLimitMm: null, limitSteady: false };
		const sulphur = entry('top-dressed', '2026-04-10', { choice: 'sulphur' });
		const against = (limedOn: string) =>
			spokenAgainst(sulphur, [entry('top-dressed', limedOn, { choice: 'lime' })], no, values).length;
		expect(against('2026-04-10')).toBe(1);
		expect(against('2026-04-11')).toBe(0);
	});
});

describe('what an entry brings up again', () => {
	it('has a week to be done in, or less where it comes oftener', () => {
		const again = (everyDays: number) =>
			broughtUp(entry('leaves-washed', '2026-04-01', { everyDays, choice: 'rinsed' }), 's', values)[0];
		expect(again(3)).toMatchObject({ fromOn: '2026-04-04', toOn: '2026-04-07' });
		expect(again(60)).toMatchObject({ fromOn: '2026-05-31', toOn: '2026-06-07' });
	});
	it('a stay of one day ends on it, and what was put off is carried over until its day has passed', () => {
		const covered = { kind: 'covered', on: '2026-04-10', details: { untilOn: '2026-04-10' } };
		expect(
			bookInput.safeParse({ ...covered, details: { ...bookDetails.parse({}), ...covered.details } })
		).toEqual(expect.objectContaining({ success: true }));
		const wait = [
			entry('put-off', '2026-04-01', { untilOn: '2026-05-01', first: 'two looks', choice: 'carve' })
		];
		expect(putOff(wait, '2026-05-01')).toHaveLength(1);
		expect(putOff(wait, '2026-05-02')).toEqual([]);
	});
});

describe('roots that a cold night would touch', () => {
	const on = '2025-03-01';
	const wounded = (change: Partial<TreeRecords>, cuts: ReturnType<typeof cut>[] = []) =>
		woundedOn(treeRecords(change, cuts), values);
	it('are those that lost living root to the work, or were cut back from rot', () => {
		expect(wounded({})).toBeNull();
		// The dead one alone leaves no wound; with a living one, or as rot, it does.
		expect(wounded({}, [cut('r5', 0, on)])).toBeNull();
		expect(wounded({}, [cut('r5', 0, '2025-04-01'), cut('r4', 0, on)])).toBe(on);
		const soft = examinationSchema.parse({
			id: 'e',
			version: 1,
			examinedOn: on,
			findings: [{ signId: 'roots-dark-soft', grade: 1, measuredBy: null }]
		});
		expect(wounded({ examinations: [soft] }, [cut('r5', 0, on)])).toBe(on);
		// So little counts as nothing.
		const dear = { ...values, 'aftercare.lossCounts': 0.99 };
		expect(woundedOn(treeRecords({}, [cut('r4', 0, on)]), dear)).toBeNull();
	});
});

describe('trees in one pot', () => {
	const mate = (change: Partial<PotMateRecords> = {}): PotMateRecords => ({
		tree: { id: 'm', tag: 'M-1', name: 'Mate', heightM: 0.8, trunkDiameterMm: 40 },
		plantings: [],
		waterings: [],
		measurements: [],
		examinations: [],
		weights: [],
		...change
	});
	const own = planting('2025-03-01', {}, 'own');
	const theirs = planting('2025-03-01', { ballDiameterMm: 200, ballDepthMm: 120 }, 'theirs');
	const weighed = measured('w', '2025-04-01', {
		tool: 'weighing',
		wateredOn: '2025-03-30',
		fullKg: 40,
		dryKg: null,
		nowKg: 31,
		neighbours: []
	});
	it('share what was weighed and poured, and keep their own pH and bark', () => {
		const ph = { ...weighed, id: 'x', raw: { ...weighed.raw, tool: 'scratch' } } as unknown as typeof weighed;
		const merged = ofThePot(bare({ plantings: [own], mates: [mate({ measurements: [weighed, ph] })] }));
		expect(merged.measurements.map((one) => one.id)).toEqual(['w']);
		const poured = wateringSchema.parse({ id: 'p', version: 1, wateredOn: '2025-04-02', litres: 3 });
		expect(ofThePot(bare({ mates: [mate({ waterings: [poured] })] })).waterings).toEqual([poured]);
	});
	it('stand in the pot that was written down for either of them', () => {
		const records = bare({ mates: [mate({ plantings: [theirs] })] });
		const stands = standingOf(records, '2025-05-01', values);
		// That the other was set beside it moved nothing of it.
		expect(stands.stands).toEqual(standingOf(bare(), '2025-05-01', values).stands);
		expect(stands.pot.value).toEqual(theirs.pot);
		expect(stands.mix.value).toEqual(theirs.mix);
		// Its own ball and crown nobody measured by that.
		expect(stands.ballWidthMm.value).toEqual(standingOf(bare(), '2025-05-01', values).ballWidthMm.value);
		expect(standingOf(records, '2025-02-28', values).pot.value).toBeNull();
	});
	it('fill the pot with both balls and shade it with both crowns', () => {
		const records = bare({ plantings: [own], mates: [mate({ plantings: [theirs] })] });
		const alone = storesOf(own, records.tree, values);
		const both = withMates(alone, records, own, values);
		const without = withMates(alone, { ...records, mates: [mate()] }, own, values);
		expect(both.rootedMostL).toBeGreaterThan(alone.rootedMostL);
		expect(both.rootedMostL + both.unrootedMostL).toBeCloseTo(alone.rootedMostL + alone.unrootedMostL, 9);
		expect(without.rootedMostL).toBe(alone.rootedMostL);
		expect(both.crownM2).toBeGreaterThan(alone.crownM2);
	});
	it('make a pot dry sooner before planting as after it', () => {
		const records = bare({ plantings: [own], mates: [mate({ plantings: [theirs] })] });
		const others = othersInPot(records.mates, values);
		const alone = storesOf(own, records.tree, values);
		expect(withOthers(alone, others)).toEqual(withMates(alone, records, own, values));
		// Their balls take the place of mix, of the main layer first; the parts still add up to the fill.
		const planting = records.plantings.at(-1);
		if (!planting) throw new Error('a planting');
		const single = layerAmounts({ ...planting, topLayerMm: 20 }, values);
		expect(single.topL).toBeGreaterThan(0);
		const beside = (ballsL: number) => besideOthers(single, ballsL, values);
		expect(beside(others.ballsL).mainL).toBeCloseTo(single.mainL - others.ballsL, 9);
		expect(others.ballsL * values['water.ballHeld']).toBeCloseTo(others.ballHeldL, 9);
		for (const ballsL of [0, others.ballsL, single.mainL + single.topL / 2, 1000]) {
			const parts = beside(ballsL);
			expect(parts.ballL + parts.mainL + parts.topL).toBeCloseTo(
				single.ballL + single.mainL + single.topL,
				9
			);
			expect(parts.readyMainL).toBeCloseTo((parts.mainL + single.moundL) * (1 + values['pot.settling']), 9);
			expect(Math.min(parts.mainL, parts.topL)).toBeGreaterThanOrEqual(0);
		}
		expect(beside(single.mainL + single.topL / 2).topL).toBeCloseTo(single.topL / 2, 9);
		expect(othersInPot([mate()], values).ballHeldL).toBe(0);
		expect(othersInPot([mate()], values).crownM2).toBeGreaterThan(0);
		const question = {
			...own,
			ball: ballOfSizes(own.ballDiameterMm, own.ballDepthMm, values['pot.ballShape']),
			standing: { tiltDeg: 0, tiltTowardDeg: 0 },
			moundMm: 0,
			flareOverRimMm: -20,
			wetnessTrigger: 0.5,
			days: steadyDays({ et0Mm: 4, inLeaf: true }),
			crownWidthMm: 800,
			rootFunction: 1,
			heightM: 1,
			largerWidthMm: 500,
			sameWidthMm: 400
		};
		const days = (with_: typeof others) =>
			judgePot(own.pot, null, { ...question, others: with_ }, values).dryDownDays;
		expect(days(others)).toBeLessThan(days(nobodyElse));
		const mixL = (with_: typeof others) =>
			judgePot(own.pot, null, { ...question, others: with_ }, values).mixL;
		expect(mixL(nobodyElse) - mixL(others)).toBeCloseTo(others.ballsL, 9);
	});
	it('are too heavy for a scale by what their pot holds, until it was weighed as it stands', () => {
		const records = bare({ plantings: [own] });
		const kg = aboutKg(records, '2025-05-01', null, values)?.kg ?? 0;
		const heavy = (limitKg: number, of = records) =>
			tooHeavyToWeigh(of, '2025-05-01', resolveValues({ 'water.weighedUpToKg': limitKg }));
		expect(kg).toBeGreaterThan(5);
		expect([heavy(kg - 0.1), heavy(kg), heavy(kg + 0.1)]).toEqual([true, false, false]);
		expect(heavy(5, bare({ plantings: [own], mates: [mate({ measurements: [weighed] })] }))).toBe(false);
		expect(heavy(5, bare({ plantings: [] }))).toBe(false);
	});
	it('weigh what the pot weighed, whoever it was weighed for', () => {
		const records = bare({ plantings: [own], mates: [mate({ measurements: [weighed] })] });
		expect(aboutKg(records, '2025-05-01', null, values)?.kg).toBe(31);
		expect(aboutKg({ ...records, mates: [] }, '2025-05-01', null, values)?.kg).not.toBe(31);
		expect(aboutKg(records, '2025-03-31', null, values)?.kg).not.toBe(31);
		const looked = bare({
			plantings: [own],
			mates: [mate({ weights: [{ id: 'k', on: '2025-04-20', kg: 33 }] })]
		});
		expect(aboutKg(looked, '2025-05-01', null, values)?.kg).toBe(33);
		expect(aboutKg(looked, '2025-05-01', 'k', values)?.kg).not.toBe(33);
		expect(potWeights(looked)).toEqual([{ id: 'k', on: '2025-04-20', kg: 33 }]);
	});
});

describe('ends that the log of a lift names', () => {
	const base = treeRecords().rootMap?.segments[0];
	if (!base) throw new Error('a root');
	const root = (id: string, azimuthDeg: number) => ({
		...base,
		id,
		diameterStartMm: 30,
		diameterEndMm: 30,
		course: [
			{ azimuthDeg, radiusMm: 40, depthMm: 30 },
			{ azimuthDeg, radiusMm: 300, depthMm: 30 }
		]
	});
	const end = (azimuthDeg: number) => ({ azimuthDeg, diameterMm: 30, how: 'saw' as const });
	it('go to the nearest root, whichever was named first; two ends never to one root', () => {
		const step = values['lifting.endMatchDeg'] / 3;
		const map = { segments: [root('a', 100), root('b', 100 + step)] };
		const ids = (...ends: number[]) =>
			liftEnds({ ballDiameterMm: 600, cutRoots: ends.map(end) }, map, values).map((one) => one.segmentId);
		// The first named is nearer to b than anything else is, but a is the better one for it.
		expect(ids(100 + step * 0.4, 100 + step)).toEqual(['a', 'b']);
		expect(ids(100 + step * 0.6, 100 + step)).toEqual(['a', 'b']);
		expect(ids(100, 101)).toEqual(['a', 'b']);
		expect(
			liftEnds(
				{ ballDiameterMm: 600, cutRoots: [end(100), end(101)] },
				{ segments: [root('a', 100)] },
				values
			).map((one) => one.segmentId)
		).toEqual(['a', null]);
	});
});

describe('a root that is the owner’s to speak of', () => {
	const [anchor] = treeRecords().rootMap?.segments ?? [];
	if (!anchor) throw new Error('a root');
	it('is a sound one: nobody is asked about dead wood', () => {
		const asks = (condition: 'sound' | 'dead') =>
			isOwnersToSay({ ...anchor, condition }, { permission: 'written' }, { frame: 'ground' }, values);
		expect(asks('sound')).toBe(true);
		expect(asks('dead')).toBe(false);
	});
});
