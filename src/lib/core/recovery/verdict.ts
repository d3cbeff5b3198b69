import { z } from 'zod';
import { listed } from '../text/plural';
import { atStart, midSentence } from '../text/mid-sentence';
import { firmnessSaid, smellSaid, type Moving } from '../examine/looks/seen-words';
import { measured } from '../text/measured';
import { checkAsked, holdsBy, type CausesOpen } from '../examine/diagnosis/open-causes';
import { percent } from '../text/percent';
import { daysBetween, daysWithin, MONTH_DAYS } from '../maths/calendar';
import type { Situation } from '../vocabulary/words';
import type { Values } from '../values/values';
import { readingsOf, woodFell, type Observation } from '../examine/looks/observation';

const answers = ['met', 'not-met', 'unknown'] as const;
export type Answer = (typeof answers)[number];

export const criterionOutput = z.object({
	name: z.enum(['last-look', 'no-dieback', 'function', 'roots-at-edge', 'firm', 'no-alarm', 'no-stage-left']),
	label: z.string(),
	answer: z.enum(answers),
	because: z.string().describe('The evidence, in one sentence')
});
export type Criterion = z.infer<typeof criterionOutput>;
/** A criterion, with what settles it where that is not what settles all of its name. */
type Judged = Criterion & { owes?: string };

/** Since when ties, stakes or stones hold a tree, from when on they may come off, and when they did; null for not yet. */
export interface Tied {
	on: string;
	untilOn: string;
	offOn: string | null;
}

export interface VerdictInput extends Pick<Moving, 'heldOn' | 'setOn'> {
	today: string;
	/** What holds it, or held it; null or left out: nothing does, or it was tried when that came off. */
	tied?: Tied | null;
	situation: Situation;
	/** Its pot is too heavy for a scale. */
	tooHeavy?: boolean;
	trunkDiameterMm: number;
	/** Day of the last root work, or of taking in. */
	sinceOn: string;
	/** It was worked on that day; false: it came then, and nothing was done to it since. */
	worked?: boolean;
	observations: readonly Observation[];
	/** Share of the living root that it lost where it grew; null or left out: it was dug or planted, and time is served for all its roots. */
	stoodLoss?: number | null;
	referenceShootMm: number | null;
	/** Tag of the healthy tree that is named for it, where nobody measured its shoots. */
	referenceUnmeasured?: string | null;
	/** Root function by weighings; null where it was not weighed. */
	rootFunction: { phi: number; low: number; high: number } | null;
	openAlarms: number;
	/** Pressing work whose days are over, and of which nobody said whether it was done. */
	unanswered?: number;
	stagesLeft: number;
	/** Days of looks at which a tree of its kind bears no leaves anyway. */
	leaflessOn?: readonly string[];
	/** Days of looks at which one of its kind bears only part of its leaves: they come, or fall. */
	partlyOn?: readonly string[];
	/** Whether it bears none today either, or bore none until lately; left out: as at its last look. */
	leaflessNow?: boolean;
	/** What a qualified person has still to see. */
	flags?: readonly { title: string }[];
	/** What its last look says of its causes, however long ago; left out where it says nothing of the kind. */
	causes?: CausesOpen;
	/** Day of the last weighing behind the root function; null or left out: today. */
	weighedOn?: string | null;
	/** Growing seasons of its place; left out where they are not known: every day counts as one of growth. */
	seasons?: readonly { from: string; to: string }[] | undefined;
}

export const verdictOutput = z.object({
	criteria: z.array(criterionOutput),
	reEstablished: z.boolean().describe('True when every criterion is met'),
	owed: z
		.array(z.string())
		.describe('What has to be looked at before it can be said; empty when nothing is unknown')
});
export type Verdict = z.infer<typeof verdictOutput>;

/** What settles a criterion that is not known. */
const owedLook: Partial<Record<Criterion['name'], string>> = {
	'last-look': 'Look at leaves, smell and pests',
	'no-dieback': 'Scratch and tap for the limit of living wood, twice',
	'roots-at-edge': 'Look under the pot or at the wall for roots',
	firm: 'Push it gently: does it stand firm?',
	'no-alarm': 'Say of work whose days are over that it was done, or skip it'
};

/** Whether shoots since the work are there to be set against a reference, and only the reference is wanting. */
const referenceWanting = (input: VerdictInput, values: Values): boolean =>
	(input.referenceShootMm ?? 0) <= 0 &&
	readingsOf(sinceWork(input), 'shootExtensionMm').some(
		(reading) => !stale(reading.on, input, values['verdict.shootDays'])
	);

