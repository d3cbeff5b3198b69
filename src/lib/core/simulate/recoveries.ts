import { logistic } from '../maths/odds';
import { addDays, daysBetween } from '../maths/calendar';
import type { PlaceClimate } from '../climate/normals';
import { growingDayCounter } from '../recovery/expected';
import { grown as regrown, rootWarmth } from '../aftercare/water/regrowth';
import type { LookSeen, RecoveryCase } from '../recovery/forecast';
import { leavesOut, seasonPoint, seasonsOf, shootsDone } from '../recovery/season';
import type { Values } from '../values/values';
import { createRandom, type Random } from '../maths/random';

export interface SimulatedRecovery {
	case: RecoveryCase;
	/** Whether it does recover within the horizon, and where its roots stand on the day of the case. */
	truth: { recovers: boolean; phi: number; failsOn: string | null };
}

const place: PlaceClimate = { kind: 'open', latitudeDeg: 51, elevationM: 120, heldMinimumC: null };

/** How far the truth of a whole yard lies from what the forecast believes. */
export interface Lean {
	/** Added to the log-odds of living. */
	oddsBy: number;
	/** Logarithm of the factor on the pace of regrowth. */
	paceBy: number;
	/** Added to the root function that a tree comes to. */
	fitnessBy: number;
	/** Added to leaf cover as this person reads it. */
	coverBy: number;
	/** Logarithm of the factor on shoots against the reference. */
	shootsBy: number;
}
export const even: Lean = { oddsBy: 0, paceBy: 0, fitnessBy: 0, coverBy: 0, shootsBy: 0 };

/** The lean of one yard: its people, place and trees differ as a whole from what the model holds for usual. */
export function leanOf(seed: number): Lean {
	const random = createRandom(seed);
	return {
		oddsBy: 0.5 * random.normal(),
		paceBy: 0.3 * random.normal(),
		fitnessBy: 0.04 * random.normal(),
		coverBy: 0.06 * random.normal(),
		shootsBy: 0.15 * random.normal()
	};
}

const TENDER = false;
/** Root function under which it is dead. */
const GONE = 0.05;
const asShare = (value: number): number => Math.min(1, Math.max(0, value));

/** What is true of one simulated tree: whether it lives, how its roots come back, and when they fail where they do. */
function truthOf(
	random: Random,
	{ sinceOn, odds, lean }: { sinceOn: string; odds: number; lean: Lean },
	values: Values
) {
	const lives = random.next() < logistic(odds + lean.oddsBy + 0.35 * random.normal());
	const begin = random.between(0.35, 0.85);
	const horizonOn = addDays(sinceOn, values['forecast.horizonDays']);
	const growing = growingDayCounter(place, TENDER, sinceOn, horizonOn, values);
	const warmth = rootWarmth(place, sinceOn, horizonOn, values);
	const season = Math.max(60, growing(sinceOn, addDays(sinceOn, 365)));
	const pace = Math.exp(values['forecast.paceSpread'] * random.normal() * 1.15 + lean.paceBy);
	const fitness = Math.min(1, Math.max(0.5, 0.95 + 0.09 * random.normal() + lean.fitnessBy));
	// Of those that fail some die within weeks, some go down from the work on, the others later.
	const [atOnce, soon] = [random.next() < 0.25, random.next() < 0.35];
	const failsAt = atOnce || soon ? 0 : random.next() * 1.2 * season * random.between(0.8, 1.3);
	const half = (atOnce ? random.between(0.03, 0.1) : random.between(0.12, 0.8)) * season;
	const phiOn = (on: string): number => {
		const grown = growing(sinceOn, on);
		const value = fitness * regrown(begin, pace * warmth(sinceOn, on), values);
		return !lives && grown > failsAt ? value * 0.5 ** ((grown - failsAt) / half) : value;
	};
	let failsOn: string | null = null;
	let reached = false;
	for (let on = sinceOn; on <= horizonOn; on = addDays(on, 7)) {
		if (!lives && failsOn === null && growing(sinceOn, on) > failsAt) failsOn = on;
		reached ||= phiOn(on) >= values['verdict.rootFunction'];
	}
	return { lives, begin, phiOn, failsOn, recovers: lives && reached };
}

