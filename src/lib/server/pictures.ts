import exifr from 'exifr';
import { createHash, randomUUID } from 'node:crypto';
import { mkdir, readdir, readFile, rename, stat, unlink, writeFile } from 'node:fs/promises';
import path from 'node:path';
import sharp from 'sharp';
import {
	greenShare,
	KEPT_PX,
	PICTURE_BYTES,
	PICTURE_PIXELS,
	SMALL_PX,
	type Picture,
	type PictureInput
} from '../core/take-in/picture';
import type { Store } from './db/database';
import { invalid, Refusal } from './errors';
import { pictures } from './records/records';
import { doWork, takeOut } from './records/work';
import { refuseDate, requireTree } from './trees';

/** Pictures lie beside the database; a remote one keeps them under `data`. */
function picturesFolder(): string {
	const given = process.env.BRUNTLE_PICTURES;
	if (given) return path.resolve(given);
	const url = process.env.DATABASE_URL ?? 'file:data/bruntle.db';
	return url.startsWith('file:')
		? path.join(path.dirname(path.resolve(url.slice('file:'.length))), 'pictures')
		: path.resolve('data/pictures');
}

const fileOf = (hash: string, small: boolean): string =>
	path.join(picturesFolder(), `${hash}${small ? '.small' : ''}.jpg`);

const refused = (message: string): Refusal => invalid([{ field: 'file', message }]);

export interface ReadPicture {
	jpeg: Buffer;
	small: Buffer;
	widthPx: number;
	heightPx: number;
	greenness: number | null;
	/** Day on which the camera says it was taken; null where it does not. */
	takenOn: string | null;
}

/**
 * Reads a picture as it was sent: turned upright, made smaller, and with everything but the light taken off, so that no place
 * goes with it.
 * @throws Refusal 422 an empty, too large, broken or foreign file
 */
export async function readPicture(bytes: Buffer): Promise<ReadPicture> {
	if (bytes.length === 0) throw refused('must not be empty: the file holds nothing');
	if (bytes.length > PICTURE_BYTES) throw refused(`must be at most ${PICTURE_BYTES / 1024 / 1024} MB`);
	const options = { limitInputPixels: PICTURE_PIXELS, failOn: 'error' as const };
	const tooMany = refused(`must be at most ${PICTURE_PIXELS / 1_000_000} million pixels`);
	const format = await sharp(bytes, options)
		.metadata()
		.catch((cause: unknown) => {
			if (cause instanceof Error && /pixel limit/i.test(cause.message)) throw tooMany;
			return null;
		});
	if (!format) {
		if (/^....ftyp(heic|heix|hevc|mif1|msf1)/s.test(bytes.subarray(0, 16).toString('latin1')))
			throw refused('is HEIC, which cannot be read here: have the camera send JPEG');
		throw refused('must be a picture: JPEG, PNG or WebP');
	}
	if ((format.width ?? 0) * (format.height ?? 0) > PICTURE_PIXELS) throw tooMany;
	if (!['jpeg', 'png', 'webp'].includes(format.format ?? '')) throw refused('must be JPEG, PNG or WebP');
	try {
		// Written anew, so that nothing of what the file carried beside the light comes along.
		const { data: jpeg, info } = await sharp(bytes, options)
			.rotate()
			.flatten({ background: '#ffffff' })
			.resize(KEPT_PX, KEPT_PX, { fit: 'inside', withoutEnlargement: true })
			.jpeg({ quality: 84, mozjpeg: true })
			.toBuffer({ resolveWithObject: true });
		const small = await sharp(jpeg)
			.resize(SMALL_PX, SMALL_PX, { fit: 'inside', withoutEnlargement: true })
			.jpeg({ quality: 78 })
			.toBuffer();
		// The middle of it: the tree, not the wall behind.
		const [w, h] = [info.width, info.height];
		const inner = {
			left: Math.floor(w / 4),
			top: Math.floor(h / 4),
			width: Math.max(1, Math.floor(w / 2)),
			height: Math.max(1, Math.floor(h / 2))
		};
		const { channels } = await sharp(await sharp(jpeg).extract(inner).toBuffer()).stats();
		const [red, green, blue] = channels;
		return {
			jpeg,
			small,
			widthPx: w,
			heightPx: h,
			greenness: red && green && blue ? roundTo(greenShare(red.mean, green.mean, blue.mean)) : null,
			takenOn: await dayTaken(bytes)
		};
	} catch (cause) {
		if (cause instanceof Refusal) throw cause;
		throw refused('is broken: it could not be read to its end');
	}
}

