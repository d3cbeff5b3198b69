import { describe, expect, it } from 'vitest';
import { addDays } from '$core/maths/calendar';
import { groundPlanInput, groundPlanSchema } from '$core/replant/ground/ground-plan';
import { shippedKinds } from '$core/vocabulary/shipped';
import { examinationSchema } from '$core/examine/diagnosis/examination';
import { measured } from '$core/text/measured';
import { groundWorkSaid } from '$core/replant/ground/ground-said';
import { mulchRing } from '$core/replant/ground/mulch';
import { measurementSchema } from '$core/examine/measuring/measurement';
import { mixIds, mixOf, pottingMixOf } from '$core/replant/mixes/mixes';
import { plantingSchema, replantPlanInput, replantPlanSchema } from '$core/replant/pots/replant-plan';
import { stockItemSchema, stockPotSchema } from '$core/replant/kit/stock';
import { treeSchema } from '$core/take-in/tree';
import { standingOf } from '$core/tree/standing';
import type { ConditionId } from '$core/vocabulary/conditions';
import { defaultValues as values } from '$core/values/values';
import { dryDown } from '$core/replant/pots/dry-down';
import { storesOf } from '$core/replant/pots/stores';
import { GroundState } from '$views/replant/ground-state.svelte';
import { ReplantState, type ReplantOf } from '$views/replant/replant-state.svelte';
import { bench, plantingOn, replantOf, seatHeldBy, treeRecords, yardMix } from '../records';
import { roundPot } from '$core/replant/pots/volume';

const today = '2026-04-18';
const hornbeam = shippedKinds.find((kind) => kind.id === 'carpinus');
if (!hornbeam) throw new Error('no hornbeam');
const kind = { ...hornbeam, origin: 'shipped' as const, version: 1 };
const box = stockPotSchema.parse({
	id: 'box',
	version: 1,
	name: 'Ash box',
	pot: {
		shape: 'box',
		topLengthMm: 460,
		topWidthMm: 420,
		bottomLengthMm: 460,
		bottomWidthMm: 420,
		heightMm: 260
	},
	holes: 4,
	holeMm: 25,
	massKg: 9,
	material: 'wood',
	count: 2,
	note: ''
});
const gone = stockPotSchema.parse({ ...box, id: 'gone', name: 'Used up', count: 0 });
const pumice = stockItemSchema.parse({
	id: 'i1',
	version: 1,
	item: 'pumice-medium',
	packSize: 20,
	packs: 1,
	opened: 5,
	note: ''
});
const of = (change: Partial<ReplantOf> = {}): ReplantOf =>
	replantOf({ stock: { pots: [box, gone], items: [pumice], mixes: [yardMix] }, ...change });
const rot = {
	on: '2026-04-10',
	by: 'cut' as const,
	livingLoss: 0.3,
	ofBall: 0.3,
	rotWasCut: true,
	structuralCut: false,
	nextStageOn: null
};
const planned = (state: ReplantState) => replantPlanInput.parse(state.plan);

