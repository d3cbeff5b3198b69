import { sql } from 'drizzle-orm';
import type { z } from 'zod';
import { treeCaseSchema, upgradeCase, type TreeCase, type TreeRecordField } from '../../core/tree/case';
import type { Reading } from '../../core/aftercare/weather/device';
import { counted } from '../../core/text/plural';
import { isValueKey } from '../../core/values/values';
import { fieldProblems, type FieldProblem } from '../../core/vocabulary/fields';
import { checkLinks, recordsIn } from '../case-file';
import type { Reader, Store, Writer } from '../db/database';
import * as tables from '../db/schema';
import { Refusal } from '../errors';
import { keyHash, newKey } from '../people/keys';
import { bringPerson } from '../people/people';
import { hashOf, placePicture, readPicture } from '../pictures';
import type { Aggregate, Identified } from '../records/aggregate';
import {
	devices,
	kinds,
	ofTree,
	ownMixes,
	places,
	stockItems,
	stockPots,
	trees,
	weatherDays
} from '../records/records';
import { keepSetting } from '../settings';
import { openZip, type ReadZip } from '../zip';
import {
	ABOUT,
	aboutSchema,
	PICTURE_FILE,
	READINGS_FILE,
	readingList,
	STOCK,
	stockList,
	TREE_FILE,
	WEATHER,
	weatherList,
	YARD,
	yardSchema,
	type About,
	type Listed,
	type YardPart
} from './parts';
import { rowsFromCsv } from './rows';

const MEGABYTE = 1024 * 1024;
/** Largest text and largest picture of an archive, bytes. */
const MOST_TEXT = 200 * MEGABYTE;
const MOST_PICTURE = 40 * MEGABYTE;
/** So many faults are told of one archive. */
const FAULTS_TOLD = 20;
/** Most rows sent in one insert. */
const INSERT_ROWS = 400;

/** What was found in an archive before anything of it is kept. */
export interface ArchiveSeen {
	about: About;
	people: number;
	/** What is wrong with it, by file and field; with any, nothing of it is read in. */
	problems: FieldProblem[];
	/** Faults beyond those told. */
	more: number;
}

/** @throws Refusal 422 it is no archive of a yard, or one of another version */
async function opened(file: string): Promise<{ zip: ReadZip; about: About }> {
	const zip = await openZip(file).catch(() => null);
	const raw = zip?.names.includes(ABOUT) ? await json(zip, ABOUT).catch(() => null) : null;
	const about = aboutSchema.safeParse(raw);
	if (zip && about.success) return { zip, about: about.data };
	zip?.close();
	throw new Refusal(
		422,
		'This is no archive of a whole yard that can be read here.',
		raw !== null && !about.success
			? `Its about.json: ${fieldProblems(about.error)
					.map(({ field, message }) => `${field} ${message}`)
					.join('; ')}. Nothing was read in.`
			: 'Take the ZIP file as Bruntle made it; a backup is put back with ./bruntle restore instead. Nothing was read in.'
	);
}

const text = async (zip: ReadZip, name: string): Promise<string> =>
	(await zip.read(name, MOST_TEXT)).toString('utf8');
const json = async (zip: ReadZip, name: string): Promise<unknown> => JSON.parse(await text(zip, name));

/** Notes what is wrong as it is met, and goes on. */
class Faults {
	readonly told: FieldProblem[] = [];
	all = 0;
	note(file: string, problems: readonly FieldProblem[]): void {
		this.all += problems.length;
		for (const { field, message } of problems)
			if (this.told.length < FAULTS_TOLD) this.told.push({ field: `${file}: ${field}`, message });
	}
	/** What a piece of work gives; null where it cannot be had, which is noted. */
	async of<T>(file: string, work: () => Promise<T>): Promise<T | null> {
		try {
			return await work();
		} catch (cause) {
			if (cause instanceof Refusal)
				this.note(
					file,
					cause.problems.length > 0 ? cause.problems : [{ field: 'file', message: cause.message }]
				);
			else this.note(file, [{ field: 'file', message: 'cannot be read' }]);
			return null;
		}
	}
}

async function parsed<T extends z.ZodType>(
	zip: ReadZip,
	name: string,
	schema: T,
	before: (raw: unknown) => unknown = (raw) => raw
): Promise<z.output<T>> {
	const found = schema.safeParse(before(await json(zip, name)));
	if (found.success) return found.data;
	throw new Refusal(422, 'It does not fit.', '', fieldProblems(found.error));
}
const treeOf = (zip: ReadZip, name: string): Promise<TreeCase> =>
	parsed(zip, name, treeCaseSchema, upgradeCase);
async function rowsOf<T extends object>(zip: ReadZip, name: string, list: Listed<T>): Promise<T[]> {
	const { rows, problems } = rowsFromCsv(list, await text(zip, name));
	if (problems.length > 0) throw new Refusal(422, 'It does not fit.', '', problems);
	return rows;
}

