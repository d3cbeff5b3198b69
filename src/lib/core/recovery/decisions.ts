import { z } from 'zod';
import { firmnessAsks, firmnessSaid, smellAsks, smellSaid, untriedSince } from '../examine/looks/seen-words';
import { measured } from '../text/measured';
import { checkAsked, holdsBy, setsAnew, type CausesOpen } from '../examine/diagnosis/open-causes';
import { percent } from '../text/percent';
import { addDays, daysBetween } from '../maths/calendar';
import type { StageGate } from '../roots/plan/stage-gate';
import { roman } from '../roots/plan/plan';
import type { Values } from '../values/values';
import type { SeenLook } from '../examine/looks/observation';
import { readingsOf, type Observation } from '../examine/looks/observation';
import type { OpenFlag } from '../aftercare/tasks/flags';
import type { RecoveryForecast } from './forecast';
import { decisionKinds } from './said';

export interface DecisionFacts {
	today: string;
	/** Day of the last root work, or of taking in. */
	sinceOn: string;
	/** It was worked on that day, as is taken where nobody says: what it smelt of then led to the work. */
	worked?: boolean;
	/** First day of the growing season that runs or ran last; null where it never grows. */
	seasonBeganOn: string | null;
	/** It grows now. */
	inSeason: boolean;
	evergreen: boolean;
	tender: boolean;
	heightMm: number | null;
	/** Oldest first. */
	observations: readonly SeenLook[];
	probability: number | null;
	/** Probability that it comes through, however long its roots take; left out: the same. */
	comesThrough?: number;
	/** As it was said after the look before the last. */
	probabilityBefore: number | null;
	/** Dryness of its pot now; null in the ground, or where nobody poured, weighed or felt it lately. */
	dryness: number | null;
	gate: StageGate | null;
	stagesLeft: number;
	referenceShootMm: number | null;
	/** It stands in a pot, where ties and stones hold it. */
	potted: boolean;
	/** Verdict by every criterion. */
	reEstablished: boolean;
	/** What a qualified person has still to see; then nothing is simply carried on with. */
	flags?: readonly Pick<OpenFlag, 'title' | 'reason' | 'byOn'>[];
	/** What its last look says of its causes; left out where nothing presses. */
	causes?: CausesOpen;
	/** Work that is overdue, urgent or not. */
	overdue?: number;
	/** What says that it is dead, when the forecast does. */
	deadBy?: readonly string[] | null;
	/** Its roots are in the air, or wrapped, since; left out where it stands or is heeled in. */
	outOn?: string | null;
	/** Wires or stones hold it since, and nobody has tried it from then on; left out where it is not held against what was seen. */
	heldOn?: string | null;
	/** It was set anew since, on its own stance, and nobody has tried it from then on; left out where it was not. */
	setOn?: string | null;
}

export const dueDecisionOutput = z.object({
	kind: z.enum(decisionKinds),
	what: z.string().describe('What to do now, in one sentence'),
	evidence: z.array(z.string()).describe('What it rests on'),
	first: z.array(z.string()).describe('Checks to make first, or the rule at which to stop'),
	stage: z
		.enum(['examine', 'roots', 'replant', 'aftercare', 'recovery'])
		.nullable()
		.describe('Where it is done'),
	presses: z.boolean().describe('It cannot wait: shown before everything else')
});
export type DueDecision = z.infer<typeof dueDecisionOutput>;

const mm = (value: number): string => measured(value, 'mm');

/** What the decisions take of a forecast. */
export const byForecast = ({
	now,
	through,
	dead
}: Pick<RecoveryForecast, 'now' | 'through' | 'dead'>): Pick<
	DecisionFacts,
	'probability' | 'comesThrough' | 'deadBy'
> => ({ probability: now, comesThrough: through, deadBy: dead });

