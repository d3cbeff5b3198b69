import { mkdtempSync, readdirSync, rmSync, utimesSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { crc32, deflateSync } from 'node:zlib';
import sharp from 'sharp';
import { beforeAll, describe, expect, it } from 'vitest';
import { cameraSays, focalShareOf, greenShare, viewsOf } from '$core/take-in/picture';
import { exportCase, importCase, picturesLeft } from '$lib/server/case-file';
import { Refusal } from '$lib/server/errors';
import {
	keepPicture,
	pictureFile,
	pictureIsKept,
	picturesFolder,
	readPicture,
	removePicture,
	sweepPictures
} from '$lib/server/pictures';
import { undo } from '$lib/server/records/work';
import { loadRecords } from '$lib/server/records/tree-records';
import { freshStore, storeWithTree } from './helpers';

let folder = '';
beforeAll(() => {
	folder = mkdtempSync(path.join(tmpdir(), 'bruntle-pictures-'));
	process.env.BRUNTLE_PICTURES = folder;
});
const on = '2026-04-18';
const fault = async (work: Promise<unknown>): Promise<string> => {
	try {
		await work;
	} catch (cause) {
		if (cause instanceof Refusal) return cause.problems[0]?.message ?? cause.message;
		throw cause;
	}
	throw new Error('nothing was refused');
};
const image = (width: number, height: number, background = '#338844') =>
	sharp({ create: { width, height, channels: 3, background } });
/** A PNG of these chunks, whatever they say [PNG specification, ISO/IEC 15948:2004, 5.3: length, type, data, CRC]. */
const png = (chunks: readonly (readonly [type: string, data: Buffer])[]): Buffer =>
	Buffer.concat([
		Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]),
		...chunks.flatMap(([type, data]) => {
			const [length, crc] = [Buffer.alloc(4), Buffer.alloc(4)];
			const named = Buffer.concat([Buffer.from(type, 'latin1'), data]);
			length.writeUInt32BE(data.length);
			crc.writeUInt32BE(crc32(named));
			return [length, named, crc];
		})
	]);

