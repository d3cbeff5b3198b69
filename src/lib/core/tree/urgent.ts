import type { TreeRecords } from './case';
import type { Factor } from './changes';
import { addDays, daysBetween } from '../maths/calendar';
import { standingOn, type StandingToday } from '../examine/diagnosis/act-now';
import { advise, type CauseAdvice } from '../examine/diagnosis/advice';
import { conditionOf, subjectOf, type ConditionId } from '../vocabulary/conditions';
import { diagnose } from '../examine/diagnosis/diagnose';
import { ofThePot } from './shared-pot';
import type { Values } from '../values/values';
import { contextFor, shownSince } from './carried';
import { howToLook, signOf, type SignId } from '../vocabulary/signs';
import type { Examination } from '../examine/diagnosis/examination';
import { girdlersStaged } from './mapped-signs';
import { rootLosses } from './losses';

/** A cause that the last look says to act on now, and that nothing was done about since. */
export interface Urgent {
	conditionId: ConditionId;
	/** How a sentence begins that says it holds. */
	subject: string;
	chance: number;
	/** Day of the look. */
	on: string;
	atRoots: boolean;
	/** Where it is done: at the roots, at pot, mix or ground, or by a further look. */
	stage: 'roots' | 'replant' | 'examine';
	/** What its treatment asks of water and pot; what is done meanwhile must not go against it. */
	water: string | null;
	pot: string | null;
	meaning: string;
	/** Last day on which it presses: some weeks after the look, or after its window opened. */
	untilOn: string;
}

/** A likely cause whose work waits for a window that is still to come. */
export interface WaitsForWindow extends Pick<Urgent, 'subject' | 'chance' | 'on' | 'stage' | 'meaning'> {
	/** First day of the window. */
	windowOn: string;
}

/** What the last look at a tree says of its causes, and nothing was done about since. */
export interface OpenCauses {
	urgent: Urgent | null;
	check: CheckFirst | null;
	waits: WaitsForWindow | null;
}
const nothingOpen: OpenCauses = { urgent: null, check: null, waits: null };

/** A likely cause that the last look would have acted on now, but for a check of a minute that decides it. */
export interface CheckFirst {
	/** How a sentence begins that says it holds. */
	subject: string;
	chance: number;
	/** Day of the look. */
	on: string;
	/** What is to be looked for, and how; null where its records show since what the look does not say, so that looking anew decides. */
	check: { signId: SignId; label: string; how: string; minutes: number } | null;
}

/** Work with a saw; what else is at the roots is a matter of pot and mix. */
const atTheRootsThemselves: ReadonlySet<ConditionId> = new Set(['root-rot', 'girdling-roots']);

/** Where a cause is acted on. */
const stageOf = (conditionId: ConditionId): Urgent['stage'] =>
	!conditionOf(conditionId).atRoots ? 'examine' : atTheRootsThemselves.has(conditionId) ? 'roots' : 'replant';

/** Whether what a cause asks to be found out first was: roots mapped since, hardness measured of late. */
const foundOut: Partial<Record<ConditionId, (records: TreeRecords, on: string, values: Values) => boolean>> =
	{
		'girdling-roots': ({ rootMap }) => (rootMap?.segments.length ?? 0) > 0,
		compaction: ({ measurements }, on, values) =>
			measurements.some(
				({ raw, measuredOn }) =>
					(raw.tool === 'penetrometer' || raw.tool === 'soil-cores') &&
					measuredOn <= on &&
					daysBetween(measuredOn, on) <= values['urgent.days']
			)
	};

/** What follows from a cause of this tree, in one sentence: what it asks to be found out, unless it was. */
export function followsFrom(
	records: TreeRecords,
	conditionId: ConditionId,
	on: string,
	values: Values
): string {
	const { meaning, meaningThen } = conditionOf(conditionId);
	return meaningThen !== undefined && foundOut[conditionId]?.(records, on, values) ? meaningThen : meaning;
}

/** What is the treatment of a cause that is acted on neither at the roots nor at pot and mix; a spray or a powder where nothing is said. */
const treatedInItsOwnWay: Partial<Record<ConditionId, readonly Factor[]>> = {
	'sour-root-zone': ['watering'],
	'dry-core': ['watering'],
	drought: ['watering'],
	'uneven-water': ['watering'],
	'weather-injury': ['place', 'light'],
	'low-light': ['place', 'light'],
	'salt-ph-nutrient': ['feeding', 'watering'],
	'stem-rot': ['treatment', 'crown-cut'],
	// Time alone helps.
	'not-used-to-place': []
};

/** What a person writes down as changed that is the treatment of a cause itself, by where it is acted on. */
const treatedBy = (conditionId: ConditionId): readonly Factor[] =>
	({
		roots: ['roots-cut'],
		replant: ['pot', 'mix'],
		examine: ['pot', 'mix', ...(treatedInItsOwnWay[conditionId] ?? ['treatment'])]
	})[stageOf(conditionId)] as readonly Factor[];