/** Height to which wood is alive, when two looks far enough apart agree on it; null while it is not steady. */
export function steadyLimit(
	observations: readonly Observation[],
	values: Values
): { limitMm: number; onTwo: [string, string] } | null {
	const limits = readingsOf(observations, 'diebackLimitMm');
	const last = limits.at(-1);
	if (!last) return null;
	const before = limits.findLast((one) => daysBetween(one.on, last.on) >= values['decision.apartDays']);
	if (!before) return null;
	const apart = Math.abs(last.value - before.value);
	return apart <= Math.max(values['decision.steadyLeastMm'], values['decision.steadyShare'] * before.value)
		? { limitMm: Math.min(last.value, before.value), onTwo: [before.on, last.on] }
		: null;
}

/** What the looks since the work say, worked out once for all rules. */
interface Seen {
	facts: DecisionFacts;
	/** Looks since the work, oldest first. */
	since: readonly SeenLook[];
	last: SeenLook | undefined;
	/** First day on which buds of this season could be seen. */
	begun: string;
	budsSeen: boolean;
	wilts: boolean;
	/** Days since the last look, in words. */
	lookedAgo: string;
}

function seenOf(facts: DecisionFacts, values: Values): Seen {
	const { observations, today, sinceOn } = facts;
	const since = observations.filter((look) => look.observedOn >= sinceOn && look.observedOn <= today);
	const last = since.at(-1);
	const ago = last ? daysBetween(last.observedOn, today) : 0;
	const begun = [facts.seasonBeganOn ?? sinceOn, sinceOn].sort()[1] ?? sinceOn;
	// Last year’s buds say nothing of this year’s; they may move some weeks before the season is counted from.
	const budsFrom = addDays(begun, -values['decision.budsEarlyDays']);
	return {
		facts,
		since,
		last,
		begun,
		budsSeen: since.some(
			(look) => (look.buds === 'swelling' || look.buds === 'open') && look.observedOn >= budsFrom
		),
		wilts: last?.leafState === 'wilted' || last?.leafState === 'dropped',
		lookedAgo: ago === 0 ? 'today' : ago === 1 ? 'yesterday' : `${ago} days ago`
	};
}

/** One rule of what is due. @param due what rules before it found, for those that speak only where nothing else does */
type Rule = (seen: Seen, values: Values, due: readonly DueDecision[]) => DueDecision | null;

/** Out of the ground it has nothing to be looked at for yet: it is set first. */
const setFirst: Rule = ({ facts: { outOn } }) =>
	outOn
		? {
				kind: 'look-closer',
				what: 'Set it or heel it in first; what follows is counted from then.',
				evidence: [`Out of the ground since ${outOn}.`],
				first: [],
				stage: 'replant',
				presses: true
			}
		: null;

/** What moves tears its new roots: it is held before anything else is asked. */
const heldFirm: Rule = ({ facts, since }) => {
	const tried = since.findLast((look) => look.firmness !== null);
	if (!facts.potted || !tried?.firmness || tried.firmness === 'firm') return null;
	const hold = [
		'Wires over which roots, through which holes: Replant lays them over what holds.',
		'Without roots to tie over: stones on the ball, or a bar across it.'
	];
	const untried = untriedSince(facts);
	if (untried)
		return {
			kind: 'try-firm',
			what: `${firmnessAsks({ ...facts, value: tried.firmness })}.`,
			evidence: [
				`On ${tried.observedOn} it ${firmnessSaid[tried.firmness].then}; nobody has tried it since ${untried}.`
			],
			first: [
				'Push gently at breast height or at the first branch, and watch the soil: a look says how it stands.',
				...(facts.heldOn ? [] : hold)
			],
			stage: 'recovery',
			presses: true
		};
	return {
		kind: 'retie',
		what: `${firmnessAsks({ value: tried.firmness })} ${setsAnew(facts.causes?.urgent, facts.potted) ? 'when it is set anew' : 'before all else'}.`,
		evidence: [`Seen on ${tried.observedOn}; new roots tear each time it moves.`],
		first: hold,
		stage: 'replant',
		presses: true
	};
};

