import { ESLint } from 'eslint';
import { describe, expect, it } from 'vitest';
import { z } from 'zod';
import { calculations } from '$core/compute/calculations';
import { wordsFor } from '$core/compute/field-words';
import { formulaSources, provenance, traced } from '$core/compute/sources';
import { observationInput } from '$core/examine/looks/observation';
import { plantingInput } from '$core/replant/pots/replant-plan';
import { treeInput } from '$core/take-in/tree';
import { defaultValues } from '$core/values/values';
import { readForm } from '$lib/server/edge/form';
import { check, problem, readJson } from '$lib/server/edge/http';
import { answerSchema, jsonSchema } from '$lib/server/edge/json-schema';
import { Refusal } from '$lib/server/errors';
import { decoded } from '../decoded';
import { calculationExamples } from '../examples';

const form = (fields: Record<string, string>): FormData => {
	const data = new FormData();
	for (const [name, value] of Object.entries(fields)) data.append(name, value);
	return data;
};
const treeFields = {
	tag: ' H-1 ',
	name: 'Beech',
	kindId: 'fagus',
	placeId: 'p',
	situation: 'potted',
	trunkDiameterMm: '60,5',
	heightM: '',
	plantCount: '1',
	origin: '',
	batch: '',
	note: '',
	takenInOn: '2026-04-18'
};
const thrown = (work: () => unknown): Refusal => {
	try {
		work();
	} catch (cause) {
		if (cause instanceof Refusal) return cause;
		throw cause;
	}
	throw new Error('was not refused');
};

describe('a form', () => {
	it('is read by its schema: commas, blanks, defaults and nested parts', () => {
		expect(readForm(treeInput, form(treeFields))).toMatchObject({
			tag: 'H-1',
			trunkDiameterMm: 60.5,
			heightM: null,
			vigour: 'fair'
		});
		const pot = {
			'pot.shape': 'round',
			'pot.topLengthMm': '300',
			'pot.topWidthMm': '300',
			'pot.bottomLengthMm': '240',
			'pot.bottomWidthMm': '240',
			'pot.heightMm': '200'
		};
		const planting = readForm(
			plantingInput.omit({ mix: true }),
			form({
				...pot,
				plantedOn: '2026-04-18',
				sizeRule: 'normal',
				ballDiameterMm: '200',
				ballDepthMm: '120',
				headspaceMm: '20',
				note: '',
				placeId: ''
			})
		);
		expect(planting.pot.heightMm).toBe(200);
		expect(planting.placeId).toBeNull();
	});
	it('takes from a field of measures only what the page could read as one number', () => {
		const sent = (trunkDiameterMm: string) =>
			readForm(treeInput, form({ ...treeFields, trunkDiameterMm, 'trunkDiameterMm~shown': trunkDiameterMm }));
		expect(sent('60.5').trunkDiameterMm).toBe(60.5);
		expect(() => sent('1,348')).toThrow(Refusal);
		expect(readForm(treeInput, form({ ...treeFields, trunkDiameterMm: '1,348' })).trunkDiameterMm).toBe(
			1.348
		);
	});
	it('knows yes, no and not looked at', () => {
		const look = readForm(
			observationInput,
			form({ observedOn: '2026-04-18', note: '', rootsAtEdge: 'true', whiteTips: '', lostCount: '3' })
		);
		expect(look).toMatchObject({ rootsAtEdge: true, whiteTips: null, lostCount: 3, buds: null });
	});
	it.each([
		['trunkDiameterMm', '-3', /1 to 3000 mm/],
		['trunkDiameterMm', 'NaN', /1 to 3000 mm/],
		['trunkDiameterMm', '1e9', /1 to 3000 mm/],
		['trunkDiameterMm', '', /1 to 3000 mm/],
		['name', '   ', /1 to 80 characters/],
		['note', 'x'.repeat(10_000), /at most 4000/],
		['takenInOn', '1800-01-01', /1950-01-01 to 2100-12-31/],
		['takenInOn', '2300-01-01', /1950-01-01 to 2100-12-31/],
		['takenInOn', '2026-02-30', /must be a date/],
		['plantCount', '2.5', /whole number/],
		['situation', 'flying', /one of: potted/]
	])('with %s "%s" is refused by name and range', (field, value, message) => {
		const refused = thrown(() =>
			readForm(treeInput, form({ ...treeFields, [field]: value.slice(0, 10_000) }))
		);
		expect(refused.problems[0]?.field).toBe(field);
		expect(refused.problems[0]?.message).toMatch(message);
	});
});

describe('the JSON edge', () => {
	const request = (body: string, type = 'application/json') =>
		new Request('http://x/', { method: 'POST', body, headers: { 'content-type': type } });
	const refused = async (work: Promise<unknown>) =>
		work.then(
			() => null,
			(cause: unknown) => (cause instanceof Refusal ? cause.status : cause)
		);
	it('refuses what is not JSON, broken JSON and too much', async () => {
		expect(await refused(readJson(request('{}', 'text/plain')))).toBe(415);
		expect(await refused(readJson(request('{"a":')))).toBe(400);
		expect(await refused(readJson(request(JSON.stringify('x'.repeat(2000))), 1000))).toBe(413);
		expect(await readJson(request('{"a":1}', 'application/json; charset=utf-8'))).toEqual({ a: 1 });
	});
	it('answers problem+json that names field and range, and hides the inside (RFC 9457)', async () => {
		const named = problem(thrown(() => check(z.strictObject({ a: z.number() }), { a: 'x', b: 1 })));
		expect(named.headers.get('content-type')).toBe('application/problem+json');
		expect(((await named.json()) as { errors: unknown[] }).errors).toHaveLength(2);
		const silent = console.error;
		console.error = () => undefined;
		const inside = problem(new Error('secret at line 3'));
		console.error = silent;
		expect(inside.status).toBe(500);
		expect(await inside.text()).not.toMatch(/secret|line 3/);
	});
});

