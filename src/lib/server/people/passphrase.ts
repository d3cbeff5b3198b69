import { hash, verify } from '@node-rs/argon2';
import { test as isCommon } from 'fxa-common-password-list';
import { invalid } from '../errors';

/** argon2id by what it is called in its package, whose names are gone once compiled. */
const ARGON2ID = 2;
/** Memory in KiB, passes and lanes [OWASP Password Storage Cheat Sheet: 19 MiB, 2, 1 at the least]. */
const COST = { algorithm: ARGON2ID, memoryCost: 64 * 1024, timeCost: 3, parallelism: 1 };
/** A passphrase of fewer different signs than this is one that somebody tries. */
const SIGNS_LEAST = 5;

/**
 * Refuses a passphrase that is among the first that somebody tries.
 * @throws Refusal 422
 */
export function refuseGuessable(passphrase: string, name: string): void {
	const plain = passphrase.toLowerCase();
	const ofName =
		name.trim().length >= 3 && plain.replaceAll(name.trim().toLowerCase(), '').length < SIGNS_LEAST;
	const message =
		new Set(plain).size < SIGNS_LEAST || ofName || plain.replaceAll('bruntle', '').length < SIGNS_LEAST
			? 'is too easy to guess; take several words that do not belong together'
			: isCommon(plain)
				? 'is one of those that many people use; take several words that do not belong together'
				: null;
	if (message) throw invalid([{ field: 'passphrase', message }]);
}

/** What of a passphrase is kept. */
export const hashPassphrase = (passphrase: string): Promise<string> =>
	inTurn(() => hash(passphrase.normalize('NFKC'), COST));

/** Whether a passphrase is the one that was hashed; with none, it takes as long. */
export async function isPassphrase(passphrase: string, kept: string | null): Promise<boolean> {
	unknown ??= hashPassphrase('nobody goes by this name');
	const right = await inTurn(async () => verify(kept ?? (await unknown) ?? '', passphrase.normalize('NFKC')));
	return right && kept !== null;
}
let unknown: Promise<string> | null = null;

/** One at a time: each takes memory and a processor for a while. */
let queue: Promise<unknown> = Promise.resolve();
function inTurn<T>(work: () => Promise<T>): Promise<T> {
	const run = queue.then(work);
	queue = run.catch(() => undefined);
	return run;
}
