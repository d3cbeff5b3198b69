import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { addDays } from '$core/maths/calendar';
import { seriesBetween, weatherSeries } from '$core/climate/series';
import { simulateWeather } from '$core/simulate/weather';
import { weatherDaySchema } from '$core/climate/weather-day';
import { diagnose } from '$core/examine/diagnosis/diagnose';
import { diebackLimit } from '$core/examine/measuring/dieback';
import { calibrated } from '$core/replant/mixes/bench-test';
import { mixBody } from '$core/replant/mixes/retention';
import { recoveryForecast } from '$core/recovery/forecast';
import { leavesOut, seasonPoint, shootsDone } from '$core/recovery/season';
import { rankFronts } from '$core/roots/setting/fronts';
import { parseQuickRoot } from '$core/roots/io/quick-entry';
import { rootMapInput, segmentFromQuick, usualClass } from '$core/roots/map/root-map';
import { simulateRecovery } from '$core/simulate/recoveries';
import { treeGroundWater } from '$core/tree/ground-water';
import { signIds } from '$core/vocabulary/signs';
import {
	defaultValues,
	resolveValues,
	valueKeys,
	workingValue,
	type ValueKey,
	type Values
} from '$core/values/values';
import { placeSchema } from '$core/vocabulary/place';
import { treeRecords } from '../records';

const place = placeSchema.parse({ id: 'place', version: 1, name: 'Bench', kind: 'open', latitudeDeg: 52 });
const weather = simulateWeather(place, { from: '2026-03-01', to: '2026-04-10' }, 5, defaultValues).map(
	(day, i) => weatherDaySchema.parse({ ...day, id: String(i), version: 1 })
);
const series = (values: Values) => weatherSeries(place, '2026-03-01', '2026-05-30', weather, values);

const front = (lines: string[], values: Values, lean: { towardDeg: number; deg: number } | null = null) => {
	const map = rootMapInput.parse({
		mappedOn: '2026-03-02',
		frame: 'container',
		trunkDiameterMm: 60,
		ballRadiusMm: 150,
		ballDepthMm: 100,
		lean,
		segments: lines.map((line, i) => {
			const entry = parseQuickRoot(line, 'container', 60, values);
			if (!entry.ok) throw new Error(entry.problem);
			return segmentFromQuick(entry.root, { trunkDiameterMm: 60, ballRadiusMm: 150 }, `r${i}`);
		})
	});
	return rankFronts(map, values).sort((a, b) => a.azimuthDeg - b.azimuthDeg);
};
const reasonsOf = (lines: string[], values: Values, lean?: { towardDeg: number; deg: number }): string[] =>
	front(lines, values, lean ?? null).flatMap(({ reasons }) => reasons);
const count = (reasons: readonly string[], word: string): number =>
	reasons.filter((reason) => reason.includes(word)).length;
const roots = ['6 30 anchor', '9 15 anchor', '3 15 anchor', '7 14 anchor'];
const warmSeason = (values: Values, by: number) => {
	const days = series(values).map((day) => ({
		...day,
		how: '' as const,
		minC: day.minC + by,
		maxC: day.maxC + by
	}));
	const seasons = [{ span: { from: '2026-03-01', to: '2026-09-30' }, usualDegreeDays: 1500 }];
	return seasonPoint(seasons, '2026-05-20', '2026-01-01', days, values).progress;
};
const groundArea = (trunkDiameterMm: number, values: Values): number => {
	const records = treeRecords();
	const of = { ...records, tree: { ...records.tree, situation: 'in-ground' as const, trunkDiameterMm } };
	return treeGroundWater(of, { place, series: series(values) }, '2026-04-10', values)?.stores.areaM2 ?? 0;
};
const mix = (values: Values) =>
	mixBody(
		[
			{ componentId: 'pumice-medium', parts: 9 },
			{ componentId: 'vermiculite', parts: 1 }
		],
		values
	);
const look = (values: Values) =>
	diagnose(
		{ situation: 'potted', group: 'deciduous', season: 'summer', events: [] },
		signIds.slice(0, 6).map((signId) => ({ signId, grade: 1, measuredBy: null })),
		values
	).ranking.reduce((sum, { reasons }) => sum + reasons.length, 0);

/** What each number moves, by the value it is given; it grows or falls with it. */
const felt: Partial<
	Record<keyof Values, [lower: number, higher: number, of: (values: Values) => number, 'grows' | 'falls']>
