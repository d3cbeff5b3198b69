import { randomUUID } from 'node:crypto';
import type { Store } from '../db/database';
import { readSetting, writeSetting } from '../settings';

const KEY = 'yard-id';

/** What this yard is known by, on whichever address it is met. */
export async function yardIdOf(store: Store): Promise<string> {
	const known = await readSetting(store.db, KEY);
	if (typeof known === 'string') return known;
	const made = randomUUID();
	await writeSetting(store, KEY, made);
	return made;
}
