import Papa from 'papaparse';

/**
 * How a formula of a spreadsheet begins, or a text that had an apostrophe put before one [OWASP, CSV injection]; a negative number is none.
 */
const FORMULA = /^'*(?:[=+@\t\r]|-(?![\d.,]))/;

/** A file of rows under a line of names. */
export interface Csv {
	/** Names of the columns as they stand in the first line, less blanks round them. */
	header: string[];
	rows: string[][];
}

/**
 * Reads a CSV (RFC 4180): parted by commas, semicolons, tabs or bars, whichever it is; empty lines and lines that begin with # are left
 * out. Never throws; a file with nothing in it has no header.
 */
export function readCsv(text: string): Csv {
	const { data } = Papa.parse<string[]>(text.replace(/^\uFEFF/, ''), {
		skipEmptyLines: 'greedy',
		comments: '#',
		delimitersToGuess: [';', '\t', ',', '|']
	});
	// The apostrophe that `writeCsv` put before what would be a formula.
	const [header = [], ...rows] = data.map((row) =>
		row.map((cell) => (cell.startsWith("'") && FORMULA.test(cell.slice(1)) ? cell.slice(1) : cell))
	);
	return { header: header.map((name) => name.trim()), rows };
}

/** A CSV (RFC 4180) with its line of names, its lines ended as the standard has it. */
export const writeCsv = (
	fields: readonly string[],
	data: readonly Record<string, string | number>[]
): string =>
	// A text that begins as a formula does would be worked out by a spreadsheet: an apostrophe before it says that it is none.
	`${Papa.unparse({ fields: [...fields], data: [...data] }, { escapeFormulae: FORMULA })}\r\n`;
