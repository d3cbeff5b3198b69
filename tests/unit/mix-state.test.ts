import { describe, expect, it } from 'vitest';
import { againstRange, mixRanges } from '$core/replant/mixes/ranges';
import { componentIds } from '$core/replant/mixes/components';
import { stockItemSchema } from '$core/replant/kit/stock';
import { defaultValues as values } from '$core/values/values';
import { MixState } from '$views/replant/mix-state.svelte';
import { ReplantState, type ReplantOf } from '$views/replant/replant-state.svelte';
import { plantingOn, replantOf, treeRecords, yardMix } from '../records';

const item = (name: string, change: object = {}) =>
	stockItemSchema.parse({
		id: name,
		version: 1,
		item: name,
		packSize: 20,
		packs: 1,
		opened: 5,
		note: '',
		...change
	});
const of = (change: Partial<ReplantOf> = {}): ReplantOf =>
	replantOf({
		stock: {
			pots: [],
			items: [item('zeolite'), item('perlite', { packs: 0, opened: 0 })],
			mixes: [yardMix]
		},
		...change
	});
const state = (change: Partial<ReplantOf> = {}) => new MixState(new ReplantState(of(change)));

describe('a range that is wanted', () => {
	it('holds its own ends and nothing beyond them', () => {
		expect(againstRange(0.2, 0.2, 0.3)).toBe('within');
		expect(againstRange(0.3, 0.2, 0.3)).toBe('within');
		expect(againstRange(0.199, 0.2, 0.3)).toBe('below');
		expect(againstRange(0.301, 0.2, 0.3)).toBe('above');
	});
	it('of recovering roots asks for air and leaves water open', () => {
		const { recovering, nursery } = mixRanges(values);
		expect([recovering.waterFrom, recovering.waterTo]).toEqual([0, 1]);
		expect(recovering.airFrom).toBe(values['mix.recoveringAirFrom']);
		expect(nursery.waterTo).toBe(values['mix.waterTo']);
	});
});

describe('two mixes at the bench', () => {
	it('without a pot that was chosen only a depth is compared, and no days to dry are claimed', () => {
		const bench = state();
		expect(bench.planting).toBeNull();
		expect(bench.pot).toEqual({ depthMm: bench.depthMm });
		expect(bench.made.map((one) => one?.dryDays)).toEqual([null, null]);
	});
	it('in the pot of a planting they are judged in that pot, until another depth is tried', () => {
		const bench = state({ records: treeRecords({ plantings: [plantingOn('2026-04-10', {}, 'pl')] }) });
		if (!bench.planting) throw new Error('it was planted');
		expect(bench.pot).toBe(bench.planting.pot);
		expect(bench.made[0]?.dryDays).not.toBeNull();
		bench.depthMm += 40;
		expect(bench.pot).toEqual({ depthMm: bench.depthMm });
		expect(bench.made[0]?.dryDays).toBeNull();
	});
	it('a coarse layer leaves some mix above it', () => {
		const bench = state();
		bench.depthMm = 50;
		bench.coarseLayerMm = 200;
		expect(bench.layer.coarseLayerMm).toBe(50 - values['mix.leastOverCoarseMm']);
		bench.coarseLayerMm = 15;
		expect(bench.layer.coarseLayerMm).toBe(15);
	});
	it('other parts are another mix: what was measured no longer holds', () => {
		const bench = state();
		const measured = { airSpace: 0.2, containerCapacity: 0.4 };
		bench.setMix(0, { name: 'x', parts: yardMix.parts, measured: measured as never });
		bench.setParts(0, [{ componentId: 'perlite', parts: 1 }]);
		expect(bench.sides[0]?.mix).toMatchObject({ name: 'x', measured: null });
		expect(bench.sides[1]?.from).toBe('compost-grit');
		bench.setParts(0, []);
		expect(bench.made[0]).toBeNull();
		bench.begin(0, 'own-m1');
		expect(bench.sides[0]).toMatchObject({ from: 'own-m1', mix: { name: 'Yard mix' } });
		bench.begin(1, 'pumice');
		expect(bench.sides[1]?.from).toBe('pumice');
		bench.begin(0, 'nothing of that name');
		expect(bench.sides[0]?.from).toBe('used');
	});
	it('is searched from what is there, never from what ran out, and at most from six', () => {
		const bench = state();
		expect(bench.stock).toContain('zeolite');
		expect(bench.stock.length).toBeLessThanOrEqual(6);
		bench.find();
		expect(bench.found?.length).toBeGreaterThan(0);
		bench.choose(componentIds);
		expect(bench.stock).toHaveLength(6);
		expect(bench.found).toBeNull();
	});
	it('a name that stands already is changed in place, however it is typed', () => {
		const bench = state();
		bench.keepName = ' yard MIX ';
		expect(bench.keptAt?.id).toBe('m1');
		bench.keepName = 'yard mix 2';
		expect(bench.keptAt).toBeUndefined();
	});
});
