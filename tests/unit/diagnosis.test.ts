import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { conditionIds } from '$core/diagnosis/conditions';
import { diagnose, type Finding } from '$core/diagnosis/diagnose';
import { noisyOr } from '$core/diagnosis/enumerate';
import { signIds } from '$core/diagnosis/signs';
import { situations } from '$core/tree/tree';
import { strengthOf } from '$core/values/diagnosis';
import { defaultValues, resolveValues } from '$core/values/values';

const findings = fc
	.uniqueArray(fc.constantFrom(...signIds), { maxLength: 7 })
	.chain((ids) =>
		fc.tuple(
			...ids.map((signId) =>
				fc.constantFrom<Finding['state']>('present', 'absent').map((state) => ({ signId, state }))
			)
		)
	);
const situation = fc.constantFrom(...situations);
const present = (...ids: Finding['signId'][]): Finding[] =>
	ids.map((signId) => ({ signId, state: 'present' }));
const chanceOf = (diagnosis: ReturnType<typeof diagnose>, id: string): number =>
	diagnosis.ranking.find((cause) => cause.conditionId === id)?.chance ?? NaN;

describe('diagnosis', () => {
	it('is a probability for every cause, whatever was found, in whatever order', () => {
		fc.assert(
			fc.property(situation, findings, (where, found) => {
				const diagnosis = diagnose(where, found, defaultValues);
				const turned = diagnose(where, [...found].reverse(), defaultValues);
				for (const cause of diagnosis.ranking) {
					expect(cause.chance).toBeGreaterThanOrEqual(0);
					expect(cause.chance).toBeLessThanOrEqual(1 + 1e-12);
					expect(chanceOf(turned, cause.conditionId)).toBeCloseTo(cause.chance, 9);
				}
			}),
			{ numRuns: 25 }
		);
	});

	it('leaves the priors alone when nothing was looked for', () => {
		for (const cause of diagnose('potted', [], defaultValues).ranking)
			expect(cause.chance).toBeCloseTo(cause.prior, 12);
	});

	it('equals plain enumeration over all subsets', () => {
		const found: Finding[] = [
			...present('sour-smell', 'stays-wet'),
			{ signId: 'sticky-leaves', state: 'absent' }
		];
		const sums = conditionIds.map(() => 0);
		let total = 0;
		for (let mask = 0; mask < 1 << conditionIds.length; mask++) {
			let weight = 1;
			for (const [i, id] of conditionIds.entries()) {
				const prior = defaultValues[`diagnosis.prior.${id}.potted`];
				weight *= mask & (1 << i) ? prior : 1 - prior;
			}
			for (const { signId, state } of found) {
				const seen = noisyOr(
					{
						leak: defaultValues[`diagnosis.leak.${signId}`],
						strengths: conditionIds.map((id) => strengthOf(defaultValues, signId, id))
					},
					mask
				);
				weight *= state === 'present' ? seen : 1 - seen;
			}
			total += weight;
			for (const i of conditionIds.keys()) if (mask & (1 << i)) sums[i] = (sums[i] ?? 0) + weight;
		}
		const diagnosis = diagnose('potted', found, defaultValues);
		for (const [i, id] of conditionIds.entries())
			expect(chanceOf(diagnosis, id)).toBeCloseTo((sums[i] ?? 0) / total, 10);
	});

	it('never lowers a cause by a sign that only that cause brings', () => {
		const before = chanceOf(diagnose('potted', present('wilts-wet'), defaultValues), 'low-light');
		const after = chanceOf(
			diagnose('potted', present('wilts-wet', 'long-bare-shoots'), defaultValues),
			'low-light'
		);
		expect(after).toBeGreaterThan(before);
	});

	it('tells rot from drought by what was found, and says why', () => {
		const rot = diagnose('potted', present('sour-smell', 'roots-dark-soft', 'wilts-wet'), defaultValues);
		expect(rot.ranking[0]?.conditionId).toBe('root-rot');
		expect(rot.ranking[0]?.reasons[0]?.signId).toBe('roots-dark-soft');
		expect(chanceOf(rot, 'drought')).toBeLessThan(0.2);
		const dry = diagnose(
			'potted',
			[...present('wilts-dry'), { signId: 'sour-smell', state: 'absent' }],
			defaultValues
		);
		expect(dry.ranking[0]?.conditionId).toBe('drought');
	});

	it('explains away: a known cause lowers its rival', () => {
		const alone = chanceOf(diagnose('potted', present('stays-wet'), defaultValues), 'sour-root-zone');
		const explained = chanceOf(
			diagnose('potted', present('stays-wet', 'much-empty-mix'), defaultValues),
			'sour-root-zone'
		);
		expect(explained).toBeLessThan(alone);
	});

	it('gives as pull the log-odds that vanish without the finding', () => {
		const found = present('no-flare', 'girdler-seen');
		const odds = (chance: number) => Math.log(chance / (1 - chance));
		const full = diagnose('in-ground', found, defaultValues);
		const without = diagnose('in-ground', present('girdler-seen'), defaultValues);
		const pull = full.ranking
			.find((c) => c.conditionId === 'buried-collar')
			?.reasons.find((r) => r.signId === 'no-flare')?.pull;
		expect(pull).toBeCloseTo(
			odds(chanceOf(full, 'buried-collar')) - odds(chanceOf(without, 'buried-collar')),
			9
		);
	});

	it('follows the owner’s own numbers', () => {
		const own = resolveValues({ 'diagnosis.prior.pest.potted': 0.9 });
		expect(chanceOf(diagnose('potted', [], own), 'pest')).toBeCloseTo(0.9, 12);
	});
});
