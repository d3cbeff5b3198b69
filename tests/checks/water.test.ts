import fc from 'fast-check';
import KalmanFilter from 'kalmanjs';
import { describe, expect, it } from 'vitest';
import { addDays, daysBetween } from '$core/maths/calendar';
import { placeSchema } from '$core/vocabulary/place';
import { simulateWeighedTree } from '$core/simulate/weighed-tree';
import { defaultValues as values } from '$core/values/values';
import { drynessOf, fullPot, groundDay, potDay, type PotStores } from '$core/replant/pots/balance';
import {
	fallOf,
	fallWords,
	nextWatering,
	waterAlarms,
	weighedThenAndNow
} from '$core/aftercare/water/forecast';
import { pairsOfScale, potState, seenByDevices, seenByProbe } from '$core/aftercare/water/pot-state';
import { grown } from '$core/aftercare/water/regrowth';
import { bareDay } from '$core/climate/series';
import {
	functionBy,
	kalman,
	rainUnmeasured,
	rootFunction,
	weighingAdvice
} from '$core/aftercare/water/root-function';
import {
	outflowLearned,
	weighingPairs,
	wateringInput,
	wateringSchema,
	type Watering
} from '$core/aftercare/water/watering';
import { weatherSeries } from '$core/climate/series';

const place = placeSchema.parse({ id: 'p', version: 1, name: 'P', kind: 'open', latitudeDeg: 52, note: '' });
const stores: PotStores = { rootedMostL: 2.4, unrootedMostL: 3.1, surfaceM2: 0.09, crownM2: 0.35 };
const litres = fc.double({ min: 0, max: 5, noNaN: true });
const share = fc.double({ min: 0, max: 1, noNaN: true });

describe('water in a pot', () => {
	it('is conserved, never negative and never more than the pot holds', () => {
		fc.assert(
			fc.property(
				fc.record({
					rootedL: fc.double({ min: 0, max: 2.4, noNaN: true }),
					unrootedL: fc.double({ min: 0, max: 3.1, noNaN: true })
				}),
				fc.double({ min: 0, max: 12, noNaN: true }),
				fc.double({ min: 0, max: 60, noNaN: true }),
				fc.double({ min: 0, max: 1.2, noNaN: true }),
				litres,
				fc.boolean(),
				(before, et0Mm, rainMm, phi, irrigation, inLeaf) => {
					const day = potDay(
						before,
						stores,
						{ day: { on: '2026-06-01', et0Mm, rainMm }, rootFunction: phi, inLeaf, irrigationL: irrigation },
						values
					);
					const inL = before.rootedL + before.unrootedL + day.rainL + day.irrigationL;
					const outL =
						day.water.rootedL + day.water.unrootedL + day.transpirationL + day.evaporationL + day.outflowL;
					expect(outL).toBeCloseTo(inL, 9);
					for (const part of [day.water.rootedL, day.water.unrootedL, day.transpirationL, day.outflowL])
						expect(part).toBeGreaterThanOrEqual(-1e-12);
					expect(day.water.rootedL).toBeLessThanOrEqual(stores.rootedMostL + 1e-9);
					expect(day.water.unrootedL).toBeLessThanOrEqual(stores.unrootedMostL + 1e-9);
				}
			)
		);
	});
	it('in the ground too', () => {
		fc.assert(
			fc.property(
				fc.double({ min: 0, max: 40, noNaN: true }),
				fc.double({ min: 0, max: 60, noNaN: true }),
				fc.double({ min: 0, max: 9, noNaN: true }),
				fc.double({ min: 0, max: 50, noNaN: true }),
				(ball, backfill, et0Mm, rainMm) => {
					const ground = { ballMm: 40, backfillMm: 60, areaM2: 0.2, crownRatio: 1.4, grassShare: 0.3 };
					const day = groundDay(
						{ ballMm: ball, backfillMm: backfill },
						ground,
						{ day: { on: '2026-06-01', et0Mm, rainMm }, rootFunction: 0.8, inLeaf: true, irrigationMm: 5 },
						values
					);
					const { ballMm, backfillMm } = day.water;
					expect(ballMm + backfillMm + day.drawnMm + day.grassMm + day.drainedMm).toBeCloseTo(
						ball + backfill + rainMm + 5,
						9
					);
					expect(Math.min(ballMm, backfillMm)).toBeGreaterThanOrEqual(-1e-9);
				}
			)
		);
	});
});

