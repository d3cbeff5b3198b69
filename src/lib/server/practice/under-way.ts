import { AsyncLocalStorage } from 'node:async_hooks';
import type { Store } from '../db/database';

/** A practice round that a request belongs to: the yard that it works on, and the day that it is there. */
export interface RoundUnderWay {
	id: string;
	treeId: string;
	/** Day of the round, from 0, and the calendar day that it is. */
	day: number;
	today: string;
	over: boolean;
	/** Its own yard, opened when it is first asked for. */
	store: () => Promise<Store>;
}

const underWay = new AsyncLocalStorage<RoundUnderWay | null>();

/** Runs what one request asks for in a practice round; in the yard itself where there is none. */
export const practisingAs = <T>(round: RoundUnderWay | null, work: () => T): T => underWay.run(round, work);

/** The practice round under way; null in the yard itself. */
export const practising = (): RoundUnderWay | null => underWay.getStore() ?? null;
