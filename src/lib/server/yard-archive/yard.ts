import { randomUUID } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { appendFile, mkdir, readdir, rm, stat } from 'node:fs/promises';
import path from 'node:path';
import { z } from 'zod';
import { now } from '../clock';
import type { Store } from '../db/database';
import { Refusal } from '../errors';
import { picturesFolder } from '../pictures';
import { archiveApart } from '../threads';
import type { About } from './parts';
import { lookIntoArchive, readArchive, standsHere, type ArchiveSeen } from './read';

const GIGABYTE = 1024 * 1024 * 1024;
/** Largest archive that is read in, bytes. */
const MOST_BYTES = 16 * GIGABYTE;
/** Largest piece of one that is sent at once, bytes. */
export const MOST_PIECE = 16 * 1024 * 1024;

/** The name under which an archive is sent, piece by piece. */
export const sendingName = () =>
	z.string().regex(/^\d{1,10}(-\d{1,10}){3}$/, { error: 'must be a file that was sent' });

/** Where archives lie while they are made, sent and read: beside the pictures, on a disk that has room for a yard. */
const folderOf = (): string => path.join(path.dirname(picturesFolder()), 'archive');
const fileOf = (sending: string): string => path.join(folderOf(), `${sending}.zip`);

/** Makes the archive of the yard as it stands. @returns it as it is read, gone once it was @throws Refusal 503 */
export async function archiveOf(
	store: Store
): Promise<{ stream: ReadableStream; bytes: number; madeAt: string }> {
	const [file, madeAt] = [fileOf(randomUUID()), now().toISOString()];
	try {
		await mkdir(folderOf(), { recursive: true, mode: 0o700 });
		await sweep();
		await archiveApart({ url: store.url, picturesFolder: picturesFolder(), file, madeAt });
		const { size } = await stat(file);
		return { stream: streamed(file), bytes: size, madeAt };
	} catch (cause) {
		await rm(file, { force: true });
		console.error('The archive was not made:', cause);
		throw new Refusal(
			503,
			'The archive could not be made.',
			'Is there room on the disk, and may Bruntle write beside its database?'
		);
	}
}

const DAY_MS = 86_400_000;
/** Takes away what a day ago was broken off: a server that was killed, or somebody who sent half. */
async function sweep(): Promise<void> {
	for (const name of await readdir(folderOf())) {
		const file = path.join(folderOf(), name);
		const { mtimeMs } = await stat(file);
		if (Date.now() - mtimeMs > DAY_MS) await rm(file, { force: true });
	}
}

/** A file piece by piece; it goes when it was read, or nobody reads on. */
function streamed(file: string): ReadableStream {
	const pieces = createReadStream(file)[Symbol.asyncIterator]() as AsyncIterator<Buffer>;
	const end = async (): Promise<void> => {
		await pieces.return?.();
		await rm(file, { force: true });
	};
	return new ReadableStream({
		async pull(controller) {
			try {
				const { value, done } = await pieces.next();
				if (done) {
					await end();
					controller.close();
				} else controller.enqueue(new Uint8Array(value));
			} catch (cause) {
				controller.error(cause);
				await end();
			}
		},
		cancel: end
	});
}

/**
 * Takes a piece of an archive that is sent to be read in. The first begins it, and what was sent before goes.
 * @param at bytes that are there already; the same piece twice is taken once
 * @returns bytes that are there now
 * @throws Refusal 409 another piece is wanted, or another archive · 413 · 507
 */
export async function takePiece(sending: string, at: number, piece: Buffer): Promise<number> {
	const file = fileOf(sending);
	if (at + piece.length > MOST_BYTES)
		throw new Refusal(413, 'This archive is too large to be read in here.', 'Nothing was read in.');
	try {
		await mkdir(folderOf(), { recursive: true, mode: 0o700 });
		if (at === 0)
			for (const name of await readdir(folderOf())) await rm(path.join(folderOf(), name), { force: true });
		const there =
			at === 0
				? 0
				: await stat(file).then(
						({ size }) => size,
						() => -1
					);
		if (there === at + piece.length) return there;
		if (there !== at)
			throw new Refusal(409, 'Pieces of this archive are missing.', 'Choose it again; nothing was read in.');
		await appendFile(file, piece, { mode: 0o600 });
		return at + piece.length;
	} catch (cause) {
		if (cause instanceof Refusal) throw cause;
		console.error('A piece of an archive was not kept:', cause);
		throw new Refusal(
			507,
			'The archive could not be put down.',
			'Is there room on the disk, and may Bruntle write beside its database? Nothing was read in.'
		);
	}
}

/** The file of an archive that was sent. @throws Refusal 409 it is not there */
async function sentFile(sending: string): Promise<string> {
	const file = fileOf(sending);
	if (!(await stat(file).catch(() => null)))
		throw new Refusal(409, 'The archive is not here any more.', 'Choose it again; nothing was read in.');
	return file;
}

/** Looks into an archive that was sent, and whether this yard has room for it. @throws Refusal */
export async function lookIntoSent(
	store: Store,
	sending: string
): Promise<ArchiveSeen & { stands: string | null }> {
	const seen = await lookIntoArchive(await sentFile(sending));
	return { ...seen, stands: await standsHere(store.db) };
}

/** Reads in an archive that was sent. @throws Refusal */
export async function readSent(store: Store, sending: string): Promise<About> {
	const file = await sentFile(sending);
	const about = await readArchive(store, file);
	await rm(file, { force: true });
	return about;
}
