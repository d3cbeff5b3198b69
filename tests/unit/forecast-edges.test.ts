import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { addDays } from '$core/maths/calendar';
import { signChances } from '$core/recovery/evidence';
import { recoveryForecast, type LookSeen, type RecoveryCase } from '$core/recovery/forecast';
import { backward, kernelOf, onward, standings, startingShares } from '$core/recovery/standing-chain';
import { signSteps, type RecoverySign } from '$core/values/recovery';
import { defaultValues as values, resolveValues } from '$core/values/values';
import { silentLook } from '../records';

/*
 * Truth at the edges: whatever is seen, worse never makes the chance better, dead is called dead, and what nobody saw is not known.
 */
fc.configureGlobal({ seed: 20260720 });

const place = { kind: 'open' as const, latitudeDeg: 51, elevationM: 100, heldMinimumC: null };
const base: RecoveryCase = {
	sinceOn: '2026-03-01',
	today: '2026-07-20',
	odds: Math.log(0.6 / 0.4),
	oddsSpread: 0.5,
	begin: 0.6,
	losses: [],
	place,
	tender: false,
	evergreen: false,
	looks: [],
	functionSeen: [],
	healthyShootMm: 300,
	heightMm: 1000
};
const of = (change: Partial<RecoveryCase>) =>
	recoveryForecast({ ...base, ...change }, values, { bands: false });
const look = (seen: Partial<LookSeen>): LookSeen => ({ ...silentLook, ...seen });
const chanceOf = (seen: Partial<LookSeen>, change: Partial<RecoveryCase> = {}): number =>
	of({ looks: [look(seen)], ...change }).now;

/** Every single thing that can be seen, its values from worst to best. */
const scales = {
	leafCover: [0, 0.05, 0.1, 0.2, 0.3, 0.5, 0.7, 0.85, 1],
	leafState: ['dropped', 'wilted', 'scorched', 'yellow', 'turgid'],
	diebackLimitMm: [0, 20, 100, 300, 500, 800, 1000],
	shootExtensionMm: [0, 10, 40, 100, 160, 240, 400],
	buds: ['none', 'swelling', 'open'],
	firmness: ['loose', 'moves', 'firm'],
	whiteTips: [false, true],
	smell: ['sulphur', 'sour', 'mouldy', 'none']
} as const;
type Seen = keyof typeof scales;
const seenKeys = Object.keys(scales) as Seen[];

const situations = fc.record({
	evergreen: fc.boolean(),
	healthyShootMm: fc.constantFrom(null, 300),
	referenceShootMm: fc.constantFrom(null, 300),
	crownAtStart: fc.constantFrom(0, 0.1, 0.5, 1),
	begin: fc.constantFrom(0, 0.2, 0.6, 1),
	odds: fc.constantFrom(-2, 0.4, 2),
	tender: fc.boolean()
});
const looksAt = fc
	.uniqueArray(fc.constantFrom(30, 60, 95, 130, 230, 400), { minLength: 1, maxLength: 3 })
	.chain((days) =>
		fc.tuple(
			...days
				.sort((a, b) => a - b)
				.map((day) =>
					fc
						.record({
							progress: fc.constantFrom(0, 0.1, 0.2, 0.3, 0.5, 0.8),
							...(Object.fromEntries(
								seenKeys.map((key) => [
									key,
									fc.option(fc.constantFrom(...(scales[key] as unknown as readonly never[])), {
										nil: null,
										freq: 1
									})
								])
							) as Record<Seen, fc.Arbitrary<null>>)
						})
						.map((seen) => look({ ...seen, observedOn: addDays(base.sinceOn, day) }))
				)
		)
	);

