import { describe, expect, it } from 'vitest';
import { numberTyped, readMeasure, readNumber, readTwoWays } from '$core/text/typed';
import { parsePlaces, parseQuickRoot, writePlaces } from '$core/roots/io/quick-entry';
import { rootFlawNames, rootFlaws } from '$core/roots/map/root-map';
import { createFormat } from '$core/text/format';
import { defaultValues } from '$core/values/values';

describe('measures as they are typed', () => {
	it.each([
		['12', 12],
		['0,5', 0.5],
		['.5', 0.5],
		['.25', 0.25],
		['3.', 3],
		['1/2', 0.5],
		['1 1/2', 1.5],
		['1-3/4', 1.75],
		['½', 0.5],
		['2½', 2.5],
		['-3', -3],
		['5,348', 5.348],
		['1,234.5', 1234.5],
		['1.234,5', 1234.5],
		['1,234,567', 1234567],
		['1.234.567', 1234567],
		['12 345', 12345],
		['12\u202f345,5', 12345.5],
		['-1,630.25', -1630.25]
	])('the number %s is %d', (text, number) => expect(readNumber(text)).toBeCloseTo(number, 9));
	it.each([
		'',
		'x',
		'1/0',
		'1//2',
		'1.2.3',
		'1 2',
		'--1',
		'1e3',
		'1,23,4',
		'12,34.5',
		'1234,567.8',
		'1.23.456'
	])('"%s" is none', (text) => expect(readNumber(text)).toBeNull());
	it('one comma before three digits is read two ways where numbers have a point, and one way where they have a comma', () => {
		expect(readTwoWays('5,348', '.')).toBe('“5,348” can be read two ways: write 5348 or 5.348');
		expect(readTwoWays(' 5,348 ft ', '.')).toBe('“5,348 ft” can be read two ways: write 5348 or 5.348');
		expect(readTwoWays('-999,999', '.')).toBe('“-999,999” can be read two ways: write -999999 or -999.999');
		for (const plain of ['0,348', '5,34', '5,3481', '1234,567', '5.348', '5,348.2', '1,234,567', '5348', ''])
			expect(readTwoWays(plain, '.'), plain).toBeNull();
		expect(readTwoWays('5,348', ',')).toBeNull();
		expect(createFormat({ units: 'metric', locale: 'de-DE' }).decimalSign).toBe(',');
		expect(createFormat({ units: 'metric', locale: 'en-US' }).decimalSign).toBe('.');
	});
	it('out of a form or a file numbers of programs count too, and what is none is told', () => {
		expect(['0,5', '1/2', '+3', '5e-7', '1,5E3', ' 12 '].map(numberTyped)).toEqual([
			0.5, 0.5, 3, 5e-7, 1500, 12
		]);
		expect(['', 'x', '0x10', 'Infinity', 'e3', '1e', '++1'].map(numberTyped)).toEqual(Array(7).fill(NaN));
	});
	/** 1 in = 25.4 mm and 1 lb = 0.45359237 kg exactly: International yard and pound agreement, 1959. */
	it.each([
		['1/2', 'mm', 'imperial', 12.7],
		['12mm', 'mm', 'imperial', 12],
		['12', 'mm', 'metric', 12],
		['0.5in', 'mm', 'metric', 12.7],
		['1 1/2"', 'mm', 'metric', 38.1],
		["2'", 'mm', 'metric', 609.6],
		['3 cm', 'mm', 'metric', 30],
		['6', 'm', 'imperial', 1.8288],
		['250 ml', 'L', 'imperial', 0.25],
		['1', 'L', 'imperial', 3.785411784],
		['2 lb', 'kg', 'metric', 0.90718474],
		[`2' 8"`, 'm', 'imperial', 0.8128],
		['2’8”', 'm', 'metric', 0.8128],
		["5'8", 'm', 'imperial', 1.7272],
		['2 ft. 8 1/2 in.', 'mm', 'metric', 825.5],
		['2 ft 8½', 'mm', 'imperial', 825.5],
		['3 feet, 4 inches', 'm', 'metric', 1.016],
		['3 lb 4 oz', 'kg', 'metric', 1.4741752025],
		['4 lbs', 'kg', 'metric', 1.81436948],
		['1 m 20 cm', 'mm', 'metric', 1200],
		['2 gallons', 'L', 'metric', 7.570823568],
		['500g', 'kg', 'metric', 0.5],
		// A pound-force is 4.4482216152605 N, an inch 25.4 mm.
		['100 psi', 'MPa', 'metric', 0.6894757],
		['300', 'MPa', 'imperial', 2.0684271],
		['2500 kPa', 'MPa', 'imperial', 2.5],
		['12 bar', 'MPa', 'metric', 1.2],
		['1.5', 'MPa', 'metric', 1.5]
	] as const)('%s in %s, %s, is %d', (text, unit, system, stored) =>
		expect(readMeasure(text, unit, system)).toBeCloseTo(stored, 9)
	);
	it('knows a unit by all the ways people write it', () => {
		const ways = (['L', 'kg', 'm'] as const).map((unit) => ({
			unit,
			alike: {
				L: ['gal', 'gallon', 'gallons', '', 'quart', 'quarts', 'qt'],
				kg: ['lb', 'lbs', 'pound', 'pounds', '', 'oz', 'ounce', 'ounces'],
				m: ['ft', 'foot', 'feet', "'", '′', '’', '', 'in', 'inch', 'inches', '"', '″', '”', "''"]
			}[unit]
		}));
		const size = { L: [3.785411784, 0.946352946], kg: [0.45359237, 0.028349523125], m: [0.3048, 0.0254] };
		for (const { unit, alike } of ways) {
			const parted = alike.indexOf('');
			alike.forEach((word, at) => {
				if (word === '') return;
				expect(readMeasure(`3 ${word}`, unit, 'metric'), word).toBeCloseTo(
					3 * (size[unit][at < parted ? 0 : 1] ?? NaN),
					9
				);
			});
		}
		for (const word of ['l', 'litre', 'litres', 'liter', 'Liters'])
			expect(readMeasure(`3 ${word}`, 'L', 'imperial'), word).toBe(3);
		for (const text of [`2' 6`, `2′6″`, '2’ 6”', `2' 6''`, '2ft-6in', '2 Feet, 6 Inches'])
			expect(readMeasure(text, 'mm', 'metric'), text).toBeCloseTo(762, 9);
	});
	it('stands in a field as it was typed in metric, and fit to be read where it is converted', () => {
		const field = (units: 'metric' | 'imperial') => createFormat({ units, locale: 'en-GB' }).unitOf;
		expect(field('imperial')('m').inField(1630)).toBe('5348');
		expect(field('imperial')('m').inField(-35)).toBe('-114.8');
		expect(field('imperial')('mm').inField(380)).toBe('14.96');
		expect(field('imperial')('mm').inField(3.175)).toBe('0.125');
		expect(field('imperial')('mm').inField(25.4)).toBe('1');
		expect(field('metric')('kg').inField(12.3456)).toBe('12.346');
		expect(field('metric')('m').inField(1630.125)).toBe('1630.125');
	});
	it.each([
		['12 kg', 'mm'],
		['mm', 'mm'],
		['', 'mm'],
		['3 parsecs', 'm'],
		[`2' 12"`, 'm'],
		['3 in 2 ft', 'm'],
		['3 lb 4', 'kg'],
		['3 lb 16 oz', 'kg'],
		['2 ft 3 kg', 'm'],
		['1,250 ft 3 in', 'm'],
		['2.5 ft 3 in', 'm']
	] as const)('"%s" is no %s', (text, unit) => expect(readMeasure(text, unit, 'metric')).toBeNull());
});

