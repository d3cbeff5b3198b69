import { expect, it } from 'vitest';
import { isLookedFor } from '$views/along/device.svelte';

it('a page looks for the yard every other second in its first minute, and every eight seconds later', () => {
	const turns = Array.from({ length: 60 }, (_, i) => i + 1).filter(isLookedFor);
	expect(turns.slice(0, 30)).toEqual(Array.from({ length: 30 }, (_, i) => i + 1));
	expect(turns.slice(30)).toEqual([32, 36, 40, 44, 48, 52, 56, 60]);
});