describe('worse never reads better', () => {
	it.each(seenKeys)('%s, from the worst to the best, in and out of season, for every sort of tree', (key) => {
		for (const evergreen of [false, true])
			for (const progress of [0, 0.1, 0.3, 0.45, 0.7, 0.95]) {
				const chances = scales[key].map((value) => chanceOf({ [key]: value, progress }, { evergreen }));
				for (const [i, chance] of chances.entries())
					expect(chance, `${key} ${String(scales[key][i])}`).toBeGreaterThanOrEqual(
						(chances[i - 1] ?? 0) - 1e-9
					);
			}
	});

	it('any one thing made worse at any look, among whatever else was seen', () => {
		fc.assert(
			fc.property(
				situations,
				looksAt,
				fc.constantFrom(...seenKeys),
				fc.nat(),
				fc.nat(),
				(tree, looks, key, which, step) => {
					const at = which % looks.length;
					const scale = scales[key];
					const [worse, better] = [step % scale.length, (step + 1) % scale.length].sort((a, b) => a - b);
					const told = (value: unknown): number =>
						of({
							...tree,
							today: addDays(base.sinceOn, 420),
							looks: looks.map((one, i) => (i === at ? { ...one, [key]: value } : one))
						}).now;
					expect(told(scale[worse ?? 0])).toBeLessThanOrEqual(told(scale[better ?? 0]) + 1e-9);
				}
			),
			{ numRuns: 60 }
		);
	}, 300_000);

	it('root function by weighings, at any time, whatever it began with', () => {
		for (const begin of [0.05, 0.4, 1])
			for (const on of ['2026-03-20', '2026-07-10']) {
				const chances = [0, 0.05, 0.15, 0.3, 0.5, 0.7, 0.9, 1.1].map(
					(phi) => of({ begin, functionSeen: [{ on, phi, sd: 0.08 }] }).now
				);
				expect(chances).toEqual([...chances].sort((a, b) => a - b));
			}
	});

	it('is told in two parts: that it comes through, and that roots or shoots are enough in time', () => {
		const tree = { ...base, begin: 0.03, today: addDays(base.sinceOn, 700), heightMm: null };
		const seen = (on: string, shootExtensionMm: number | null): LookSeen =>
			look({ observedOn: on, progress: 0.9, leafCover: 0.9, leafState: 'turgid', shootExtensionMm });
		const shoots = (mm: number | null, referenceShootMm: number | null, change: Partial<RecoveryCase> = {}) =>
			of({ ...tree, looks: [seen('2026-09-10', 100), seen('2027-09-10', mm)], referenceShootMm, ...change });
		const unread = shoots(300, null);
		expect(unread.now).toBeCloseTo(unread.through * unread.inTime, 12);
		expect(unread.inTime).toBeLessThan(values['forecast.timeTold']);
		// As long as a healthy one's: half of what was wanting in time; far longer: nearly all of it.
		const wanted = values['verdict.shootShareOfReference'];
		const part = (one: ReturnType<typeof of>): number => (1 - one.inTime) / (1 - unread.inTime);
		expect(part(shoots(300 * wanted, 300))).toBeCloseTo(0.5, 9);
		expect(part(shoots(300 * (wanted + 0.15), 300))).toBeCloseTo(0.14, 2);
		expect(part(shoots(90, 300))).toBeGreaterThan(0.99);
		// What came before the work, comes later or is long past says nothing of it.
		expect(part(shoots(null, 300))).toBeGreaterThan(0.99);
		const atWork = { sinceOn: '2027-09-10', today: '2028-01-20' };
		expect(shoots(300, 300, atWork).inTime).toBe(shoots(300, null, atWork).inTime);
		const dayBefore = { today: '2027-09-09' };
		expect(shoots(300, 300, dayBefore).inTime).toBe(shoots(null, 300, dayBefore).inTime);
		const days = values['verdict.shootDays'];
		const after = (gone: number): number => {
			const today = addDays('2027-09-10', gone);
			return shoots(300, 300, { today }).inTime - shoots(300, null, { today }).inTime;
		};
		expect(after(days)).toBeGreaterThan(0.05);
		expect(after(days + 1)).toBe(0);
	});

	it('is no chance to die where only time is short', () => {
		const slow = { ...base, begin: 0.001, odds: 2, place: { ...place, latitudeDeg: 78 }, heightMm: null };
		const well = look({ observedOn: '2026-07-10', progress: 0.5, leafState: 'scorched' });
		const told = of({ ...slow, looks: [well] });
		expect(told.now).toBeLessThan(values['forecast.deadUnder']);
		expect(told.through).toBeGreaterThan(0.5);
		expect(told.dead).toBeNull();
	});

	it('fewer roots, a greater loss or worse odds at the start never give a better chance, whatever was seen', () => {
		fc.assert(
			fc.property(looksAt, fc.boolean(), (looks, evergreen) => {
				const rising = (list: RecoveryCase[]): void => {
					const chances = list.map((one) => recoveryForecast(one, values, { bands: false }).now);
					for (const [i, chance] of chances.entries())
						expect(chance).toBeGreaterThanOrEqual((chances[i - 1] ?? 0) - 1e-9);
				};
				const tree = { ...base, today: addDays(base.sinceOn, 420), looks, evergreen };
				rising([0, 0.05, 0.2, 0.5, 0.8, 1].map((begin) => ({ ...tree, begin })));
				rising([1, 0.6, 0.3, 0].map((share) => ({ ...tree, losses: [{ on: '2026-05-01', share }] })));
				rising([-4, -1, 0, 1, 4].map((odds) => ({ ...tree, odds })));
			}),
			{ numRuns: 12 }
		);
	}, 300_000);

	it('holds because each sign speaks the more for a tree the better its step, whatever the owner sets', () => {
		const own = resolveValues({
			'forecast.seen.leaves.turgid.whole': 0.01,
			'forecast.seen.smell.sour.whole': 0.9
		});
		for (const numbers of [values, own])
			for (const sign of Object.keys(signSteps) as RecoverySign[]) {
				let before: number[] | null = null;
				for (let shows = 0; shows <= 1.0001; shows += 0.1) {
					const chances = signChances(sign, Math.min(1, shows), numbers);
					expect(chances.reduce((sum, chance) => sum + chance, 0)).toBeCloseTo(1, 9);
					for (let k = 1; before && k < chances.length; k++)
						expect((chances[k] ?? 0) / (chances[k - 1] ?? 1)).toBeGreaterThanOrEqual(
							(before[k] ?? 0) / (before[k - 1] ?? 1) - 1e-9
						);
					before = chances;
				}
			}
	});

	it('and because the steps of time keep the order of standings: every two rows, every two columns (TP2)', () => {
		for (const seasons of [0.005, 0.035, 0.2]) {
			const kernel = kernelOf(seasons, values);
			for (const row of kernel) expect(row.reduce((sum, share) => sum + share, 0)).toBeCloseTo(1, 9);
			for (let i = 1; i < kernel.length; i++)
				for (let j = 1; j < kernel.length; j++) {
					const [a, b] = [kernel[i - 1], kernel[i]];
					const cross = (b?.[j] ?? 0) * (a?.[j - 1] ?? 0) - (b?.[j - 1] ?? 0) * (a?.[j] ?? 0);
					expect(cross).toBeGreaterThanOrEqual(-1e-12);
				}
		}
	});

	it('begins with the chance that was judged, and forward and backward agree on it', () => {
		const kernel = kernelOf(0.1, values);
		let worth: Float64Array = Float64Array.from(standings, (y) => (y > 0 ? 1 : 0));
		for (let i = 0; i < 20; i++) worth = backward(worth, kernel);
		for (const odds of [-3, -0.5, 0, 1.4, 4]) {
			let shares: Float64Array = startingShares(odds, worth, values);
			const judged = 1 / (1 + Math.exp(-odds));
			expect(shares.reduce((sum, share, i) => sum + share * (worth[i] ?? 0), 0)).toBeCloseTo(judged, 4);
			for (let i = 0; i < 20; i++) shares = onward(shares, kernel);
			expect(shares.reduce((sum, share, i) => sum + ((standings[i] ?? 0) > 0 ? share : 0), 0)).toBeCloseTo(
				judged,
				4
			);
		}
	});
});

