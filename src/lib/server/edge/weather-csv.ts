import { readCsv } from '../../core/text/csv';
import { numberTyped } from '../../core/text/typed';
import { Refusal } from '../errors';

/** Columns of a weather file by its header, RFC 4180; a comma or semicolon parts them. */
const dayColumns: Record<string, string> = {
	date: 'on',
	on: 'on',
	min_c: 'minC',
	max_c: 'maxC',
	humidity_percent: 'humidityPercent',
	wind_ms: 'windMs',
	gust_ms: 'gustMs',
	sun_mj: 'sunMj',
	rain_mm: 'rainMm'
};
const hourColumns: Record<string, string> = {
	at: 'at',
	temperature_c: 'temperatureC',
	humidity_percent: 'humidityPercent',
	wind_ms: 'windMs',
	gust_ms: 'gustMs',
	sun_wm2: 'sunWm2',
	rain_mm: 'rainMm'
};
const weatherColumns = {
	day: Object.keys(dayColumns).filter((name) => name !== 'on'),
	hour: Object.keys(hourColumns)
};

/**
 * Rows of a CSV as days or hours of weather, to be checked by their schema; a column `at` makes them hours. Empty cells are not
 * measured. @throws Refusal 422
 */
export function readWeatherCsv(text: string): { per: 'day' | 'hour'; rows: Record<string, unknown>[] } {
	const { header, rows: lines } = readCsv(text);
	const fields = header.map((name) => name.toLowerCase());
	const per = fields.includes('at') ? 'hour' : 'day';
	const columns = per === 'hour' ? hourColumns : dayColumns;
	const known = fields.flatMap((name) => columns[name] ?? []);
	const missing = (per === 'hour' ? ['temperatureC'] : ['on', 'minC', 'maxC']).filter(
		(name) => !known.includes(name)
	);
	if (missing.length > 0)
		throw new Refusal(
			422,
			'The first line must name the columns: date, min_c and max_c for days; at and temperature_c for hours.',
			`Known are: ${weatherColumns.day.join(', ')}; by the hour ${weatherColumns.hour.join(', ')}. Nothing was saved.`
		);
	const rows = lines.map((row) => {
		const read: Record<string, unknown> = {};
		for (const [i, field] of fields.entries()) {
			const [name, cell] = [columns[field], (row[i] ?? '').trim()];
			if (name === undefined || cell === '') continue;
			read[name] = name === 'on' || name === 'at' ? cell : numberTyped(cell);
		}
		return read;
	});
	return { per, rows };
}
