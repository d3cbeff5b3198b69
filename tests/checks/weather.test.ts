import { measuredWhole } from '$core/text/measured';
import type { TodayTree } from '$core/today/item';
import fc from 'fast-check';
import * as suncalc from 'suncalc';
import { describe, expect, it } from 'vitest';
import { addDays } from '$core/maths/calendar';
import { coldLimit } from '$core/climate/cold-limit';
import { daylightHours, extraterrestrialRadiation } from '$core/climate/evapotranspiration';
import { placeSchema, type Place } from '$core/vocabulary/place';
import { shippedKinds } from '$core/vocabulary/shipped';
import { simulateWeather } from '$core/simulate/weather';
import { treeSchema } from '$core/take-in/tree';
import { defaultValues as values } from '$core/values/values';
import {
	airPressureKpa,
	dewPointC,
	meanSaturationKpa,
	netRadiationMj,
	penmanMonteithMm,
	psychrometricKpa,
	radiationFromSun,
	saturationKpa,
	vapourDeficitKpa,
	windAt2m
} from '$core/climate/penman-monteith';
import { daysOfHours, weatherHour } from '$core/climate/hours';
import { workStops } from '$core/aftercare/weather/work-stop';
import { degreeDays, disagreements, gapsOf, stationFor, weatherSeries } from '$core/climate/series';
import { weatherDaySchema, type WeatherDay } from '$core/climate/weather-day';
import { limitsOf, warningsFor } from '$core/aftercare/weather/guards';
import { limitsBroken } from '$core/today/missed';

