import { daysBetween } from '../maths/calendar';

/**
 * How a fact is known. measured: by a tool · seen: by eye or hand · worked-out: reckoned from other facts · assumed: a working value
 * or a suggestion nobody touched · unknown: nobody said anything.
 */
export type Knowing = 'measured' | 'seen' | 'worked-out' | 'assumed' | 'unknown';
export const knowingNames: Record<Knowing, string> = {
	measured: 'measured',
	seen: 'seen',
	'worked-out': 'worked out',
	assumed: 'assumed',
	unknown: 'not known'
};

/** The record a fact comes from, by its kind and identity. */
export interface RecordRef {
	record:
		| 'tree'
		| 'look'
		| 'examination'
		| 'measurement'
		| 'root-map'
		| 'lift'
		| 'planting'
		| 'ground-works'
		| 'watering'
		| 'decision'
		| 'book';
	id: string;
}

/** One thing that was said of a tree, by one record. */
export interface Said<T> {
	value: T;
	low?: number;
	high?: number;
	on: string;
	known: Exclude<Knowing, 'unknown'>;
	from: RecordRef | null;
	/** What it was read off or worked out from, in a few words; of an assumption, its working value. */
	by: string;
}

/** A fact about a tree on a day. Nothing is said of it where it is unknown: `value` is null and nothing may rest on it. */
export interface Fact<T> {
	value: T | null;
	/** Range of a number, where one is known. */
	low: number | null;
	high: number | null;
	/** Day on which it was seen or holds. */
	on: string | null;
	known: Knowing;
	from: RecordRef | null;
	by: string;
	/** What other records said within a few days that does not agree with it, latest first. */
	against: Said<T>[];
}

/** Names a record that a fact comes from. */
export const ref = (record: RecordRef['record'], { id }: { id: string }): RecordRef => ({ record, id });

/** One thing said; nothing where there was nothing to say. */
export const say = <T>(
	value: T | null | undefined,
	on: string,
	known: Said<T>['known'],
	from: RecordRef,
	by: string
): Said<T>[] => (value === null || value === undefined ? [] : [{ value, on, known, from, by }]);

/** In the order of their days; of one day as they were kept, so that the later kept is the later. */
export const inOrder = <T>(said: readonly Said<T>[]): Said<T>[] =>
	[...said].sort((a, b) => a.on.localeCompare(b.on));

/** What nobody has seen, said or measured. */
export const unknownFact = <T>(): Fact<T> => ({
	value: null,
	low: null,
	high: null,
	on: null,
	known: 'unknown',
	from: null,
	by: '',
	against: []
});

/** True for what somebody measured or saw: only that may meet a criterion, raise an alarm or release work. */
export const isEvidence = (known: Knowing): boolean => known === 'measured' || known === 'seen';

/**
 * The latest of what was said up to a day: evidence before anything reckoned, that before an assumption; of one day the one kept last. What
 * else was said near it and differs stands beside it.
 * @param said in the order in which it was kept
 * @param withinDays how near to it another statement still counts as being of the same time
 * @param same whether two values agree
 */
export function latest<T>(
	said: readonly Said<T>[],
	on: string,
	withinDays: number,
	same: (a: T, b: T) => boolean = Object.is
): Fact<T> {
	const known = said.filter((one) => one.on <= on);
	const newest = (of: readonly Said<T>[]): Said<T> | undefined =>
		of.reduce<Said<T> | undefined>((best, one) => (best && best.on > one.on ? best : one), undefined);
	const evidence = known.filter((one) => isEvidence(one.known));
	const chosen =
		newest(evidence) ??
		newest(known.filter((one) => one.known === 'worked-out')) ??
		newest(known.filter((one) => one.known === 'assumed'));
	if (!chosen) return unknownFact();
	return {
		value: chosen.value,
		low: chosen.low ?? null,
		high: chosen.high ?? null,
		on: chosen.on,
		known: chosen.known,
		from: chosen.from,
		by: chosen.by,
		against: evidence
			.filter(
				(one) =>
					one !== chosen &&
					one.from?.id !== chosen.from?.id &&
					daysBetween(one.on, chosen.on) <= withinDays &&
					!same(one.value, chosen.value)
			)
			.reverse()
	};
}

/** Numbers agree within a share of the larger one. */
export const within =
	(share: number) =>
	(a: number, b: number): boolean =>
		Math.abs(a - b) <= share * Math.max(Math.abs(a), Math.abs(b));
