import { PSI_MPA, type StoredUnit, type UnitSystem } from './format';

/** Units that may be typed after a number, by what is stored: how many stored units one of them is. */
const typedUnits: Partial<Record<StoredUnit, Readonly<Record<string, number>>>> = {
	mm: { mm: 1, cm: 10, m: 1000, in: 25.4, ft: 304.8 },
	m: { mm: 0.001, cm: 0.01, m: 1, in: 0.0254, ft: 0.3048 },
	L: { ml: 0.001, l: 1, cl: 0.01, gal: 3.785411784, qt: 0.946352946, pt: 0.473176473 },
	kg: { g: 0.001, kg: 1, lb: 0.45359237, oz: 0.028349523125 },
	'm²': { 'm²': 1, m2: 1, 'ft²': 0.09290304, ft2: 0.09290304 },
	'm/s': { 'm/s': 1, mph: 0.44704, 'km/h': 1 / 3.6 },
	MPa: { mpa: 1, kpa: 0.001, bar: 0.1, psi: PSI_MPA }
};
/** The same units as people also write them, the marks a phone sets by itself among them. */
const alsoTyped: Readonly<Record<string, string>> = {
	'"': 'in',
	'″': 'in',
	'”': 'in',
	"''": 'in',
	inch: 'in',
	inches: 'in',
	"'": 'ft',
	'′': 'ft',
	'’': 'ft',
	foot: 'ft',
	feet: 'ft',
	lbs: 'lb',
	pound: 'lb',
	pounds: 'lb',
	ounce: 'oz',
	ounces: 'oz',
	gallon: 'gal',
	gallons: 'gal',
	quart: 'qt',
	quarts: 'qt',
	litre: 'l',
	litres: 'l',
	liter: 'l',
	liters: 'l'
};
/** What a bare number means, by the person's units. */
const bare: Record<UnitSystem, Partial<Record<StoredUnit, string>>> = {
	metric: { mm: 'mm', m: 'm', L: 'l', kg: 'kg', 'm²': 'm²', 'm/s': 'm/s', MPa: 'mpa' },
	imperial: { mm: 'in', m: 'ft', L: 'gal', kg: 'lb', 'm²': 'ft²', 'm/s': 'mph', MPa: 'psi' }
};

/** One comma before three digits: a thousand to some, a decimal sign to others. */
const twoWays = /^[+-]?[1-9]\d{0,2},\d{3}$/;
/** Thousands that can be nothing else: parted by blanks, parted twice, or with a decimal sign of the other kind. */
const thousands = [
	{ written: /^-?\d{1,3}(?:[ \u00a0\u202f]\d{3})+(?:[.,]\d+)?$/, parted: /[ \u00a0\u202f]/g },
	{ written: /^-?\d{1,3}(?:,\d{3})+\.\d+$|^-?\d{1,3}(?:,\d{3}){2,}$/, parted: /,/g },
	{ written: /^-?\d{1,3}(?:\.\d{3})+,\d+$|^-?\d{1,3}(?:\.\d{3}){2,}$/, parted: /\./g }
];

/**
 * What to tell a person whose number could be read two ways: where numbers have a decimal point, `5,348` is five thousand or a little over five.
 * @param decimalSign that of the person's numbers
 * @returns a clause without its full stop; null where there is one way to read it
 */
export function readTwoWays(text: string, decimalSign: '.' | ','): string | null {
	const typed = text.trim();
	const figure = typed.replace(/\D*$/, '');
	return decimalSign === '.' && twoWays.test(figure)
		? `“${typed}” can be read two ways: write ${figure.replace(',', '')} or ${figure.replace(',', '.')}`
		: null;
}

/**
 * A number as a person writes it: `12`, `0,5`, `1/2`, `1 1/2`, `½`, `1,234.5`; null for anything else.
 * @returns the number, in the unit of its field
 */
export function readNumber(text: string): number | null {
	const trimmed = text.trim();
	const grouped = thousands.find(({ written }) => written.test(trimmed));
	const plain = (grouped ? trimmed.replace(grouped.parted, '') : trimmed)
		.replace(/(\d)?([½¼¾⅛⅜⅝⅞])/g, (_, before: string | undefined, sign: string) => {
			const shares: Record<string, string> = {
				'½': '1/2',
				'¼': '1/4',
				'¾': '3/4',
				'⅛': '1/8',
				'⅜': '3/8',
				'⅝': '5/8',
				'⅞': '7/8'
			};
			return `${before ? `${before} ` : ''}${shares[sign] ?? ''}`;
		})
		.replace(',', '.');
	const fraction = /^(?:(\d+)[\s-]+)?(\d+)\/(\d+)$/.exec(plain);
	if (fraction) {
		const [, whole = '0', above = '', below = ''] = fraction;
		return Number(below) === 0 ? null : Number(whole) + Number(above) / Number(below);
	}
	return /^-?(?:\d+\.?\d*|\.\d+)$/.test(plain) ? Number(plain) : null;
}

/** A number as programs write very small and very large ones. */
const scientific = /^[+-]?\d+(?:[.,]\d+)?e[+-]?\d+$/i;

/**
 * A number out of a form or a file, for a schema to judge afterwards: as people write it, or as programs do.
 * @returns NaN for what is no number, an empty text among it
 */
export function numberTyped(text: string): number {
	const plain = text.trim().replace(/^\+/, '');
	return readNumber(plain) ?? (scientific.test(plain) ? Number(plain.replace(',', '.')) : NaN);
}

/** `2' 8"`, `2 ft 8 1/2 in`, `3 lb 4 oz`, `5'8`. */
const twoUnits = /^(\d+)\s*(\p{L}+|['′’])[\s,-]*([\d½¼¾⅛⅜⅝⅞.][\d½¼¾⅛⅜⅝⅞.,/ -]*?)\s*(\p{L}+|["″”]|'')?$/u;
/** What is meant after a large unit where nobody writes it. */
const under: Readonly<Record<string, string>> = { "'": 'in', '′': 'in', '’': 'in', ft: 'in' };

/**
 * A measure as a person types it, in the stored unit: with a unit of either system behind it, or two of one, the smaller last;
 * else in the person's own.
 * @returns null for what is no measure
 * @example readMeasure('1/2', 'mm', 'imperial') is 12.7; readMeasure('12mm', 'mm', 'imperial') is 12; 2' 8" is 812.8
 */
export function readMeasure(text: string, unit: StoredUnit, system: UnitSystem): number | null {
	const units = typedUnits[unit];
	if (!units) return null;
	const plain = text
		.trim()
		.toLowerCase()
		.replace(/(?<=\p{L})\./gu, '');
	const timesOf = (word: string): number | undefined => units[alsoTyped[word] ?? word];
	const [, figure = '', word = ''] = /^(.*?[\d½¼¾⅛⅜⅝⅞.])\s*([^\d\s.,]*)$/.exec(plain) ?? [];
	const number = readNumber(figure);
	if (number !== null) {
		const times = timesOf(word === '' ? (bare[system][unit] ?? '') : word);
		return times === undefined ? null : number * times;
	}
	const [, whole = '', large = '', rest = '', small = ''] = twoUnits.exec(plain) ?? [];
	const [first, second] = [readNumber(whole), readNumber(rest)];
	const [largeTimes, smallTimes] = [timesOf(large), timesOf(small === '' ? (under[large] ?? '') : small)];
	if (first === null || second === null || largeTimes === undefined || smallTimes === undefined) return null;
	// Three feet and fourteen inches are a slip.
	return second * smallTimes < largeTimes * (1 - 1e-9) ? first * largeTimes + second * smallTimes : null;
}
