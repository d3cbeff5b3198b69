import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
	absenceOf,
	chancesOf,
	combinations,
	difference,
	independentPrior,
	noisyOr,
	posterior,
	sumsOf,
	withoutEach,
	type NoisyOr,
	type Observed
} from '$core/diagnosis/enumerate';

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
			reached: { leak, strengths: [0, 0, 1 - (1 - given) / (1 - leak)] },
			missed: null
		});
		const result = posterior(prior, 3, [call(0.9, 0.05), call(0.7, 0.01)]);
		expect(result.chances[0]).toBeCloseTo(0.284, 3);
		// P(burglary | John calls) alone is 0.016 in the same source.
		expect(withoutEach(result)[1]?.[0]).toBeCloseTo(0.016, 3);
		// P(both call) over the whole network, worked by hand from the same tables: 0.002084.
		expect(result.evidence).toBeCloseTo(0.002084, 6);
	});

	const chance = fc.double({ min: 0.01, max: 0.95, noNaN: true });
	/** An observation of an effect in up to three grades, higher grades never likelier than lower ones. */
	const graded = (n: number): fc.Arbitrary<Observed> =>
		fc
			.record({
				first: fc.record({
					leak: chance,
					strengths: fc.array(fc.oneof(fc.constant(0), chance), { minLength: n, maxLength: n })
				}),
				lower: fc.double({ min: 0.1, max: 0.9, noNaN: true }),
				grade: fc.constantFrom(0, 1, 2)
			})
			.map(({ first, lower, grade }) => {
				const second: NoisyOr = {
					leak: first.leak * lower,
					strengths: first.strengths.map((strength) => strength * lower)
				};
				return grade === 0
					? { reached: null, missed: first }
					: grade === 1
						? { reached: first, missed: second }
						: { reached: second, missed: null };
			});
	const network = fc.integer({ min: 2, max: 10 }).chain((n) =>
		fc.record({
			priors: fc.array(chance, { minLength: n, maxLength: n }),
			observed: fc.array(graded(n), { maxLength: 5 }),
			further: graded(n)
		})
	);
	const likelihood = ({ reached, missed }: Observed, mask: number): number =>
		(reached ? noisyOr(reached, mask) : 1) - (missed ? noisyOr(missed, mask) : 0);
	function plain(priors: number[], observed: readonly Observed[]) {
		const sums = priors.map(() => 0);
		let total = 0;
		for (let mask = 0; mask < 1 << priors.length; mask++) {
			let weight = priors.reduce((product, p, i) => product * (mask & (1 << i) ? p : 1 - p), 1);
			for (const entry of observed) weight *= likelihood(entry, mask);
			total += weight;
			for (const i of priors.keys()) if (mask & (1 << i)) sums[i] = (sums[i] ?? 0) + weight;
		}
		return { evidence: total, chances: sums.map((sum) => sum / total) };
	}
	const close = (a: readonly number[], b: readonly number[]) =>
		a.forEach((value, i) => expect(value).toBeCloseTo(b[i] ?? NaN, 8));

	it('agrees with plain enumeration on random small networks, with and without each observation', () => {
		fc.assert(
			fc.property(network, ({ priors, observed }) => {
				const result = posterior(independentPrior(priors), priors.length, observed);
				const brute = plain(priors, observed);
				close(result.chances, brute.chances);
				expect(result.evidence / brute.evidence).toBeCloseTo(1, 8);
				for (const [index, chances] of withoutEach(result).entries())
					close(
						chances,
						plain(
							priors,
							observed.filter((_, other) => other !== index)
						).chances
					);
			}),
			{ numRuns: 60 }
		);
	});

	it('agrees with plain enumeration on what a further observation would bring', () => {
		fc.assert(
			fc.property(network, ({ priors, observed, further }) => {
				const result = posterior(independentPrior(priors), priors.length, observed);
				const whole = sumsOf(result);
				const upTo = further.missed ? sumsOf(result, absenceOf(further.missed)) : whole;
				const sums = further.reached ? difference(upTo, sumsOf(result, absenceOf(further.reached))) : upTo;
				const brute = plain(priors, [...observed, further]);
				const before = plain(priors, observed);
				expect(sums.total).toBeCloseTo(brute.evidence / before.evidence, 8);
				if (sums.total > 1e-4) close(chancesOf(sums), brute.chances);
			}),
			{ numRuns: 60 }
		);
	});

	it('sums combinations to one, and orders them', () => {
		fc.assert(
			fc.property(network, ({ priors, observed }) => {
				const result = posterior(independentPrior(priors), priors.length, observed);
				const all = combinations(result, (1 << priors.length) - 1, 1 << priors.length);
				expect(all.reduce((sum, one) => sum + one.chance, 0)).toBeCloseTo(1, 8);
				const two = combinations(result, 0b11, 4);
				const first = two.filter(({ causes }) => causes & 1).reduce((sum, one) => sum + one.chance, 0);
				expect(first).toBeCloseTo(result.chances[0] ?? NaN, 8);
				for (let i = 1; i < two.length; i++)
					expect(two[i]?.chance).toBeLessThanOrEqual(two[i - 1]?.chance ?? 0);
			}),
			{ numRuns: 30 }
		);
	});
});
