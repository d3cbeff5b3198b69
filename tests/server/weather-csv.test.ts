import { describe, expect, it } from 'vitest';
import { weatherBody } from '$lib/server/weather';
import { readWeatherCsv } from '$lib/server/edge/weather-csv';

/** Files as stations and people write them. Factors: SI Brochure, 9th edition (2019), and the international yard and pound (1959). */

const read = (text: string) => readWeatherCsv(text, '2026-11-14');
const rowsOf = (text: string) => read(text).rows;
const common = { placeId: 'p', source: 'station', from: 'file' };

describe('a file of days', () => {
	it('comes with commas for decimals, and an empty cell was not measured', () => {
		const { per, rows, unread } = read('date;min_c;max_c;rain_mm\n2026-04-01;2,5;11;\n2026-04-02;3;12;4');
		expect([per, unread]).toEqual(['day', []]);
		expect(weatherBody.parse(rows.map((row) => ({ ...common, ...row })))).toMatchObject([
			{ on: '2026-04-01', minC: 2.5, maxC: 11, rainMm: null },
			{ on: '2026-04-02', minC: 3, rainMm: 4 }
		]);
	});

	it('is known by the words of its headings, whatever their order, and turned into the units that are kept', () => {
		const { rows, unread } = read(
			[
				'Day,High temp (°F),Low temp (°F),Rainfall (in),Humidity (%),Wind avg (mph),Wind max (mph),Solar (kWh/m²),Indoor temp (°F),Battery',
				'11/13/2026,50,32,0.5,80,10,20,2,70,ok'
			].join('\n')
		);
		expect(unread).toEqual(['Indoor temp (°F)', 'Battery']);
		expect(rows).toHaveLength(1);
		const [row] = rows;
		expect(row).toMatchObject({ on: '2026-11-13', minC: 0, maxC: 10, rainMm: 12.7, humidityPercent: 80 });
		expect(row?.windMs).toBeCloseTo(4.4704, 9);
		expect(row?.gustMs).toBeCloseTo(8.9408, 9);
		expect(row?.sunMj).toBeCloseTo(7.2, 9);
	});

	it.each([
		['Wind km/h', 36, 'windMs', 10],
		['Wind kph', 36, 'windMs', 10],
		['Wind (m/s)', 3, 'windMs', 3],
		['Wind (knots)', 10, 'windMs', 18520 / 3600],
		['Gusts (kt)', 10, 'gustMs', 18520 / 3600],
		['Rain (l/m²)', 3, 'rainMm', 3],
		['Rain (cm)', 3, 'rainMm', 30],
		['Precipitation in inches', 1, 'rainMm', 25.4],
		['Solar (MJ/m²)', 9, 'sunMj', 9],
		['Solar (Wh/m2)', 2500, 'sunMj', 9],
		['Solar radiation mean (W/m²)', 100, 'sunMj', 8.64],
		['RH', 71, 'humidityPercent', 71]
	])('%s of %d is %s %d', (heading, cell, told, value) => {
		const [row] = rowsOf(`Date;Temp min °C;Temp max °C;${heading}\n2026-11-01;1;5;${cell}`);
		expect(row?.[told]).toBeCloseTo(value, 9);
	});

	it('lets the open air alone count, and the first of two columns of one thing', () => {
		const [row] = rowsOf(
			'Date,Soil temp min °C,Dew min °C,Temp min °C,Temp max °C,Temp mean °C,Humidity min %,Wind min m/s,Humidity %,Rain rate mm/h,Rain mm,Rain hourly mm,Wind chill °C,Temp min °C\n' +
				'2026-11-01,8,0,1,5,3,40,6,70,9,2,1,-4,99'
		);
		expect(row).toEqual({ on: '2026-11-01', minC: 1, maxC: 5, humidityPercent: 70, rainMm: 2 });
	});

	it('says which number could be either for want of its unit, and takes nothing', () => {
		expect(() => read('Date,Low,High\n2026-11-01,40,50')).toThrow(/“Low” and “High” must say the unit/);
		expect(() => read('Date,Temp min °C,Temp max °C,Wind\n2026-11-01,4,9,12')).toThrow(/“Wind” must say/);
	});

	it('has its days read one way alone', () => {
		const day = (...days: string[]) =>
			rowsOf(['Date,min_c,max_c', ...days.map((one) => `${one},1,2`)].join('\n')).map((row) => row.on);
		expect(day('13/11/2026', '01/11/2026')).toEqual(['2026-11-13', '2026-11-01']);
		expect(day('11/13/2026', '11/01/2026')).toEqual(['2026-11-13', '2026-11-01']);
		expect(day('1.11.2026')).toEqual(['2026-11-01']);
		expect(day('2 Nov 2026')).toEqual(['2026-11-02']);
		expect(day('2026/11/02')).toEqual(['2026-11-02']);
		expect(() => day('01/11/2026', '02/11/2026')).toThrow(/day or the month comes first/);
		expect(() => day('13/11/2026', '11/13/2026')).toThrow(/day or the month comes first/);
		// What is no day is named by the schema, as it was written.
		expect(day('soon')).toEqual(['soon']);
	});

	it('without a date, or without both temperatures, is refused', () => {
		for (const header of ['day,low', 'at,low', 'min_c,max_c', 'date,max_c', 'x,y', ''])
			expect(() => read(`${header}\n1,2`), header).toThrow(/columns/);
	});
});

