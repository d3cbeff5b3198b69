import { cleanLine, cleanText } from '../text/clean';
import { rangeInUnit } from '../text/measured';
import { isCalendarDate } from '../maths/calendar';
import { z } from 'zod';

/**
 * Building blocks shared by every schema, so that each edge (form, API, import) refuses the same
 * things with the same words: the allowed range is always part of the message.
 */

/** Earliest and latest calendar date that any record may carry. */
const EARLIEST_DATE = '1950-01-01';
const LATEST_DATE = '2100-12-31';
const NOTE_LENGTH = 4000;

/**
 * A number between two bounds, in the unit named.
 * @param min, max least and most that is taken, in the unit named
 */
export function measure(min: number, max: number, unit: string) {
	const message = `must be a number from ${rangeInUnit(min, max, unit)}`;
	return z.number({ error: message }).min(min, { error: message }).max(max, { error: message });
}

/**
 * A whole number between two bounds.
 * @param min, max least and most that is taken
 */
export function count(min: number, max: number) {
	const message = `must be a whole number from ${min} to ${max}`;
	return z
		.number({ error: message })
		.int({ error: message })
		.min(min, { error: message })
		.max(max, { error: message });
}

/** A share from 0 to 1. */
export const share = () => measure(0, 1, '(a share)');

/**
 * A required text of one line; surrounding blanks are dropped, and what cannot be seen.
 * @param max characters at the most
 */
export function shortText(max: number) {
	const message = `must be 1 to ${max} characters`;
	return z
		.string({ error: message })
		.overwrite(cleanLine)
		.trim()
		.min(1, { error: message })
		.max(max, { error: message });
}

/**
 * An optional longer text; empty when nothing was written.
 * @param max characters at the most
 */
export function note(max: number = NOTE_LENGTH) {
	const message = `must be at most ${max} characters`;
	return z.string({ error: message }).overwrite(cleanText).trim().max(max, { error: message }).default('');
}

/**
 * A required text of one line that the app may write itself, with measures in it that are said in the units of who reads.
 * @param max characters at the most
 */
export function shortToldText(max: number) {
	const message = `must be 1 to ${max} characters`;
	return z
		.string({ error: message })
		.overwrite((text) => cleanText(text).replace(/\s+/g, ' '))
		.trim()
		.min(1, { error: message })
		.max(max, { error: message });
}

/**
 * A text that the app itself writes.
 * @param max characters at the most
 */
export const toldText = (max: number) => z.string().overwrite(cleanText).max(max);

/** One of a fixed list of words. */
export function oneOf<const T extends readonly [string, ...string[]]>(words: T) {
	// What nobody chose is asked for in the words of the form, not of the record.
	return z.enum(words, {
		error: ({ input }) => (input === '' ? 'must be chosen' : `must be one of: ${words.join(', ')}`)
	});
}

const DATE_MESSAGE = `must be a date from ${EARLIEST_DATE} to ${LATEST_DATE}`;

/** A date of work, as a calendar date without a time. */
export const calendarDate = () =>
	z
		.string({ error: DATE_MESSAGE })
		// Told once, however it is none.
		.regex(/^\d{4}-\d{2}-\d{2}$/, { error: DATE_MESSAGE, abort: true })
		.refine((text) => isCalendarDate(text) && text >= EARLIEST_DATE && text <= LATEST_DATE, {
			error: DATE_MESSAGE
		});

/** An instant in UTC. */
export const instant = () =>
	z.iso.datetime({ error: 'must be an instant in UTC, like 2026-04-18T09:30:00.000Z' });

const INSTANT_MESSAGE = 'must be an instant, like 2026-04-18T09:30:00Z or …T10:30:00+01:00';
/** An instant with any offset, as a device or station sends it; kept in UTC. */
export const anyInstant = () =>
	z.iso
		.datetime({ offset: true, error: INSTANT_MESSAGE })
		// What is no instant stays as it came: it was refused before, and is to be named as it was sent.
		.overwrite((text) => {
			const at = new Date(text);
			return Number.isNaN(at.getTime()) ? text : at.toISOString();
		})
		.refine((text) => text.slice(0, 10) >= EARLIEST_DATE && text.slice(0, 10) <= LATEST_DATE, {
			error: INSTANT_MESSAGE
		});

/** Identity of a record: letters, digits and hyphens. */
export const id = () =>
	z
		.string({ error: 'must be an identity of 1 to 64 letters, digits or hyphens' })
		.regex(/^[A-Za-z0-9-]{1,64}$/, { error: 'must be an identity of 1 to 64 letters, digits or hyphens' });

/** Identity of a record that is picked from a list. */
export const chosen = () =>
	z.string({ error: 'must be chosen' }).regex(/^[A-Za-z0-9-]{1,64}$/, { error: 'must be chosen' });

/** How often a row has been written; a save names the version it was made from. */
export const version = () => count(1, 1_000_000_000);

export interface FieldProblem {
	field: string;
	message: string;
}

/** Turns Zod issues into one plain line a field: which field, and what it must be. */
export function fieldProblems(error: z.ZodError): FieldProblem[] {
	return error.issues.slice(0, 50).map((issue) => {
		const unknown = issue.code === 'unrecognized_keys';
		return {
			field: issue.path.map(String).join('.') || (unknown ? firstOf(issue.keys) : 'body'),
			message: unknown ? 'is not a field known here' : plainMessage(issue)
		};
	});
}

/** Names that were sent, the first of them where they are many. */
const NAMES_TOLD = 8;
const firstOf = (names: readonly string[]): string =>
	names
		.slice(0, NAMES_TOLD)
		.map((name) => name.slice(0, 60))
		.join(', ') + (names.length > NAMES_TOLD ? ` and ${names.length - NAMES_TOLD} more` : '');

function plainMessage(issue: z.core.$ZodIssue): string {
	// Words of the validator itself are none of ours.
	if (!/^(Invalid|Too|Unrecognized|Expected)\b/.test(issue.message)) return issue.message;
	if (issue.code === 'invalid_type') return `must be ${issue.expected}`;
	if (issue.code === 'invalid_value')
		return `must be ${issue.values.length > 1 ? 'one of: ' : ''}${issue.values.join(', ')}`;
	if (issue.code === 'too_big') return `must be at most ${issue.maximum}`;
	if (issue.code === 'too_small') return `must be at least ${issue.minimum}`;
	if (issue.code === 'invalid_union') return 'must be one of the forms described for it';
	return 'is not as it should be';
}
