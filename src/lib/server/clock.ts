import { instantOfAct } from './acting';
import { practising } from './practice/under-way';

/**
 * The one clock of the server. `BRUNTLE_NOW` pins it, so that the demo and the tests are the same on any date; work that was done
 * elsewhere and is sent later is kept as of its own instant.
 */

function pinned(): Date | null {
	const text = process.env.BRUNTLE_NOW;
	if (!text) return null;
	const date = new Date(text);
	if (Number.isNaN(date.getTime()))
		throw new Error('BRUNTLE_NOW must be an instant, like 2026-04-18T09:00:00Z.');
	return date;
}

/** Clocks are put right by a little now and then; further back than this, work would be told before what it follows on. */
const SET_BACK_MS = 15 * 60 * 1000;

/**
 * Whether the clock stands before what was written last: set back, or begun anew after its battery died.
 * @param lastAt instant of the last entry; null where there is none
 */
export const clockIsSetBack = (lastAt: string | null): boolean =>
	lastAt !== null && Date.parse(lastAt) > now().getTime() + SET_BACK_MS;

/** Whether the clock stands at an instant that was given. */
export const clockIsPinned = (): boolean => pinned() !== null;

/** The instant it is, here and now. */
const instantHere = (): Date => {
	const here = pinned() ?? new Date();
	const round = practising();
	// On a day of a practice round it is the time of day that it is.
	return round ? new Date(`${round.today}T${here.toISOString().slice(11)}`) : here;
};

/** The instant it is, or at which the work under way was done. */
export function now(): Date {
	const act = instantOfAct();
	return act ? new Date(act.at) : instantHere();
}

/**
 * A piece of work with its instant, where it can be true: none is of the future, beyond what clocks differ by.
 * @param act as it was sent
 */
export const inTime = <T extends { at: string; today: string }>(act: T): T =>
	Date.parse(act.at) > instantHere().getTime() + SET_BACK_MS
		? { ...act, at: instantHere().toISOString(), today: dayOf(pinned()) }
		: act;

/** Today as a calendar date: of the pinned instant in UTC, otherwise of this computer. */
export const today = (): string => instantOfAct()?.today ?? practising()?.today ?? dayOf(pinned());

function dayOf(fixed: Date | null): string {
	if (fixed) return fixed.toISOString().slice(0, 10);
	const date = new Date();
	const two = (n: number) => String(n).padStart(2, '0');
	return `${date.getFullYear()}-${two(date.getMonth() + 1)}-${two(date.getDate())}`;
}