describe('the next watering', () => {
	const series = (et0Mm: number) =>
		Array.from({ length: 30 }, (_, i) => ({
			...weatherSeries(place, '2026-06-01', '2026-06-01', [], values)[0],
			on: addDays('2026-06-01', i),
			et0Mm,
			rainMm: 0
		})) as ReturnType<typeof weatherSeries>;
	const ask = (et0Mm: number, change: object = {}) =>
		nextWatering(
			{
				stores,
				since: { on: '2026-05-31', water: fullPot(stores) },
				series: series(et0Mm),
				today: '2026-06-03',
				trigger: 0.5,
				root: { phi: 0.7, low: 0.5, high: 0.9 },
				inLeaf: () => true,
				restUntil: null,
				sheds: false,
				outflow: 0.15,
				...change
			},
			values
		);
	it('rain that nobody measured may have kept it wet, once it is too long ago to be remembered', () => {
		const remembered = values['water.rainRememberedDays'];
		const most = stores.rootedMostL + stores.unrootedMostL;
		const of = (today: string, change: object = {}) =>
			ask(4, { today, rainReach: 1, series: series(4).map((day) => ({ ...day, how: 'usual' })), ...change });
		const due = of('2026-06-20').on ?? '';
		const told = (today: string, change: object = {}) => of(today, change).rainPerhaps;
		// As much rain as what it is drier than it is watered at, and no less.
		const late = '2026-06-15';
		const beyondL = (of(late).dryness - 0.5) * most;
		const days = daysBetween('2026-05-31', late);
		const enough = beyondL / (days * values['rootFunction.unmeasuredRainMm'] * stores.surfaceM2);
		expect([told(late, { rainReach: enough * 1.01 }), told(late, { rainReach: enough * 0.99 })]).toEqual([
			true,
			false
		]);
		const wet = { rainReach: 1000 };
		expect(told(late, wet)).toBe(true);
		expect(of(late, wet).reason).toBe(
			'Dry enough to water, if no rain reached it: nobody wrote down the rain since 2026-05-31.'
		);
		// Measured, there is nothing to ask; nor before it is due; nor of days one remembers.
		expect(told(late, { ...wet, series: series(4).map((day) => ({ ...day, how: '' })) })).toBe(false);
		expect(told(addDays(due, -1), wet)).toBe(false);
		const lately = (unmeasuredOn: string) =>
			told(late, {
				...wet,
				series: series(4).map((day) => ({ ...day, how: day.on === unmeasuredOn ? 'usual' : '' }))
			});
		expect([lately(addDays(late, -remembered)), lately(addDays(late, 1 - remembered))]).toEqual([
			true,
			false
		]);
	});
	it('overdue, the litres are today’s deficit, not that of the day it was due; they never fall while nobody waters', () => {
		const at = (today: string) => ask(4, { today });
		const due = at('2026-06-02').on ?? '';
		expect(due < '2026-06-12').toBe(true);
		const days = ['2026-06-12', '2026-06-16', '2026-06-20'];
		const most = stores.rootedMostL + stores.unrootedMostL;
		let before = 0;
		for (const today of days) {
			const one = at(today);
			const last = one.days.findLast((day) => day.on <= today);
			expect(one.litres).toBeCloseTo(
				(most - (last?.water.rootedL ?? 0) - (last?.water.unrootedL ?? 0)) / 0.85,
				6
			);
			expect(one.litres).toBeGreaterThan(before);
			before = one.litres;
		}
	});
	it('is poured round the roots alone where they are few in much mix without roots, at neither limit itself', () => {
		const few = values['rootFunction.few'];
		const from = values['water.sparingFrom'];
		const way = (phi: number, unrooted: number) =>
			ask(2, {
				root: { phi, low: phi / 2, high: phi },
				stores: { ...stores, rootedMostL: 10 * (1 - unrooted), unrootedMostL: 10 * unrooted },
				since: { on: '2026-05-31', water: { rootedL: 10 * (1 - unrooted), unrootedL: 10 * unrooted } }
			}).way;
		expect(way(few - 0.01, from + 0.01)).toBe('sparingly');
		expect(way(few, from + 0.01)).toBe('all-round');
		expect(way(few - 0.01, from)).toBe('all-round');
		expect(way(few - 0.01, from - 0.01)).toBe('all-round');
	});
	it('a frozen ball gets no water, and it says until when', () => {
		const frost = (days: number) =>
			series(1).map((day, i) => ({ ...day, minC: i < days ? -9 : 2, maxC: i < days ? -2 : 9 }));
		const thaws = ask(1, { series: frost(6), root: { phi: 0.9, low: 0.8, high: 1 }, trigger: 0.01 });
		expect(thaws.frozen).toBe(true);
		expect(thaws.reason).toMatch(/^Its ball is frozen: no water before it thaws, about 2026-06-/);
		const thawsOn = /about (\S+)\./.exec(thaws.reason)?.[1] ?? '';
		for (const day of [thaws.on, thaws.earliest, thaws.latest])
			if (day !== null) expect(day >= thawsOn).toBe(true);
		const never = ask(1, { series: frost(99), trigger: 0.01 });
		expect(never).toMatchObject({ frozen: true, on: null });
		expect(never.reason).toMatch(/for as long as the weather is known/);
		expect(ask(1, { series: frost(2) }).frozen).toBe(false);
		// Days whose mean is just at the limit freeze it, a hair over it they do not.
		const means = (meanC: number) =>
			ask(1, { series: series(1).map((day) => ({ ...day, minC: meanC - 3, maxC: meanC + 3 })) }).frozen;
		expect(means(values['water.frozenUnderC'])).toBe(true);
		expect(means(values['water.frozenUnderC'] + 0.01)).toBe(false);
	});
	it('its band is a band: earliest, date, latest in order, whatever the roots, the water and the trigger', () => {
		fc.assert(
			fc.property(
				fc.double({ min: 0.5, max: 8, noNaN: true }),
				fc.double({ min: 0, max: 1, noNaN: true }),
				fc.tuple(share, share, share),
				fc.double({ min: 0, max: 0.4, noNaN: true }),
				(et0, trigger, phis, sd) => {
					const [low = 0, phi = 0, high = 0] = [...phis].sort((a, b) => a - b);
					const next = ask(et0, {
						trigger,
						root: { phi, low, high },
						since: { on: '2026-05-31', water: fullPot(stores), sd }
					});
					const dates = [next.earliest, next.on, next.latest].filter((day) => day !== null);
					expect(dates).toEqual([...dates].sort());
				}
			),
			{ numRuns: 60 }
		);
	});
	it('is never later with more sun, and its band holds it', () => {
		fc.assert(
			fc.property(
				fc.double({ min: 1, max: 8, noNaN: true }),
				fc.double({ min: 0, max: 4, noNaN: true }),
				(et0, more) => {
					const [calm, sunny] = [ask(et0), ask(et0 + more)];
					expect((sunny.on ?? '9999') <= (calm.on ?? '9999')).toBe(true);
					expect((calm.earliest ?? '9999') <= (calm.on ?? '9999')).toBe(true);
					expect((calm.on ?? '9999') <= (calm.latest ?? '9999')).toBe(true);
				}
			)
		);
	});
	it('where no date comes it says from when good roots may have it dry, or that none would', () => {
		const open = ask(0.8, { root: { phi: 0.02, low: 0.01, high: 1.1 } });
		expect(open.on).toBeNull();
		expect(open.earliest).not.toBeNull();
		expect(open.reason).toBe(
			`As it is reckoned it is not dry enough to water for as long as the weather is known; if its roots drink well it may be from ${open.earliest ?? ''} on.`
		);
		const none = ask(0.1);
		expect([none.on, none.earliest]).toEqual([null, null]);
		expect(none.reason).toBe('It is not dry enough to water for as long as the weather is known.');
	});
	it('fills the pot and lets a share run through; a dry rest is kept; few roots are watered sparingly', () => {
		const usual = ask(4);
		const then = usual.days.find((day) => day.on === usual.on);
		const missing = 5.5 - (then?.water.rootedL ?? 0) - (then?.water.unrootedL ?? 0);
		expect(usual.litres).toBeCloseTo(missing / 0.85, 6);
		expect(ask(4, { restUntil: '2026-06-20' }).on ?? '').toBe('2026-06-20');
		expect(ask(4, { restUntil: '2026-06-20' }).reason).toMatch(/dry rest/i);
		const few = ask(4, {
			root: { phi: 0.2, low: 0.1, high: 0.3 },
			stores: { ...stores, rootedMostL: 0.8, unrootedMostL: 5 },
			since: { on: '2026-05-31', water: { rootedL: 0.8, unrootedL: 5 } }
		});
		expect(few.way).toBe('sparingly');
		// What its roots reach is filled, and nothing is poured to run through the rest.
		const at =
			few.on !== null && few.on > '2026-05-31' ? few.days.find((day) => day.on === few.on) : undefined;
		expect(few.litres).toBeCloseTo(0.8 - (at?.water.rootedL ?? 0.8), 6);
		expect(few.litres).toBeLessThan(0.8);
		expect(ask(4, { sheds: true }).way).toBe('twice');
	});
	/** Its weights say nothing against its pot. */
	const holds = { holdsL: 1, tookUpL: 0 };
	it('weights that say a pot holds half as much again as was reckoned ask for pot and mix before all else', () => {
		const of = (holdsL: number, tookUpL: number, known = true) =>
			waterAlarms(
				{
					holdsL,
					tookUpL,
					known,
					halfOn: '2026-06-20',
					knownTo: '2026-06-24',
					today: '2026-06-10',
					lastWaterOn: '2026-06-01',
					dryDays: null,
					paceSeen: true,
					leafySince: '2026-05-01'
				},
				values
			).map(({ kind }) => kind);
		const times = values['water.takesUpTimes'];
		expect([of(4, 4 * times - 0.01), of(4, 4 * times + 0.01)]).toEqual([['wet'], ['pot']]);
		// A small pot is weighed no finer than a scale is read.
		const off = values['water.weightOffKg'];
		expect([of(0.2, 0.2 + off - 0.01), of(0.2, 0.2 + off + 0.01)]).toEqual([['wet'], ['pot']]);
		expect(of(4, 40, false)).toEqual([]);
	});
	it('a leafless tree that stays wet is no alarm; one that dries fast is, leaves or not', () => {
		const of = (halfOn: string, nextOn: string, leafySince: string | null) =>
			waterAlarms(
				{
					...holds,
					known: true,
					halfOn,
					knownTo: '2026-03-20',
					today: '2026-02-10',
					lastWaterOn: '2026-02-01',
					dryDays: daysBetween('2026-02-01', nextOn),
					paceSeen: true,
					leafySince
				},
				values
			)[0]?.kind;
		expect(of('2026-03-20', '2026-03-25', '2025-11-01')).toBe('wet');
		expect(of('2026-03-20', '2026-03-25', null)).toBeUndefined();
		expect(of('2026-02-02', '2026-02-02', null)).toBe('fast');
		// Of a tree that came into leaf while it was wet only the days since count: eleven of them are too many.
		expect(of('2026-03-20', '2026-03-25', '2026-03-09')).toBe('wet');
		expect(of('2026-03-20', '2026-03-25', '2026-03-10')).toBeUndefined();
	});
	it('what stays wet beyond the days that are known is said to do so for longer than they are, and nothing of water nobody spoke of', () => {
		const drying = {
			...holds,
			known: true,
			halfOn: null,
			knownTo: '2026-06-24',
			today: '2026-06-10',
			lastWaterOn: '2026-06-01',
			dryDays: null,
			paceSeen: true,
			leafySince: '2026-05-01'
		};
		expect(waterAlarms(drying, values)[0]?.text).toContain('stays wet for more than 23 days');
		// Once it is dry enough to be watered, it is told of the past.
		const dried = (today: string): string =>
			waterAlarms({ ...drying, halfOn: '2026-06-20', today }, values)[0]?.text ?? '';
		expect(dried('2026-06-19')).toMatch(/^It stays wet for about 19 days:/);
		for (const today of ['2026-06-20', '2026-06-23'])
			expect(dried(today)).toMatch(/^After its last water it stayed wet for about 19 days:/);
		// Eleven days are more than a pot of its size should take; of ten nothing is said.
		expect(waterAlarms({ ...drying, knownTo: '2026-06-12' }, values)).toHaveLength(1);
		expect(waterAlarms({ ...drying, knownTo: '2026-06-11' }, values)).toEqual([]);
		expect(waterAlarms({ ...drying, known: false }, values)).toEqual([]);
		// Dry sooner than the limit it is too small, and it is said within how many days.
		const least = values['pot.dryDownLeastDays'];
		const fast = (dryDays: number | null, limit = least) =>
			waterAlarms(
				{ ...drying, knownTo: '2026-06-10', dryDays },
				{ ...values, 'pot.dryDownLeastDays': limit }
			).map(({ text }) => text.slice(0, 23));
		expect(fast(least + 0.01)).toEqual([]);
		expect(fast(null)).toEqual([]);
		expect([fast(least), fast(1), fast(0), fast(2.5, 3)]).toEqual([
			['It dries within 2 days:'],
			['It dries within 1 day: '],
			['It dries within 1 day: '],
			['It dries within 3 days:']
		]);
		// What nobody saw is said as reckoned, and asks to be seen; it names no fault.
		expect(
			waterAlarms({ ...drying, knownTo: '2026-06-10', dryDays: 1, paceSeen: false }, values).map(
				({ text }) => text
			)
		).toEqual(['It is reckoned to dry within 1 day: weigh or feel it before its next water.']);
	});
	it('says that a pot stays wet, that it dries too fast, that it drinks less', () => {
		expect(
			waterAlarms(
				{
					...holds,
					known: true,
					halfOn: '2026-06-20',
					knownTo: '2026-06-24',
					today: '2026-06-10',
					lastWaterOn: '2026-06-01',
					dryDays: null,
					paceSeen: true,
					leafySince: '2026-05-01'
				},
				values
			)[0]?.kind
		).toBe('wet');
		expect(
			waterAlarms(
				{
					...holds,
					known: true,
					halfOn: '2026-06-02',
					knownTo: '2026-06-24',
					today: '2026-06-10',
					lastWaterOn: '2026-06-01',
					dryDays: 1,
					paceSeen: true,
					leafySince: '2026-05-01'
				},
				values
			)[0]?.kind
		).toBe('fast');
		const course = Array.from({ length: 30 }, (_, i) => ({
			on: addDays('2026-06-01', i),
			phi: 0.8 - i * 0.015,
			low: 0.75 - i * 0.015,
			high: 0.85 - i * 0.015
		}));
		const fall = fallOf(course, '2026-06-30', values);
		if (!fall) throw new Error('it fell');
		// From 0.8 − 8 × 0.015 to 0.8 − 29 × 0.015 in 21 days.
		expect(fall).toEqual({ days: 21, by: expect.closeTo(1 - 0.365 / 0.68, 9) as number });
		const weeks = values['rootFunction.fallDays'];
		const weighed = (...before: number[]) =>
			weighedThenAndNow(
				before.map((days) => addDays('2026-06-30', -days)),
				'2026-06-30',
				values
			);
		expect([weighed(), weighed(1, 3), weighed(weeks, 2 * weeks), weighed(1, 2 * weeks + 1)]).toEqual([
			false,
			false,
			false,
			false
		]);
		expect([weighed(1, weeks), weighed(weeks - 1, 2 * weeks)]).toEqual([true, true]);
		expect(fallWords(fall, [1, 1.02, 0.99], values)).toMatch(
			/3 weighed neighbours do not: look at the roots/
		);
		expect(fallWords(fall, [0.6, 0.7, 0.99], values)).toMatch(/weather and the place first/);
		expect(fallWords(fall, [0.6], values)).toMatch(/Too few/);
		// The same course within a wide band is noise.
		expect(
			fallOf(
				course.map((point) => ({ ...point, high: point.phi + 0.5 })),
				'2026-06-30',
				values
			)
		).toBeNull();
	});
});

