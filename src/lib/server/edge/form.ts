import { numberTyped } from '../../core/text/typed';
import { z } from 'zod';
import { id, version } from '../../core/vocabulary/fields';
import { Refusal } from '../errors';
import { check } from './http';

type Shape = { type?: string | string[]; anyOf?: Shape[]; items?: Shape; properties?: Record<string, Shape> };

const accepts = (shape: Shape, type: string): boolean =>
	shape.type === type ||
	(Array.isArray(shape.type) && shape.type.includes(type)) ||
	(shape.anyOf ?? []).some((option) => accepts(option, type));
const objectIn = (shape: Shape): Shape | undefined =>
	shape.properties ? shape : (shape.anyOf ?? []).find((option) => option.properties);

/**
 * Reads a form by its schema: numbers, yes/no and lists are turned into what the schema wants, an empty field is null or
 * left out, and parts of a nested object are named `pot.heightMm`. A comma is taken as the decimal sign.
 * @throws Refusal 422
 */
export function readForm<T extends z.ZodType>(schema: T, form: FormData): z.output<T> {
	const shape = z.toJSONSchema(schema, { io: 'input', unrepresentable: 'any' }) as Shape;
	return check(schema, readObject(shape, form, ''));
}

function readObject(shape: Shape, form: FormData, prefix: string): Record<string, unknown> {
	const read: Record<string, unknown> = {};
	for (const [name, part] of Object.entries(shape.properties ?? {})) {
		const key = prefix + name;
		const nested = objectIn(part);
		if (nested) {
			const keys = [...form.keys()];
			if (!keys.some((given) => given.startsWith(`${key}.`))) continue;
			const object = readObject(nested, form, `${key}.`);
			// A part that may be left out is, when nothing of it was filled in.
			const empty = Object.values(object).every((value) => value === undefined || value === null);
			read[name] = empty && accepts(part, 'null') ? null : object;
			continue;
		}
		const value = readField(part, form, key);
		if (value !== undefined) read[name] = value;
	}
	return read;
}

/**
 * A number of a form. What a field of measures sends beside what was typed there is a number as programs write it,
 * or what could not be read as one: that is no number here either.
 * @returns the number, in the unit of its field; NaN for what is none
 */
export const numberIn = (form: FormData, key: string, text: string): number =>
	form.has(`${key}~shown`) && text.includes(',') ? NaN : numberTyped(text);

function readField(shape: Shape, form: FormData, key: string): unknown {
	if (accepts(shape, 'array')) {
		const entries = form
			.getAll(key)
			.filter((entry): entry is string => typeof entry === 'string' && entry !== '');
		return shape.items && (accepts(shape.items, 'number') || accepts(shape.items, 'integer'))
			? entries.map((entry) => numberIn(form, key, entry))
			: entries;
	}
	const raw = form.get(key);
	if (typeof raw !== 'string') return undefined;
	const text = raw.trim();
	if (text === '') return accepts(shape, 'null') ? null : accepts(shape, 'string') ? '' : undefined;
	if (accepts(shape, 'number') || accepts(shape, 'integer')) return numberIn(form, key, text);
	if (accepts(shape, 'boolean'))
		return text === 'true' || text === 'on' ? true : text === 'false' ? false : text;
	return raw;
}

/** A part of a form that was sent as JSON. @throws Refusal 400 */
export function jsonIn(form: FormData, name: string): unknown {
	const text = form.get(name);
	try {
		return JSON.parse(typeof text === 'string' ? text : '');
	} catch {
		throw new Refusal(400, 'What was entered could not be read.', 'Load the page again and enter it anew.');
	}
}

/**
 * The version a form was read at.
 * @throws Refusal 422
 * @returns 1 or more
 */
export const formVersion = (form: FormData): number =>
	check(z.object({ version: z.coerce.number().int().min(1) }), { version: form.get('version') }).version;

/** Identity and version of the record that a form changes; null for a new one. @throws Refusal 422 */
export function versionedIn(form: FormData): { id: string; version: number } | null {
	const at = form.get('id');
	return typeof at === 'string' && at !== '' ? { id: check(id(), at), version: formVersion(form) } : null;
}

/** The record that is written anew in its place, from a form that corrects one; null for a new one. */
export function correctsIn(form: FormData): { id: string; version: number } | null {
	const at = form.get('correctsId');
	return typeof at === 'string' && at !== ''
		? { id: check(id(), at), version: check(version(), Number(form.get('correctsVersion'))) }
		: null;
}
