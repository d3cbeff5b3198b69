import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { brierScore, brierSkill, reliability } from '$core/recovery/outcomes/forecast-score';
import { kaplanMeier, medianDays, type Follow } from '$core/recovery/outcomes/kaplan-meier';
import { backupStanding, tooMany, worthKeeping, type Backup } from '$core/recovery/backup';
import { recoveryForecast } from '$core/recovery/forecast';
import { fitGrowth } from '$core/recovery/growth-curve';
import { leanOf, simulateRecovery } from '$core/simulate/recoveries';
import { defaultValues as values } from '$core/values/values';
import { silentLook } from '../records';

describe('growth curves', () => {
	// Girths of five orange trees in mm by age in days: Draper & Smith 1981, exercise 24.N; the data set Orange of R.
	const ages = [118, 484, 664, 1004, 1231, 1372, 1582];
	const girths = [
		[30, 58, 87, 115, 120, 142, 145],
		[33, 69, 111, 156, 172, 203, 203],
		[30, 51, 75, 108, 115, 139, 140],
		[32, 62, 112, 167, 179, 209, 214],
		[30, 49, 81, 125, 142, 174, 177]
	];
	// Fits as in Pinheiro & Bates 2000, SSlogis: asymptote, midpoint, scale.
	const fits = [
		[154.2, 627.2, 362.6],
		[219.0, 700.4, 332.5],
		[158.8, 734.8, 400.9],
		[225.3, 710.7, 303.1],
		[207.3, 861.3, 380.0]
	];
	it.each([0, 1, 2, 3, 4])('of orange tree %i are those that are published', (i) => {
		const curve = fitGrowth(ages.map((time, k) => ({ time, size: girths[i]?.[k] ?? 0 })));
		expect(curve?.asymptote).toBeCloseTo(fits[i]?.[0] ?? 0, 0);
		expect(Math.abs((curve?.midpoint ?? 0) - (fits[i]?.[1] ?? 0))).toBeLessThan(0.6);
		expect(Math.abs((curve?.scale ?? 0) - (fits[i]?.[2] ?? 0))).toBeLessThan(0.6);
		// Uncertain where nothing was measured, less so amid the readings.
		expect(curve?.errorAt(2600) ?? 0).toBeGreaterThan(curve?.errorAt(900) ?? Infinity);
	});
	it('are not drawn through what does not rise, or through too little', () => {
		expect(fitGrowth([1, 2, 3].map((time) => ({ time, size: time })))).toBeNull();
		expect(fitGrowth([1, 2, 3, 4, 5].map((time) => ({ time, size: 10 - time })))).toBeNull();
		expect(fitGrowth([1, 2, 3, 4, 5].map((time) => ({ time, size: 0 })))).toBeNull();
	});
	it('give back a curve that was drawn without error', () => {
		fc.assert(
			fc.property(
				fc.double({ min: 50, max: 400, noNaN: true }),
				fc.double({ min: 30, max: 90, noNaN: true }),
				fc.double({ min: 8, max: 25, noNaN: true }),
				(asymptote, midpoint, scale) => {
					const points = [0, 20, 40, 60, 80, 100, 130, 160].map((time) => ({
						time,
						size: asymptote / (1 + Math.exp((midpoint - time) / scale))
					}));
					const curve = fitGrowth(points);
					expect(curve?.asymptote).toBeCloseTo(asymptote, 2);
					expect(curve?.midpoint).toBeCloseTo(midpoint, 2);
				}
			),
			{ numRuns: 60 }
		);
	});
});

