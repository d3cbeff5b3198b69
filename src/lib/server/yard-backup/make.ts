import { createClient, type Client } from '@libsql/client';
import { constants, createReadStream, existsSync } from 'node:fs';
import { copyFile, link, mkdir, readdir, readFile, rename, rm, stat, writeFile } from 'node:fs/promises';
import { createHash } from 'node:crypto';
import path from 'node:path';
import { z } from 'zod';
import { instant } from '../../core/vocabulary/fields';
import { keptBackups } from './kept';

/** What a backup was proved by, kept beside it. */
export const backupProof = z.strictObject({
	madeAt: instant(),
	/** Bytes of the database, and of the files of pictures. */
	bytes: z.number().int(),
	pictureBytes: z.number().int(),
	/** Rows of each table, counted in the copy. */
	rows: z.record(z.string(), z.number().int()),
	/** SHA-256 of the copy. */
	sha256: z.string().length(64),
	/** Names of the pictures that go with it, and how many had no file. */
	pictures: z.array(z.string().regex(/^[0-9a-f]{64}$/)),
	missingPictures: z.number().int()
});
export type BackupProof = z.infer<typeof backupProof>;

/** A backup that cannot be made or read, in a sentence. */
export class BackupFault extends Error {}

const fileNameOf = (madeAt: string): string =>
	`yard-${madeAt.slice(0, 19).replace(/[-:]/g, '').replace('T', '-')}`;
/** Where the copy of an instant lies. */
export const backupFile = (folder: string, madeAt: string): string =>
	path.join(folder, `${fileNameOf(madeAt)}.db`);
const proofFile = (folder: string, madeAt: string): string => path.join(folder, `${fileNameOf(madeAt)}.json`);
const PICTURE = /^([0-9a-f]{64})(\.small)?\.jpg$/;

/** Rows of each table of a database. */
export async function countRows(client: Client): Promise<Record<string, number>> {
	const { rows } = await client.execute(
		"select name from sqlite_master where type = 'table' and name not like 'sqlite_%' order by name"
	);
	const counts: Record<string, number> = {};
	for (const { name } of rows) {
		const { rows: found } = await client.execute(`select count(*) as n from "${String(name)}"`);
		counts[String(name)] = Number(found[0]?.n);
	}
	return counts;
}

/** Looks whether a copy is whole, and counts it. @throws BackupFault */
export async function lookThrough(
	file: string
): Promise<{ rows: Record<string, number>; pictures: string[] }> {
	const copy = createClient({ url: `file:${file}` });
	try {
		const { rows: checked } = await copy.execute('PRAGMA integrity_check(1)');
		if (checked[0]?.integrity_check !== 'ok') throw new BackupFault('The copy is not whole.');
		const rows = await countRows(copy);
		const { rows: pictures } =
			'picture' in rows
				? await copy.execute('select distinct hash from picture order by hash')
				: { rows: [] };
		return { rows, pictures: pictures.map(({ hash }) => String(hash)) };
	} finally {
		copy.close();
	}
}

/** SHA-256 of a file, read piece by piece. */
export async function sha256Of(file: string): Promise<string> {
	const sum = createHash('sha256');
	for await (const piece of createReadStream(file)) sum.update(piece as Buffer);
	return sum.digest('hex');
}

/** What a backup is made of, and where it goes. */
export interface BackupTask {
	/** Path of the database. */
	database: string;
	picturesFolder: string;
	folder: string;
	madeAt: string;
}

/**
 * Copies a yard while it runs: the database by SQLite’s own means, and the files of its pictures once for all backups. The copy is
 * opened and counted before it bears its name; older ones that are not kept go.
 * @throws BackupFault
 */
