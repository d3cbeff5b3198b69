import { readCsv } from '../../core/text/csv';
import { listed } from '../../core/text/plural';
import { numberTyped } from '../../core/text/typed';
import { readDate } from '../../core/text/typed-date';
import { Refusal } from '../errors';

/** What a file of a station may tell, by what it is kept as. */
type Told =
	| 'on'
	| 'at'
	| 'minC'
	| 'maxC'
	| 'temperatureC'
	| 'humidityPercent'
	| 'windMs'
	| 'gustMs'
	| 'sunMj'
	| 'sunWm2'
	| 'rainMm';
type Turn = (value: number) => number;
const times =
	(factor: number): Turn =>
	(value) =>
		value * factor;

const AIR: Readonly<Record<string, Turn>> = { c: times(1), celsius: times(1), f: (f) => ((f - 32) * 5) / 9 };
const SPEED: Readonly<Record<string, Turn>> = {
	ms: times(1),
	kmh: times(1 / 3.6),
	kph: times(1 / 3.6),
	mph: times(0.44704),
	kn: times(1852 / 3600),
	kt: times(1852 / 3600),
	knots: times(1852 / 3600)
};
const DEPTH: Readonly<Record<string, Turn>> = {
	mm: times(1),
	lm2: times(1),
	cm: times(10),
	in: times(25.4),
	inch: times(25.4),
	inches: times(25.4)
};
/** Sun of a day: its sum, or its mean. */
const SUN_OF_DAY: Readonly<Record<string, Turn>> = {
	mj: times(1),
	mjm2: times(1),
	whm2: times(0.0036),
	kwhm2: times(3.6),
	wm2: times(0.0864)
};
const SUN_OF_HOUR: Readonly<Record<string, Turn>> = { wm2: times(1) };
const PERCENT: Readonly<Record<string, Turn>> = { percent: times(1), rh: times(1), '': times(1) };

/** Of what stands beside the weather of the open air, nothing is read. */
const ELSEWHERE =
	/^(indoor|inside|room|soil|leaf|dew|dewpoint|feels|feelslike|apparent|chill|windchill|heat|index|direction|dir|rate|pressure|barometer|uv|yearly|year|monthly|month|weekly|week|event)$/;
const MIN = /^(min|minimum|low|lowest|tmin)$/;
const MAX = /^(max|maximum|high|highest|tmax)$/;

/** The words of a heading, and the letters of a unit as one writes it: `Outdoor Temp (°C)` is outdoor, temp and c. */
function wordsOf(heading: string): string[] {
	return heading
		.toLowerCase()
		.replace(/²/g, '2')
		.replace(/%/g, ' percent ')
		.replace(/[°º]/g, ' ')
		.replace(/\b(km|m|mi)(?:\/|\s?per\s)(h|s)\b/g, (_, way: string, time: string) =>
			way === 'mi' ? 'mph' : `${way}${time}`
		)
		.replace(/\b(l|mj|k?wh?)\s?\/\s?m2?\b/g, '$1m2')
		.split(/[^a-z0-9]+/)
		.filter((word) => word !== '' && word !== 'deg' && word !== 'degrees');
}

/** What a heading names and the units it may stand in; null for what nothing is read of. */
function quantityOf(
	words: readonly string[],
	per: 'day' | 'hour'
): [Told, Readonly<Record<string, Turn>>] | null {
	const says = (...any: string[]): boolean => any.some((word) => words.includes(word));
	const is = (of: RegExp): boolean => words.some((word) => of.test(word));
	if (is(ELSEWHERE)) return null;
	if (says('humidity', 'hum', 'rh')) return is(MIN) || is(MAX) ? null : ['humidityPercent', PERCENT];
	if (says('gust', 'gusts', 'windgust')) return ['gustMs', SPEED];
	if (says('wind', 'windspeed')) return is(MIN) ? null : [is(MAX) ? 'gustMs' : 'windMs', SPEED];
	// What fell so far that day is no rain of an hour.
	if (says('rain', 'rainfall', 'precip', 'precipitation'))
		return says(...(per === 'hour' ? ['daily', 'day', 'total'] : ['hourly', 'hour']))
			? null
			: ['rainMm', DEPTH];
	if (says('sun', 'solar', 'radiation', 'irradiance'))
		return per === 'hour' ? ['sunWm2', SUN_OF_HOUR] : ['sunMj', SUN_OF_DAY];
	const air =
		says('temp', 'temperature', 'air', 'tmin', 'tmax') ||
		words.every((word) => MIN.test(word) || MAX.test(word) || Object.hasOwn(AIR, word));
	if (!air) return null;
	if (is(MIN) || is(MAX)) return per === 'hour' ? null : [is(MIN) ? 'minC' : 'maxC', AIR];
	return per === 'day' ? null : ['temperatureC', AIR];
}

interface Column {
	told: Told;
	heading: string;
	at: number;
	/** Into the unit it is kept in; null where its heading does not say the unit. */
	turn: Turn | null;
}

/** Which column tells what; of two that tell the same the first. */
function columnsOf(header: readonly string[], per: 'day' | 'hour'): Column[] {
	const columns: Column[] = [];
	for (const [at, heading] of header.entries()) {
		const words = wordsOf(heading);
		const when = words.every((word) =>
			/^(date|day|on|time|at|hour|datetime|timestamp|local|utc|gmt)$/.test(word)
		);
		const quantity = quantityOf(words, per);
		const [told, units] =
			words.length > 0 && when
				? [/^(date|day|on)$/.test(words.join('')) ? ('on' as const) : ('at' as const), null]
				: (quantity ?? [null, null]);
		if (told === null || columns.some((one) => one.told === told)) continue;
		const unit = units && (words.findLast((word) => Object.hasOwn(units, word)) ?? '');
		const turn = unit === null ? times(1) : (units?.[unit] ?? null);
		// Sun is told in lux and more, which no rain or wind is: what is not known of it is left.
		if (turn === null && (told === 'sunMj' || told === 'sunWm2')) continue;
		columns.push({ told, heading, at, turn });
	}
	return columns;
}

