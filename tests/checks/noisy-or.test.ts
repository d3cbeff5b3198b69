import { describe, expect, it } from 'vitest';
import { marginals, noisyOr, presentLikelihood, priorWithAbsent, times } from '$core/diagnosis/enumerate';

describe('noisy-OR and exact enumeration', () => {
	/** Russell & Norvig, Artificial Intelligence, fever table: inhibition cold 0.6, flu 0.2, malaria 0.1. */
	const fever = { leak: 0, strengths: [1 - 0.6, 1 - 0.2, 1 - 0.1] };
	it.each([
		[0b111, 0.988],
		[0b011, 0.88],
		[0b101, 0.94],
		[0b110, 0.98],
		[0b001, 0.4],
		[0b000, 0]
	])('gives the fever table for causes %i', (causes, chance) => {
		expect(noisyOr(fever, causes)).toBeCloseTo(chance, 12);
	});

	/**
	 * Russell & Norvig, burglar alarm: P(burglary | both neighbours call) = 0.284. Burglary, earthquake and alarm are the
	 * three hidden causes, the alarm following from the other two; each call is an effect of the alarm alone.
	 */
	it('solves the burglar alarm network', () => {
		const [BURGLARY, EARTHQUAKE, ALARM] = [1, 2, 4];
		const alarm = (b: number, e: number): number => (b && e ? 0.95 : b ? 0.94 : e ? 0.29 : 0.001);
		let weights: Float64Array = Float64Array.from({ length: 8 }, (_, mask) => {
			const [b, e, a] = [mask & BURGLARY, mask & EARTHQUAKE, mask & ALARM];
			const rings = alarm(b, e);
			return (b ? 0.001 : 0.999) * (e ? 0.002 : 0.998) * (a ? rings : 1 - rings);
		});
		// P(call | alarm) and P(call | no alarm), written as leak and strength of a noisy-OR.
		const call = (given: number, leak: number) =>
			presentLikelihood({ leak, strengths: [0, 0, 1 - (1 - given) / (1 - leak)] });
		weights = times(times(weights, call(0.9, 0.05)), call(0.7, 0.01));
		expect(marginals(weights, 3)[0]).toBeCloseTo(0.284, 3);
	});

	it('splits what was not found exactly as plain enumeration does', () => {
		const chances = [0.2, 0.05, 0.4];
		const effect = { leak: 0.1, strengths: [0.7, 0.3, 0] };
		const quick = priorWithAbsent(chances, [effect]);
		for (let mask = 0; mask < 8; mask++) {
			const prior = chances.reduce(
				(product, chance, i) => product * (mask & (1 << i) ? chance : 1 - chance),
				1
			);
			expect(quick[mask]).toBeCloseTo(prior * (1 - noisyOr(effect, mask)), 12);
		}
	});

	it('finds the marginals of a hand-made distribution', () => {
		expect(marginals(Float64Array.from([1, 2, 3, 4]), 2)).toEqual([0.6, 0.7]);
	});
});
