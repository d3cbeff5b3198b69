import { roundPot } from '$core/replant/pots/volume';
import { describe, expect, it } from 'vitest';
import type { TreeRecords } from '$core/tree/case';
import { addDays } from '$core/maths/calendar';
import { plantingSchema } from '$core/replant/pots/replant-plan';
import { triageSchema } from '$core/examine/triage/triage';
import { observationInput, type Observation } from '$core/examine/looks/observation';
import { recoveryCase, recoverySince } from '$core/tree/recovery-case';
import { recoveryForecast } from '$core/recovery/forecast';
import type { Cut } from '$core/roots/plan/plan';
import { treeSchema } from '$core/take-in/tree';
import { defaultValues as values, resolveValues } from '$core/values/values';
import type { FunctionEstimate } from '$core/aftercare/water/root-function';
import { cut, treeRecords } from '../records';

const today = '2026-06-20';
const look = (observedOn: string, seen: Record<string, unknown> = {}): Observation => ({
	...observationInput.parse({ observedOn, note: 'seen', ...seen }),
	id: `o-${observedOn}`,
	version: 1
});
const planted = (plantedOn: string) =>
	plantingSchema.parse({
		id: `p-${plantedOn}`,
		version: 1,
		plantedOn,
		pot: roundPot(380, 320, 240),
		sizeRule: 'normal',
		headspaceMm: 20,
		ballDiameterMm: 320,
		ballDepthMm: 180,
		mix: { name: 'pumice', parts: [{ componentId: 'pumice-medium', parts: 1 }] },
		plantCount: 1,
		note: ''
	});
const caseOf = (
	change: Partial<TreeRecords> = {},
	cuts: Cut[] = [],
	course: FunctionEstimate[] = [],
	reference: number | null = null
) => {
	const records = treeRecords(change, cuts);
	const [place] = records.places;
	if (!place) throw new Error('no place');
	return recoveryCase(records, { place, series: [], course, referenceShootMm: reference }, today, values);
};
const chance = (odds: number): number => 1 / (1 + Math.exp(-odds));

describe('the day recovery is counted from', () => {
	it('is that of the last cut, of the last planting, or of taking in, whichever came last', () => {
		expect(recoverySince(treeRecords(), values)).toEqual({ on: '2025-02-01', what: 'taking-in' });
		expect(recoverySince(treeRecords({}, [cut('r4', 0, '2025-02-10')]), values)).toEqual({
			on: '2025-02-10',
			what: 'root-work'
		});
		expect(
			recoverySince(treeRecords({ plantings: [planted('2025-03-01')] }, [cut('r4', 0, '2025-02-10')]), values)
		).toEqual({ on: '2025-03-01', what: 'planting' });
		// Of one day the cut is what the tree has to come back from.
		expect(
			recoverySince(treeRecords({ plantings: [planted('2025-02-10')] }, [cut('r4', 0, '2025-02-10')]), values)
				.what
		).toBe('root-work');
	});
	it('a cut that is only planned begins nothing', () => {
		expect(recoverySince(treeRecords({}, [cut('r3', 1)]), values).what).toBe('taking-in');
	});
});

