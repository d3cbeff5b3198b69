import { measured } from '../text/measured';
import type { Mark } from '../values/define';
import { isValueKey, workingValue, type ValueKey, type Values } from '../values/values';

/** Where the formula of each calculation comes from. */
export const formulaSources: Readonly<Record<string, string>> = {
	diagnosis: 'Noisy-OR with a leak: Pearl 1988; quickscore: Heckerman 1989. All numbers our own',
	'next-checks': 'Expected drop in entropy: Shannon 1948; by cost and by what acting saves, our own',
	advice:
		'Expected loss of acting against waiting, a quick check first: Raiffa & Schlaifer 1961; limits our own',
	'act-now': 'Expected loss of acting against waiting: Raiffa & Schlaifer 1961; numbers our own',
	'compare-looks': 'Our own rule',
	referral: 'Common practice, no source; limits our own',
	'neighbour-check': 'Expected drop in entropy for its cost, our own',
	'measured-findings': 'Each tool by its own method; grades our own',
	'root-sample': 'Wilson 1927 interval; number of roots our own',
	'picture-length':
		'Hartley & Zisserman 2004, algorithm 4.2 (normalised direct linear transformation); error by first-order propagation of the touches',
	'picture-card':
		'Garrido-Jurado et al. 2016 (markers); Hartley & Zisserman 2004, algorithm 4.2; limits our own',
	'root-depth': 'Hartley & Zisserman 2004, sections 2 and 8.1; which root it is our own',
	'picture-root':
		'Frangi et al. 1998 (ridges); Dijkstra 1959; Bellman 1957 (edges); Sen 1968 (taper); limits our own',
	'leaf-cover': 'Woebbecke et al. 1995 (excess of green); Otsu 1979 (threshold); limits our own',
	'root-wall':
		'Fisher 1936 (groups of colours); Cochran 1977, chapter 6, and Kish 1965 (blocks); limits our own',
	'picture-line-up':
		'Harris & Stephens 1988 and Rublee et al. 2011 (places); Fischler & Bolles 1981 (agreement); limits our own',
	'dieback-limit': 'Bayes over heights, our own',
	'pot-weighing': 'Common practice, no source; grades our own',
	outflow: 'Volume caught against poured; limits our own',
	'drain-time': 'Common practice, no source',
	collar: 'Share of the outline touched; grades from memory',
	'penetrometer-csv': 'RFC 4180',
	'penetrometer-profile': 'Limits of resistance from memory, widely published',
	'simulated-penetrometer': 'Simulated, our own',
	'soil-cores': 'USDA NRCS, soil quality: bulk density; limits from memory',
	infiltration: 'Philip 1957; classes of USDA NRCS from memory',
	'texture-by-feel': 'Field texturing, common practice, no source',
	'soil-water': 'Saxton & Rawls 2006',
	'ball-mass': 'Half-ellipsoid to cylinder, geometry; densities from memory',
	'ball-size': 'ANSI Z60.1 from memory; field practice, no source',
	'lift-kept':
		'Roots thin out from trunk and surface, our own; 2 to 20 % found in balls: Watson & Himelick 1982, Gilman 1988, from memory',
	'lift-limit': 'Revised NIOSH lifting equation: Waters et al. 1993',
	triage: 'Additive in log-odds, our own',
	'changed-together': 'Our own rule',
	'one-by-one': 'Our own rule',
	'wilson-interval': 'Wilson 1927',
	'circular-statistics': 'Fisher 1993; Zar, Biostatistical Analysis; Kish 1965 for weights',
	girdling: 'Share of the outline within reach of the root, geometry; grades from memory',
	'stem-diameter': 'BS 5837:2012, from memory',
	allowance: 'Common practice, no source; shares our own',
	'root-ledger': 'Pipe model: Shinozaki et al. 1964; class weights our own',
	'root-shares': 'Pipe model: Shinozaki et al. 1964; class weights our own',
	'root-courses': 'Geometry; limits our own',
	'reduction-plan': 'Mixed-integer model, our own; solved by HiGHS, Huangfu & Hall 2018',
	'crown-supply': 'Supply against demand, our own; both schools common practice',
	'cut-sessions': 'Our own rule',
	'shared-pot': 'Geometry',
	'crown-course': 'Supply against demand, our own',
	'crown-height': 'Geometry of a cone of crown, our own',
	'stage-gate': 'Common practice, no source; limits our own',
	fronts: 'Weights our own',
	'planting-angle': 'Geometry',
	evapotranspiration: 'Hargreaves & Samani 1985; FAO-56, Allen et al. 1998',
	'water-demand': 'FAO-56, Allen et al. 1998; crown factors our own',
	'judge-pot': 'Common practice, no source; limits our own',
	'propose-pots': 'Common practice, no source; limits our own',
	'bench-test': 'Volume drained against volume of the pot, common practice, no source',
	'mix-weighings': 'Container capacity by weight, common practice, no source',
	'measured-mix': 'Fit of van Genuchten 1980 to what was measured',
	'tie-down': 'Statics; holds our own',
	'lift-route': 'Common practice, no source',
	'site-check': 'Limits from memory and our own',
	'ground-works': 'Geometry; common practice, no source',
	'sulphur-dose': 'Oregon State University Extension, table from memory',
	'kit-list': 'Common practice, no source',
	'root-protection-area': 'BS 5837:2012',
	'structural-root-zone': 'AS 4970-2009',
	'season-window': 'Months typed for the place, else a stand-in climate, our own; windows, our own',
	'stage-dates': 'Windows, our own',
	'night-temperature': 'Months typed for the place, else a stand-in climate, our own',
	'pot-volume': 'Frustum, prismoid and ellipse, geometry',
	'pot-size': 'Common practice, no source',
	'layer-amounts': 'Geometry; packing our own',
	'pot-fit': 'Geometry',
	'tipping-wind': 'Statics; drag from memory',
	'mix-components': 'Properties from memory',
	'mix-water-air': 'van Genuchten 1980; grain sizes to pores our own',
	'reach-mix': 'Search over parts, our own',
	'penman-monteith': 'FAO-56, Allen et al. 1998',
	'weather-series': 'FAO-56, Allen et al. 1998; gaps and factors of places our own',
	'simulated-weather': 'Simulated, our own',
	'pot-day': 'Two stores in balance; FAO-56 equation 84 for stress; shares our own',
	'next-watering': 'Two stores in balance; FAO-56, Allen et al. 1998; rates our own',
	'root-function': 'Kalman 1960 over the balance of the pot; regrowth our own',
	'weather-guards': 'Limits of kinds from memory; rules our own',
	release: 'Common practice, no source; limits our own',
	'days-of-hours': 'Mean time of the place, our own',
	'pot-state': 'Two stores in balance, corrected by what was seen: Kalman 1960',
	'ground-balance': 'FAO-56, Allen et al. 1998, soil water balance',
	'work-stops': 'Rules our own',
	rehearsal:
		'Common random numbers: Law, Simulation Modeling and Analysis; Latin hypercube: McKay, Beckman & Conover 1979; value of finding out: Raiffa & Schlaifer 1961; harms our own',
	'practice-step':
		'Signs by noisy-OR: Pearl 1988; Brier 1950; what faults cost and how a choice is held against its absence our own',
	'strongest-other-plan': 'Changes one by one, the best of each part together; our own',
	'recovery-forecast':
		'Hidden Markov model: Rabiner 1989; order kept by total positivity: Karlin & Rinott 1980; numbers our own',
	'recovery-decisions': 'Common practice, no source; limits our own',
	'season-point': `Degree days over ${measured(5, '°C')}; months typed for the place, else a stand-in climate, our own`,
	'growth-curve': 'Logistic fit by Levenberg 1944 and Marquardt 1963',
	'kaplan-meier': 'Kaplan & Meier 1958; Greenwood 1926',
	'forecast-score': 'Brier 1950',
	'backups-worth-keeping': '1 − (1 − rate)ⁿ; Wilson 1927 for the rate; usual rates our own',
	'aftercare-tasks': 'Common practice, no source; days from the trade and our own',
	'expected-root-function': 'Logistic regrowth with warmth, our own',
	verdict: 'Criteria our own; time in the ground after Watson and Gilman, from memory'
};

