import { describe, expect, it } from 'vitest';
import { cutHow } from '$core/roots/plan/cutting';
import { diameterAtMm } from '$core/roots/map/geometry';
import { cutSchema } from '$core/roots/plan/plan';
import { parseQuickRoot } from '$core/roots/io/quick-entry';
import { segmentFromQuick, type Segment } from '$core/roots/map/root-map';
import { defaultValues } from '$core/values/values';
import { BenchState } from '$views/roots/bench-state.svelte';
import { memory } from '../records';

const root = (line: string, id: string, more: Partial<Segment> = {}): Segment => {
	const entry = parseQuickRoot(line, 'container', 100, defaultValues);
	if (!entry.ok) throw new Error(entry.problem);
	return { ...segmentFromQuick(entry.root, { trunkDiameterMm: 100, ballRadiusMm: 250 }, id), ...more };
};
const cuts = ['a', 'b', 'c'].map((id) =>
	cutSchema.parse({ id, segmentId: `r${id}`, stage: 0, reason: '', note: '' })
);

describe('the bench', () => {
	it('goes on where it was left, after a reload or on a flat battery', () => {
		const keep = memory();
		const bench = new BenchState('t', cuts);
		bench.open(keep);
		bench.answer({ kind: 'done', atMm: null, note: '' });
		bench.answer({ kind: 'left', why: 'frozen in' });
		const again = new BenchState('t', cuts);
		again.open(keep);
		expect(again.current?.id).toBe('c');
		expect(again.answered).toBe(2);
		again.answer({ kind: 'done', atMm: 35, note: 'dark core' });
		expect(again.current).toBeUndefined();
		expect(again.record).toEqual({
			done: [
				{ id: 'a', atMm: null, note: '' },
				{ id: 'c', atMm: 35, note: 'dark core' }
			],
			left: [{ id: 'b', why: 'frozen in' }]
		});
		again.back();
		again.back();
		expect(again.current?.id).toBe('b');
		again.answer({ kind: 'done', atMm: null, note: '' });
		expect(again.record.left).toEqual([]);
		again.clear();
		expect(keep.kept.size).toBe(0);
	});
	it('drops answers to cuts that are no longer planned, and what cannot be read', () => {
		for (const text of [
			'{',
			'7',
			'{"gone":{"kind":"done","atMm":null,"note":""},"a":{"kind":"burnt"},"b":{"kind":"left","why":"x"}}'
		]) {
			const keep = memory();
			keep.setItem('bruntle.bench.t', text);
			const bench = new BenchState('t', cuts);
			bench.open(keep);
			expect(Object.keys(bench.answers)).toEqual(text.includes('burnt') ? ['b'] : []);
		}
	});
});

describe('how a root is cut', () => {
	const how = (
		segment: Segment,
		atMm = 0,
		frame: 'container' | 'ground' = 'container',
		others: Segment[] = []
	) =>
		cutHow(
			segment,
			{ atMm },
			{ map: { frame, trunkDiameterMm: 100, segments: [segment, ...others] }, windows: [] },
			defaultValues
		);
	it('takes the tool by the thickness where it is cut, and says to where', () => {
		expect(how(root('6 8', 'a')).tool).toBe('Sharp secateurs');
		expect(how(root('6 20', 'a')).tool).toBe('Loppers');
		expect(how(root('6 40', 'a')).tool).toBe('A fine saw');
		expect(how(root('6 20 dead40', 'a'), 40).backTo).toMatch(/sound/);
		expect(how(root('6 20', 'a')).backTo).toMatch(/at the trunk/);
		const side = root('6 8', 's', { parentId: 'a', attachMm: 20 });
		expect(how(root('6 20', 'a'), 30, 'container', [side]).backTo).toMatch(/side root that stays/);
		expect(how(side).backTo).toMatch(/leaves its parent/);
		expect(diameterAtMm({ diameterStartMm: 20, diameterEndMm: 10 }, 50, 100)).toBe(15);
		expect(diameterAtMm({ diameterStartMm: 20, diameterEndMm: 10 }, 500, 100)).toBe(10);
	});
	it('leaves structural roots near a standing trunk, and anchors, to a qualified arborist', () => {
		expect(how(root('6 25 scaffold', 'a'), 0, 'ground').hold?.why).toMatch(/3 trunk diameters/);
		// Beyond three diameters the structural root zone goes on, here its least radius of 1.5 m.
		expect(how(root('6 25 scaffold', 'a'), 260, 'ground').hold?.why).toMatch(/structural root zone/);
		expect(how(root('6 25 scaffold', 'a'), 1600, 'ground').hold).toBeNull();
		expect(how(root('6 25 sec', 'a'), 0, 'ground').hold).toBeNull();
		expect(how(root('6 25 scaffold', 'a')).hold).toBeNull();
		expect(how(root('6 35 anchor', 'a')).hold?.why).toMatch(/An anchor/);
		expect(how(root('6 35 anchor dead40', 'a'), 40).hold?.why).toMatch(/rotten anchor/);
		// A qualified arborist for what stands in the ground or is large; a small tree in a pot is tied down.
		expect(how(root('6 35 anchor', 'a')).hold?.arborist).toBe(false);
		expect(how(root('6 35 anchor', 'a')).hold?.why).toMatch(/Tie the tree down\.$/);
		expect(how(root('6 25 scaffold', 'a'), 0, 'ground').hold?.arborist).toBe(true);
		const large = { frame: 'container' as const, trunkDiameterMm: 200, segments: [root('6 35 anchor', 'a')] };
		expect(
			cutHow(root('6 35 anchor', 'a'), { atMm: 0 }, { map: large, windows: [] }, defaultValues).hold
		).toEqual({
			arborist: true,
			why: 'An anchor: what it held falls to the others.'
		});
		// Of a torn anchor only the tear comes off.
		expect(how(root('6 35 anchor torn', 'a'), 60).hold).toBeNull();
		expect(how(root('6 35 anchor torn', 'a')).hold).not.toBeNull();
		const torn = root('6 25 scaffold torn', 'a');
		const weak = [{ azimuthDeg: 0, left: 0.4, short: true }];
		const tornHold = (atMm: number) =>
			cutHow(
				torn,
				{ atMm },
				{ map: { frame: 'container', trunkDiameterMm: 100, segments: [torn] }, windows: weak },
				defaultValues
			).hold;
		expect(tornHold(60)).toBeNull();
		expect(tornHold(0)?.why).toMatch(/below what is wanted/);
		const short = [{ azimuthDeg: 30, left: 0.4, short: true }];
		const scaffold = root('6 25 scaffold', 'a');
		const map = { frame: 'container' as const, trunkDiameterMm: 100, segments: [scaffold] };
		expect(cutHow(scaffold, { atMm: 0 }, { map, windows: short }, defaultValues).hold?.why).toMatch(
			/below what is wanted/
		);
		const away = [{ azimuthDeg: 180, left: 0.4, short: true }];
		expect(cutHow(scaffold, { atMm: 0 }, { map, windows: away }, defaultValues).hold).toBeNull();
	});
});