describe('a file of hours', () => {
	it('has a time and one temperature; what fell so far that day is no rain of an hour', () => {
		const { per, rows, unread } = read(
			[
				'Time,Outdoor Temperature(°C),Outdoor Humidity(%),Hourly Rain(mm),Daily Rain(mm),Solar(W/m²)',
				'2026-11-05T14:00:00Z,7,80,0.2,3.4,120',
				'2026-11-05T15:00:00+01:00,6,--,0,3.4,80'
			].join('\n')
		);
		expect([per, unread]).toEqual(['hour', ['Daily Rain(mm)']]);
		expect(rows).toEqual([
			{ at: '2026-11-05T14:00:00Z', temperatureC: 7, humidityPercent: 80, rainMm: 0.2, sunWm2: 120 },
			{ at: '2026-11-05T15:00:00+01:00', temperatureC: 6, rainMm: 0, sunWm2: 80 }
		]);
	});

	it('may have several rows an hour, in which the rain of the last hour is not counted again and again', () => {
		const rain = (heading: string, ...times: string[]) => {
			const file = [`Time,Temp °C,${heading}`, ...times.map((time) => `2026-11-05 ${time},7,1`)].join('\n');
			return rowsOf(file).map((row) => row.rainMm);
		};
		expect(rain('Hourly rain mm', '9:00', '10:00')).toEqual([1, 1]);
		expect(rain('Hourly rain mm', '9:00', '9:30')).toEqual([undefined, undefined]);
		expect(rain('Rain mm', '9:00', '9:30')).toEqual([1, 1]);
	});

	it('leaves sun in a unit that tells nothing, and names it', () => {
		const { rows, unread } = read('Time,Temp °C,Solar (lux)\n2026-11-05T14:00:00Z,7,9000');
		expect([rows[0]?.sunWm2, unread]).toEqual([undefined, ['Solar (lux)']]);
	});

	it('by the clock of this computer where no zone is written, its day and its time in one column or two', () => {
		const at = (header: string, ...cells: string[]) => rowsOf(`${header},temp °C\n${cells.join()},7`)[0]?.at;
		const local = new Date('2026-11-05T09:30').toISOString();
		expect(at('Date/Time', '2026-11-05 9:30')).toBe(local);
		expect(at('Date/Time', '5.11.2026 09:30')).toBe(local);
		expect(at('Date,Time', '5 Nov 2026', '9:30')).toBe(local);
		expect(at('Time (UTC)', '2026-11-05 09:30:15')).toBe('2026-11-05T09:30:15.000Z');
		expect(at('Time', 'noon')).toBe('noon');
	});

	it('is one too where a day comes twice, whatever lowest and highest stand beside', () => {
		const header = 'Date,Time,Temp °C,Temp min °C,Temp max °C';
		expect(read(`${header}\n2026-11-05,9:00,7,6,8\n2026-11-05,10:00,8,7,9`)).toMatchObject({
			per: 'hour',
			rows: [{ temperatureC: 7 }, { temperatureC: 8 }],
			unread: ['Temp min °C', 'Temp max °C']
		});
		expect(read(`${header}\n2026-11-05,0:00,7,6,8\n2026-11-06,0:00,8,7,9`)).toMatchObject({
			per: 'day',
			rows: [{ on: '2026-11-05' }, { on: '2026-11-06', maxC: 9 }],
			unread: ['Temp °C']
		});
	});
});
