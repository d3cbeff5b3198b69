import { addDays, daysBetween } from '../climate/calendar';
import type { PlaceClimate } from '../climate/normals';
import { createRandom } from '../simulate/random';
import type { RecoverySign } from '../values/recovery';
import type { Values } from '../values/values';
import { growingDayCounter, type RootLoss } from './expected';
import type { Observation } from './observation';
import { leavesOut, shootsDone } from './season';

/** What a look said, with where it stood in the season. */
export interface LookSeen extends Pick<
	Observation,
	| 'observedOn'
	| 'buds'
	| 'leafCover'
	| 'leafState'
	| 'shootExtensionMm'
	| 'diebackLimitMm'
	| 'firmness'
	| 'whiteTips'
	| 'smell'
> {
	/** Share of the season that is over, 0 outside it. */
	progress: number;
}

export interface RecoveryCase {
	/** Day of the last root work, or of taking in. */
	sinceOn: string;
	today: string;
	/** Log-odds of living through it, as judged at the work, and how unsure that is. */
	odds: number;
	oddsSpread: number;
	/** Root function expected on the day of the work, its loss counted. */
	begin: number;
	/** Losses after it, done and planned. */
	losses: readonly RootLoss[];
	place: PlaceClimate;
	tender: boolean;
	evergreen: boolean;
	looks: readonly LookSeen[];
	/** Root function by weighings, thinned so that they are apart. */
	functionSeen: readonly { on: string; phi: number; sd: number }[];
	/** Shoots of a healthy reference over a season, mm; null where there is none. */
	healthyShootMm: number | null;
}

export interface CoursePoint {
	on: string;
	low: number;
	middle: number;
	high: number;
}

export interface RecoveryForecast {
	/** Probability of re-establishment as judged at the work, and now. */
	prior: number;
	now: number;
	/** 80 % range of now: what is not known of the odds at the work stays not known. */
	low: number;
	high: number;
	/** By day of what was seen. */
	path: { on: string; probability: number }[];
	/** What moved it, strongest first: log-odds by which each thing seen did. */
	moved: { on: string; what: string; by: number }[];
	/** Root function over time, 90 % band: as expected at the work, and with what was seen. */
	expected: CoursePoint[];
	course: CoursePoint[];
	/** Day on which enough root function is reached, if it recovers: 10, 50 and 90 % of the courses. */
	reaches: { early: string; middle: string; late: string } | null;
	/** Courses that carry the weight: few means that what was seen was not foreseen. */
	effective: number;
	horizonOn: string;
}

interface Course {
	recovers: boolean;
	/** Root function each step. */
	phi: Float64Array;
	logWeight: number;
	reachedStep: number;
}

const logistic = (x: number): number => 1 / (1 + Math.exp(-x));
const STEP_DAYS = 7;

/** Courses a tree may take from its work on: half recover, each at its own pace, half fail, each at its own time [our own]. */
function courses(tree: RecoveryCase, steps: readonly string[], seed: number, values: Values): Course[] {
	const random = createRandom(seed);
	const last = steps.at(-1) ?? tree.sinceOn;
	const growing = growingDayCounter(tree.place, tree.tender, tree.sinceOn, last, values);
	const season = Math.max(60, growing(tree.sinceOn, addDays(tree.sinceOn, 365)));
	const grown = steps.map((on) => growing(tree.sinceOn, on));
	const rate = Math.log(10) / (values['expected.yearsToRegrow'] * season);
	const each = Math.round(values['forecast.courses'] / 2);
	const wanted = values['verdict.rootFunction'];
	const list: Course[] = [];
	for (let i = 0; i < 2 * each; i++) {
		const recovers = i < each;
		const own = rate * Math.exp(values['forecast.paceSpread'] * random.normal());
		const fitness = Math.min(
			1,
			Math.max(0.5, values['forecast.fitness'] + values['forecast.fitnessSpread'] * random.normal())
		);
		const start = Math.min(
			1,
			Math.max(0, tree.begin * (1 + values['forecast.beginSpread'] * random.normal()))
		);
		// A tree that fails goes on for a while, then loses half of its roots in so many growing days.
		const failsAt =
			random.next() < values['forecast.failsAtOnce']
				? 0
				: random.next() * values['forecast.failSeasons'] * season;
		const half = random.between(values['forecast.failHalfFrom'], values['forecast.failHalfTo']) * season;
		let missing = 1 - start;
		let reached = 0;
		let reachedStep = Infinity;
		const phi = new Float64Array(steps.length);
		for (const [step, on] of steps.entries()) {
			const now = grown[step] ?? 0;
			missing *= Math.exp(-own * (now - reached));
			reached = now;
			for (const loss of tree.losses)
				if (loss.on > tree.sinceOn && loss.on <= on && loss.on > addDays(on, -STEP_DAYS))
					missing = 1 - (1 - missing) * (1 - loss.share);
			let value = fitness * (1 - missing);
			if (!recovers && now > failsAt) value *= 0.5 ** ((now - failsAt) / half);
			phi[step] = value;
			if (value >= wanted && reachedStep === Infinity) reachedStep = step;
		}
		list.push({ recovers, phi, logWeight: 0, reachedStep });
	}
	return list;
}

