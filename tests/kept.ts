import { randomLcg } from 'd3';
import { createHash } from 'node:crypto';
import { appendFileSync, mkdirSync } from 'node:fs';
import path from 'node:path';
import { defaultValues } from '$core/values/values';

/**
 * Answers as they were: what a calculation said of many drawn questions is kept as a short print, so that a change that nobody
 * meant is seen wherever it shows. Words may change freely: of a sentence only its figures count.
 *
 * A print that is meant to change is kept anew by `npx vitest run kept -u`; `KEPT_OUT=folder` writes every answer in full, to be
 * laid beside those of the state before.
 */

/** Numbers to six digits, and of what has more than one word its figures alone. */
function plainOf(_: string, value: unknown): unknown {
	if (typeof value === 'number') return Number.isFinite(value) ? Number(value.toPrecision(6)) : String(value);
	if (typeof value === 'function') return undefined;
	if (value instanceof Map || value instanceof Set) return [...(value as Iterable<unknown>)];
	if (typeof value === 'string' && /\s/.test(value)) return value.match(/\d+/g)?.join(' ') ?? '';
	return value;
}

/** The print of an answer, of 10 signs; with KEPT_OUT the answer itself is written down under its name. */
export function printOf(name: string, answer: unknown): string {
	const text = JSON.stringify(answer, plainOf) ?? 'nothing';
	const folder = process.env.KEPT_OUT;
	if (folder) {
		mkdirSync(folder, { recursive: true });
		appendFileSync(path.join(folder, `${name.replaceAll(/\W+/g, '-')}.txt`), `${text}\n`);
	}
	return createHash('sha256').update(text).digest('base64url').slice(0, 10);
}

/** A part of a JSON Schema, as far as questions are drawn from it. */
interface Schema {
	$ref?: string;
	type?: string;
	enum?: readonly unknown[];
	const?: unknown;
	anyOf?: readonly Schema[];
	oneOf?: readonly Schema[];
	properties?: Record<string, Schema>;
	items?: Schema;
	minimum?: number;
	maximum?: number;
	pattern?: string;
	format?: string;
	additionalProperties?: Schema | boolean;
	$defs?: Record<string, Schema>;
}
type Json = Record<string, unknown>;
const isRecord = (value: unknown): value is Json =>
	typeof value === 'object' && value !== null && !Array.isArray(value);

const sizeOf = (value: unknown): number => JSON.stringify(value ?? null).length;

/** Where rules turn: the working values, on which a question is put as often as beside them. */
const turning = [...new Set(Object.values(defaultValues))].filter(Number.isFinite).sort((a, b) => a - b);

