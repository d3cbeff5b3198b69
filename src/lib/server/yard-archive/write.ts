import { createClient } from '@libsql/client';
import { asc, getTableColumns as columnsOf, isNull, sql } from 'drizzle-orm';
import { createWriteStream } from 'node:fs';
import { mkdtemp, readFile, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { pipeline } from 'node:stream/promises';
import { ZipFile } from 'yazl';
import { writeCsv } from '../../core/text/csv';
import {
	CASE_SCHEMA,
	CASE_VERSION,
	treeCaseSchema,
	type TreeCase,
	type TreeRecords
} from '../../core/tree/case';
import type { Reading } from '../../core/aftercare/weather/device';
import type { Identified } from '../records/aggregate';
import { isValueKey } from '../../core/values/values';
import { openReader, rememberedBy, type Db } from '../db/database';
import { tableRows } from '../db/json-rows';
import * as tables from '../db/schema';
import { jsonSchema } from '../edge/json-schema';
import { devices, kinds, ownMixes, places, stockItems, stockPots, weatherDays } from '../records/records';
import { readAll } from '../records/tree-records';
import { formatSettingsInput, readOverrides, readSetting } from '../settings';
import { forecastSetting } from '../weather';
import {
	ABOUT,
	ARCHIVE_SCHEMA,
	ARCHIVE_VERSION,
	pictureName,
	README,
	readingList,
	readingsFile,
	readme,
	STOCK,
	stockList,
	WATERINGS,
	wateringColumns,
	WEATHER,
	weatherList,
	YARD,
	yardSchema,
	type About,
	type YardPart,
	practiceRoundSchema
} from './parts';
import { rowsToCsv } from './rows';

/** What is archived, and where the archive is to be. */
export interface ArchiveTask {
	/** Where the database is, as it is opened. */
	url: string;
	picturesFolder: string;
	/** Path of the archive; it must not be there yet. */
	file: string;
	madeAt: string;
}

/** So many trees are read together. */
const TREES_AT_ONCE = 50;
/** Every entry bears this day, so that the same yard makes the same bytes; when it was made is told in `about.json`. */
const ENTRY_DAY = new Date(2000, 0, 1, 12);

/**
 * Writes the whole yard as open files into one ZIP archive, as it stood at one instant. In an order of their own, so that the same yard
 * makes the same bytes, but for the day in `about.json`.
 */
export async function writeArchive({ url, picturesFolder, file, madeAt }: ArchiveTask): Promise<About> {
	const folder = await mkdtemp(path.join(tmpdir(), 'bruntle-archive-'));
	let db: Db | null = null;
	try {
		db = openReader(await still(url, folder));
		const zip = new ZipFile();
		const written = pipeline(zip.outputStream, createWriteStream(file, { flags: 'wx', mode: 0o600 }));
		// Waited for at the end; what breaks before is told then.
		written.catch(() => undefined);
		const about = await fill(zip, db, picturesFolder, madeAt);
		zip.end();
		await written;
		return about;
	} finally {
		db?.$client.close();
		await rm(folder, { recursive: true, force: true });
	}
}

/** A copy of the database that nobody writes to; that of a server of its own is read as it is. */
async function still(url: string, folder: string): Promise<string> {
	if (!url.startsWith('file:')) return url;
	const copy = path.join(folder, 'yard.db');
	const source = createClient({ url, timeout: 10_000 });
	try {
		await source.execute({ sql: 'VACUUM INTO ?', args: [copy] });
	} finally {
		source.close();
	}
	return `file:${copy}`;
}

async function fill(zip: ZipFile, db: Db, picturesFolder: string, madeAt: string): Promise<About> {
	const add = (name: string, text: string): void =>
		zip.addBuffer(Buffer.from(text), name, { mtime: ENTRY_DAY });
	const addJson = (name: string, value: unknown): void => add(name, `${JSON.stringify(value, null, '\t')}\n`);
	const yard = await yardPart(db);
	addJson(YARD, yard);
	const stock = byId(await stockItems.list(db));
	add(STOCK, rowsToCsv(stockList, stock));
	const days = [...(await weatherDays.list(db))].sort(
		(a, b) => compared(a.placeId, b.placeId) || compared(a.on, b.on) || compared(a.source, b.source)
	);
	add(WEATHER, rowsToCsv(weatherList, days));
	const { pictures, watered, count } = await addTrees(db, addJson);
	add(WATERINGS, writeCsv(wateringColumns, watered));
	let readings = 0;
	for (const { id } of yard.devices) readings += await addReadings(db, id, add);
	let withFile = 0;
	for (const hash of [...pictures].sort()) {
		const jpeg = await readFile(path.join(picturesFolder, `${hash}.jpg`)).catch(() => null);
		if (jpeg === null) continue;
		// They are packed already.
		zip.addBuffer(jpeg, pictureName(hash), { mtime: ENTRY_DAY, compress: false });
		withFile++;
	}
	add(README, readme);
	addJson('schema/yard.json', jsonSchema(yardSchema, 'output'));
	addJson('schema/tree.json', jsonSchema(treeCaseSchema, 'output'));
	const about: About = {
		schema: ARCHIVE_SCHEMA,
		version: ARCHIVE_VERSION,
		madeAt,
		trees: count,
		waterings: watered.length,
		readings,
		weatherDays: days.length,
		pictures: withFile,
		picturesWithoutFile: pictures.size - withFile,
		leftOut: rememberedBy(db)?.damaged.size ?? 0
	};
	addJson(ABOUT, about);
	return about;
}

const compared = (a: string, b: string): number => (a < b ? -1 : a > b ? 1 : 0);
const byId = <T extends Identified>(list: readonly T[]): T[] =>
	[...list].sort((a, b) => compared(a.id, b.id));

async function yardPart(db: Db): Promise<YardPart> {
	const people = await db
		.select({
			id: tables.person.id,
			name: tables.person.name,
			role: tables.person.role,
			madeAt: tables.person.madeAt
		})
		.from(tables.person)
		.orderBy(asc(tables.person.id));
	const { changes: _changes, byId: _by, treeId: _tree, ...told } = columnsOf(tables.journal);
	const journal = await db
		.select(told)
		.from(tables.journal)
		.where(isNull(tables.journal.treeId))
		.orderBy(tables.journal.at, tables.journal.on, sql`${tables.journal}.rowid`);
	// One that an earlier version knew and this does not, says nothing any more.
	const overrides = Object.entries(await readOverrides(db))
		.filter(([key]) => isValueKey(key))
		.sort(([a], [b]) => compared(a, b));
	const format = formatSettingsInput.safeParse(await readSetting(db, 'format'));
	const forecast = forecastSetting.safeParse(await readSetting(db, 'forecast'));
	return {
		places: byId(await places.list(db)),
		kinds: byId(await kinds.list(db)),
		devices: byId(await devices.list(db)).map(({ tokenHash: _hash, ...device }) => device),
		stockPots: byId(await stockPots.list(db)),
		ownMixes: byId(await ownMixes.list(db)),
		people,
		practice: (await db.select().from(tables.practiceRound).orderBy(tables.practiceRound.id)).map((round) =>
			practiceRoundSchema.parse(round)
		),
		values: Object.fromEntries(overrides),
		settings: {
			...(format.success && { format: format.data }),
			...(forecast.success && { forecast: forecast.data })
		},
		journal: journal as YardPart['journal']
	};
}

/** A case of a tree for the archive: its pictures lie beside it as files. */
const caseOf = ({ mates: _mates, pictures, ...records }: TreeRecords): TreeCase => ({
	schema: CASE_SCHEMA,
	version: CASE_VERSION,
	...records,
	pictures: pictures.map((picture) => ({ ...picture, jpegBase64: null }))
});

/** A file that bears the tag, as far as names of files may, and the identity of its tree. */
const treeFile = ({ tag, id }: TreeRecords['tree']): string => {
	const plain = tag
		.toLowerCase()
		.normalize('NFKD')
		.replace(/[^a-z0-9]+/g, '-')
		.replace(/^-|-$/g, '');
	return `trees/${plain === '' ? '' : `${plain}-`}${id}.json`;
};

async function addTrees(
	db: Db,
	addJson: (name: string, value: unknown) => void
): Promise<{ pictures: Set<string>; watered: Record<string, string | number>[]; count: number }> {
	const pictures = new Set<string>();
	const watered: Record<string, string | number>[] = [];
	const ids = (await db.select({ id: tables.tree.id }).from(tables.tree).orderBy(tables.tree.id)).map(
		({ id }) => id
	);
	let count = 0;
	for (let from = 0; from < ids.length; from += TREES_AT_ONCE)
		for (const records of byTree(await readAll(db, ids.slice(from, from + TREES_AT_ONCE)))) {
			addJson(treeFile(records.tree), caseOf(records));
			count++;
			for (const { hash } of records.pictures) pictures.add(hash);
			for (const { id: _id, version: _version, ...watering } of records.waterings)
				watered.push({
					tag: records.tree.tag,
					tree: records.tree.name,
					...(Object.fromEntries(
						Object.entries(watering).map(([name, value]) => [name, value ?? ''])
					) as Record<string, string | number>)
				});
		}
	return { pictures, watered, count };
}
const byTree = (list: readonly TreeRecords[]): TreeRecords[] =>
	[...list].sort((a, b) => compared(a.tree.id, b.tree.id));

/** Readings of a device, a file a month. @returns how many */
async function addReadings(
	db: Db,
	deviceId: string,
	add: (name: string, text: string) => void
): Promise<number> {
	const { reading } = tables;
	const months = await db.all<{ month: string; n: number }>(
		sql`select substr(${reading.at}, 1, 7) as month, count(*) as n from ${reading} where ${reading.deviceId} = ${deviceId} group by 1 order by 1`
	);
	for (const { month } of months) {
		const [rows = []] = await tableRows(db, [
			{
				table: reading,
				rest: sql`where ${reading.deviceId} = ${deviceId} and ${reading.at} >= ${month} and ${reading.at} < ${`${month}~`} order by ${reading.at}`
			}
		]);
		add(
			readingsFile(deviceId, month),
			rowsToCsv(readingList, rows.map(({ row }) => row) as unknown as Reading[])
		);
	}
	return months.reduce((sum, { n }) => sum + Number(n), 0);
}
