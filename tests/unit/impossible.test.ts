import { describe, expect, it } from 'vitest';
import { calculationByName } from '$core/compute/calculations';
import { impossibleCore, impossibleIn, impossibleWeighing } from '$core/examine/measuring/impossible';
import { defaultValues } from '$core/values/values';

describe('readings that cannot be', () => {
	it('a pot heavier than full, by more than the scale errs', () => {
		const weighing = { fullKg: 10, nowKg: 10.4, neighbours: [] };
		expect(impossibleWeighing(weighing)).toBeNull();
		expect(impossibleWeighing({ ...weighing, nowKg: 10.6 })?.path).toBe('nowKg');
		expect(impossibleWeighing({ ...weighing, neighbours: [{ name: 'n', fullKg: 4, nowKg: 6 }] })?.path).toBe(
			'neighbours.0.nowKg'
		);
	});
	it('a core that holds more water than it has pores: 127 % of its volume', () => {
		// 100 ml of ring, 130 g dry: pores of 100 − 130 / 2.65 = 50.9 ml.
		expect(impossibleCore({ ringMl: 100, dryG: 130, freshG: 180 })).toBeNull();
		expect(impossibleCore({ ringMl: 100, dryG: 130, freshG: 257 })?.message).toMatch(/51 ml/);
		expect(impossibleCore({ ringMl: 100, dryG: 130, freshG: null })).toBeNull();
	});
	it('are refused by field, alone and in a reading', () => {
		const core = { fromMm: 0, toMm: 50, ringMl: 100, dryG: 130, freshG: 257 };
		expect(impossibleIn({ tool: 'soil-cores', texture: 'loam', cores: [core] })?.path).toBe('cores.0.freshG');
		const refused = (name: string, body: object): string[] => {
			const found = calculationByName.get(name)?.input.safeParse(body);
			return found?.error?.issues.map((issue) => issue.path.join('.')) ?? [];
		};
		expect(refused('soil-cores', { texture: 'loam', cores: [core] })).toContain('cores.0.freshG');
		const weighing = { wateredOn: '2026-04-10', fullKg: 10, nowKg: 12, on: '2026-04-12' };
		expect(refused('pot-weighing', weighing)).toContain('nowKg');
		expect(refused('pot-weighing', { ...weighing, nowKg: 9, on: '2026-04-01' })).toContain('wateredOn');
		expect(refused('pot-weighing', { ...weighing, nowKg: 9 })).toEqual([]);
		expect(defaultValues['triage.person-kg']).toBeGreaterThan(0);
	});
});
