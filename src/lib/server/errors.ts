import type { FieldProblem } from '../core/vocabulary/fields';

/** Something the person can put right. `message` says what is wrong, `advice` what to do. */
export class Refusal extends Error {
	constructor(
		readonly status: 400 | 401 | 404 | 409 | 413 | 415 | 422 | 502 | 507,
		message: string,
		readonly advice: string = '',
		readonly problems: readonly FieldProblem[] = []
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

/** It was changed elsewhere meanwhile. */
export const stale = (what: string): Refusal =>
	new Refusal(
		409,
		`This ${what} was changed elsewhere in the meantime.`,
		'Load the page again and repeat your change; nothing was overwritten.'
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
