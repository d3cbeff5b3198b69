import { describe, expect, it } from 'vitest';
import { aliveOf } from '$core/tree/lot';

describe('how many of a lot live', () => {
	const of = (plantCount: number, ...lost: (number | null)[]) =>
		aliveOf({ tree: { plantCount }, observations: lost.map((lostCount) => ({ lostCount })) });
	it('is what the last count of its dead leaves, however many looks came since without one', () => {
		expect([of(12), of(12, null), of(12, 1), of(12, 1, 3, null), of(12, 3, 2)]).toEqual([12, 12, 11, 9, 10]);
		expect(of(1)).toBe(1);
	});
	it('of which all are dead nothing is worked on: as many as came are told', () => {
		expect([of(12, 11), of(12, 12), of(1, 1)]).toEqual([1, 12, 1]);
	});
});