describe('a planting while it is planned', () => {
	it('begins whole: what it proposes of itself is a valid plan, and its pot takes the ball', () => {
		const state = new ReplantState(of());
		expect(planned(state)).toEqual(state.plan);
		expect(state.plantedOn).toBe(today);
		expect(state.placeId).toBe('p');
		// The ball that was mapped, said so.
		expect(state.ballDiameterMm).toBe(360);
		expect(state.ballKnown).toMatchObject({ known: 'measured', by: 'as mapped', on: '2025-02-03' });
		expect(state.pot.topWidthMm).toBeGreaterThanOrEqual(state.ballDiameterMm);
		expect(state.amounts.problems).toEqual([]);
		expect(state.judged.verdict).not.toBe('no-fit');
		expect(state.pot.heightMm).toBe(
			state.ballDepthMm + values['pot.headspaceMm'] + values['seat.flareBelowMm']
		);
	});

	it('in a shared pot begins with what was planted for a mate: its pot and mix, not its ball or seat', () => {
		const records = treeRecords();
		const theirs = plantingOn('2026-04-18', {
			pot: roundPot(510, 500, 190),
			mix: pottingMixOf('coir-grit'),
			crownWidthMm: 999,
			headspaceMm: 33,
			seat: { ...seatHeldBy('wires'), moundMm: 77 }
		});
		const tree = { id: 'm', tag: 'M-1', name: 'Mate', heightM: 0.8, trunkDiameterMm: 40 };
		const mate = {
			tree,
			plantings: [theirs],
			waterings: [],
			measurements: [],
			examinations: [],
			weights: []
		};
		const alone = new ReplantState(of());
		const state = new ReplantState(of({ records: { ...records, mates: [mate] } }));
		expect(state.pot).toEqual(theirs.pot);
		expect([state.mix, state.headspaceMm]).toEqual([theirs.mix, 33]);
		expect(state.assumed.has('pot')).toBe(false);
		// Its mix is in it; of another pot, or on another day, it is to be had ready.
		expect([state.filledFor, state.amounts.readyMainL, state.amounts.mainL]).toEqual(['M-1', 0, 0]);
		expect(state.kit.materials.map(({ name }) => name)).not.toContain('coir');
		state.plantedOn = '2026-04-19';
		expect(state.filledFor).toBe('');
		expect(state.amounts.readyMainL).toBeGreaterThan(10);
		state.plantedOn = '2026-04-18';
		state.takePot({ ...theirs.pot, heightMm: 191 });
		expect([state.filledFor, state.amounts.readyMainL > 10]).toEqual(['', true]);
		state.takePot(theirs.pot);
		expect([state.crownWidthMm, state.ballDiameterMm, state.seat]).toEqual([
			alone.crownWidthMm,
			alone.ballDiameterMm,
			{ ...alone.seat, flareOverRimMm: -33 }
		]);
	});

	it('after rot it takes the other school of size, a mix that stays airy, and a smaller pot', () => {
		const well = new ReplantState(of());
		const sick = new ReplantState(of({ lastWork: rot }));
		expect([well.school, sick.school]).toEqual(['larger', 'same']);
		expect(sick.mixAfterRot).toBe(true);
		expect(sick.pot.topWidthMm).toBeLessThan(well.pot.topWidthMm);
		expect(sick.rule).toBe('after-rot');
	});

	it('goes on from the plan that was kept, and before that from the last planting', () => {
		const first = new ReplantState(of());
		first.setSize('topLengthMm', 388);
		first.setHeight('mound');
		first.setHolding('wires');
		first.note = 'the shallow one';
		const input = planned(first);
		const kept = replantPlanSchema.parse({ ...input, id: 'r', version: 3 });
		expect(new ReplantState(of({ records: treeRecords({ replantPlan: kept }) })).plan).toEqual(input);

		const planting = plantingSchema.parse({
			...input.planting,
			id: 'g',
			version: 1,
			plantedOn: '2025-03-01'
		});
		const again = new ReplantState(of({ records: treeRecords({ plantings: [planting] }) }));
		expect(again.pot.topWidthMm).toBe(388);
		expect(again.plantedOn).toBe(today);
		expect(again.note).toBe('');
	});

	it('what nobody measured is kept as a guess until it is typed, taken or confirmed', () => {
		const unmapped = () => new ReplantState(of({ records: treeRecords({ rootMap: null, plan: null }) }));
		const state = unmapped();
		expect(new Set(state.plan.planting.assumed)).toEqual(
			new Set(['ballDiameterMm', 'ballDepthMm', 'crownWidthMm', 'pot'])
		);
		// Typed as it was suggested it is measured all the same.
		state.measured('ballDiameterMm', state.ballDiameterMm);
		state.confirm('crownWidthMm');
		state.setSize('heightMm', 222);
		expect(state.plan.planting.assumed).toEqual(['ballDepthMm']);
		state.measured('ballDepthMm', null);
		expect(state.plan.planting.assumed).toEqual(['ballDepthMm']);
		// A plan that is kept remembers it.
		const kept = replantPlanSchema.parse({ ...planned(state), id: 'r', version: 1 });
		const again = new ReplantState(
			of({ records: treeRecords({ rootMap: null, plan: null, replantPlan: kept }) })
		);
		expect(again.plan.planting.assumed).toEqual(['ballDepthMm']);
		// The ball that was mapped is no guess.
		expect(new ReplantState(of()).plan.planting.assumed).not.toContain('ballDiameterMm');
	});

	it('a planting with guesses left makes facts of none of them', () => {
		const guessed = new ReplantState(of({ records: treeRecords({ rootMap: null, plan: null }) }));
		const fact = (change: object) => {
			const planting = plantingSchema.parse({
				...planned(guessed).planting,
				...change,
				id: 'g',
				version: 1
			});
			const stands = standingOf(
				treeRecords({ rootMap: null, plan: null, plantings: [planting] }),
				addDays(today, 1),
				values
			);
			return [
				stands.ballWidthMm.known,
				stands.ballDepthMm.known,
				stands.crownWidthMm.known,
				stands.pot.known
			];
		};
		expect(fact({})).toEqual(['assumed', 'assumed', 'assumed', 'assumed']);
		expect(fact({ assumed: ['ballDepthMm'] })).toEqual(['measured', 'assumed', 'seen', 'measured']);
	});

	it('a school of size fills the sizes, and lets go of the pot of the stock', () => {
		const state = new ReplantState(of());
		state.takePot(box.pot, box.id);
		for (const school of ['same', 'larger'] as const) {
			state.setSchool(school);
			const wanted = school === 'same' ? state.question.sameWidthMm : state.question.largerWidthMm;
			expect(Math.abs(state.pot.topWidthMm - wanted)).toBeLessThanOrEqual(2.5);
			expect(state.fit.fits).toBe(true);
			expect(state.stockPotId).toBeNull();
		}
	});

	it('dries before it is planted as it dries after, at the place it goes to', () => {
		const state = new ReplantState(of());
		state.setHeight('mound');
		const stores = storesOf(state.plan.planting, state.of.records.tree, values);
		expect(state.judged.waterL).toBeCloseTo(stores.rootedMostL + stores.unrootedMostL, 9);
		expect(state.judged.dryDownDays).toBeCloseTo(
			dryDown(stores, state.ahead, kind.wetnessTrigger, state.question.rootFunction, values),
			9
		);
		// What was weighed goes before what is reckoned.
		const weak = new ReplantState(of({ weighedFunction: 0.2 }));
		weak.setHeight('mound');
		expect(weak.judged.dryDownDays).toBeGreaterThan(state.judged.dryDownDays);
	});

	it('a pot of the stock is no longer that pot once a size is changed', () => {
		const state = new ReplantState(of());
		state.takePot(box.pot, box.id);
		expect(state.stockPot?.name).toBe('Ash box');
		expect(state.plan.stockPotId).toBe('box');
		expect(state.pot).toEqual(box.pot);
		state.setSize('heightMm', 240);
		expect(state.stockPot).toBeNull();
		expect(state.plan.stockPotId).toBeNull();
	});

	it('tries the ball by its roots only where somebody said how long they are', () => {
		const { rootMap } = treeRecords();
		if (!rootMap) throw new Error('it is mapped');
		const said = {
			...rootMap,
			segments: rootMap.segments.map((segment) => ({ ...segment, guessed: [] }))
		};
		const sketched = {
			...said,
			segments: said.segments.map((one, i) => ({
				...one,
				guessed: i === 0 ? (['length'] as 'length'[]) : []
			}))
		};
		expect(new ReplantState(of({ records: treeRecords({ rootMap: said }) })).lengthsMeasured).toBe(true);
		const state = new ReplantState(of({ records: treeRecords({ rootMap: sketched }) }));
		expect(state.lengthsMeasured).toBe(false);
		const bySizes = state.ball;
		state.ballFrom = 'map';
		expect(state.ball).toEqual(bySizes);
	});

	it('ranks only pots that are there', () => {
		const state = new ReplantState(of());
		expect(state.ranked.map((entry) => entry.id)).toEqual(['box']);
	});

	it('a round pot stays round, whatever width was left over from another shape', () => {
		const state = new ReplantState(of());
		state.takePot(box.pot);
		state.shape = 'round';
		expect(state.pot.topWidthMm).toBe(state.pot.topLengthMm);
		expect(state.pot.bottomWidthMm).toBe(state.pot.bottomLengthMm);
	});

	it('takes every mix by the name it has in the list, and knows it again', () => {
		const state = new ReplantState(of());
		for (const id of mixIds) {
			state.takeMix(id);
			expect(state.mixChoice).toBe(id);
			expect(state.mixAfterRot).toBe(mixOf(id).afterRot);
		}
		state.takeMix('own-m1');
		expect(state.mixChoice).toBe('own-m1');
		expect(state.mix.parts).toEqual(yardMix.parts);
		expect(state.mixAfterRot).toBe(true);
		const before = state.mix;
		state.takeMix('own-that-is-gone');
		expect(state.mix).toBe(before);
	});

	it('a mound stands over the rim, the other way below it; held things are let go on a day', () => {
		const state = new ReplantState(of());
		state.setHeight('mound');
		expect(state.seat.moundMm).toBe(values['seat.moundMm']);
		expect(state.buriedMm).toBe(0);
		state.setHeight('below-rim');
		expect([state.seat.moundMm, state.seat.flareOverRimMm]).toEqual([0, -state.headspaceMm]);

		state.setHolding('stones');
		expect([state.seat.stones, state.seat.stoneKg]).toEqual([3, 6]);
		expect(state.fullSeat.offOn).not.toBeNull();
		state.setHolding('own-stance');
		expect(state.fullSeat).toMatchObject({ stones: 0, stoneKg: 0, offOn: null, wires: [], pads: 0 });
	});

	it('says how deep a flare would be under the mix', () => {
		const state = new ReplantState(of());
		state.seat.flareOverRimMm = -state.headspaceMm - 35;
		expect(state.buriedMm).toBe(35);
	});

	it('wires go over roots that are mapped and stay; each has its two holes and a pad', () => {
		const state = new ReplantState(of());
		state.setHolding('wires');
		expect(state.wires.length).toBeGreaterThanOrEqual(2);
		expect(state.holes).toHaveLength(state.wires.length * 2);
		expect(state.fullSeat.pads).toBe(state.wires.length);
		const anchorless = new ReplantState(of({ goneRoots: ['r0', 'r1', 'r2', 'r3', 'r4'] }));
		anchorless.setHolding('wires');
		expect(anchorless.wires).toEqual([]);
	});

	it('needs a height to say at what wind it tips; held, it never stands worse', () => {
		const bare = new ReplantState(of());
		expect(bare.held).toBeNull();
		const records = treeRecords();
		const tall = new ReplantState(
			of({ records: { ...records, tree: treeSchema.parse({ ...records.tree, heightM: 1.4 }) } })
		);
		tall.setHolding('stones');
		const held = tall.held;
		if (!held) throw new Error('a height is known');
		expect(held.tiedMs).toBeGreaterThanOrEqual(held.looseMs);
		expect(held.stonesMs).toBeGreaterThanOrEqual(held.looseMs);
	});

	it('a coarse layer costs rooting depth and air is read above it; a lot needs so many times as much', () => {
		const state = new ReplantState(of());
		const plain = state.amounts.mainL;
		state.coarseLayerMm = 40;
		expect(state.amounts.mainL).toBeLessThan(plain);
		expect(state.amounts.coarseL).toBeGreaterThan(0);
		const records = treeRecords();
		const lot = new ReplantState(
			of({ records: { ...records, tree: treeSchema.parse({ ...records.tree, plantCount: 40 }) } })
		);
		const need = (one: ReplantState) =>
			one.kit.materials.find((line) => line.name.startsWith('pumice'))?.need ?? 0;
		const alone = new ReplantState(of());
		expect(need(lot)).toBeCloseTo(40 * need(alone), 6);
	});

	it('old mix after rot keeps its reason; new mix needs none', () => {
		const state = new ReplantState(of());
		state.history = 'rot';
		state.because = 'steamed';
		expect(state.plan.planting.reuse).toEqual({ history: 'rot', because: 'steamed' });
		state.history = 'new';
		expect(state.plan.planting.reuse.because).toBe('');
	});
});