/** The same for a tree as it stands: nobody weighs what grows in the ground or is too heavy, and what was measured is not asked again. */
function owedFor({ name, owes }: Judged, input: VerdictInput, values: Values): string | undefined {
	if (owes) return owes;
	if (name !== 'function') return owedLook[name];
	const twin = input.referenceUnmeasured;
	const shoots = referenceWanting(input, values)
		? twin
			? `measure the shoots of ${twin}`
			: 'measure the shoots of a healthy one near by, with the next look'
		: twin
			? `measure its shoots, and those of ${twin}`
			: 'measure its shoots, and those of a healthy one near by';
	return input.situation === 'in-ground' || input.tooHeavy
		? atStart(shoots)
		: `Weigh it before and after water, or ${shoots}`;
}

/** Its roots may drink more by now than its last weighings told. */
const weighedLongAgo = ({ weighedOn, today }: VerdictInput, values: Values): boolean =>
	weighedOn != null && daysBetween(weighedOn, today) > values['water.weighAgainDays'];

/** Looks from the work on up to today. */
const sinceWork = ({ observations, sinceOn, today }: VerdictInput): Observation[] =>
	observations.filter((look) => look.observedOn >= sinceOn && look.observedOn <= today);

/** What it is counted from, in words. */
const begun = ({ worked = true }: VerdictInput): string => (worked ? 'the work' : 'it came');

/** Whether something seen is too old to speak of today. */
const stale = (on: string, input: VerdictInput, days: number): boolean => daysBetween(on, input.today) > days;
const tooOld = (on: string, input: VerdictInput): string => {
	const months = Math.round(daysBetween(on, input.today) / MONTH_DAYS);
	return months >= 24 ? `${Math.round(months / 12)} years ago` : `${months} months ago`;
};

const criterion = (name: Criterion['name'], label: string, answer: Answer, because: string): Criterion => ({
	name,
	label,
	answer,
	because
});

/** What was done since a look found it to move, where nobody has tried it since; null where it stood firm then, or nothing was done. */
function untried(look: Observation | undefined, { heldOn, setOn }: VerdictInput): string | null {
	const since = heldOn ?? setOn;
	if (!look?.firmness || look.firmness === 'firm' || !since || look.observedOn > since) return null;
	return `It ${firmnessSaid[look.firmness].then} on ${look.observedOn}; ${heldOn ? `it has been held since ${heldOn}` : `it was set anew on ${since}`}, and nobody has tried it since.`;
}

/**
 * The criteria for "re-established", each met, not met or unknown; what was never measured stays unknown and never
 * counts as met. Root function is judged by weighings, or by shoots against a healthy reference: either will do.
 */
export function verdict(input: VerdictInput, values: Values): Verdict {
	const since = sinceWork(input);
	const criteria: Judged[] = [
		lastLook(since, input, values),
		dieback(since, input, values),
		growth(since, input, values),
		spread(since, input, values),
		firm(since, input, values),
		noAlarm(input),
		criterion(
			'no-stage-left',
			'No planned root stage left',
			input.stagesLeft === 0 ? 'met' : 'not-met',
			input.stagesLeft === 0
				? 'No cut is planned any more.'
				: `${input.stagesLeft === 1 ? 'One stage is' : `${input.stagesLeft} stages are`} still planned; close with the remainder noted, or do it first.`
		)
	];
	return {
		criteria: criteria.map(({ name, label, answer, because }) => ({ name, label, answer, because })),
		reEstablished: criteria.every((c) => c.answer === 'met'),
		owed: [
			...new Set(
				criteria.flatMap((c) =>
					c.answer === 'unknown' ||
					(c.name === 'function' && c.answer === 'not-met' && weighedLongAgo(input, values))
						? (owedFor(c, input, values) ?? [])
						: []
				)
			)
		]
	};
}

function noAlarm({ openAlarms, unanswered = 0 }: VerdictInput): Criterion {
	const told = (answer: Answer, because: string): Criterion =>
		criterion('no-alarm', 'No open alarm', answer, because);
	if (openAlarms > 0) return told('not-met', `${openAlarms} urgent and overdue.`);
	if (unanswered > 0)
		return told(
			'unknown',
			`Nobody said whether ${unanswered === 1 ? 'one piece' : `${unanswered} pieces`} of aftercare ${unanswered === 1 ? 'was' : 'were'} done.`
		);
	return told('met', 'Nothing urgent is overdue.');
}

