import Papa from 'papaparse';
import { Refusal } from '../errors';

/** Columns of a weather file by its header, RFC 4180; a comma or semicolon parts them. */
const columns: Record<string, string> = {
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
export const weatherColumns = [
	'date',
	'min_c',
	'max_c',
	'humidity_percent',
	'wind_ms',
	'gust_ms',
	'sun_mj',
	'rain_mm'
] as const;

/** Rows of a CSV as days of weather, to be checked by their schema; empty cells are not measured. @throws Refusal 422 */
export function readWeatherCsv(
	text: string,
	common: { placeId: string; source: string; from: string }
): Record<string, unknown>[] {
	const parsed = Papa.parse<Record<string, string>>(text.trim(), {
		header: true,
		skipEmptyLines: 'greedy',
		transformHeader: (name) => columns[name.trim().toLowerCase()] ?? name.trim()
	});
	const fields = parsed.meta.fields ?? [];
	const missing = ['on', 'minC', 'maxC'].filter((name) => !fields.includes(name));
	if (missing.length > 0)
		throw new Refusal(
			422,
			'The first line must name the columns: date, min_c and max_c at least.',
			`Known are: ${weatherColumns.join(', ')}. Nothing was saved.`
		);
	return parsed.data.map((row) => {
		const day: Record<string, unknown> = { ...common };
		for (const name of Object.values(columns)) {
			const cell = (row[name] ?? '').trim();
			if (cell === '') continue;
			day[name] = name === 'on' ? cell : Number(cell.replace(',', '.'));
		}
		return day;
	});
}