/** Draws questions like an example, each with a few parts of it changed within their schema. */
export function drawer(schema: Schema, seed: number) {
	const next = randomLcg(seed / 2 ** 16 + 0.5);
	const below = (count: number): number => Math.floor(next() * count);
	const one = <T>(of: readonly T[]): T => of[below(of.length)] as T;
	const whole = (part: Schema): Schema =>
		part.$ref ? whole(schema.$defs?.[part.$ref.split('/').at(-1) ?? ''] ?? {}) : part;

	const number = (part: Schema, now: unknown): number => {
		const [least, most] = [
			Math.max(part.minimum ?? -1e4, -1e6),
			Math.min(part.maximum ?? 1e4, part.type === 'integer' ? 1e4 : 1e6)
		];
		const from = turning.filter((value) => value >= least && value <= most);
		const how = next();
		let drawn =
			how < 0.35 && from.length > 0
				? one(from)
				: how < 0.65 && typeof now === 'number' && now !== 0
					? now * one([0.5, 0.8, 0.9, 1.1, 1.25, 2, 3])
					: how < 0.75
						? one([least, most, 0, 1])
						: least + (most - least) * next() ** 3;
		if (part.type === 'integer') drawn = Math.round(drawn);
		return Math.min(most, Math.max(least, Number(drawn.toPrecision(5))));
	};
	const date = (now: unknown): string => {
		const at = typeof now === 'string' ? Date.parse(now.slice(0, 10)) : Date.UTC(2026, 3, 18);
		const days = one([-400, -120, -45, -14, -1, 1, 3, 14, 45, 90, 180, 400]) + below(5);
		return new Date(at + days * 86_400_000).toISOString().slice(0, 10);
	};
	/** Another value for a part; a new one where there was none. */
	const another = (given: Schema, now: unknown, deep = 0): unknown => {
		const part = whole(given);
		const ways = part.anyOf ?? part.oneOf;
		if (ways) return another(one(ways), now, deep);
		if (part.const !== undefined) return part.const;
		if (part.enum) return one(part.enum);
		if (part.type === 'null') return null;
		if (part.type === 'boolean') return typeof now === 'boolean' ? !now : next() < 0.5;
		if (part.type === 'number' || part.type === 'integer') return number(part, now);
		if (part.type === 'string')
			return part.pattern?.includes('\\d{4}') === true
				? date(now)
				: part.format === 'date-time'
					? `${date(now)}T09:00:00.000Z`
					: typeof now === 'string' && now !== ''
						? now
						: `p${below(9)}`;
		if (part.type === 'array') {
			const list = Array.isArray(now) ? [...(now as unknown[])] : [];
			const how = next();
			if (list.length > 0 && how < 0.35) list.splice(below(list.length), 1);
			else if (list.length > 0 && how < 0.5) list.push(changed(part.items ?? {}, one(list)));
			else if (deep < 5) list.push(another(part.items ?? {}, undefined, deep + 1));
			return list;
		}
		if (part.type === 'object') {
			const made: Json = {};
			for (const [name, inner] of Object.entries(part.properties ?? {}))
				if (deep < 5) made[name] = another(inner, isRecord(now) ? now[name] : undefined, deep + 1);
			return made;
		}
		return now;
	};
	/** The same with one part of it changed, however deep it lies. */
	function changed(given: Schema, now: unknown): unknown {
		let part = whole(given);
		const ways = part.anyOf ?? part.oneOf;
		if (ways) {
			if (next() < 0.2) return another(part, now);
			// The way that the value went: the one that has its fields.
			const fits = ways
				.map(whole)
				.filter((way) =>
					isRecord(now)
						? Object.keys(now).every((name) => Object.hasOwn(way.properties ?? {}, name)) &&
							Object.entries(way.properties ?? {}).every(
								([name, { const: fixed }]) => fixed === undefined || fixed === now[name]
							)
						: Array.isArray(now)
							? way.type === 'array'
							: way.type !== 'null' && way.type !== 'object' && way.type !== 'array'
				);
			if (fits.length === 0) return another(part, now);
			part = one(fits);
		}
		if (isRecord(now) && part.properties) {
			const { properties } = part;
			// What holds more is changed more often: of a map its roots.
			const names = Object.keys(properties).flatMap((field) =>
				Array.from({ length: 1 + Math.min(20, Math.floor(sizeOf(now[field]) / 30)) }, () => field)
			);
			const name = one(names);
			const inner = part.properties[name] ?? {};
			if (Object.hasOwn(now, name) && next() < 0.12) {
				const { [name]: _, ...rest } = now;
				return rest;
			}
			return {
				...now,
				[name]: now[name] === undefined ? another(inner, undefined) : changed(inner, now[name])
			};
		}
		if (Array.isArray(now) && now.length > 0 && next() < 0.8) {
			const at = below(now.length);
			return (now as unknown[]).map((item, i) => (i === at ? changed(part.items ?? {}, item) : item));
		}
		return another(part, now);
	}
	return (example: unknown): unknown => {
		let made = example;
		for (let edits = 1 + below(6); edits > 0; edits--) made = changed(schema, made);
		return made;
	};
}
