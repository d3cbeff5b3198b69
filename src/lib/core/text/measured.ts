/**
 * Measures inside sentences. A sentence of the core stays one text through JSON, database and calendar; each measure in it stands
 * between two invisible separators (U+2063) as value and unit, so that the page says it once, in the person's units, and nothing a
 * person wrote is ever taken for one. Left as it is, the sentence reads in SI.
 */
const MARK = '\u2063';

/** Units of measures in sentences. */
export const spokenUnits = ['mm', 'cm', 'm', 'm²', 'm/s', 'ml', 'L', 'kg', '°C', 'MPa'] as const;
export type SpokenUnit = (typeof spokenUnits)[number];
/** Whether sentences know a unit. */
export const isSpokenUnit = (unit: string): unit is SpokenUnit =>
	(spokenUnits as readonly string[]).includes(unit);

/** Digits that a measure in a sentence keeps; the page rounds to what is fit to be read. */
const KEPT_DIGITS = 4;
const kept = (value: number): string => String(Number(value.toFixed(KEPT_DIGITS)));

/**
 * A measure for a sentence.
 * @param value finite, in `unit`
 * @example `Set it ${measured(12.7, 'mm')} deep.` reads “Set it 13 mm deep.”, or “Set it 0.5 in deep.”
 */
export const measured = (value: number, unit: SpokenUnit): string => `${MARK}${kept(value)} ${unit}${MARK}`;

/**
 * A measure that is only reckoned, for a sentence: told whole, in whatever unit it is told.
 * @param value finite, in `unit`
 * @example `About ${measuredWhole(119.8, 'kg')}` reads “About 120 kg”, or “About 264 lb”
 */
export const measuredWhole = (value: number, unit: SpokenUnit): string =>
	`${MARK}~${kept(value)} ${unit}${MARK}`;

/**
 * A figure with any unit behind it: a measure where the unit has two faces.
 * @param value in the unit named
 */
export const inUnit = (value: number, unit: string): string =>
	isSpokenUnit(unit)
		? measured(value, unit)
		: `${kept(value)}${unit === '°' || unit === '' ? '' : ' '}${unit}`;

/**
 * From least to most, with any unit behind it.
 * @param least, most both in the unit named
 */
export const rangeInUnit = (least: number, most: number, unit: string): string =>
	isSpokenUnit(unit)
		? measuredPair(least, ' to ', most, unit)
		: `${least} to ${most}${unit === '' ? '' : ' '}${unit}`;

/**
 * Two measures that share their unit.
 * @param joint word between them, with its blanks
 * @param first, last both in the unit named
 * @example measuredPair(300, ' to ', 250, 'mm') reads “300 to 250 mm”, or “11.81 to 9.84 in”
 */
export const measuredPair = (first: number, joint: string, last: number, unit: SpokenUnit): string =>
	`${MARK}${kept(first)}${joint}${kept(last)} ${unit}${MARK}`;

const pattern = new RegExp(
	`${MARK}(~?)(-?\\d+(?:\\.\\d+)?)(?:( [^\\d${MARK}]+ |–)(-?\\d+(?:\\.\\d+)?))? (${spokenUnits.join('|')})${MARK}`,
	'g'
);

/** Says each measure of a sentence anew. */
export const sayMeasures = (
	text: string,
	say: (
		first: number,
		unit: SpokenUnit,
		then: { joint: string; last: number } | null,
		whole: boolean
	) => string
): string =>
	text.includes(MARK)
		? text.replace(
				pattern,
				(_, whole: string, first: string, joint: string | undefined, last: string, unit: SpokenUnit) =>
					say(Number(first), unit, joint === undefined ? null : { joint, last: Number(last) }, whole !== '')
			)
		: text;
