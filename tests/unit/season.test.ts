import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { addDays, daysBetween } from '$core/maths/calendar';
import {
	growingSeason,
	growsFrom,
	nightTemperature,
	outdoorMeanC,
	type PlaceClimate
} from '$core/climate/normals';
import { nextWindowDay, rootWorkWindows, seasonFit } from '$core/climate/windows';
import { stageDates } from '$core/roots/plan/stage-dates';
import { expectedRootFunction } from '$core/recovery/expected';
import { defaultValues, resolveValues } from '$core/values/values';
import { grown, rootWarmth } from '$core/aftercare/water/regrowth';
import { seasonPoint } from '$core/recovery/season';

const north = { kind: 'open', latitudeDeg: 52, elevationM: 0, heldMinimumC: null } as const;
const south = { ...north, latitudeDeg: -38 } as const;
const beech = { group: 'deciduous', coldestC: -15, liftingWindow: 'leafless' } as const;
const pine = { group: 'conifer', coldestC: -20, liftingWindow: 'spring-or-autumn' } as const;
const tropical = { group: 'tropical', coldestC: 10, liftingWindow: 'warm-growth' } as const;
const expectedFrom = { place: north, tender: false };

describe('the stand-in climate', () => {
	it('is warmest in July in the north and in January in the south, and colder with height', () => {
		expect(outdoorMeanC(north, '2026-07-20', defaultValues)).toBeGreaterThan(
			outdoorMeanC(north, '2026-01-20', defaultValues) + 10
		);
		expect(outdoorMeanC(south, '2026-01-20', defaultValues)).toBeGreaterThan(
			outdoorMeanC(south, '2026-07-20', defaultValues) + 5
		);
		const high = { ...north, elevationM: 1000 };
		// ICAO Standard Atmosphere: 6.5 °C per km.
		expect(
			outdoorMeanC(north, '2026-05-01', defaultValues) - outdoorMeanC(high, '2026-05-01', defaultValues)
		).toBeCloseTo(6.5, 9);
	});
	it('never lets a heated bay fall below what it holds, and shelters a cold frame', () => {
		const bay = { ...north, kind: 'heated', heldMinimumC: 14 } as const;
		expect(nightTemperature(bay, '2026-01-10', defaultValues)).toEqual({ usualC: 14, coldC: 14 });
		const frame = { ...north, kind: 'cold-frame' } as const;
		expect(nightTemperature(frame, '2026-01-10', defaultValues).coldC).toBeCloseTo(
			nightTemperature(north, '2026-01-10', defaultValues).coldC + 3,
			9
		);
	});
	it('has a growing season that crosses the new year in the south', () => {
		const season = growingSeason(south, false, 2026, defaultValues);
		expect(season && season.from.slice(0, 4) <= '2026' && season.to > '2027').toBe(true);
		expect(growingSeason({ ...north, elevationM: 4500 }, true, 2026, defaultValues)).toBeNull();
	});
});

