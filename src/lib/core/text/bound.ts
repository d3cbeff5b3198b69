import { createFormat, type Format, type FormatSettings } from './format';

/** Units that stand behind a number, with a blank between. */
const units = [
	'%',
	'°C',
	'°F',
	'mm',
	'cm',
	'm',
	'm²',
	'm/s',
	'ml',
	'L',
	'kg',
	'in',
	'ft',
	'ft²',
	'mph',
	'fl oz',
	'US gal',
	'lb',
	'MPa',
	'psi',
	'min',
	'h'
];
const between = new RegExp(`(\\d) (?=(?:${units.join('|')})(?![\\p{L}\\d]))`, 'gu');

/** A number and its unit stay on one line: the blank between them does not break. */
export const bound = (text: string): string => text.replace(between, '$1\u00a0');

/** The formatter of a page: as `createFormat`, with numbers bound to their units. */
export function pageFormat(settings: FormatSettings): Format {
	const format = createFormat(settings);
	return {
		...format,
		percent: (share, digits) => bound(format.percent(share, digits)),
		measure: (value, unit, digits) => bound(format.measure(value, unit, digits)),
		inWords: (text, today) => bound(format.inWords(text, today)),
		withMeasures: (text) => bound(format.withMeasures(text))
	};
}
