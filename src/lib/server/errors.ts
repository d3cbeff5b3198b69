import type { FieldProblem } from '../core/vocabulary/fields';

/** Something the person can put right. `message` says what is wrong, `advice` what to do. */
export class Refusal extends Error {
	constructor(
		readonly status: 400 | 401 | 403 | 404 | 409 | 413 | 415 | 421 | 422 | 429 | 502 | 503 | 507,
		message: string,
		readonly advice: string = '',
		readonly problems: readonly FieldProblem[] = [],
		/** The record as it stands by now, where it was changed elsewhere meanwhile. */
		readonly meanwhile: object | null = null
	) {
		super(message);
	}
}

/** What is asked for is not there. */
export const notFound = (what: string): Refusal =>
	new Refusal(
		404,
		`There is no such ${what} here.`,
		'It may have been removed; go back and look for it by name.'
	);

/** It stands in the database and cannot be made out. */
export const damagedHere = (what: string): Refusal =>
	new Refusal(
		422,
		`This ${what} is damaged and cannot be read.`,
		'“Damaged records” of the yard says what is wrong with it; mend it there, or take it out.'
	);

/**
 * It was changed elsewhere meanwhile.
 * @param meanwhile the record as it stands by now; null where it is gone
 */
export const stale = (what: string, meanwhile: object | null = null): Refusal =>
	new Refusal(
		409,
		`This ${what} was changed elsewhere in the meantime.`,
		meanwhile
			? 'Nothing was overwritten. What stands there by now is told beside what you entered; keep again what is to stand.'
			: 'Nothing was overwritten. Look at what stands there by now, and enter again what is to stand.',
		[],
		meanwhile
	);

/** A field that cannot be taken, with what it must be. */
export const invalid = (problems: readonly FieldProblem[]): Refusal =>
	new Refusal(
		422,
		problems.length === 1 && problems[0]
			? `${problems[0].field} ${problems[0].message}.`
			: `${problems.length} fields need another look.`,
		'Nothing was saved.',
		problems
	);
