import { z } from 'zod';
import { releaseConditions } from '../vocabulary/task';
import { releaseOf, releasedOutput } from '../aftercare/tasks/release';
import { addDays, daysBetween } from '../maths/calendar';
import { placeSchema } from '../vocabulary/place';
import { calendarDate, count, id, measure, note, oneOf, share } from '../vocabulary/fields';
import { groups } from '../vocabulary/kind';
import { leafStates } from '../examine/looks/seen-words';
import { groundDay, groundDayOutput, groundWaterOutput, potDay, potDayOutput } from '../replant/pots/balance';
import { potState } from '../aftercare/water/pot-state';
import { nextWatering, nextWateringOutput } from '../aftercare/water/forecast';
import { rootFunction, functionEstimateOutput } from '../aftercare/water/root-function';
import { pouredL, weighingPairs, wateringSchema } from '../aftercare/water/watering';
import { dayOfHoursOutput, daysOfHours, weatherHour } from '../climate/hours';
import { workStopOutput, workStops } from '../aftercare/weather/work-stop';
import { limitsOf, warningsFor, warningOutput } from '../aftercare/weather/guards';
import { penmanMonteithMm, netRadiationMj, saturationKpa } from '../climate/penman-monteith';
import { bareDay, seriesDayOutput, weatherSeries } from '../climate/series';
import { weatherDayInput, weatherDaySchema } from '../climate/weather-day';
import { simulateWeather } from '../simulate/weather';
import { calculation, type Calculation } from './calculation';

const number = z.number();
const stores = z.strictObject({
	rootedMostL: measure(0.01, 5000, 'L'),
	unrootedMostL: measure(0, 5000, 'L'),
	surfaceM2: measure(0.0005, 20, 'm²'),
	crownM2: measure(0, 400, 'm²')
});
const water = z.strictObject({ rootedL: measure(0, 5000, 'L'), unrootedL: measure(0, 5000, 'L') });
const weatherDays = z.array(weatherDaySchema).max(4000);
const stretch = (days: number) =>
	z
		.strictObject({ from: calendarDate(), to: calendarDate() })
		.refine((span) => span.to >= span.from && span.to <= addDays(span.from, days), {
			path: ['to'],
			error: `must lie within ${days} days of the first`
		});