const noColumns = (): Refusal =>
	new Refusal(
		422,
		'The first line must name the columns: for days a date, and the lowest and highest temperature; for hours a time, and the temperature.',
		'Each with its unit, as “Temp min °C”, “Rain mm”, “Wind km/h”. Humidity, gusts and sun are read too. Nothing was saved.'
	);

/** Whether days written in figures have the month first; null where the file does not tell. @throws Refusal 422 */
function monthFirst(days: readonly string[]): boolean | null {
	const pairs = days.flatMap((day) => {
		const [, a, b] = /^(\d{1,2})[/-](\d{1,2})[/-]\d{2,4}\b/.exec(day.trim()) ?? [];
		return a && b ? [[Number(a), Number(b)] as const] : [];
	});
	if (pairs.length === 0) return false;
	const [month, day] = [pairs.some(([, b]) => b > 12), pairs.some(([a]) => a > 12)];
	return month === day ? null : month;
}

/**
 * Rows of a file of a station as days or hours of weather, to be checked by their schema. Columns are known by the words and units of their
 * headings. Rows with a lowest and a highest temperature are days where no day comes twice, else hours, by the clock of this computer where no
 * zone is written. Empty cells are not measured.
 * @param today calendar date
 * @returns the rows, and the headings that nothing was read of
 * @throws Refusal 422 where a column is missing or does not say its unit, or days could be read two ways
 */
export function readWeatherCsv(
	text: string,
	today: string
): { per: 'day' | 'hour'; rows: Record<string, unknown>[]; unread: string[] } {
	const { header, rows: lines } = readCsv(text);
	const written = (columns: readonly Column[], row: readonly string[]): string =>
		(['on', 'at'] as const)
			.map((told) => (row[columns.find((one) => one.told === told)?.at ?? -1] ?? '').trim())
			.filter((part) => part !== '')
			.join(' ');
	const days = columnsOf(header, 'day');
	const dayOf = (row: readonly string[]): string => written(days, row).replace(/[ T]+\d{1,2}:.*$/, '');
	const per =
		tells(days, 'minC') && tells(days, 'maxC') && new Set(lines.map(dayOf)).size === lines.length
			? ('day' as const)
			: ('hour' as const);
	const all = per === 'day' ? days : columnsOf(header, 'hour');
	// What fell in the last hour is no rain of the minutes since the row before.
	const often =
		per === 'hour' && new Set(lines.map((row) => written(all, row).replace(/:.*/, ''))).size < lines.length;
	const columns = all.filter(
		({ told, heading }) => !often || told !== 'rainMm' || !/\bhour(ly)?\b/i.test(heading)
	);
	if (!(tells(columns, 'on') || tells(columns, 'at')) || (per === 'hour' && !tells(columns, 'temperatureC')))
		throw noColumns();
	const read = columns.filter(({ told }) => told !== 'on' && told !== 'at');
	const unsaid = read.filter(({ turn }) => turn === null).map(({ heading }) => `“${heading}”`);
	if (unsaid.length > 0)
		throw new Refusal(
			422,
			`${listed(unsaid)} must say the unit: write it behind the name, as °C or °F, mm or in, m/s, km/h or mph.`,
			'A number without its unit could be either. Nothing was saved.'
		);
	const whens = lines.map((row) => (per === 'day' ? dayOf(row) : written(columns, row)));
	const first = monthFirst(whens);
	if (first === null)
		throw new Refusal(
			422,
			'Whether the day or the month comes first cannot be told from this file: write days as 2026-04-18.',
			'Nothing was saved.'
		);
	const dated = (day: string): string => readDate(day, today, first ? 'en-US' : 'en-GB') ?? day;
	const zone = columns.some(({ told, heading }) => told === 'at' && /\b(utc|gmt)\b/i.test(heading))
		? 'Z'
		: '';
	const rows = lines.map((row, i): Record<string, unknown> => {
		const when = whens[i] ?? '';
		const numbers = read.flatMap(({ told, at, turn }) => {
			const cell = (row[at] ?? '').trim();
			return turn === null || NOT_MEASURED.test(cell) ? [] : [[told, turn(numberTyped(cell))] as const];
		});
		return {
			...(per === 'day' ? { on: dated(when) } : { at: instantOf(when, dated, zone) }),
			...Object.fromEntries(numbers)
		};
	});
	const unread = header.filter((heading, at) => heading !== '' && !columns.some((one) => one.at === at));
	return { per, rows, unread };
}
const NOT_MEASURED = /^(|-+|–|n\/?a|null)$/i;

const tells = (columns: readonly Column[], told: Told): boolean => columns.some((one) => one.told === told);

/** A time as an instant: with its zone as it stands, else by the clock of this computer. */
function instantOf(written: string, dated: (day: string) => string, zone: string): string {
	if (/T.*(Z|[+-]\d\d:?\d\d)$/.test(written)) return written;
	const [, day = '', hour = '', rest = ''] =
		/^(.*?)[ T]+(\d{1,2})(:\d{2}(?::\d{2})?)\s*$/.exec(written) ?? [];
	const at = new Date(`${dated(day)}T${hour.padStart(2, '0')}${rest}${zone}`);
	return Number.isNaN(at.getTime()) ? written : at.toISOString();
}
