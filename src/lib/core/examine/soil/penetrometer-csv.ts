import { measured } from '../../text/measured';
import Papa from 'papaparse';
import { READINGS_LIMIT, thinned, type PenetrometerReading } from './penetrometer';

/** Most rows and characters read from one file. */
const CSV_ROWS_LIMIT = 200_000;
export const CSV_LENGTH_LIMIT = 8_000_000;

export interface PenetrometerCsv {
	/** What can be kept: every row, or averages by 10 mm when there are very many. */
	readings: PenetrometerReading[];
	/** Rows that held a reading. */
	rows: number;
	/** Rows left out, with line number and reason; the first twenty. */
	skipped: { line: number; why: string }[];
	skippedCount: number;
	/** What was understood of the file, in sentences. */
	notes: string[];
	/** Why nothing can be kept; null when it can. */
	refusal: string | null;
}

interface Column {
	index: number;
	/** Turns a cell into mm or MPa. */
	scale: number | null;
	unit: string;
}

const depthScales: Record<string, number> = { mm: 1, cm: 10, m: 1000, in: 25.4, inch: 25.4 };
const resistanceScales: Record<string, number> = {
	mpa: 1,
	kpa: 0.001,
	psi: 0.00689476,
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

/** A cell as a number; a comma is taken as the decimal sign where it can be one. */
const numberIn = (cell: string | undefined): number | null => {
	const text = (cell ?? '').trim().replace(',', '.');
	if (text === '' || !/^[+-]?(\d+\.?\d*|\.\d+)(e[+-]?\d+)?$/i.test(text)) return null;
	return Number(text);
};

/**
 * Reads a penetrometer file (RFC 4180, or with semicolons or tabs). Columns are found by their names: position (or point,
 * probe), depth and resistance (or pressure, MPa, kPa …); units stand in the names, or are told from the numbers and said
 * so. Rows that cannot be read are left out and named; nothing is guessed for a missing depth.
 * @param text the whole file
 * @returns never throws; `refusal` says why nothing can be kept
 */
export function readPenetrometerCsv(text: string): PenetrometerCsv {
	const empty = (refusal: string): PenetrometerCsv => ({
		readings: [],
		rows: 0,
		skipped: [],
		skippedCount: 0,
		notes: [],
		refusal
	});
	if (text.length > CSV_LENGTH_LIMIT)
		return empty('The file is larger than 8 MB. Send fewer positions at once.');
	const lines = Papa.parse<string[]>(text.replace(/^\uFEFF/, ''), {
		skipEmptyLines: 'greedy',
		comments: '#',
		delimitersToGuess: [';', '\t', ',', '|']
	}).data;
	const [header, ...rows] = lines;
	if (!header) return empty('The file is empty. It needs a header line and rows of depth and resistance.');
	if (rows.length > CSV_ROWS_LIMIT)
		return empty(
			`The file holds ${rows.length} rows; at most ${CSV_ROWS_LIMIT} are read. Send fewer positions at once.`
		);
	const find = (pattern: RegExp): number => header.findIndex((name) => pattern.test(name.trim()));
	const depthAt = find(/depth|tiefe|profondeur/i);
	const resistanceAt = find(/resist|pressure|strength|cone|mpa|kpa|psi/i);
	const positionAt = find(/position|point|probe|place|insertion|no\.?$/i);
	if (depthAt < 0 || resistanceAt < 0)
		return empty(
			'The first line must name the columns: one with “depth” and one with “resistance” in its name, such as position,depth_mm,resistance_kpa.'
		);

	const notes: string[] = [];
	const skipped: PenetrometerCsv['skipped'] = [];
	let skippedCount = 0;
	const skip = (line: number, why: string): void => {
		skippedCount++;
		if (skipped.length < 20) skipped.push({ line, why });
	};
	const read: { line: number; position: number; depth: number; resistance: number }[] = [];
	const places = new Map<string, number>();
	for (const [index, row] of rows.entries()) {
		const line = index + 2;
		const depth = numberIn(row[depthAt]);
		const resistance = numberIn(row[resistanceAt]);
		if (depth === null) skip(line, `the depth “${(row[depthAt] ?? '').trim().slice(0, 20)}” is no number`);
		else if (resistance === null)
			skip(line, `the resistance “${(row[resistanceAt] ?? '').trim().slice(0, 20)}” is no number`);
		else if (depth < 0) skip(line, 'the depth is above the surface');
		else if (resistance < 0) skip(line, 'the resistance is below 0');
		else {
			const name = positionAt < 0 ? '1' : (row[positionAt] ?? '').trim() || '1';
			const position = places.get(name) ?? places.size + 1;
			places.set(name, position);
			read.push({ line, position, depth, resistance });
		}
	}
	if (read.length === 0)
		return { ...empty('No row holds a depth and a resistance as numbers.'), skipped, skippedCount };
	if (places.size > 200) return empty(`The file holds ${places.size} positions; at most 200 are read.`);

	const depths = column(depthAt, header[depthAt] ?? '', depthScales, read, 'depth', notes);
	const resistances = column(
		resistanceAt,
		header[resistanceAt] ?? '',
		resistanceScales,
		read,
		'resistance',
		notes
	);
	if (depths.scale === null || resistances.scale === null)
		return {
			...empty(
				'The unit of a column cannot be told. Put it into the name, such as depth_mm or resistance_kpa.'
			),
			skipped,
			skippedCount
		};
	const readings: PenetrometerReading[] = [];
	for (const entry of read) {
		const depthMm = entry.depth * depths.scale;
		const resistanceMpa = entry.resistance * resistances.scale;
		if (depthMm > 2000) skip(entry.line, `${entry.depth} ${depths.unit} is deeper than ${measured(2, 'm')}`);
		else if (resistanceMpa > 15) skip(entry.line, `${entry.resistance} ${resistances.unit} is over 15 MPa`);
		else readings.push({ position: entry.position, depthMm, resistanceMpa, readings: 1 });
	}
	// A unit that fits the name but not the numbers makes most rows impossible.
	if (readings.length < read.length / 2)
		return {
			...empty(
				`Read as ${depths.unit} and ${resistances.unit}, most rows are impossible (deeper than ${measured(2, 'm')} or over 15 MPa). Check the units in the column names.`
			),
			skipped,
			skippedCount
		};
	const most = readings.reduce((value, reading) => Math.max(value, reading.resistanceMpa), 0);
	if (most < 0.05)
		return {
			...empty(
				`Read as ${resistances.unit}, no reading reaches 0.05 MPa, which no soil is. Check the unit in the column name.`
			),
			skipped,
			skippedCount
		};
	const kept = readings.length > READINGS_LIMIT ? thinned(readings) : readings;
	if (kept.length > READINGS_LIMIT)
		return empty(
			`Even averaged by ${measured(10, 'mm')} the file holds ${kept.length} readings; at most ${READINGS_LIMIT} are kept. Send fewer positions at once.`
		);
	if (kept.length < readings.length)
		notes.push(
			`${readings.length} readings were averaged by ${measured(10, 'mm')} of depth into ${kept.length}.`
		);
	if (positionAt < 0) notes.push('No column names the position; all rows are taken as one.');
	return { readings: kept, rows: readings.length, skipped, skippedCount, notes, refusal: null };
}

function column(
	index: number,
	name: string,
	scales: Record<string, number>,
	rows: readonly { depth: number; resistance: number }[],
	field: 'depth' | 'resistance',
	notes: string[]
): Column {
	const unit = unitIn(name, scales);
	if (unit) return { index, unit, scale: scales[unit] ?? null };
	// No unit in the name: soil is measured to some decimetres, and resists by parts of a MPa to a few.
	const most = rows.reduce((value, row) => Math.max(value, row[field]), 0);
	const guess = field === 'depth' ? (most > 120 ? 'mm' : most > 3 ? 'cm' : 'm') : most > 60 ? 'kpa' : 'mpa';
	notes.push(
		`The ${field} carries no unit; from its size it was taken as ${guess === 'kpa' ? 'kPa' : guess === 'mpa' ? 'MPa' : guess}.`
	);
	return { index, unit: guess, scale: scales[guess] ?? null };
}