describe('Kaplan–Meier', () => {
	// Weeks of remission of the 6-MP arm: Freireich et al. 1963; a plus means followed so far.
	const sixMp: Follow[] = '6 6 6 6+ 7 9+ 10 10+ 11+ 13 16 17+ 19+ 20+ 22 23 25+ 32+ 32+ 34+ 35+'
		.split(' ')
		.map((word) => ({ days: parseInt(word), happened: !word.endsWith('+') }));
	it('is that of the published table', () => {
		const steps = kaplanMeier(sixMp);
		expect(steps.map((step) => [step.days, Number(step.share.toFixed(3))])).toEqual([
			[6, 0.857],
			[7, 0.807],
			[10, 0.753],
			[13, 0.69],
			[16, 0.627],
			[22, 0.538],
			[23, 0.448]
		]);
		expect(steps.map((step) => step.atRisk)).toEqual([21, 17, 15, 12, 11, 7, 6]);
		expect(medianDays(steps)).toBe(23);
		// Standard error by Greenwood at 6 weeks is 0.0764 (from memory); its log-log interval 0.620 to 0.952.
		expect(steps[0]?.low).toBeCloseTo(0.62, 2);
		expect(steps[0]?.high).toBeCloseTo(0.952, 2);
	});
	it('never rises, stays within its interval, and without censoring is the plain share', () => {
		fc.assert(
			fc.property(
				fc.array(fc.record({ days: fc.integer({ min: 1, max: 900 }), happened: fc.boolean() }), {
					minLength: 1,
					maxLength: 60
				}),
				(follows) => {
					const steps = kaplanMeier(follows);
					for (const [i, step] of steps.entries()) {
						expect(step.share).toBeLessThanOrEqual((steps[i - 1]?.share ?? 1) + 1e-12);
						expect(step.low).toBeLessThanOrEqual(step.share + 1e-9);
						expect(step.high).toBeGreaterThanOrEqual(step.share - 1e-9);
					}
					const all = follows.map((one) => ({ ...one, happened: true }));
					for (const step of kaplanMeier(all))
						expect(step.share).toBeCloseTo(all.filter((one) => one.days > step.days).length / all.length, 9);
				}
			)
		);
	});
});

describe('forecasts against what came', () => {
	it('Brier’s score by hand: (0.1² + 0.4² + 0.7² + 0²) / 4', () => {
		const said = [
			{ probability: 0.9, happened: true },
			{ probability: 0.4, happened: false },
			{ probability: 0.3, happened: true },
			{ probability: 1, happened: true }
		];
		expect(brierScore(said)).toBeCloseTo((0.01 + 0.16 + 0.49 + 0) / 4, 12);
		// Always saying three quarters would earn 0.1875.
		expect(brierSkill(said)).toBeCloseTo(1 - 0.165 / 0.1875, 9);
		expect(brierScore([])).toBeNull();
		expect(reliability(said).map((bin) => [bin.from, bin.count, bin.came])).toEqual([
			[0.2, 1, 1],
			[0.4, 1, 0],
			[0.8, 2, 1]
		]);
	});
});

describe('the forecast of a recovery', () => {
	const yard = (daysAfter: number, count: number) =>
		Array.from({ length: count }, (_, i) => simulateRecovery(1000 + i, daysAfter, values));
	it('holds what it says on 500 simulated trees, some of which die within weeks, their truth jittered away from its belief', () => {
		const judged = [30, 60, 150, 300, 500].flatMap((daysAfter) =>
			yard(daysAfter, 100).map((one) => ({
				...one,
				daysAfter,
				forecast: recoveryForecast(one.case, values, { bands: daysAfter !== 30 && daysAfter !== 500 })
			}))
		);
		// Trees that are dead already are among them.
		expect(judged.filter((one) => one.truth.phi < 0.05).length).toBeGreaterThan(20);
		const said = judged.map(({ forecast, truth }) => ({
			probability: forecast.now,
			happened: truth.recovers
		}));
		const before = judged.map(({ forecast, truth }) => ({
			probability: forecast.prior,
			happened: truth.recovers
		}));
		const bins = reliability(said);
		const off = bins.reduce((sum, bin) => sum + bin.count * Math.abs(bin.said - bin.came), 0) / said.length;
		expect(off).toBeLessThan(0.05);
		expect(brierScore(said) ?? 1).toBeLessThan(0.7 * (brierScore(before) ?? 0));
		expect(brierScore(said) ?? 1).toBeLessThan(0.15);
		// Its band of the roots today holds the truth, and no more often than a band should.
		const banded = judged.filter(({ forecast }) => forecast.course.length > 0);
		const inside = banded.filter(({ forecast, truth, case: of }) => {
			const now = forecast.course.findLast((point) => point.on <= of.today);
			return now && truth.phi >= now.low - 0.02 && truth.phi <= now.high + 0.02;
		}).length;
		expect(inside / banded.length).toBeGreaterThan(0.85);
		expect(inside / banded.length).toBeLessThan(0.95);
	}, 300_000);
	it('holds where whole yards lean away from its belief: off by less than a fifth, and better than the share that comes back', () => {
		const said = Array.from({ length: 8 }, (_, at) => at).flatMap((at) =>
			Array.from({ length: 40 }, (_, i) => {
				const { case: of, truth } = simulateRecovery(9000 + 40 * at + i, 200, values, leanOf(70 + at));
				return {
					probability: recoveryForecast(of, values, { bands: false }).now,
					happened: truth.recovers
				};
			})
		);
		const off = reliability(said).reduce(
			(sum, bin) => sum + (bin.count / said.length) * Math.abs(bin.said - bin.came),
			0
		);
		expect(off).toBeLessThan(0.2);
		// Skill against who always says the share that comes back, and knows it.
		expect(brierSkill(said) ?? -1).toBeGreaterThan(0.1);
	}, 300_000);
	it('is the same for the same case, bounded, and its path ends in it', () => {
		const { case: of } = simulateRecovery(7, 200, values);
		const forecast = recoveryForecast(of, values);
		expect(recoveryForecast(of, values)).toEqual(forecast);
		expect(forecast.path.at(-1)?.probability).toBeCloseTo(forecast.now, 12);
		expect(forecast.low).toBeLessThanOrEqual(forecast.now);
		expect(forecast.high).toBeGreaterThanOrEqual(forecast.now);
		for (const point of [...forecast.course, ...forecast.expected]) {
			expect(point.low).toBeLessThanOrEqual(point.middle);
			expect(point.middle).toBeLessThanOrEqual(point.high);
			expect(point.low).toBeGreaterThanOrEqual(0);
			expect(point.high).toBeLessThanOrEqual(1);
		}
	});
	it('rises with good news and falls with bad, and what moved it names both', () => {
		const { case: of } = simulateRecovery(7, 10, values);
		const on = '2023-07-10';
		const told = (change: object) =>
			recoveryForecast(
				{
					...of,
					today: '2023-07-15',
					looks: [
						{
							...silentLook,
							observedOn: on,
							progress: 0.4,
							...change
						}
					]
				},
				values
			);
		const silent = told({});
		expect(silent.now).toBeCloseTo(silent.prior, 12);
		const good = told({ leafCover: 0.95, whiteTips: true });
		const bad = told({ leafCover: 0.1, leafState: 'wilted', buds: 'none' });
		expect(good.now).toBeGreaterThan(silent.now + 0.02);
		expect(bad.now).toBeLessThan(silent.now - 0.2);
		expect(bad.moved[0]?.by).toBeLessThan(0);
		expect(bad.moved.some((one) => one.what.includes('wilted'))).toBe(true);
		// More root taken never makes it likelier.
		expect(recoveryForecast({ ...of, odds: of.odds - 1 }, values).now).toBeLessThan(
			recoveryForecast(of, values).now
		);
	});
});