/** A working value that an answer used. */
export interface UsedValue {
	key: ValueKey;
	value: number;
	unit: string;
	mark: Mark;
	source?: string;
}

/** Where the numbers of an answer come from. */
export interface Provenance {
	/** Source of the formula, with its year. */
	formula: string;
	/** How many working values of each mark it used. */
	marks: Record<Mark, number>;
	/** The working values it used, the first sixty by name. */
	values: UsedValue[];
	/** How many more it used than are listed. */
	more: number;
}

/** Working values listed with an answer at most; a diagnosis uses hundreds. */
const LISTED = 60;

/** Values that remember which of them were read: some thousand names, so `used` is told as no more than can be gone through. */
export function traced(values: Values): { values: Values; used: Iterable<ValueKey> } {
	const used = new Set<ValueKey>();
	return {
		used,
		values: new Proxy(values, {
			get: (target, key) => {
				if (typeof key !== 'string') return Reflect.get(target, key);
				if (isValueKey(key)) used.add(key);
				return target[key as ValueKey];
			}
		})
	};
}

/** Where the numbers of an answer come from, by the values that were read for it. */
export function provenance(name: string, used: Iterable<ValueKey>, values: Values): Provenance {
	const keys = [...used].sort();
	const marks: Record<Mark, number> = { published: 0, trade: 0, memory: 0, ours: 0 };
	for (const key of keys) marks[workingValue(key).mark]++;
	return {
		formula: formulaSources[name] ?? '',
		marks,
		values: keys.slice(0, LISTED).map((key): UsedValue => {
			const { unit, mark, source } = workingValue(key);
			return { key, value: values[key], unit, mark, ...(source ? { source } : {}) };
		}),
		more: Math.max(0, keys.length - LISTED)
	};
}
