/** The one clock of the server. `BRUNTLE_NOW` pins it, so that the demo and the tests are the same on any date. */

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

/** The instant it is. */
export const now = (): Date => pinned() ?? new Date();

/** Today as a calendar date: of the pinned instant in UTC, otherwise of this computer. */
export function today(): string {
	const fixed = pinned();
	if (fixed) return fixed.toISOString().slice(0, 10);
	const date = new Date();
	const two = (n: number) => String(n).padStart(2, '0');
	return `${date.getFullYear()}-${two(date.getMonth() + 1)}-${two(date.getDate())}`;
}