type GroundWork = TreeRecords['groundPlans'][number];
/** What of the works in the ground is the treatment of a cause; where nothing is said, only that it was planted anew. */
const treatedInTheGround: Partial<Record<ConditionId, readonly (keyof GroundWork)[]>> = {
	compaction: ['loosening'],
	'buried-collar': ['collar'],
	'sour-root-zone': ['loosening'],
	'salt-ph-nutrient': ['sulphur'],
	'soil-gas': ['loosening']
};
/** Causes that work in the ground alone takes away: to look at them again treats nothing. */
const inTheGroundAlone: ReadonlySet<ConditionId> = new Set(['compaction', 'buried-collar']);

/**
 * First day, on or after that of a look, on which a cause that it found was acted on: rot and girdlers by work at the roots, soil and pot
 * by a planting or by those works in the ground that treat it; what is not at the roots also by a look of a later day, but for what only such works take away, and where it wants water, by a watering. What a
 * person wrote down as changed counts alike where it is the treatment.
 * @returns null where nothing was done about it yet
 */
export function actedOn(
	records: TreeRecords,
	conditionId: ConditionId,
	examinedOn: string,
	values: Values
): string | null {
	const stage = stageOf(conditionId);
	const { water } = conditionOf(conditionId).asks ?? {};
	// A new pot takes away neither rot nor a girdler, a cut leaves sour soil as it is, and water helps only what wants it.
	const ofRoots = (): string[] => [
		// A lift cuts where the ball ends, and frees no root of what ails it.
		...rootLosses(records, values)
			.done.filter(({ by }) => by !== 'lift')
			.map((loss) => loss.on),
		...records.book.filter((one) => one.kind === 'rot-cut-out').map((one) => one.on)
	];
	const ofSoil = (): string[] => [
		...records.plantings.map((one) => one.plantedOn),
		...records.groundPlans.flatMap((plan) =>
			['hole' as const, ...(treatedInTheGround[conditionId] ?? [])].some((work) => plan[work] !== null)
				? [plan.doneOn ?? '']
				: []
		)
	];
	const ofWater = (): string[] => ofThePot(records).waterings.map((one) => one.wateredOn);
	// What was looked at on the day of the look itself is part of it.
	const ofLater = (): string[] =>
		records.observations.map((one) => one.observedOn).filter((day) => day > examinedOn);
	return (
		[
			...(stage === 'roots' ? ofRoots() : ofSoil()),
			...(stage === 'examine' && !inTheGroundAlone.has(conditionId) ? ofLater() : []),
			...records.factorChanges
				.filter((change) => change.factors.some((factor) => treatedBy(conditionId).includes(factor)))
				.map((change) => change.changedOn),
			...(stage === 'examine' && (water === 'more' || water === 'even') ? ofWater() : [])
		]
			.filter((day) => day >= examinedOn)
			.sort()[0] ?? null
	);
}

/** When a cause was acted on; in stages, where what is left of it waits for its own. */
export interface Acted {
	on: string;
	inStages: boolean;
}

/**
 * Whether and when a cause was acted on since a look (see `actedOn`), or is acted on in stages: then it presses no more, whatever a look
 * between two stages still sees of it.
 * @param examinedOn day of the look; null for one that is being taken
 */
export function actedSince(
	records: TreeRecords,
	conditionId: ConditionId,
	examinedOn: string | null,
	values: Values
): Acted | null {
	const on = examinedOn === null ? null : actedOn(records, conditionId, examinedOn, values);
	if (on !== null) return { on, inStages: false };
	const since = conditionId === 'girdling-roots' ? girdlersStaged(records, values) : null;
	return since === null ? null : { on: since, inStages: true };
}

/** What was done about a cause, before its day. */
export const actedWord = (conditionId: ConditionId, { inStages }: Acted): string =>
	inStages ? 'in stages since' : conditionOf(conditionId).atRoots ? 'acted on' : 'seen to';

/**
 * Whether what presses asks for a dry rest after the work: what stands wet does. Roots that are few and are to be left alone are watered
 * sparingly, never left dry.
 */
export const asksForDryRest = (urgent: Pick<Urgent, 'conditionId' | 'water'> | null): boolean =>
	urgent?.water === 'less' && conditionOf(urgent.conditionId).asks?.roots !== 'leave';

/**
 * What presses by the last look at a tree: its likeliest cause that is to be acted on now and was not yet (see `actedSince`), and its likeliest
 * one that a quick check decides first. Too old to press after some weeks; what waited for a window presses from its opening on.
 * @returns nulls where nothing presses
 */
