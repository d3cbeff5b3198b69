import { addDays, daysBetween } from '../maths/calendar';
import type { StageGate } from '../roots/plan/stage-gate';
import { roman } from '../roots/plan/plan';
import type { Values } from '../values/values';
import type { SeenLook } from '../examine/looks/observation';
import { readingsOf, type Observation } from '../examine/looks/observation';
import type { OpenFlag } from '../aftercare/tasks/flags';
import type { DecisionKind } from './said';

export interface DecisionFacts {
	today: string;
	/** Day of the last root work, or of taking in. */
	sinceOn: string;
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
	/** Work that is overdue, urgent or not. */
	overdue?: number;
	/** What says that it is dead, when the forecast does. */
	deadBy?: readonly string[] | null;
}

export interface DueDecision {
	kind: DecisionKind;
	/** What to do now, in one sentence. */
	what: string;
	/** What it rests on. */
	evidence: string[];
	/** Checks to make first, or the rule at which to stop. */
	first: string[];
	/** Where it is done. */
	stage: 'examine' | 'roots' | 'replant' | 'aftercare' | 'recovery' | null;
	/** Higher presses more. */
	urgency: number;
}

const mm = (value: number): string => `${Math.round(value)} mm`;
const percent = (share: number): string => `${Math.round(share * 100)} %`;

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
	return apart <= Math.max(10, values['decision.steadyShare'] * before.value)
		? { limitMm: Math.min(last.value, before.value), onTwo: [before.on, last.on] }
		: null;
}

/**
 * What is to be decided now, the most pressing first, each with its evidence. There is always one: if nothing presses, it is to
 * carry on, or to let it grow untouched.
 * @see handbook 9: decisions of monitoring [common practice, no source; the limits are ours]
 */
