import { z } from 'zod';
import { measured } from '../../text/measured';
import { readCsv } from '../../text/csv';
import { PSI_MPA } from '../../text/format';
import { numberTyped } from '../../text/typed';
import { penetrometerReading, READINGS_LIMIT, thinned, type PenetrometerReading } from './penetrometer';

/** Most rows and characters read from one file. */
const CSV_ROWS_LIMIT = 200_000;
export const CSV_LENGTH_LIMIT = 8_000_000;
/** Rows left out that are named, and positions of one file, at most. */
const MOST_NAMED = 20;
const MOST_POSITIONS = 200;
/** Beyond these no soil is probed, and no cone is driven; under the last no soil resists. */
const DEEPEST_MM = 2000;
const HARDEST_MPA = 15;
const SOFTEST_MPA = 0.05;

export const penetrometerCsvOutput = z.object({
	readings: z
		.array(penetrometerReading)
		.describe('What can be kept: every row, or averages by 10 mm when there are very many'),
	rows: z.number().describe('Rows that held a reading'),
	skipped: z
		.array(z.object({ line: z.number(), why: z.string() }))
		.describe('Rows left out, with line number and reason; the first twenty'),
	skippedCount: z.number(),
	notes: z.array(z.string()).describe('What was understood of the file, in sentences'),
	refusal: z.string().nullable().describe('Why nothing can be kept; null when it can')
});
export type PenetrometerCsv = z.infer<typeof penetrometerCsvOutput>;

interface Column {
	unit: string;
	/** Turns a cell into mm or MPa. */
	scale: number;
	/** What was taken for granted of it; null where its name told. */
	note: string | null;
}

const depthScales: Record<string, number> = { mm: 1, cm: 10, m: 1000, in: 25.4, inch: 25.4 };
const resistanceScales: Record<string, number> = {
	mpa: 1,
	kpa: 0.001,
	psi: PSI_MPA,
	bar: 0.1,
	n_cm2: 0.01
};

const unitIn = (header: string, scales: Record<string, number>): string | null => {
	const words = header
		.toLowerCase()
		.replace('n/cm²', 'n_cm2')
		.replace('n/cm2', 'n_cm2')
		.split(/[^a-z0-9_]+|_(?!cm2)/);
	return words.find((word) => word in scales) ?? null;
};

/** A row as it was read, its numbers in the units of the file. */
interface Read {
	line: number;
	position: number;
	depth: number;
	resistance: number;
}

/** Rows left out, with the first twenty named. */
class Skipped {
	readonly skipped: PenetrometerCsv['skipped'] = [];
	skippedCount = 0;
	add(line: number, why: string): void {
		this.skippedCount++;
		if (this.skipped.length < MOST_NAMED) this.skipped.push({ line, why });
	}
	get told(): Pick<PenetrometerCsv, 'skipped' | 'skippedCount'> {
		return { skipped: this.skipped, skippedCount: this.skippedCount };
	}
}

const refused = (refusal: string): PenetrometerCsv => ({
	readings: [],
	rows: 0,
	skipped: [],
	skippedCount: 0,
	notes: [],
	refusal
});

/** Rows that hold a depth and a resistance, and how many positions they are of. */
function rowsRead(
	rows: readonly string[][],
	at: { depth: number; resistance: number; position: number },
	skipped: Skipped
): { read: Read[]; positions: number } {
	const places = new Map<string, number>();
	const read = rows.flatMap((row, index): Read[] => {
		const line = index + 2;
		const depth = numberTyped(row[at.depth] ?? '');
		const resistance = numberTyped(row[at.resistance] ?? '');
		const typed = (column: number): string => (row[column] ?? '').trim().slice(0, 20);
		const why = Number.isNaN(depth)
			? `the depth “${typed(at.depth)}” is no number`
			: Number.isNaN(resistance)
				? `the resistance “${typed(at.resistance)}” is no number`
				: depth < 0
					? 'the depth is above the surface'
					: resistance < 0
						? 'the resistance is below 0'
						: null;
		if (why !== null) {
			skipped.add(line, why);
			return [];
		}
		const name = at.position < 0 ? '1' : (row[at.position] ?? '').trim() || '1';
		const position = places.get(name) ?? places.size + 1;
		places.set(name, position);
		return [{ line, position, depth, resistance }];
	});
	return { read, positions: places.size };
}

/** Readings in mm and MPa, less what no soil and no probe gives. */
function readingsOf(
	read: readonly Read[],
	depths: Column,
	resistances: Column,
	skipped: Skipped
): PenetrometerReading[] {
	return read.flatMap((entry): PenetrometerReading[] => {
		const depthMm = entry.depth * depths.scale;
		const resistanceMpa = entry.resistance * resistances.scale;
		if (depthMm <= DEEPEST_MM && resistanceMpa <= HARDEST_MPA)
			return [{ position: entry.position, depthMm, resistanceMpa, readings: 1 }];
		skipped.add(
			entry.line,
			depthMm > DEEPEST_MM
				? `${entry.depth} ${depths.unit} is deeper than ${measured(DEEPEST_MM / 1000, 'm')}`
				: `${entry.resistance} ${resistances.unit} is over ${measured(HARDEST_MPA, 'MPa')}`
		);
		return [];
	});
}

