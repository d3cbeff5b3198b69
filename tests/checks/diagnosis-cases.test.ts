import { describe, expect, it } from 'vitest';
import { diagnose, type Diagnosis } from '$core/examine/diagnosis/diagnose';
import type { SignId } from '$core/vocabulary/signs';
import { defaultValues } from '$core/values/values';
import { writtenCases, type WrittenCase } from './diagnosis-cases';

const judged = ({ situation, group, season, events, found }: WrittenCase): Diagnosis =>
	diagnose(
		{ situation, group, season, events: events ?? [] },
		Object.entries(found).map(([signId, grade]) => ({ signId: signId as SignId, grade })),
		defaultValues
	);

/** Our own judgement, no source. A third of the cases was kept aside while the numbers were set. */
describe('written cases', () => {
	it('are two dozen or more, a third of them aside', () => {
		expect(writtenCases.length).toBeGreaterThanOrEqual(24);
		expect(writtenCases.filter((written) => written.aside).length).toBeGreaterThanOrEqual(
			Math.floor(writtenCases.length / 3)
		);
	});

	it.each(writtenCases.map((written) => [written.title, written] as const))('%s', (_, written) => {
		const { ranking } = judged(written);
		expect(written.accepted).toContain(ranking[0]?.conditionId);
		for (const id of written.also ?? [])
			expect(ranking.find((cause) => cause.conditionId === id)?.chance, id).toBeGreaterThan(0.5);
	});
});