describe('what is poured, weighed, probed and felt', () => {
	const days = Array.from({ length: 20 }, (_, i) => ({
		...weatherSeries(place, '2026-06-01', '2026-06-01', [], values)[0],
		on: addDays('2026-06-01', i),
		et0Mm: 3,
		rainMm: 0
	})) as ReturnType<typeof weatherSeries>;
	const state = (change: Partial<Parameters<typeof potState>[0]> = {}) =>
		potState(
			{
				begin: { on: '2026-05-31', water: fullPot(stores), sd: 0.1 },
				stores,
				series: days,
				poured: [],
				seen: [],
				phiOn: () => 0.7,
				phiSpread: 0.2,
				inLeaf: () => true,
				rainReach: 0,
				...change
			},
			values
		);
	const at = (list: ReturnType<typeof state>, on: string) => {
		const day = list.find((one) => one.on === on);
		if (!day) throw new Error(`no ${on}`);
		return day;
	};
	it('grows less sure with every day, until water runs through', () => {
		const dry = state();
		expect(at(dry, '2026-06-10').sd).toBeGreaterThan(at(dry, '2026-06-05').sd);
		const watered = state({
			poured: [{ on: '2026-06-10', litres: 20, ranOut: true, caughtL: null, gainedL: null }]
		});
		expect(at(watered, '2026-06-10').sd).toBe(values['water.ranOutError']);
		expect(at(watered, '2026-06-10').dryness).toBeLessThan(0.2);
	});
	it('a cup is not a watering: what is poured is added, no more', () => {
		const [dry, cup] = [
			state(),
			state({ poured: [{ on: '2026-06-10', litres: 0.3, ranOut: false, caughtL: null, gainedL: null }] })
		];
		const held = (list: typeof dry) =>
			at(list, '2026-06-10').water.rootedL + at(list, '2026-06-10').water.unrootedL;
		expect(held(cup) - held(dry)).toBeGreaterThan(0.15);
		expect(held(cup) - held(dry)).toBeLessThanOrEqual(0.3 + 1e-9);
		// What was caught did not stay; and it ran past a dry ball, so that nothing is sure of its being full.
		const caught = state({
			poured: [{ on: '2026-06-10', litres: 0.5, ranOut: true, caughtL: 0.2, gainedL: null }]
		});
		expect(held(caught)).toBeCloseTo(held(cup), 9);
		expect(at(caught, '2026-06-10').sd).toBeGreaterThan(values['water.ranOutError']);
	});
	it('each reading pulls by as much as it is surer than the balance, and never beyond itself', () => {
		const expected = at(state(), '2026-06-08').dryness;
		const pulled = (sd: number) =>
			at(state({ seen: [{ on: '2026-06-08', how: 'felt', dryness: expected + 0.2, sd }] }), '2026-06-08');
		expect(pulled(0.05).dryness).toBeGreaterThan(pulled(0.3).dryness);
		expect(pulled(0.3).dryness).toBeGreaterThan(expected);
		expect(pulled(0.05).dryness).toBeLessThan(expected + 0.2);
		expect(pulled(0.05).sd).toBeLessThan(at(state(), '2026-06-08').sd);
		expect(pulled(0.05).expected).toBeCloseTo(expected, 9);
	});
	it('a scale is read against its heaviest day, its dry-downs are pairs; a probe against its wettest', () => {
		const scale = [10, 9.6, 9.2, 8.9, 9.9, 9.5].map((value, i) => ({
			on: addDays('2026-06-01', i),
			kind: 'scale' as const,
			value
		}));
		const seen = seenByDevices(scale, stores, '2026-05-01', values);
		expect(seen[2]?.dryness).toBeCloseTo(0.8 / (stores.rootedMostL + stores.unrootedMostL), 9);
		expect(pairsOfScale(scale, stores, '2026-05-01', values)).toEqual([
			{
				from: '2026-06-05',
				to: '2026-06-06',
				lossKg: expect.closeTo(0.4, 9) as number,
				fullOn: '2026-06-05',
				lostKg: 0
			}
		]);
		// Readings of before the planting are of another pot.
		expect(seenByDevices(scale, stores, '2026-06-05', values)).toHaveLength(1);
		const probe = [0.4, 0.3, 0.24, 0.2, 0.15].map((value, i) => ({ on: addDays('2026-06-01', i), value }));
		expect(seenByProbe(probe, values).map((one) => one.dryness)).toEqual(
			[0, 0.3125, 0.5, 0.625, 0.78125].map((dryness) => expect.closeTo(dryness, 9) as number)
		);
	});
});

