import { daysBetween } from '../maths/calendar';
import type { Values } from '../values/values';
import type { Observation } from '../examine/looks/observation';

/** A share with what it leaves open. */
export interface ShareSeen {
	cover: number;
	/** Within so much of it the true share lies in 95 of 100. */
	error: number;
}

/** Leaf of a crown now, of what it can carry. */
export interface LeavesSince {
	leafCover: number;
	error: number;
}

/**
 * How much of a crown was in leaf on the day of one of two pictures, by the look nearest to it. What was seen nearer to the other tells of
 * that one: else what is measured between the two would be taken for what it was measured against.
 * @param on day of the picture
 * @param other day of the other picture
 * @returns null where nobody looked at its leaves about that day
 */
export function leafSeenAbout(
	observations: readonly Pick<Observation, 'observedOn' | 'leafCover'>[],
	on: string,
	other: string,
	values: Values
): { leafCover: number; observedOn: string } | null {
	const away = (day: string, from = on): number => Math.abs(daysBetween(day, from));
	const [nearest] = observations
		.flatMap(({ observedOn, leafCover }) =>
			leafCover !== null &&
			away(observedOn) <= values['picture.leafDays'] &&
			(on === other || away(observedOn) < away(observedOn, other))
				? [{ leafCover, observedOn }]
				: []
		)
		// Of two as near the one that was written down last.
		.reverse()
		.sort((a, b) => away(a.observedOn) - away(b.observedOn));
	return nearest ?? null;
}

/**
 * Leaf now, of what the crown can carry: what was seen of it then, by how much leaf the same loop shows now against then.
 * @param seenThen share of the crown that was in leaf then, 0 … 1
 * @returns null where it had next to no leaf then, against which nothing can be measured
 */
export function leavesSince(then: ShareSeen, now: ShareSeen, seenThen: number): LeavesSince | null {
	// Its ± must leave most of it: else the quotient says nothing.
	if (then.cover <= 2 * then.error || seenThen <= 0) return null;
	const leafCover = (seenThen * now.cover) / then.cover;
	const error = (seenThen / then.cover) * Math.hypot(now.error, (now.cover / then.cover) * then.error);
	return { leafCover: Math.min(1, leafCover), error };
}

/** Whether leaf became more or less between two pictures, beyond what they leave open. */
export function leafMoved(then: ShareSeen, now: ShareSeen): 'more' | 'less' | 'no-difference' {
	const by = now.cover - then.cover;
	if (Math.abs(by) <= Math.hypot(then.error, now.error)) return 'no-difference';
	return by > 0 ? 'more' : 'less';
}