/** What the last look says to act on is not carried on with. */
const actNow: Rule = ({ facts: { causes } }) => {
	const urgent = causes?.urgent;
	return urgent
		? {
				kind: 'act-now',
				what: `${holdsBy(urgent)}.`,
				evidence: [`Looked at on ${urgent.on}; nothing was done about it since.`],
				first: [urgent.meaning],
				stage: urgent.stage,
				presses: true
			}
		: null;
};

/** A likely cause that a check decides, where nothing else is due. */
const checkFirst: Rule = ({ facts: { causes } }, _values, due) => {
	const asked = causes?.check;
	return !asked || due.length > 0
		? null
		: {
				kind: 'look-closer',
				what: `${holdsBy(asked)}; ${checkAsked(asked)}.`,
				evidence: [`Looked at on ${asked.on}; nothing was done about it since.`],
				first: asked.check ? [asked.check.how] : [],
				stage: 'examine',
				presses: false
			};
};

/** What is likely, and is worked on in its window, is not forgotten until then. */
const waitForWindow: Rule = ({ facts: { causes } }, _values, due) => {
	const waits = causes?.waits;
	return !waits || due.length > 0
		? null
		: {
				kind: 'wait-window',
				what: `${holdsBy(waits)}: the window for the work opens on ${waits.windowOn}.`,
				evidence: [
					`Looked at on ${waits.on}; nothing was done about it since.`,
					'Until then the work costs more of its chance to live than waiting does.'
				],
				first: [waits.meaning],
				stage: waits.stage,
				presses: false
			};
};

const budsLate: Rule = ({ facts, since, begun, budsSeen }, values) => {
	const late = addDays(begun, 7 * values['decision.budsLateWeeks']);
	const looked = since.filter((look) => look.buds !== null).at(-1);
	if (facts.evergreen || !facts.inSeason || budsSeen || looked?.buds !== 'none' || looked.observedOn < late)
		return null;
	return {
		kind: 'look-closer',
		what: 'No buds by the late end of their time: scratch it by height.',
		evidence: [
			`Buds were looked for on ${looked.observedOn} and none moved; the latest usual day was ${late}.`
		],
		first: [
			'Scratch from the top down: green or moist white is alive, brown and dry is dead.',
			'Look at the roots only if twigs are dead downward, or the pot stays wet.'
		],
		stage: 'examine',
		presses: true
	};
};

/** It wilted lately; which way to go depends on the water of its pot. */
function wilting({ facts, last, wilts }: Seen, values: Values) {
	if (!last || !wilts || daysBetween(last.observedOn, facts.today) > values['decision.wiltDays']) return null;
	const { dryness } = facts;
	// Where nobody weighed or felt it since, the examination itself may have said how wet it stood.
	const wiltedIn = dryness === null ? last.wiltedIn : undefined;
	const pot = dryness === null ? `the soil was ${wiltedIn ?? ''}` : `the pot is ${percent(dryness)} dry`;
	const way =
		wiltedIn === 'wet' || (dryness !== null && dryness <= values['decision.wetUnder'])
			? 'wet'
			: wiltedIn === 'dry' || (dryness !== null && dryness >= values['decision.dryOver'])
				? 'dry'
				: 'unknown';
	return { last, pot, dryness, way };
}

const wiltsDry: Rule = (seen, values) => {
	const found = wilting(seen, values);
	if (found?.way !== 'dry') return null;
	return {
		kind: 'water-path',
		what: 'It wilts dry: water it through, then look whether it stands up again.',
		evidence: [`Leaves ${found.last.leafState} on ${found.last.observedOn}; ${found.pot}.`],
		first: ['Does water bead or run straight through? Then soak it from below, twice.'],
		stage: 'aftercare',
		presses: true
	};
};

