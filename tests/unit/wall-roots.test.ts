import { describe, expect, it } from 'vitest';
import type { WallTold } from '$core/examine/pictures/wall-words';
import { defaultValues as values } from '$core/values/values';
import type { WallShown } from '$lib/workers/picture-reader';
import { WallRoots } from '$views/recovery/wall-roots.svelte';

const range = (share: number) => ({ share, low: share - 0.05, high: share + 0.05 });
const shown = (change: Partial<WallShown> = {}): WallShown => ({
	shares: { white: range(0.2), brown: range(0.1), none: range(0.7) },
	unlike: 0,
	mistaken: 0,
	sample: { white: 20, brown: 10 },
	drawn: new Blob([]),
	...change
});
/** A reader whose answers are given by hand, in the order in which it was asked. */
function reader() {
	const asked: WallTold[] = [];
	const answers: ((found: WallShown | null) => void)[] = [];
	return {
		asked,
		answer: async (found: WallShown | null) => {
			answers.shift()?.(found);
			await new Promise((done) => setTimeout(done));
		},
		wall: (_url: string, told: WallTold) => {
			asked.push(told);
			return new Promise<WallShown | null>((done) => answers.push(done));
		}
	};
}
const begun = () => {
	const by = reader();
	const wall = new WallRoots('address', values, by);
	return { by, wall };
};
const touchAll = (wall: WallRoots): void => {
	wall.touch({ x: 1, y: 1 });
	wall.touch({ x: 2, y: 2 });
	wall.touch({ x: 3, y: 3 });
};

describe('roots on a wall, touched', () => {
	it('asks for the three one after the other, and reads with the third', async () => {
		const { by, wall } = begun();
		expect(wall.says).toBe('Touch a white root.');
		wall.touch({ x: 1, y: 1 });
		expect(wall.says).toBe('Touch a brown root.');
		expect(wall.what).toBe('brown');
		wall.touch({ x: 2, y: 2 });
		expect(wall.says).toBe('Touch soil; and stones, where there are any.');
		expect(by.asked).toEqual([]);
		wall.touch({ x: 3, y: 3 });
		expect(wall.says).toBe('Reading the wall …');
		expect(by.asked[0]?.touches).toEqual({
			white: [{ x: 1, y: 1 }],
			brown: [{ x: 2, y: 2 }],
			none: [{ x: 3, y: 3 }]
		});
		await by.answer(shown());
		expect(wall.says).toBe('Where it read amiss, choose what it is and touch it there.');
		// What was chosen last is touched on.
		expect(wall.what).toBe('none');
		wall.back();
		expect(wall.found).toBeNull();
		expect(wall.touches.none).toEqual([]);
		expect(wall.touched).toBe(2);
	});
	it('a brown root is no dead one until it was felt, and no living one either', async () => {
		const { by, wall } = begun();
		touchAll(wall);
		await by.answer(shown());
		expect(wall.sample).toBeNull();
		wall.felt = 'dead';
		expect(wall.sample).toEqual({ alive: 20, dead: 10 });
		wall.felt = 'alive';
		expect(wall.sample).toEqual({ alive: 30, dead: 0 });
		wall.felt = 'not-felt';
		wall.touch({ x: 9, y: 9 });
		await by.answer(shown({ sample: { white: 12, brown: 0 } }));
		expect(wall.sample).toEqual({ alive: 12, dead: 0 });
		wall.touch({ x: 8, y: 8 });
		await by.answer(shown({ sample: { white: 0, brown: 0 } }));
		expect(wall.sample).toBeNull();
	});
	it('keeps no sample of colours too alike, nor while it is read anew', async () => {
		const { by, wall } = begun();
		touchAll(wall);
		wall.felt = 'dead';
		await by.answer(shown({ mistaken: values['picture.wallMistakenMost'] + 0.01 }));
		expect(wall.sample).toBeNull();
		expect(wall.says).toContain('too alike to tell');
		wall.touch({ x: 9, y: 9 });
		await by.answer(shown({ mistaken: values['picture.wallMistakenMost'] }));
		expect(wall.sample).not.toBeNull();
		wall.what = 'edge';
		wall.touch({ x: 0, y: 0 });
		expect(wall.sample).toBeNull();
		await by.answer(shown());
		expect(wall.sample).not.toBeNull();
	});
	it('what was touched meanwhile is read, one reading at a time; the answer to what stands no more is left', async () => {
		const { by, wall } = begun();
		touchAll(wall);
		wall.what = 'white';
		wall.touch({ x: 4, y: 4 });
		wall.move('white', 1, { x: 5, y: 5 });
		expect(by.asked).toHaveLength(1);
		await by.answer(shown({ sample: { white: 1, brown: 1 } }));
		expect(wall.found).toBeNull();
		expect(by.asked[1]?.touches.white).toEqual([
			{ x: 1, y: 1 },
			{ x: 5, y: 5 }
		]);
		await by.answer(shown({ sample: { white: 7, brown: 3 } }));
		expect(wall.found?.sample.white).toBe(7);
		expect(by.asked).toHaveLength(2);
		// The edge goes along, and taken back it is gone.
		wall.what = 'edge';
		for (const x of [0, 10, 10]) wall.touch({ x, y: x });
		await by.answer(null);
		await by.answer(null);
		expect(by.asked.at(-1)?.edge).toHaveLength(3);
		expect(wall.says).toBe('Too little of the picture lies within this edge. Draw it round the wall.');
		wall.back();
		expect(wall.edge).toHaveLength(2);
	});
});
