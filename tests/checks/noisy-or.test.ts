import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { independentPrior, infer, noisyOr } from '$core/diagnosis/enumerate';

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
		const prior = Float64Array.from({ length: 8 }, (_, mask) => {
			const [b, e, a] = [mask & BURGLARY, mask & EARTHQUAKE, mask & ALARM];
			const rings = alarm(b, e);
			return (b ? 0.001 : 0.999) * (e ? 0.002 : 0.998) * (a ? rings : 1 - rings);
		});
		// P(call | alarm) and P(call | no alarm), written as leak and strength of a noisy-OR.
		const call = (given: number, leak: number) => ({
			effect: { leak, strengths: [0, 0, 1 - (1 - given) / (1 - leak)] },
			present: true
		});
		const { chances, without } = infer(prior, 3, [call(0.9, 0.05), call(0.7, 0.01)]);
		expect(chances[0]).toBeCloseTo(0.284, 3);
		// P(burglary | John calls) alone is 0.016 in the same source.
		expect(without[1]?.[0]).toBeCloseTo(0.016, 3);
	});

	it('agrees with plain enumeration on random small networks, with and without each observation', () => {
		const chance = fc.double({ min: 0.01, max: 0.95, noNaN: true });
		const network = fc.integer({ min: 2, max: 5 }).chain((n) =>
			fc.record({
				priors: fc.array(chance, { minLength: n, maxLength: n }),
				observed: fc.array(
					fc.record({
						present: fc.boolean(),
						effect: fc.record({ leak: chance, strengths: fc.array(chance, { minLength: n, maxLength: n }) })
					}),
					{ maxLength: 5 }
				)
			})
		);
		fc.assert(
			fc.property(network, ({ priors, observed }) => {
				const plain = (list: typeof observed): number[] => {
					const sums = priors.map(() => 0);
					let total = 0;
					for (let mask = 0; mask < 1 << priors.length; mask++) {
						let weight = priors.reduce((product, p, i) => product * (mask & (1 << i) ? p : 1 - p), 1);
						for (const { effect, present } of list)
							weight *= present ? noisyOr(effect, mask) : 1 - noisyOr(effect, mask);
						total += weight;
						for (const i of priors.keys()) if (mask & (1 << i)) sums[i] = (sums[i] ?? 0) + weight;
					}
					return sums.map((sum) => sum / total);
				};
				const inferred = infer(independentPrior(priors), priors.length, observed);
				const close = (a: number[], b: number[]) =>
					a.forEach((value, i) => expect(value).toBeCloseTo(b[i] ?? NaN, 9));
				close(inferred.chances, plain(observed));
				for (const [index, chances] of inferred.without.entries())
					close(chances, plain(observed.filter((_, other) => other !== index)));
			}),
			{ numRuns: 60 }
		);
	});
});
