import type { StoredUnit } from './format';

/*
 * What a form sent and what a record holds, field by field, so that the two can be laid side by side.
 */

/** Fields that a form carries for the page, not for the person. */
const unseen = new Set(['version', 'sent', 'id', 'treeId', 'treeIds']);

const isObject = (value: unknown): value is object => typeof value === 'object' && value !== null;
const asText = (value: unknown): string =>
	value === null || value === undefined ? '' : isObject(value) ? JSON.stringify(value) : String(value);

/**
 * A record as a form would send it: each value under its name, parts of a part behind a point, a list of plain values in one line.
 * @param prefix put before every name
 */
export function flatFields(record: object, prefix = ''): Record<string, string> {
	return Object.fromEntries(
		Object.entries(record).flatMap(([name, value]: [string, unknown]): [string, string][] => {
			if (!isObject(value)) return [[prefix + name, asText(value)]];
			if (Array.isArray(value) && !value.some(isObject))
				return [[prefix + name, value.map(asText).join(', ')]];
			return Object.entries(flatFields(value, `${prefix}${name}.`));
		})
	);
}

/** A part that a form sent as JSON, or null where it sent plain text. */
function partIn(text: string): object | null {
	if (!/^[{[]/.test(text)) return null;
	try {
		const part: unknown = JSON.parse(text);
		return isObject(part) ? part : null;
	} catch {
		return null;
	}
}

/**
 * What a person entered in a form, by the names of the fields of its record: hidden parts are taken apart, what was chosen several times
 * stands in one line, and what the form carries for the page is left out.
 * @param sent name and text of every field, in their order
 */
export function fieldsEntered(sent: readonly (readonly [string, string])[]): Map<string, string> {
	const entered = new Map<string, string>();
	for (const [name, text] of sent) {
		if (unseen.has(name) || name.endsWith('~shown')) continue;
		const part = partIn(text);
		for (const [field, value] of part ? Object.entries(flatFields(part)) : [[name, text] as const])
			entered.set(field, entered.has(field) && !part ? `${entered.get(field) ?? ''}, ${value}` : value);
	}
	return entered;
}

/** A field that says something else here than where it was changed meanwhile. */
export interface Difference {
	field: string;
	here: string;
	there: string;
}

const sameValue = (one: string, other: string): boolean =>
	one.trim() === other.trim() ||
	// 60 and 60.0 are one number.
	(one.trim() !== '' && other.trim() !== '' && Number(one) === Number(other));

/** What a field is a part of: `planting.ties.0.gaugeMm` of `planting`, `planting.ties` and `planting.ties.0`. */
const wholesOf = (field: string): string[] =>
	field.split('.').flatMap((_, i, parts) => (i === 0 ? [] : [parts.slice(0, i).join('.')]));
const wholes = (fields: Iterable<string>): Set<string> => new Set([...fields].flatMap(wholesOf));

/**
 * The fields that were entered and stand otherwise by now. A part that only one of the two has, such as a line of a list, is empty in
 * the other; what was not asked for is no difference.
 * @param entered see `fieldsEntered`
 * @param stands see `flatFields`
 */
export function differences(
	entered: ReadonlyMap<string, string>,
	stands: Readonly<Record<string, string>>
): Difference[] {
	const [enteredWholes, standingWholes] = [wholes(entered.keys()), wholes(Object.keys(stands))];
	/** Whether a side speaks of a field: by itself, or of what the field is a part of. */
	const has = (fields: (name: string) => boolean, whole: ReadonlySet<string>, field: string): boolean =>
		fields(field) || wholesOf(field).some((one) => fields(one) || whole.has(one));
	return [...new Set([...entered.keys(), ...Object.keys(stands)])].flatMap((field): Difference[] => {
		const [here, there] = [entered.get(field) ?? '', stands[field] ?? ''];
		const isOfBoth =
			has((name) => entered.has(name), enteredWholes, field) &&
			has((name) => name in stands, standingWholes, field);
		return !isOfBoth || sameValue(here, there) ? [] : [{ field, here, there }];
	});
}

/** Units by the ending of a name. */
const units: readonly (readonly [ending: RegExp, unit: StoredUnit])[] = [
	[/Mm$/, 'mm'],
	[/M2$/, 'm²'],
	[/Kg$/, 'kg'],
	[/Ms$/, 'm/s'],
	[/L$/, 'L'],
	[/M$/, 'm'],
	[/C$/, '°C']
];

/** Unit a field is stored in, by its name; null where it is no measure. */
export const fieldUnit = (field: string): StoredUnit | null =>
	units.find(([ending]) => ending.test(field))?.[1] ?? null;

/** Name of a field in words, without its unit: “height”, “planted on”, “layers 2, depth”. */
export function fieldName(field: string): string {
	const parts = field.split('.');
	const last = parts.pop() ?? '';
	const bare = units.find(([ending]) => ending.test(last))?.[0];
	const words = (name: string): string =>
		name
			.replace(/Deg$/, '')
			.replace(/Id$/, '')
			.replace(/[A-Z]/g, (letter) => ` ${letter.toLowerCase()}`)
			.trim();
	const at = parts.at(-1);
	const list = at !== undefined && /^\d+$/.test(at) ? parts.at(-2) : undefined;
	const name = words(bare ? last.replace(bare, '') : last);
	return list === undefined ? name : `${words(list)} ${Number(at) + 1}, ${name}`;
}