describe('a picture', () => {
	it('is turned upright, made smaller, and stripped of where it was taken; its day is kept', async () => {
		const sent = await image(3000, 1000)
			.withExif({
				IFD0: { Make: 'Camera' },
				IFD2: { DateTimeOriginal: '2026:04:02 17:05:00', FocalLengthIn35mmFilm: '26' },
				IFD3: { GPSLatitudeRef: 'N', GPSLatitude: '51/1 30/1 0/1' }
			})
			.jpeg()
			.toBuffer();
		const lying = await sharp(sent).keepExif().withMetadata({ orientation: 6 }).jpeg().toBuffer();
		expect((await sharp(sent).metadata()).exif).toBeDefined();
		const read = await readPicture(sent);
		const kept = await sharp(read.jpeg).metadata();
		expect(kept.exif).toBeUndefined();
		expect(Math.max(read.widthPx, read.heightPx)).toBe(2000);
		expect(read.widthPx).toBeGreaterThan(read.heightPx);
		// Sent lying on its side, it stands.
		const upright = await readPicture(lying);
		expect(upright.heightPx).toBeGreaterThan(upright.widthPx);
		expect(read.takenOn).toBe('2026-04-02');
		expect(read.focal35Mm).toBe(26);
		expect(Math.max((await sharp(read.small).metadata()).width, 0)).toBeLessThanOrEqual(480);
		// #338844 holds 0x88 of 0x33 + 0x88 + 0x44 of green.
		expect(read.greenness).toBeCloseTo(136 / (51 + 136 + 68), 2);
		expect(greenShare(10, 10, 10)).toBeCloseTo(1 / 3, 12);
		expect(greenShare(0, 0, 0)).toBeNull();
	});
	it('keeps the lens that its file says, of a picture of three to four and of one lying the other way (Exif 2.3, 36 by 24 mm film)', () => {
		// Of a diagonal of 43.27 mm the longer side of three to four is 34.61.
		expect(focalShareOf(26, 4000, 3000)).toBeCloseTo(26 / 34.61, 3);
		expect(focalShareOf(26, 3000, 4000)).toBeCloseTo(26 / 34.61, 3);
		expect(focalShareOf(36, 3600, 2400)).toBeCloseTo(1, 9);
		expect([null, 0, 4, 2001].map((mm) => focalShareOf(mm, 4000, 3000))).toEqual([null, null, null, null]);
		expect(cameraSays({ DateTimeOriginal: '2026:13:02 10:00', FocalLengthIn35mmFormat: 'wide' })).toEqual({
			takenOn: null,
			focal35Mm: null
		});
		expect(cameraSays({ DateTimeOriginal: 'on 2026:04:18 10:00' }).takenOn).toBeNull();
		expect(cameraSays(undefined)).toEqual({ takenOn: null, focal35Mm: null });
	});
	it('that is text, empty, broken, foreign or a bomb is refused in one sentence', async () => {
		expect(await fault(readPicture(Buffer.from('<script>alert(1)</script>')))).toMatch(/JPEG, PNG or WebP/);
		expect(await fault(readPicture(Buffer.alloc(0)))).toMatch(/must not be empty/);
		expect(await fault(readPicture(Buffer.alloc(21 * 1024 * 1024)))).toMatch(/20 MB/);
		const whole = await image(800, 800).jpeg().toBuffer();
		expect(await fault(readPicture(whole.subarray(0, Math.floor(whole.length / 2))))).toMatch(/broken|JPEG/);
		const svg = Buffer.from('<svg xmlns="http://www.w3.org/2000/svg" width="9" height="9"/>');
		expect(await fault(readPicture(svg))).toMatch(/JPEG, PNG or WebP/);
		const heic = Buffer.concat([Buffer.from([0, 0, 0, 24]), Buffer.from('ftypheic'), Buffer.alloc(40)]);
		expect(await fault(readPicture(heic))).toMatch(/HEIC/);
		// 30,000 pixels a side, nothing but black: small as a file, huge once unpacked.
		const header = Buffer.alloc(13);
		header.writeUInt32BE(30_000, 0);
		header.writeUInt32BE(30_000, 4);
		header.set([8, 2, 0, 0, 0], 8);
		const bomb = png([
			['IHDR', header],
			['IDAT', deflateSync(Buffer.alloc(30_000))],
			['IEND', Buffer.alloc(0)]
		]);
		expect(await fault(readPicture(bomb))).toMatch(/100 million pixels/);
		// A strip of one pixel is as much work as a picture, and none.
		const strip = await sharp({ create: { width: 1, height: 20_001, channels: 3, background: '#000' } })
			.png()
			.toBuffer();
		expect(await fault(readPicture(strip))).toMatch(/20000 pixels long and wide/);
	});
	it('is read without what is packed beside its pixels: that may unpack to gigabytes', async () => {
		const whole = await image(40, 30).png().toBuffer();
		// 64 MB of one byte, and as it is not even a colour profile, it is worth nothing to anybody.
		const packed = Buffer.concat([
			Buffer.from('p\0\0', 'latin1'),
			deflateSync(Buffer.alloc(64 * 1024 * 1024))
		]);
		const head = whole.subarray(0, 33);
		const chunks = ['iCCP', 'zTXt'].map((type) => png([[type, packed]]).subarray(8));
		const heavy = Buffer.concat([head, ...chunks, whole.subarray(33)]);
		const read = await readPicture(heavy);
		expect([read.widthPx, read.heightPx]).toEqual([40, 30]);
		expect(read.jpeg.equals((await readPicture(whole)).jpeg)).toBe(true);
		// One whose chunk says that it is longer than the file is broken, and nothing more.
		const broken = Buffer.from(whole);
		broken.writeUInt32BE(0xffff_fff0, 33);
		expect(await fault(readPicture(broken))).toMatch(/broken|JPEG, PNG or WebP/);
	});
	it('that was taken out of the record is not given away; brought back it is', async () => {
		const { store, tree } = await storeWithTree();
		const { picture } = await keepPicture(
			store,
			tree.id,
			{ view: 'front', takenOn: '2026-03-05', note: '' },
			await image(90, 60, '#123456').png().toBuffer(),
			on
		);
		expect(await pictureIsKept(store.db, picture.hash)).toBe(true);
		const entry = await removePicture(store, tree.id, picture.id, 1);
		expect(await pictureIsKept(store.db, picture.hash)).toBe(false);
		expect(await pictureFile(picture.hash, false)).not.toBeNull();
		await undo(store, entry);
		expect(await pictureIsKept(store.db, picture.hash)).toBe(true);
	});
	it('belongs to a tree, goes with its case as a file, and a case whose picture was changed is refused', async () => {
		const { store, tree } = await storeWithTree();
		const sent = await image(900, 600).png().toBuffer();
		const keep = (view: string, takenOn: string | null) =>
			keepPicture(store, tree.id, { view, takenOn, note: '' }, sent, on);
		const { picture, entryId } = await keep('front', '2026-03-05');
		expect(await pictureFile(picture.hash, true)).not.toBeNull();
		await keep('front', null);
		expect(await fault(keep('front', '2026-06-01'))).toMatch(/after today/);
		const { pictures } = await loadRecords(store.db, tree.id);
		expect(pictures.map((one) => one.takenOn)).toEqual(['2026-03-05', on]);
		expect(viewsOf(pictures)[0]).toMatchObject({ view: 'front', count: 2 });
		const written = await exportCase(store.db, tree.id);
		expect(written.pictures[0]?.jpegBase64).not.toBeNull();
		const elsewhere = await freshStore();
		await importCase(elsewhere, JSON.parse(JSON.stringify(written)));
		expect(await exportCase(elsewhere.db, tree.id)).toEqual(written);
		const other = (await image(90, 60, '#ff0000').jpeg().toBuffer()).toString('base64');
		expect(
			await fault(
				importCase(await freshStore(), {
					...written,
					pictures: written.pictures.map((one) => ({ ...one, jpegBase64: other }))
				})
			)
		).toMatch(/must be that of its picture/);
		expect(await picturesLeft(pictures)).toBe(0);
		// Of those that are too much for one file the newest go, and one without a file does not.
		const large = 'a'.repeat(64);
		writeFileSync(path.join(picturesFolder(), `${large}.jpg`), Buffer.alloc(15 * 1024 * 1024 - 1000));
		const more = (id: string, hash: string) => ({ ...picture, id, hash });
		expect(await picturesLeft([more('x', 'b'.repeat(64)), ...pictures])).toBe(1);
		expect(await picturesLeft([...pictures, more('y', large)])).toBe(2);
		expect(await picturesLeft([more('y', large), ...pictures])).toBe(1);
		const entry = await removePicture(store, tree.id, picture.id, 1);
		expect((await loadRecords(store.db, tree.id)).pictures).toHaveLength(1);
		await undo(store, entry);
		expect(await pictureFile(picture.hash, false)).not.toBeNull();
		await undo(store, entryId).catch(() => undefined);
		// One picture twice is one file, whole and small; nothing half-written lies about.
		expect(readdirSync(folder).filter((name) => !/^[0-9a-f]{64}(\.small)?\.jpg$/.test(name))).toEqual([]);
	});
});

describe('what is left in the folder of pictures', () => {
	it('of a write that broke off goes after a day; a picture without a record stays for undo', async () => {
		const file = (name: string) => path.join(folder, name);
		const hash = 'a'.repeat(64);
		const broken = `${hash}.jpg.123e4567-e89b-42d3-a456-426614174000`;
		const fresh = `${hash}.small.jpg.123e4567-e89b-42d3-a456-426614174001`;
		for (const name of [broken, fresh, `${hash}.jpg`, 'notes.txt']) writeFileSync(file(name), 'x');
		const old = new Date(Date.now() - 3 * 86_400_000);
		for (const name of [broken, `${hash}.jpg`, 'notes.txt']) utimesSync(file(name), old, old);
		expect(await sweepPictures()).toBe(1);
		const left = readdirSync(folder);
		expect(left).not.toContain(broken);
		expect(left).toEqual(expect.arrayContaining([fresh, `${hash}.jpg`, 'notes.txt']));
		for (const name of [fresh, `${hash}.jpg`, 'notes.txt']) rmSync(file(name));
	});
});