/** Calculations of Aftercare: weather, water, what the tree releases. */
export const weatherCalculations: readonly Calculation[] = [
	calculation(
		'penman-monteith',
		'Reference evapotranspiration of a day by FAO-56 Penman–Monteith',
		z
			.strictObject({
				latitudeDeg: measure(-90, 90, '°'),
				elevationM: measure(-400, 5000, 'm'),
				on: calendarDate(),
				minC: measure(-60, 50, '°C'),
				maxC: measure(-60, 60, '°C'),
				humidityPercent: measure(0, 100, '%'),
				windMs: measure(0, 80, 'm/s'),
				sunMj: measure(0, 45, 'MJ/m²')
			})
			.refine((day) => day.maxC >= day.minC, { path: ['maxC'], error: 'must not be below the minimum' }),
		z.object({ et0Mm: number, netRadiationMj: number }),
		({ humidityPercent, ...rest }) => {
			const day = {
				...rest,
				vapourKpa: (humidityPercent / 100) * ((saturationKpa(rest.minC) + saturationKpa(rest.maxC)) / 2)
			};
			return { et0Mm: penmanMonteithMm(day), netRadiationMj: netRadiationMj(day) };
		}
	),
	calculation(
		'weather-series',
		'Weather of a place day by day without gaps, each filled day with how it was filled',
		z.strictObject({ place: placeSchema, span: stretch(1200), days: weatherDays.default([]) }),
		z.object({ series: z.array(seriesDayOutput) }),
		({ place, span, days }, values) => ({
			series: weatherSeries(place, span.from, span.to, days, values)
		})
	),
	calculation(
		'simulated-weather',
		'Weather that never was, the same for the same seed: for demos and tests',
		z.strictObject({ place: placeSchema, span: stretch(1200), seed: count(0, 1_000_000) }),
		z.object({ days: z.array(weatherDayInput) }),
		({ place, span, seed }, values) => ({
			days: simulateWeather(place, { from: span.from, to: span.to }, seed, values)
		})
	),
	calculation(
		'pot-day',
		'One day of the water of a pot, conserved: what came in, was drawn, dried off and ran out',
		z.strictObject({
			before: water,
			stores,
			on: calendarDate(),
			et0Mm: measure(0, 30, 'mm'),
			rainMm: measure(0, 1000, 'mm').default(0),
			rootFunction: measure(0, 1.2, ''),
			inLeaf: z.boolean().default(true),
			irrigationL: measure(0, 1000, 'L').default(0)
		}),
		potDayOutput,
		({ before, stores: of, on, et0Mm, rainMm, rootFunction: phi, inLeaf, irrigationL }, values) =>
			potDay(before, of, { day: { on, et0Mm, rainMm }, rootFunction: phi, inLeaf, irrigationL }, values)
	),
	calculation(
		'next-watering',
		'The next watering of a pot as a date with a band, its litres and how, from the weather of its place',
		z
			.strictObject({
				place: placeSchema,
				days: weatherDays.default([]),
				stores,
				since: z.strictObject({ on: calendarDate(), water }),
				today: calendarDate(),
				aheadDays: count(1, 60).default(21),
				trigger: share(),
				root: z.strictObject({
					phi: measure(0, 1.2, ''),
					low: measure(0, 1.2, ''),
					high: measure(0, 1.2, '')
				}),
				inLeaf: z.boolean().default(true),
				restUntil: calendarDate().nullable().default(null),
				sheds: z.boolean().default(false),
				outflow: measure(0, 0.5, '(a share)').default(0.15)
			})
			.refine((input) => input.since.on <= input.today, {
				path: ['since', 'on'],
				error: 'must not be after today: nobody has seen that yet'
			})
			.refine((input) => input.root.low <= input.root.phi && input.root.phi <= input.root.high, {
				path: ['root'],
				error: 'must have low at most phi, and phi at most high'
			}),
		nextWateringOutput.omit({ days: true }),
		({ place, days, aheadDays, inLeaf, ...question }, values) => {
			const series = weatherSeries(
				place,
				question.since.on,
				addDays(question.today, aheadDays),
				days,
				values
			);
			const { days: _days, ...next } = nextWatering({ ...question, series, inLeaf: () => inLeaf }, values);
			return next;
		}
	),
	calculation(
		'root-function',
		'Root function by day with a 90 % band, from waterings weighed before and after',
		z.strictObject({
			place: placeSchema,
			days: weatherDays.default([]),
			span: stretch(800),
			stores,
			waterings: z.array(wateringSchema).max(2000),
			beginPhi: measure(0, 1.2, '').default(1),
			beginSpread: measure(0.01, 1, '').default(0.2),
			losses: z
				.array(z.strictObject({ on: calendarDate(), share: share() }))
				.max(50)
				.default([]),
			inLeaf: z.boolean().default(true),
			scaleKg: measure(0.001, 5, 'kg').default(0.03)
		}),
		z.object({
			course: z.array(functionEstimateOutput)
		}),
		(
			{ place, days, span, stores: of, waterings, beginPhi, beginSpread, losses, inLeaf, scaleKg },
			values
		) => ({
			course: rootFunction(
				{
					begin: { on: span.from, phi: beginPhi, p: beginSpread ** 2 },
					pairs: weighingPairs(waterings, []),
					series: weatherSeries(place, span.from, span.to, days, values),
					stores: of,
					inLeaf: () => inLeaf,
					losses,
					scaleKg,
					rainReach: values[`place.rain.${place.kind}`]
				},
				values
			)
		})
	),
	calculation(
		'weather-guards',
		'Cold, heat, gusts and dry air of the days ahead against what trees of a place stand',
		z.strictObject({
			place: placeSchema,
			days: weatherDays,
			span: stretch(30),
			trees: z
				.array(
					z.strictObject({
						id: id(),
						tag: z.string().max(16),
						coldC: measure(-60, 30, '°C'),
						hardy: z.boolean(),
						tenderShoots: z.boolean().default(false),
						rootFunction: measure(0, 1.2, '').default(1),
						tipsMs: measure(0, 200, 'm/s').nullable().default(null)
					})
				)
				.max(5000)
		}),
		z.object({
			warnings: z.array(warningOutput)
		}),
		({ place, days, span, trees }, values) => ({
			warnings: warningsFor(
				weatherSeries(place, span.from, span.to, days, values),
				trees.map(({ coldC, hardy, tenderShoots, ...tree }) => {
					const shoots = hardy && tenderShoots && values['guard.shootsC'] > coldC;
					const cold = shoots
						? { limitC: values['guard.shootsC'], why: 'tender new shoots' }
						: { limitC: coldC, why: '' };
					return limitsOf({ ...tree, cold }, values);
				})
			)
		})
	),
	calculation(
		'release',
		'Whether the tree has released a piece of work, by what was seen since',
		z.strictObject({
			condition: z.enum(releaseConditions),
			value: measure(0, 1.2, '').default(0.6),
			byOn: calendarDate(),
			today: calendarDate(),
			looks: z
				.array(
					z.strictObject({
						observedOn: calendarDate(),
						buds: z.enum(['none', 'swelling', 'open']).nullable().default(null),
						leafCover: share().nullable().default(null),
						leafState: oneOf(leafStates).nullable().default(null),
						shootExtensionMm: measure(0, 5000, 'mm').nullable().default(null)
					})
				)
				.max(2000),
			evergreen: z.boolean().default(false),
			closed: z
				.array(z.strictObject({ source: z.string().max(120), on: calendarDate() }))
				.max(2000)
				.default([]),
			gate: z
				.strictObject({
					answer: z.enum(['met', 'not-met', 'unknown']),
					because: z.array(z.string().max(400)).max(20)
				})
				.nullable()
				.default(null),
			after: note(40),
			functionLow: z
				.array(
					z.strictObject({
						on: calendarDate(),
						low: measure(0, 1.2, ''),
						weighed: z.boolean().default(false)
					})
				)
				.max(2000)
				.default([])
		}),
		releasedOutput,
		({ condition, value, byOn, after, today, ...facts }, values) =>
			releaseOf({ condition, value, byOn, after }, facts, today, values)
	),
	calculation(
		'days-of-hours',
		'Days of weather from readings by the hour, by the mean time of the place',
		z.strictObject({
			readings: z.array(weatherHour).max(20_000),
			longitudeDeg: measure(-180, 180, '°').nullable().default(null),
			least: count(1, 24).optional()
		}),
		z.object({
			days: z.array(dayOfHoursOutput)
		}),
		({ readings, longitudeDeg, least }, values) => ({
			days: daysOfHours(readings, longitudeDeg, least ?? values['weather.hoursLeast'])
		})
	),
	calculation(
		'pot-state',
		'The water of a pot by day: the balance, what was poured, and what was weighed, probed or felt',
		z.strictObject({
			stores,
			begin: z.strictObject({
				rootedL: measure(0, 5000, 'L'),
				unrootedL: measure(0, 5000, 'L'),
				sd: share()
			}),
			days: z.array(z.strictObject({ et0Mm: measure(0, 20, 'mm'), rainMm: measure(0, 1000, 'mm') })).max(400),
			poured: z
				.array(
					z.strictObject({
						day: count(0, 399),
						litres: pouredL().nullable(),
						ranOut: z.boolean().default(false),
						caughtL: measure(0, 5000, 'L').nullable().default(null),
						gainedL: measure(0, 500, 'L')
							.nullable()
							.default(null)
							.describe('What the pot took up by its weights before and after')
					})
				)
				.max(400)
				.default([]),
			seen: z
				.array(
					z.strictObject({
						day: count(0, 399),
						how: z.enum(['weighing', 'scale', 'probe', 'felt']),
						dryness: share(),
						sd: measure(0.005, 0.5, '(a share)')
					})
				)
				.max(400)
				.default([]),
			rootFunction: measure(0, 1.2, ''),
			inLeaf: z.boolean().default(true)
		}),
		z.object({
			days: z.array(
				z.object({ rootedL: number, unrootedL: number, dryness: number, sd: number, expected: number })
			)
		}),
		({ stores, begin, days, poured, seen, rootFunction, inLeaf }, values) => {
			const first = '2001-01-01';
			const on = (day: number): string => addDays(first, day);
			const state = potState(
				{
					begin: {
						on: addDays(first, -1),
						water: { rootedL: begin.rootedL, unrootedL: begin.unrootedL },
						sd: begin.sd
					},
					stores,
					series: days.map((day, i) => bareDay(on(i), day)),
					poured: poured.map(({ day, ...one }) => ({ ...one, on: on(day) })),
					seen: seen.map(({ day, ...one }) => ({ ...one, on: on(day) })),
					phiOn: () => rootFunction,
					phiSpread: 0.2,
					inLeaf: () => inLeaf,
					// All of its days are given.
					rainReach: 0
				},
				values
			);
			return {
				days: state.map(({ water, dryness, sd, expected }) => ({ ...water, dryness, sd, expected }))
			};
		}
	),
	calculation(
		'ground-balance',
		'Water of a tree in the ground by day: ball or root zone and backfill, under FAO-56 stress',
		z.strictObject({
			ballMm: measure(1, 1000, 'mm'),
			backfillMm: measure(0, 10_000, 'mm').default(0),
			areaM2: measure(0.01, 1000, 'm²'),
			crownRatio: measure(0, 20, ''),
			grassShare: share().default(0),
			days: z
				.array(
					z.strictObject({
						et0Mm: measure(0, 20, 'mm'),
						rainMm: measure(0, 1000, 'mm'),
						pouredL: measure(0, 20_000, 'L').default(0)
					})
				)
				.max(400),
			rootFunction: measure(0, 1.2, ''),
			inLeaf: z.boolean().default(true)
		}),
		z.object({
			days: z.array(groundDayOutput.omit({ on: true, water: true }).extend(groundWaterOutput.shape))
		}),
		({ days, rootFunction, inLeaf, ...stores }, values) => {
			let water = { ballMm: stores.ballMm, backfillMm: stores.backfillMm };
			return {
				days: days.map(({ pouredL, ...day }, i) => {
					const {
						water: after,
						on: _on,
						...rest
					} = groundDay(
						water,
						stores,
						{ day: { on: String(i), ...day }, rootFunction, inLeaf, irrigationMm: pouredL / stores.areaM2 },
						values
					);
					water = after;
					return { ...after, ...rest };
				})
			};
		}
	),
	calculation(
		'work-stops',
		'Weather of the next days against what a tree stands with freshly cut roots',
		z.strictObject({
			group: z.enum(groups),
			coldestC: measure(-60, 30, '°C'),
			inGround: z.boolean().default(false),
			tenderShoots: z.boolean().default(false),
			days: z
				.array(
					z.strictObject({
						minC: measure(-60, 50, '°C'),
						maxC: measure(-60, 60, '°C'),
						gustMs: measure(0, 120, 'm/s').nullable().default(null),
						vpdKpa: measure(0, 10, 'kPa').nullable().default(null)
					})
				)
				.min(1)
				.max(10)
		}),
		z.object({
			stops: z.array(workStopOutput.omit({ on: true }).extend({ day: number.describe('count from 0') }))
		}),
		({ group, coldestC, inGround, tenderShoots, days }, values) => ({
			stops: workStops(
				{ id: 'x', tag: 'x', situation: inGround ? 'in-ground' : 'potted' },
				{ group, coldestC },
				tenderShoots ? 'out' : 'none',
				days.map((day, i) => ({
					...bareDay(addDays('2001-01-01', i), { et0Mm: 0, rainMm: 0 }),
					...day
				})),
				values
			).map(({ on, ...stop }) => ({ ...stop, day: daysBetween('2001-01-01', on) }))
		})
	)
];
