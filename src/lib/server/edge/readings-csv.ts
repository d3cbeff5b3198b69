import Papa from 'papaparse';
import { Refusal } from '../errors';

const columns: Record<string, string> = {
	at: 'at',
	weight_kg: 'weightKg',
	moisture: 'moisture',
	temperature_c: 'temperatureC',
	humidity_percent: 'humidityPercent',
	battery: 'battery'
};

/** Readings of a device as CSV (RFC 4180) with a header; empty cells are not measured. @throws Refusal 422 */
export function readReadingsCsv(text: string): Record<string, unknown>[] {
	const parsed = Papa.parse<Record<string, string>>(text.trim(), {
		header: true,
		skipEmptyLines: 'greedy',
		transformHeader: (name) => columns[name.trim().toLowerCase()] ?? name.trim()
	});
	if (!(parsed.meta.fields ?? []).includes('at'))
		throw new Refusal(
			422,
			'The first line must name the columns, at among them.',
			`Known are: ${Object.keys(columns).join(', ')}.`
		);
	return parsed.data.map((row) => {
		const reading: Record<string, unknown> = {};
		for (const name of Object.values(columns)) {
			const cell = (row[name] ?? '').trim();
			if (cell === '') continue;
			reading[name] = name === 'at' ? cell : Number(cell);
		}
		return reading;
	});
}
