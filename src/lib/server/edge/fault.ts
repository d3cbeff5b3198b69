import { z } from 'zod';
import { fieldProblems } from '../../core/vocabulary/fields';
import { invalid, Refusal } from '../errors';

/** What the database says when it will not write, and what a person is told of it. */
const faults: readonly (readonly [
	code: RegExp,
	status: 404 | 409 | 503 | 507,
	message: string,
	advice: string
])[] = [
	[
		/SQLITE_CONSTRAINT_FOREIGNKEY|FOREIGN KEY constraint/,
		409,
		'What this belongs to is not here any more.',
		'It may have been removed meanwhile; nothing was saved.'
	],
	[
		/SQLITE_CONSTRAINT_(UNIQUE|PRIMARYKEY)|UNIQUE constraint/,
		409,
		'The same stands here already.',
		'Nothing was saved.'
	],
	[
		/SQLITE_FULL|ENOSPC/,
		507,
		'There is no room on the disk.',
		'Make room, then keep it again; nothing was saved.'
	],
	[
		/SQLITE_READONLY|EROFS/,
		507,
		'The yard cannot be written to.',
		'Is the disk or the file write-protected? Nothing was saved; what is kept can still be read.'
	],
	[
		/SQLITE_IOERR|SQLITE_CANTOPEN|EIO/,
		503,
		'The disk of the yard does not answer.',
		'Is its folder still there? Nothing was saved.'
	],
	[
		/SQLITE_CORRUPT|SQLITE_NOTADB/,
		503,
		'The database is damaged.',
		'Stop Bruntle and put a copy of it in its place; nothing was saved.'
	],
	[
		/SQLITE_BUSY|SQLITE_LOCKED/,
		503,
		'Another program holds the yard.',
		'Close it, then keep it again; nothing was saved.'
	],
	[
		/\bAUTH\b|HTTP status 40[13]/,
		503,
		'The server of the database does not know this yard’s token.',
		'Set DATABASE_AUTH_TOKEN to one that it takes, and start Bruntle again; nothing was saved.'
	],
	[
		/fetch failed|sync error|E(?:CONNREFUSED|CONNRESET|NOTFOUND|AI_AGAIN|TIMEDOUT|HOSTUNREACH)|SERVER_ERROR|STREAM_EXPIRED/,
		503,
		'The server of the database does not answer.',
		'Is it running, and the network there? Nothing was saved.'
	]
];

/**
 * What a person can do about a fault of the database or the disk; null for any other.
 * @param cause as thrown, with the causes behind it
 */
export function faultOf(cause: unknown): Refusal | null {
	for (let one = cause, depth = 0; one instanceof Error && depth < 6; one = one.cause, depth++) {
		const { code = '', extendedCode = '' } = one as Error & { code?: unknown; extendedCode?: unknown };
		const said = `${String(extendedCode)} ${String(code)} ${one.message}`;
		const found = faults.find(([pattern]) => pattern.test(said));
		if (found) return new Refusal(found[1], found[2], found[3]);
	}
	return null;
}

/** What a person can put right in what was thrown; null where it is a fault of Bruntle itself. */
export function refusalOf(cause: unknown): Refusal | null {
	if (cause instanceof Refusal) return cause;
	return cause instanceof z.ZodError ? invalid(fieldProblems(cause)) : faultOf(cause);
}