const normalLog = (x: number, mean: number, sd: number, values: Values): number => {
	const wrong = values['forecast.wrongShare'];
	return Math.log((1 - wrong) * Math.exp(-0.5 * ((x - mean) / sd) ** 2) + wrong);
};

const signLog =
	(sign: RecoverySign, seen: boolean, values: Values) =>
	(phi: number): number => {
		const whole = values[`forecast.seen.${sign}.whole`];
		const none = values[`forecast.seen.${sign}.none`];
		const p = whole + (none - whole) * Math.max(0, 1 - phi) ** values[`forecast.seen.${sign}.bend`];
		return Math.log(Math.min(0.98, Math.max(0.02, seen ? p : 1 - p)));
	};

/** The log-likelihood of one thing seen, for a tree of some root function [our own]. */
type Evidence = { what: string; log: (phi: number) => number };

/** What a look says, one thing at a time. @param fell whether the limit of living wood fell since it was measured last */
export function evidenceOf(
	look: LookSeen,
	tree: Pick<RecoveryCase, 'evergreen' | 'healthyShootMm'>,
	fell: boolean | null,
	values: Values
): Evidence[] {
	const { progress } = look;
	const leafy = tree.evergreen ? 1 : leavesOut(progress);
	const inLeaf = leafy >= 0.9;
	const until = values['forecast.signsUntil'];
	const seen: Evidence[] = [];
	const cover = look.leafCover;
	const bare = values['forecast.coverBare'];
	if (cover !== null && inLeaf)
		seen.push({
			what: `leaf cover ${Math.round(cover * 100)} %`,
			log: (phi) => normalLog(cover, leafy * (bare + (1 - bare) * phi), values['forecast.coverError'], values)
		});
	const shoot = look.shootExtensionMm;
	const healthy = tree.healthyShootMm;
	if (shoot !== null && healthy !== null && healthy > 0 && progress > values['look.shootsFrom']) {
		const ratio = shoot / (healthy * shootsDone(progress));
		seen.push({
			what: `shoots ${Math.round(ratio * 100)} % of a healthy one’s by this time`,
			log: (phi) => normalLog(Math.min(1.4, ratio), phi, values['forecast.shootError'], values)
		});
	}
	if (look.buds !== null && progress > values['forecast.budsFrom'] && progress < until && !tree.evergreen)
		seen.push({
			what: look.buds === 'none' ? 'no buds, and the season is under way' : 'buds move',
			log: signLog('noBuds', look.buds === 'none', values)
		});
	if (look.leafState !== null && inLeaf && progress < until) {
		const bad = look.leafState === 'wilted' || look.leafState === 'dropped';
		seen.push({
			what: bad ? `leaves ${look.leafState}` : `leaves ${look.leafState}`,
			log: signLog('wilting', bad, values)
		});
	}
	if (look.firmness !== null)
		seen.push({
			what: look.firmness === 'firm' ? 'stands firm' : look.firmness === 'loose' ? 'loose' : 'moves',
			log: signLog('moving', look.firmness !== 'firm', values)
		});
	if (look.whiteTips !== null)
		seen.push({
			what: look.whiteTips ? 'white root tips' : 'no white root tips',
			log: signLog('whiteTips', look.whiteTips, values)
		});
	if (look.smell !== null)
		seen.push({
			what: look.smell === 'none' ? 'smells of nothing' : `smells ${look.smell}`,
			log: signLog('smell', look.smell !== 'none', values)
		});
	if (fell !== null)
		seen.push({
			what: fell ? 'living wood went down' : 'limit of living wood steady',
			log: signLog('fallingLimit', fell, values)
		});
	return seen;
}

function quantiles(
	list: readonly Course[],
	weights: readonly number[],
	step: number
): [number, number, number] {
	const sorted = list
		.map((course, i): [number, number] => [course.phi[step] ?? 0, weights[i] ?? 0])
		.sort((a, b) => a[0] - b[0]);
	const found: number[] = [];
	let sum = 0;
	const wanted = [0.05, 0.5, 0.95];
	for (const [phi, weight] of sorted) {
		sum += weight;
		while (found.length < 3 && sum >= (wanted[found.length] ?? 2) - 1e-12) found.push(phi);
	}
	const top = sorted.at(-1)?.[0] ?? 0;
	return [found[0] ?? top, found[1] ?? top, found[2] ?? top];
}

/**
 * Whether it comes back: many courses from the work on, weighed by everything that was seen since. The probability is that of
 * re-establishment within the horizon; each look moves it by what it says of the roots, the less the sooner it follows the one
 * before. Without its bands it is several times faster. The same case and seed always give the same answer [our own; an importance-weighted simulation].
 */
