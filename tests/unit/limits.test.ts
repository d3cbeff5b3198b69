import { describe, expect, it } from 'vitest';
import { seenByProbe } from '$core/aftercare/water/pot-state';
import { weighingAdvice, type Weighings } from '$core/aftercare/water/root-function';
import { addDays } from '$core/maths/calendar';
import type { StandingToday } from '$core/examine/diagnosis/act-now';
import { advise } from '$core/examine/diagnosis/advice';
import type { DiagnosisContext } from '$core/examine/diagnosis/context';
import { diagnose, diagnosisPosterior, type Diagnosis } from '$core/examine/diagnosis/diagnose';
import { nextChecks } from '$core/examine/diagnosis/next-check';
import { referrals } from '$core/examine/diagnosis/referral';
import { girdlingSeverity } from '$core/examine/measuring/girdling';
import { outflow } from '$core/examine/measuring/pouring';
import { infiltrationData, infiltrationRate } from '$core/examine/soil/infiltration';
import { worthKeeping } from '$core/recovery/backup';
import { evidenceOf, type LookSeen } from '$core/recovery/evidence';
import { recoveryForecast, type RecoveryCase } from '$core/recovery/forecast';
import { conditionIds } from '$core/vocabulary/conditions';
import { signIds } from '$core/vocabulary/signs';
import { defaultValues, type ValueKey } from '$core/values/values';
import { silentLook } from '../records';

const values = defaultValues;
const bare: LookSeen = { ...silentLook, observedOn: '2026-06-01' };
const youngCase: Omit<RecoveryCase, 'evergreen' | 'looks' | 'crownAtStart'> = {
	sinceOn: '2026-03-01',
	today: '2026-06-20',
	odds: 1,
	oddsSpread: 0.5,
	begin: 0.6,
	losses: [],
	place: { kind: 'open', latitudeDeg: 52, elevationM: 0, heldMinimumC: null },
	tender: false,
	functionSeen: [],
	healthyShootMm: null
};
const potted: DiagnosisContext = { situation: 'potted', group: 'deciduous', season: 'summer', events: [] };
const atWindow: StandingToday = {
	seasonFit: 'in-window',
	vigour: 'fair',
	windowOn: null,
	monthsToWindow: 0,
	failingFast: false,
	girdledOverThird: false
};
const changed = (key: ValueKey, value: number) => ({ ...values, [key]: value });