/** What was seen last can veto: a tree that hangs, smells or stands bare is not re-established, whatever held before. */
function lastLook(since: readonly Observation[], input: VerdictInput, values: Values): Judged {
	const label = 'Well when it was last looked at';
	const told = (answer: Answer, because: string, owes?: string): Judged => ({
		...criterion('last-look', label, answer, because),
		...(owes && { owes })
	});
	const days = values['verdict.lookDays'];
	const fresh = since.filter((look) => !stale(look.observedOn, input, days));
	const last = since.at(-1);
	if (!last) return told('unknown', `Nobody has looked since ${begun(input)}.`);
	if (fresh.length === 0)
		return told(
			'unknown',
			`The last look was ${tooOld(last.observedOn, input)}: nobody knows how it stands now.`
		);
	const { urgent = null, check = null, waits = null } = input.causes ?? {};
	const bare = new Set(input.leaflessOn ?? []);
	const inLeaf = fresh.filter((look) => !bare.has(look.observedOn));
	const leaf = inLeaf.findLast((look) => look.leafState !== null);
	const cover = inLeaf.findLast((look) => look.leafCover !== null);
	const smell = since.findLast((look) => look.smell !== null);
	const pests = since.findLast((look) => look.pests !== null);
	const held = since.findLast((look) => look.firmness !== null);
	const moved = untried(held, input);
	const limit = since.findLast((look) => look.diebackLimitMm !== null);
	const alive = limit !== undefined || fresh.some((look) => look.buds !== null);
	// In the weeks in which leaves come or fall a thin crown says nothing.
	const thin = cover !== undefined && (cover.leafCover ?? 1) < values['verdict.coverLeast'];
	const partly = thin && (input.partlyOn ?? []).includes(cover.observedOn);
	const bad = [
		...(input.flags ?? []).map((flag) => `${flag.title}, and nobody wrote down what they said.`),
		...(urgent
			? [`${holdsBy(urgent)} by the look of ${urgent.on}, and nothing was done about it since.`]
			: []),
		...(waits
			? [`${holdsBy(waits)} by the look of ${waits.on}; the work waits for its window on ${waits.windowOn}.`]
			: []),
		...(leaf && leaf.leafState !== 'turgid' ? [`Leaves ${leaf.leafState} on ${leaf.observedOn}.`] : []),
		...(thin && !partly ? [`Leaf cover ${percent(cover.leafCover ?? 0)} on ${cover.observedOn}.`] : []),
		...(smell?.smell && smell.smell !== 'none'
			? [`It smelt ${smellSaid[smell.smell]} on ${smell.observedOn}.`]
			: []),
		...(pests?.pests === 'many' ? [`Many pests on ${pests.observedOn}.`] : []),
		...(limit?.diebackLimitMm === 0 ? [`No living wood was found on ${limit.observedOn}.`] : []),
		...(held?.firmness && held.firmness !== 'firm' && !moved
			? [`It ${firmnessSaid[held.firmness].then} on ${held.observedOn}.`]
			: [])
	];
	if (bad.length > 0) return told('not-met', bad.join(' '));
	if (check)
		return told(
			'unknown',
			`${holdsBy(check)} by the look of ${check.on}; ${checkAsked(check)}.`,
			check.check ? `Check it: ${midSentence(check.check.label)}` : 'Look at it anew in Examine'
		);
	if (!leaf && !cover && inLeaf.length > 0)
		return told('unknown', 'Its leaves were not looked at in their season.');
	if (!leaf && !cover && input.leaflessNow === false)
		return told(
			'unknown',
			'It bore no leaves when it was last looked at, and they were not looked at since they came.'
		);
	if (!leaf && !cover && !alive && !smell && !pests)
		return told(
			'unknown',
			`It bore no leaves when it was last looked at, and nobody wrote of its buds, wood, smell or pests since ${begun(input)}.`
		);
	if (partly)
		return told(
			'unknown',
			`Leaf cover ${percent(cover.leafCover ?? 0)} on ${cover.observedOn}, in the weeks in which leaves come or fall.`
		);
	if (moved) return told('unknown', moved, owedLook.firm);
	const leafOn = (leaf ?? cover)?.observedOn;
	const well = ['leaves', ...(smell ? ['smell'] : []), ...(pests ? ['pests'] : [])];
	return told(
		'met',
		leafOn
			? `${atStart(listed(well))} ${well.length > 1 ? 'were well when last looked at, its leaves' : 'were well'} on ${leafOn}.${pests ? '' : ' Nobody looked for pests.'}`
			: `Nothing spoke against it on ${fresh.at(-1)?.observedOn ?? ''}; it bore no leaves then.`
	);
}

