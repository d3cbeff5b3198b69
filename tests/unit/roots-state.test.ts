import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { parseQuickRoot } from '$core/roots/io/quick-entry';
import { planInput, type Temper } from '$core/roots/plan/plan';
import { rootMapInput } from '$core/roots/map/root-map';
import { defaultValues } from '$core/values/values';
import type { Planner } from '$lib/workers/planner';
import { reductionPlan } from '$core/roots/plan/reduction/reduction-plan';
import { loadSolver } from '$core/roots/plan/solver';
import { RootsState } from '$views/roots/roots-state.svelte';
import { freshRoots } from '../records';

const options = {
	...freshRoots,
	makePlanner: () => ({
		plan: async (...question: Parameters<Planner['plan']>) =>
			reductionPlan(question[0], await loadSolver(), question[1]),
		stop: () => {}
	})
};
/** Asks for proposals and takes one. */
async function proposed(roots: RootsState, temper: Temper = 'usual'): Promise<void> {
	await roots.propose();
	const one = roots.ways.list?.find((candidate) => candidate.temper === temper);
	if (!one) throw new Error(roots.ways.failed);
	roots.take(one);
}
const quick = (line: string) => {
	const entry = parseQuickRoot(line, 'container', 80, defaultValues);
	if (!entry.ok) throw new Error(entry.problem);
	return entry.root;
};
const answer = (status: number, body: object) => new Response(JSON.stringify(body), { status });
const store = new Map<string, string>();

beforeEach(() => {
	vi.useFakeTimers();
	store.clear();
	vi.stubGlobal('localStorage', {
		getItem: (key: string) => store.get(key) ?? null,
		setItem: (key: string, value: string) => store.set(key, value),
		removeItem: (key: string) => store.delete(key)
	});
	let version = 0;
	vi.stubGlobal(
		'fetch',
		vi.fn(async () => answer(200, { mapVersion: ++version, planVersion: version }))
	);
});
afterEach(() => {
	vi.useRealTimers();
	vi.unstubAllGlobals();
});

const begun = (
	lines = ['6 30 anchor', '9 28 anchor', '12 29 anchor', '3 27 anchor', '7 14 sec girdling', '4 10 circling']
) => {
	const roots = new RootsState(options);
	for (const line of lines) roots.add(quick(line));
	return roots;
};
const idAt = (roots: RootsState, index: number): string => roots.map.segments[index]?.id ?? '';

