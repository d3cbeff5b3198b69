import type { BookDetails, BookKind } from '../../aftercare/book/book';
import type { Observation } from '../../examine/looks/observation';
import type { Values } from '../../values/values';
import type { Place } from '../../vocabulary/place';
import type { SignId } from '../../vocabulary/signs';
import type { TreeRecords } from '../case';
import { inOrder, latest, ref, say, type Fact, type Said } from '../fact';
import { ofThePot } from '../shared-pot';

/** What the records of a tree say up to any day, by the kind of record that says it; read once and asked for each fact. */
export interface Sayings {
	records: TreeRecords;
	/** Its pot with what was done to it for any tree in it. */
	pot: ReturnType<typeof ofThePot>;
	/** Where it stands; null where nobody said. */
	place: Place | null;
	/** Day the facts are asked for. */
	on: string;
	values: Values;
	/** Readings along its stem with a scratch and a tap. */
	taps: {
		id: string;
		on: string;
		raw: Extract<TreeRecords['measurements'][number]['raw'], { tool: 'scratch-tap' }>;
	}[];
	/** Lifts that were done. */
	lifts: { id: string; log: NonNullable<TreeRecords['lifts'][number]['log']> }[];
	/** Plantings in the ground that were done. */
	grounded: { id: string; on: string; hole: NonNullable<TreeRecords['groundPlans'][number]['hole']> }[];
	/** Grade of a sign, from Examine. */
	grade: (sign: SignId) => Said<number>[];
	/** What was seen in looks. */
	looked: <T>(read: (look: Observation) => T | null) => Said<T>[];
	/** What the field book says. */
	booked: <T>(kind: BookKind, read: (details: BookDetails) => T | null) => Said<T>[];
	/** What was told before the work. */
	told: <T>(read: (decision: TreeRecords['triages'][number]) => T | null) => Said<T>[];
	/** The fact of all that was said. */
	fact: <T>(said: readonly Said<T>[], same?: (a: T, b: T) => boolean) => Fact<T>;
}

/** @param on day the facts are asked for, `YYYY-MM-DD` */
export function sayingsOf(records: TreeRecords, on: string, values: Values): Sayings {
	return {
		records,
		pot: ofThePot(records),
		place: records.places.find((candidate) => candidate.id === records.tree.placeId) ?? null,
		on,
		values,
		taps: records.measurements.flatMap((one) =>
			one.raw.tool === 'scratch-tap' ? [{ id: one.id, on: one.measuredOn, raw: one.raw }] : []
		),
		lifts: records.lifts.flatMap((lift) => (lift.log ? [{ id: lift.id, log: lift.log }] : [])),
		grounded: records.groundPlans.flatMap((one) =>
			one.doneOn && one.hole ? [{ id: one.id, on: one.doneOn, hole: one.hole }] : []
		),
		grade: (signId) =>
			records.examinations.flatMap((look) => {
				const found = look.findings.find((finding) => finding.signId === signId);
				return say(
					found?.grade,
					look.examinedOn,
					found?.measuredBy ? 'measured' : 'seen',
					ref('examination', look),
					'examination'
				);
			}),
		looked: (read) =>
			records.observations.flatMap((look) => {
				const value = read(look);
				// Of a hundred looks most say nothing of one thing.
				return value === null ? [] : say(value, look.observedOn, 'seen', ref('look', look), 'look');
			}),
		booked: (kind, read) =>
			records.book.flatMap((one) =>
				one.kind === kind ? say(read(one.details), one.on, 'seen', ref('book', one), 'field book') : []
			),
		told: (read) =>
			records.triages.flatMap((one) =>
				say(read(one), one.decidedOn, 'seen', ref('decision', one), 'before the work')
			),
		fact: (said, same) => latest(inOrder(said), on, values['standing.sameTimeDays'], same)
	};
}

/** What was said, in other terms; nothing where it has none in them. */
export const inTerms = <A, B>(said: readonly Said<A>[], turn: (value: A) => B | null): Said<B>[] =>
	said.flatMap(({ low: _low, high: _high, ...one }) => {
		const value = turn(one.value);
		return value === null ? [] : [{ ...one, value }];
	});

/** For what the latest word settles, whatever was said before it. */
export const latestWord = (): boolean => true;

/**
 * Numbers agree within so much.
 * @param much how far apart two sayings may lie and still agree, in their unit
 */
export const near =
	(much: number) =>
	(a: number, b: number): boolean =>
		Math.abs(a - b) <= much;
