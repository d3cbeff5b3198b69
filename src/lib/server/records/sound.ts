import { sql, type SQL } from 'drizzle-orm';
import type { AnySQLiteColumn } from 'drizzle-orm/sqlite-core';
import { rememberedBy, type Reader } from '../db/database';
import { tree } from '../db/schema';

/** How many records are known not to be readable. */
export const damagedCount = (db: Reader): number => rememberedBy(db)?.damaged.size ?? 0;

/** Identities of the records of a kind that are known not to be readable. */
const damagedOf = (db: Reader, record: string): string[] =>
	[...(rememberedBy(db)?.damaged.values() ?? [])].filter((one) => one.record === record).map(({ id }) => id);

/**
 * Leaves records that are known not to be readable out of a list that is read by columns, past their schema.
 * @param record name of the kind of record
 * @param id column with its identity
 */
export function sound(db: Reader, record: string, id: AnySQLiteColumn): SQL {
	const ids = damagedOf(db, record);
	return ids.length === 0
		? sql`true`
		: sql`${id} not in (${sql.join(
				ids.map((one) => sql`${one}`),
				sql`, `
			)})`;
}

/** The same for trees: those that cannot be read, and those whose kind or place cannot. */
export const soundTree = (db: Reader): SQL =>
	sql.join(
		[sound(db, 'tree', tree.id), sound(db, 'kind', tree.kindId), sound(db, 'place', tree.placeId)],
		sql` and `
	);