const wiltsWet: Rule = (seen, values) => {
	const found = wilting(seen, values);
	if (found?.way !== 'wet') return null;
	const { last, pot } = found;
	return {
		kind: 'rot-path',
		what: `It wilts though its ${seen.facts.potted ? 'pot' : 'soil'} is wet: its roots do not drink.`,
		evidence: [
			`Leaves ${last.leafState} on ${last.observedOn}; ${pot}.`,
			...(last.smell && last.smell !== 'none' ? [`It smells ${smellSaid[last.smell]}.`] : [])
		],
		first: ['Smell the drain holes; weigh it against a neighbour.', 'No water now, whatever the leaves say.'],
		stage: 'examine',
		presses: true
	};
};

const wiltsUnknown: Rule = (seen, values) => {
	const found = wilting(seen, values);
	if (found?.way !== 'unknown') return null;
	const { last, dryness } = found;
	return {
		kind: 'look-closer',
		what: 'It wilts: is its pot wet or dry? The two ways part there.',
		evidence: [
			`Leaves ${last.leafState} on ${last.observedOn}; ${dryness === null ? 'how wet it stands is not known' : `the pot is ${percent(dryness)} dry`}.`
		],
		first: ['Feel a finger deep, or weigh it.'],
		stage: 'aftercare',
		presses: true
	};
};

/** A sour or mouldy root zone since the work: the rot may go on where nobody sees it. */
const smellsSour: Rule = ({ facts, since }, values, due) => {
	const smelt = since.findLast(
		(look) => look.smell !== null && (look.observedOn > facts.sinceOn || facts.worked === false)
	);
	if (!smelt?.smell || smelt.smell === 'none' || due.some((one) => one.kind === 'rot-path')) return null;
	if (daysBetween(smelt.observedOn, facts.today) > values['decision.smellDays']) return null;
	const drained = facts.potted
		? 'Let the water out: holes free, no saucer, stood aslant; poke in air.'
		: 'Let the water out: a drain, a test hole beside it, and air between the roots.';
	return {
		kind: 'look-closer',
		what: `${smellAsks(smelt.smell, facts.potted ? 'pot' : 'soil')}.`,
		evidence: [`Smelt on ${smelt.observedOn}; air is short there, or rot goes on.`],
		first: [
			drained,
			'Smell again within two weeks: if it stays, look at the roots and cut back to sound wood.'
		],
		stage: 'examine',
		presses: true
	};
};

const isDead: Rule = ({ facts, since, last, budsSeen }, values) => {
	const limit = readingsOf(since, 'diebackLimitMm').at(-1);
	const cover = readingsOf(since, 'leafCover').at(-1);
	const nothing =
		last !== undefined &&
		limit !== undefined &&
		limit.value <=
			Math.max(values['decision.deadMm'], values['decision.deadShare'] * (facts.heightMm ?? 0)) &&
		!budsSeen &&
		(cover === undefined || cover.value === 0);
	const unlikely =
		facts.probability !== null &&
		(facts.comesThrough ?? facts.probability) < values['decision.deadUnder'] &&
		since.length >= values['decision.deadLooks'];
	if (!nothing && !unlikely) return null;
	return {
		kind: 'call-dead',
		what: 'Is it dead? Look once more before you say so.',
		evidence: [
			...(facts.probability === null
				? []
				: [`It is thought to come back with ${percent(facts.probability)}.`]),
			...(facts.deadBy && facts.deadBy.length > 0
				? [`What says so: ${facts.deadBy.slice(0, 3).join('; ')}.`]
				: []),
			...(limit ? [`Alive up to ${mm(limit.value)} on ${limit.on}.`] : []),
			...(cover ? [`Leaf cover ${percent(cover.value)} on ${cover.on}.`] : [])
		],
		first: [
			'Scratch at the collar on four sides, under the soil line too.',
			'Look at one root: pale and firm, or dark and soft?',
			`Wait a whole season if anything is green; ${facts.evergreen ? 'evergreens of dry country take 2 to 3 months to bud' : 'late buds come from the base'}.`,
			'Are cuttings alive? Keep them.'
		],
		stage: 'recovery',
		presses: true
	};
};

