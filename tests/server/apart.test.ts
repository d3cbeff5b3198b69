import { describe, expect, it } from 'vitest';
import { z } from 'zod';
import { calculationByName } from '$core/compute/calculations';
import { isLarge } from '$core/roots/map/large';
import { defaultValues as values } from '$core/values/values';
import { fieldProblems } from '$core/vocabulary/fields';
import { parseJson } from '$lib/server/edge/parse-json';
import { Refusal } from '$lib/server/errors';
import { computeApart } from '$lib/server/threads';
import { refusal } from './helpers';

const ask = (name: string, body: unknown, changed = values): Promise<string> =>
	computeApart({ name, text: typeof body === 'string' ? body : JSON.stringify(body), values: changed });

describe('a calculation asked for by another program', () => {
	it('answers as the core does, and says where its numbers come from', async () => {
		const body = { successes: 7, trials: 20 };
		const told = JSON.parse(await ask('wilson-interval', body)) as object;
		expect(told).toMatchObject((await calculationByName.get('wilson-interval')?.run(body, values)) as object);
		expect(told).toHaveProperty('from');
	});
	it('goes by the working values it is given', async () => {
		const radius = async (changed: typeof values): Promise<number> =>
			(JSON.parse(await ask('root-protection-area', { stemDiameterM: 0.3 }, changed)) as { radiusM: number })
				.radiusM;
		const factor = values['ground.rpaFactor'];
		expect(await radius(values)).toBeCloseTo(0.3 * factor, 9);
		expect(await radius({ ...values, 'ground.rpaFactor': factor / 2 })).toBeCloseTo(0.15 * factor, 9);
	});
	it('is refused by the field that cannot be taken, over the border of a thread too', async () => {
		const refused = await refusal(ask('wilson-interval', { successes: 'many', trials: 20 }));
		expect(refused).toBeInstanceOf(Refusal);
		expect(refused.status).toBe(422);
		expect(refused.problems[0]?.field).toBe('successes');
		expect((await refusal(ask('wilson-interval', '{"successes":'))).status).toBe(400);
	});
});

describe('a body', () => {
	const caught = (text: string): number | null => {
		try {
			parseJson(text);
			return null;
		} catch (cause) {
			return cause instanceof Refusal ? cause.status : -1;
		}
	};
	it('of more brackets and commas than any that is meant is refused before it is read', () => {
		expect(caught(`[${'0,'.repeat(299_998)}0]`)).toBeNull();
		expect(caught(`[${'0,'.repeat(300_000)}0]`)).toBe(413);
		expect(caught('['.repeat(300_001) + ']'.repeat(300_001))).toBe(413);
		expect(caught('{"a":'.repeat(300_001))).toBe(413);
		expect(caught('{')).toBe(400);
	});
	it('with many unknown fields is told the first of them', () => {
		const known = z.strictObject({ a: z.number() });
		const told = (count: number): string | undefined => {
			const { error } = known.safeParse(
				Object.fromEntries([['a', 1], ...Array.from({ length: count }, (_, i) => [`b${i}`, 1])])
			);
			return error && fieldProblems(error)[0]?.field;
		};
		expect(told(2)).toBe('b0, b1');
		expect(told(10)).toBe('b0, b1, b2, b3, b4, b5, b6, b7 and 2 more');
	});
});

it('a map is large from so many points of its courses on', () => {
	const root = (points: number) => ({ course: Array.from({ length: points }, () => ({})) });
	const map = (...counts: number[]) => isLarge({ segments: counts.map(root) } as never);
	expect(isLarge(null)).toBe(false);
	expect(map(2000, 2000)).toBe(false);
	expect(map(2000, 2001)).toBe(true);
});
