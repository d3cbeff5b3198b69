import exifr from 'exifr';
import { createHash, randomUUID } from 'node:crypto';
import { mkdir, readdir, readFile, rename, stat, unlink, writeFile } from 'node:fs/promises';
import path from 'node:path';
import sharp, { type Metadata } from 'sharp';
import type { Rgba } from '../core/examine/pictures/raster';
import {
	CAMERA_TAGS,
	cameraSays,
	focalShareOf,
	greenShare,
	KEPT_PX,
	PICTURE_BYTES,
	PICTURE_PIXELS,
	PICTURE_SIDE_PX,
	SMALL_PX,
	type Picture,
	type PictureInput
} from '../core/take-in/picture';
import { and, eq } from 'drizzle-orm';
import type { Reader, Store } from './db/database';
import * as tables from './db/schema';
import { invalid, Refusal } from './errors';
import { pictures } from './records/records';
import { doWork, takeOut } from './records/work';
import { refuseDate, requireTree } from './trees';

/** Pictures lie beside the database; a remote one keeps them under `data`. */
export function picturesFolder(): string {
	const given = process.env.BRUNTLE_PICTURES;
	if (given) return path.resolve(given);
	const url = process.env.DATABASE_URL ?? 'file:data/bruntle.db';
	return url.startsWith('file:')
		? path.join(path.dirname(path.resolve(url.slice('file:'.length))), 'pictures')
		: path.resolve('data/pictures');
}

const fileOf = (hash: string, small: boolean): string =>
	path.join(picturesFolder(), `${hash}${small ? '.small' : ''}.jpg`);

const refused = (message: string, field = 'file'): Refusal => invalid([{ field, message }]);

export interface ReadPicture {
	jpeg: Buffer;
	small: Buffer;
	widthPx: number;
	heightPx: number;
	greenness: number | null;
	/** Day on which the camera says it was taken; null where it does not. */
	takenOn: string | null;
	/** Focal length on 35 mm film as the camera says it, mm; null where it does not. */
	focal35Mm: number | null;
}

const PNG_HEAD = Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]);
/** Chunks of a PNG that hold packed text or colour profiles: a few kilobytes of them may unpack to gigabytes. */
const PACKED_CHUNKS = ['iCCP', 'zTXt', 'iTXt'];

/**
 * A PNG without what it carries packed beside its pixels; anything else as it is. A file that breaks off is left to its reader.
 * @see PNG specification, ISO/IEC 15948:2004, 5.3: length, type, data, CRC
 */
function withoutPacked(bytes: Buffer): Buffer {
	if (!bytes.subarray(0, PNG_HEAD.length).equals(PNG_HEAD)) return bytes;
	const kept: Buffer[] = [PNG_HEAD];
	for (let at = PNG_HEAD.length; at + 12 <= bytes.length;) {
		const end = at + 12 + bytes.readUInt32BE(at);
		if (!PACKED_CHUNKS.includes(bytes.toString('latin1', at + 4, at + 8))) kept.push(bytes.subarray(at, end));
		at = end;
	}
	return Buffer.concat(kept);
}

let reading: Promise<unknown> = Promise.resolve();
/** One picture after the other: several large ones at once would take the memory of the machine. */
function inTurn<T>(work: () => Promise<T>): Promise<T> {
	const run = reading.then(work);
	reading = run.catch(() => undefined);
	return run;
}
/** Longest time that one picture is worked on, s. */
const MOST_S = 20;

/**
 * Reads a picture as it was sent: turned upright, made smaller, and with everything but the light taken off, so that no place
 * goes with it.
 * @throws Refusal 422 an empty, too large, broken or foreign file
 */
export async function readPicture(sent: Buffer): Promise<ReadPicture> {
	if (sent.length === 0) throw refused('must not be empty: the file holds nothing');
	if (sent.length > PICTURE_BYTES) throw refused(`must be at most ${PICTURE_BYTES / 1024 / 1024} MB`);
	return inTurn(() => readWithin(withoutPacked(sent)));
}

const readerOptions = { limitInputPixels: PICTURE_PIXELS, failOn: 'error' as const };

/** What a file says of its picture. @throws Refusal 422 a foreign or too large one */
async function soundFormat(bytes: Buffer, field?: string): Promise<Metadata> {
	const tooMany = refused(`must be at most ${PICTURE_PIXELS / 1_000_000} million pixels`, field);
	const format = await sharp(bytes, readerOptions)
		.metadata()
		.catch((cause: unknown) => {
			if (cause instanceof Error && /pixel limit/i.test(cause.message)) throw tooMany;
			return null;
		});
	if (!format) {
		if (/^....ftyp(heic|heix|hevc|mif1|msf1)/s.test(bytes.subarray(0, 16).toString('latin1')))
			throw refused('is HEIC, which cannot be read here: have the camera send JPEG', field);
		throw refused('must be a picture: JPEG, PNG or WebP', field);
	}
	if (format.width * format.height > PICTURE_PIXELS) throw tooMany;
	if (Math.max(format.width, format.height) > PICTURE_SIDE_PX)
		throw refused(`must be at most ${PICTURE_SIDE_PX} pixels long and wide`, field);
	if (!['jpeg', 'png', 'webp'].includes(format.format)) throw refused('must be JPEG, PNG or WebP', field);
	return format;
}
const isBroken = 'is broken: it could not be read to its end';