/** Identities, each taken once. */
class Taken {
	private readonly known = new Set<string>();
	/** @throws Refusal 422 where one is met again */
	take(what: string, ids: readonly string[], field = 'id'): void {
		for (const id of ids) {
			const name = `${what} ${id}`;
			if (this.known.has(name))
				throw new Refusal(422, 'It does not fit.', '', [
					{ field, message: 'must be used once in the archive' }
				]);
			this.known.add(name);
		}
	}
}

/** Reads every file of an archive and looks whether all of it fits, so that what is kept afterwards is kept whole. @throws Refusal 422 */
export async function lookIntoArchive(file: string): Promise<ArchiveSeen> {
	const { zip, about } = await opened(file);
	const faults = new Faults();
	const taken = new Taken();
	try {
		const yard = await faults.of(YARD, async () => {
			const part = await parsed(zip, YARD, yardSchema);
			for (const [what, list] of Object.entries({
				places: part.places,
				kinds: part.kinds,
				devices: part.devices,
				'stock-pots': part.stockPots,
				'own-mixes': part.ownMixes,
				people: part.people,
				practice: part.practice,
				journal: part.journal
			}))
				taken.take(
					what,
					list.map(({ id }) => id),
					what
				);
			taken.take(
				'name',
				part.people.map(({ name }) => name.toLowerCase()),
				'people'
			);
			const unknown = Object.keys(part.values).filter((key) => !isValueKey(key));
			if (unknown.length > 0)
				throw new Refusal(
					422,
					'It does not fit.',
					'',
					unknown.map((key) => ({ field: `values.${key}`, message: 'is not a working value known here' }))
				);
			return part;
		});
		const known = {
			places: new Set(yard?.places.map(({ id }) => id)),
			kinds: new Set(yard?.kinds.map(({ id }) => id))
		};
		let treesFound = 0;
		for (const name of zip.names.filter((one) => TREE_FILE.test(one)))
			await faults.of(name, async () => {
				const doc = await treeOf(zip, name);
				checkLinks(doc);
				// What the yard has is not known where its own file is at fault.
				if (yard) checkKnown(doc, known);
				taken.take('tree', [doc.tree.id], 'tree.id');
				taken.take('tag', [doc.tree.tag.toLowerCase()], 'tree.tag');
				for (const field of Object.keys(ofTree) as TreeRecordField[])
					taken.take(
						field,
						recordsIn(doc, field).map(({ id }) => id),
						field
					);
				taken.take(
					'journal',
					doc.journal.map(({ id }) => id),
					'journal'
				);
				treesFound++;
			});
		await faults.of(STOCK, async () => {
			const stock = await rowsOf(zip, STOCK, stockList);
			taken.take(
				'stock',
				stock.map(({ id }) => id)
			);
			taken.take(
				'stock',
				stock.map(({ item }) => item),
				'item'
			);
		});
		await faults.of(WEATHER, async () => {
			const days = await rowsOf(zip, WEATHER, weatherList);
			taken.take(
				'weather',
				days.map(({ id }) => id)
			);
			taken.take(
				'weather',
				days.map(({ placeId, on, source }) => `${placeId} ${on} ${source}`),
				'on'
			);
			if (yard && days.some(({ placeId }) => !known.places.has(placeId)))
				throw new Refusal(422, 'It does not fit.', '', [
					{ field: 'placeId', message: 'must be a place of yard.json' }
				]);
		});
		const ofDevices = new Set(yard?.devices.map(({ id }) => id));
		for (const name of zip.names) {
			const device = READINGS_FILE.exec(name)?.[1];
			if (device === undefined) continue;
			await faults.of(name, async () => {
				if (yard && !ofDevices.has(device))
					throw new Refusal(422, 'It is of a device that is not in yard.json.', '');
				taken.take(
					`readings ${device}`,
					(await rowsOf(zip, name, readingList)).map(({ at }) => at),
					'at'
				);
			});
		}
		for (const name of zip.names) {
			const hash = PICTURE_FILE.exec(name)?.[1];
			if (hash === undefined) continue;
			await faults.of(name, async () => {
				if (hashOf(await zip.read(name, MOST_PICTURE)) !== hash)
					throw new Refusal(422, 'It is another picture than its name says.', '');
			});
		}
		if (faults.all === 0 && treesFound !== about.trees)
			faults.note(ABOUT, [
				{ field: 'trees', message: `must be ${treesFound}, as many as there are: some files are missing` }
			]);
		return {
			about,
			people: yard?.people.length ?? 0,
			problems: faults.told,
			more: faults.all - faults.told.length
		};
	} finally {
		zip.close();
	}
}

/** Looks whether a tree stands at a place and is of a kind of the yard. @throws Refusal 422 */
function checkKnown(doc: TreeCase, known: { places: ReadonlySet<string>; kinds: ReadonlySet<string> }): void {
	const stood = [doc.tree.placeId, ...[...doc.plantings, ...doc.groundPlans].map(({ placeId }) => placeId)];
	const problems: FieldProblem[] = [];
	if (!known.kinds.has(doc.tree.kindId))
		problems.push({ field: 'tree.kindId', message: 'must be a kind of yard.json' });
	if (stood.some((id) => id !== null && !known.places.has(id)))
		problems.push({ field: 'placeId', message: 'must be a place of yard.json' });
	if (problems.length > 0) throw new Refusal(422, 'It does not fit.', '', problems);
}