export function decisionsDue(facts: DecisionFacts, values: Values): DueDecision[] {
	const { observations, today, sinceOn } = facts;
	const since = observations.filter((look) => look.observedOn >= sinceOn && look.observedOn <= today);
	const last = since.at(-1);
	const due: DueDecision[] = [];
	const ago = last ? daysBetween(last.observedOn, today) : 0;
	const lookedAgo = ago === 0 ? 'today' : ago === 1 ? 'yesterday' : `${ago} days ago`;

	for (const flag of facts.flags ?? [])
		due.push({
			kind: 'look-closer',
			what: `${flag.title}.`,
			evidence: [flag.reason],
			first: [`By ${flag.byOn}; nothing is decided before they said what they found.`],
			stage: 'aftercare',
			urgency: 99
		});

	// What moves tears its new roots: it is held before anything else is asked.
	const tried = since.findLast((look) => look.firmness !== null);
	if (facts.potted && tried?.firmness && tried.firmness !== 'firm')
		due.push({
			kind: 'retie',
			what: `It ${tried.firmness === 'loose' ? 'is loose' : 'moves at the base'}: hold it firm before all else.`,
			evidence: [`Seen on ${tried.observedOn}; new roots tear each time it moves.`],
			first: [
				'Wires over which roots, through which holes: Replant lays them over what holds.',
				'Without roots to tie over: stones on the ball, or a bar across it.'
			],
			stage: 'replant',
			urgency: 98.5
		});

	// Buds.
	const begun = [facts.seasonBeganOn ?? sinceOn, sinceOn].sort()[1] ?? sinceOn;
	// Last year’s buds say nothing of this year’s; they may move some weeks before the season is counted from.
	const budsSeen = since.some(
		(look) => (look.buds === 'swelling' || look.buds === 'open') && look.observedOn >= addDays(begun, -42)
	);
	const late = addDays(begun, 7 * values['decision.budsLateWeeks']);
	const budsLooked = since.filter((look) => look.buds !== null).at(-1);
	if (
		!facts.evergreen &&
		facts.inSeason &&
		!budsSeen &&
		budsLooked?.buds === 'none' &&
		budsLooked.observedOn >= late
	)
		due.push({
			kind: 'look-closer',
			what: 'No buds by the late end of their time: scratch it by height.',
			evidence: [
				`Buds were looked for on ${budsLooked.observedOn} and none moved; the latest usual day was ${late}.`
			],
			first: [
				'Scratch from the top down: green or moist white is alive, brown and dry is dead.',
				'Look at the roots only if twigs are dead downward, or the pot stays wet.'
			],
			stage: 'examine',
			urgency: 70
		});

	// Wilting, by the water of its pot.
	if (
		last &&
		(last.leafState === 'wilted' || last.leafState === 'dropped') &&
		daysBetween(last.observedOn, today) <= 21
	) {
		const { dryness } = facts;
		// Where nobody weighed or felt it since, the examination itself may have said how wet it stood.
		const wiltedIn = dryness === null ? last.wiltedIn : undefined;
		const pot = dryness === null ? `the soil was ${wiltedIn ?? ''}` : `the pot is ${percent(dryness)} dry`;
		if (wiltedIn === 'wet' || (dryness !== null && dryness <= values['decision.wetUnder']))
			due.push({
				kind: 'rot-path',
				what: `It wilts though its ${facts.potted ? 'pot' : 'soil'} is wet: its roots do not drink.`,
				evidence: [
					`Leaves ${last.leafState} on ${last.observedOn}; ${pot}.`,
					...(last.smell && last.smell !== 'none' ? [`It smells ${last.smell}.`] : [])
				],
				first: [
					'Smell the drain holes; weigh it against a neighbour.',
					'No water now, whatever the leaves say.'
				],
				stage: 'examine',
				urgency: 95
			});
		else if (wiltedIn === 'dry' || (dryness !== null && dryness >= values['decision.dryOver']))
			due.push({
				kind: 'water-path',
				what: 'It wilts dry: water it through, then look whether it stands up again.',
				evidence: [`Leaves ${last.leafState} on ${last.observedOn}; ${pot}.`],
				first: ['Does water bead or run straight through? Then soak it from below, twice.'],
				stage: 'aftercare',
				urgency: 98
			});
		else
			due.push({
				kind: 'look-closer',
				what: 'It wilts: is its pot wet or dry? The two ways part there.',
				evidence: [
					`Leaves ${last.leafState} on ${last.observedOn}; ${dryness === null ? 'how wet it stands is not known' : `the pot is ${percent(dryness)} dry`}.`
				],
				first: ['Feel a finger deep, or weigh it.'],
				stage: 'aftercare',
				urgency: 90
			});
	}

	// Dieback.
	const steady = steadyLimit(since, values);
	const limit = readingsOf(since, 'diebackLimitMm').at(-1);
	if (steady && facts.heightMm !== null && steady.limitMm < facts.heightMm * 0.95 && steady.limitMm > 0)
		due.push({
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
			urgency: 55
		});

	// Dead?
	const cover = readingsOf(since, 'leafCover').at(-1);
	const nothing =
		last !== undefined &&
		limit !== undefined &&
		limit.value <= Math.max(30, 0.03 * (facts.heightMm ?? 0)) &&
		!budsSeen &&
		(cover === undefined || cover.value === 0);
	if (
		nothing ||
		(facts.probability !== null && facts.probability < values['decision.deadUnder'] && since.length >= 2)
	)
		due.push({
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
			urgency: 60
		});

	// Probability.
	const drop =
		facts.probability !== null && facts.probabilityBefore !== null
			? facts.probabilityBefore - facts.probability
			: 0;
	if (
		facts.probability !== null &&
		// On the day of the work nothing was seen yet: the chance is that of the work, not of how it does.
		since.length > 0 &&
		due.every((one) => one.kind !== 'look-closer' && one.kind !== 'call-dead') &&
		(facts.probability < values['decision.closerUnder'] || drop >= values['decision.closerDrop'])
	)
		due.push({
			kind: 'look-closer',
			what: 'It does less well than it should: find out why before anything is done.',
			evidence: [
				`Thought to come back with ${percent(facts.probability)}${drop >= values['decision.closerDrop'] ? `, down from ${percent(facts.probabilityBefore ?? 0)}` : ''}.`
			],
			first: ['Is anything else new: pot moved, watered differently, sprayed, frost?'],
			stage: 'examine',
			urgency: 50
		});

	// Unseen.
	const unseen = daysBetween(last?.observedOn ?? sinceOn, today);
	if (due.length === 0 && unseen > values['look.overdueDays'])
		due.push({
			kind: 'look-closer',
			what: `Nobody has looked for ${unseen} days: look before anything is decided.`,
			evidence: [
				last ? `The last look was on ${last.observedOn}.` : `Nothing was seen of it since ${sinceOn}.`
			],
			first: ['What it did in that time is not known; the chance is only what was thought then.'],
			stage: 'recovery',
			urgency: 45
		});

	// Growth.
	const shoots = readingsOf(since, 'shootExtensionMm').at(-1);
	const share =
		shoots && facts.referenceShootMm !== null && facts.referenceShootMm > 0
			? shoots.value / facts.referenceShootMm
			: null;
	const wilts = last?.leafState === 'wilted' || last?.leafState === 'dropped';
	const fresh = (on: string | undefined): boolean =>
		on !== undefined && daysBetween(on, today) <= values['decision.growsDays'];
	const grows =
		!wilts &&
		fresh(share !== null ? shoots?.on : cover?.on) &&
		((share !== null && share >= values['decision.growsShare']) ||
			(share === null && (cover?.value ?? 0) >= values['decision.growsShare']));
	const grownBy =
		share !== null
			? `Shoots ${percent(share)} of its reference’s on ${shoots?.on ?? ''}.`
			: `Leaf cover ${percent(cover?.value ?? 0)} on ${cover?.on ?? ''}.`;
	if (facts.gate?.answer === 'met')
		due.push({
			kind: 'next-stage',
			what: `Root stage ${roman(facts.gate.stage)} may be opened in its window.`,
			evidence: facts.gate.because,
			first: ['Look at the weather of the days after, and at the carry-over list.'],
			stage: 'roots',
			urgency: 30
		});
	if (due.length === 0 && facts.reEstablished)
		due.push({
			kind: 'carry-on',
			what: 'Every criterion is met: close the case when you are ready.',
			evidence: ['The verdict stands beside.'],
			first: [],
			stage: 'recovery',
			urgency: 20
		});
	else if (due.length === 0 && grows && daysBetween(sinceOn, today) > 120)
		due.push({
			kind: 'let-grow',
			what: 'It grows: leave it a full season, unpruned, without flowers or fruit.',
			evidence: [grownBy],
			first: [],
			stage: null,
			urgency: 10
		});
	else if (due.length === 0 && (facts.overdue ?? 0) > 0)
		due.push({
			kind: 'look-closer',
			what: `${facts.overdue === 1 ? 'One piece of work is' : `${facts.overdue} pieces of work are`} past their window: do or skip them first.`,
			evidence: last ? [`The last look was ${lookedAgo}.`] : [],
			first: [],
			stage: 'aftercare',
			urgency: 15
		});
	else if (due.length === 0)
		due.push({
			kind: 'carry-on',
			what: last
				? 'Nothing asks for a change: carry on as planned.'
				: 'Nothing was seen yet: take the first look.',
			evidence: last ? [`The last look was ${lookedAgo}.`] : [],
			first: [],
			stage: last ? null : 'recovery',
			urgency: 5
		});
	return due.sort((a, b) => b.urgency - a.urgency);
}
