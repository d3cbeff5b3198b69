import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { glossary, withTerms } from '$core/text/glossary';

const marked = (text: string): string[] =>
	withTerms(text).flatMap(({ text: words, term }) => (term ? [`${words}=${term.term}`] : []));

describe('the glossary', () => {
	it('holds some sixty terms in order, each once, each explained in a sentence that does not begin with itself', () => {
		const terms = glossary.map(({ term }) => term);
		expect(terms.length).toBeGreaterThanOrEqual(60);
		expect(terms).toEqual([...new Set(terms)].sort((a, b) => (a.toLowerCase() < b.toLowerCase() ? -1 : 1)));
		for (const { term, meaning } of glossary) {
			expect(meaning, term).toMatch(/^[A-Z\u00c0-\u017f].*\.$/);
			expect(meaning.toLowerCase().startsWith(term), term).toBe(false);
		}
	});
	it('gives no two terms one form', () => {
		const forms = glossary
			.flatMap(({ term, also = [] }) => [term, ...also])
			.map((form) => form.toLowerCase());
		expect(forms).toEqual([...new Set(forms)]);
	});
	it('marks the longest form, plurals too, each term at its first place, and no part of a word', () => {
		expect(marked('The root ball is dry; feed no root balls. A balloon is no ball.')).toEqual([
			'root ball=root ball'
		]);
		expect(marked('Girdlers throttle; a girdling root is seen at the flare.')).toEqual([
			'Girdlers=girdling root',
			'flare=flare'
		]);
		expect(marked('A lot of work, in front of it, at this stage.')).toEqual([]);
		expect(marked('Pre-mulch and mulches')).toEqual([]);
	});
	it('leaves out what was explained nearby', () => {
		const known = new Set<string>();
		withTerms('Open the collar.', known);
		expect(withTerms('The collar is buried.', known)).toEqual([
			{ text: 'The collar is buried.', term: null }
		]);
	});
	it('loses no letter of any text', () => {
		fc.assert(
			fc.property(
				fc.array(
					fc.oneof(fc.constantFrom(...glossary.map(({ term }) => term), ', ', '. ', 's '), fc.string())
				),
				(words) => {
					const text = words.join('');
					expect(
						withTerms(text)
							.map((part) => part.text)
							.join('')
					).toBe(text);
				}
			)
		);
	});
});