/** Allen et al. 1998, FAO Irrigation and drainage paper 56. */
describe('FAO-56 weather', () => {
	it('Example 2: at 1800 m the air presses 81.8 kPa, γ is 0.054', () => {
		expect(airPressureKpa(1800)).toBeCloseTo(81.8, 1);
		expect(psychrometricKpa(1800)).toBeCloseTo(0.054, 3);
	});
	it('Example 3: 24.5 and 15 °C → e_s 2.39 kPa', () => {
		expect(saturationKpa(24.5)).toBeCloseTo(3.075, 3);
		expect(meanSaturationKpa(15, 24.5)).toBeCloseTo(2.39, 2);
	});
	it('Example 18: 50.80° N, 100 m, 6 July → Rn 13.28, ET₀ 3.88', () => {
		// Humidity 84 % at the minimum, 63 % at the maximum (equation 17).
		const vapourKpa = (saturationKpa(12.3) * 0.84 + saturationKpa(21.5) * 0.63) / 2;
		const windMs = windAt2m(10 / 3.6, 10);
		const onTop = extraterrestrialRadiation(50.8, '2026-07-06');
		const day = {
			latitudeDeg: 50.8,
			elevationM: 100,
			on: '2026-07-06',
			minC: 12.3,
			maxC: 21.5,
			vapourKpa,
			windMs,
			sunMj: radiationFromSun(9.25, daylightHours(50.8, '2026-07-06'), onTop)
		};
		expect(windMs).toBeCloseTo(2.078, 2);
		expect(day.sunMj).toBeCloseTo(22.07, 1);
		expect(netRadiationMj(day)).toBeCloseTo(13.28, 1);
		expect(penmanMonteithMm(day)).toBeCloseTo(3.88, 1);
	});
	it('Table 2.1: pressure of the air by height [recalled from memory]', () => {
		for (const [heightM, kpa] of [
			[0, 101.3],
			[500, 95.5],
			[1000, 90],
			[2000, 79.8],
			[3000, 70.5]
		] as const)
			expect(airPressureKpa(heightM), `${heightM} m`).toBeCloseTo(kpa, 0);
	});
	it('Table 2.3: saturation of the air by temperature [recalled from memory]', () => {
		for (const [temperatureC, kpa] of [
			[1, 0.657],
			[10, 1.228],
			[20, 2.338],
			[30, 4.243],
			[40, 7.376]
		] as const)
			expect(saturationKpa(temperatureC), `${temperatureC} °C`).toBeCloseTo(kpa, 2);
	});
	it('Examples 5 and 6: 18 to 25 °C, 54 to 82 % humidity → e_a 1.70, deficit 0.91 kPa [recalled from memory]', () => {
		const vapourKpa = (saturationKpa(18) * 0.82 + saturationKpa(25) * 0.54) / 2;
		expect(vapourKpa).toBeCloseTo(1.7, 1);
		expect(meanSaturationKpa(18, 25) - vapourKpa).toBeCloseTo(0.91, 1);
	});
	it('Examples 10 to 12: Rio de Janeiro in May → Rs 14.5, Rn 7.6 MJ/m² [recalled from memory]', () => {
		const [latitudeDeg, on] = [-22.9, '2026-05-15'];
		const onTop = extraterrestrialRadiation(latitudeDeg, on);
		expect(onTop).toBeCloseTo(25.1, 0);
		expect(daylightHours(latitudeDeg, on)).toBeCloseTo(10.9, 1);
		const sunMj = radiationFromSun(220 / 31, daylightHours(latitudeDeg, on), onTop);
		expect(sunMj).toBeCloseTo(14.5, 1);
		const day = { latitudeDeg, elevationM: 0, on, minC: 19.1, maxC: 25.1, vapourKpa: 2.1, windMs: 2, sunMj };
		expect(netRadiationMj(day)).toBeCloseTo(7.6, 1);
	});
	it('Example 14: 3.2 m/s at 10 m are 2.4 m/s at 2 m [recalled from memory]', () => {
		expect(windAt2m(3.2, 10)).toBeCloseTo(2.4, 1);
	});
	it('Example 17: Bangkok in April → ET₀ 5.72; without its soil heat flux a little more [recalled from memory]', () => {
		const [latitudeDeg, on] = [13 + 44 / 60, '2026-04-15'];
		const sunMj = radiationFromSun(
			8.5,
			daylightHours(latitudeDeg, on),
			extraterrestrialRadiation(latitudeDeg, on)
		);
		const day = { latitudeDeg, elevationM: 2, on, minC: 25.6, maxC: 34.8, vapourKpa: 2.85, windMs: 2, sunMj };
		expect(netRadiationMj(day)).toBeCloseTo(14.33, 1);
		// G of 0.14 MJ/m² is worth 0.408 Δ G / (Δ + γ (1 + 0.34 u)) = 0.04 mm.
		expect(penmanMonteithMm(day)).toBeCloseTo(5.72 + 0.04, 1);
	});
	it('dew point is where the air would be full', () => {
		expect(dewPointC(saturationKpa(11))).toBeCloseTo(11, 6);
		expect(vapourDeficitKpa(15, 24.5, 1)).toBe(0);
	});
	it('day length agrees with a sun-position library within 24 minutes, from the line to 60°', () => {
		for (const latitude of [-45, -20, 0, 30, 52, 60])
			for (const on of ['2026-03-20', '2026-06-21', '2026-09-03', '2026-12-21']) {
				const times = suncalc.getTimes(new Date(`${on}T12:00:00Z`), latitude, 0);
				const rise = times.sunrise;
				const set = times.sunset;
				if (!rise || !set) throw new Error('no sun');
				const hours = (set.getTime() - rise.getTime()) / 3_600_000;
				// The library counts the rim of the sun and the bending of light, FAO-56 its middle.
				expect(hours - daylightHours(latitude, on), `${latitude} ${on}`).toBeGreaterThan(-0.02);
				expect(hours - daylightHours(latitude, on), `${latitude} ${on}`).toBeLessThan(0.4);
			}
	});
});

const place = (change: object = {}): Place =>
	placeSchema.parse({ id: 'p', version: 1, name: 'P', kind: 'open', latitudeDeg: 52, note: '', ...change });
