import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { advise } from '$core/examine/diagnosis/advice';
import type { StandingToday } from '$core/examine/diagnosis/act-now';
import { conditionIds, conditionOf, contradiction, type ConditionId } from '$core/vocabulary/conditions';
import { recentEvents, seasonPhases } from '$core/vocabulary/season-and-events';
import { type DiagnosisContext } from '$core/examine/diagnosis/context';
import { diagnose } from '$core/examine/diagnosis/diagnose';
import { nextChecks } from '$core/examine/diagnosis/next-check';
import {
	firstLookOf,
	signApplies,
	signIds,
	signOf,
	signShows,
	topGrade,
	type SignId
} from '$core/vocabulary/signs';
import { groups } from '$core/vocabulary/kind';
import { situations } from '$core/vocabulary/words';
import { defaultValues as values } from '$core/values/values';
import { edgeCases, nextCheckCases } from './diagnosis-edges';

// The same cases every time: what fails, fails for everybody.
fc.configureGlobal({ seed: 20260814 });

const contextOf = (change: Partial<DiagnosisContext>): DiagnosisContext => ({
	situation: 'potted',
	group: 'deciduous',
	season: 'summer',
	events: [],
	...change
});
const listed = (found: Partial<Record<SignId, number>>) =>
	Object.entries(found).map(([signId, grade]) => ({ signId: signId as SignId, grade }));
const standing: StandingToday = {
	seasonFit: 'out-of-window',
	vigour: 'fair',
	windowOn: '2026-11-01',
	monthsToWindow: 4,
	failingFast: false,
	girdledOverThird: false
};
const adviceOf = (change: Partial<DiagnosisContext>, found: Partial<Record<SignId, number>>) => {
	const context = contextOf(change);
	const findings = listed(found);
	return advise(diagnose(context, findings, values), context, findings, standing, values);
};

describe('causes at the edges', () => {
	it.each(edgeCases.map((one) => [one.title, one] as const))(
		'%s',
		(_, { context, found, leads, under, over }) => {
			const { ranking } = diagnose(contextOf(context), listed(found), values);
			const chance = (id: string): number => ranking.find((cause) => cause.conditionId === id)?.chance ?? NaN;
			if (leads) expect(ranking[0]?.conditionId).toBe(leads);
			for (const [id, most] of Object.entries(under ?? {})) expect(chance(id), id).toBeLessThan(most);
			for (const [id, least] of Object.entries(over ?? {})) expect(chance(id), id).toBeGreaterThan(least);
		}
	);

	it('a healthy tree ends in nothing found, with what was not looked at', () => {
		const first = firstLookOf(contextOf({}));
		const looked = first.slice(0, 7);
		const found = Object.fromEntries([...looked, 'solid-mat'].map((id) => [id, 0]));
		const healthy = diagnose(contextOf({}), listed(found), values);
		expect(healthy.nothingFound).toBe(true);
		expect(healthy.notLookedAt).toEqual([first[7]]);
		// One sign seen, or too little looked for, and it is not said.
		expect(diagnose(contextOf({}), listed({ ...found, 'sour-smell': 1 }), values).nothingFound).toBe(false);
		expect(diagnose(contextOf({}), listed({ 'sour-smell': 0, 'pot-light': 0 }), values).nothingFound).toBe(
			false
		);
	});
});

const anyContext = fc.record({
	situation: fc.constantFrom(...situations),
	group: fc.constantFrom(...groups),
	season: fc.constantFrom(...seasonPhases),
	events: fc.subarray([...recentEvents])
});
const anyFindings = fc
	.uniqueArray(fc.constantFrom(...signIds), { maxLength: 8 })
	.chain((ids) =>
		fc.tuple(
			...ids.map((signId) =>
				fc.integer({ min: 0, max: topGrade(signId) }).map((grade) => ({ signId, grade }))
			)
		)
	);