const cutBack: Rule = (seen, values) => {
	const { facts, since } = seen;
	if (longUnseen(seen, values)) return null;
	const steady = steadyLimit(since, values);
	if (
		!steady ||
		facts.heightMm === null ||
		steady.limitMm <= 0 ||
		steady.limitMm >= facts.heightMm * values['decision.recutShare']
	)
		return null;
	return {
		kind: 're-cut',
		what: `Cut back to living wood at about ${mm(steady.limitMm)}: the limit holds.`,
		evidence: [
			`${mm(steady.limitMm)} of ${mm(facts.heightMm)} alive on ${steady.onTwo[0]} and on ${steady.onTwo[1]}.`
		],
		first: [
			'Chalk it, tap and scratch once more just below.',
			'Stop rule: beside the only living shoot stop before harm; leave a dead stub and cut it later.'
		],
		stage: 'recovery',
		presses: true
	};
};

const lessWell: Rule = ({ facts, since }, values, due) => {
	const { probability, probabilityBefore } = facts;
	// Roots that need long hold its chance down, and nothing is wrong with it.
	const unsure = (facts.comesThrough ?? probability ?? 1) < values['decision.closerUnder'];
	const drop = probability !== null && probabilityBefore !== null ? probabilityBefore - probability : 0;
	const dropped = drop >= values['decision.closerDrop'];
	if (
		probability === null ||
		// On the day of the work nothing was seen yet: the chance is that of the work, not of how it does.
		since.length === 0 ||
		due.some((one) => one.kind === 'look-closer' || one.kind === 'call-dead' || one.kind === 'act-now') ||
		!(unsure || dropped)
	)
		return null;
	return {
		kind: 'look-closer',
		what: dropped
			? 'Its chance has fallen: find out why before anything is done.'
			: 'It is not sure to come back: look for what holds it back before anything is done.',
		evidence: [
			`Thought to come back with ${percent(probability)}${dropped ? `, down from ${percent(probabilityBefore ?? 0)}` : ''}.`
		],
		first: [
			`Is anything else new: ${facts.potted ? 'pot moved' : 'soil moved over its roots'}, watered differently, sprayed, frost?`
		],
		stage: 'examine',
		presses: true
	};
};

/** Days since anybody looked, or since the work. */
const unseenDays = ({ facts, last }: Seen): number =>
	daysBetween(last?.observedOn ?? facts.sinceOn, facts.today);

/** So long that what was seen then decides nothing now. */
const longUnseen = (seen: Seen, values: Values): boolean => unseenDays(seen) >= values['look.overdueDays'];

const unseen: Rule = (seen, values, due) => {
	if (due.length > 0 || !longUnseen(seen, values)) return null;
	const { facts, last } = seen;
	const days = unseenDays(seen);
	return {
		kind: 'look-closer',
		what: last
			? `Nobody has looked for ${days} days: look before anything is decided.`
			: `Nobody has looked since the work, ${days} days ago: look before anything is decided.`,
		evidence: [
			last ? `The last look was on ${last.observedOn}.` : `Nothing was seen of it since ${facts.sinceOn}.`
		],
		first: ['What it did in that time is not known; the chance is only what was thought then.'],
		stage: 'recovery',
		presses: false
	};
};

const nextStage: Rule = (seen, values) => {
	const { gate } = seen.facts;
	return gate?.answer !== 'met' || longUnseen(seen, values)
		? null
		: {
				kind: 'next-stage',
				what: `Root stage ${roman(gate.stage)} may be opened in its window.`,
				evidence: gate.because,
				first: ['Look at the weather of the days after, and at the carry-over list.'],
				stage: 'roots',
				presses: false
			};
};

const closeCase: Rule = ({ facts }, _values, due) =>
	due.length > 0 || !facts.reEstablished
		? null
		: {
				kind: 'carry-on',
				what: 'Every criterion is met: close the case when you are ready.',
				evidence: ['The verdict stands beside.'],
				first: [],
				stage: 'recovery',
				presses: false
			};

