import { createFormat, type UnitSystem } from '../text/format';
import { readMeasure, readTwoWays } from '../text/typed';
import { readDate } from '../text/typed-date';
import type { Kind } from '../vocabulary/kind';
import type { Place } from '../vocabulary/place';
import { permissionNames, reservesNames, situationNames, vigours, type Vigour } from '../vocabulary/words';
import { takeInInput, type TreeInput } from './tree';

/*
 * A spreadsheet of trees: its columns found by their names or by hand, each row a tree or the reasons why it is none. How a tree stands and
 * does is said by the row or by whoever reads it in for those that say nothing; it is never presumed.
 */

/** What a column can say, with the names it goes by in small letters. */
export const sheetColumns = {
	tag: { label: 'Tag', wanted: true, names: ['tag', 'number', 'no', 'no.', 'id', 'label'] },
	name: { label: 'Name', wanted: true, names: ['name', 'tree', 'title', 'description'] },
	kind: {
		label: 'Kind',
		wanted: true,
		names: ['kind', 'species', 'genus', 'plant', 'common name', 'latin name']
	},
	place: { label: 'Place', wanted: false, names: ['place', 'location', 'site', 'bench', 'bed'] },
	trunk: {
		label: 'Trunk above the flare',
		wanted: true,
		names: ['trunk', 'trunk above the flare', 'trunk diameter', 'diameter', 'calliper', 'caliper', 'trunk mm']
	},
	height: { label: 'Height', wanted: false, names: ['height', 'height m', 'tall'] },
	plants: {
		label: 'Number of plants',
		wanted: false,
		names: ['plants', 'count', 'quantity', 'number of plants']
	},
	situation: { label: 'How it stands', wanted: false, names: ['situation', 'how it stands', 'stands'] },
	permission: { label: 'Permission', wanted: false, names: ['permission', 'permit'] },
	vigour: { label: 'Vigour', wanted: false, names: ['vigour', 'vigor'] },
	reserves: { label: 'Reserves', wanted: false, names: ['reserves'] },
	takenInOn: {
		label: 'Taken in on',
		wanted: false,
		names: ['taken in on', 'taken in', 'date', 'acquired', 'since']
	},
	origin: { label: 'Origin', wanted: false, names: ['origin', 'from', 'source'] },
	batch: { label: 'Batch', wanted: false, names: ['batch', 'lot', 'delivery'] },
	note: { label: 'Note', wanted: false, names: ['note', 'notes', 'remarks', 'comment'] }
} as const;
export type SheetColumn = keyof typeof sheetColumns;
export const sheetColumnNames = Object.keys(sheetColumns) as SheetColumn[];

const vigourNames = Object.fromEntries(vigours.map((word) => [word, word])) as Record<Vigour, string>;

const plain = (text: string): string => text.trim().toLowerCase().replace(/\s+/g, ' ');
const withoutUnit = (text: string): string => plain(text).replace(/\s*[([][^)\]]*[)\]]\s*$/, '');

/**
 * Which column says what, by its name.
 * @param header names of the columns, as they stand in the first line
 * @returns the place of each column, from 0; null for what none is named after
 */
export function matchColumns(header: readonly string[]): Record<SheetColumn, number | null> {
	const taken = new Set<number>();
	const found = {} as Record<SheetColumn, number | null>;
	for (const column of sheetColumnNames) {
		const names: readonly string[] = sheetColumns[column].names;
		const at = header.findIndex(
			(name, place) => !taken.has(place) && (names.includes(plain(name)) || names.includes(withoutUnit(name)))
		);
		found[column] = at < 0 ? null : at;
		if (at >= 0) taken.add(at);
	}
	return found;
}

/** What is meant where a row says nothing. */
export interface SheetUsual {
	placeId: string;
	situation: TreeInput['situation'] | '';
	permission: TreeInput['permission'] | '';
	vigour: TreeInput['vigour'] | '';
	reserves: TreeInput['reserves'] | '';
}

/** What the words of a sheet are read by. */
export interface SheetKnown {
	kinds: readonly Pick<Kind, 'id' | 'commonName' | 'genus'>[];
	places: readonly Pick<Place, 'id' | 'name'>[];
	/** Tags of the yard. */
	tags: readonly string[];
	today: string;
	units: UnitSystem;
	/** By which days and numbers are read, like `en-GB`. */
	locale: string;
}

/** One row as it was read. */
export interface SheetRow {
	/** Line of the file, the names of the columns being the first. */
	line: number;
	tag: string;
	name: string;
	/** Null where it is no tree. */
	tree: TreeInput | null;
	/** Why it is none, each a sentence. */
	problems: string[];
}

/** A word out of a list, by itself or by its name; null for none of them. */
function wordOf<T extends string>(names: Record<T, string>, text: string): T | null {
	const found = (Object.entries(names) as [T, string][]).find(
		([word, name]) => plain(text) === word || plain(text) === plain(name)
	);
	return found?.[0] ?? null;
}