function dieback(since: readonly Observation[], input: VerdictInput, values: Values): Criterion {
	const label = 'One full season without new dieback';
	const limits = readingsOf(since, 'diebackLimitMm');
	const first = limits[0];
	const last = limits[limits.length - 1];
	if (!first || !last || limits.length < 2)
		return criterion(
			'no-dieback',
			label,
			'unknown',
			`The limit of living wood was not measured twice since ${begun(input)}.`
		);
	if (stale(last.on, input, values['verdict.limitDays']))
		return criterion(
			'no-dieback',
			label,
			'unknown',
			`The limit of living wood was last measured ${tooOld(last.on, input)}.`
		);
	let lastFallOn: string | null = null;
	for (const [index, reading] of limits.entries()) {
		const before = limits[index - 1];
		if (before && woodFell(before.value, reading.value, values)) lastFallOn = reading.on;
	}
	const quietFrom = lastFallOn ?? first.on;
	const { seasons } = input;
	const quiet = daysBetween(quietFrom, last.on);
	const wanted = values['verdict.quietDays'];
	// A winter proves nothing: what would die back does so in growth. A season that is short is enough whole.
	const grown = seasons?.reduce((sum, one) => sum + daysWithin(one, quietFrom, last.on), 0) ?? null;
	const whole = Math.max(0, ...(seasons ?? []).map(({ from, to }) => daysBetween(from, to)));
	const grownWanted = Math.min(values['verdict.quietGrowthDays'], whole > 0 ? whole : Infinity);
	return criterion(
		'no-dieback',
		label,
		quiet >= wanted && (grown === null || grown >= grownWanted) ? 'met' : 'not-met',
		`${lastFallOn ? 'Limit steady' : 'No new dieback measured'} for ${quiet} days${grown === null ? '' : `, ${grown} of them in growth`}; ${wanted} are wanted${grown === null ? '' : `, ${grownWanted} in growth`}.`
	);
}

function growth(since: readonly Observation[], input: VerdictInput, values: Values): Criterion {
	const label = 'Roots that drink, or shoots against a healthy reference';
	const phi = input.rootFunction;
	const enough = values['verdict.rootFunction'];
	const weighedOn = input.weighedOn ?? input.today;
	const fresh = phi !== null && !stale(weighedOn, input, values['verdict.weighedDays']);
	// Weighings that hardly narrowed what was reckoned before them are no evidence.
	const telling = phi !== null && (phi.low >= enough || phi.high - phi.low <= values['water.wideBand']);
	const weighedLately = fresh && telling;
	if (phi && weighedLately && phi.phi >= enough)
		return criterion(
			'function',
			label,
			'met',
			`Root function ${percent(phi.phi)} by weighings, last on ${weighedOn} (${percent(phi.low)} to ${percent(phi.high)}); ${percent(enough)} is wanted.`
		);
	const weighed = !phi
		? ''
		: weighedLately
			? ` Root function was ${percent(phi.phi)} by weighings, last on ${weighedOn}; ${percent(enough)} is wanted.`
			: fresh
				? ` Its weighings tell little: root function was between ${percent(phi.low)} and ${percent(phi.high)}.`
				: ` Weighings last told what its roots drink ${tooOld(weighedOn, input)}.`;
	const all = readingsOf(since, 'shootExtensionMm');
	const shoots = all.filter((reading) => !stale(reading.on, input, values['verdict.shootDays']));
	const newest = all.at(-1);
	if (newest && shoots.length === 0 && !weighedLately)
		return criterion(
			'function',
			label,
			'unknown',
			`Shoots were last measured ${tooOld(newest.on, input)}.${weighed}`
		);
	const best = shoots.reduce((most, reading) => Math.max(most, reading.value), 0);
	const wanted = values['verdict.shootShareOfReference'];
	if (shoots.length === 0)
		return criterion(
			'function',
			label,
			weighedLately ? 'not-met' : 'unknown',
			`No shoots were measured since ${begun(input)}.${weighed}`
		);
	if (input.referenceShootMm === null || input.referenceShootMm <= 0)
		return criterion(
			'function',
			label,
			weighedLately ? 'not-met' : 'unknown',
			`${input.referenceUnmeasured ? `Nobody measured the shoots of ${input.referenceUnmeasured}, its healthy reference.` : 'No shoots of a healthy one are known to set them against.'}${weighed}`
		);
	const ratio = best / input.referenceShootMm;
	return criterion(
		'function',
		label,
		ratio >= wanted ? 'met' : 'not-met',
		`${measured(best, 'mm')} against ${measured(input.referenceShootMm, 'mm')} of the reference: ${percent(ratio)}, wanted ${percent(wanted)}.${weighed}`
	);
}