describe('dead is called dead', () => {
	it('no leaf in July, no living wood and no roots: under 3 %, and by what', () => {
		const found = of({
			looks: [look({ leafCover: 0, diebackLimitMm: 0 })],
			functionSeen: [{ on: '2026-07-15', phi: 0, sd: 0.05 }]
		});
		expect(found.now).toBeLessThan(0.03);
		expect(found.dead?.join('; ')).toMatch(/no leaf/);
		expect(found.dead?.join('; ')).toMatch(/no living wood/);
		expect(found.moved.some((one) => one.what === 'no leaf' && one.by < -1)).toBe(true);
	});
	it('three bare looks from May to July, and an evergreen bare in January', () => {
		const bare = [
			{ observedOn: '2026-05-15', progress: 0.2 },
			{ observedOn: '2026-06-15', progress: 0.32 },
			{ observedOn: '2026-07-15', progress: 0.45 }
		].map((one) => look({ ...one, leafCover: 0 }));
		expect(of({ looks: bare }).now).toBeLessThan(0.03);
		const january = {
			today: '2027-01-20',
			looks: [look({ observedOn: '2027-01-15', progress: 0, leafCover: 0, leafState: 'dropped' })]
		};
		expect(of({ ...january, evergreen: true }).now).toBeLessThan(0.1);
		// A deciduous tree bare in winter says nothing.
		expect(of(january).now).toBeCloseTo(of({ ...january, looks: [] }).now, 12);
	});
	it('is not said of a tree that only struggles, and never without something seen against it', () => {
		expect(of({ looks: [look({ leafCover: 0.3, leafState: 'yellow' })] }).dead).toBeNull();
		expect(of({ odds: -6 }).dead).toBeNull();
	});
});