/**
 * Reads a penetrometer file (RFC 4180, or with semicolons or tabs). Columns are found by their names: position (or point,
 * probe), depth and resistance (or pressure, MPa, kPa …); units stand in the names, or are told from the numbers and said
 * so. Rows that cannot be read are left out and named; nothing is guessed for a missing depth.
 * @param text the whole file
 * @returns never throws; `refusal` says why nothing can be kept
 */
export function readPenetrometerCsv(text: string): PenetrometerCsv {
	if (text.length > CSV_LENGTH_LIMIT)
		return refused('The file is larger than 8 MB. Send fewer positions at once.');
	const { header, rows } = readCsv(text);
	if (header.length === 0)
		return refused('The file is empty. It needs a header line and rows of depth and resistance.');
	if (rows.length > CSV_ROWS_LIMIT)
		return refused(
			`The file holds ${rows.length} rows; at most ${CSV_ROWS_LIMIT} are read. Send fewer positions at once.`
		);
	const find = (pattern: RegExp): number => header.findIndex((name) => pattern.test(name));
	const at = {
		depth: find(/depth|tiefe|profondeur/i),
		resistance: find(/resist|pressure|strength|cone|mpa|kpa|psi/i),
		position: find(/position|point|probe|place|insertion|no\.?$/i)
	};
	if (at.depth < 0 || at.resistance < 0)
		return refused(
			'The first line must name the columns: one with “depth” and one with “resistance” in its name, such as position,depth_mm,resistance_kpa.'
		);

	const skipped = new Skipped();
	const { read, positions } = rowsRead(rows, at, skipped);
	if (read.length === 0)
		return { ...refused('No row holds a depth and a resistance as numbers.'), ...skipped.told };
	if (positions > MOST_POSITIONS)
		return refused(`The file holds ${positions} positions; at most ${MOST_POSITIONS} are read.`);
	const depths = column(header[at.depth] ?? '', 'depth', read);
	const resistances = column(header[at.resistance] ?? '', 'resistance', read);
	const readings = readingsOf(read, depths, resistances, skipped);
	// A unit that fits the name but not the numbers makes most rows impossible.
	if (readings.length < read.length / 2)
		return {
			...refused(
				`Read as ${depths.unit} and ${resistances.unit}, most rows are impossible (deeper than ${measured(DEEPEST_MM / 1000, 'm')} or over ${measured(HARDEST_MPA, 'MPa')}). Check the units in the column names.`
			),
			...skipped.told
		};
	const most = readings.reduce((value, reading) => Math.max(value, reading.resistanceMpa), 0);
	if (most < SOFTEST_MPA)
		return {
			...refused(
				`Read as ${resistances.unit}, no reading reaches ${SOFTEST_MPA} MPa, which no soil is. Check the unit in the column name.`
			),
			...skipped.told
		};
	const kept = readings.length > READINGS_LIMIT ? thinned(readings) : readings;
	if (kept.length > READINGS_LIMIT)
		return refused(
			`Even averaged by ${measured(10, 'mm')} the file holds ${kept.length} readings; at most ${READINGS_LIMIT} are kept. Send fewer positions at once.`
		);
	const notes = [
		...[depths.note, resistances.note].filter((note) => note !== null),
		...(kept.length < readings.length
			? [`${readings.length} readings were averaged by ${measured(10, 'mm')} of depth into ${kept.length}.`]
			: []),
		...(at.position < 0 ? ['No column names the position; all rows are taken as one.'] : [])
	];
	return { readings: kept, rows: readings.length, ...skipped.told, notes, refusal: null };
}

/** How a column is read: by the unit in its name, else by the size of its numbers. */
function column(name: string, field: 'depth' | 'resistance', rows: readonly Read[]): Column {
	const scales = field === 'depth' ? depthScales : resistanceScales;
	const named = unitIn(name, scales);
	if (named) return { unit: named, scale: scales[named] ?? 1, note: null };
	// No unit in the name: soil is measured to some decimetres, and resists by parts of a MPa to a few.
	const most = rows.reduce((value, row) => Math.max(value, row[field]), 0);
	const unit = field === 'depth' ? (most > 120 ? 'mm' : most > 3 ? 'cm' : 'm') : most > 60 ? 'kpa' : 'mpa';
	const said = unit === 'kpa' ? 'kPa' : unit === 'mpa' ? 'MPa' : unit;
	return {
		unit,
		scale: scales[unit] ?? 1,
		note: `The ${field} carries no unit; from its size it was taken as ${said}.`
	};
}
