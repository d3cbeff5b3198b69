import type { Values } from '../../values/values';
import { readCsv, writeCsv } from '../../text/csv';
import { numberTyped } from '../../text/typed';
import { azimuthOf, clockOf } from '../../maths/circular';
import { fieldProblems } from '../../vocabulary/fields';
import type { Trunk } from '../map/outline';
import {
	MAP_LIMIT,
	guessedOfRoot,
	rootClasses,
	rootConditions,
	rootFlaws,
	rootMapInput,
	segmentFromQuick,
	startAzimuth,
	usualClass,
	type RootFlaw,
	type RootMapInput,
	type Segment
} from '../map/root-map';
import { type CoursePoint } from '../map/geometry';

const columns = [
	'root',
	'leaves',
	'attach_mm',
	'clock',
	'azimuth_deg',
	'diameter_mm',
	'end_diameter_mm',
	'class',
	'condition',
	'dead_from_mm',
	'doubtful_from_mm',
	'seen_to_mm',
	'fine_roots',
	'flaws',
	'seen_otherwise',
	'guessed',
	'source_known',
	'keep',
	'course',
	'note'
] as const;
type Column = (typeof columns)[number];

/** Most characters read from one file. */
export const ROOTS_CSV_LENGTH = 1_000_000;

/** A map of roots as CSV (RFC 4180); reading it back gives the same roots. */
export function writeRootsCsv(map: Pick<RootMapInput, 'segments' | 'frame'>): string {
	const rows = map.segments.map((segment): Record<Column, string | number> => {
		const clock = clockOf(startAzimuth(segment), map.frame);
		return {
			root: segment.id,
			leaves: segment.parentId ?? '',
			attach_mm: segment.attachMm,
			clock: Math.round(clock * 100) / 100,
			azimuth_deg: startAzimuth(segment),
			diameter_mm: segment.diameterStartMm,
			end_diameter_mm: segment.diameterEndMm,
			class: segment.rootClass,
			condition: segment.condition,
			dead_from_mm: segment.deadFromMm ?? '',
			doubtful_from_mm: segment.doubtfulFromMm ?? '',
			seen_to_mm: segment.seenToMm ?? '',
			fine_roots: segment.fineScore,
			flaws: segment.flaws.join(' '),
			seen_otherwise: segment.seenOtherwise.join(' '),
			guessed: segment.guessed.join(' '),
			source_known: segment.sourceKnown ? 'yes' : 'no',
			keep: segment.keep ? 'yes' : 'no',
			course: segment.course.map((p) => `${p.azimuthDeg} ${p.radiusMm} ${p.depthMm}`).join(' / '),
			note: segment.note
		};
	});
	return writeCsv(columns, rows);
}

export interface RootsCsv {
	segments: Segment[];
	/** What is wrong, by line; the first twenty. Nothing is taken while there is any. */
	problems: { line: number; why: string }[];
	/** Why the file as a whole cannot be read; null when it can. */
	refusal: string | null;
}

const truths: Record<string, boolean> = {
	yes: true,
	true: true,
	'1': true,
	no: false,
	false: false,
	'0': false
};

/** A number with a point or a comma as its decimal sign; null when the cell is empty, NaN when it is none. */
const numberIn = (cell: string): number | null => (cell.trim() === '' ? null : numberTyped(cell));

/** Reads the cells of a row by the names of its columns, and notes what is wrong with them. */
class RowReader {
	readonly wrongs: string[] = [];
	constructor(
		private readonly row: readonly string[],
		private readonly place: ReadonlyMap<string, number>
	) {}
	wrong = (why: string): void => void this.wrongs.push(why);
	cell(name: Column): string {
		return this.row[this.place.get(name) ?? -1]?.trim() ?? '';
	}
	/** Words of a cell, in small letters. */
	words(name: Column): string[] {
		return this.cell(name).toLowerCase().split(/\s+/).filter(Boolean);
	}
	number(name: Column): number | null {
		const value = numberIn(this.cell(name));
		if (value === null || !Number.isNaN(value)) return value;
		this.wrong(`${name} “${this.cell(name).slice(0, 20)}” is no number`);
		return null;
	}
	word<T extends string>(name: Column, words: readonly T[], otherwise: T): T {
		const given = this.cell(name).toLowerCase();
		if (given === '') return otherwise;
		const found = words.find((candidate) => candidate === given);
		if (!found) this.wrong(`${name} “${given.slice(0, 20)}” must be one of: ${words.join(', ')}`);
		return found ?? otherwise;
	}
	flaws(name: Column): RootFlaw[] {
		const flaws = this.words(name);
		const strange = flaws.find((flaw) => !(rootFlaws as readonly string[]).includes(flaw));
		if (strange) this.wrong(`${name} “${strange.slice(0, 20)}” is not known; use: ${rootFlaws.join(', ')}`);
		return flaws as RootFlaw[];
	}
	truth(name: Column, otherwise: boolean): boolean {
		const given = this.cell(name).toLowerCase();
		if (given !== '' && !(given in truths)) this.wrong(`${name} must be yes or no`);
		return truths[given] ?? otherwise;
	}
}

type MapOfRoots = Pick<RootMapInput, 'frame' | 'ballRadiusMm' | 'mappedOn'> & Trunk;