describe('every calculation', () => {
	it('has a name of its own and JSON Schemas for input and output', () => {
		expect(new Set(calculations.map((entry) => entry.name)).size).toBe(calculations.length);
		for (const { input, output, name } of calculations) {
			expect(jsonSchema(input, 'input'), name).toMatchObject({ type: 'object' });
			expect(jsonSchema(output, 'output'), name).toMatchObject({ type: 'object' });
		}
	});
	it('says of every number what it means and in which unit, in what goes in and what comes out', () => {
		const bare: string[] = [];
		let numbers = 0;
		const walk = (node: unknown, at: string): void => {
			if (typeof node !== 'object' || node === null) return;
			if (Array.isArray(node)) return node.forEach((part) => walk(part, at));
			const { type, description, properties, ...rest } = node as Record<string, unknown>;
			if (type === 'number' || type === 'integer') {
				numbers++;
				if (typeof description !== 'string' || description.length < 4) bare.push(at);
			}
			for (const [name, part] of Object.entries(properties ?? {})) walk(part, `${at}.${name}`);
			for (const [key, part] of Object.entries(rest))
				if (key !== 'required' && key !== 'enum') walk(part, at);
		};
		for (const { name, input, output } of calculations) {
			walk(jsonSchema(input, 'input'), `${name} in`);
			walk(answerSchema(output), `${name} out`);
		}
		expect(bare).toEqual([]);
		expect(numbers).toBeGreaterThan(1000);
		expect(wordsFor('ballDiameterMm')).toBe('ball diameter, mm');
		expect(wordsFor('odds')).toMatch(/log-odds/);
		expect(wordsFor('whatever')).toBeNull();
		expect([wordsFor('kg'), wordsFor('mm'), wordsFor('m')]).toEqual(['amount, kg', 'length, mm', null]);
	});
	it('answers in the shape it promises, and says where its numbers come from: the formula, and every working value it read', async () => {
		expect(Object.keys(calculationExamples).sort()).toEqual(calculations.map((entry) => entry.name).sort());
		expect(Object.keys(formulaSources).sort()).toEqual(calculations.map((entry) => entry.name).sort());
		for (const { name, output, run } of calculations) {
			const { values, used } = traced(defaultValues);
			const answer = await run(calculationExamples[name], values, decoded);
			expect(output.safeParse(answer).error, name).toBeUndefined();
			const from = provenance(name, used, defaultValues);
			expect(from.formula.length, name).toBeGreaterThan(5);
			expect(
				Object.values(from.marks).reduce((sum, count) => sum + count, 0),
				name
			).toBe(from.values.length + from.more);
			for (const one of from.values) expect(one.value, one.key).toBe(defaultValues[one.key]);
		}
		// What was not read is not named, and what was read is.
		const zone = traced(defaultValues);
		await calculations
			.find((one) => one.name === 'sulphur-dose')
			?.run(calculationExamples['sulphur-dose'], zone.values);
		expect([...zone.used].every((key) => key.startsWith('sulphur.'))).toBe(true);
		expect([...zone.used].length).toBeGreaterThan(0);
	});
});

describe('the arrows of the house', () => {
	it.each([
		['src/lib/core/roots/x.ts', "import { onMount } from 'svelte';"],
		['src/lib/core/roots/x.ts', "import { openStore } from '$lib/server/db/database';"],
		['src/lib/core/roots/x.ts', "import { x } from '../../views/roots/glyphs';"],
		['src/lib/core/roots/x.ts', "import { readFileSync } from 'node:fs';"],
		['src/lib/ui/x.ts', "import { diagnose } from '$core/examine/diagnosis/diagnose';"],
		['src/lib/views/roots/x.ts', "import { loadRecords } from '$lib/server/records/tree-records';"],
		['src/lib/server/x.ts', "import { tell } from '$ui/act';"],
		['src/lib/core/roots/x.ts', "import { today } from '../today/today';"],
		['src/lib/core/values/x.ts', "import type { SignId } from '$core/examine/diagnosis/diagnose';"],
		['src/demo/x.ts', "import { tell } from '$lib/ui/act';"]
	])('a wrong one in %s fails the lint: %s', async (filePath, line) => {
		const [result] = await new ESLint().lintText(`${line}\n`, { filePath });
		expect(
			result?.messages.some((message) =>
				['house/floors', 'no-restricted-imports'].includes(message.ruleId ?? '')
			)
		).toBe(true);
	});
	it('a right one passes', async () => {
		const lint = new ESLint();
		for (const [filePath, line] of [
			['src/lib/views/roots/x.ts', "import { diagnose } from '$core/examine/diagnosis/diagnose';"],
			['src/lib/server/x.ts', "import { diagnose } from '../core/examine/diagnosis/diagnose';"],
			['src/lib/core/roots/x.ts', "import { z } from 'zod';"],
			['src/lib/ui/x.ts', "import { createFormat } from '$core/text/format';"]
		] as const) {
			const [result] = await lint.lintText(`${line}\n`, { filePath });
			expect(
				result?.messages.filter((message) =>
					['house/floors', 'no-restricted-imports'].includes(message.ruleId ?? '')
				)
			).toEqual([]);
		}
	});
});
