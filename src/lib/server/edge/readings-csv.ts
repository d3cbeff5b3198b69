import { readCsv } from '../../core/text/csv';
import { numberTyped } from '../../core/text/typed';
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
	const { header, rows } = readCsv(text);
	const names = header.map((name) => columns[name.toLowerCase()]);
	if (!names.includes('at'))
		throw new Refusal(
			422,
			'The first line must name the columns, at among them.',
			`Known are: ${Object.keys(columns).join(', ')}.`
		);
	return rows.map((row) => {
		const reading: Record<string, unknown> = {};
		for (const [i, name] of names.entries()) {
			const cell = (row[i] ?? '').trim();
			if (name === undefined || cell === '') continue;
			reading[name] = name === 'at' ? cell : numberTyped(cell);
		}
		return reading;
	});
}
