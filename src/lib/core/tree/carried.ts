import { eventTold, signSeen } from '../aftercare/book/effects';
import type { TreeRecords } from './case';
import { addDays, daysBetween } from '../maths/calendar';
import type { Place } from '../vocabulary/place';
import { conditionOf, type ConditionId } from '../vocabulary/conditions';
import { contextOf, type DiagnosisContext } from '../examine/diagnosis/context';
import { type RecentEvent } from '../vocabulary/season-and-events';
import type { Finding } from '../examine/diagnosis/finding';
import { signApplies, type SignId } from '../vocabulary/signs';
import { causeChances, oddsOf } from '../examine/diagnosis/diagnose';
import type { Examination } from '../examine/diagnosis/examination';
import { measuredFindings } from '../examine/measuring/measurement';
import type { Values } from '../values/values';
import { rootLosses, type LossRecords } from './losses';
import { signsMapped } from './mapped-signs';

/** What an earlier look leaves of a cause to begin with. */
export interface Carried {
	conditionId: ConditionId;
	/** Factor on its usual odds. */
	times: number;
	/** Chance that the earlier look gave it, and its day. */
	chance: number;
	on: string;
	/** Day of work at the roots since, where it is treated there. */
	treatedOn: string | null;
}

export interface LookContext {
	context: DiagnosisContext;
	carried: Carried[];
	/** Recent events that its records tell and the look did not name. */
	told: RecentEvent[];
}

type ContextRecords = LossRecords & Pick<TreeRecords, 'examinations'>;

const unplaced: ReadonlySet<ConditionId> = new Set<ConditionId>(['dead', 'something-else']);

/**
 * What befell it by its own records in the weeks before a day.
 * @param ledTo the look of that day is kept: work of the same day followed from it, and is not what it was seen after
 */
export function eventsTold(
	records: ContextRecords,
	on: string,
	values: Values,
	ledTo = false
): RecentEvent[] {
	const from = addDays(on, -values['diagnosis.recentDays']);
	const lately = (day: string): boolean => day >= from && day <= on;
	const worked = (day: string): boolean => lately(day) && !(ledTo && day === on);
	return unique([
		...records.book.flatMap(({ kind, on: day }): RecentEvent[] => {
			const event = lately(day) ? eventTold(kind) : null;
			return event === null ? [] : [event];
		}),
		...(records.plantings.some((one) => worked(one.plantedOn)) ? (['repotted'] as const) : []),
		...(rootLosses(records, values).done.some(
			(loss) => worked(loss.on) && loss.share >= values['aftercare.lossCounts']
		)
			? (['dug'] as const)
			: [])
	]);
}

const unique = <T>(list: readonly T[]): T[] => [...new Set(list)];

/** What was measured, mapped or written into the field book of late, for each sign once: measured outranks mapped, and that what was written down. */
export function foundLately(
	records: Pick<TreeRecords, 'measurements' | 'book' | 'tree' | 'rootMap' | 'plan'>,
	on: string,
	values: Values
): Finding[] {
	const { measurements, tree } = records;
	const measured = measuredFindings(measurements, on, tree, values);
	const unlike =
		(known: readonly Finding[]) =>
		(one: { signId: SignId }): boolean =>
			!known.some(({ signId }) => signId === one.signId);
	const shown = [...measured, ...signsMapped(records, on, values).filter(unlike(measured))];
	const booked = signsBooked(records, on, values['diagnosis.measured-days'])
		.filter(({ signId }) => signApplies(signId, tree.situation))
		.filter(unlike(shown));
	const last = new Map(booked.map((one) => [one.signId, one]));
	return [...shown, ...[...last.values()].map(({ signId, id }) => ({ signId, grade: 1, measuredBy: id }))];
}

/**
 * What its records show since a look that this look does not say: measured, mapped or written down on its day or later, and otherwise than
 * it was found there.
 * @param on calendar date
 */