describe('quick entry in the person’s units', () => {
	const entry = (line: string, units: 'metric' | 'imperial' = 'metric') =>
		parseQuickRoot(line, 'container', 80, defaultValues, units);
	it('reads inches and fractions where they are the person’s, millimetres where not', () => {
		expect(entry('7 0.5 sec', 'imperial')).toMatchObject({
			ok: true,
			root: { diameterMm: expect.closeTo(12.7, 9) }
		});
		expect(entry('7 1 1/2 sec d1/2 l7in', 'imperial')).toMatchObject({
			ok: true,
			root: { diameterMm: expect.closeTo(38.1, 6), depthMm: 12.7, lengthMm: 177.8 }
		});
		expect(entry('7 12mm sec dead40mm', 'imperial')).toMatchObject({
			ok: true,
			root: { diameterMm: 12, deadFromMm: 40 }
		});
		expect(entry('7 0.5 sec')).toMatchObject({ ok: true, root: { diameterMm: 0.5 } });
		expect(entry('7 9 sec', 'imperial').ok).toBe(false);
		expect(entry('7 9in sec').ok).toBe(false);
	});
	it('takes every name it prints for a flaw back in', () => {
		for (const flaw of rootFlaws) {
			if (flaw === 'rotten') continue;
			const read = entry(`7 12; ${rootFlawNames[flaw]}`);
			expect(read, rootFlawNames[flaw]).toMatchObject({ ok: true });
			if (read.ok) expect(read.root.flaws, rootFlawNames[flaw]).toContain(flaw);
		}
		for (const word of ['rises', 'upward', 'circles', 'surface'])
			expect(entry(`7 12 sec ${word};`).ok).toBe(true);
	});
	it('places round a stem go there and back in inches', () => {
		const text = '12:00 2; 3:00 2.5; 7:30 1.75';
		const read = parsePlaces(text, 'container', 'imperial');
		expect(read.ok && read.points[0]?.radiusMm).toBeCloseTo(50.8, 6);
		expect(read.ok && writePlaces(read.points, 'container', 'imperial')).toBe(text);
	});
});
