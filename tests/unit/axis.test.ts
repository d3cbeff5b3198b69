import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { createFormat, type StoredUnit } from '$core/text/format';
import { roundMarks } from '$ui/axis';

const imperial = createFormat({ units: 'imperial', locale: 'en-US' });
const metric = createFormat({ units: 'metric', locale: 'en-GB' });

describe('marks of an axis', () => {
	it('are round where they are read: inches, feet of what is kept in mm, and degrees from freezing', () => {
		const read = (marks: number[], unit: StoredUnit, per = 1): number[] =>
			marks.map((mark) => Math.round(imperial.unitOf(unit).toShown(mark / per) * 1e6) / 1e6);
		expect(read(roundMarks([0, 300], 'mm', imperial, 6), 'mm')).toEqual([0, 2, 4, 6, 8, 10]);
		expect(read(roundMarks([2000, 3200], 'm', imperial, 5, 1000), 'm', 1000)).toEqual([7, 8, 9, 10]);
		expect(read(roundMarks([-3, 9], '°C', imperial, 5), '°C')).toEqual([27, 32, 37, 42, 47]);
		expect(roundMarks([0, 300], 'mm', metric, 6)).toEqual([0, 50, 100, 150, 200, 250, 300]);
		// An axis that falls has the same marks.
		expect(roundMarks([300, 0], 'mm', metric, 6)).toEqual(roundMarks([0, 300], 'mm', metric, 6));
	});
	it('lie within what is drawn, rising, and freezing is among them where it is', () => {
		fc.assert(
			fc.property(
				fc.integer({ min: -40, max: 10 }),
				fc.integer({ min: 5, max: 60 }),
				fc.constantFrom(imperial, metric),
				(first, wide, format) => {
					const marks = roundMarks([first, first + wide], '°C', format, 6);
					expect(marks.length).toBeGreaterThan(1);
					expect([...marks].sort((a, b) => a - b)).toEqual(marks);
					for (const mark of marks) {
						expect(mark).toBeGreaterThanOrEqual(first - 1e-9);
						expect(mark).toBeLessThanOrEqual(first + wide + 1e-9);
					}
					if (first <= 0 && first + wide >= 0)
						expect(Math.min(...marks.map((mark) => Math.abs(mark)))).toBeLessThan(1e-9);
				}
			)
		);
	});
});