export function shownSince(
	records: Pick<TreeRecords, 'measurements' | 'book' | 'tree' | 'rootMap' | 'plan'>,
	look: Pick<Examination, 'examinedOn' | 'findings'>,
	on: string,
	values: Values
): Finding[] {
	const { measurements, book, rootMap } = records;
	const days = new Map<string | null, string>([
		...measurements.map((one) => [one.id, one.measuredOn] as const),
		...book.map((one) => [one.id, one.on] as const),
		...(rootMap ? [[rootMap.id, rootMap.mappedOn] as const] : [])
	]);
	return foundLately(records, on, values).filter(({ signId, grade, measuredBy }) => {
		const said = look.findings.find((one) => one.signId === signId)?.grade;
		// That something is not there which nobody looked for then is no news.
		const news = said === undefined ? grade > 0 : said !== grade;
		return news && (days.get(measuredBy) ?? '') >= look.examinedOn;
	});
}

/** Signs that the field book saw within so many days. */
function signsBooked(
	{ book }: Pick<TreeRecords, 'book'>,
	on: string,
	days: number
): { signId: SignId; id: string }[] {
	return book.flatMap((entry) => {
		const signId = signSeen(entry);
		return signId !== null && entry.on <= on && entry.on >= addDays(on, -days)
			? [{ signId, id: entry.id }]
			: [];
	});
}

/**
 * What the look before leaves of each cause: its evidence counts on, the less the longer it is ago and, for what is treated at the roots,
 * after work there. It counts in part only, since the same thing seen twice is not two things [our own].
 */
export function carriedOver(
	records: ContextRecords,
	place: Place | null,
	before: Examination,
	on: string,
	values: Values
): Carried[] {
	const days = daysBetween(before.examinedOn, on);
	// A second look of the same day is a correction of the first, not a further witness.
	if (days < 1 || days > values['diagnosis.carryDays']) return [];
	const { tree, kind } = records;
	const then = causeChances(
		contextOf({ tree, kind, place }, before.examinedOn, before.events, values),
		before.findings,
		values
	);
	const worked = [
		...rootLosses(records, values).done.map((loss) => loss.on),
		...records.plantings.map((one) => one.plantedOn)
	]
		.filter((day) => day >= before.examinedOn && day <= on)
		.sort()
		.at(-1);
	const left = values['diagnosis.carryPower'] * 0.5 ** (days / values['diagnosis.carryHalfDays']);
	return then.flatMap(({ conditionId, chance, prior }): Carried[] => {
		if (unplaced.has(conditionId)) return [];
		const treatedOn = conditionOf(conditionId).atRoots ? (worked ?? null) : null;
		const said = oddsOf(chance) / Math.max(1e-9, oddsOf(prior));
		const power = left * (treatedOn !== null && said > 1 ? values['diagnosis.treatedLeft'] : 1);
		const times = said ** power;
		return Math.abs(Math.log(times)) < values['diagnosis.carryLeast']
			? []
			: [{ conditionId, times, chance, on: before.examinedOn, treatedOn }];
	});
}

/**
 * The context in which a look is read: the tree as it stands, what befell it by the look and by its records, and what the look
 * before it found. Every page that judges a look reads it here.
 * @param lookId the kept look that is read; null for a new one
 */
export function contextFor(
	records: ContextRecords,
	on: string,
	events: readonly RecentEvent[],
	lookId: string | null,
	values: Values
): LookContext {
	const { tree, kind, examinations } = records;
	const place = records.places.find((candidate) => candidate.id === tree.placeId) ?? null;
	const at = lookId === null ? -1 : examinations.findIndex((look) => look.id === lookId);
	const earlier = at < 0 ? examinations : examinations.slice(0, at);
	const before = earlier.filter((look) => look.examinedOn < on).at(-1);
	const carried = before ? carriedOver(records, place, before, on, values) : [];
	const told = eventsTold(records, on, values, lookId !== null).filter((event) => !events.includes(event));
	return {
		context: contextOf(
			{ tree, kind, place },
			on,
			[...events, ...told],
			values,
			carried.map(({ conditionId, times }) => ({ conditionId, times }))
		),
		carried,
		told
	};
}
