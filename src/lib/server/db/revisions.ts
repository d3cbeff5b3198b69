import { inArray, sql, type SQL } from 'drizzle-orm';
import type { Reader } from './database';
import { revision, tree } from './schema';

/*
 * How often what stands under a scope was written. The database counts it by its own triggers, so that no way of writing goes round
 * it; whoever keeps a result keeps the counts of what it rests on beside it.
 */

/** How often what stands under some scopes was written, as one key. */
export async function writtenKey(db: Reader, scopes: readonly string[]): Promise<string> {
	const rows = await db
		.select()
		.from(revision)
		.where(inArray(revision.scope, [...scopes]));
	const counts = new Map(rows.map(({ scope, count }) => [scope, count]));
	return scopes.map((scope) => `${scope}:${counts.get(scope) ?? 0}`).join('|');
}

/** How often what stands under a scope was written. */
export const written = (scope: SQL): SQL =>
	sql`coalesce((select ${revision.count} from ${revision} where ${revision.scope} = ${scope}), 0)`;

/** Counts of everything that the records of a tree hold but what is only told: a part of a query over trees. */
export const recordsKey = (): SQL => {
	const mates = sql`(select group_concat(known) from (select m."id" || ':' || ${written(sql`'tree:' || m."id"`)} as known
		from ${tree} m where lower(trim(m."sharedPot")) = lower(trim(${tree.sharedPot})) order by m."id"))`;
	return sql`${written(sql`'places'`)} || '|' || ${tree.kindId} || ':' || ${written(sql`'kind:' || ${tree.kindId}`)}
		|| '|' || ${written(sql`'tree:' || ${tree.id}`)} || '|' || case when trim(${tree.sharedPot}) = '' then '' else ${mates} end`;
};

/** Counts of what is only told of a tree. */
export const toldKey = (): SQL => written(sql`'told:' || ${tree.id}`);
