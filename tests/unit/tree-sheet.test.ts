import { describe, expect, it } from 'vitest';
import { readCsv } from '$core/text/csv';
import {
	kindNamed,
	matchColumns,
	readTreeSheet,
	sheetColumnNames,
	type SheetKnown,
	type SheetUsual
} from '$core/take-in/tree-sheet';

const known: SheetKnown = {
	kinds: [
		{ id: 'carpinus', commonName: 'Hornbeam', genus: 'Carpinus' },
		{ id: 'fagus', commonName: 'Beech', genus: 'Fagus' },
		{ id: 'larix', commonName: 'Larch', genus: 'Larix' }
	],
	places: [{ id: 'bench', name: 'East bench' }],
	tags: ['H-03'],
	today: '2026-04-18',
	units: 'metric',
	locale: 'en-GB'
};
const usual: SheetUsual = {
	placeId: 'bench',
	situation: 'potted',
	permission: 'own',
	vigour: 'fair',
	reserves: 'long-potted'
};
const read = (text: string, change: Partial<SheetUsual> = {}, more: Partial<SheetKnown> = {}) => {
	const { header, rows } = readCsv(text);
	return readTreeSheet(rows, matchColumns(header), { ...usual, ...change }, { ...known, ...more });
};

describe('the columns of a sheet of trees', () => {
	it('are found by their names, with or without a unit behind, each once', () => {
		const found = matchColumns([
			'No.',
			'Species',
			'Tree',
			'Caliper (mm)',
			'Height [m]',
			'Location',
			'Remarks',
			'Price'
		]);
		expect(found).toMatchObject({
			tag: 0,
			kind: 1,
			name: 2,
			trunk: 3,
			height: 4,
			place: 5,
			note: 6,
			situation: null
		});
		const places = sheetColumnNames.flatMap((column) => found[column] ?? []);
		expect(new Set(places).size).toBe(places.length);
	});
});

describe('a kind', () => {
	it('is known by its name, its genus, or a botanical name', () => {
		for (const text of [
			'Hornbeam',
			' hornbeam ',
			'carpinus',
			'Carpinus betulus',
			"Carpinus betulus 'Fastigiata'"
		])
			expect(kindNamed(known.kinds, text), text).toBe('carpinus');
		for (const text of ['', 'Hornbeams', 'betulus carpinus'])
			expect(kindNamed(known.kinds, text), text).toBeNull();
	});
});

describe('a row', () => {
	it('is a tree as it would be taken in by hand', () => {
		const [row] = read(
			'tag;name;species;diameter;height;date;situation;notes\nB-1;Beech at the ford;Fagus;6,5 cm;2,4;12 Mar 2026;just lifted;by the gate'
		);
		expect(row?.problems).toEqual([]);
		expect(row?.tree).toMatchObject({
			tag: 'B-1',
			name: 'Beech at the ford',
			kindId: 'fagus',
			placeId: 'bench',
			situation: 'just-lifted',
			trunkDiameterMm: 65,
			heightM: 2.4,
			takenInOn: '2026-03-12',
			permission: 'own',
			vigour: 'fair',
			reserves: 'long-potted',
			plantCount: 1,
			note: 'by the gate'
		});
	});
	it('of a yard in inches is read in inches', () => {
		const [row] = read('tag,name,kind,trunk\nL-1,Larch,Larch,1 1/2', {}, { units: 'imperial' });
		expect(row?.tree?.trunkDiameterMm).toBeCloseTo(38.1);
	});
	it('says what is wrong with it by the names of its columns, and is no tree', () => {
		const said = (line: string, change: Partial<SheetUsual> = {}): string[] =>
			read(`tag,name,kind,trunk,place,vigour,date,plants\n${line}`, change)[0]?.problems ?? [];
		expect(said('A-1,Oak,Quercus,40,,,,')).toEqual([
			'Kind “Quercus” is not known here; write it as Reference, Kinds has it, or add it there.'
		]);
		expect(said('A-1,Beech,Beech,,,,,')).toEqual(['Trunk above the flare must be given.']);
		expect(said('A-1,Beech,Beech,thick,,,,')).toEqual(['Trunk above the flare “thick” must be a length.']);
		expect(said('A-1,Beech,Beech,"1,250",,,,')).toEqual([
			'Trunk above the flare “1,250” can be read two ways: write 1250 or 1.250.'
		]);
		expect(said('A-1,Beech,Beech,99999,,,,')[0]).toMatch(/^Trunk above the flare must be/);
		expect(said('A-1,Beech,Beech,40,West,,,')).toEqual([
			'Place “West” is no place of this yard; add it first.'
		]);
		expect(said('A-1,Beech,Beech,40,,,,', { placeId: '' })).toEqual([
			'Place is not said, and none is chosen for rows without it.'
		]);
		expect(said('A-1,Beech,Beech,40,,sulking,,')).toEqual([
			'Vigour “sulking” must be one of: strong, fair, weak.'
		]);
		expect(said('A-1,Beech,Beech,40,,,2026-04-19,')).toEqual(['Taken in on must not be after today.']);
		expect(said('A-1,Beech,Beech,40,,,some day,')).toEqual(['Taken in on “some day” must be a date.']);
		expect(said('A-1,Beech,Beech,40,,,,many')[0]).toMatch(/^Number of plants/);
		expect(said(',Beech,Beech,40,,,,')[0]).toMatch(/^Tag must/);
		expect(said('h-03,Beech,Beech,40,,,,')).toEqual(['Tag “h-03” is on a tree of this yard already.']);
	});
	it('never has said for it how the tree stands and does, or that it may be worked on', () => {
		for (const field of ['situation', 'permission', 'vigour', 'reserves'] as const)
			expect(read('tag,name,kind,trunk\nA-1,Beech,Beech,40', { [field]: '' })[0]?.tree, field).toBeNull();
	});
	it('has a tag of its own within the sheet; empty lines are none', () => {
		const rows = read('tag,name,kind,trunk\nA-1,Beech,Beech,40\n,,,\na-1,Beech two,Beech,40\n');
		expect(rows.map(({ line, problems }) => [line, problems])).toEqual([
			[2, []],
			[3, ['Tag “a-1” is on line 2 too.']]
		]);
	});
});