const roundTo = (value: number | null): number | null =>
	value === null ? null : Math.round(value * 1000) / 1000;

/** Day in the camera’s own time, without a zone: the calendar day of who took it. */
async function dayTaken(bytes: Buffer): Promise<string | null> {
	try {
		const read = (await exifr.parse(bytes, { pick: ['DateTimeOriginal'], reviveValues: false })) as
			{ DateTimeOriginal?: string } | undefined;
		const day = /^(\d{4})[:-](\d{2})[:-](\d{2})/.exec(read?.DateTimeOriginal ?? '');
		if (!day) return null;
		const text = `${day[1]}-${day[2]}-${day[3]}`;
		return Number.isNaN(Date.parse(text)) ? null : text;
	} catch {
		return null;
	}
}

/** Writes a file whole or not at all. */
async function place(file: string, data: Buffer): Promise<void> {
	await mkdir(path.dirname(file), { recursive: true });
	const aside = `${file}.${randomUUID()}`;
	await writeFile(aside, data);
	await rename(aside, file);
}

const DAY_MS = 86_400_000;

/**
 * Takes away what writes that broke off have left. A picture without a record stays: undo, or a copy of the database that is
 * put back, may want it.
 * @returns how many files went
 */
export async function sweepPictures(): Promise<number> {
	const names = await readdir(picturesFolder()).catch(() => [] as string[]);
	let gone = 0;
	for (const name of names) {
		if (!/\.jpg\.[0-9a-f-]{36}$/.test(name)) continue;
		const file = path.join(picturesFolder(), name);
		if (Date.now() - (await stat(file)).mtimeMs < DAY_MS) continue;
		await unlink(file);
		gone++;
	}
	return gone;
}

/** The name a picture is kept under: SHA-256 of its bytes, hexadecimal. */
export const hashOf = (data: Buffer): string => createHash('sha256').update(data).digest('hex');

/** Puts the files of a picture where they belong; the same picture twice is one file. */
export async function placePicture(jpeg: Buffer, small: Buffer): Promise<string> {
	const hash = hashOf(jpeg);
	try {
		await place(fileOf(hash, false), jpeg);
		await place(fileOf(hash, true), small);
	} catch {
		throw new Refusal(
			507,
			'The picture could not be written.',
			'Is there room on the disk, and may Bruntle write beside its database?'
		);
	}
	return hash;
}

/**
 * Keeps a picture of a tree. Without a day it takes that of the camera.
 * @throws Refusal 404, 422
 */
export async function keepPicture(
	store: Store,
	treeId: string,
	input: Omit<PictureInput, 'takenOn'> & { takenOn: string | null },
	bytes: Buffer,
	today: string
): Promise<{ picture: Picture; entryId: string }> {
	const read = await readPicture(bytes);
	const takenOn = input.takenOn ?? (read.takenOn !== null && read.takenOn <= today ? read.takenOn : today);
	const hash = await placePicture(read.jpeg, read.small);
	const { result, entryId } = await doWork(
		store,
		{ treeId, stage: 'recovery', on: takenOn, what: `Picture taken: ${input.view}` },
		async (work) => {
			refuseDate('takenOn', takenOn, await requireTree(work, treeId));
			return work.add(pictures, {
				...input,
				takenOn,
				hash,
				widthPx: read.widthPx,
				heightPx: read.heightPx,
				greenness: read.greenness
			});
		}
	);
	return { picture: result, entryId };
}

/** Takes a picture out of the record; undo brings it back, so its file stays. @throws Refusal 404, 409 */
export const removePicture = (store: Store, treeId: string, id: string, version: number): Promise<string> =>
	takeOut(store, pictures, { treeId, id, version }, 'recovery');

/** The file of a picture; null where it is gone. */
export async function pictureFile(hash: string, small: boolean): Promise<Buffer | null> {
	try {
		return await readFile(fileOf(hash, small));
	} catch {
		return null;
	}
}
