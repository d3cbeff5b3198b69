import { readCsv, writeCsv } from '../../core/text/csv';
import { fieldProblems, type FieldProblem } from '../../core/vocabulary/fields';
import type { Listed } from './parts';

/** Rows as a CSV, a record a line; what is not known is empty. */
export const rowsToCsv = <T extends object>({ columns }: Listed<T>, rows: readonly T[]): string =>
	writeCsv(
		columns,
		rows.map((row) =>
			Object.fromEntries(
				columns.map((column) => {
					const value = row[column];
					return [column, typeof value === 'number' ? value : typeof value === 'string' ? value : ''];
				})
			)
		)
	);

/**
 * Reads rows back.
 * @returns the records, and what is wrong with those that do not fit: the field with its line, the first being 2
 */
export function rowsFromCsv<T extends object>(
	{ columns, words, schema }: Listed<T>,
	text: string
): { rows: T[]; problems: FieldProblem[] } {
	const { header, rows: lines } = readCsv(text);
	const missing = columns.filter((column) => !header.includes(column));
	if (missing.length > 0)
		return { rows: [], problems: missing.map((field) => ({ field, message: 'must be a column of it' })) };
	const rows: T[] = [];
	const problems: FieldProblem[] = [];
	for (const [i, cells] of lines.entries()) {
		const raw = Object.fromEntries(
			columns.map((column) => {
				const cell = cells[header.indexOf(column)] ?? '';
				return [column, words.has(column) ? cell : cell === '' ? null : Number(cell)];
			})
		);
		const parsed = schema.safeParse(raw);
		if (parsed.success) rows.push(parsed.data);
		else
			for (const { field, message } of fieldProblems(parsed.error))
				problems.push({ field: `line ${i + 2}, ${field}`, message });
	}
	return { rows, problems };
}