/**
 * The pixels of a picture that is sent to be measured in and not kept, turned upright.
 * @param sent the file, not read yet
 * @param field what the caller calls it
 * @throws Refusal 422 an empty, too large, broken or foreign file
 */
export async function pixelsOf(sent: Buffer, field: string): Promise<Rgba> {
	if (sent.length === 0) throw refused('must not be empty', field);
	const bytes = withoutPacked(sent);
	const { width, height } = await soundFormat(bytes, field);
	if (width * height > MEASURED_PIXELS)
		throw refused(`must be at most ${MEASURED_PIXELS / 1_000_000} million pixels to be measured in`, field);
	try {
		const { data, info } = await sharp(bytes, readerOptions)
			.timeout({ seconds: MOST_S })
			.rotate()
			.flatten({ background: '#ffffff' })
			.toColourspace('srgb')
			.ensureAlpha()
			.raw()
			.toBuffer({ resolveWithObject: true });
		return { width: info.width, height: info.height, data };
	} catch {
		throw refused(isBroken, field);
	}
}
/** Largest picture that is measured in for who asks from outside: that of most phones. */
const MEASURED_PIXELS = 16_000_000;

async function readWithin(bytes: Buffer): Promise<ReadPicture> {
	const options = readerOptions;
	const format = await soundFormat(bytes);
	try {
		// Written anew, so that nothing of what the file carried beside the light comes along.
		const { data: jpeg, info } = await sharp(bytes, options)
			.timeout({ seconds: MOST_S })
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
			...(await cameraOf(format.exif))
		};
	} catch (cause) {
		if (cause instanceof Refusal) throw cause;
		throw refused(isBroken);
	}
}

const roundTo = (value: number | null): number | null =>
	value === null ? null : Math.round(value * 1000) / 1000;

/** What the camera wrote into its file; nothing where that cannot be read. */
async function cameraOf(exif: Buffer | undefined): Promise<ReturnType<typeof cameraSays>> {
	if (!exif) return cameraSays(undefined);
	try {
		// Behind six bytes of its own name it is a TIFF.
		const tiff = exif.subarray(exif.toString('latin1', 0, 4) === 'Exif' ? 6 : 0);
		return cameraSays(await exifr.parse(tiff, { pick: CAMERA_TAGS, reviveValues: false }));
	} catch {
		return cameraSays(undefined);
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
	{
		focal35Mm,
		...input
	}: Omit<PictureInput, 'takenOn'> & { takenOn: string | null; focal35Mm?: number | null },
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
				greenness: read.greenness,
				focalShare: focalShareOf(focal35Mm ?? read.focal35Mm, read.widthPx, read.heightPx)
			});
		}
	);
	return { picture: result, entryId };
}

/** Takes a picture out of the record; undo brings it back, so its file stays. @throws Refusal 404, 409 */
export const removePicture = (store: Store, treeId: string, id: string, version: number): Promise<string> =>
	takeOut(store, pictures, { treeId, id, version }, 'recovery');

/** Whether a picture of this name is in the record of any tree: one that was taken out is not given away any more. */
export async function pictureIsKept(db: Reader, hash: string): Promise<boolean> {
	const [one] = await db
		.select({ id: tables.picture.id })
		.from(tables.picture)
		.where(eq(tables.picture.hash, hash))
		.limit(1);
	return one !== undefined;
}

/** Whether a picture of this name is in the record of one tree. */
export async function isPictureOf(db: Reader, hash: string, treeId: string): Promise<boolean> {
	const [one] = await db
		.select({ id: tables.picture.id })
		.from(tables.picture)
		.where(and(eq(tables.picture.hash, hash), eq(tables.picture.treeId, treeId)))
		.limit(1);
	return one !== undefined;
}

/** What stands in the place of a picture whose file is not here. */
const MISSING = `<svg xmlns="http://www.w3.org/2000/svg" width="480" height="320" viewBox="0 0 480 320"><rect width="480" height="320" fill="#e6dcc8"/><g font-family="sans-serif" font-size="22" fill="#231c17" text-anchor="middle"><text x="240" y="150">The file of this picture</text><text x="240" y="184">is not here.</text></g></svg>`;

/** A picture as it is sent. It never changes, so that it may be kept. */
export async function answerPicture(hash: string, small: boolean): Promise<Response> {
	const file = await pictureFile(hash, small);
	return file
		? new Response(new Uint8Array(file), {
				headers: { 'content-type': 'image/jpeg', 'cache-control': 'private, max-age=86400' }
			})
		: new Response(MISSING, {
				status: 404,
				headers: { 'content-type': 'image/svg+xml', 'cache-control': 'no-store' }
			});
}

/** Bytes of the file of a picture; null where it is gone. */
export async function pictureBytes(hash: string): Promise<number | null> {
	try {
		return (await stat(fileOf(hash, false))).size;
	} catch {
		// A phone that is alone knows no sizes.
		return (await pictureFile(hash, false))?.length ?? null;
	}
}

/** The file of a picture; null where it is gone. */
export async function pictureFile(hash: string, small: boolean): Promise<Buffer | null> {
	try {
		return await readFile(fileOf(hash, small));
	} catch {
		return null;
	}
}
