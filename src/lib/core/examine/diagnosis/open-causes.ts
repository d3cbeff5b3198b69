import { midSentence } from '../../text/mid-sentence';
import { chanceSaid, likelihood } from '../../text/percent';

/** A cause, as a sentence begins that says it holds ("Root rot is"), and its chance, 0 … 1. */
export interface Held {
	subject: string;
	chance: number;
}

/** What the last look at a tree says of its causes, and nothing was done about since. */
export interface CausesOpen {
	/** To be acted on now. */
	urgent: (Held & { on: string; stage: 'roots' | 'replant' | 'examine'; meaning: string }) | null;
	/** Likely, and decided by a check first; its check is null where its records show since what the look does not say. */
	check: (Held & { on: string; check: { label: string; how: string } | null }) | null;
	/** Likely, and worked on when the next window for it opens, on a day; left out where nothing waits so. */
	waits?:
		(Held & { on: string; windowOn: string; stage: 'roots' | 'replant' | 'examine'; meaning: string }) | null;
}

/** What presses takes a tree out of its pot: it is held when it is set anew, for wires laid before would have to come off. */
export const setsAnew = (urgent: { stage: string } | null | undefined, potted: boolean): boolean =>
	potted && (urgent?.stage === 'roots' || urgent?.stage === 'replant');

/** @example "Girdling roots are likely" */
export const holds = ({ subject, chance }: Held): string => `${subject} ${likelihood(chance)}`;

/** @example "Girdling roots are likely (88 %)" */
export const holdsBy = (held: Held): string => `${holds(held)} (${chanceSaid(held.chance)})`;

/** What decides a likely cause before it is acted on, in a few words. */
export const checkAsked = ({ check }: { check: { label: string } | null }): string =>
	check ? `check first: ${midSentence(check.label)}` : 'look anew, with what was seen since';
