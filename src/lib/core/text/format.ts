import { sayMeasures, type SpokenUnit } from './measured';

/** The one formatter for dates, numbers and units. Everything stored is SI; only what is shown or typed changes. */

export const unitSystems = ['metric', 'imperial'] as const;
export type UnitSystem = (typeof unitSystems)[number];

export const locales = ['en-GB', 'en-US', 'de-DE', 'fr-FR', 'nl-NL', 'es-ES', 'it-IT'] as const;

export interface FormatSettings {
	units: UnitSystem;
	locale: string;
}
export const defaultFormatSettings: FormatSettings = { units: 'metric', locale: 'en-GB' };

/** A stored unit that has a metric and an imperial face. */
export type StoredUnit = 'mm' | 'm' | 'L' | 'kg' | '°C' | 'm²' | 'm/s' | 'MPa';

/** A pound on a square inch, MPa: 4.4482216 N on 645.16 mm². */
export const PSI_MPA = 0.006894757;

interface Face {
	unit: string;
	/** shown = stored × factor + offset */
	factor: number;
	offset: number;
	digits: number;
}

const faces: Record<StoredUnit, Record<UnitSystem, Face>> = {
	mm: {
		metric: { unit: 'mm', factor: 1, offset: 0, digits: 0 },
		imperial: { unit: 'in', factor: 1 / 25.4, offset: 0, digits: 2 }
	},
	m: {
		metric: { unit: 'm', factor: 1, offset: 0, digits: 2 },
		imperial: { unit: 'ft', factor: 1 / 0.3048, offset: 0, digits: 1 }
	},
	L: {
		metric: { unit: 'L', factor: 1, offset: 0, digits: 1 },
		imperial: { unit: 'US gal', factor: 1 / 3.785411784, offset: 0, digits: 2 }
	},
	kg: {
		metric: { unit: 'kg', factor: 1, offset: 0, digits: 2 },
		imperial: { unit: 'lb', factor: 1 / 0.45359237, offset: 0, digits: 1 }
	},
	'°C': {
		metric: { unit: '°C', factor: 1, offset: 0, digits: 0 },
		imperial: { unit: '°F', factor: 9 / 5, offset: 32, digits: 0 }
	},
	'm²': {
		metric: { unit: 'm²', factor: 1, offset: 0, digits: 0 },
		imperial: { unit: 'ft²', factor: 1 / 0.09290304, offset: 0, digits: 0 }
	},
	'm/s': {
		metric: { unit: 'm/s', factor: 1, offset: 0, digits: 0 },
		imperial: { unit: 'mph', factor: 1 / 0.44704, offset: 0, digits: 0 }
	},
	MPa: {
		metric: { unit: 'MPa', factor: 1, offset: 0, digits: 1 },
		imperial: { unit: 'psi', factor: 1 / PSI_MPA, offset: 0, digits: 0 }
	}
};

/** Units as sentences of the core name them. */
const spoken: Record<SpokenUnit, { unit: StoredUnit; times: number }> = {
	mm: { unit: 'mm', times: 1 },
	cm: { unit: 'mm', times: 10 },
	m: { unit: 'm', times: 1 },
	'm²': { unit: 'm²', times: 1 },
	'm/s': { unit: 'm/s', times: 1 },
	ml: { unit: 'L', times: 0.001 },
	L: { unit: 'L', times: 1 },
	kg: { unit: 'kg', times: 1 },
	'°C': { unit: '°C', times: 1 },
	MPa: { unit: 'MPa', times: 1 }
};
const calendarDates = /\b\d{4}-(?:0[1-9]|1[0-2])-(?:0[1-9]|[12]\d|3[01])\b/g;

/** Whether a sentence says tenths: where they were handed to it, a night of -7.4 °C is colder than a limit of -7 °C. */
const tenthsTell = (value: number, unit: StoredUnit): boolean =>
	(unit === '°C' || unit === 'm/s') && !Number.isInteger(value);
/** Digits of less than a litre: a quarter is not 0.3 L. */
const partOfALitre = (value: number, unit: SpokenUnit): number =>
	unit === 'L' && Math.abs(value) < 1 ? 2 : 0;