const letGrow: Rule = ({ facts, since, wilts }, values, due) => {
	const shoots = readingsOf(since, 'shootExtensionMm').at(-1);
	const cover = readingsOf(since, 'leafCover').at(-1);
	const share =
		shoots && facts.referenceShootMm !== null && facts.referenceShootMm > 0
			? shoots.value / facts.referenceShootMm
			: null;
	const seenOn = share !== null ? shoots?.on : cover?.on;
	const fresh = seenOn !== undefined && daysBetween(seenOn, facts.today) <= values['decision.growsDays'];
	const enough = (share ?? cover?.value ?? 0) >= values['decision.growsShare'];
	if (
		due.length > 0 ||
		wilts ||
		!fresh ||
		!enough ||
		daysBetween(facts.sinceOn, facts.today) <= values['decision.letGrowDays']
	)
		return null;
	return {
		kind: 'let-grow',
		what: 'It grows: leave it a full season, unpruned, without flowers or fruit.',
		evidence: [
			share !== null
				? `Shoots ${percent(share)} of its reference’s on ${seenOn}.`
				: `Leaf cover ${percent(cover?.value ?? 0)} on ${seenOn}.`
		],
		first: [],
		stage: null,
		presses: false
	};
};

const pastItsWindow: Rule = ({ facts: { overdue = 0 }, last, lookedAgo }, _values, due) =>
	due.length > 0 || overdue === 0
		? null
		: {
				kind: 'look-closer',
				what: `${overdue === 1 ? 'One piece of work is past its' : `${overdue} pieces of work are past their`} window: do or skip ${overdue === 1 ? 'it' : 'them'} first.`,
				evidence: last ? [`The last look was ${lookedAgo}.`] : [],
				first: [],
				stage: 'aftercare',
				presses: false
			};

/** Since when nobody looked; on that very day nobody was to. */
const neverLooked = ({ sinceOn, today, worked = true }: DecisionFacts): string =>
	sinceOn !== today
		? `Nobody looked at it since ${sinceOn}.`
		: worked
			? 'It was worked on today.'
			: 'It came today.';

const carryOn: Rule = ({ facts, last, lookedAgo }, _values, due) =>
	due.length > 0
		? null
		: {
				kind: last ? 'carry-on' : 'look-closer',
				what: last
					? 'Nothing asks for a change: carry on as planned.'
					: 'Take the first look: nothing was seen yet.',
				evidence: [last ? `The last look was ${lookedAgo}.` : neverLooked(facts)],
				first: [],
				stage: last ? null : 'recovery',
				presses: false
			};

/** The most pressing first; the later speak only where it still makes sense beside what was found. */
const rules: readonly Rule[] = [
	setFirst,
	heldFirm,
	actNow,
	wiltsDry,
	wiltsWet,
	wiltsUnknown,
	smellsSour,
	budsLate,
	isDead,
	cutBack,
	lessWell,
	unseen,
	nextStage,
	checkFirst,
	waitForWindow,
	closeCase,
	letGrow,
	pastItsWindow,
	carryOn
];

/**
 * What is to be decided now, the most pressing first, each with its evidence. There is always one: if nothing presses, it is to
 * carry on, or to let it grow untouched. What a qualified person has still to see stands before everything.
 * @see handbook 9: decisions of monitoring [common practice, no source; order and limits are ours]
 */
export function decisionsDue(facts: DecisionFacts, values: Values): DueDecision[] {
	const seen = seenOf(facts, values);
	const due: DueDecision[] = (facts.flags ?? []).map((flag) => ({
		kind: 'look-closer',
		what: `${flag.title}.`,
		evidence: [flag.reason],
		first: [`By ${flag.byOn}; nothing is decided before they said what they found.`],
		stage: 'aftercare',
		presses: true
	}));
	for (const rule of rules) {
		const found = rule(seen, values, due);
		if (found) due.push(found);
	}
	return due;
}