const day = (on: string, minC: number, maxC: number, change: object = {}): WeatherDay =>
	weatherDaySchema.parse({
		id: on,
		version: 1,
		placeId: 'p',
		on,
		source: 'station',
		from: '',
		minC,
		maxC,
		...change
	});

describe('a series without gaps', () => {
	it('has every day once, in order, whatever is missing; leap day and the turn of a year included', () => {
		fc.assert(
			fc.property(
				fc.uniqueArray(fc.integer({ min: 0, max: 79 }), { maxLength: 60 }),
				fc.constantFrom('2024-02-10', '2025-12-20', '2026-03-20'),
				(kept, from) => {
					const days = kept.map((i) => day(addDays(from, i), i % 9, 10 + (i % 9)));
					const series = weatherSeries(place(), from, addDays(from, 79), days, values);
					expect(series.map((one) => one.on)).toEqual(Array.from({ length: 80 }, (_, i) => addDays(from, i)));
					for (const one of series) {
						expect(one.how === '').toBe(kept.includes(series.indexOf(one)));
						expect(one.et0Mm).toBeGreaterThanOrEqual(0);
						expect(one.maxC).toBeGreaterThanOrEqual(one.minC);
					}
				}
			),
			{ numRuns: 60 }
		);
	});
	it('bridges short gaps, takes the climate for long ones and says so', () => {
		const days = [day('2026-04-01', 2, 10), day('2026-04-03', 6, 14), day('2026-04-20', 8, 18)];
		const series = weatherSeries(place(), '2026-04-01', '2026-04-21', days, values);
		expect(series[1]).toMatchObject({ minC: 4, maxC: 12, source: 'filled' });
		expect(series[8]?.source).toBe('normals');
		const gaps = gapsOf(series);
		expect(gaps[0]).toMatchObject({ from: '2026-04-02', to: '2026-04-02' });
		expect(gaps[1]).toMatchObject({ from: '2026-04-04', to: '2026-04-19' });
	});
	it('a clock that is put forward or back loses no hour and doubles none: days are those of the place', () => {
		// 29 March 2026, 01:00 UTC, and 25 October: clocks of central Europe change; a station sends its local time.
		for (const [change, before, after] of [
			['2026-03-29T01:00:00Z', 1, 2],
			['2026-10-25T01:00:00Z', 2, 1]
		] as const) {
			const from = Date.parse(change) - 36 * 3_600_000;
			const readings = Array.from({ length: 72 }, (_, i) => {
				const at = from + i * 3_600_000;
				const offset = at < Date.parse(change) ? before : after;
				const local = new Date(at + offset * 3_600_000).toISOString().slice(0, 19);
				return weatherHour.parse({ at: `${local}+0${offset}:00`, temperatureC: 10, rainMm: 1 });
			});
			const days = daysOfHours([...readings].reverse(), 15, 24);
			expect(days.length).toBeGreaterThanOrEqual(2);
			for (const one of days) expect(one).toMatchObject({ hours: 24, rainMm: 24 });
			// Sent twice, it counts once.
			expect(daysOfHours([...readings, ...readings], 15, 24)).toEqual(days);
		}
	});
	it('a day begins at midnight of the place; a busy hour counts once; sun is its mean over the day', () => {
		const at = (text: string, change: object = {}) =>
			weatherHour.parse({ at: text, temperatureC: 5, ...change });
		// Sydney, ten hours ahead: 15:00 UTC is the next day there.
		expect(daysOfHours([at('2026-04-16T15:00:00Z')], 151, 1)[0]?.on).toBe('2026-04-17');
		expect(daysOfHours([at('2026-04-16T15:00:00Z')], null, 1)[0]?.on).toBe('2026-04-16');
		const busy = daysOfHours(
			[
				...['00', '10', '20'].map((minute) =>
					at(`2026-04-16T12:${minute}:00Z`, { sunWm2: 600, humidityPercent: 90 })
				),
				at('2026-04-16T13:00:00Z', { sunWm2: 200, humidityPercent: 50 })
			],
			0,
			1
		)[0];
		expect(busy).toMatchObject({ hours: 2, humidityPercent: 70 });
		// A mean of 400 W/m² over a day is 34.56 MJ/m².
		expect(busy?.sunMj).toBeCloseTo(34.56, 9);
	});
	it('root work is stopped by what is known of the days ahead, never by the usual climate', () => {
		const known = weatherSeries(place(), '2026-04-01', '2026-04-03', [day('2026-04-02', -3, 9)], values);
		const juniper = { id: 'a', tag: 'A-1', situation: 'potted' as const };
		expect(workStops(juniper, { group: 'conifer', coldestC: -20 }, 'none', known, values)).toEqual([
			{ on: '2026-04-02', kind: 'cold', figure: -3, limit: values['cold.cutRootsMinimumC'] }
		]);
		// The ground keeps its roots.
		expect(
			workStops(
				{ ...juniper, situation: 'in-ground' },
				{ group: 'conifer', coldestC: -20 },
				'none',
				known,
				values
			)
		).toEqual([]);
		const climate = weatherSeries(place(), '2026-01-01', '2026-01-03', [], values);
		expect(workStops(juniper, { group: 'tropical', coldestC: 15 }, 'none', climate, values)).toEqual([]);
	});
	it('takes what was measured before a forecast, a station before what was typed, and says where two disagree', () => {
		const days = [
			day('2026-04-01', 0, 9, { source: 'forecast' }),
			day('2026-04-01', 3, 12, { source: 'typed' }),
			day('2026-04-01', 8, 20, { source: 'station' })
		];
		expect(weatherSeries(place(), '2026-04-01', '2026-04-01', days, values)[0]).toMatchObject({ minC: 8 });
		expect(disagreements(days, values)).toEqual([{ on: '2026-04-01', byC: 8 }]);
		expect(disagreements(days.slice(0, 2), values)).toEqual([]);
	});
	it('keeps heated places warm, rain out from under glass, and more demand in the sun than in the shade', () => {
		const wet = [day('2026-01-10', -6, 2, { rainMm: 12 })];
		const at = (kind: string, held: number | null = null) =>
			weatherSeries(place({ kind, heldMinimumC: held }), '2026-01-10', '2026-01-10', wet, values)[0];
		expect(at('heated', 12)?.minC).toBe(12);
		expect(at('greenhouse')?.rainMm).toBe(0);
		expect(at('open')?.rainMm).toBe(12);
		expect(at('shade')?.et0Mm ?? 9).toBeLessThan(at('open')?.et0Mm ?? 0);
	});
	it('uses Penman–Monteith where humidity, wind and sun are there', () => {
		const full = day('2026-07-06', 12, 22, { humidityPercent: 70, windMs: 2, sunMj: 21 });
		const series = weatherSeries(place(), '2026-07-06', '2026-07-07', [full], values);
		expect(series.map((one) => one.method)).toEqual(['penman-monteith', 'hargreaves']);
	});
	it('a place borrows the nearest station, not one far away', () => {
		const near = place({ id: 'near', latitudeDeg: 52.1, longitudeDeg: -1.5 });
		const far = place({ id: 'far', latitudeDeg: 57, longitudeDeg: -4 });
		const here = place({ longitudeDeg: -1.5 });
		expect(stationFor(here, [here, near, far], new Set(['near', 'far']), values)?.id).toBe('near');
		expect(stationFor(here, [here, far], new Set(['far']), values)).toBeNull();
		expect(
			stationFor(here, [here, far], new Set(['far']), { ...values, 'weather.stationWithinDeg': 4 })
		).toBeNull();
		expect(
			stationFor(here, [here, far], new Set(['far']), { ...values, 'weather.stationWithinDeg': 5.3 })?.id
		).toBe('far');
	});
	it('degree days count warmth over a base only', () => {
		expect(
			degreeDays(
				[
					{ minC: 0, maxC: 10 },
					{ minC: 10, maxC: 20 }
				],
				7
			)
		).toBe(8);
	});
});