describe('a ball that was seen to be packed', () => {
	const seen = (examinedOn: string, grade: number) =>
		examinationSchema.parse({
			id: `e-${examinedOn}`,
			version: 1,
			examinedOn,
			findings: [{ signId: 'solid-mat', grade }]
		});
	const state = (change: Parameters<typeof treeRecords>[0], more: Partial<ReplantOf> = {}) =>
		new ReplantState(of({ records: treeRecords(change), ...more }));
	it('takes the larger step without being told again, until it was found looser or planted since', () => {
		const packed = state({ examinations: [seen('2026-03-20', 2)] });
		expect(packed).toMatchObject({ packed: true, packedSeenOn: '2026-03-20', rule: 'packed' });
		expect(packed.advice.widthMm).toBe(packed.ballDiameterMm + packed.of.values['pot.packedSizeMm']);
		// A mat with gaps is a ball like others, and is told as one step, as wide as the yard says.
		const gaps = state({ examinations: [seen('2026-03-20', 1)] });
		expect(gaps).toMatchObject({ packed: false, packedSeenOn: null, rule: 'normal' });
		const wide = { ...gaps.of.values, 'pot.upSizeMm': 80 };
		expect(state({}, { values: wide }).advice.reason).toBe(`one step up, ${measured(40, 'mm')} all round`);
		expect(state({ examinations: [seen('2026-03-20', 2), seen('2026-04-01', 0)] }).packed).toBe(false);
		const planting = plantingSchema.parse({
			...planned(packed).planting,
			id: 'set',
			version: 1,
			plantedOn: '2026-03-25'
		});
		expect(state({ examinations: [seen('2026-03-20', 2)], plantings: [planting] }).packed).toBe(false);
		expect(state({ examinations: [seen('2026-03-26', 2)], plantings: [planting] }).packed).toBe(true);
		// Of the day on which it was set that is what it came out of; what lies ahead was not seen yet.
		expect(state({ examinations: [seen('2026-03-25', 2)], plantings: [planting] }).packed).toBe(false);
		expect(state({ examinations: [seen(addDays(today, 1), 2)] }).packed).toBe(false);
		// As a plan was kept, so it comes back.
		packed.packed = false;
		packed.sizeRule = 'normal';
		const kept = replantPlanSchema.parse({ ...planned(packed), id: 'plan', version: 1 });
		expect(state({ examinations: [seen('2026-03-20', 2)], replantPlan: kept }).packed).toBe(false);
	});
});

