import { probit } from 'simple-statistics';
import { drawDay, isWindy, type Spell } from '../climate/drawn-weather';
import { extraterrestrialRadiation } from '../climate/evapotranspiration';
import { dayUnder, normalDay, shelterOf } from '../climate/series';
import { addDays } from '../maths/calendar';

import { createRandom, type Random } from '../maths/random';
import type { Values } from '../values/values';
import type { Begin } from './standings';
import type { RehearsalScene } from './scene';

/** Weather of one future at one place, day by day. */
export interface PlaceDays {
	minC: Float64Array;
	maxC: Float64Array;
	et0Mm: Float64Array;
	rainMm: Float64Array;
}

/** A day of weather outdoors, as a station would measure it. */
export type OutdoorsDay = Parameters<typeof dayUnder>[2];

/** One future: what nobody knows of the tree, what the people do, and the weather. All plans go through the same one. */
export interface Future {
	/** How far its odds are off what is judged, deviations. */
	z: number;
	/** Pace at which its roots grow against the usual one. */
	pace: number;
	/** Root function it comes to. */
	fitness: number;
	/** How far its roots are off what is reckoned, deviations. */
	rootsZ: number;
	rot: boolean;
	/** The mix it stands in has lost its air. */
	airless: boolean;
	/** Factors on what its crown asks for and on what its mix holds. */
	demand: number;
	holds: number;
	/** A hand takes its pot for so much drier than it is. */
	bias: number;
	/** Days on which nobody comes. */
	missed: Uint8Array;
	/** Days on which a warning would be acted on in time. */
	heeded: Uint8Array;
	/** Weather by place of the scene. */
	days: readonly PlaceDays[];
}

/** The days of a rehearsal and what is the same in every future. */
export interface Calendar {
	days: readonly string[];
	usual: readonly { minC: number; maxC: number }[];
	onTopMj: Float64Array;
	windy: Uint8Array;
}

/** The days of a rehearsal from tomorrow on. */
export function calendarOf(scene: RehearsalScene, values: Values): Calendar {
	const count = scene.days ?? Math.round(values['rehearse.days']);
	const { today, place } = scene.recovery;
	const days = Array.from({ length: count }, (_, i) => addDays(today, i + 1));
	const outdoors = { ...place, kind: 'open' as const, heldMinimumC: null };
	return {
		days,
		usual: days.map((on) => normalDay(outdoors, on, values)),
		onTopMj: Float64Array.from(days, (on) => extraterrestrialRadiation(place.latitudeDeg, on)),
		windy: Uint8Array.from(days, (on) => (isWindy(place.latitudeDeg, on) ? 1 : 0))
	};
}

/** Numbers from 0 on in a drawn order, so that what is drawn is spread evenly over all futures. */
function shuffled(count: number, random: Random): Int32Array {
	const order = Int32Array.from({ length: count }, (_, i) => i);
	for (let i = count - 1; i > 0; i--) {
		const j = Math.floor(random.next() * (i + 1));
		[order[i], order[j]] = [order[j] ?? 0, order[i] ?? 0];
	}
	return order;
}

/**
 * Draws futures one by one: everything that is not known of the tree is spread evenly over all of them (stratified), so that few
 * are needed; weather and luck are each future’s own.
 * @param count how many there will be; `used` are indexes of the places whose weather is asked for
 * @see McKay, Beckman & Conover 1979 (Latin hypercube sampling)
 */
export function futuresOf(
	scene: RehearsalScene,
	calendar: Calendar,
	begin: Begin,
	{ count, seed, used }: { count: number; seed: number; used: ReadonlySet<number> },
	values: Values
): (index: number) => Future {
	const random = createRandom(seed);
	const column = (): ((index: number) => number) => {
		const order = shuffled(count, random);
		return (index) => ((order[index] ?? 0) + 0.5) / count;
	};
	const columns = Object.fromEntries(unknowns.map((what) => [what, column()])) as Record<
		What,
		(index: number) => number
	>;
	return (index) =>
		futureAt(
			scene,
			calendar,
			begin,
			(what) => columns[what](index),
			{ random: createRandom(seed * 100_003 + index * 7919 + 1), used },
			values
		);
}

/** With what a future is drawn. */
interface Drawing {
	random: Random;
	/** Indexes of the places whose weather is asked for. */
	used: ReadonlySet<number>;
	/** Is told each day of its weather outdoors. */
	ondrawn?: ((day: OutdoorsDay) => void) | undefined;
}

/** What is drawn of each future besides its weather. */
const unknowns = ['z', 'pace', 'fitness', 'roots', 'demand', 'holds', 'bias', 'rot', 'air'] as const;
type What = (typeof unknowns)[number];

