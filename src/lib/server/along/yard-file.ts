import { createClient, type InStatement } from '@libsql/client';
import { sql } from 'drizzle-orm';
import { createHash } from 'node:crypto';
import { mkdtemp, readFile, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { addDays } from '../../core/maths/calendar';
import type { Reader, Store } from '../db/database';
import { Refusal } from '../errors';

/** So many trees go along at the most: those whose work comes first. A smaller yard goes whole. */
export const MOST_TREES = 300;
/** Readings by the hour go back so many days: as far as water is reckoned back from them. */
const READING_DAYS = 90;

/** Nothing of these leaves the computer of the yard: keys, and what only it answers. */
const staysHere = new Set(['session', 'invitation', 'shared_link', 'reading', 'sent_act']);
/** Settings that are keys. */
const SECRET_SETTINGS = "'calendar-token'";
/** What is blank in a copy: hashes by which keys are known. */
const blank: Readonly<Record<string, string>> = { person: 'passHash', device: 'tokenHash' };

export interface YardFile {
	bytes: Buffer;
	/** Trees in it, and in the whole yard. */
	trees: number;
	ofTrees: number;
}

/**
 * The yard as a database of its own, as far as it goes along on a phone: the trees with all that is known of them, and what their work
 * rests on; no key goes with it.
 * @param on today, from which the work that comes first is told
 * @throws Refusal 409 where the database is no file of this computer
 */
export async function yardFile(store: Store, on: string, mostTrees = MOST_TREES): Promise<YardFile> {
	if (!store.url.startsWith('file:'))
		throw new Refusal(
			409,
			'This yard lies on another server and cannot be taken along.',
			'Work on it while the network is there.'
		);
	const folder = await mkdtemp(path.join(tmpdir(), 'bruntle-along-'));
	const file = path.join(folder, 'along.db');
	const client = createClient({ url: store.url, timeout: 5000 });
	try {
		await client.execute('PRAGMA foreign_keys = off');
		await client.execute({ sql: 'ATTACH ? AS along', args: [file] });
		// What is blanked or taken out leaves nothing behind in the file.
		await client.execute('PRAGMA along.secure_delete = on');
		const { rows: parts } = await client.execute(
			"select type, name, tbl_name as 'table', sql from main.sqlite_master where sql is not null and name not like 'sqlite_%' order by type = 'table' desc, type = 'index' desc, rowid"
		);
		const { rows: ofTree } = await client.execute(
			"select m.name as name from main.sqlite_master m join pragma_table_info(m.name) c on c.name = 'treeId' where m.type = 'table'"
		);
		const withTree = new Set(ofTree.map(({ name }) => String(name)));
		const statements: InStatement[] = [
			'CREATE TABLE along."chosen" ("id" text primary key)',
			{
				sql: `insert or ignore into along."chosen" select t."id" from main."tree" t order by t."state" = 'in-care' desc, coalesce((
					select min(k."toOn") from main."task" k where k."treeId" = t."id" and k."state" = 'open'), '9999'), t."tag" limit ?`,
				args: [mostTrees]
			},
			// Trees that share a pot are reckoned together.
			`insert or ignore into along."chosen" select m."id" from main."tree" m where trim(m."sharedPot") <> '' and lower(trim(m."sharedPot")) in (
				select lower(trim(t."sharedPot")) from main."tree" t join along."chosen" c on c."id" = t."id" where trim(t."sharedPot") <> '')`
		];
		for (const { type, name, table, sql } of parts) {
			// Every statement names what it makes right behind its first words.
			const made = String(sql).replace(
				/^(CREATE (?:UNIQUE )?(?:TABLE|INDEX|TRIGGER))(?: IF NOT EXISTS)? [`"]?\w+[`"]?/i,
				(_, words: string) => `${words} along."${String(name)}"`
			);
			statements.push(made);
			if (type !== 'table' || staysHere.has(String(table))) continue;
			const chosen = withTree.has(String(name))
				? `where "treeId" is null or "treeId" in (select "id" from along."chosen")`
				: name === 'tree'
					? `where "id" in (select "id" from along."chosen")`
					: name === 'setting'
						? `where "key" not in (${SECRET_SETTINGS})`
						: name === 'reading_hour'
							? `where "hour" >= '${addDays(on, -READING_DAYS)}'`
							: '';
			statements.push(`insert into along."${String(name)}" select * from main."${String(name)}" ${chosen}`);
			const hash = blank[String(name)];
			// As long as one and different from each other, and no key's.
			if (hash)
				statements.push(
					`update along."${String(name)}" set "${hash}" = lower(hex(substr("id" || printf('%032d', rowid), 1, 32)))`
				);
		}
		// What a device was before it was changed stands in the journal, with its hash.
		for (const hash of Object.values(blank))
			statements.push(`update along."journal" set "changes" = null where instr("changes", '"${hash}"') > 0`);
		await client.batch(statements, 'write');
		// What hangs on something that stayed, stays too.
		for (let left = 1; left > 0;) {
			const { rows } = await client.execute('PRAGMA along.foreign_key_check');
			left = rows.length;
			if (left > 0)
				await client.batch(
					rows.map(({ table, rowid }) => ({
						sql: `delete from along."${String(table)}" where rowid = ?`,
						args: [Number(rowid)]
					})),
					'write'
				);
		}
		const { rows } = await client.execute(
			'select (select count(*) from along."tree") as trees, (select count(*) from main."tree") as ofTrees'
		);
		await client.execute('DROP TABLE along."chosen"');
		await client.execute('DETACH along');
		return {
			bytes: await readFile(file),
			trees: Number(rows[0]?.trees),
			ofTrees: Number(rows[0]?.ofTrees)
		};
	} finally {
		client.close();
		await rm(folder, { recursive: true, force: true });
	}
}

/** By what a copy of the yard is known to be of now: counts of what was written, and the day. */
export async function yardPrint(db: Reader, on: string): Promise<string> {
	const [row] = await db.all<Record<string, number | string | null>>(sql`select
		(select sum("count") from "revision") as written, (select max(rowid) from "journal") as told,
		(select count(*) from "journal") as entries, (select max(rowid) from "reading") as readings,
		(select group_concat("key" || "value") from "value_override") as numbers,
		(select group_concat("key" || "value") from "setting" where "key" not in (${sql.raw(SECRET_SETTINGS)})) as settings`);
	return createHash('sha256')
		.update(JSON.stringify([on, row]))
		.digest('hex')
		.slice(0, 24);
}
