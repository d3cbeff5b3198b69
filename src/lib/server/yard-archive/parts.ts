import { z } from 'zod';
import { readingInput, deviceSchema } from '../../core/aftercare/weather/device';
import { weatherDaySchema } from '../../core/climate/weather-day';
import { ownMixSchema, stockItemSchema, stockPotSchema } from '../../core/replant/kit/stock';
import { judgementTold } from '../../core/practice/judged';
import { practiceActs, practiceWish } from '../../core/practice/round';
import { journalEntrySchema } from '../../core/tree/case';
import { id, instant, oneOf, shortText } from '../../core/vocabulary/fields';
import { kindSchema } from '../../core/vocabulary/kind';
import { roles } from '../../core/vocabulary/people';
import { placeSchema } from '../../core/vocabulary/place';
import { formatSettingsInput } from '../settings';
import { forecastSetting } from '../weather';

/**
 * The whole yard as open files in a ZIP archive. What it is made of is told here once, for who writes it and who reads it:
 * `about.json`, `yard.json`, a case of each tree under `trees/`, long lists as CSV, and the files of the pictures.
 */
export const ARCHIVE_SCHEMA = 'bruntle/yard';
export const ARCHIVE_VERSION = 1;

export const ABOUT = 'about.json';
export const YARD = 'yard.json';
export const WEATHER = 'weather.csv';
export const STOCK = 'stock.csv';
export const TREE_FILE = /^trees\/[a-z0-9-]+\.json$/;
export const READINGS_FILE = /^readings\/([0-9a-f-]{36})\/(\d{4}-\d{2})\.csv$/;
export const PICTURE_FILE = /^pictures\/([0-9a-f]{64})\.jpg$/;
/** Where readings of a device and a month, like `2026-04`, stand. */
export const readingsFile = (deviceId: string, month: string): string => `readings/${deviceId}/${month}.csv`;
/** Where the file of a picture stands. */
export const pictureName = (hash: string): string => `pictures/${hash}.jpg`;

const count = () => z.number().int().nonnegative();

/** What an archive says of itself; of two that hold the same, it alone differs. */
export const aboutSchema = z.strictObject({
	schema: z.literal(ARCHIVE_SCHEMA, { error: `must be "${ARCHIVE_SCHEMA}"` }),
	version: z.literal(ARCHIVE_VERSION, {
		error: `must be ${ARCHIVE_VERSION}, the version this Bruntle reads`
	}),
	madeAt: instant().describe('When it was made'),
	trees: count(),
	waterings: count(),
	readings: count(),
	weatherDays: count(),
	pictures: count().describe('Pictures whose files are in it'),
	picturesWithoutFile: count().describe('Pictures whose files were not there any more'),
	leftOut: count().describe('Records that could not be read and are not in it')
});
export type About = z.infer<typeof aboutSchema>;

/** Somebody of the yard, without what they come in by. */
const personSchema = z.strictObject({ id: id(), name: shortText(60), role: oneOf(roles), madeAt: instant() });

/** A round of practice, as it is kept. */
export const practiceRoundSchema = z.strictObject({
	id: id(),
	byId: id().nullable(),
	trainee: z.string().max(60),
	wish: practiceWish,
	setCase: z.number().int().nullable(),
	treeId: id(),
	startedAt: instant(),
	endedAt: instant().nullable(),
	day: count(),
	acts: practiceActs,
	judged: judgementTold.nullable()
});

/** What trees share, and what is of the yard alone. */
export const yardSchema = z.strictObject({
	places: z.array(placeSchema),
	kinds: z.array(kindSchema),
	devices: z.array(deviceSchema.omit({ tokenHash: true })),
	stockPots: z.array(stockPotSchema),
	ownMixes: z.array(ownMixSchema),
	people: z.array(personSchema),
	practice: z
		.array(practiceRoundSchema)
		.default([])
		.describe('Rounds of practice, with what was done in them; their yards are left where they are'),
	values: z.record(z.string(), z.number()).describe('Working values that the owner has set'),
	settings: z.strictObject({
		format: formatSettingsInput.optional(),
		forecast: forecastSetting.optional()
	}),
	journal: z.array(journalEntrySchema).describe('What was done on the yard and on no tree')
});
export type YardPart = z.infer<typeof yardSchema>;

/** A list that goes as CSV: its columns are the fields of its schema. */
export interface Listed<T> {
	schema: z.ZodType<T>;
	columns: readonly (keyof T & string)[];
	/** Columns that hold words; an empty cell is an empty text there, and nothing known elsewhere. */
	words: ReadonlySet<string>;
}
function listed<T>(schema: z.ZodObject & z.ZodType<T>, words: readonly (keyof T & string)[]): Listed<T> {
	return {
		schema,
		columns: Object.keys(schema.shape) as (keyof T & string)[],
		words: new Set(words)
	};
}
export const weatherList = listed(weatherDaySchema, ['id', 'placeId', 'on', 'source', 'from']);
export const stockList = listed(stockItemSchema, ['id', 'item', 'note']);
export const readingList = listed(readingInput, ['at']);

/** For a spreadsheet; what is read back stands with each tree. */
export const WATERINGS = 'waterings.csv';
export const wateringColumns = [
	'tag',
	'tree',
	'wateredOn',
	'litres',
	'ranOutL',
	'beforeKg',
	'afterKg',
	'way',
	'note'
] as const;

export const README = 'README.txt';
export const readme = `A whole yard of Bruntle, as open files

about.json          what this archive is, when it was made, and how much is in it
yard.json           places, kinds, devices, pots and mixes of the stock, people (without anything they come in by),
                    working values and settings of the owner, and what was done on the yard and on no tree
trees/*.json        a tree each, with all its records; each can also be read in alone, under Reference, Formats
stock.csv           the stock by packs, with prices
weather.csv         the days of weather of each place
readings/           readings of the devices, a folder a device and a file a month
waterings.csv       waterings of all trees, for a spreadsheet; what is read back stands with each tree
pictures/           the pictures of the trees, named by their hash (SHA-256)
schema/             what fields there are, with their meaning and unit (JSON Schema, 2020-12)

Lengths, weights and temperatures are in the unit that the name of their field ends on. Days are YYYY-MM-DD, instants are in UTC.
Numbers in CSV have a decimal point; cells are parted by commas (RFC 4180). A text that a spreadsheet would take for a formula has an
apostrophe before it.

What is not in here: passphrases and keys of people, tokens of devices, links to single pages, and how to take back what was done.
`;
