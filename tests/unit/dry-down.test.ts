import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { fullPot, potDay } from '$core/replant/pots/balance';
import { dryDown, steadyDays } from '$core/replant/pots/dry-down';
import { defaultValues as values } from '$core/values/values';

/** Days until a pot wants water, against the same balance walked day by day. */

const stores = { rootedMostL: 2, unrootedMostL: 3, surfaceM2: 0.12, crownM2: 0.5 };
const stepsTo = (
	trigger: number,
	et0Mm: number,
	roots: number
): [before: number, after: number, days: number] => {
	let [water, dryness] = [fullPot(stores), 0];
	for (let i = 0; i < 400; i++) {
		const day = potDay(
			water,
			stores,
			{ day: { on: '', et0Mm, rainMm: 0 }, rootFunction: roots, inLeaf: true, irrigationL: 0 },
			values
		);
		if (day.dryness >= trigger) return [dryness, day.dryness, i];
		[water, dryness] = [day.water, day.dryness];
	}
	return [dryness, dryness, 400];
};

describe('days until a pot is as dry as it is watered at', () => {
	it('lie within the day that passes it, as far into it as the dryness has to go', () => {
		fc.assert(
			fc.property(
				fc.double({ min: 0.2, max: 0.8, noNaN: true }),
				fc.double({ min: 1.5, max: 7, noNaN: true }),
				fc.double({ min: 0.4, max: 1, noNaN: true }),
				(trigger, et0Mm, roots) => {
					const [before, after, whole] = stepsTo(trigger, et0Mm, roots);
					const days = dryDown(stores, steadyDays({ et0Mm, inLeaf: true }), trigger, roots, values);
					expect(days).toBeCloseTo(whole + (trigger - before) / (after - before), 9);
				}
			)
		);
	});

	it('go on at the pace so far where the days given do not reach, and never come where nothing is drawn', () => {
		const day = { et0Mm: 1, inLeaf: true };
		const [first] = stepsTo(1, 1, 1);
		expect(first).toBeGreaterThan(0);
		const one = potDay(
			fullPot(stores),
			stores,
			{ day: { on: '', et0Mm: 1, rainMm: 0 }, rootFunction: 1, inLeaf: true, irrigationL: 0 },
			values
		).dryness;
		expect(dryDown(stores, [day], 0.5, 1, values)).toBeCloseTo(0.5 / one, 9);
		expect(dryDown(stores, steadyDays({ et0Mm: 0, inLeaf: true }), 0.5, 1, values)).toBe(Infinity);
	});
});