/**
 * One future by how far each unknown lies between its ends.
 * @param level of an unknown, between 0 and 1, both left out
 */
export function futureAt(
	scene: RehearsalScene,
	calendar: Calendar,
	begin: Begin,
	level: (what: What) => number,
	{ random, used, ondrawn }: Drawing,
	values: Values
): Future {
	const normal = (what: What): number => probit(level(what));
	const spreads = spreadsOf(scene, values);
	const days = calendar.days.length;
	const missed = new Uint8Array(days);
	const heeded = new Uint8Array(days);
	const [misses, heeds] = [values['rehearse.misses'], values['rehearse.heeds']];
	for (let day = 0; day < days; day++) {
		missed[day] = random.next() < misses ? 1 : 0;
		heeded[day] = random.next() < heeds ? 1 : 0;
	}
	return {
		z: normal('z'),
		pace: Math.exp(values['forecast.paceSpread'] * normal('pace')),
		fitness: Math.min(1, values['forecast.fitness'] + values['forecast.fitnessSpread'] * normal('fitness')),
		rootsZ: normal('roots'),
		rot: level('rot') < begin.rotChance,
		airless: level('air') < (scene.airlessChance ?? values['rehearse.airlessUnknown']),
		demand: Math.exp(spreads.demand * normal('demand')),
		holds: Math.exp(spreads.holds * normal('holds')),
		bias: values['rehearse.handBias'] * normal('bias'),
		missed,
		heeded,
		days: weatherOf(scene, calendar, { random, used, ondrawn }, values)
	};
}

/** How far demand of its crown and hold of its mix may be off, deviations of their logarithms: further where its pot is a guess. */
export const spreadsOf = (
	{ potGuessed }: Pick<RehearsalScene, 'potGuessed'>,
	values: Values
): { demand: number; holds: number } =>
	potGuessed
		? { demand: values['rehearse.guessedSpread'], holds: values['rehearse.guessedSpread'] }
		: { demand: values['rehearse.demandSpread'], holds: values['rehearse.holdSpread'] };

/** One future of its own, everything in it drawn. @param used indexes of the places whose weather is asked for */
export function anyFuture(
	scene: RehearsalScene,
	calendar: Calendar,
	begin: Begin,
	{ random, used, ondrawn }: Drawing,
	values: Values
): Future {
	const levels = new Map(unknowns.map((what) => [what, Math.min(1 - 1e-9, Math.max(1e-9, random.next()))]));
	return futureAt(
		scene,
		calendar,
		begin,
		(what) => levels.get(what) ?? 0.5,
		{ random, used, ondrawn },
		values
	);
}

/** Weather of one future at every place: outdoors the same, and what each place makes of it. */
function weatherOf(
	scene: RehearsalScene,
	calendar: Calendar,
	{ random, used, ondrawn }: Drawing,
	values: Values
): PlaceDays[] {
	const { places } = scene;
	const count = calendar.days.length;
	const here = places.map((_, p): PlaceDays => {
		const length = used.has(p) ? count : 0;
		return {
			minC: new Float64Array(length),
			maxC: new Float64Array(length),
			et0Mm: new Float64Array(length),
			rainMm: new Float64Array(length)
		};
	});
	const shelters = places.map((place) => shelterOf(place, values));
	const spell: Spell = { swingC: 0, wet: false };
	for (let i = 0; i < count; i++) {
		const on = calendar.days[i] ?? '';
		const usual = calendar.usual[i];
		if (!usual) continue;
		const drawn = drawDay(random, spell, usual, calendar.windy[i] === 1, scene.habits);
		const raw = {
			on,
			source: 'station' as const,
			minC: drawn.minC,
			maxC: drawn.maxC,
			humidityPercent: drawn.humidityPercent,
			windMs: drawn.windMs,
			gustMs: null,
			sunMj: (calendar.onTopMj[i] ?? 0) * drawn.sunShare,
			onTopMj: calendar.onTopMj[i] ?? 0,
			rainMm: drawn.rainMm
		};
		ondrawn?.(raw);
		for (let p = 0; p < places.length; p++) {
			const place = places[p];
			const into = here[p];
			const shelter = shelters[p];
			if (!place || !into || !shelter || !used.has(p)) continue;
			const day = dayUnder(shelter, place, raw);
			into.minC[i] = day.minC;
			into.maxC[i] = day.maxC;
			into.et0Mm[i] = day.et0Mm;
			into.rainMm[i] = drawn.rainMm * shelter.rain;
		}
	}
	return here;
}
