import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { describe, expect, it } from 'vitest';

const VIEWS = 'src/lib/views';
const sources = new Map(
	readdirSync(VIEWS, { recursive: true, encoding: 'utf8' })
		.filter((name) => name.endsWith('.svelte'))
		.map((name) => [path.join(VIEWS, name), readFileSync(path.join(VIEWS, name), 'utf8')])
);

/** Forms that keep what is typed, with the parts of a view's own room that stand in them. */
function keptForms(): [name: string, text: string][] {
	const found: [string, string][] = [];
	for (const [file, text] of sources)
		for (const [form = ''] of text.matchAll(/<form\b(?:(?!<\/form>)[^])*?keepTyped\([^]*?<\/form>/g)) {
			found.push([file, form]);
			for (const [, part = ''] of form.matchAll(/<([A-Z]\w+)/g)) {
				const own = path.join(path.dirname(file), `${part}.svelte`);
				const inside = sources.get(own);
				if (inside) found.push([own, inside]);
			}
		}
	return found;
}

describe('a form that keeps what is typed', () => {
	it('names every field, for what has no name does not come back', () => {
		const forms = keptForms();
		expect(forms.length).toBeGreaterThan(10);
		for (const [file, form] of forms)
			for (const [tag] of form.matchAll(/<(?:input|select|textarea)\b[^]*?(?:\/>|>(?=[A-Z{<\s]))/g))
				expect(/\bname=|\{name\}|type="range"|lift\.tick/.test(tag), `${file}: ${tag}`).toBe(true);
	});
});
