import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { crossSectionMm2, potVolumeL, type Pot } from '$core/replant/pots/volume';

const pot = (
	shape: Pot['shape'],
	top: [number, number],
	bottom: [number, number],
	heightMm: number
): Pot => ({
	shape,
	topLengthMm: top[0],
	topWidthMm: top[1],
	bottomLengthMm: bottom[0],
	bottomWidthMm: bottom[1],
	heightMm
});

describe('pot volumes', () => {
	it('gives 14.37 L for the round frustum 30/24 × 25 cm (π h/12 (D₁² + D₁D₂ + D₂²))', () => {
		expect(potVolumeL(pot('round', [300, 300], [240, 240], 250))).toBeCloseTo(14.37, 2);
	});

	it('agrees with closed forms of the other shapes (solid geometry)', () => {
		const cylinder = potVolumeL(pot('round', [200, 200], [200, 200], 100));
		expect(cylinder).toBeCloseTo((Math.PI * 100 ** 2 * 100) / 1e6, 9);
		expect(potVolumeL(pot('box', [400, 300], [100, 100], 200))).toBeCloseTo(24, 9);
		// Prismoid: h/3 (ab + cd + (ad + bc)/2), here with top a × b and floor c × d.
		const prismoid = (200 / 3) * (400 * 300 + 300 * 200 + (400 * 200 + 300 * 300) / 2);
		expect(potVolumeL(pot('rectangle', [400, 300], [300, 200], 200))).toBeCloseTo(prismoid / 1e6, 9);
		const oval = potVolumeL(pot('oval', [400, 300], [300, 200], 200));
		expect(oval).toBeCloseTo(((prismoid / 1e6) * Math.PI) / 4, 9);
	});

	it('adds up however it is sliced, and agrees with slicing it thinly', () => {
		fc.assert(
			fc.property(
				fc.constantFrom('round', 'rectangle', 'oval', 'box'),
				fc.integer({ min: 60, max: 900 }),
				fc.integer({ min: 60, max: 900 }),
				fc.double({ min: 0.4, max: 1.2, noNaN: true }),
				fc.integer({ min: 40, max: 600 }),
				fc.double({ min: 0, max: 1, noNaN: true }),
				(shape, length, width, taper, heightMm, cut) => {
					const made = pot(shape as Pot['shape'], [length, width], [length * taper, width * taper], heightMm);
					const at = heightMm * cut;
					const whole = potVolumeL(made);
					expect(potVolumeL(made, 0, at) + potVolumeL(made, at)).toBeCloseTo(whole, 6);
					const slices = 400;
					let sum = 0;
					for (let i = 0; i < slices; i++) sum += crossSectionMm2(made, ((i + 0.5) * heightMm) / slices);
					expect((sum * heightMm) / slices / 1e6 / whole).toBeCloseTo(1, 4);
				}
			),
			{ numRuns: 100 }
		);
	});
});