/** What a careful but fallible person sees of it on a day. */
function seenOn(
	random: Random,
	{
		observedOn,
		progress,
		phi,
		limitMm,
		lean
	}: { observedOn: string; progress: number; phi: number; limitMm: number; lean: Lean },
	values: Values
): LookSeen {
	const inSeason = progress > 0.1 && progress < 0.9;
	const cover = (): number =>
		// Without roots it is dead: no leaf.
		phi < GONE
			? 0
			: asShare(leavesOut(progress, values) * (0.3 + 0.7 * phi) + 0.12 * random.normal() + lean.coverBy);
	const shoots = (): number =>
		Math.max(
			0,
			300 * shootsDone(progress, values) * phi * (1 + 0.2 * random.normal()) * Math.exp(lean.shootsBy)
		);
	const often = (chance: number): boolean => random.next() < chance;
	return {
		observedOn,
		progress,
		buds: progress > 0 && progress < 0.9 ? (often(0.03 + 0.8 * (1 - phi) ** 2) ? 'none' : 'open') : null,
		leafCover: inSeason ? cover() : null,
		leafState: inSeason ? (often(0.04 + 0.6 * (1 - phi) ** 2) ? 'wilted' : 'turgid') : null,
		shootExtensionMm: progress > 0.15 && often(0.6) ? shoots() : null,
		diebackLimitMm: often(0.5) ? limitMm : null,
		firmness: often(0.3) ? (often(0.05 + 0.5 * (1 - phi)) ? 'moves' : 'firm') : null,
		whiteTips: often(0.15) ? often(0.1 + 0.8 * phi) : null,
		smell: often(0.15) ? (often(0.03 + 0.5 * (1 - phi) ** 2) ? 'sour' : 'none') : null
	};
}

/**
 * A tree with known truth, its numbers jittered away from those that the forecast believes in: odds that were judged a little
 * wrong, another pace, looks by a careful but fallible person. For checking how well forecasts hold.
 * @param daysAfter days since the work on which the case is looked at
 * @param lean how far its whole yard lies from what the forecast believes
 */
export function simulateRecovery(
	seed: number,
	daysAfter: number,
	values: Values,
	lean: Lean = even
): SimulatedRecovery {
	const random = createRandom(seed);
	const sinceOn = addDays('2023-03-01', Math.floor(random.next() * 60));
	const today = addDays(sinceOn, daysAfter);
	const odds = 0.9 + 1.1 * random.normal();
	const { begin, phiOn, failsOn, recovers } = truthOf(random, { sinceOn, odds, lean }, values);
	const seasons = seasonsOf(place, TENDER, sinceOn, today, values);
	const looks: LookSeen[] = [];
	let limitMm = 1000;
	for (let on = addDays(sinceOn, 20); on <= today; on = addDays(on, Math.round(random.between(18, 45)))) {
		const { progress } = seasonPoint(seasons, on, sinceOn, [], values);
		const phi = phiOn(on);
		// Without roots there is soon no living wood.
		if (phi < GONE) limitMm *= 0.3;
		else if (random.next() < 0.05 + 0.5 * (1 - phi)) limitMm *= random.between(0.85, 0.96);
		looks.push(seenOn(random, { observedOn: on, progress, phi, limitMm, lean }, values));
	}
	return {
		case: {
			sinceOn,
			today,
			odds,
			oddsSpread: 0.5,
			begin,
			losses: [],
			place,
			tender: TENDER,
			evergreen: false,
			looks,
			functionSeen: [],
			healthyShootMm: 300,
			heightMm: 1000
		},
		truth: {
			recovers,
			phi: phiOn(today),
			failsOn: failsOn && daysBetween(failsOn, today) >= 0 ? failsOn : null
		}
	};
}