describe('works in the ground while they are planned', () => {
	const lawn = (trunkDiameterMm = 400) => {
		const records = treeRecords({ rootMap: null, plan: null });
		return {
			...records,
			tree: treeSchema.parse({ ...records.tree, situation: 'in-ground', trunkDiameterMm, heightM: 9 })
		};
	};
	const ground = (records = lawn()) => new GroundState({ records, kind, places: [bench], values, today });

	it('nothing is dug inside the structural root zone by itself', () => {
		for (const trunkDiameterMm of [120, 250, 400, 620, 900]) {
			const state = ground(lawn(trunkDiameterMm));
			state.toggle('loosening');
			expect(state.plan.loosening?.innerM ?? 0).toBeGreaterThanOrEqual(state.zones.srzM - 1e-9);
			expect(state.plan.loosening?.innerM ?? 0).toBeGreaterThanOrEqual(state.zones.noCutM - 1e-9);
		}
	});
	it('each piece comes with sizes that are valid, and goes again', () => {
		for (const part of ['hole', 'holding', 'collar', 'loosening', 'mulch', 'sulphur'] as const) {
			const state = ground();
			state.toggle(part);
			expect(state.plan[part], part).not.toBeNull();
			const read = groundPlanInput.safeParse(state.plan);
			// A pH nobody measured gives no sulphur: it is asked for.
			expect(
				read.error?.issues.map((issue) => issue.path.join('.')),
				part
			).toEqual(part === 'sulphur' ? ['sulphur.phNow'] : undefined);
			if (state.plan.sulphur) {
				// Nor is one that was found before an earlier dose what is found now.
				expect([state.plan.sulphur.phNow, state.amounts.sulphur]).toEqual([null, null]);
				state.plan.sulphur.phNow = 7.2;
				expect(groundPlanInput.safeParse(state.plan).success).toBe(true);
			}
			state.toggle(part);
			expect(state.plan[part], part).toBeNull();
		}
	});

	it('what nobody measured has its working value: soil over the collar, and how far round it is acidified', () => {
		const state = new GroundState({
			records: lawn(),
			kind,
			places: [bench],
			values: { ...values, 'collar.buriedMm': 150, 'acid.reachM': 2 },
			today
		});
		state.toggle('collar');
		expect(state.plan.collar?.depthMm).toBe(150 + values['collar.underFlareMm']);
		state.toggle('sulphur');
		expect(state.plan.sulphur?.areaM2).toBe(12.6);
		const usual = ground();
		usual.toggle('collar');
		expect(usual.plan.collar?.depthMm).toBe(values['collar.buriedMm'] + values['collar.underFlareMm']);
	});

	it.each([400, 410, 433, 95])(
		'keeps clear of a trunk of %i mm: nothing begins nearer than roots may be cut without an arborist',
		(trunkMm) => {
			const state = ground(lawn(trunkMm));
			state.toggle('loosening');
			const { innerM = 0, outerM = 0 } = state.plan.loosening ?? {};
			// Rounded to what one measures out, but never toward the trunk.
			expect(innerM).toBeGreaterThanOrEqual((3 * trunkMm) / 1000 - 1e-9);
			expect(innerM * 10).toBeCloseTo(Math.round(innerM * 10), 9);
			expect(outerM).toBeGreaterThan(innerM);
			// BS 5837:2012: twelve times the stem diameter.
			expect(state.zones.rpaM).toBeCloseTo((12 * trunkMm) / 1000, 9);
		}
	);

	it('mulch keeps off the trunk', () => {
		const state = ground();
		state.toggle('mulch');
		expect(state.plan.mulch?.innerM).toBeGreaterThan(0.2);
	});

	it('mulch covers the hole a tree is set in, and for as long as its roots are in there', () => {
		const planting = ground();
		planting.toggle('hole');
		planting.toggle('mulch');
		const widthMm = planting.plan.hole?.widthMm ?? 0;
		expect(planting.plan.mulch?.outerM).toBeCloseTo(Math.round(widthMm / 200) / 10, 9);
		const set = (doneOn: string) => {
			const plan = groundPlanSchema.parse({
				id: 'g',
				version: 1,
				plannedOn: doneOn,
				doneOn,
				hole: { widthMm: 800, depthMm: 250, ballDiameterMm: 400, ballDepthMm: 250 },
				note: ''
			});
			const state = ground({ ...lawn(), groundPlans: [plan] });
			state.toggle('mulch');
			return state.plan.mulch?.outerM;
		};
		const held = values['mulch.holeDays'];
		expect(set(addDays(today, -held))).toBe(0.4);
		// Its roots have left the hole; those of a tree of 0.4 m are protected farther than anybody spreads mulch.
		expect(set(addDays(today, -held - 1))).toBe(values['mulch.mostM']);
	});
	it('a test hole is what somebody timed at its place: no drain time of a pot, nor one of another place', () => {
		const drained = measurementSchema.parse({
			id: 'd',
			version: 1,
			measuredOn: '2026-04-01',
			raw: { tool: 'drain-time', minutes: 2 },
			note: ''
		});
		const fromPot = ground({ ...lawn(), measurements: [drained] });
		fromPot.toggle('hole');
		expect([fromPot.drainMin, fromPot.plan.hole?.drainMinutes]).toEqual([null, null]);
		for (const typedFirst of [true, false]) {
			const timed = ground();
			if (!typedFirst) timed.toggle('hole');
			timed.setDrain(200);
			if (typedFirst) timed.toggle('hole');
			expect([timed.drainMin, timed.plan.hole?.drainMinutes]).toEqual([200, 200]);
			timed.setDrain(null);
			expect([timed.drainMin, timed.plan.hole?.drainMinutes]).toEqual([null, null]);
		}
		const done = groundPlanSchema.parse({
			id: 'g',
			version: 1,
			plannedOn: '2026-03-01',
			doneOn: '2026-03-01',
			hole: { widthMm: 800, depthMm: 250, ballDiameterMm: 400, ballDepthMm: 250, drainMinutes: 90 },
			note: ''
		});
		const again = ground({ ...lawn(), groundPlans: [done] });
		expect(again.drainMin).toBe(90);
		// Known of where it stands, and written into no new hole by itself.
		again.toggle('hole');
		expect([again.drainMin, again.plan.hole?.drainMinutes]).toEqual([90, null]);
		again.plan.placeId = 'elsewhere';
		expect(again.drainMin).toBeNull();
		expect(groundWorkSaid(done)).toMatch(/\(a test hole emptied in 90 minutes\)$/);
		expect(groundWorkSaid({ ...done, hole: done.hole && { ...done.hole, drainMinutes: null } })).not.toMatch(
			/test hole/
		);
	});
	it('mulch ends between its least and its most, and never under the trunk', () => {
		const ring = (trunkM: number, rootsM: number, holeWidthMm: number | null = null) =>
			mulchRing({ trunkM, rootsM, holeWidthMm }, values);
		expect(ring(0.05, 0.4)).toEqual({ innerM: 0.1, outerM: values['mulch.leastM'], depthMm: 75 });
		expect(ring(0.05, 1.7).outerM).toBe(1.7);
		expect(ring(0.05, 9).outerM).toBe(values['mulch.mostM']);
		expect(ring(0.4, 9, 300)).toEqual({ innerM: 0.3, outerM: 0.4, depthMm: 75 });
	});

	it('opens a buried collar as deep as was measured, and under the flare', () => {
		const records = lawn();
		const measured = measurementSchema.parse({
			id: 'c',
			version: 1,
			measuredOn: '2026-04-01',
			raw: { tool: 'collar', flare: 'none', buriedMm: 180 },
			note: ''
		});
		const state = ground({ ...records, measurements: [measured] });
		state.toggle('collar');
		expect(state.plan.collar?.depthMm).toBe(180 + values['collar.underFlareMm']);
	});

	it('goes on from a plan that is open, not from one that was done', () => {
		const plan = groundPlanSchema.parse({
			id: 'g',
			version: 2,
			plannedOn: '2026-03-01',
			mulch: { innerM: 0.3, outerM: 2, depthMm: 60 },
			note: 'chips'
		});
		expect(ground({ ...lawn(), groundPlans: [plan] }).plan.note).toBe('chips');
		const done = { ...plan, doneOn: '2026-03-05' };
		expect(ground({ ...lawn(), groundPlans: [done] }).plan.mulch).toBeNull();
	});

	it('draws no roots of a pot into the ground', () => {
		expect(ground(treeRecords()).segments).toEqual([]);
	});
});

describe('the first water', () => {
	const pressing = (conditionId: ConditionId): ReplantOf['urgent'] => ({
		conditionId,
		subject: conditionId,
		chance: 0.9,
		on: today,
		atRoots: conditionId === 'root-rot',
		stage: 'roots',
		water: 'less',
		pot: null,
		meaning: '',
		untilOn: '2099-01-01'
	});
	it('waits for a dry rest where it stood wet, never for torn roots alone: woody roots are watered at once', () => {
		const school = (conditionId: ConditionId) =>
			new ReplantState(of({ urgent: pressing(conditionId) })).waterSchool;
		for (const wet of ['root-rot', 'sour-root-zone', 'collapsed-mix'] as const)
			expect(school(wet), wet).toBe('dry-rest');
		for (const few of ['recent-root-loss', 'repotted-too-early'] as const)
			expect(school(few), few).toBe('at-once');
		expect(new ReplantState(of()).waterSchool).toBe('at-once');
	});
});