/** What of a yard stands in the way of reading another in; null where it is empty. */
export async function standsHere(db: Reader): Promise<string | null> {
	const [found] = await db.all<{ trees: number; places: number; rest: number }>(sql`select
		(select count(*) from ${tables.tree}) as trees, (select count(*) from ${tables.place}) as places,
		(select count(*) from ${tables.stockPot}) + (select count(*) from ${tables.stockItem}) + (select count(*) from ${tables.ownMix}) as rest`);
	const [standing, at, rest] = [Number(found?.trees), Number(found?.places), Number(found?.rest)];
	if (standing > 0) return counted(standing, 'tree');
	if (at > 0) return counted(at, 'place');
	return rest > 0 ? 'a stock' : null;
}

/**
 * Reads a whole yard in, into one that is empty: all of it or nothing. Records keep their identities, so that the archive of this yard is the
 * same but for its day. People come without a passphrase and devices without a token.
 * @throws Refusal 409 the yard is not empty · 422 something in the archive does not fit
 */
export async function readArchive(store: Store, file: string): Promise<About> {
	const seen = await lookIntoArchive(file);
	if (seen.problems.length > 0)
		throw new Refusal(422, 'Something in this archive does not fit.', 'Nothing was read in.', seen.problems);
	const { zip, about } = await opened(file);
	try {
		const refuseFull = async (db: Reader): Promise<void> => {
			const stands = await standsHere(db);
			if (stands !== null)
				throw new Refusal(
					409,
					`This yard has ${stands} already: a whole yard is read into an empty one.`,
					'Start Bruntle on a new folder with --data, and read it in there. Nothing was read in.'
				);
		};
		await refuseFull(store.db);
		for (const name of zip.names)
			if (PICTURE_FILE.test(name)) {
				const jpeg = await zip.read(name, MOST_PICTURE);
				await placePicture(jpeg, (await readPicture(jpeg)).small);
			}
		const yard = await parsed(zip, YARD, yardSchema);
		await store.write(async (tx) => {
			await refuseFull(tx);
			await places.putAll(tx, null, yard.places);
			await kinds.putAll(tx, null, yard.kinds);
			for (const name of zip.names) if (TREE_FILE.test(name)) await putTree(tx, await treeOf(zip, name));
			await putYard(tx, yard);
			await stockItems.putAll(tx, null, await rowsOf(zip, STOCK, stockList));
			await weatherDays.putAll(tx, null, await rowsOf(zip, WEATHER, weatherList));
			for (const name of zip.names) {
				const device = READINGS_FILE.exec(name)?.[1];
				if (device !== undefined) await putReadings(tx, device, await rowsOf(zip, name, readingList));
			}
		});
		return about;
	} finally {
		zip.close();
	}
}

async function putTree(tx: Writer, doc: TreeCase): Promise<void> {
	await trees.put(tx, doc.tree.id, doc.tree);
	for (const [field, repository] of Object.entries(ofTree) as [TreeRecordField, Aggregate<Identified>][])
		await repository.putAll(tx, doc.tree.id, recordsIn(doc, field));
	await putJournal(tx, doc.tree.id, doc.journal);
}

async function putYard(tx: Writer, yard: YardPart): Promise<void> {
	// A token that nobody was told: each device is given one of its own when it is added anew.
	await devices.putAll(
		tx,
		null,
		yard.devices.map((device) => ({ ...device, tokenHash: keyHash(newKey()) }))
	);
	await stockPots.putAll(tx, null, yard.stockPots);
	await ownMixes.putAll(tx, null, yard.ownMixes);
	for (const person of yard.people) await bringPerson(tx, person);
	for (const round of yard.practice) await tx.insert(tables.practiceRound).values(round);
	for (const [key, value] of Object.entries(yard.values))
		await tx
			.insert(tables.valueOverride)
			.values({ key, value })
			.onConflictDoUpdate({ target: tables.valueOverride.key, set: { value } });
	for (const [key, value] of Object.entries(yard.settings)) await keepSetting(tx, key, value);
	await putJournal(tx, null, yard.journal);
}

async function putJournal(
	tx: Writer,
	treeId: string | null,
	entries: readonly TreeCase['journal'][number][]
): Promise<void> {
	for (let from = 0; from < entries.length; from += INSERT_ROWS)
		await tx
			.insert(tables.journal)
			.values(entries.slice(from, from + INSERT_ROWS).map((entry) => ({ ...entry, treeId, changes: null })));
}

async function putReadings(tx: Writer, deviceId: string, readings: readonly Reading[]): Promise<void> {
	for (let from = 0; from < readings.length; from += INSERT_ROWS)
		await tx
			.insert(tables.reading)
			.values(readings.slice(from, from + INSERT_ROWS).map((reading) => ({ ...reading, deviceId })));
}