/** From so many inches on a length that is only reckoned is told in tenths. */
const RECKONED_TENTHS_FROM = 10;
/** Digits behind the point in a field, at most. */
const FIELD_DIGITS = 3;
/** Figures before and behind the point together, where a measure is converted: 1630 m are 5347.769 ft. */
const FIELD_FIGURES = 4;
const fieldDigits = (value: number): number =>
	Math.min(FIELD_DIGITS, Math.max(0, FIELD_FIGURES - String(Math.trunc(Math.abs(value))).length));

export interface Format {
	settings: FormatSettings;
	/** That of the person's numbers. */
	decimalSign: '.' | ',';
	/** `number(0.8251, 2)` is `0.83`. */
	number(value: number, digits?: number): string;
	/** `percent(0.314)` is `31 %`. */
	percent(share: number, digits?: number): string;
	/** `measure(15, 'mm')` is `15 mm`, or `0.59 in`. */
	measure(value: number, unit: StoredUnit, digits?: number): string;
	/** A length that is only reckoned: no finer than it can be found on a tape. `about(609.2, 'mm')` is `609 mm`, or `24 in`. */
	about(mm: number): string;
	/** Calendar date in words: `18 April 2026`. */
	date(date: string): string;
	/** Calendar date, short: `18 Apr`, with the year when it is not `today`'s. */
	day(date: string, today?: string): string;
	/** A sentence of the core with its measures in the person's units; its dates as they are kept. */
	withMeasures(text: string): string;
	/** A sentence of the core as the person reads it: its calendar dates in words, its measures in their units. */
	inWords(text: string, today?: string): string;
	/** `18 Apr – 2 May 2026` */
	span(from: string, to: string): string;
	monthYear(date: string): string;
	/** Instant with a 24-hour clock, in UTC. */
	instant(at: string): string;
	/** Unit as shown, and both ways between stored and shown numbers. */
	unitOf(unit: StoredUnit): {
		unit: string;
		/** Digits that are shown behind the point. */
		digits: number;
		toShown(stored: number): number;
		/** As it stands in a field to be typed over: as exact as it was typed in metric, fit to be read where it is converted. */
		inField(stored: number): string;
		toStored(shown: number): number;
	};
	/** Clock position `6:30` of 0 < clock ≤ 12. */
	clock(clock: number): string;
}

/** The locale itself where it is one, else British English. */
function knownLocale(locale: string): string {
	try {
		Intl.getCanonicalLocales(locale);
		return locale;
	} catch {
		return defaultFormatSettings.locale;
	}
}

/** Numbers by digits, in a locale; a rounded zero never shows a minus sign. */
function numbersOf(locale: string): Format['number'] {
	const made = new Map<number, Intl.NumberFormat>();
	return (value, digits = 0) => {
		if (!Number.isFinite(value)) return 'not known';
		let format = made.get(digits);
		if (!format) {
			format = new Intl.NumberFormat(locale, { minimumFractionDigits: 0, maximumFractionDigits: digits });
			made.set(digits, format);
		}
		return format.format(Math.abs(value) < 0.5 * 10 ** -digits ? 0 : value);
	};
}

/** Days, spans, months and instants in a locale. */
function datesOf(locale: string): Pick<Format, 'date' | 'day' | 'span' | 'monthYear' | 'instant'> {
	const dates = (options: Intl.DateTimeFormatOptions) =>
		new Intl.DateTimeFormat(locale, { ...options, timeZone: 'UTC' });
	const long = dates({ day: 'numeric', month: 'long', year: 'numeric' });
	const short = dates({ day: 'numeric', month: 'short' });
	const shortYear = dates({ day: 'numeric', month: 'short', year: 'numeric' });
	const monthYear = dates({ month: 'short', year: 'numeric' });
	const clockTime = dates({
		day: 'numeric',
		month: 'short',
		year: 'numeric',
		hour: '2-digit',
		minute: '2-digit',
		hour12: false
	});
	const at = (date: string): Date => new Date(`${date}T00:00:00Z`);
	const sameYear = (a: string, b: string | undefined): boolean => a.slice(0, 4) === b?.slice(0, 4);
	const day: Format['day'] = (date, today) => (sameYear(date, today) ? short : shortYear).format(at(date));
	return {
		date: (date) => long.format(at(date)),
		day,
		span: (from, to) =>
			from === to ? shortYear.format(at(from)) : `${day(from, to)} – ${shortYear.format(at(to))}`,
		monthYear: (date) => monthYear.format(at(date)),
		instant: (instant) => `${clockTime.format(new Date(instant))} UTC`
	};
}

