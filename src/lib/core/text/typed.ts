import { PSI_MPA, type StoredUnit, type UnitSystem } from './format';

/** Units that may be typed after a number, by what is stored: how many stored units one of them is. */
const typedUnits: Partial<Record<StoredUnit, Readonly<Record<string, number>>>> = {
	mm: { mm: 1, cm: 10, m: 1000, in: 25.4, '"': 25.4, '″': 25.4, ft: 304.8, "'": 304.8, '′': 304.8 },
	m: {
		mm: 0.001,
		cm: 0.01,
		m: 1,
		in: 0.0254,
		'"': 0.0254,
		'″': 0.0254,
		ft: 0.3048,
		"'": 0.3048,
		'′': 0.3048
	},
	L: { ml: 0.001, l: 1, cl: 0.01, gal: 3.785411784, qt: 0.946352946, pt: 0.473176473 },
	kg: { g: 0.001, kg: 1, lb: 0.45359237, lbs: 0.45359237, oz: 0.028349523125 },
	'm²': { 'm²': 1, m2: 1, 'ft²': 0.09290304, ft2: 0.09290304 },
	'm/s': { 'm/s': 1, mph: 0.44704, 'km/h': 1 / 3.6 },
	MPa: { mpa: 1, kpa: 0.001, bar: 0.1, psi: PSI_MPA }
};
/** What a bare number means, by the person's units. */
const bare: Record<UnitSystem, Partial<Record<StoredUnit, string>>> = {
	metric: { mm: 'mm', m: 'm', L: 'l', kg: 'kg', 'm²': 'm²', 'm/s': 'm/s', MPa: 'mpa' },
	imperial: { mm: 'in', m: 'ft', L: 'gal', kg: 'lb', 'm²': 'ft²', 'm/s': 'mph', MPa: 'psi' }
};

/**
 * A number as a person writes it: `12`, `0,5`, `1/2`, `1 1/2`, `½`; null for anything else.
 * @returns the number, in the unit of its field
 */
export function readNumber(text: string): number | null {
	const plain = text
		.trim()
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

/**
 * A measure as a person types it, in the stored unit: with a unit of either system behind it, else in the person's own.
 * @returns null for what is no measure
 * @example readMeasure('1/2', 'mm', 'imperial') is 12.7; readMeasure('12mm', 'mm', 'imperial') is 12
 */
export function readMeasure(text: string, unit: StoredUnit, system: UnitSystem): number | null {
	const units = typedUnits[unit];
	if (!units) return null;
	const [, figure = '', word = ''] =
		/^(.*?[\d½¼¾⅛⅜⅝⅞.])\s*([^\d\s.,]*)$/.exec(text.trim().toLowerCase()) ?? [];
	const times = units[word === '' ? (bare[system][unit] ?? '') : word];
	const number = readNumber(figure);
	return number === null || times === undefined ? null : number * times;
}