export async function makeBackup({
	database,
	picturesFolder,
	folder,
	madeAt
}: BackupTask): Promise<BackupProof> {
	await mkdir(path.join(folder, 'pictures'), { recursive: true, mode: 0o700 });
	const making = path.join(folder, '.making.db');
	// Left by one that was cut off.
	await rm(making, { force: true });
	try {
		const source = createClient({ url: `file:${database}`, timeout: 10_000 });
		let span: [Record<string, number>, Record<string, number>];
		try {
			const before = await countRows(source);
			await source.execute({ sql: 'VACUUM INTO ?', args: [making] });
			span = [before, await countRows(source)];
		} finally {
			source.close();
		}
		const { rows, pictures } = await lookThrough(making);
		refuseMissing(rows, span);
		const kept = await keepPictures(pictures, picturesFolder, path.join(folder, 'pictures'));
		const proof: BackupProof = {
			madeAt,
			bytes: (await stat(making)).size,
			rows,
			sha256: await sha256Of(making),
			pictures,
			...kept
		};
		await rename(making, backupFile(folder, madeAt));
		await writeFile(proofFile(folder, madeAt), JSON.stringify(proof));
		await dropOlder(folder);
		return proof;
	} finally {
		await rm(making, { force: true });
	}
}

/** Between the two countings of the yard somebody may have written; the copy lies between them. */
function refuseMissing(
	rows: Record<string, number>,
	[before, after]: [Record<string, number>, Record<string, number>]
): void {
	for (const table of Object.keys(before)) {
		const counts = [before[table] ?? 0, after[table] ?? 0];
		const own = rows[table] ?? -1;
		if (own < Math.min(...counts) || own > Math.max(...counts))
			throw new BackupFault(`The copy has ${own} rows of ${table}, the yard ${counts.join(' to ')}.`);
	}
}

/** A file under its hash never changes: each is kept once, as another name of the same file where the disk can do that. */
async function keepPictures(
	hashes: readonly string[],
	from: string,
	to: string
): Promise<{ pictureBytes: number; missingPictures: number }> {
	let [pictureBytes, missingPictures] = [0, 0];
	for (const hash of hashes) {
		let whole = true;
		for (const name of [`${hash}.jpg`, `${hash}.small.jpg`]) {
			const [source, copy] = [path.join(from, name), path.join(to, name)];
			if (!existsSync(copy)) {
				if (!existsSync(source)) {
					whole = false;
					continue;
				}
				await link(source, copy).catch(() => copyFile(source, copy, constants.COPYFILE_FICLONE));
			}
			pictureBytes += (await stat(copy)).size;
		}
		if (!whole) missingPictures++;
	}
	return { pictureBytes, missingPictures };
}

/** Backups that are there, the newest first. One whose proof cannot be read is left out. */
export async function listBackups(folder: string): Promise<BackupProof[]> {
	const names = await readdir(folder).catch(() => [] as string[]);
	const found: BackupProof[] = [];
	for (const name of names.filter((one) => /^yard-\d{8}-\d{6}\.json$/.test(one))) {
		const proof = backupProof.safeParse(readJson(await readFile(path.join(folder, name), 'utf8')));
		if (proof.success && existsSync(backupFile(folder, proof.data.madeAt))) found.push(proof.data);
	}
	return found.sort((a, b) => (a.madeAt < b.madeAt ? 1 : -1));
}

function readJson(text: string): unknown {
	try {
		return JSON.parse(text);
	} catch {
		return null;
	}
}

/** Takes away what is not kept any longer, and pictures that no backup has. */
async function dropOlder(folder: string): Promise<void> {
	const all = await listBackups(folder);
	const kept = keptBackups(all.map(({ madeAt }) => madeAt));
	for (const { madeAt } of all)
		if (!kept.has(madeAt))
			for (const file of [backupFile(folder, madeAt), proofFile(folder, madeAt)])
				await rm(file, { force: true });
	const wanted = new Set(all.filter(({ madeAt }) => kept.has(madeAt)).flatMap(({ pictures }) => pictures));
	for (const name of await readdir(path.join(folder, 'pictures'))) {
		const hash = PICTURE.exec(name)?.[1];
		if (hash && !wanted.has(hash)) await rm(path.join(folder, 'pictures', name), { force: true });
	}
}
