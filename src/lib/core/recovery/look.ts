import type { Kind } from '../vocabulary/kind';
import type { Tree } from '../take-in/tree';
import { daysBetween } from '../maths/calendar';
import type { Values } from '../values/values';
import { readingsOf, woodFell, type Observation } from '../examine/looks/observation';

/** What a look can ask for. */
export const lookParts = [
	'buds',
	'leafState',
	'leafCover',
	'shoots',
	'healthyShoot',
	'dieback',
	'firmness',
	'weight',
	'smell',
	'whiteTips',
	'rootsAtEdge',
	'woundwood',
	'pests',
	'suckers',
	'lot'
] as const;
export type LookPart = (typeof lookParts)[number];

export interface LookQuestion {
	part: LookPart;
	/** Why now, in a few words. */
	why: string;
}

export interface LookFacts {
	today: string;
	/** Day of the last root work, or of taking in. */
	sinceOn: string;
	/** It was worked on that day. */
	worked: boolean;
	/** First day of the season that runs or ran last; null where it never grows. */
	seasonBeganOn: string | null;
	kind: Pick<Kind, 'group'>;
	tree: Pick<Tree, 'situation' | 'plantCount'>;
	/** Share of the season that is over; 0 outside it. */
	progress: number;
	/** The season runs, or begins within six weeks. */
	nearSeason: boolean;
	evergreen: boolean;
	observations: readonly Observation[];
	/** Any root cut is on record: there is a wound whose edge can close. */
	wounded: boolean;
	rotWasCut: boolean;
	structuralCut: boolean;
	/** Work that waits for what is seen. */
	waits: readonly string[];
	suckersSeen: boolean;
	pestsSeen: boolean;
	/** No healthy tree is named for it, and none near by was measured; left out: there is one. */
	referenceWanting?: boolean;
}

/** Of two questions that press alike the one that tells more goes first. */
const askingOrder: readonly LookPart[] = [
	'lot',
	'buds',
	'leafState',
	'leafCover',
	'shoots',
	'healthyShoot',
	'dieback',
	'weight',
	'smell',
	'firmness',
	'rootsAtEdge',
	'whiteTips',
	'pests',
	'suckers',
	'woundwood'
];
type Asked = LookQuestion & { rank: number };

/** What the looks since the work say of what is asked again. */
function seenUpToNow({ observations, today, sinceOn, seasonBeganOn }: LookFacts) {
	const since = observations.filter((look) => look.observedOn >= sinceOn);
	return {
		since,
		/** Days since the last look that has something; none counts as never. */
		daysSince: (has: (look: Observation) => boolean): number => {
			const found = since.findLast(has);
			return found ? daysBetween(found.observedOn, today) : Infinity;
		},
		// Last year’s buds say nothing of this year’s.
		budsOpen: since.some((look) => look.buds === 'open' && look.observedOn >= (seasonBeganOn ?? sinceOn))
	};
}
type Seen = ReturnType<typeof seenUpToNow>;

/** Buds, leaves and shoots, each in its time. */
function growthQuestions(facts: LookFacts, { since, daysSince, budsOpen }: Seen, values: Values): Asked[] {
	const { progress, evergreen } = facts;
	const waits = new Set(facts.waits);
	const asked: Asked[] = [];
	const budsTime = !evergreen && progress < values['look.budsUntil'] && !budsOpen && facts.nearSeason;
	if (budsTime || waits.has('buds-move'))
		asked.push({ part: 'buds', why: waits.has('buds-move') ? 'work waits for them' : 'their time', rank: 1 });
	if (evergreen || progress > values['look.leavesFrom'])
		asked.push(
			{ part: 'leafState', why: 'the first to tell of water and roots', rank: 1 },
			{ part: 'leafCover', why: 'read against what was expected', rank: waits.has('leaves-out') ? 1 : 2 }
		);
	if (
		progress > values['look.shootsFrom'] &&
		daysSince((look) => look.shootExtensionMm !== null) >= values['look.again.shoots']
	)
		asked.push({
			part: 'shoots',
			why: waits.has('flush-hardened') ? 'feeding waits for the flush to harden' : 'growth of this season',
			rank: 2
		});
	const measured = since.some((look) => look.shootExtensionMm !== null);
	if (facts.referenceWanting && measured && progress > values['look.shootsFrom'])
		asked.push({ part: 'healthyShoot', why: 'its own are read against them', rank: 3 });
	return asked;
}