describe('windows for root work', () => {
	it('lie in winter for deciduous trees, in warm growth for tropicals', () => {
		expect(seasonFit(beech, north, '2026-01-15', defaultValues)).toBe('in-window');
		expect(seasonFit(beech, north, '2026-07-01', defaultValues)).toBe('out-of-window');
		expect(seasonFit(beech, south, '2026-07-20', defaultValues)).toBe('in-window');
		expect(seasonFit(tropical, north, '2026-01-15', defaultValues)).toBe('out-of-window');
		expect(seasonFit(pine, north, '2026-04-10', defaultValues)).toBe('in-window');
		expect(
			rootWorkWindows(pine, north, 2026, defaultValues).filter((w) => w.from.startsWith('2026'))
		).toHaveLength(2);
	});
	it('follow the owner’s own days', () => {
		const first = (values: typeof defaultValues) =>
			rootWorkWindows(beech, north, 2026, values).find((w) => w.from.startsWith('2026'));
		const [shipped, own] = [first(defaultValues), first(resolveValues({ 'season.leafFallDays': 24 }))];
		expect(daysBetween(shipped?.from ?? '', own?.from ?? '')).toBe(10);
		expect(own?.to).toBe(shipped?.to);
	});
	it('run forward, and are none where the season is too short to hold one', () => {
		const none = { seen: 0 };
		for (let elevationM = 0; elevationM <= 3600; elevationM += 50)
			for (const kind of [beech, pine, tropical]) {
				const place = { ...north, elevationM };
				const windows = rootWorkWindows(kind, place, 2026, defaultValues);
				for (const window of windows) expect(window.from <= window.to).toBe(true);
				if (kind === tropical && windows.length === 0 && growingSeason(place, true, 2026, defaultValues))
					none.seen++;
			}
		expect(none.seen).toBeGreaterThan(0);
	});
	it('have a shoulder of three weeks', () => {
		const window = rootWorkWindows(beech, north, 2026, defaultValues).find((w) => w.from.startsWith('2026'));
		expect(seasonFit(beech, north, addDays(window?.from ?? '', -21), defaultValues)).toBe('shoulder');
		expect(seasonFit(beech, north, addDays(window?.from ?? '', -22), defaultValues)).toBe('out-of-window');
	});
	it('give a next day that is never earlier, and stages that keep their distance', () => {
		fc.assert(
			fc.property(
				fc.integer({ min: 0, max: 3000 }),
				fc.constantFrom(beech, pine),
				fc.constantFrom(north, south),
				(days, kind, place) => {
					const from = addDays('2022-01-01', days);
					const next = nextWindowDay(kind, place, from, defaultValues);
					expect(next && next >= from && seasonFit(kind, place, next, defaultValues)).toBe('in-window');
					const dates = stageDates({ kind, place }, { begun: [from], count: 3, today: from }, defaultValues);
					for (const [i, date] of dates.entries())
						if (i > 0) expect(daysBetween(dates[i - 1] ?? '', date)).toBeGreaterThanOrEqual(300);
				}
			),
			{ numRuns: 12 }
		);
	});
	it('never puts a stage that is still to come before today', () => {
		const dates = stageDates(
			{ kind: beech, place: north },
			{ begun: ['2023-11-20'], count: 3, today: '2026-04-18' },
			defaultValues
		);
		expect(dates[0]).toBe('2023-11-20');
		expect((dates[1] ?? '') >= '2026-04-18').toBe(true);
		expect(daysBetween(dates[1] ?? '', dates[2] ?? '')).toBeGreaterThanOrEqual(
			defaultValues['stages.leastDaysApart']
		);
	});
});

