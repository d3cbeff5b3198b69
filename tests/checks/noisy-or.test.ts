import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
	absenceOf,
	chancesOf,
	combinations,
	difference,
	noisyOr,
	posterior,
	sumsOf,
	type NoisyOr,
	type Observed,
	type World
} from '$core/examine/diagnosis/enumerate';

// The same networks every time: what fails, fails for everybody.
fc.configureGlobal({ seed: 19890801 });

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
		const alarm = (b: number, e: number): number => (b && e ? 0.95 : b ? 0.94 : e ? 0.29 : 0.001);
		// One world for each way of burglary and earthquake; the alarm is a cause with its chance in each.
		const worlds = [0, 1].flatMap((b) =>
			[0, 1].map((e) => ({
				weight: (b ? 0.001 : 0.999) * (e ? 0.002 : 0.998),
				priors: [b, e, alarm(b, e)]
			}))
		);
		// P(call | alarm) and P(call | no alarm), written as leak and strength of a noisy-OR.
		const call = (given: number, leak: number) => ({
			reached: { leak, strengths: [0, 0, 1 - (1 - given) / (1 - leak)] },
			missed: null
		});
		const result = posterior(worlds, [call(0.9, 0.05), call(0.7, 0.01)]);
		expect(result.chances[0]).toBeCloseTo(0.284, 3);
		// P(burglary | John calls) alone is 0.016 in the same source.
		expect(result.without()[1]?.[0]).toBeCloseTo(0.016, 3);
		// P(both call) over the whole network, worked by hand from the same tables: 0.002084.
		expect(result.evidence).toBeCloseTo(0.002084, 6);
	});

	// Sums of signed products lose digits where the evidence is tiny: with leaks from a twentieth on, six are left.
	const chance = fc.double({ min: 0.05, max: 0.95, noNaN: true });
	/** An observation of an effect in up to three grades, higher grades never likelier than lower ones. */
	const graded = (n: number): fc.Arbitrary<Observed> =>
		fc
			.record({
				inWorld: fc.array(fc.double({ min: 0.4, max: 1, noNaN: true }), { minLength: 3, maxLength: 3 }),
				first: fc.record({
					leak: chance,
					strengths: fc.array(
						fc.oneof({ weight: 3, arbitrary: fc.constant(0) }, { weight: 2, arbitrary: chance }),
						{
							minLength: n,
							maxLength: n
						}
					)
				}),
				lower: fc.double({ min: 0.1, max: 0.9, noNaN: true }),
				grade: fc.constantFrom(0, 1, 2)
			})
			.map(({ first: bare, inWorld, lower, grade }) => {
				// Some worlds hide the effect: opposites.
				const first: NoisyOr = { ...bare, inWorld };
				const second: NoisyOr = {
					inWorld,
					leak: first.leak * lower,
					strengths: first.strengths.map((strength) => strength * lower)
				};
				return grade === 0
					? { reached: null, missed: first }
					: grade === 1
						? { reached: first, missed: second }
						: { reached: second, missed: null };
			});
	/** One to three worlds; in each an effect may show less. */
	const network = fc
		.record({ n: fc.integer({ min: 2, max: 9 }), k: fc.integer({ min: 1, max: 3 }) })
		.chain(({ n, k }) =>
			fc.record({
				worlds: fc
					.array(fc.record({ weight: chance, priors: fc.array(chance, { minLength: n, maxLength: n }) }), {
						minLength: k,
						maxLength: k
					})
					.map((list) => {
						const sum = list.reduce((total, { weight }) => total + weight, 0);
						return list.map((world) => ({ ...world, weight: world.weight / sum }));
					}),
				observed: fc.array(graded(n), { maxLength: 5 }),
				further: graded(n)
			})
		);
	const likelihood = ({ reached, missed }: Observed, mask: number, world: number): number =>
		(reached ? noisyOr(reached, mask, world) : 1) - (missed ? noisyOr(missed, mask, world) : 0);
	function plain(worlds: readonly World[], observed: readonly Observed[]) {
		const sums = (worlds[0]?.priors ?? []).map(() => 0);
		let total = 0;
		for (const [world, { weight: chanceOf, priors }] of worlds.entries())
			for (let mask = 0; mask < 1 << priors.length; mask++) {
				let weight = priors.reduce((product, p, i) => product * (mask & (1 << i) ? p : 1 - p), chanceOf);
				for (const entry of observed) weight *= likelihood(entry, mask, world);
				total += weight;
				for (const i of priors.keys()) if (mask & (1 << i)) sums[i] = (sums[i] ?? 0) + weight;
			}
		return { evidence: total, chances: sums.map((sum) => sum / total) };
	}
	const close = (a: readonly number[], b: readonly number[]) =>
		a.forEach((value, i) => expect(value).toBeCloseTo(b[i] ?? NaN, 6));

	it('agrees with plain enumeration on random small networks, with and without each observation', () => {
		fc.assert(
			fc.property(network, ({ worlds, observed }) => {
				const result = posterior(worlds, observed);
				const brute = plain(worlds, observed);
				close(result.chances, brute.chances);
				expect(result.evidence / brute.evidence).toBeCloseTo(1, 6);
				for (const [index, chances] of result.without().entries())
					close(
						chances,
						plain(
							worlds,
							observed.filter((_, other) => other !== index)
						).chances
					);
			}),
			{ numRuns: 60 }
		);
	});

	it('agrees with plain enumeration on what a further observation would bring', () => {
		fc.assert(
			fc.property(network, ({ worlds, observed, further }) => {
				const result = posterior(worlds, observed);
				const whole = sumsOf(result);
				const upTo = further.missed ? sumsOf(result, absenceOf(further.missed, worlds.length)) : whole;
				const sums = further.reached
					? difference(upTo, sumsOf(result, absenceOf(further.reached, worlds.length)))
					: upTo;
				const brute = plain(worlds, [...observed, further]);
				const before = plain(worlds, observed);
				expect(sums.total).toBeCloseTo(brute.evidence / before.evidence, 6);
				if (sums.total > 1e-4) close(chancesOf(sums), brute.chances);
			}),
			{ numRuns: 60 }
		);
	});

	it('of causes that nothing found speaks of, it leaves the chance as it was, however many they are', () => {
		const priors = Array.from({ length: 28 }, (_, i) => 0.02 + 0.005 * i);
		const some = { leak: 0.1, strengths: priors.map((_, i) => (i < 3 ? 0.7 : 0)) };
		const result = posterior([{ weight: 1, priors }], [{ reached: some, missed: null }]);
		for (let i = 3; i < 28; i++) expect(result.chances[i]).toBeCloseTo(priors[i] ?? 0, 12);
		expect(result.chances[0]).toBeGreaterThan(priors[0] ?? 1);
	});

	it('sums combinations to one, and orders them', () => {
		fc.assert(
			fc.property(network, ({ worlds, observed }) => {
				const result = posterior(worlds, observed);
				const causes = [...(worlds[0]?.priors.keys() ?? [])].slice(0, 6);
				const all = combinations(result, causes, 1 << causes.length);
				expect(all.reduce((sum, one) => sum + one.chance, 0)).toBeCloseTo(1, 6);
				const two = combinations(result, [0, 1], 4);
				const first = two
					.filter(({ causes: set }) => set.includes(0))
					.reduce((sum, one) => sum + one.chance, 0);
				expect(first).toBeCloseTo(result.chances[0] ?? NaN, 6);
				for (let i = 1; i < two.length; i++)
					expect(two[i]?.chance).toBeLessThanOrEqual(two[i - 1]?.chance ?? 0);
			}),
			{ numRuns: 30 }
		);
	});
});
