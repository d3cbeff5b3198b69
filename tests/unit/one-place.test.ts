import { readdirSync, readFileSync, statSync } from 'node:fs';
import path from 'node:path';
import { describe, expect, it } from 'vitest';

const root = path.resolve(import.meta.dirname, '../../src');
const files = (folder: string): string[] =>
	readdirSync(folder).flatMap((name) => {
		const file = path.join(folder, name);
		return statSync(file).isDirectory() ? files(file) : /\.(ts|svelte)$/.test(name) ? [file] : [];
	});
const sources = ['lib/views', 'routes', 'lib/server'].flatMap((folder) =>
	files(path.join(root, folder)).map((file) => ({
		name: path.relative(root, file),
		text: readFileSync(file, 'utf8')
	}))
);
/** Places outside the fold that match a pattern, as `file: text`. */
const found = (pattern: RegExp): string[] =>
	sources.flatMap(({ name, text }) =>
		[...text.matchAll(pattern)].map((match) => `${name}: ${match[0].replace(/\s+/g, ' ')}`)
	);

/** A fact about a tree is read in core/tree and nowhere else: whoever adds a page finds no other way. */
describe('no fact is read around the one place', () => {
	it('the last of what was seen is asked of the fold, not picked from the records', () => {
		const facts =
			'firmness|buds|leafState|leafCover|diebackLimitMm|pests|smell|whiteTips|scratchAlive|protectedSpecies|servicesLocated|permission|ballDiameterMm|ballDepthMm|crownWidthMm';
		const picked = found(
			new RegExp(
				`(observations|examinations|triages|lifts|plantings)\\s*\\.(at\\(-1\\)|findLast\\([^)]*\\))\\??\\.(log\\??\\.)?(${facts})\\b`,
				'g'
			)
		);
		expect(picked).toEqual([]);
	});
	it('a look is read in its context from the fold, so that what was found before and done since counts', () => {
		expect(found(/\bcontextOf\(/g)).toEqual([]);
	});
	it('losses of roots and looks come from the fold on every page and in every answer', () => {
		expect(found(/looks: records\.observations\b/g)).toEqual([]);
		expect(found(/\bexpectedRootFunction\(/g)).toEqual([]);
		expect(found(/\breferrals\(tree,/g)).toEqual([
			'lib/views/examine/ExamineView.svelte: referrals(tree,',
			'lib/views/examine/FindingSheet.svelte: referrals(tree,'
		]);
	});
});
