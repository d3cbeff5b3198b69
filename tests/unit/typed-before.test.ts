import { beforeEach, describe, expect, it, vi } from 'vitest';
import { noteTyped, typedBefore } from '$ui/typed-before';

const kept = new Map<string, string>();
vi.stubGlobal('localStorage', {
	getItem: (key: string) => kept.get(key) ?? null,
	setItem: (key: string, value: string) => void kept.set(key, value)
});
beforeEach(() => kept.clear());

describe('what was typed before', () => {
	const note = (text: string, treeId: string, name = 'litres') => noteTyped([{ name, text }], treeId);
	it('is the last of this tree, and the last of the one before it, by field', () => {
		expect(typedBefore('litres', 'a')).toEqual({ here: null, before: null });
		note('1,5', 'a');
		expect(typedBefore('litres', 'a')).toEqual({ here: '1,5', before: null });
		expect(typedBefore('litres', 'b')).toEqual({ here: null, before: '1,5' });
		expect(typedBefore('beforeKg', 'b')).toEqual({ here: null, before: null });
		note('2', 'b');
		note(' 3 ', 'b');
		expect(typedBefore('litres', 'b')).toEqual({ here: '3', before: '1,5' });
		// Of the two that are remembered, the newest comes first for a third.
		expect(typedBefore('litres', 'c')).toEqual({ here: null, before: '3' });
		note('4', 'c');
		expect(typedBefore('litres', 'a')).toEqual({ here: null, before: '4' });
	});
	it('is nothing where nothing was typed', () => {
		note('1', 'a');
		note('  ', 'a');
		expect(typedBefore('litres', 'a').here).toBe('1');
	});
	it('is nothing where what is kept cannot be read', () => {
		for (const text of ['{', 'null', '5', '{"litres":5}', '{"litres":[{"text":5,"treeId":"a"}]}']) {
			kept.set('bruntle-typed-before', text);
			expect(typedBefore('litres', 'a'), text).toEqual({ here: null, before: null });
		}
	});
});