export function pressingOf(records: TreeRecords, on: string, values: Values): OpenCauses {
	if (records.tree.state !== 'in-care') return nothingOpen;
	const { urgent, check, waits } = openCausesOf(records, on, values);
	return {
		urgent: urgent && urgent.untilOn >= on ? urgent : null,
		check: check && daysBetween(check.on, on) <= values['urgent.days'] ? check : null,
		waits
	};
}

/**
 * What its last look says of its causes and nothing was done about since, however long ago: it may press no more, and is not answered.
 * @returns nulls where nothing is open
 */
export function openCausesOf(records: TreeRecords, on: string, values: Values): OpenCauses {
	// Asked by many parts of one page, and reckoned once.
	const known = causesKept.get(records);
	if (known?.on === on && known.values === values) return known.causes;
	const causes = causesOf(records, on, values);
	causesKept.set(records, { on, values, causes });
	return causes;
}
const causesKept = new WeakMap<TreeRecords, { on: string; values: Values; causes: OpenCauses }>();

function causesOf(records: TreeRecords, on: string, values: Values): OpenCauses {
	const { tree, kind } = records;
	const look = records.examinations.findLast((one) => one.examinedOn <= on);
	if (!look || look.findings.length === 0) return nothingOpen;
	const place = records.places.find((one) => one.id === tree.placeId) ?? null;
	const { context } = contextFor(records, look.examinedOn, look.events, look.id, values);
	const diagnosis = diagnose(context, look.findings, values);
	const girdler = look.findings.find((finding) => finding.signId === 'girdler-seen');
	const standing = (day: string): StandingToday =>
		standingOn(
			{ tree, kind, place },
			day,
			{ failingFast: look.failingFast, girdlerGrade: girdler?.grade ?? 0 },
			values
		);
	// Found then, and acted on in the season of now: a window that has opened since is told.
	const { causes } = advise(diagnosis, context, look.findings, standing(on), values);
	const undone = causes.filter(
		(one) => actedSince(records, one.conditionId, look.examinedOn, values) === null
	);
	const now = undone.find((one) => one.verdict === 'now');
	const check = undone.find((one) => one.verdict === 'check' && one.chance >= values['diagnosis.likely']);
	const waits = undone.find((one) => one.verdict === 'window');
	const openedOn = standing(look.examinedOn).windowOn;
	return {
		urgent: now ? urgentFor(now, records, { on, lookedOn: look.examinedOn, openedOn }, values) : null,
		check: check ? checkFor(check, records, look, on, values) : null,
		waits: waits ? waitsFor(waits, records, look.examinedOn, on, values) : null
	};
}

/** Where a cause of this tree is acted on, and what follows from it. */
const actedWhere = (
	records: TreeRecords,
	{ conditionId, chance }: CauseAdvice,
	on: string,
	values: Values
): Pick<Urgent, 'subject' | 'chance' | 'stage' | 'meaning'> => ({
	subject: subjectOf(conditionId),
	chance,
	stage: inTheGroundAlone.has(conditionId) ? 'replant' : stageOf(conditionId),
	meaning: followsFrom(records, conditionId, on, values)
});

function waitsFor(
	cause: CauseAdvice,
	records: TreeRecords,
	lookedOn: string,
	on: string,
	values: Values
): WaitsForWindow | null {
	const windowOn = cause.act.waitUntil;
	return windowOn === null ? null : { ...actedWhere(records, cause, on, values), on: lookedOn, windowOn };
}

function urgentFor(
	cause: CauseAdvice,
	records: TreeRecords,
	{ on, lookedOn, openedOn }: { on: string; lookedOn: string; openedOn: string | null },
	values: Values
): Urgent {
	const { atRoots, asks } = conditionOf(cause.conditionId);
	const from = atRoots && openedOn !== null && openedOn <= on && openedOn > lookedOn ? openedOn : lookedOn;
	return {
		...actedWhere(records, cause, on, values),
		conditionId: cause.conditionId,
		on: lookedOn,
		atRoots,
		water: asks?.water ?? null,
		pot: asks?.pot ?? null,
		untilOn: addDays(from, values['urgent.days'])
	};
}

function checkFor(
	{ conditionId, chance, check: signId }: CauseAdvice,
	records: TreeRecords,
	look: Examination,
	on: string,
	values: Values
): CheckFirst {
	const news = shownSince(records, look, on, values).length > 0;
	return {
		subject: subjectOf(conditionId),
		chance,
		on: look.examinedOn,
		check:
			signId === null || news
				? null
				: {
						signId,
						label: signOf(signId).label,
						how: howToLook(signId, records.tree.situation),
						minutes: values[`diagnosis.minutes.${signId}`]
					}
	};
}

/** What its last look says to act on now; null where nothing does. @see pressingOf */
export const urgentOf = (records: TreeRecords, on: string, values: Values): Urgent | null =>
	pressingOf(records, on, values).urgent;