/** Each limit decides on its own side of the number in force, and moves with it. */
describe('limits that decide', () => {
	const pair = (to: string) => ({ from: addDays(to, -3), to, lossKg: 1, litres: 1, kind: 'pair' as const });
	const said = (count: number, daysAgo: number, wide: number, of = values, rainUnmeasured = false) =>
		weighingAdvice(
			{
				...(Object.fromEntries(
					['pairs', 'told'].map((which) => [
						which,
						Array.from({ length: count }, () => pair(addDays('2026-06-30', -daysAgo)))
					])
				) as never as Pick<Weighings, 'pairs' | 'told'>),
				begun: false,
				tooHeavy: false,
				rainUnmeasured
			},
			{ on: '2026-06-30', phi: 0.6, low: 0, high: wide } as never,
			'2026-06-30',
			of
		);
	it('weighings: too few, too old, too wide, or nothing to say', () => {
		expect(said(3, 0, 0.2, values, true)).toMatch(/^Nobody wrote down the rain/);
		expect(said(0, 0, 0.2, values, true)).toMatch(/^No pair of weighings/);
		expect(said(1, 0, 0.2)).toMatch(/^1 pair of weighings: too few/);
		expect(said(2, 0, 0.2)).toMatch(/^2 pairs of weighings: too few/);
		expect(said(2, 0, 0.2, changed('water.pairsEnough', 2))).toBe('');
		expect(said(3, 21, 0.5)).toBe('');
		expect(said(3, 22, 0.5)).toMatch(/22 days old/);
		expect(said(3, 22, 0.5, changed('water.weighAgainDays', 22))).toBe('');
		expect(said(3, 0, 0.51)).toMatch(/band is wide/);
		expect(said(3, 0, 0.51, changed('water.wideBand', 0.6))).toBe('');
	});
	it('a probe that never came far above dry is read against the usual full, not against its own wettest', () => {
		const dry = values['water.probeDry'];
		const read = (wettest: number, of = values) =>
			seenByProbe(
				Array.from({ length: of['water.probeOften'] }, (_, i) => ({
					on: addDays('2026-06-01', i),
					value: i === 0 ? wettest : dry
				})),
				of
			)[0]?.dryness;
		expect(read(dry + 0.06)).toBe(0);
		expect(read(dry + 0.04)).toBeGreaterThan(0.5);
		expect(read(dry + 0.04, changed('water.probeMoves', 0.03))).toBe(0);
	});
	it('a root that barely touches does not girdle', () => {
		expect(girdlingSeverity(0.02, 10, 100, values)).toBe('none');
		expect(girdlingSeverity(0.021, 10, 100, values)).toBe('watch');
		expect(girdlingSeverity(0.021, 10, 100, changed('girdling.touches', 0.03))).toBe('none');
	});
	it('between what should run out and channelling nothing is said', () => {
		const most = values['measuring.outflow-most'];
		const channels = (share: number, of = values) =>
			outflow({ pouredL: 1, ranOutL: share, firstDripS: null }, of).channels;
		expect(channels(1.5 * most)).toBe(0);
		expect(channels(1.5 * most + 0.001)).toBeNull();
		expect(channels(1.5 * most + 0.001, changed('measuring.no-channel-times', 2))).toBe(0);
		expect(channels(values['measuring.channelling'])).toBe(1);
	});
	it('infiltration is steady when its last rate holds', () => {
		const steady = (last: number, of = values) =>
			infiltrationRate(
				infiltrationData.parse({
					ringDiameterMm: 150,
					readings: [
						{ minutes: 0, sunkMm: 0 },
						{ minutes: 10, sunkMm: 10 },
						{ minutes: 20, sunkMm: 10 + last }
					]
				}),
				of
			).steady;
		expect(steady(8.01)).toBe(true);
		expect(steady(7.99)).toBe(false);
		expect(steady(7.99, changed('soil.steady-share', 0.7))).toBe(true);
	});
	it('what struck in the yard itself counts once there are enough', () => {
		const from = (known: number, of = values) => worthKeeping('hardwood', { struck: known, known }, of).from;
		expect([from(9), from(10)]).toEqual(['usual', 'yard']);
		expect(from(9, changed('backup.ownFrom', 9))).toBe('yard');
	});
	it('leaves speak once the season has brought out so much of them', () => {
		const seen = (progress: number, of = values) =>
			evidenceOf(
				{ ...bare, leafCover: 0.5, progress },
				{ evergreen: false, healthyShootMm: null },
				{ cover: 1, shoots: 1, rootFunction: 1, heightMm: null },
				of
			).length;
		// Leaves come within a seventh of the season.
		expect([seen(0.895 / 7), seen(0.905 / 7)]).toEqual([0, 1]);
		expect(seen(0.895 / 7, changed('forecast.inLeaf', 0.8))).toBe(1);
	});
	it('a crown is bare up to half of what can be told apart', () => {
		const half = values['forecast.coverReading'] / 2;
		const said = (leafCover: number): string | undefined =>
			evidenceOf(
				{ ...bare, leafCover, progress: 0.5 },
				{ evergreen: false, healthyShootMm: null },
				{ cover: 1, shoots: 1, rootFunction: 1, heightMm: null },
				values
			)[0]?.what;
		expect([said(0), said(half)]).toEqual(['no leaf', 'no leaf']);
		expect(said(half + 0.001)).toMatch(/^leaf cover/);
	});
	it('an evergreen that began bare is asked for buds', () => {
		const moved = (crownAtStart: number, of = values) =>
			recoveryForecast(
				{ ...youngCase, evergreen: true, crownAtStart, looks: [{ ...bare, buds: 'none', progress: 0.3 }] },
				of
			).moved.length;
		expect([moved(0.19), moved(0.2)]).toEqual([1, 0]);
		expect(moved(0.2, changed('forecast.bareCrown', 0.3))).toBe(1);
	});
	it('what was seen is named when it moved the chance enough to speak of', () => {
		const named = (of = values): number =>
			recoveryForecast(
				{ ...youngCase, evergreen: false, looks: [{ ...bare, leafCover: 0.7, progress: 0.5 }] },
				of
			).moved.length;
		expect(named(changed('forecast.movedLeast', 0))).toBe(1);
		expect(named(changed('forecast.movedLeast', 2))).toBe(0);
	});
	it('a crown that began with next to nothing is no measure by itself', () => {
		const chance = (crownAtStart: number, of = values): number =>
			recoveryForecast(
				{
					...youngCase,
					evergreen: false,
					crownAtStart,
					looks: [{ ...bare, leafCover: 0.1, progress: 0.5 }]
				},
				of
			).now;
		expect(chance(0.01)).toBe(chance(0.05));
		expect(chance(0.06)).not.toBe(chance(0.05));
		expect(chance(0.01, changed('forecast.leastCrown', 0.3))).toBe(chance(0.3));
	});
	it('a check that shows a state in which the cause is rare comes before the work', () => {
		const checks = (of: typeof values): string =>
			signIds
				.flatMap((signId) => {
					const findings = [{ signId, grade: 1 }];
					return advise(diagnose(potted, findings, of), potted, findings, atWindow, of).causes.map(
						(one) => `${signId} ${one.conditionId} ${one.check ?? ''}`
					);
				})
				.join();
		expect(checks(changed('diagnosis.rare-world', 0))).not.toBe(checks(values));
	});
	it('a cause is asked after where an answer would change what is done, or while it is open', () => {
		const findings = [{ signId: 'wilts-noon' as const, grade: 1 }];
		const relevant = (of = values) => nextChecks(potted, findings, atWindow, of).relevant;
		const usual = relevant();
		// Answers as rare as one likes count too: more causes are worth asking after; only sure ones: fewer.
		expect(relevant(changed('diagnosis.answer-rare', 0)).length).toBeGreaterThan(usual.length);
		expect(relevant(changed('diagnosis.answer-rare', 0.3)).length).toBeLessThan(usual.length);
		const { chances } = diagnosisPosterior(potted, findings, values);
		// With no answer that counts, only what the findings speak for and is open is left.
		const alone = (change: Partial<typeof values>) =>
			relevant({ ...values, 'diagnosis.answer-rare': 1, ...change });
		const open = alone({});
		expect(open.length).toBeGreaterThan(0);
		for (const id of open) {
			const chance = chances[conditionIds.indexOf(id)] ?? 0;
			expect(alone({ 'diagnosis.open-from': chance })).toContain(id);
			expect(alone({ 'diagnosis.open-from': chance + 1e-9 })).not.toContain(id);
			expect(alone({ 'diagnosis.settled-from': chance })).toContain(id);
			expect(alone({ 'diagnosis.settled-from': chance - 1e-9 })).not.toContain(id);
		}
	});
	it('an arborist has to see a large tree in which rot is as likely as not', () => {
		const large = { situation: 'in-ground' as const, trunkDiameterMm: 900, heightM: 15 };
		const of = (conditionId: string, chance: number) => ({ ranking: [{ conditionId, chance }] }) as Diagnosis;
		for (const rot of ['root-rot', 'stem-rot']) {
			expect(referrals(large, [], of(rot, 0.5), values)).toHaveLength(1);
			expect(referrals(large, [], of(rot, 0.49), values)).toEqual([]);
			expect(referrals(large, [], of(rot, 0.49), changed('diagnosis.referral-rot', 0.4))).toHaveLength(1);
		}
	});
});