describe('roots while they are worked on', () => {
	it('begins from the tree: frame, trunk, three stages on dates', () => {
		const roots = new RootsState(options);
		expect(roots.map).toMatchObject({ frame: 'container', trunkDiameterMm: 80, segments: [] });
		expect(roots.plan.stageDates).toHaveLength(3);
		expect(roots.plan.stageDates[0]).toBe('2026-02-10');
		const ground = new RootsState({ ...options, tree: { ...options.tree, situation: 'in-ground' } });
		expect(ground.map.frame).toBe('ground');
	});

	it('cuts where the hand says, never in soil; its cost is what lies beyond', () => {
		const roots = begun();
		const id = idAt(roots, 4);
		roots.treat(id, 'cut', 0);
		const whole = roots.standing.ledger.cutCost.get(id) ?? NaN;
		roots.cutAt(id, 60);
		const cut = roots.plan.cuts.find((one) => one.segmentId === id);
		expect(cut).toMatchObject({ atMm: 60, byOwner: true });
		const beyond = roots.standing.ledger.cutCost.get(id) ?? NaN;
		expect(beyond).toBeGreaterThan(0);
		expect(beyond).toBeLessThan(whole);
		expect(roots.takenBy(cut ? [cut] : [])).toBeCloseTo(beyond, 9);
		// Never past its end, and not where it was not laid open.
		roots.cutAt(id, 9000);
		expect(roots.plan.cuts.find((one) => one.segmentId === id)?.atMm).toBeLessThan(500);
		roots.change(id, { seenToMm: 40 });
		roots.cutAt(id, 50);
		expect(roots.problem).toMatch(/in soil still/);
	});

	it('stops before what is over the allowance, too cold, out of the window or takes a hold', () => {
		const roots = begun();
		const kinds = (of: RootsState) =>
			of.stopsFor(of.plan.cuts.filter((cut) => cut.stage === 0)).map((stop) => stop.kind);
		roots.treat(idAt(roots, 5), 'cut', 0);
		expect(kinds(roots)).not.toContain('over-allowance');
		expect(kinds(roots)).not.toContain('cold');
		for (const index of [0, 1, 2]) roots.treat(idAt(roots, index), 'cut', 0);
		expect(kinds(roots)).toEqual(expect.arrayContaining(['over-allowance', 'hold']));
		const cold = new RootsState({ ...options, nightC: -3 });
		cold.add(quick('6 10'));
		cold.treat(idAt(cold, 0), 'cut', 0);
		expect(kinds(cold)).toContain('cold');
		// What its new shoots do not stand stops it as well.
		for (const [buds, stopped] of [
			[{ value: 'open', on: options.today }, true],
			[{ value: 'none', on: options.today }, false]
		] as const) {
			const cool = new RootsState({
				...options,
				nightC: 2,
				buds,
				values: { ...options.values, 'guard.shootsC': 3 }
			});
			cool.add(quick('6 10'));
			cool.treat(idAt(cool, 0), 'cut', 0);
			expect(kinds(cool).includes('cold')).toBe(stopped);
		}
		const summer = new RootsState({ ...options, today: '2026-07-20' });
		summer.add(quick('6 10'));
		summer.treat(idAt(summer, 0), 'cut', 0);
		expect(kinds(summer)).toContain('out-of-window');
		// Nothing to be cut, nothing to stop.
		expect(roots.stopsFor([])).toEqual([]);
	});

	it('a root drawn by hand is as long as it was drawn; its class and depth are guesses still', () => {
		const roots = begun(['6 30', '9 28']);
		const id = idAt(roots, 0);
		const before = roots.map.segments[0];
		if (!before) throw new Error('it was added');
		expect(before.guessed).toContain('length');
		roots.change(id, { course: before.course.map((point) => ({ ...point, radiusMm: point.radiusMm + 5 })) });
		expect(roots.map.segments[0]?.guessed).toEqual(['class', 'depth']);
		roots.change(id, { fineScore: 3 });
		expect(roots.map.segments[1]?.guessed).toContain('length');
	});

	it('takes every step back and forth', () => {
		const roots = begun();
		const six = roots.now;
		roots.treat(idAt(roots, 5), 'cut', 1);
		roots.remove(idAt(roots, 0));
		expect(roots.map.segments).toHaveLength(5);
		roots.undo();
		roots.undo();
		expect(roots.now).toEqual(six);
		roots.redo();
		expect(roots.plan.cuts).toHaveLength(1);
		for (let i = 0; i < 20; i++) roots.undo();
		expect(roots.map.segments).toEqual([]);
		roots.add(quick('2 8'));
		expect(roots.future).toEqual([]);
	});

	it('treats a root in one way at a time', () => {
		const roots = begun();
		const id = idAt(roots, 5);
		const now = () => {
			const segment = roots.map.segments.find((candidate) => candidate.id === id);
			if (!segment) throw new Error('gone');
			return roots.treatment(segment);
		};
		expect(now().kind).toBe('open');
		roots.treat(id, 'cut');
		expect(now()).toMatchObject({ kind: 'cut', cut: { stage: 0, reason: 'circles the ball' } });
		roots.treat(id, 'keep');
		expect(now().kind).toBe('keep');
		expect(roots.plan.cuts).toEqual([]);
		roots.treat(id, 'trace');
		expect(now().kind).toBe('trace');
		roots.treat(id, 'cut', 3);
		expect(now()).toMatchObject({ kind: 'cut', cut: { stage: 3 } });
		expect(roots.plan.stageDates).toHaveLength(4);
		roots.treat(id, 'open');
		expect(now().kind).toBe('open');
	});

	it('always holds a map and a plan that the server takes', async () => {
		const roots = begun(['6 30 anchor keep', '9 28 cut', '12 29 cut3', '3 27 trace', '7 14 dead20']);
		await proposed(roots, 'bold');
		expect(rootMapInput.safeParse(roots.map).error).toBeUndefined();
		expect(planInput.safeParse(roots.plan).error).toBeUndefined();
		expect(roots.standing.ledger.violations).toEqual([]);
	});

	it('proposes within the limits, numbers the cuts of now, and says what it left', async () => {
		const roots = begun();
		roots.treat(idAt(roots, 5), 'keep');
		await proposed(roots);
		expect(roots.plan.cuts.map((cut) => cut.segmentId)).toEqual([idAt(roots, 4)]);
		expect(roots.cutNumbers.get(idAt(roots, 4))).toBe(1);
		expect(roots.taken?.left).toMatchObject([
			{ segmentId: idAt(roots, 5), because: 'you locked it to be kept' }
		]);
		expect(roots.standing.ledger.stages.every((stage) => stage.fits)).toBe(true);
	});

	it('keeps what was set by hand, postpones what is to wait, and forgets a proposal that was stopped', async () => {
		const roots = begun(['6 30 anchor keep', '9 28', '12 29', '3 27', '7 9 circling', '2 8', '5 7 rising']);
		roots.treat(idAt(roots, 5), 'cut', 2);
		roots.postpone(idAt(roots, 4), 1);
		await proposed(roots);
		const cutOf = (index: number) => roots.plan.cuts.find((cut) => cut.segmentId === idAt(roots, index));
		expect(cutOf(5)).toMatchObject({ stage: 2, byOwner: true, whyThen: 'you want it in this stage' });
		expect(cutOf(4)).toMatchObject({ stage: 1, byOwner: false, whyThen: 'you do not want it sooner' });
		expect(cutOf(6)).toMatchObject({ stage: 0, whyThen: 'as soon as there is work' });
		const before = roots.plan;
		const under = roots.propose();
		roots.ways.stop();
		await under;
		expect(roots.ways.planning).toBe(false);
		expect(roots.plan).toBe(before);
		roots.undo();
		expect(roots.plan.cuts).toHaveLength(1);
	});

	it('keeps a cut that was made out of reach', async () => {
		const roots = begun();
		roots.treat(idAt(roots, 5), 'cut');
		roots.commit({
			plan: {
				...roots.plan,
				cuts: roots.plan.cuts.map((cut) => ({ ...cut, state: 'done' as const, doneOn: '2026-02-10' }))
			}
		});
		roots.treat(idAt(roots, 5), 'open');
		expect(roots.problem).toMatch(/cut already/);
		roots.remove(idAt(roots, 5));
		expect(roots.map.segments).toHaveLength(6);
		await proposed(roots);
		expect(roots.plan.cuts.find((cut) => cut.segmentId === idAt(roots, 5))?.state).toBe('done');
	});

	it('grows a side root off a root: outward, half as thick, hanging on it, and gone with it', () => {
		const roots = begun(['6 20', '9 12']);
		roots.addSide(idAt(roots, 0));
		const side = roots.map.segments[2];
		expect(side).toMatchObject({ parentId: idAt(roots, 0), rootClass: 'secondary', sourceKnown: true });
		expect(side?.course.at(-1)?.radiusMm).toBeGreaterThan((side?.course[0]?.radiusMm ?? Infinity) + 5);
		expect(side?.diameterStartMm).toBeLessThan(roots.map.segments[0]?.diameterStartMm ?? 0);
		expect(rootMapInput.safeParse(roots.map).error).toBeUndefined();
		roots.remove(idAt(roots, 0));
		expect(roots.map.segments).toHaveLength(1);
		roots.undo();
		expect(roots.map.segments).toHaveLength(3);
	});

	it('walks round the list, and turns at its ends', () => {
		const roots = begun();
		roots.selectedId = idAt(roots, 5);
		roots.step(1);
		expect(roots.selectedId).toBe(idAt(roots, 0));
		roots.step(-1);
		expect(roots.selectedId).toBe(idAt(roots, 5));
	});
});