describe('simulated weather', () => {
	it('is the same for the same seed, always possible, and near the climate over the years', () => {
		const a = simulateWeather(place(), { from: '2024-01-01', to: '2026-12-31' }, 5, values);
		expect(a).toEqual(simulateWeather(place(), { from: '2024-01-01', to: '2026-12-31' }, 5, values));
		for (const one of a)
			expect(weatherDaySchema.safeParse({ ...one, id: 'x', version: 1 }).success).toBe(true);
		const mean = a.reduce((sum, one) => sum + (one.minC + one.maxC) / 2, 0) / a.length;
		expect(mean).toBeGreaterThan(7);
		expect(mean).toBeLessThan(13);
	});
});

describe('guards', () => {
	const tree = {
		id: 't',
		tag: 'T-1',
		cold: { limitC: -8, why: '' },
		rootFunction: 0.9,
		tipsMs: null
	};
	const series = (days: WeatherDay[]) =>
		weatherSeries(place(), days[0]?.on ?? '', days.at(-1)?.on ?? '', days, values);
	it('are grouped by danger and day, tightest first, with what to do and by when', () => {
		const days = series([
			day('2026-04-18', -3, 9, { source: 'forecast' }),
			day('2026-04-19', 4, 14, { source: 'forecast' })
		]);
		const warnings = warningsFor(days, [
			limitsOf({ ...tree, id: 'a', tag: 'A', cold: { limitC: 5, why: '' } }, values),
			limitsOf({ ...tree, id: 'b', tag: 'B', cold: { limitC: -1, why: '' } }, values),
			limitsOf(tree, values)
		]);
		expect(warnings.map((one) => [one.kind, one.on, one.trees.map((t) => t.tag)])).toEqual([
			['cold', '2026-04-18', ['A', 'B']],
			['cold', '2026-04-19', ['A']]
		]);
		expect(warnings[0]).toMatchObject({ byWhen: 'before dusk', sure: true });
	});
	it('tighten with tender shoots and few roots', () => {
		const kind = { group: 'deciduous' as const, coldestC: -15 };
		const cold = coldLimit(
			{ kind, place: null, lastCutOn: null, inGround: false, newShoots: 'out' },
			'2026-04-18',
			values
		);
		expect(limitsOf({ ...tree, cold }, values)).toMatchObject({
			coldC: values['guard.shootsC'],
			why: { cold: 'tender new shoots', heat: '', wind: '', 'dry-air': '' }
		});
		expect(
			coldLimit(
				{ kind, place: null, lastCutOn: '2026-04-18', inGround: true, newShoots: 'none' },
				'2026-04-18',
				values
			)
			// In the ground it stands more than in a pot, freshly cut or not, as the place it is set in is asked.
		).toEqual({ limitC: -15 - values['site.groundHardierC'], why: '' });
		expect(
			coldLimit(
				{
					kind: { group: 'tropical', coldestC: 8 },
					place: null,
					lastCutOn: '2026-04-18',
					inGround: false,
					newShoots: 'out'
				},
				'2026-04-18',
				values
			).limitC
		).toBe(Math.max(8, values['cold.tenderCutC']));
		const few = limitsOf({ ...tree, rootFunction: 0.4 }, values);
		// What is few at the roots speaks of heat and dry air, not of frost; new shoots of frost alone.
		expect(few.why).toEqual({ cold: '', heat: 'few roots', wind: '', 'dry-air': 'few roots' });
		expect(few.heatC).toBeLessThan(limitsOf(tree, values).heatC);
		expect(few.vpdKpa).toBe(values['guard.vpdKpa']);
		expect(limitsOf({ ...tree, tipsMs: 9 }, values).gustMs).toBe(9);
	});
});

