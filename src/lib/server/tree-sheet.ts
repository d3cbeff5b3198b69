import { readCsv } from '../core/text/csv';
import {
	matchColumns,
	readTreeSheet,
	sheetColumnNames,
	sheetColumns,
	type SheetColumn,
	type SheetRow,
	type SheetUsual
} from '../core/take-in/tree-sheet';
import type { TreeInput } from '../core/take-in/tree';
import { permissions, reserves, situations, vigours } from '../core/vocabulary/words';
import { today } from './clock';
import type { Store } from './db/database';
import { invalid, Refusal } from './errors';
import { kinds, places, trees } from './records/records';
import { doWorks } from './records/work';
import { readFormatSettings } from './settings';
import { takeInPiece } from './trees';

/** A sheet is of at most so many rows and letters. */
export const MOST_ROWS = 2000;
const MOST_LETTERS = 1_000_000;

/** A sheet as it was read: what was found of its columns, and what becomes of each row. */
export interface SheetRead {
	header: string[];
	columns: Record<SheetColumn, number | null>;
	/** Columns that have to be there and are not found, by their labels. */
	missing: string[];
	rows: SheetRow[];
}

const AS_NAMED = '';
const NONE = '-1';

/** What was chosen for the columns, and for rows that say nothing. */
function chosenIn(
	form: FormData,
	header: readonly string[]
): Pick<SheetRead, 'columns'> & { usual: SheetUsual } {
	const text = (name: string): string => {
		const value = form.get(name);
		return typeof value === 'string' ? value : '';
	};
	const named = matchColumns(header);
	const columns = Object.fromEntries(
		sheetColumnNames.map((column): [SheetColumn, number | null] => {
			const chosen = text(`columns.${column}`);
			if (chosen === AS_NAMED) return [column, named[column]];
			const at = Number(chosen);
			return [column, chosen !== NONE && Number.isInteger(at) && at >= 0 && at < header.length ? at : null];
		})
	) as SheetRead['columns'];
	const oneOf = <T extends string>(words: readonly T[], name: string): T | '' =>
		words.find((word) => word === text(name)) ?? '';
	return {
		columns,
		usual: {
			placeId: text('placeId'),
			situation: oneOf(situations, 'situation'),
			permission: oneOf(permissions, 'permission'),
			vigour: oneOf(vigours, 'vigour'),
			reserves: oneOf(reserves, 'reserves')
		}
	};
}

/** Reads a sheet of trees that was sent, and keeps nothing. @throws Refusal 422 */
export async function readSheet(store: Store, form: FormData): Promise<SheetRead> {
	const sent = form.get('text');
	const text = typeof sent === 'string' ? sent : '';
	const refused = (message: string): Refusal => invalid([{ field: 'text', message }]);
	if (text.trim() === '') throw refused('must not be empty: choose a file, or paste its rows');
	if (text.length > MOST_LETTERS) throw refused('must be at most one million letters long');
	const { header, rows } = readCsv(text);
	if (header.length < 2) throw refused('must have a first line with the names of its columns');
	if (rows.length > MOST_ROWS) throw refused(`must have at most ${MOST_ROWS} rows; read it in parts`);
	const { columns, usual } = chosenIn(form, header);
	const missing = sheetColumnNames
		.filter((column) => sheetColumns[column].wanted && columns[column] === null)
		.map((column) => sheetColumns[column].label);
	const [allKinds, allPlaces, allTrees, { units, locale }] = await Promise.all([
		kinds.list(store.db),
		places.list(store.db),
		trees.list(store.db),
		readFormatSettings(store.db)
	]);
	const known = {
		kinds: allKinds,
		places: allPlaces,
		tags: allTrees.map(({ tag }) => tag),
		today: today(),
		units,
		locale
	};
	return {
		header,
		columns,
		missing,
		rows: missing.length > 0 ? [] : readTreeSheet(rows, columns, usual, known)
	};
}

/**
 * Takes in the trees of a sheet that can be, all of them or none; rows that cannot are left and told.
 * @throws Refusal 422
 */
export async function takeInSheet(
	store: Store,
	form: FormData
): Promise<{ count: number; left: number; entryIds: string[] }> {
	const { rows } = await readSheet(store, form);
	const inputs = rows.flatMap(({ tree }): TreeInput[] => (tree ? [tree] : []));
	if (inputs.length === 0)
		throw invalid([{ field: 'text', message: 'must hold at least one tree that can be taken in' }]);
	const entryIds = await doWorks(
		store,
		inputs.map((input) => takeInPiece(input).piece)
	);
	return { count: inputs.length, left: rows.length - inputs.length, entryIds };
}
