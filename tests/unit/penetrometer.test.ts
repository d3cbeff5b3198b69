import { describe, expect, it } from 'vitest';
import { READINGS_LIMIT, resistanceProfile, type PenetrometerReading } from '$core/examine/soil/penetrometer';
import { readPenetrometerCsv } from '$core/examine/soil/penetrometer-csv';
import { simulatedSoils, simulatePenetrometer } from '$core/simulate/penetrometer';
import { defaultValues } from '$core/values/values';

const at = (depthMm: number, resistanceMpa: number, position = 1): PenetrometerReading => ({
	position,
	depthMm,
	resistanceMpa,
	readings: 1
});
const profile = (readings: PenetrometerReading[]) => resistanceProfile(readings, defaultValues);

describe('resistance by depth', () => {
	it('says at which depth roots slow, stop, and find open soil again', () => {
		const { slowFromMm, stopsFromMm, openAgainMm, worst, gaps } = profile([
			at(20, 0.8),
			at(110, 2.4),
			at(160, 3.3),
			at(170, 3.5, 2),
			at(310, 1.2)
		]);
		expect({ slowFromMm, stopsFromMm, openAgainMm }).toEqual({
			slowFromMm: 100,
			stopsFromMm: 150,
			openAgainMm: 300
		});
		expect(worst?.meanMpa).toBeCloseTo(3.4, 9);
		expect(gaps).toEqual([
			{ fromMm: 50, toMm: 100 },
			{ fromMm: 200, toMm: 300 }
		]);
	});
	it('is the same in whatever order, and weighs averaged readings by their number', () => {
		const list = [at(20, 1), at(30, 2, 2), at(120, 3)];
		expect(profile([...list].reverse())).toEqual(profile(list));
		const averaged = profile([{ ...at(20, 1), readings: 3 }, at(30, 3)]);
		expect(averaged.bands[0]?.meanMpa).toBeCloseTo(1.5, 9);
	});
});

describe('a penetrometer file', () => {
	it('is read with commas, semicolons and decimal commas, tabs, a byte order mark and remarks', () => {
		const commas = readPenetrometerCsv('position,depth_mm,resistance_kpa\n1,50,800\n1,100,2500\n');
		const semicolons = readPenetrometerCsv(
			'\uFEFF# from the field\nPoint;Depth (cm);Cone resistance (MPa)\nA;5;0,8\nA;10;2,5\n'
		);
		const tabs = readPenetrometerCsv('depth mm\tresistance psi\n50\t116.03\n100\t362.59\n');
		for (const file of [commas, semicolons, tabs]) {
			expect(file.refusal).toBeNull();
			expect(file.readings.map(({ depthMm }) => depthMm)).toEqual([50, 100]);
			file.readings.forEach(({ resistanceMpa }, i) =>
				expect(resistanceMpa).toBeCloseTo([0.8, 2.5][i] ?? 0, 3)
			);
		}
	});
	it('with text and gaps is read but for the rows that say nothing, each named by its line', () => {
		const file = readPenetrometerCsv(
			'position,depth_mm,resistance_kpa\n1,50,800\n1,stone,900\n1,100,\n1,150,-20\n1,200,1500\n'
		);
		expect(file.rows).toBe(2);
		expect(file.skippedCount).toBe(3);
		expect(file.skipped).toEqual([
			{ line: 3, why: 'the depth “stone” is no number' },
			{ line: 4, why: 'the resistance “” is no number' },
			{ line: 5, why: 'the resistance is below 0' }
		]);
	});
	it('without units says what it took them for', () => {
		const file = readPenetrometerCsv('depth,resistance\n5,800\n40,2400\n');
		expect(file.notes.join(' ')).toMatch(/depth carries no unit.*cm.*resistance carries no unit.*kPa/s);
		expect(file.readings[1]).toMatchObject({ depthMm: 400, resistanceMpa: 2.4 });
	});
	it.each([
		['', /empty/],
		['depth,remark\n5,soft\n', /must name the columns/],
		['depth_mm,resistance_kpa\nhello,world\n', /No row holds/],
		['depth_m,resistance_kpa\n50,800\n100,900\n', /most rows are impossible/],
		['depth_mm,resistance_mpa\n50,800\n100,900\n', /most rows are impossible/],
		['depth_mm,resistance_kpa\n50,0.8\n100,2.5\n', /no reading reaches/]
	])('that cannot be meant is refused with what to do: %j', (text, why) => {
		const file = readPenetrometerCsv(text);
		expect(file.refusal).toMatch(why);
		expect(file.readings).toEqual([]);
	});
	it('of 100,000 rows is averaged by depth into what can be kept, and gives the same profile', () => {
		const rows = Array.from({ length: 100_000 }, (_, i) => {
			const depth = (i % 1000) * 0.6;
			return `${Math.floor(i / 1000) % 20},${depth.toFixed(1)},${Math.round(600 + depth * 4)}`;
		});
		const file = readPenetrometerCsv(`position,depth_mm,resistance_kpa\n${rows.join('\n')}\n`);
		expect(file.refusal).toBeNull();
		expect(file.rows).toBe(100_000);
		expect(file.readings.length).toBeLessThanOrEqual(READINGS_LIMIT);
		expect(file.notes.join()).toMatch(/100000 readings were averaged/);
		const { bands } = profile(file.readings);
		for (const band of bands.slice(0, 11))
			expect(band.meanMpa).toBeCloseTo(0.6 + ((band.fromMm + band.toMm) / 2) * 0.004, 1);
	});
	it('of too many rows or too much text is refused', () => {
		expect(readPenetrometerCsv(`depth_mm,resistance_kpa\n${'50,800\n'.repeat(200_001)}`).refusal).toMatch(
			/at most 200000/
		);
		expect(readPenetrometerCsv('x'.repeat(8_000_001)).refusal).toMatch(/larger than 8 MB/);
	});
	it('of the simulated probe finds the layer it was made with', () => {
		const path = readPenetrometerCsv(simulatePenetrometer(simulatedSoils['under a path'], 3));
		const { stopsFromMm, openAgainMm } = profile(path.readings);
		expect(stopsFromMm).toBeGreaterThanOrEqual(50);
		expect(stopsFromMm).toBeLessThanOrEqual(150);
		expect(openAgainMm).toBeGreaterThanOrEqual(300);
		const open = readPenetrometerCsv(simulatePenetrometer(simulatedSoils['open soil'], 3));
		expect(profile(open.readings).slowFromMm).toBeNull();
		expect(simulatePenetrometer(simulatedSoils['open soil'], 3)).toBe(
			simulatePenetrometer(simulatedSoils['open soil'], 3)
		);
	});
});