describe('a cold night that was missed', () => {
	const beech = shippedKinds.find((kind) => kind.id === 'fagus');
	if (!beech) throw new Error('no beech');
	const bench = place();
	const entry = (change: { takenInOn?: string; lastCutOn?: string | null; coldestC?: number } = {}) => ({
		tree: treeSchema.parse({
			id: 't',
			version: 1,
			tag: 'T-1',
			name: 'Beech',
			kindId: 'fagus',
			placeId: bench.id,
			situation: 'potted',
			trunkDiameterMm: 40,
			takenInOn: change.takenInOn ?? '2025-01-01',
			state: 'in-care',
			closedOn: null
		}),
		kind: { ...beech, origin: 'shipped' as const, version: 1, coldestC: change.coldestC ?? -10 },
		place: bench,
		lastCutOn: change.lastCutOn ?? null,
		facts: { looks: [] },
		standing: null
	});
	const nights = [day('2026-02-01', -14, 1), day('2026-02-02', -9, 2), day('2026-02-03', -4, 3)];
	const broken = (change: Parameters<typeof entry>[0] = {}) =>
		limitsBroken(nights, [entry(change)], [bench], values).map((one) => one.on);

	it('is found by what was measured, against the limit the tree had then', () => {
		expect(broken()).toEqual(['2026-02-01']);
		expect(broken({ coldestC: -20 })).toEqual([]);
		expect(limitsBroken(nights, [entry()], [bench], values)[0]).toMatchObject({
			treeId: 't',
			what: `Cold night: about ${measuredWhole(-14, '°C')} at ${bench.name}, its limit is ${measuredWhole(-10, '°C')}`
		});
	});
	it('nights that it spent under cover are not its nights, read in later or not', () => {
		const stayed = (fromOn: string, untilOn: string) =>
			limitsBroken(
				nights,
				[
					{
						...entry(),
						standing: { underCover: { fromOn, untilOn } } as TodayTree['standing']
					}
				],
				[bench],
				values
			).map((one) => one.on);
		// 14 below zero outside is ten under cover, and its limit is ten.
		expect(stayed('2026-01-30', '2026-02-02')).toEqual([]);
		expect(stayed('2026-01-20', '2026-02-01')).toEqual(['2026-02-01']);
	});
	it('new shoots count where they were seen out, not where the season alone has them', () => {
		const spring = [day('2026-05-01', -3, 1), day('2026-05-02', -12, 2)];
		const nights = (observedOn: string | null) =>
			limitsBroken(
				spring,
				[
					{
						...entry(),
						facts: {
							looks:
								observedOn === null
									? []
									: [{ observedOn, buds: 'open', leafCover: null, leafState: null, shootExtensionMm: null }]
						}
					}
				],
				[bench],
				values
			).map(({ on, what }) => [on, what.split(', ').at(-1)]);
		expect(nights(null).map(([on]) => on)).toEqual(['2026-05-02']);
		expect(nights('2026-04-20')).toEqual([
			['2026-05-01', 'tender new shoots'],
			['2026-05-02', 'tender new shoots']
		]);
		// Seen after that night, they were not seen then; nor does a later look take back what was seen before.
		const looks = (['2026-04-20', '2026-05-05'] as const).map((observedOn, i) => ({
			observedOn,
			buds: i === 0 ? ('open' as const) : ('none' as const),
			leafCover: null,
			leafState: null,
			shootExtensionMm: null
		}));
		expect(limitsBroken(spring, [{ ...entry(), facts: { looks } }], [bench], values)).toHaveLength(2);
		expect(nights('2026-05-02').map(([on]) => on)).toEqual(['2026-05-02']);
	});
	it('fresh cuts bring the limit up', () => {
		expect(broken({ lastCutOn: '2026-01-25' })).toEqual(['2026-02-01', '2026-02-02', '2026-02-03']);
	});
	it('does not touch a tree that was not here yet', () => {
		expect(broken({ takenInOn: '2026-02-02' })).toEqual([]);
	});
});
