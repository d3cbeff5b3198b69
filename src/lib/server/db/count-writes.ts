import type { Client } from '@libsql/client';

/** Kept beside a tree: they are results, never what a result rests on. */
const results = ['tree_water'];
/** Told of a tree; nothing is worked out from them. */
const told = ['journal', 'picture', 'said_forecast', 'shared_link'];

/** Gives every table that belongs to a tree the triggers that count its writes, where it has none yet. */
export async function countWrites(client: Client): Promise<void> {
	const { rows } = await client.execute(
		`select m.name as name from sqlite_master m join pragma_table_info(m.name) c on c.name = 'treeId'
		where m.type = 'table' and not exists (select 1 from sqlite_master t where t.type = 'trigger' and t.name = m.name || '_added')`
	);
	for (const { name } of rows) {
		const table = String(name);
		if (results.includes(table)) continue;
		const scope = told.includes(table) ? 'told:' : 'tree:';
		const trigger = (ending: string, event: string, row: 'NEW' | 'OLD'): string =>
			`CREATE TRIGGER IF NOT EXISTS "${table}_${ending}" AFTER ${event} ON "${table}" WHEN ${row}."treeId" IS NOT NULL BEGIN
				INSERT INTO "revision" ("scope", "count") VALUES ('${scope}' || ${row}."treeId", 1) ON CONFLICT ("scope") DO UPDATE SET "count" = "count" + 1;
			END`;
		await client.batch(
			[
				trigger('added', 'INSERT', 'NEW'),
				trigger('changed', 'UPDATE', 'NEW'),
				trigger('removed', 'DELETE', 'OLD')
			],
			'write'
		);
	}
}