describe('root function from weighings', () => {
	it('the step of the filter is that of a general library in the linear case', () => {
		// kalmanjs, A = 1, C = 1, no drift: the same numbers in the same order.
		const general = new KalmanFilter({ R: 0, Q: 0.04 });
		let mine: { phi: number; p: number } | null = null;
		for (const seen of [0.5, 0.62, 0.44, 0.7, 0.58]) {
			const theirs = general.filter(seen);
			mine = mine === null ? { phi: seen, p: 0.04 } : kalman(mine, seen, 0.04);
			expect(mine.phi).toBeCloseTo(theirs, 9);
		}
	});
	it('grows logistically with warmth, never past one', () => {
		let phi = 0.3;
		for (let day = 0; day < 400; day++) {
			const next = grown(phi, 9, values);
			expect(next).toBeGreaterThanOrEqual(phi);
			phi = next;
		}
		expect(phi).toBeGreaterThan(0.95);
		expect(phi).toBeLessThanOrEqual(1);
	});
	it('its 90 % band covers the truth in 85 to 98 % of 200 simulated trees', () => {
		const [from, to] = ['2026-04-15', '2026-09-15'];
		let [covered, narrow] = [0, 0];
		for (let seed = 1; seed <= 200; seed++) {
			const { truth, course } = simulateWeighedTree(seed, { from, to }, null, values);
			const last = course.at(-1);
			const real = truth.get(to) ?? 0;
			if (last && real >= last.low && real <= last.high) covered++;
			if (last && last.high - last.low < 0.6) narrow++;
		}
		expect(covered / 200).toBeGreaterThanOrEqual(0.85);
		expect(covered / 200).toBeLessThanOrEqual(0.98);
		// A band that holds everything would tell nothing.
		expect(narrow / 200).toBeGreaterThan(0.9);
	});
	it('a fall of the roots is told of most trees that fail, within five weeks, and of few that do not', () => {
		const span = { from: '2026-04-15', to: '2026-08-20' };
		const told = (seed: number, fails: boolean): boolean => {
			const { course } = simulateWeighedTree(
				seed,
				span,
				fails ? { on: '2026-07-16', halfDays: 18 } : null,
				values
			);
			return ['2026-07-30', '2026-08-06', '2026-08-13', '2026-08-20'].some(
				(on) =>
					fallOf(
						course.filter((point) => point.on <= on),
						on,
						values
					) !== null
			);
		};
		const seeds = Array.from({ length: 60 }, (_, i) => 3000 + i);
		expect(seeds.filter((seed) => told(seed, true)).length / 60).toBeGreaterThan(0.7);
		expect(seeds.filter((seed) => told(seed, false)).length / 60).toBeLessThan(0.05);
	}, 60_000);
	it('rain that nobody measured makes a pair tell less where it reaches the pot, and under a roof not', () => {
		const begin = { on: '2026-06-01', phi: 0.9, p: 0.04 };
		// Five dry days by the balance, and hardly any weight lost: roots that do not drink, or rain.
		const pair = { from: '2026-06-02', to: '2026-06-07', lossKg: 0.5, fullOn: '2026-06-02', lostKg: 0 };
		const said = (how: string, rainReach: number, of = values) => {
			const series = Array.from({ length: 8 }, (_, i) => ({
				...bareDay(addDays('2026-06-01', i), { et0Mm: 4, rainMm: 0 }),
				how
			}));
			const course = rootFunction(
				{ begin, pairs: [pair], series, stores, inLeaf: () => true, losses: [], scaleKg: 0.03, rainReach },
				of
			);
			expect(rainUnmeasured(pair, series, rainReach, of)).toBe(how !== '' && rainReach > 0);
			const last = course.at(-1);
			if (!last) throw new Error('no day');
			return { ...last, seen: course.find((point) => point.seen !== null)?.seen ?? null };
		};
		const measured = said('', 1);
		const guessed = said('climate of the place; rain taken as none', 1);
		expect(measured.phi).toBeLessThan(0.6);
		expect(guessed.phi).toBeGreaterThan(measured.phi + 0.1);
		expect(guessed.high - guessed.low).toBeGreaterThan(measured.high - measured.low);
		expect(said('climate of the place; rain taken as none', 0)).toEqual(measured);
		expect(said('climate', 1, { ...values, 'rootFunction.unmeasuredRainMm': 20 }).seen).toBeNull();
		expect(said('', 1, { ...values, 'rootFunction.tellsLeast': 0.999 }).phi).toBeGreaterThan(
			measured.phi + 0.1
		);
		expect(said('climate', 1, { ...values, 'rootFunction.unmeasuredRainMm': 6 }).phi).toBeGreaterThan(
			guessed.phi
		);
	});
	it('pairs are what lies between two waterings; gains, doubles and disorder are left out', () => {
		const water = (on: string, beforeKg: number | null, afterKg: number | null): Watering =>
			wateringSchema.parse({ id: on, version: 1, wateredOn: on, beforeKg, afterKg });
		const pairs = weighingPairs(
			[water('2026-06-09', 11, 13.2), water('2026-06-01', 10.5, 13), water('2026-06-05', 11.2, 13.1)],
			[
				{ on: '2026-06-03', kg: 12.1 },
				{ on: '2026-06-07', kg: 14 }
			]
		);
		expect(pairs.map(({ from, to }) => [from, to])).toEqual([
			['2026-06-01', '2026-06-03'],
			['2026-06-03', '2026-06-05'],
			['2026-06-07', '2026-06-09']
		]);
		expect(pairs[0]?.lossKg).toBeCloseTo(0.9, 9);
		expect(
			weighingAdvice(
				{ pairs: [], told: [], begun: false, tooHeavy: false, rainUnmeasured: false },
				null,
				'2026-06-10',
				values
			)
		).toMatch(/weigh it after water, and again/);
		expect(
			weighingAdvice(
				{ pairs: [], told: [], begun: true, tooHeavy: false, rainUnmeasured: false },
				null,
				'2026-06-10',
				values
			)
		).toMatch(/was weighed after its last water; weigh it again before/);
		const heavy = weighingAdvice(
			{ pairs: [], told: [], begun: false, tooHeavy: true, rainUnmeasured: false },
			null,
			'2026-06-10',
			values
		);
		expect(heavy).toMatch(/too heavy for a scale: feel or probe it/);
		expect(heavy).not.toMatch(/weigh it/i);
		const weighed = (told: typeof pairs) =>
			weighingAdvice(
				{ pairs, told, begun: true, tooHeavy: false, rainUnmeasured: false },
				null,
				'2026-07-10',
				values
			);
		expect(weighed(pairs)).toMatch(/31 days old/);
		expect(weighed(pairs.slice(0, 1))).toMatch(/^1 pair of weighings: too few/);
		expect(weighed([])).toMatch(/^Its weighings tell nothing of its roots yet/);
		expect([pairs, pairs.slice(0, 1), []].map((told) => functionBy({ pairs, told }))).toEqual([
			'a filter over 3 pairs of weighings',
			'a filter over 1 pair of weighings',
			'no pair of weighings that tells it'
		]);
		expect(functionBy({ pairs: [], told: [] })).toBe('no pair of weighings yet');
	});
	it('a watering that lost weight or ran out more than was poured is refused; outflow is learned', () => {
		expect(
			wateringInput.safeParse({ wateredOn: '2026-06-01', beforeKg: 12, afterKg: 11 }).error?.issues[0]
				?.message
		).toMatch(/before the water/);
		expect(
			wateringInput.safeParse({ wateredOn: '2026-06-01', litres: 1, ranOutL: 2 }).error?.issues[0]?.message
		).toMatch(/poured/);
		const learned = outflowLearned(
			[0.1, 0.3].map((share, i) =>
				wateringSchema.parse({
					id: String(i),
					version: 1,
					wateredOn: '2026-06-01',
					litres: 2,
					ranOutL: 2 * share
				})
			),
			0.15
		);
		expect(learned).toBeCloseTo(0.2, 9);
		expect(outflowLearned([], 0.15)).toBe(0.15);
	});
	it('dryness is between nothing and all', () => {
		expect(drynessOf(fullPot(stores), stores)).toBe(0);
		expect(drynessOf({ rootedL: 0, unrootedL: 0 }, stores)).toBe(1);
	});
});