/**
 * Clock position `6:30` of a number of hours.
 * @param clock hours on a dial, 0 < clock ≤ 12
 */
export function clockText(clock: number): string {
	const minutes = Math.round(clock * 60) % 720;
	const hour = Math.floor(minutes / 60);
	return `${hour === 0 ? 12 : hour}:${String(minutes % 60).padStart(2, '0')}`;
}

const speakers = new Map<string, { dates: ReturnType<typeof datesOf>; number: Format['number'] }>();
/** Locales that are kept ready; a yard speaks one or two. */
const SPEAKERS = 8;

/** Dates and numbers of a locale, made once: making them takes longer than a page of them. */
function speakersOf(locale: string) {
	let known = speakers.get(locale);
	if (!known) {
		if (speakers.size >= SPEAKERS) speakers.clear();
		known = { dates: datesOf(locale), number: numbersOf(locale) };
		speakers.set(locale, known);
	}
	return known;
}

/** Makes the formatter for a person's settings; an unknown locale falls back to British English. */
export function createFormat(settings: FormatSettings): Format {
	const locale = knownLocale(settings.locale);
	const { dates, number } = speakersOf(locale);
	const face = (unit: StoredUnit): Face => faces[unit][settings.units];
	const inUnits: Parameters<typeof sayMeasures>[1] = (first, unit, then, whole) => {
		const { unit: stored, times } = spoken[unit];
		const shown = face(stored);
		// A metric page keeps the unit of the sentence: 250 ml stays 250 ml.
		const { factor, offset, digits, name } =
			settings.units === 'metric'
				? { factor: 1, offset: 0, digits: times === 1 ? shown.digits : 1, name: unit }
				: { ...shown, factor: shown.factor * times, name: shown.unit };
		const one = (value: number): string =>
			number(
				value * factor + offset,
				whole ? 0 : Math.max(digits, tenthsTell(value, stored) ? 1 : 0, partOfALitre(value, unit))
			);
		return `${one(first)}${then ? then.joint + one(then.last) : ''} ${name}`;
	};
	return {
		settings,
		decimalSign: number(0.5, 1).includes(',') ? ',' : '.',
		number,
		...dates,
		percent: (share, digits = 0) => `${number(share * 100, digits)} %`,
		measure: (value, unit, digits) => {
			const { unit: shown, factor, offset, digits: usual } = face(unit);
			return `${number(value * factor + offset, digits ?? usual)} ${shown}`;
		},
		about: (mm) => {
			const { unit, factor, digits } = face('mm');
			return `${number(mm * factor, Math.abs(mm * factor) < RECKONED_TENTHS_FROM ? digits : Math.min(1, digits))} ${unit}`;
		},
		withMeasures: (text) => sayMeasures(text, inUnits),
		inWords: (text, today) => sayMeasures(text, inUnits).replace(calendarDates, (on) => dates.day(on, today)),
		unitOf: (unit) => {
			const { unit: shown, factor, offset, digits } = face(unit);
			return {
				unit: shown,
				digits,
				toShown: (stored) => stored * factor + offset,
				inField: (stored) => {
					const value = stored * factor + offset;
					return String(
						Number(value.toFixed(settings.units === 'metric' ? FIELD_DIGITS : fieldDigits(value)))
					);
				},
				toStored: (value) => (value - offset) / factor
			};
		},
		clock: clockText
	};
}

const si = createFormat(defaultFormatSettings);
/** A sentence of the core in SI, its dates as they are kept: for files, for other programs, and for tests. */
export const plain = (text: string): string => si.withMeasures(text);