function spread(since: readonly Observation[], input: VerdictInput, values: Values): Criterion {
	if (input.situation === 'in-ground') {
		const { stoodLoss = null } = input;
		// A tree that was dug left nearly all its roots behind; one that stood has the less to make good.
		const part = stoodLoss === null ? 1 : Math.min(1, stoodLoss / values['verdict.dugLoss']);
		const months = part * (input.trunkDiameterMm / 25.4) * values['verdict.groundMonthsPerInch'];
		const served = daysBetween(input.sinceOn, input.today) / MONTH_DAYS;
		if (months <= 0)
			return criterion(
				'roots-at-edge',
				'Time in the ground served',
				'met',
				'It stands where it grew, and lost no root here.'
			);
		return criterion(
			'roots-at-edge',
			'Time in the ground served',
			served >= months ? 'met' : 'not-met',
			`${Math.floor(served)} of about ${Math.ceil(months)} months, by its trunk${stoodLoss === null ? '' : ` and the ${percent(stoodLoss)} of living root it lost`}.`
		);
	}
	const label = 'Roots at the edge of the ball';
	const seen = since.filter((look) => look.rootsAtEdge !== null);
	const last = seen[seen.length - 1];
	if (!last)
		return criterion(
			'roots-at-edge',
			label,
			'unknown',
			`Nobody looked at the edge of the ball since ${begun(input)}.`
		);
	if (stale(last.observedOn, input, values['verdict.edgeDays']))
		return criterion(
			'roots-at-edge',
			label,
			'unknown',
			`The edge of the ball was last looked at ${tooOld(last.observedOn, input)}.`
		);
	return last.rootsAtEdge
		? criterion('roots-at-edge', label, 'met', 'Seen at the last look under the pot or at the wall.')
		: criterion('roots-at-edge', label, 'not-met', 'Not there yet at the last look.');
}

function firm(since: readonly Observation[], input: VerdictInput, values: Values): Judged {
	const felt = since.filter((look) => look.firmness !== null);
	const last = felt[felt.length - 1];
	if (!last)
		return criterion('firm', 'Tree firm', 'unknown', `Firmness was not tried since ${begun(input)}.`);
	const anew = untried(last, input);
	if (anew) return criterion('firm', 'Tree firm', 'unknown', anew);
	// What is tied stands firm whether it has rooted or not.
	const { tied, today } = input;
	if (
		last.firmness === 'firm' &&
		tied &&
		last.observedOn >= tied.on &&
		last.observedOn < (tied.offOn ?? '9999')
	)
		return {
			...criterion(
				'firm',
				'Tree firm',
				'unknown',
				tied.offOn === null
					? `It stood firm on ${last.observedOn}, with what has held it since ${tied.on}; whether it does by itself is not known.`
					: `It stood firm on ${last.observedOn}, while it was held; that came off on ${tied.offOn}, and nobody has tried it since.`
			),
			...(tied.offOn === null && {
				owes:
					today < tied.untilOn
						? `What holds it may come off from ${tied.untilOn} on: then try whether it stands by itself`
						: 'Loosen what holds it, and push it gently: does it stand by itself?'
			})
		};
	// That it moved stays true until somebody finds it firm.
	if (last.firmness === 'firm' && stale(last.observedOn, input, values['verdict.firmDays']))
		return criterion(
			'firm',
			'Tree firm',
			'unknown',
			`It was last tried ${tooOld(last.observedOn, input)}; it stood firm then.`
		);
	return last.firmness === 'firm'
		? criterion('firm', 'Tree firm', 'met', `It stood firm on ${last.observedOn}.`)
		: criterion(
				'firm',
				'Tree firm',
				'not-met',
				`On ${last.observedOn} it ${firmnessSaid[last.firmness ?? 'moves'].then}.`
			);
}