describe('a tree as the forecast takes it', () => {
	it('begins with the roots that were left, and knows what is still to be cut', () => {
		const before = caseOf();
		// One root of six, dead and of 20 mm, was found: 400 of 4900 of the sections.
		expect(before.begin).toBeGreaterThan(0.9);
		const after = caseOf({}, [cut('r4', 0, '2025-02-10'), cut('r3', 1)]);
		expect(after.sinceOn).toBe('2025-02-10');
		expect(after.begin).toBeLessThan(before.begin);
		expect(after.begin).toBeGreaterThan((1 - 400 / 4900) * 0.8 - 0.02);
		expect(after.losses).toEqual([{ on: '2026-11-10', share: expect.closeTo(0.2, 9) }]);
	});

	it('the more was cut on the day, the less likely it lives', () => {
		const none = caseOf({ plantings: [planted('2025-02-10')] });
		const one = caseOf({}, [cut('r4', 0, '2025-02-10')]);
		const two = caseOf({}, [cut('r4', 0, '2025-02-10'), cut('r3', 0, '2025-02-10')]);
		expect(one.odds - none.odds).toBeCloseTo(0.2 * values['forecast.lossOdds'], 6);
		expect(two.odds).toBeLessThan(one.odds);
	});

	it('rests on the decision before the work when there is one, not on an old one', () => {
		const weak = (decidedOn: string) =>
			triageSchema.parse({
				id: `d-${decidedOn}`,
				version: 1,
				decidedOn,
				decision: 'go',
				purpose: 'treat',
				vitality: 'weak',
				permission: 'own',
				pests: 'none',
				note: ''
			});
		const cuts = [cut('r4', 0, '2025-02-10')];
		const plain = caseOf({}, cuts).odds;
		expect(chance(caseOf({ triages: [weak('2025-02-05')] }, cuts).odds)).toBeLessThan(chance(plain));
		expect(caseOf({ triages: [weak('2024-11-01')] }, cuts).odds).toBe(plain);
		const least = values['forecast.decisionDays'];
		expect(caseOf({ triages: [weak(addDays('2025-02-10', -least))] }, cuts).odds).toBeLessThan(plain);
		expect(caseOf({ triages: [weak(addDays('2025-02-10', -least - 1))] }, cuts).odds).toBe(plain);
		// Decided afterwards, it says nothing of how the tree stood before.
		expect(caseOf({ triages: [weak('2025-03-01')] }, cuts).odds).toBe(plain);
	});

	it('looks before the work and after today are left out; those between carry the season they fell in', () => {
		const made = caseOf(
			{
				observations: [look('2025-02-05'), look('2025-05-20'), look('2026-01-10'), look('2026-07-01')]
			},
			[cut('r4', 0, '2025-02-10')]
		);
		expect(made.looks.map((one) => one.observedOn)).toEqual(['2025-05-20', '2026-01-10']);
		expect(made.looks[0]?.progress).toBeGreaterThan(0.05);
		expect(made.looks[0]?.progress).toBeLessThan(0.6);
		expect(made.looks[1]?.progress).toBe(0);
	});

	it('measures shoots against a reference, else against its own best before the work', () => {
		const observations = [
			look('2025-02-02', { shootExtensionMm: 210 }),
			look('2025-02-04', { shootExtensionMm: 260 }),
			look('2025-07-20', { shootExtensionMm: 400 })
		];
		const cuts = [cut('r4', 0, '2025-02-10')];
		expect(caseOf({ observations }, cuts).healthyShootMm).toBe(260);
		expect(caseOf({ observations }, cuts, [], 310).healthyShootMm).toBe(310);
		expect(caseOf({}, cuts).healthyShootMm).toBeNull();
	});

	it('takes from the course of the roots only what was weighed, a month apart, with its own error', () => {
		const course = Array.from({ length: 100 }, (_, i): FunctionEstimate => {
			const on = addDays('2025-02-05', i);
			return {
				on,
				phi: 0.6,
				low: 0.6 - 0.16449,
				high: 0.6 + 0.16449,
				expected: 0.6,
				seen: i % 5 === 0 ? 0.6 : null
			};
		});
		const { functionSeen } = caseOf({}, [cut('r4', 0, '2025-02-10')], course);
		expect(functionSeen[0]?.on).toBe('2025-02-15');
		for (const [i, point] of functionSeen.entries()) {
			expect(point.sd).toBeCloseTo(0.1, 6);
			const before = functionSeen[i - 1];
			if (before) expect(point.on).toBe(addDays(before.on, values['forecast.weighApartDays']));
		}
		expect(functionSeen.length).toBeGreaterThanOrEqual(3);
	});

	it('its crown at the start is that of a look within days enough', () => {
		const cuts = [cut('r4', 0, '2025-08-10')];
		const of = (days: number) =>
			caseOf({ observations: [look(addDays('2025-08-10', -days), { leafCover: 0.3 })] }, cuts).crownAtStart;
		const most = values['forecast.coverDays'];
		expect(of(most)).toBeCloseTo(0.3, 9);
		expect(of(most + 1)).toBe(1);
	});

	it('an evergreen is known by its group, so that no buds are asked of it', () => {
		const records = treeRecords();
		expect(caseOf().evergreen).toBe(false);
		const pine = { ...records.kind, group: 'conifer' as const };
		expect(caseOf({ kind: pine }).evergreen).toBe(true);
	});

	it('ends in a forecast whose range holds its middle, and that moves with what is seen', () => {
		const cuts = [cut('r4', 0, '2025-02-10'), cut('r3', 0, '2025-02-10')];
		const good = caseOf(
			{
				observations: [
					look('2025-06-10', { leafCover: 0.95, whiteTips: true, firmness: 'firm' }),
					look('2025-08-10', { leafCover: 0.95, whiteTips: true })
				]
			},
			cuts
		);
		const bad = caseOf(
			{
				observations: [
					look('2025-06-10', { leafCover: 0.3, whiteTips: false, leafState: 'wilted' }),
					look('2025-08-10', { leafCover: 0.1, smell: 'sour' })
				]
			},
			cuts
		);
		const [up, level, down] = [good, caseOf({}, cuts), bad].map((one) => recoveryForecast(one, values));
		if (!up || !level || !down) throw new Error('three forecasts');
		expect(up.now).toBeGreaterThan(level.now);
		expect(level.now).toBeGreaterThan(down.now);
		for (const one of [up, level, down]) {
			expect(one.low).toBeLessThanOrEqual(one.now);
			expect(one.high).toBeGreaterThanOrEqual(one.now);
		}
		expect(down.moved[0]?.by).toBeLessThan(0);
	});

	it('rot that was found weighs by its own chance', () => {
		const records = treeRecords({}, [cut('r4', 0, '2025-02-10')]);
		const [place] = records.places;
		if (!place) throw new Error('no place');
		const odds = (rotChance: number) =>
			recoveryCase(
				records,
				{ place, series: [], course: [], referenceShootMm: null },
				today,
				resolveValues({ 'forecast.rotChance': rotChance })
			).odds;
		expect(odds(1)).toBeLessThan(odds(0.5));
		expect(odds(0.5)).toBeLessThan(odds(0));
	});

	it('of a tree just taken in nothing is claimed', () => {
		const records = treeRecords();
		const made = caseOf({ tree: treeSchema.parse({ ...records.tree, takenInOn: today }) });
		expect(made.looks).toEqual([]);
		expect(made.sinceOn).toBe(today);
		const { moved, path } = recoveryForecast(made, values);
		expect(moved).toEqual([]);
		expect(path).toHaveLength(1);
	});
});
