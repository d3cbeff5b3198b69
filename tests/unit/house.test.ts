import { readFileSync } from 'node:fs';
import path from 'node:path';
import { describe, expect, it } from 'vitest';
import { drawHouse } from '../../scripts/draw-house.js';
import { licenceList } from '../../scripts/licences.js';
import { against, circles, coreFloors, importsOf, leadsTo } from '../../scripts/house.js';

const root = path.resolve(import.meta.dirname, '../..');
const imports = importsOf(root);

describe('the house', () => {
	it('has no circle among its files, types included', () => {
		expect(imports.size).toBeGreaterThan(500);
		expect(circles(imports)).toEqual([]);
	});
	it('finds a circle where there is one', () => {
		const ring = new Map([
			['a', ['b']],
			['b', ['c', 'd']],
			['c', ['a']],
			['d', []]
		]);
		expect(circles(ring).map((one) => [...one].sort())).toEqual([['a', 'b', 'c']]);
	});
	it('follows aliases and relative paths alike', () => {
		expect(leadsTo('src/lib/views/a/b.ts', '$core/roots/map/course')).toBe('src/lib/core/roots/map/course');
		expect(leadsTo('src/lib/core/roots/x.ts', '../today/today')).toBe('src/lib/core/today/today');
		expect(leadsTo('src/lib/core/roots/x.ts', 'zod')).toBeNull();
	});
	it('keeps every room of the core off those above it, and no room without a floor', () => {
		for (const [above, { name }] of coreFloors.entries())
			for (const [below, lower] of coreFloors.entries()) {
				const why = against(`src/lib/core/${lower.name}/x.ts`, `$core/${name}/y`);
				expect(why === null, `${lower.name} → ${name}`).toBe(above <= below);
			}
		expect(against('src/lib/core/attic/x.ts', '../maths/wilson')).toMatch(/no floor/);
	});
	it('is drawn as it is: node scripts/draw-house.js', () => {
		expect(readFileSync(path.join(root, 'docs/house.svg'), 'utf8')).toBe(drawHouse(imports));
	});
});

describe('the papers', () => {
	it('name every package with its exact version and its licence: node scripts/licences.js', () => {
		const list = licenceList();
		expect(readFileSync(path.join(root, 'docs/licences.md'), 'utf8')).toBe(list);
		expect(list).not.toMatch(/[\^~]\d/);
	});
});
