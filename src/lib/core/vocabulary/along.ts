import { z } from 'zod';
import { instant } from './fields';
import { whoSchema } from './people';

/*
 * What goes along: a copy of the yard on a phone, with which it goes on where no network is, and the work done there that waits to be sent.
 */

/** What is told beside a copy of the yard, in the header of this name. */
export const ALONG_HEADER = 'bruntle-along';
export const alongHeader = z.strictObject({
	/** The yard it is of. */
	yard: z.string(),
	takenAt: instant(),
	/** The instant at which the clock of the yard stands still, as in the demo; null where it runs. */
	clockAt: instant().nullable(),
	who: whoSchema,
	/** Trees in the copy, and in the yard. */
	trees: z.int(),
	ofTrees: z.int()
});
export type Along = z.infer<typeof alongHeader>;

/** Headers by which a piece of work is named, and the yard that it was done for. */
export const ACT_HEADER = 'bruntle-act';
export const YARD_HEADER = 'bruntle-yard';

/** A piece of work that waits on the phone, as pages show it. */
export interface ActTold {
	id: string;
	/** Instant at which it was done. */
	at: string;
	what: string;
	tree: { id: string; tag: string; name: string } | null;
	path: string;
	/** Whether it was done by whoever is signed in here. */
	mine: boolean;
	/** Why the yard did not take it; null while it waits to be sent. */
	refused: {
		status: number;
		message: string;
		advice: string;
		meanwhile: Record<string, string> | null;
	} | null;
	/** What was typed, by the names of the fields, where it was refused. */
	typed: [name: string, value: string][];
	/** A drawing of roots that was refused, as JSON. */
	drawing: string | null;
}

/** How a phone with a copy of the yard stands. */
export interface AlongState {
	/** Null where no yard was taken along. */
	along: Along | null;
	/** Nobody is signed in any more: the copy is gone, and work waits for who did it. */
	locked: boolean;
	/** Instant since when the computer of the yard does not answer; null while it does. */
	aloneSince: string | null;
	acts: ActTold[];
}

/** What a page asks of the phone. */
export type AlongAsk = { ask: 'state' | 'take' | 'send' | 'leave' } | { ask: 'drop' | 'again'; id: string };
/** What it is answered. */
export type AlongAnswer = { state: AlongState } | { fault: { message: string; advice: string } };