/** A root of a row; null where something in it is wrong. */
function rootIn(read: RowReader, number: number, map: MapOfRoots, values: Values): Segment | null {
	const given = read.number('diameter_mm');
	const clock = read.number('clock');
	const azimuth = read.number('azimuth_deg') ?? (clock === null ? null : azimuthOf(clock, map.frame));
	if (given === null && read.wrongs.length === 0) read.wrong('diameter_mm is missing');
	if (azimuth === null && read.wrongs.length === 0)
		read.wrong('the place is missing: give clock or azimuth_deg');
	if (clock !== null && (clock <= 0 || clock > 12)) read.wrong('clock must be over 0 and up to 12');
	const condition = read.word('condition', rootConditions, 'sound');
	const course = courseIn(read.cell('course'), read.wrong);
	const diameterMm = given ?? 1;
	const quick = {
		azimuthDeg: azimuth ?? 0,
		diameterMm,
		rootClass: read.word('class', rootClasses, usualClass(diameterMm, map.trunkDiameterMm, values)),
		condition,
		deadFromMm: read.number('dead_from_mm'),
		doubtfulFromMm: read.number('doubtful_from_mm'),
		seenToMm: read.number('seen_to_mm'),
		depthMm: course?.[0]?.depthMm ?? diameterMm / 2,
		lengthMm: null,
		flaws: read.flaws('flaws'),
		guessed: guessedOfRoot.filter(
			(one) => read.words('guessed').includes(one) || (one === 'class' ? read.cell('class') === '' : !course)
		),
		sourceKnown: read.truth('source_known', true),
		keep: read.truth('keep', false),
		stage: null,
		note: read.cell('note')
	};
	const seenOtherwise = read.flaws('seen_otherwise');
	const attachMm = read.number('attach_mm');
	const endMm = read.number('end_diameter_mm');
	const fine = read.number('fine_roots');
	if (read.wrongs.length > 0) return null;
	return {
		...segmentFromQuick(quick, map, read.cell('root') || `row${number}`),
		parentId: read.cell('leaves') || null,
		attachMm: attachMm ?? 0,
		seenOtherwise,
		...(endMm !== null && { diameterEndMm: endMm }),
		...(fine !== null && { fineScore: fine }),
		...(course && { course })
	};
}

/** Problems that are told of one file, at most. */
const MOST_PROBLEMS = 20;

/**
 * Reads roots from a CSV: with commas, semicolons or tabs, decimal points or commas. Needed are a place (clock or
 * azimuth_deg) and diameter_mm; what else is missing is taken as quick entry would. A course is drawn where none is given.
 * @param map the map they go on
 * @returns never throws
 */
export function readRootsCsv(text: string, map: MapOfRoots, values: Values): RootsCsv {
	const refuse = (refusal: string): RootsCsv => ({ segments: [], problems: [], refusal });
	if (text.length > ROOTS_CSV_LENGTH) return refuse('The file is larger than 1 MB.');
	const { header, rows } = readCsv(text);
	if (rows.length === 0) return refuse('The file holds no roots. It needs a header line and a row a root.');
	if (rows.length > MAP_LIMIT)
		return refuse(`The file holds ${rows.length} roots; a map takes at most ${MAP_LIMIT}.`);
	const place = new Map(header.map((name, index) => [name.toLowerCase(), index]));
	if (!place.has('diameter_mm') || !(place.has('clock') || place.has('azimuth_deg')))
		return refuse('The first line must name the columns: at least clock (or azimuth_deg) and diameter_mm.');

	const problems: RootsCsv['problems'] = [];
	const segments = rows.flatMap((row, index) => {
		const read = new RowReader(row, place);
		const segment = rootIn(read, index + 1, map, values);
		problems.push(...read.wrongs.map((why) => ({ line: index + 2, why })));
		return segment ?? [];
	});
	if (problems.length === 0) {
		const parsed = rootMapInput.safeParse({ ...map, segments });
		if (!parsed.success)
			for (const { field, message } of fieldProblems(parsed.error)) {
				const [, at, ...rest] = field.split('.');
				problems.push({ line: Number(at ?? 0) + 2, why: `${rest.join('.') || 'the row'} ${message}` });
			}
	}
	return problems.length > 0
		? { segments: [], problems: problems.slice(0, MOST_PROBLEMS), refusal: null }
		: { segments, problems, refusal: null };
}

/** A course as `azimuth radius depth / …`; null when none is given. */
function courseIn(text: string, wrong: (why: string) => void): CoursePoint[] | null {
	if (text === '') return null;
	const points = text.split('/').map((part) =>
		part
			.trim()
			.split(/\s+/)
			.map((cell) => numberIn(cell))
	);
	if (
		points.length < 2 ||
		points.some((p) => p.length !== 3 || p.some((n) => n === null || Number.isNaN(n)))
	) {
		wrong('course must be at least two points “azimuth radius depth”, parted by /');
		return null;
	}
	return points.map(([azimuthDeg, radiusMm, depthMm]) => ({
		azimuthDeg: azimuthDeg ?? 0,
		radiusMm: radiusMm ?? 0,
		depthMm: depthMm ?? 0
	}));
}