describe('what to do', () => {
	it('no two treatments that stand contradict, and what is held back says by what and about what', () => {
		fc.assert(
			fc.property(anyContext, anyFindings, (context, findings) => {
				const { causes } = advise(diagnose(context, findings, values), context, findings, standing, values);
				const acted = causes.filter((one) => one.verdict === 'now');
				for (const a of acted)
					for (const b of acted) expect(contradiction(a.conditionId, b.conditionId)).toBeNull();
				for (const one of causes) {
					if (one.verdict === 'held') expect([one.heldBy !== null, one.about !== null]).toEqual([true, true]);
					if (one.heldBy) {
						const by = causes.find((other) => other.conditionId === one.heldBy);
						expect(by?.chance ?? 0).toBeGreaterThanOrEqual(one.chance);
						expect(contradiction(one.conditionId, one.heldBy)).toBe(one.about);
					}
				}
			}),
			{ numRuns: 40 }
		);
	}, 60_000);

	it('nothing is acted on that this tree’s own findings did not raise, and a quick check comes first', () => {
		fc.assert(
			fc.property(anyContext, anyFindings, (context, findings) => {
				const diagnosis = diagnose(context, findings, values);
				const { causes } = advise(diagnosis, context, findings, standing, values);
				for (const one of causes) {
					const { prior } = diagnosis.ranking.find((cause) => cause.conditionId === one.conditionId) ?? {
						prior: 0
					};
					if (one.verdict === 'now' || one.verdict === 'check') expect(one.chance).toBeGreaterThan(prior);
					if (one.verdict === 'check' && one.check) {
						expect(values[`diagnosis.minutes.${one.check}`]).toBeLessThanOrEqual(
							values['diagnosis.quick-minutes']
						);
						expect(findings.some((finding) => finding.signId === one.check)).toBe(false);
					}
					if (conditionOf(one.conditionId).untreatable) expect(one.verdict).toBe('look');
				}
			}),
			{ numRuns: 40 }
		);
	}, 60_000);

	it('one sign, some leaf drop, is no reason to act on anything', () => {
		expect(adviceOf({}, { 'leaf-drop': 1 }).causes.filter((one) => one.verdict === 'now')).toEqual([]);
	});
	it('with nothing found nothing is acted on', () => {
		for (const situation of situations)
			expect(
				adviceOf({ situation }, {}).causes.every((one) => one.verdict !== 'now' && one.verdict !== 'check')
			).toBe(true);
	});
	it('likely rot is acted on once the smell was smelt; water and no water never stand together', () => {
		const rot = adviceOf({}, { 'roots-dark-soft': 1, 'sour-smell': 2, 'stays-wet': 2 });
		expect(rot.causes.find((one) => one.conditionId === 'root-rot')?.verdict).toBe('now');
		const asked = rot.causes
			.filter((one) => one.verdict === 'now')
			.map((one) => conditionOf(one.conditionId).asks?.water);
		expect(asked).not.toContain('more');
	});
	it('gas is danger to people, said first; no check is asked for before leaving', () => {
		const gas = adviceOf({ situation: 'in-ground' }, { 'gas-smell': 1 });
		expect(gas.danger[0]).toMatch(/People first: leave/);
		expect(gas.causes.find((one) => one.conditionId === 'soil-gas')?.check).toBeNull();
		// Not of a pot, and not because something smells sour.
		for (const situation of situations)
			expect(adviceOf({ situation }, { 'sour-smell': 2, 'wilts-wet': 1 }).danger, situation).toEqual([]);
		expect(adviceOf({ situation: 'in-ground' }, { 'crown-thin': 0 }).danger).toEqual([]);
	});
	it('drought and a sour root zone ask the opposite about water; a rule for every pair is its own mirror', () => {
		expect(contradiction('drought', 'sour-root-zone')).toBe('about water');
		for (const a of conditionIds) {
			expect(contradiction(a, a)).toBeNull();
			for (const b of conditionIds) expect(contradiction(a, b)).toBe(contradiction(b, a));
		}
	});
});

describe('the next check', () => {
	it('twelve situations or more, a third aside', () => {
		expect(nextCheckCases.length).toBeGreaterThanOrEqual(12);
		expect(nextCheckCases.filter((one) => one.aside).length).toBeGreaterThanOrEqual(
			Math.floor(nextCheckCases.length / 3)
		);
	});
	it.each(nextCheckCases.map((one) => [one.title, one] as const))(
		'%s',
		(_, { context, found, wanted, atLeast, notFirst }) => {
			const { checks } = nextChecks(contextOf(context), listed(found), standing, values);
			const first = checks.slice(0, 3).flatMap((check) => check.signIds);
			expect(first.filter((id) => wanted.includes(id)).length, first.join(', ')).toBeGreaterThanOrEqual(
				atLeast ?? 1
			);
			for (const id of notFirst ?? []) expect(checks[0]?.signIds).not.toContain(id);
		}
	);
	it('asks nothing of leaves where there are none', () => {
		for (const [context, found] of [
			[{ season: 'rest' }, {}],
			[{}, { 'no-green-bark': 2 }],
			[{}, { 'twigs-snap': 1 }],
			[{}, { 'dieback-hollow': 3 }]
		] as const)
			for (const check of nextChecks(contextOf(context), listed(found), standing, values).checks)
				for (const id of check.signIds) expect(signOf(id).needsLeaf ?? false, id).toBe(false);
		// An evergreen in winter has them.
		expect(signShows('windward-burn', { situation: 'potted', group: 'conifer', season: 'rest' })).toBe(true);
		expect(signApplies('holes-blocked', 'in-ground')).toBe(false);
	});
	it('counts a cause by what acting on it saves: of two alike, the deadlier is asked after first', () => {
		const context = contextOf({});
		const worthBy = (own: Record<string, number>): number =>
			nextChecks(context, listed({ 'stays-wet': 2 }), standing, { ...values, ...own }).checks.find((check) =>
				check.signIds.includes('sour-smell')
			)?.worth ?? 0;
		const loss: ConditionId = 'root-rot';
		expect(worthBy({ [`diagnosis.loss.${loss}`]: 0.6 })).toBeGreaterThan(worthBy({}));
	});
});