/** How far down it died, and whether its wounds close. */
function woodQuestions(facts: LookFacts, { since, daysSince }: Seen, values: Values): Asked[] {
	const days = daysBetween(facts.sinceOn, facts.today);
	const limits = readingsOf(since, 'diebackLimitMm');
	const [before, now] = limits.slice(-2);
	const asked: Asked[] = [];
	if (limits.length === 0) {
		if (days > values['look.routineDays'])
			asked.push({
				part: 'dieback',
				why: facts.worked ? 'never measured since the work' : 'never measured yet',
				rank: 2
			});
	} else if (before && now && woodFell(before.value, now.value, values))
		asked.push({ part: 'dieback', why: 'it fell at the last look', rank: 1 });
	else if (daysSince((look) => look.diebackLimitMm !== null) >= values['look.again.dieback'])
		asked.push({
			part: 'dieback',
			why: limits.length === 1 ? 'one look is no limit' : 'two looks make a limit',
			rank: 3
		});
	const woundwoodDays = values['look.again.woundwood'];
	if (
		facts.wounded &&
		days > woundwoodDays &&
		daysSince((look) => look.woundwoodMm !== null) >= woundwoodDays
	)
		asked.push({ part: 'woundwood', why: 'once a season', rank: 5 });
	return asked;
}

/** What pot and roots tell from outside. */
function rootQuestions(facts: LookFacts, { since, daysSince }: Seen, values: Values): Asked[] {
	const inPot = facts.tree.situation !== 'in-ground';
	const asked: Asked[] = [];
	if (inPot && daysSince((look) => look.weightKg !== null) >= values['look.again.weight'])
		asked.push({ part: 'weight', why: 'tells what the roots drink', rank: 3 });
	if (facts.rotWasCut && daysSince((look) => look.smell !== null) >= values['look.again.smell'])
		asked.push({ part: 'smell', why: 'rot was cut', rank: 1 });
	const tried = since.findLast((look) => look.firmness !== null)?.firmness ?? null;
	// What tears roots is tried again until somebody finds it firm.
	if (tried !== null && tried !== 'firm')
		asked.push({ part: 'firmness', why: 'it moved when it was last tried', rank: 1 });
	else if (daysSince((look) => look.firmness !== null) >= values['look.again.firmness'])
		asked.push(
			facts.structuralCut
				? { part: 'firmness', why: 'a structural root was cut', rank: 1 }
				: { part: 'firmness', why: 'a loose tree tears its roots', rank: 3 }
		);
	if (
		inPot &&
		daysBetween(facts.sinceOn, facts.today) > values['look.edgeAfterDays'] &&
		!since.some((look) => look.rootsAtEdge === true)
	)
		asked.push({ part: 'rootsAtEdge', why: 'a criterion of the verdict', rank: 3 });
	if (
		inPot &&
		facts.progress > values['look.tipsFrom'] &&
		daysSince((look) => look.whiteTips !== null) >= values['look.again.whiteTips']
	)
		asked.push({ part: 'whiteTips', why: 'at the holes, without unpotting', rank: 4 });
	return asked;
}

/**
 * What matters on this tree now, in the order of a walk round it: at most some seven things, so that a look takes under two
 * minutes. Everything else can be added, nothing is asked without a reason.
 */
export function lookQuestions(facts: LookFacts, values: Values): LookQuestion[] {
	const seen = seenUpToNow(facts);
	const asked: Asked[] = [
		...growthQuestions(facts, seen, values),
		...woodQuestions(facts, seen, values),
		...rootQuestions(facts, seen, values)
	];
	if (facts.tree.plantCount > 1)
		asked.push({ part: 'lot', why: 'a lot: look at some, count the dead', rank: 1 });
	if (facts.pestsSeen) asked.push({ part: 'pests', why: 'seen at the last look', rank: 2 });
	if (facts.suckersSeen) asked.push({ part: 'suckers', why: 'seen before', rank: 4 });
	const order = (one: Asked): number => askingOrder.indexOf(one.part);
	const kept = asked.sort((a, b) => a.rank - b.rank || order(a) - order(b)).slice(0, values['look.most']);
	return lookParts.flatMap((part) => {
		const found = kept.find((question) => question.part === part);
		return found ? [{ part, why: found.why }] : [];
	});
}