export function recoveryForecast(
	tree: RecoveryCase,
	values: Values,
	{ seed = 1, bands = true }: { seed?: number; bands?: boolean } = {}
): RecoveryForecast {
	const horizonOn = addDays(tree.sinceOn, values['forecast.horizonDays']);
	const to = horizonOn > tree.today ? horizonOn : tree.today;
	const steps: string[] = [];
	for (let on = tree.sinceOn; on <= to; on = addDays(on, STEP_DAYS)) steps.push(on);
	const stepOf = (on: string): number =>
		Math.min(steps.length - 1, Math.max(0, Math.round(daysBetween(tree.sinceOn, on) / STEP_DAYS)));
	const list = courses(tree, steps, seed, values);
	const prior = logistic(tree.odds);
	const each = list.length / 2;
	const horizon = stepOf(horizonOn);
	for (const course of list) course.logWeight = Math.log((course.recovers ? prior : 1 - prior) / each);
	// A course that recovers too slowly for the horizon is not one that did; the odds were said of living, not of its pace.
	const good = (course: Course): boolean => course.recovers && course.reachedStep <= horizon;
	const weighed = (): number[] => {
		const most = Math.max(...list.map((course) => course.logWeight));
		const raw = list.map((course) => Math.exp(course.logWeight - most));
		const sum = raw.reduce((total, weight) => total + weight, 0);
		return raw.map((weight) => weight / sum);
	};
	const probabilityBy = (weights: readonly number[]): number =>
		list.reduce((sum, course, i) => sum + (good(course) ? (weights[i] ?? 0) : 0), 0);
	const logOdds = (p: number): number => Math.log(Math.max(1e-6, p) / Math.max(1e-6, 1 - p));

	const priorWeights = weighed();
	const begin = probabilityBy(priorWeights);
	const path = [{ on: tree.sinceOn, probability: begin }];
	const moved: RecoveryForecast['moved'] = [];
	let current = begin;
	const take = (on: string, what: string, log: (phi: number) => number, power: number): void => {
		const step = stepOf(on);
		for (const course of list) course.logWeight += power * log(course.phi[step] ?? 0);
		const next = probabilityBy(weighed());
		moved.push({ on, what, by: logOdds(next) - logOdds(current) });
		current = next;
	};
	const looks = [...tree.looks]
		.filter((look) => look.observedOn > tree.sinceOn && look.observedOn <= tree.today)
		.sort((a, b) => (a.observedOn < b.observedOn ? -1 : 1));
	const seen = [...tree.functionSeen]
		.filter((point) => point.on > tree.sinceOn && point.on <= tree.today)
		.map((point) => ({ on: point.on, point, look: null as LookSeen | null }));
	const events = [...seen, ...looks.map((look) => ({ on: look.observedOn, point: null, look }))].sort(
		(a, b) => (a.on < b.on ? -1 : a.on > b.on ? 1 : 0)
	);
	let lastLookOn: string | null = null;
	let limitMm: number | null = null;
	for (const { on, point, look } of events) {
		if (point)
			take(
				on,
				`root function ${Math.round(point.phi * 100)} % by weighings`,
				(phi) => normalLog(point.phi, phi, Math.max(values['forecast.weighingError'], point.sd), values),
				values['forecast.weighingsPower']
			);
		if (look) {
			// Looks soon after each other see the same thing.
			const apart = lastLookOn === null ? values['forecast.apartDays'] : daysBetween(lastLookOn, on);
			const power = Math.min(1, apart / values['forecast.apartDays']);
			const limit = look.diebackLimitMm;
			const fell =
				limit === null || limitMm === null
					? null
					: limit < limitMm * (1 - values['decision.steadyShare']) - values['decision.steadyMm'];
			if (limit !== null) limitMm = limit;
			for (const one of evidenceOf(look, tree, fell, values)) take(on, one.what, one.log, power);
			lastLookOn = on;
		}
		path.push({ on, probability: current });
	}

	const weights = weighed();
	const band = (of: readonly number[]): CoursePoint[] =>
		steps.flatMap((on, step) => {
			if (!bands || step % 2 === 1) return [];
			const [low, middle, high] = quantiles(list, of, step);
			return [{ on, low, middle, high }];
		});
	const recovering = list
		.flatMap((course, i) => (good(course) ? [{ step: course.reachedStep, weight: weights[i] ?? 0 }] : []))
		.sort((a, b) => a.step - b.step);
	const total = recovering.reduce((sum, one) => sum + one.weight, 0);
	const dayAt = (share: number): string => {
		let sum = 0;
		for (const { step, weight } of recovering) {
			sum += weight;
			if (sum >= share * total) return steps[step] ?? horizonOn;
		}
		return horizonOn;
	};
	const z80 = 1.2816;
	const odds = logOdds(current);
	return {
		prior: begin,
		now: current,
		// Odds are not told apart beyond one in a million; the range holds what is said all the same.
		low: Math.min(current, logistic(odds - z80 * tree.oddsSpread)),
		high: Math.max(current, logistic(odds + z80 * tree.oddsSpread)),
		path,
		moved: moved.filter((one) => Math.abs(one.by) >= 0.05).sort((a, b) => Math.abs(b.by) - Math.abs(a.by)),
		expected: band(priorWeights),
		course: band(weights),
		reaches: total > 1e-6 ? { early: dayAt(0.1), middle: dayAt(0.5), late: dayAt(0.9) } : null,
		effective: 1 / weights.reduce((sum, weight) => sum + weight ** 2, 0),
		horizonOn
	};
}