> = {
	'front.pokingCosts': [0.2, 0.9, (values) => front(roots, values)[0]?.spread ?? 0, 'falls'],
	'front.poking': [
		0.3,
		0.9,
		(values) => count(reasonsOf([...roots, '12 16 anchor'], values), 'straight'),
		'falls'
	],
	'front.bareFrom': [1.1, 4, (values) => count(reasonsOf(roots, values), 'bare'), 'falls'],
	'front.leanSaid': [
		0.05,
		0.45,
		(values) => count(reasonsOf(roots, values, { towardDeg: 90, deg: 20 }), 'leans'),
		'falls'
	],
	'weather.offDays': [
		0,
		40,
		(values) => series(values).filter(({ how }) => how.includes('by the days before')).length,
		'grows'
	],
	'weather.offFadesDays': [
		1,
		25,
		(values) => series(values).filter(({ how }) => how.includes('by the days before')).length,
		'grows'
	],
	'water.lawnMostM': [5, 25, (values) => groundArea(2200, values), 'grows'],
	'water.lawnLeastM': [0.1, 1, (values) => groundArea(10, values), 'grows'],
	'measuring.topShare': [
		0,
		0.1,
		(values) =>
			diebackLimit({ heightMm: 1000, points: [{ heightMm: 950, sideDeg: 0, reading: 'alive' }] }, values)
				.limitMm,
		'grows'
	],
	'season.leavesOutPace': [3, 12, (values) => leavesOut(0.05, values), 'grows'],
	'season.leavesFallPace': [3, 12, (values) => leavesOut(0.95, values), 'grows'],
	'season.shootsPace': [1.1, 3, (values) => shootsDone(0.3, values), 'grows'],
	'season.aheadMost': [1.2, 3, (values) => warmSeason(values, 12), 'grows'],
	'season.behindMost': [0.1, 0.9, (values) => warmSeason(values, -9), 'grows'],
	'forecast.beginSpreadLeast': [
		0,
		1,
		(values) => {
			const { case: tree } = simulateRecovery(4, 30, values);
			const [first] = recoveryForecast({ ...tree, begin: 0.15, looks: [] }, values).course;
			return (first?.high ?? 0) - (first?.low ?? 0);
		},
		'grows'
	],
	'mix.lifeShare': [0.05, 0.5, (values) => mix(values).lifeYears ?? 99, 'grows'],
	'mix.insideMost': [
		0.2,
		0.9,
		(values) =>
			calibrated(
				mix(values),
				{
					measuredOn: '2026-04-18',
					how: 'volumes',
					depthMm: 150,
					porosity: 0.7,
					containerCapacity: 0.2,
					dryKgL: null
				},
				values
			).inside,
		'grows'
	],
	'diagnosis.reasonLeast': [0, 1, look, 'falls']
};

describe('days of a series', () => {
	it('from one to another are those that a search finds, whatever the ends', () => {
		const days = series(defaultValues);
		const end = fc.option(fc.integer({ min: -20, max: 120 }).map((by) => addDays('2026-03-01', by)));
		fc.assert(
			fc.property(end, end, (from, to) => {
				const searched = days.filter(({ on }) => (from === null || on >= from) && (to === null || on <= to));
				expect(seriesBetween(days, from, to)).toEqual(searched);
			})
		);
		expect(seriesBetween([], null, '2026-03-01')).toEqual([]);
	});
});

describe('numbers that decide', () => {
	it.each(Object.entries(felt))('%s moves what it says', (key, [lower, higher, of, way]) => {
		const at = (value: number): number => of({ ...defaultValues, [key]: value });
		const [low, high] = way === 'grows' ? [at(lower), at(higher)] : [at(higher), at(lower)];
		expect(high).toBeGreaterThan(low);
	});
});

describe('a changed value', () => {
	it('holds within its bounds, them included; what is none or lies outside breaks nothing', () => {
		const each = (of: (key: ValueKey) => number) =>
			Object.fromEntries(valueKeys.map((key) => [key, of(key)])) as Record<ValueKey, number>;
		const min = (key: ValueKey): number => workingValue(key).min;
		const max = (key: ValueKey): number => workingValue(key).max;
		for (const own of [min, max, (key: ValueKey) => (min(key) + max(key)) / 2])
			expect(resolveValues(each(own))).toEqual(each(own));
		for (const none of [
			(key: ValueKey) => min(key) - 1,
			(key: ValueKey) => max(key) + 1,
			() => NaN,
			() => Infinity,
			() => -Infinity
		])
			expect(resolveValues(each(none))).toEqual(defaultValues);
		// One that is changed leaves the others as they were, and one that is not known changes nothing.
		const key = 'diagnosis.likely';
		expect(resolveValues({ [key]: 0.31, 'not.known': 3 })).toEqual({ ...defaultValues, [key]: 0.31 });
		expect(resolveValues()).toEqual(defaultValues);
	});
	it('the class of a root begins at its share of the trunk', () => {
		const at = (share: number) => usualClass(100 * share, 100, defaultValues);
		for (const [key, name, below] of [
			['class.anchor', 'anchor', 'scaffold'],
			['class.scaffold', 'scaffold', 'secondary'],
			['class.secondary', 'secondary', 'feeder']
		] as const) {
			const share = defaultValues[key];
			expect([at(share + 1e-9), at(share - 1e-6)], key).toEqual([name, below]);
		}
	});
});
