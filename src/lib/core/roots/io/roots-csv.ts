import type { Values } from '../../values/values';
import Papa from 'papaparse';
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
	return `${Papa.unparse({ fields: [...columns], data: rows })}\r\n`;
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
function numberIn(cell: string): number | null {
	const text = cell.trim().replace(',', '.');
	return text === '' ? null : /^[+-]?\d*\.?\d+$/.test(text) ? Number(text) : NaN;
}

/**
 * Reads roots from a CSV: with commas, semicolons or tabs, decimal points or commas. Needed are a place (clock or
 * azimuth_deg) and diameter_mm; what else is missing is taken as quick entry would. A course is drawn where none is given.
 * @param map the map they go on
 * @returns never throws
 */
export function readRootsCsv(
	text: string,
	map: Pick<RootMapInput, 'frame' | 'ballRadiusMm' | 'mappedOn'> & Trunk,
	values: Values
): RootsCsv {
	const refuse = (refusal: string): RootsCsv => ({ segments: [], problems: [], refusal });
	if (text.length > ROOTS_CSV_LENGTH) return refuse('The file is larger than 1 MB.');
	const { data } = Papa.parse<string[]>(text.replace(/^\uFEFF/, ''), {
		skipEmptyLines: 'greedy',
		comments: '#',
		delimitersToGuess: [';', '\t', ',']
	});
	const [header, ...rows] = data;
	if (!header || rows.length === 0)
		return refuse('The file holds no roots. It needs a header line and a row a root.');
	if (rows.length > MAP_LIMIT)
		return refuse(`The file holds ${rows.length} roots; a map takes at most ${MAP_LIMIT}.`);
	const place = new Map(header.map((name, index) => [name.trim().toLowerCase(), index]));
	if (!place.has('diameter_mm') || !(place.has('clock') || place.has('azimuth_deg')))
		return refuse('The first line must name the columns: at least clock (or azimuth_deg) and diameter_mm.');

	const problems: RootsCsv['problems'] = [];
	const segments: Segment[] = [];
	for (const [index, row] of rows.entries()) {
		const cell = (name: Column): string => row[place.get(name) ?? -1]?.trim() ?? '';
		const wrong = (why: string): void => void problems.push({ line: index + 2, why });
		const number = (name: Column): number | null => {
			const value = numberIn(cell(name));
			if (value !== null && Number.isNaN(value)) {
				wrong(`${name} “${cell(name).slice(0, 20)}” is no number`);
				return null;
			}
			return value;
		};
		const word = <T extends string>(name: Column, words: readonly T[], otherwise: T): T => {
			const given = cell(name).toLowerCase();
			if (given === '') return otherwise;
			const found = words.find((candidate) => candidate === given);
			if (!found) wrong(`${name} “${given.slice(0, 20)}” must be one of: ${words.join(', ')}`);
			return found ?? otherwise;
		};
		const before = problems.length;
		const diameterMm = number('diameter_mm');
		const clock = number('clock');
		const azimuth = number('azimuth_deg') ?? (clock === null ? null : azimuthOf(clock, map.frame));
		if (diameterMm === null && problems.length === before) wrong('diameter_mm is missing');
		if (azimuth === null && problems.length === before)
			wrong('the place is missing: give clock or azimuth_deg');
		if (clock !== null && (clock <= 0 || clock > 12)) wrong('clock must be over 0 and up to 12');
		const flawList = (name: Column): RootFlaw[] => {
			const flaws = cell(name).toLowerCase().split(/\s+/).filter(Boolean);
			const strange = flaws.find((flaw) => !(rootFlaws as readonly string[]).includes(flaw));
			if (strange) wrong(`${name} “${strange.slice(0, 20)}” is not known; use: ${rootFlaws.join(', ')}`);
			return flaws as RootFlaw[];
		};
		const truth = (name: Column, otherwise: boolean): boolean => {
			const given = cell(name).toLowerCase();
			if (given !== '' && !(given in truths)) wrong(`${name} must be yes or no`);
			return truths[given] ?? otherwise;
		};
		const condition = word('condition', rootConditions, 'sound');
		const course = courseIn(cell('course'), wrong);
		const quick = {
			azimuthDeg: azimuth ?? 0,
			diameterMm: diameterMm ?? 1,
			rootClass: word('class', rootClasses, usualClass(diameterMm ?? 1, map.trunkDiameterMm, values)),
			condition,
			deadFromMm: number('dead_from_mm'),
			doubtfulFromMm: number('doubtful_from_mm'),
			seenToMm: number('seen_to_mm'),
			depthMm: course?.[0]?.depthMm ?? (diameterMm ?? 1) / 2,
			lengthMm: null,
			flaws: flawList('flaws'),
			guessed: guessedOfRoot.filter(
				(one) =>
					cell('guessed').toLowerCase().split(/\s+/).includes(one) ||
					(one === 'class' ? cell('class') === '' : !course)
			),
			sourceKnown: truth('source_known', true),
			keep: truth('keep', false),
			stage: null,
			note: cell('note')
		};
		const seenOtherwise = flawList('seen_otherwise');
		const attachMm = number('attach_mm');
		const endMm = number('end_diameter_mm');
		const fine = number('fine_roots');
		if (problems.length > before) continue;
		const sketched = segmentFromQuick(quick, map, cell('root') || `row${index + 1}`);
		segments.push({
			...sketched,
			parentId: cell('leaves') || null,
			attachMm: attachMm ?? 0,
			seenOtherwise,
			...(endMm !== null && { diameterEndMm: endMm }),
			...(fine !== null && { fineScore: fine }),
			...(course && { course })
		});
	}
	if (problems.length === 0) {
		const parsed = rootMapInput.safeParse({ ...map, segments });
		if (!parsed.success)
			for (const { field, message } of fieldProblems(parsed.error)) {
				const [, at, ...rest] = field.split('.');
				problems.push({ line: Number(at ?? 0) + 2, why: `${rest.join('.') || 'the row'} ${message}` });
			}
	}
	return problems.length > 0
		? { segments: [], problems: problems.slice(0, 20), refusal: null }
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