/** The kind that a sheet names, by its own name, its genus, or a botanical name that begins with it; null for none. */
export function kindNamed(kinds: SheetKnown['kinds'], text: string): string | null {
	const said = plain(text);
	const genus = said.split(' ')[0] ?? '';
	const found =
		kinds.find((kind) => [plain(kind.commonName), plain(kind.id)].includes(said)) ??
		kinds.find((kind) => plain(kind.genus) === said) ??
		kinds.find((kind) => genus !== said && plain(kind.genus) === genus);
	return found?.id ?? null;
}

/**
 * Reads the rows of a sheet.
 * @param rows cells of each line behind the first
 * @param columns place of each column, from 0; null where there is none
 * @returns a row for each that is not empty, in their order
 */
export function readTreeSheet(
	rows: readonly (readonly string[])[],
	columns: Readonly<Record<SheetColumn, number | null>>,
	usual: SheetUsual,
	known: SheetKnown
): SheetRow[] {
	const { decimalSign } = createFormat({ units: known.units, locale: known.locale });
	const seen = new Map(known.tags.map((tag) => [plain(tag), 'is on a tree of this yard already']));
	return rows.flatMap((cells, at) => {
		const cell = (column: SheetColumn): string => {
			const place = columns[column];
			return place === null ? '' : (cells[place] ?? '').trim();
		};
		if (cells.every((one) => one.trim() === '')) return [];
		const line = at + 2;
		const problems: string[] = [];
		const say = (column: SheetColumn, problem: string): null => {
			problems.push(`${sheetColumns[column].label} ${problem}.`);
			return null;
		};
		const word = <T extends string>(
			column: SheetColumn,
			names: Record<T, string>,
			otherwise: T | ''
		): T | null => {
			const text = cell(column);
			if (text === '')
				return otherwise === ''
					? say(column, 'is not said, and nothing is chosen for rows without it')
					: otherwise;
			return (
				wordOf(names, text) ??
				say(column, `“${text}” must be one of: ${Object.values<string>(names).join(', ')}`)
			);
		};
		const measure = (column: 'trunk' | 'height', unit: 'mm' | 'm'): number | null => {
			const text = cell(column);
			if (text === '') return null;
			const twoWays = readTwoWays(text, decimalSign);
			if (twoWays) return say(column, twoWays);
			return readMeasure(text, unit, known.units) ?? say(column, `“${text}” must be a length`);
		};

		const tag = cell('tag');
		const same = seen.get(plain(tag));
		if (tag !== '' && same) say('tag', `“${tag}” ${same}`);
		const kind = cell('kind');
		const place = cell('place');
		const placeId =
			place === ''
				? usual.placeId || say('place', 'is not said, and none is chosen for rows without it')
				: (known.places.find(({ name }) => plain(name) === plain(place))?.id ??
					say('place', `“${place}” is no place of this yard; add it first`));
		const day = cell('takenInOn');
		const takenInOn =
			day === ''
				? known.today
				: (readDate(day, known.today, known.locale) ?? say('takenInOn', `“${day}” must be a date`));
		if (takenInOn !== null && takenInOn > known.today) say('takenInOn', 'must not be after today');
		const given = {
			tag,
			name: cell('name'),
			kindId:
				kind === ''
					? say('kind', 'must be given')
					: (kindNamed(known.kinds, kind) ??
						say('kind', `“${kind}” is not known here; write it as Reference, Kinds has it, or add it there`)),
			placeId,
			situation: word('situation', situationNames, usual.situation),
			trunkDiameterMm: cell('trunk') === '' ? say('trunk', 'must be given') : measure('trunk', 'mm'),
			heightM: measure('height', 'm'),
			plantCount: cell('plants') === '' ? 1 : Number(cell('plants')),
			permission: word('permission', permissionNames, usual.permission),
			vigour: word('vigour', vigourNames, usual.vigour),
			reserves: word('reserves', reservesNames, usual.reserves),
			takenInOn,
			origin: cell('origin'),
			batch: cell('batch'),
			watering: '',
			sharedPot: '',
			note: cell('note')
		};
		const read = takeInInput.safeParse(given);
		if (problems.length === 0 && !read.success)
			for (const { path, message } of read.error.issues) {
				const column = columnOf[String(path[0])];
				problems.push(`${column ? sheetColumns[column].label : 'The row'} ${message}.`);
			}
		if (tag !== '') seen.set(plain(tag), `is on line ${line} too`);
		return [
			{
				line,
				tag,
				name: given.name,
				tree: problems.length === 0 && read.success ? read.data : null,
				problems
			}
		];
	});
}

/** The column that a field of a tree comes from. */
const columnOf: Readonly<Record<string, SheetColumn | undefined>> = {
	tag: 'tag',
	name: 'name',
	kindId: 'kind',
	placeId: 'place',
	situation: 'situation',
	trunkDiameterMm: 'trunk',
	heightM: 'height',
	plantCount: 'plants',
	permission: 'permission',
	vigour: 'vigour',
	reserves: 'reserves',
	takenInOn: 'takenInOn',
	origin: 'origin',
	batch: 'batch',
	note: 'note'
};