describe('progress counts against its own start', () => {
	it('a leafless stump whose buds opened, with half a crown and a long shoot, is likelier than before', () => {
		const stump = { crownAtStart: 0.1, evergreen: true, healthyShootMm: null } as const;
		const spring = look({ observedOn: '2026-05-15', progress: 0.2, leafCover: 0.1, buds: 'open' });
		const began = of({ ...stump, today: '2026-05-16', looks: [spring] }).now;
		const now = of({ ...stump, looks: [spring, look({ leafCover: 0.5, shootExtensionMm: 220 })] }).now;
		expect(now).toBeGreaterThan(began + 0.05);
		expect(now).toBeGreaterThan(of(stump).now);
	});
	it('what was burnt or cut off is allowed for: the same crown reads better from a smaller start', () => {
		const chances = [0.1, 0.4, 0.7, 1].map((crownAtStart) => chanceOf({ leafCover: 0.4 }, { crownAtStart }));
		expect(chances).toEqual([...chances].sort((a, b) => b - a));
		expect((chances[0] ?? 0) - (chances[3] ?? 0)).toBeGreaterThan(0.1);
	});
});

describe('unseen time', () => {
	it('widens the range, and ends in not known', () => {
		const seen = [look({ leafCover: 0.95, leafState: 'turgid' })];
		const at = (days: number) => of({ looks: seen, today: addDays('2026-07-15', days) });
		const widths = [0, 60, 200, 350, 580].map((days) => at(days).high - at(days).low);
		expect(widths).toEqual([...widths].sort((a, b) => a - b));
		expect((widths[4] ?? 0) - (widths[0] ?? 0)).toBeGreaterThan(0.2);
		expect(at(360).known).toBe(true);
		expect(at(580).known).toBe(false);
		expect(at(580).lastSeenOn).toBe('2026-07-15');
		expect(of({ today: addDays(base.sinceOn, 500) }).known).toBe(false);
	});
});