describe('backups', () => {
	const batch = (events: Backup['events'], count = 12): Pick<Backup, 'count' | 'events'> => ({
		count,
		events
	});
	const event = (on: string, what: Backup['events'][number]['what'], count: number) => ({
		on,
		what,
		count,
		becameId: null
	});
	it('stand where they are: rooted, potted, lost; never more than were taken', () => {
		const standing = backupStanding(
			batch([
				event('2026-04-01', 'struck', 5),
				event('2026-04-10', 'potted', 3),
				event('2026-04-12', 'lost', 4)
			])
		);
		expect(standing).toEqual({ waiting: 3, rooted: 2, potted: 3, lost: 4, given: 0, alive: 8 });
		expect(tooMany(batch([event('2026-04-01', 'lost', 13)]))).toBe('lost');
		fc.assert(
			fc.property(
				fc.array(
					fc.record({
						on: fc.constantFrom('2026-04-01', '2026-05-01', '2026-06-01'),
						what: fc.constantFrom('struck' as const, 'potted' as const, 'lost' as const, 'given' as const),
						count: fc.integer({ min: 1, max: 6 }),
						becameId: fc.constant(null)
					}),
					{ maxLength: 6 }
				),
				(events) => {
					fc.pre(tooMany(batch(events)) === null);
					const s = backupStanding(batch(events));
					expect(s.waiting + s.rooted + s.potted + s.lost + s.given).toBe(12);
					expect(Math.min(s.waiting, s.rooted)).toBeGreaterThanOrEqual(0);
				}
			)
		);
	});
	it('as many are kept as make one sure: 0.4 each needs six for 95 %; a poor record asks for more', () => {
		// 1 − 0.6⁶ = 0.953 [recomputed].
		expect(worthKeeping('hardwood', { struck: 0, known: 0 }, values)).toMatchObject({
			count: 6,
			from: 'usual'
		});
		expect(worthKeeping('hardwood', { struck: 2, known: 20 }, values).count).toBeGreaterThan(20);
		expect(worthKeeping('hardwood', { struck: 19, known: 20 }, values).count).toBeLessThan(4);
	});
});
