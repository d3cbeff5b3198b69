import { keepIn } from '../db/database';
import { Refusal } from '../errors';

/** So many misses in a row are typing. */
const FREE_MISSES = 5;
const FIRST_WAIT_MS = 5_000;
const LONGEST_WAIT_MS = 15 * 60_000;
const MOST_REMEMBERED = 10_000;

/** Misses in a row, by name and by where they came from. Wall time, also where the clock of the yard stands still. */
const misses = new Map<string, { count: number; until: number }>();

/**
 * Refuses another try as long as it has to wait.
 * @param of what is tried: a name, an address
 * @param at wall time, ms since 1970
 * @throws Refusal 429
 */
export function refuseTooSoon(of: readonly string[], at: number = Date.now()): void {
	const until = Math.max(...of.map((one) => misses.get(one)?.until ?? 0));
	if (until <= at) return;
	const seconds = Math.ceil((until - at) / 1000);
	throw new Refusal(
		429,
		'That was wrong several times.',
		`Wait ${seconds < 90 ? `${seconds} seconds` : `${Math.ceil(seconds / 60)} minutes`}, then try again.`
	);
}

/**
 * Notes how a try went: each miss beyond the first few makes the next wait twice as long.
 * @param at wall time, ms since 1970
 */
export function noteTry(of: readonly string[], right: boolean, at: number = Date.now()): void {
	for (const one of of) {
		if (right) {
			misses.delete(one);
			continue;
		}
		const count = (misses.get(one)?.count ?? 0) + 1;
		const waitMs =
			count < FREE_MISSES ? 0 : Math.min(LONGEST_WAIT_MS, FIRST_WAIT_MS * 2 ** (count - FREE_MISSES));
		keepIn(misses, one, { count, until: at + waitMs }, MOST_REMEMBERED);
	}
}