describe('keeping roots on the server', () => {
	it('sends one save for quick steps, and the last state wins', async () => {
		const roots = begun();
		await vi.advanceTimersByTimeAsync(2000);
		expect(fetch).toHaveBeenCalledTimes(1);
		expect(roots.saveState).toBe('saved');
		expect(store.size).toBe(0);
		roots.add(quick('2 8'));
		await vi.advanceTimersByTimeAsync(2000);
		const sent = JSON.parse(String(vi.mocked(fetch).mock.calls[1]?.[1]?.body));
		expect(sent).toMatchObject({ mapVersion: 1, planVersion: 1 });
		expect(sent.map.segments).toHaveLength(7);
	});

	it('what was kept can be undone by who comes back to the page, unless something else was kept since', async () => {
		const { map, plan, past } = begun(['6 30', '2 8']);
		await vi.advanceTimersByTimeAsync(500);
		expect(past.length).toBeGreaterThan(1);
		const kept = (version: number) => ({
			...options,
			rootMap: { ...map, id: 'm', version },
			plan: { ...plan, id: 'p', version: 1 }
		});
		const back = new RootsState(kept(1));
		expect(back.past).toHaveLength(past.length);
		back.undo();
		expect(back.map.segments).toHaveLength(1);
		store.clear();
		expect(new RootsState(kept(2)).past).toHaveLength(0);
	});

	it('holds the draft when nobody answers, tries again, and a new page takes it up', async () => {
		vi.mocked(fetch).mockRejectedValueOnce(new Error('offline'));
		const roots = begun(['6 30']);
		await vi.advanceTimersByTimeAsync(500);
		expect(roots.saveState).toBe('waiting');
		const reloaded = new RootsState(options);
		expect(reloaded.map.segments).toHaveLength(1);
		expect(reloaded.problem).toMatch(/they are back/);
		await vi.advanceTimersByTimeAsync(5000);
		expect(roots.saveState).toBe('saved');
	});

	it('takes up a draft from before the map knew stems, and one with a root that was refused, as they were', () => {
		const { map, plan } = begun(['6 30']);
		const { stems: _stems, lean: _lean, obstacles: _obstacles, ...older } = map;
		const draft = (changed: object) =>
			JSON.stringify({ map: changed, plan, versions: { map: null, plan: null } });
		store.set('bruntle-roots-t', draft(older));
		expect(new RootsState(options).map).toMatchObject({ stems: [], lean: null, obstacles: [] });
		const thick = map.segments.map((segment) => ({ ...segment, diameterStartMm: 900, diameterEndMm: 400 }));
		store.set('bruntle-roots-t', draft({ ...map, segments: thick }));
		expect(new RootsState(options).map.segments[0]?.diameterStartMm).toBe(900);
	});

	it('of what was drawn here and what was kept elsewhere lets a person choose, and sends nothing before', async () => {
		const theirs = begun(['3 20', '5 20']);
		const kept = {
			map: { ...theirs.map, id: 'm', version: 5 },
			plan: { ...theirs.plan, id: 'p', version: 4 }
		};
		store.clear();
		vi.mocked(fetch).mockReset();
		vi.mocked(fetch).mockImplementation(async () =>
			answer(409, { title: 'Changed elsewhere.', meanwhile: kept })
		);
		const roots = begun(['6 30']);
		await vi.advanceTimersByTimeAsync(500);
		expect(roots.saveState).toBe('refused');
		expect(roots.clash?.theirs.map.segments).toHaveLength(2);
		const calls = vi.mocked(fetch).mock.calls.length;
		await vi.advanceTimersByTimeAsync(60_000);
		expect(fetch).toHaveBeenCalledTimes(calls);
		// A page that is opened meanwhile holds both too.
		const again = new RootsState({ ...options, rootMap: kept.map, plan: kept.plan });
		expect(again.map.segments).toHaveLength(1);
		expect(again.clash?.theirs.map.segments).toHaveLength(2);

		roots.takeTheirs();
		expect(roots.map.segments).toHaveLength(2);
		expect([roots.clash, roots.saveState, store.size]).toEqual([null, 'saved', 0]);
		vi.mocked(fetch).mockImplementation(async () => answer(200, { mapVersion: 6, planVersion: 5 }));
		roots.undo();
		expect(roots.map.segments).toHaveLength(1);
		await vi.advanceTimersByTimeAsync(500);
		expect(JSON.parse(String(vi.mocked(fetch).mock.lastCall?.[1]?.body))).toMatchObject({
			mapVersion: 5,
			planVersion: 4
		});
		again.keepMine();
		expect([again.clash, again.saveState]).toEqual([null, 'saving']);
	});

	it('waits and sends again where the server broke, as where it does not answer', async () => {
		vi.mocked(fetch).mockResolvedValueOnce(answer(500, { title: 'Something went wrong here.' }));
		const roots = begun(['6 30']);
		await vi.advanceTimersByTimeAsync(500);
		expect(roots.saveState).toBe('waiting');
		await vi.advanceTimersByTimeAsync(5000);
		expect(roots.saveState).toBe('saved');
	});

	it('drops a draft that says what stands there anyway, or nothing', () => {
		store.set('bruntle-roots-t', JSON.stringify({ map: {}, plan: {}, versions: { map: 7, plan: 7 } }));
		expect(new RootsState(options).map.segments).toEqual([]);
		expect(store.size).toBe(0);
		store.set('bruntle-roots-t', 'not json');
		expect(new RootsState(options).map.segments).toEqual([]);
	});

	it('says what the server said when it refuses, and loses nothing', async () => {
		vi.mocked(fetch).mockResolvedValueOnce(
			answer(409, { title: 'These roots were changed elsewhere.', detail: 'Load again.' })
		);
		const roots = begun(['6 30']);
		await vi.advanceTimersByTimeAsync(500);
		expect(roots.saveState).toBe('refused');
		expect(roots.problem).toBe('These roots were changed elsewhere. Load again.');
		expect(roots.map.segments).toHaveLength(1);
		expect(store.size).toBe(1);
	});
});
