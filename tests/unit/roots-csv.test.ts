import { defaultValues } from '$core/values/values';
import { describe, expect, it } from 'vitest';
import { readRootsCsv, ROOTS_CSV_LENGTH, writeRootsCsv } from '$core/roots/io/roots-csv';
import { parseQuickRoot } from '$core/roots/io/quick-entry';
import { segmentFromQuick, type Segment } from '$core/roots/map/root-map';

const map = { frame: 'container' as const, trunkDiameterMm: 100, ballRadiusMm: 250, mappedOn: '2026-04-18' };
const root = (line: string, id: string, more: Partial<Segment> = {}): Segment => {
	const entry = parseQuickRoot(line, 'container', 100, defaultValues);
	if (!entry.ok) throw new Error(entry.problem);
	return { ...segmentFromQuick(entry.root, map, id), ...more };
};
const faults = (text: string) =>
	readRootsCsv(text, map, defaultValues).problems.map(({ line, why }) => `${line}: ${why}`);

describe('roots as CSV', () => {
	it('come back as they were', () => {
		const segments = [
			root('6:30 32 anchor keep', 'a', { note: 'under “the stone”, left; see photo' }),
			root('9 14 sec girdling d6', 'b'),
			root('10 9 dead40', 'c'),
			root('2:15 8.5 circling trace', 'd', { parentId: 'a', attachMm: 40.5 })
		];
		const read = readRootsCsv(writeRootsCsv({ segments, frame: 'container' }), map, defaultValues);
		expect(read).toEqual({ segments, problems: [], refusal: null });
	});
	it('are read with semicolons and decimal commas, and completed as quick entry would', () => {
		const { segments, problems } = readRootsCsv(
			'clock;diameter_mm;flaws\n6,5;31,5;\n9;7;circling\n',
			map,
			defaultValues
		);
		expect(problems).toEqual([]);
		expect(segments).toHaveLength(2);
		expect(segments[0]).toMatchObject({ diameterStartMm: 31.5, rootClass: 'anchor', condition: 'sound' });
		expect(segments[0]?.course[0]?.azimuthDeg).toBeCloseTo(15, 9);
		expect(segments[1]?.flaws).toEqual(['circling']);
	});
	it('that are wrong are named by line, and nothing is taken', () => {
		expect(faults('clock,diameter_mm\n6,thick\n13,8\n,9\n7,\n')).toEqual([
			'2: diameter_mm “thick” is no number',
			'3: clock must be over 0 and up to 12',
			'4: the place is missing: give clock or azimuth_deg',
			'5: diameter_mm is missing'
		]);
		expect(faults('clock,diameter_mm,class,flaws,keep\n6,8,trunk,ugly,perhaps\n').join(' | ')).toMatch(
			/flaws “ugly” is not known.*keep must be yes or no|class “trunk” must be one of/
		);
		expect(readRootsCsv('clock,diameter_mm\n6,8\n7,x\n', map, defaultValues).segments).toEqual([]);
	});
	it('thicker than the trunk, without length, or in a ring of parents are refused', () => {
		expect(faults('clock,diameter_mm\n6,120\n')[0]).toMatch(
			/^2: diameterStartMm must not be thicker than the trunk/
		);
		expect(faults('clock,diameter_mm,course\n6,12,0 50 5 / 0 50 5\n')[0]).toMatch(
			/^2: course must be at least \u20631 mm\u2063 long/
		);
		expect(faults('root,leaves,clock,diameter_mm\na,b,6,9\nb,a,7,8\n')[0]).toMatch(
			/lead back to the root itself/
		);
		expect(faults('root,leaves,clock,diameter_mm\na,zz,6,9\n')[0]).toMatch(/must be a root of this map/);
		expect(faults('root,clock,diameter_mm\na,6,9\na,7,9\n')[0]).toMatch(/used by one root only/);
		expect(faults('clock,diameter_mm,course\n6,12,north\n')[0]).toMatch(/at least two points/);
	});
	it.each([
		['', /holds no roots/],
		['clock,diameter_mm\n', /holds no roots/],
		['colour,taste\nred,sweet\n', /must name the columns/],
		[`clock,diameter_mm\n${'6,8\n'.repeat(2000)}`, /2000 roots; a map takes at most 400/],
		['x'.repeat(ROOTS_CSV_LENGTH + 1), /larger than 1 MB/]
	])('that are no map are refused as a whole', (text, why) =>
		expect(readRootsCsv(text, map, defaultValues).refusal).toMatch(why)
	);
});
