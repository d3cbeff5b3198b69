import { createWriteStream, existsSync } from 'node:fs';
import { mkdir, readdir, readFile, rename, rm } from 'node:fs/promises';
import path from 'node:path';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { ZipFile } from 'yazl';
import { checkFile, holdAlone, NotOpened } from '../db/opening';
import { openZip } from '../zip';
import {
	backupFile,
	backupProof,
	BackupFault,
	lookThrough,
	makeBackup,
	sha256Of,
	type BackupProof
} from './make';

const DATABASE = 'yard.db';
const PROOF = 'proof.json';
const PICTURE = /^pictures\/([0-9a-f]{64})(\.small)?\.jpg$/;

/**
 * A backup as one file: a ZIP archive of its database, its proof and its pictures.
 * @returns the archive, as it is read
 */
export function packBackup(folder: string, proof: BackupProof): Readable {
	const zip = new ZipFile();
	const mtime = new Date(proof.madeAt);
	zip.addBuffer(Buffer.from(JSON.stringify(proof)), PROOF, { mtime });
	zip.addFile(backupFile(folder, proof.madeAt), DATABASE, { mtime });
	for (const hash of proof.pictures)
		for (const name of [`pictures/${hash}.jpg`, `pictures/${hash}.small.jpg`])
			// They are packed already.
			if (existsSync(path.join(folder, name)))
				zip.addFile(path.join(folder, name), name, { mtime, compress: false });
	zip.end();
	return Readable.from(zip.outputStream);
}

/** Makes a backup of a yard into one file, whether it runs or not. @throws BackupFault it stands there already */
export async function backupInto(
	file: string,
	task: { database: string; picturesFolder: string; madeAt: string }
): Promise<BackupProof> {
	if (!existsSync(task.database)) throw new BackupFault(`There is no yard at ${task.database}.`);
	if (existsSync(file))
		throw new BackupFault(`${file} stands there already. Give another name; it was not touched.`);
	const folder = `${file}.making`;
	try {
		// Not its parents too: where those are not there, the name was mistyped.
		await mkdir(folder, { mode: 0o700 });
		const proof = await makeBackup({ ...task, folder });
		await pipeline(
			packBackup(folder, proof),
			createWriteStream(`${file}.part`, { flags: 'wx', mode: 0o600, flush: true })
		);
		await rename(`${file}.part`, file);
		return proof;
	} finally {
		await rm(folder, { recursive: true, force: true });
		await rm(`${file}.part`, { force: true });
	}
}

/** Unpacks a backup file into a folder; only what belongs into one is taken out of it. @throws BackupFault */
async function unpack(file: string, folder: string): Promise<void> {
	await mkdir(path.join(folder, 'pictures'), { recursive: true, mode: 0o700 });
	try {
		const zip = await openZip(file);
		try {
			for (const name of zip.names)
				if (name === DATABASE || name === PROOF || PICTURE.test(name))
					await pipeline(await zip.stream(name), createWriteStream(path.join(folder, name), { mode: 0o600 }));
		} finally {
			zip.close();
		}
	} catch {
		throw new BackupFault(`${file} is no backup of a yard, or it is damaged. Nothing was restored.`);
	}
}

/** The proof of what was unpacked, held against it. @throws BackupFault */
async function prove(folder: string, file: string, migrations: string): Promise<BackupProof> {
	const [database, said] = [path.join(folder, DATABASE), path.join(folder, PROOF)];
	if (!existsSync(database) || !existsSync(said))
		throw new BackupFault(`${file} is no backup of a yard, or it is damaged. Nothing was restored.`);
	const proof = backupProof.parse(JSON.parse(await readFile(said, 'utf8')));
	if ((await sha256Of(database)) !== proof.sha256)
		throw new BackupFault(
			`${file} is damaged: its database is not the one that was backed up. Nothing was restored.`
		);
	for (const name of await readdir(path.join(folder, 'pictures'))) {
		const hash = PICTURE.exec(`pictures/${name}`);
		if (hash && !hash[2] && (await sha256Of(path.join(folder, 'pictures', name))) !== hash[1])
			throw new BackupFault(
				`${file} is damaged: a picture in it is another than it was. Nothing was restored.`
			);
	}
	await checkFile(database, migrations);
	const { rows } = await lookThrough(database);
	for (const [table, count] of Object.entries(proof.rows))
		if (rows[table] !== count)
			throw new BackupFault(
				`${file} has ${rows[table] ?? 0} rows of ${table} instead of ${count}. Nothing was restored.`
			);
	return proof;
}

/**
 * Restores a yard from a backup file into a folder, and proves it equal before it stands there.
 * @param to its data folder and the path of the database in it
 * @param replace puts it in place of a yard that stands there; that one is set aside, never deleted
 * @returns what was proved, and where the yard before is kept
 * @throws BackupFault
 */
export async function restoreFrom(
	file: string,
	to: { folder: string; database: string },
	{ replace, migrations, at }: { replace: boolean; migrations: string; at: Date }
): Promise<{ proof: BackupProof; aside: string | null }> {
	if (!existsSync(file)) throw new BackupFault(`There is no file ${file}.`);
	const there = existsSync(to.database);
	if (there && !replace)
		throw new BackupFault(
			`A yard stands in ${to.folder} already. Give another folder with --data, or set that yard aside with --replace.`
		);
	const making = path.join(to.folder, `.restoring-${process.pid}`);
	try {
		await mkdir(to.folder, { recursive: true, mode: 0o700 });
		await holdAlone(to.database);
		await unpack(file, making);
		const proof = await prove(making, file, migrations);
		const pictures = path.join(to.folder, 'pictures');
		const aside =
			there || existsSync(pictures)
				? path.join(to.folder, `before-${at.toISOString().slice(0, 19).replace(/[-:]/g, '')}`)
				: null;
		if (aside) {
			await mkdir(aside, { mode: 0o700 });
			for (const ending of ['', '-wal', '-shm'])
				if (existsSync(to.database + ending))
					await rename(to.database + ending, path.join(aside, path.basename(to.database) + ending));
			if (existsSync(pictures)) await rename(pictures, path.join(aside, 'pictures'));
		}
		await rename(path.join(making, 'pictures'), pictures);
		await rename(path.join(making, DATABASE), to.database);
		return { proof, aside };
	} catch (cause) {
		if (cause instanceof NotOpened) throw new BackupFault(cause.message);
		throw cause;
	} finally {
		await rm(making, { recursive: true, force: true });
	}
}
