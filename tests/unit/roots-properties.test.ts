import fc from 'fast-check';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { planInput } from '$core/roots/plan/plan';
import { parseQuickRoot } from '$core/roots/io/quick-entry';
import { ledger } from '$core/roots/plan/ledger';
import { rootMapInput } from '$core/roots/map/root-map';
import { defaultValues as values } from '$core/values/values';
import { RootsState } from '$views/roots/roots-state.svelte';
import { freshRoots } from '../records';

/** Whatever a person does to a map, in whatever order, it stays a map that the server takes, and every step goes back. */

const made = (): RootsState => new RootsState(freshRoots);

beforeEach(() => {
	vi.useFakeTimers();
	vi.stubGlobal('localStorage', {
		getItem: () => null,
		setItem: () => undefined,
		removeItem: () => undefined
	});
	vi.stubGlobal('fetch', async () => new Response('{"mapVersion":1,"planVersion":1}'));
});
afterEach(() => {
	vi.useRealTimers();
	vi.unstubAllGlobals();
});

type Step = { name: string; run: (roots: RootsState) => void };
const step = (name: string, run: Step['run']): Step => ({ name, run });
/** A root of the map by any number; nothing is done while there is none. */
const at = (roots: RootsState, n: number): string => {
	const { segments } = roots.map;
	return segments.length === 0 ? '' : (segments[n % segments.length]?.id ?? '');
};
const number = fc.nat({ max: 60 });
const steps: fc.Arbitrary<Step> = fc.oneof(
	fc
		.tuple(
			fc.integer({ min: 1, max: 12 }),
			fc.integer({ min: 1, max: 60 }),
			fc.constantFrom('', 'dead', 'dead20', 'girdling', 'circling', 'keep', 'trace', 'cut', 'cut2', 'anchor')
		)
		.map(([clock, mm, word]) =>
			step(`add ${clock} ${mm} ${word}`, (roots) => {
				const entry = parseQuickRoot(`${clock} ${mm} ${word}`, 'container', 80, values);
				if (entry.ok) roots.add(entry.root);
			})
		),
	number.map((n) => step(`remove ${n}`, (roots) => roots.remove(at(roots, n)))),
	fc
		.tuple(number, fc.constantFrom('open', 'keep', 'trace', 'cut'), fc.nat({ max: 3 }))
		.map(([n, kind, stage]) =>
			step(`treat ${n} ${kind} ${stage}`, (roots) =>
				roots.treat(at(roots, n), kind as 'open' | 'keep' | 'trace' | 'cut', stage)
			)
		),
	number.map((n) => step(`side ${n}`, (roots) => roots.addSide(at(roots, n)))),
	fc.tuple(number, fc.integer({ min: 2, max: 5 })).map(([n, count]) =>
		step(`copies ${n} ${count}`, (roots) => {
			if (at(roots, n) !== '' && roots.map.segments.length < 30) roots.copyRound(at(roots, n), count);
		})
	),
	fc.tuple(number, fc.nat({ max: 3 })).map(([n, stage]) =>
		step(`postpone ${n} ${stage}`, (roots) => {
			if (at(roots, n) !== '') roots.postpone(at(roots, n), stage);
		})
	),
	fc.integer({ min: 0, max: 359 }).map((deg) => step(`front ${deg}`, (roots) => roots.makeFront(deg))),
	fc
		.integer({ min: 62, max: 300 })
		.map((mm) => step(`trunk ${mm}`, (roots) => roots.setMap({ trunkDiameterMm: mm }))),
	number.map((n) =>
		step(`cut for ${n}`, (roots) => {
			if (at(roots, n) !== '') roots.cutFor([{ segmentId: at(roots, n), atMm: 0, reason: 'in the way' }]);
		})
	),
	fc.constant(step('undo', (roots) => roots.undo())),
	fc.constant(step('redo', (roots) => roots.redo()))
);
const snapshot = (roots: RootsState): string => JSON.stringify([roots.map, roots.plan]);
const runs = { numRuns: 60, seed: 20_260_418, endOnFailure: true } as const;

describe('a map under any hand', () => {
	it('is always whole: the server takes it, and plan and map speak of the same roots', () => {
		fc.assert(
			fc.property(fc.array(steps, { minLength: 1, maxLength: 25 }), (all) => {
				const roots = made();
				for (const { run } of all) {
					run(roots);
					expect(rootMapInput.safeParse(roots.map).error?.issues).toBeUndefined();
					expect(planInput.safeParse(roots.plan).error?.issues).toBeUndefined();
					const ids = new Set(roots.map.segments.map((segment) => segment.id));
					expect(ids.size).toBe(roots.map.segments.length);
					for (const segment of roots.map.segments)
						if (segment.parentId !== null) expect(ids.has(segment.parentId)).toBe(true);
					const cut = roots.plan.cuts.map((one) => one.segmentId);
					expect(new Set(cut).size).toBe(cut.length);
					for (const one of roots.plan.cuts) {
						const segment = roots.map.segments.find((candidate) => candidate.id === one.segmentId);
						// What is kept, or whose source is not known, is never cut.
						expect(segment).toMatchObject({ keep: false, sourceKnown: true });
						expect(one.stage).toBeLessThan(roots.plan.stageDates.length);
					}
				}
			}),
			runs
		);
	});

	it('goes back step by step to what it was, and forward again to the same', () => {
		fc.assert(
			fc.property(fc.array(steps, { minLength: 1, maxLength: 25 }), (all) => {
				const roots = made();
				const first = snapshot(roots);
				for (const { run } of all) run(roots);
				const last = snapshot(roots);
				let back = 0;
				while (roots.past.length > 0 && back < 200) {
					roots.undo();
					back++;
				}
				expect(snapshot(roots)).toBe(first);
				while (back-- > 0) roots.redo();
				expect(snapshot(roots)).toBe(last);
			}),
			runs
		);
	});

	it('costs what its cuts cost: shares between nothing and all, and no more than was there', () => {
		fc.assert(
			fc.property(fc.array(steps, { minLength: 1, maxLength: 25 }), (all) => {
				const roots = made();
				for (const { run } of all) run(roots);
				const spentBy = (cuts: typeof roots.plan.cuts): number => {
					const { stages } = ledger(roots.map, cuts, [0.3], values);
					for (const stage of stages) expect(stage.loss).toBeGreaterThanOrEqual(0);
					return stages.reduce((sum, stage) => sum + stage.loss, 0);
				};
				const { cuts } = roots.plan;
				const spent = spentBy(cuts);
				expect(spent).toBeLessThanOrEqual(1 + 1e-9);
				for (const one of cuts) {
					// One cut less never costs more; the same cut in another stage costs the same in all.
					expect(spentBy(cuts.filter((other) => other !== one))).toBeLessThanOrEqual(spent + 1e-9);
					const moved = cuts.map((other) => (other === one ? { ...other, stage: 3 - other.stage } : other));
					expect(spentBy(moved)).toBeCloseTo(spent, 9);
				}
			}),
			runs
		);
	});
});