describe('expected root function', () => {
	const run = (losses: { on: string; share: number }[], values = defaultValues) =>
		expectedRootFunction(
			losses,
			expectedFrom.place,
			{ from: '2025-01-01', to: '2028-01-01', stepDays: 7 },
			values
		);
	it('falls by what is cut, stays flat in winter and grows back in seasons', () => {
		const points = run([{ on: '2025-01-01', share: 0.4 }]);
		expect(points[0]?.expected).toBeCloseTo(0.6, 9);
		expect(points.find((p) => p.on >= '2025-03-20')?.expected).toBeCloseTo(0.6, 9);
		const later = points.at(-1);
		expect(later?.expected).toBeGreaterThan(0.9);
		for (const point of points) {
			expect(point.low).toBeLessThanOrEqual(point.expected);
			expect(point.high).toBeGreaterThanOrEqual(point.expected);
			expect(point.high).toBeLessThanOrEqual(1);
		}
	});
	it('is the one model of regrowth: the step of the filter, over the warmth of the place', () => {
		const points = run([{ on: '2025-01-01', share: 0.5 }]);
		const warmth = rootWarmth(expectedFrom.place, '2025-01-01', '2028-01-01', defaultValues);
		for (const point of points)
			expect(point.expected).toBeCloseTo(grown(0.5, warmth('2025-01-01', point.on), defaultValues), 9);
	});
	it('grows from what lives: none from none, and the less is left the slower', () => {
		expect(
			run([{ on: '2025-01-01', share: 1 }]).every((point) => point.expected === 0 && point.high === 0)
		).toBe(true);
		const left = [0.9, 0.6, 0.3].map((share) => run([{ on: '2025-01-01', share }]).at(-1)?.expected ?? 0);
		expect(left).toEqual([...left].sort((a, b) => a - b));
	});
	it('never regrows slower where heating holds it warmer', () => {
		const at = (place: PlaceClimate): number =>
			expectedRootFunction(
				[{ on: '2025-01-01', share: 0.6 }],
				place,
				{ from: '2025-01-01', to: '2025-06-01' },
				defaultValues
			).at(-1)?.expected ?? 0;
		const open = { ...expectedFrom.place, kind: 'open', heldMinimumC: null } as const;
		for (const latitudeDeg of [-45, 5, 30, 52, 64]) {
			const here = at({ ...open, latitudeDeg });
			for (const heldMinimumC of [5, 12, 20])
				expect(at({ ...open, latitudeDeg, kind: 'heated', heldMinimumC })).toBeGreaterThanOrEqual(
					here - 1e-12
				);
		}
	});
	it('is 1 throughout when nothing was lost', () => {
		expect(run([]).every((point) => point.expected === 1)).toBe(true);
	});
});

describe('the first day from one on that it grows', () => {
	const at = (latitudeDeg: number): PlaceClimate => ({
		kind: 'open',
		latitudeDeg,
		elevationM: 0,
		heldMinimumC: null
	});
	it('is that day within a season, else the first of the next, on either side of the equator', () => {
		const season = growingSeason(at(52), false, 2027, defaultValues);
		expect(growsFrom(at(52), false, '2026-12-17', defaultValues)).toBe(season?.from);
		expect(growsFrom(at(52), false, '2027-06-20', defaultValues)).toBe('2027-06-20');
		expect(growsFrom(at(52), false, season?.to ?? '', defaultValues)).toBe(season?.to);
		const south = growingSeason(at(-43), false, 2027, defaultValues);
		expect(growsFrom(at(-43), false, '2027-06-16', defaultValues)).toBe(south?.from);
		expect(growsFrom(at(-43), false, '2027-01-10', defaultValues)).toBe('2027-01-10');
	});
});

describe('seasons that passed', () => {
	const span = (from: string, to: string) => ({ span: { from, to }, usualDegreeDays: 1000 });
	// 100 days each.
	const seasons = [span('2025-05-01', '2025-08-09'), span('2026-05-01', '2026-08-09')];
	const passed = (sinceOn: string, on: string): number =>
		seasonPoint(seasons, on, sinceOn, [], defaultValues).seasons;

	it('count by the days of each that lie between, and none of winter', () => {
		expect(passed('2025-01-01', '2025-12-01')).toBe(1);
		expect(passed('2025-01-01', '2026-12-01')).toBe(2);
		expect(passed('2025-05-26', '2025-12-01')).toBe(0.75);
		expect(passed('2025-05-26', '2025-06-05')).toBeCloseTo(0.1, 9);
		expect(passed('2025-07-30', '2026-05-11')).toBeCloseTo(0.2, 9);
		expect(passed('2025-09-01', '2026-04-01')).toBe(0);
		expect(passed('2025-05-26', '2025-05-26')).toBe(0);
		// Seen before it was worked on.
		expect(passed('2025-07-30', '2025-06-05')).toBe(0);
	});

	it('tell how far this one is, and nothing of one outside it', () => {
		const at = (on: string) => seasonPoint(seasons, on, '2025-01-01', [], defaultValues);
		expect(at('2026-05-26')).toMatchObject({ progress: 0.25, by: 'calendar' });
		expect(at('2026-08-09').progress).toBe(1);
		expect(at('2026-08-10').progress).toBe(0);
	});
});
