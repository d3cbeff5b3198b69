import { percent } from '../text/percent';
import { signNames, signSteps, stepKey, type RecoverySign } from '../values/recovery';
import { LOGISTIC_SD } from '../maths/odds';
import type { Values } from '../values/values';
import type { Observation } from '../examine/looks/observation';
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

/** What a recovering tree is expected to show on a day. */
export interface Reference {
	/** Leaf cover, 0 … 1, where leaves are out: from its own crown at the start to a whole one. */
	cover: number;
	/** Shoots of a season, as a share of a healthy reference’s. */
	shoots: number;
	/** Root function. */
	rootFunction: number;
	/** Height against which the limit of living wood is read, mm; null where none is known. */
	heightMm: number | null;
}

/**
 * One thing seen, as a log-likelihood over how well the tree shows, 0 nothing … 1 all that a recovering one shows. Each has
 * a likelihood ratio that rises with it (or falls) throughout; nothing is written off as a slip at one end [our own].
 */
export interface Evidence {
	what: string;
	log: (shows: number) => number;
}

/** Logarithm of the logistic density, less its constants: like a normal one near its middle, straight further out, so that no single reading decides alone. */
const logisticLog = (x: number, mean: number, sd: number): number => {
	const d = Math.abs(x - mean) / (sd * LOGISTIC_SD);
	return -d - 2 * Math.log1p(Math.exp(-d));
};

/**
 * Chances of the steps of a sign, worst first, for a tree that shows so much: between none and whole in proportion of their logarithms.
 * @param shows 0 of a tree that shows none of it, 1 of one that shows all
 */
export function signChances(sign: RecoverySign, shows: number, values: Values): number[] {
	const weight = 1 - Math.max(0, 1 - shows) ** values[`forecast.seen.${sign}.bend`];
	let least = -Infinity;
	const raw = signSteps[sign].map((step) => {
		const none = values[stepKey(sign, step, 'none')];
		const whole = values[stepKey(sign, step, 'whole')];
		// Better steps may not speak for worse roots, whatever the owner sets.
		least = Math.max(least, Math.log(whole / none));
		return Math.log(none) + weight * least;
	});
	const most = Math.max(...raw);
	const sum = raw.reduce((total, one) => total + Math.exp(one - most), 0);
	return raw.map((one) => Math.exp(one - most) / sum);
}

/** The evidence of one step of a sign. */
function signEvidence(sign: RecoverySign, step: string, values: Values): Evidence {
	const at = (signSteps[sign] as readonly string[]).indexOf(step);
	return {
		what: signNames[sign][step] ?? step,
		log: (shows) => values['forecast.looksPower'] * Math.log(signChances(sign, shows, values)[at] ?? 1)
	};
}

/**
 * Root function by weighings, against what recovering trees have by then.
 * @param phi root function, 1 of a tree that was never cut
 * @param sd its standard deviation, in the same unit
 */
export function functionEvidence(phi: number, sd: number, reference: Reference, values: Values): Evidence {
	const against = Math.max(0.05, reference.rootFunction);
	const spread = Math.hypot(
		Math.max(values['forecast.weighingError'], sd),
		values['forecast.functionSpread']
	);
	return {
		what: `root function ${percent(phi)} by weighings`,
		log: (shows) =>
			values['forecast.weighingsPower'] * logisticLog(Math.min(1.1, phi / against), shows, spread / against)
	};
}

/**
 * The limit of living wood at its last reading: trees that do well may keep a dead top, those that go lose all. It can
 * speak against a tree, never for it, since living wood does not rise.
 */
export function limitEvidence(limitMm: number, reference: Reference, values: Values): Evidence | null {
	const { heightMm } = reference;
	if (heightMm === null || heightMm <= 0)
		return limitMm > 0 ? null : limitEvidence(0, { ...reference, heightMm: 1 }, values);
	const share = Math.min(1, limitMm / heightMm);
	const sd = values['forecast.limitError'] * LOGISTIC_SD;
	const usual = values['forecast.limitKept'];
	return {
		what: limitMm <= 0 ? 'no living wood above the soil' : `wood alive to ${percent(share)} of its height`,
		log: (shows) => -Math.log1p(Math.exp(-(share - usual * shows) / sd))
	};
}

/** What a look says, one thing at a time; the limit of living wood is read apart, at its last. */
export function evidenceOf(
	look: LookSeen,
	tree: { evergreen: boolean; healthyShootMm: number | null; beganBare?: boolean },
	reference: Reference,
	values: Values
): Evidence[] {
	const { progress } = look;
	const leafy = tree.evergreen ? 1 : leavesOut(progress, values);
	const inLeaf = leafy >= values['forecast.inLeaf'];
	const until = values['forecast.signsUntil'];
	const seen: Evidence[] = [];
	const { leafCover, shootExtensionMm: shoot, healthyShootMm: healthy } = { ...look, ...tree };
	const power = values['forecast.looksPower'];
	if (leafCover !== null && inLeaf) {
		const against = Math.max(0.05, leafy * reference.cover);
		const sd = Math.hypot(values['forecast.coverError'], values['forecast.coverReading'] / against);
		const leaves = (shows: number): number => shows ** values['forecast.coverBend'];
		// A bare crown in leaf time is a thing of its own: it counts whole, whatever else goes together at a look.
		const { none, whole } = { none: values['forecast.bare.none'], whole: values['forecast.bare.whole'] };
		const bareLog = (shows: number): number =>
			Math.log(none) + leaves(shows) * Math.min(0, Math.log(whole / none));
		const bare = leafCover <= values['forecast.coverReading'] / 2;
		seen.push({
			what: bare ? 'no leaf' : `leaf cover ${percent(leafCover)}`,
			log: bare
				? bareLog
				: (shows) =>
						Math.log1p(-Math.exp(bareLog(shows))) +
						power * logisticLog(Math.min(1.1, leafCover / against), leaves(shows), sd)
		});
	}
	if (shoot !== null && progress > values['look.shootsFrom']) {
		const done = Math.max(0.05, shootsDone(progress, values));
		if (healthy !== null && healthy > 0) {
			const ratio = shoot / (healthy * done);
			seen.push({
				what: `shoots ${percent(ratio)} of a healthy one’s by this time`,
				log: (shows) =>
					power *
					logisticLog(
						Math.min(1.1, ratio / reference.shoots),
						shows,
						values['forecast.shootError'] / reference.shoots
					)
			});
		} else {
			const ratio = Math.min(1, shoot / (values['forecast.shootAnyMm'] * done));
			seen.push({
				what: shoot === 0 ? 'no shoots' : ratio < 1 ? 'its shoots are short so far' : 'it made shoots',
				log: (shows) => power * logisticLog(ratio, shows, 2 * values['forecast.shootError'])
			});
		}
	}
	const leaflessYet = !tree.evergreen || tree.beganBare === true;
	if (look.buds !== null && progress > values['forecast.budsFrom'] && progress < until && leaflessYet)
		seen.push(signEvidence('buds', look.buds, values));
	if (look.leafState !== null && (tree.evergreen || (inLeaf && progress < until)))
		seen.push(signEvidence('leaves', look.leafState, values));
	if (look.firmness !== null) seen.push(signEvidence('firmness', look.firmness, values));
	if (look.whiteTips !== null) seen.push(signEvidence('whiteTips', look.whiteTips ? 'yes' : 'no', values));
	if (look.smell !== null) seen.push(signEvidence('smell', look.smell, values));
	return seen;
}
