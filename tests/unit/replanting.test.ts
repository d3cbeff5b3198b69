import { plain } from '$core/text/format';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { placeSchema } from '$core/vocabulary/place';
import { coldLimit, type NewShoots } from '$core/climate/cold-limit';
import { nightTemperature } from '$core/climate/normals';
import { siteCheck, siteVerdict } from '$core/replant/ground/site-check';
import { kitList, type KitWork } from '$core/replant/kit/kit';
import { shippedKinds } from '$core/vocabulary/shipped';
import { liftStops, liftInput } from '$core/replant/lifting/lift';
import { emptyRoute, judgeRoute } from '$core/replant/lifting/route';
import {
	benchTest,
	benchTestInput,
	bodyOf,
	mixReuse,
	newMix,
	sameMix,
	weighTest,
	weighTestInput
} from '$core/replant/mixes/bench-test';
import { pottingMixOf } from '$core/replant/mixes/mixes';
import { reachMix } from '$core/replant/mixes/reach';
import { mixBody, waterAndAir } from '$core/replant/mixes/retention';
import { ballOfSizes } from '$core/replant/pots/fit';
import { judgePot, proposePots, rankPots, type PotQuestion } from '$core/replant/pots/rank';
import { layerAmounts, plantingInput } from '$core/replant/pots/replant-plan';
import { extraHoles, heldWind, moundL, seatSchema, wireHoles, wiresOver } from '$core/replant/pots/seat';
import { asPot, potSchema, potVolumeL, roundPot } from '$core/replant/pots/volume';
import { parseQuickRoot } from '$core/roots/io/quick-entry';
import { segmentFromQuick, startAzimuth } from '$core/roots/map/root-map';
import { draw, stockItemSchema } from '$core/replant/kit/stock';
import { defaultValues as values } from '$core/values/values';
import { dailyDemandL } from '$core/replant/pots/demand';
import { dryDown, steadyDays } from '$core/replant/pots/dry-down';
import { nobodyElse } from '$core/replant/pots/stores';

const question = (change: Partial<PotQuestion> = {}): PotQuestion => ({
	ball: ballOfSizes(220, 130, values['pot.ballShape']),
	ballDiameterMm: 220,
	ballDepthMm: 130,
	standing: { tiltDeg: 0, tiltTowardDeg: 0 },
	mix: pottingMixOf('pumice-bark'),
	coarseLayerMm: 0,
	coarseId: 'grit-coarse',
	moundMm: 0,
	topLayerMm: 0,
	headspaceMm: 20,
	flareOverRimMm: -20,
	wetnessTrigger: 0.5,
	days: steadyDays({ et0Mm: 3, inLeaf: true }),
	crownWidthMm: 500,
	rootFunction: 1,
	heightM: 1,
	largerWidthMm: 270,
	sameWidthMm: 250,
	others: nobodyElse,
	...change
});

describe('pots', () => {
	it('stand upright where their shape says so, and hold what a cylinder or a box holds', () => {
		const bag = asPot('bag', {
			topLengthMm: 400,
			topWidthMm: 1,
			bottomLengthMm: 100,
			bottomWidthMm: 1,
			heightMm: 300
		});
		expect(bag).toMatchObject({ topWidthMm: 400, bottomLengthMm: 400, bottomWidthMm: 400 });
		expect(potVolumeL(bag)).toBeCloseTo((Math.PI * 0.2 ** 2 * 0.3 * 1e9) / 1e6, 6);
		const tray = asPot('tray', {
			topLengthMm: 600,
			topWidthMm: 400,
			bottomLengthMm: 10,
			bottomWidthMm: 10,
			heightMm: 100
		});
		expect(potVolumeL(tray)).toBeCloseTo(24, 9);
	});
	it('that no mould makes are refused, and so is a negative headspace', () => {
		const deep = potSchema.safeParse(roundPot(200, 150, 1200));
		expect(deep.error?.issues[0]?.message).toMatch(/no pot is made so deep/);
		expect(potSchema.safeParse(roundPot(200, 150, 800)).success).toBe(true);
		const planting = plantingInput.safeParse({
			plantedOn: '2026-04-18',
			pot: roundPot(300, 240, 200),
			sizeRule: 'normal',
			ballDiameterMm: 220,
			ballDepthMm: 130,
			mix: pottingMixOf('pumice'),
			headspaceMm: -5
		});
		expect(planting.error?.issues[0]).toMatchObject({ path: ['headspaceMm'] });
	});
	it('a wider one of the same depth never fits worse, and never dries sooner', () => {
		fc.assert(
			fc.property(
				fc.integer({ min: 160, max: 500 }),
				fc.integer({ min: 5, max: 200 }),
				fc.integer({ min: 120, max: 300 }),
				(width, wider, heightMm) => {
					const small = judgePot(roundPot(width, width * 0.8, heightMm), null, question(), values);
					const large = judgePot(
						roundPot(width + wider, (width + wider) * 0.8, heightMm),
						null,
						question(),
						values
					);
					expect(large.fit.tightest.clearanceMm).toBeGreaterThanOrEqual(small.fit.tightest.clearanceMm - 0.5);
					if (small.fit.fits) expect(large.fit.fits).toBe(true);
					if (small.fit.fits) expect(large.dryDownDays).toBeGreaterThan(small.dryDownDays * 0.999);
				}
			),
			{ numRuns: 40 }
		);
	});
	it('are ranked: what goes in and dries well first, what must be shaved least before what must be shaved more', () => {
		const pots = [
			{ name: 'far too small', pot: roundPot(150, 120, 160), massKg: null },
			{ name: 'too small', pot: roundPot(210, 170, 160), massKg: null },
			{ name: 'right', pot: roundPot(280, 230, 170), massKg: null },
			{ name: 'huge', pot: roundPot(700, 600, 400), massKg: null }
		];
		const ranked = rankPots(
			pots,
			question({ crownWidthMm: 450, days: steadyDays({ et0Mm: 2, inLeaf: true }) }),
			'larger',
			values
		);
		expect(ranked.map((entry) => entry.name)).toEqual(['right', 'huge', 'too small', 'far too small']);
		expect(ranked[1]?.judged.verdict).toBe('over');
		expect(ranked[0]?.judged.offLargerMm).toBe(10);
		expect(ranked[0]?.judged.offSameMm).toBe(30);
	});
	it('proposed by rule take the ball, the deep ones as well', () => {
		for (const entry of proposePots(question(), 'round', values)) {
			expect(judgePot(entry.pot, null, question(), values).fit.fits, entry.name).toBe(true);
			expect(potSchema.safeParse(entry.pot).success).toBe(true);
		}
		const [, deep] = proposePots(question(), 'box', values);
		expect(deep?.pot.bottomLengthMm).toBe(deep?.pot.topLengthMm);
	});
	it('nothing drawn means no end to the wet; half the roots drink half', () => {
		const stores = { rootedMostL: 2, unrootedMostL: 3, surfaceM2: 0.1, crownM2: 0.5 };
		const days = (et0Mm: number, inLeaf = true, phi = 1, trigger = 0.5) =>
			dryDown(stores, steadyDays({ et0Mm, inLeaf }), trigger, phi, values);
		expect(days(0)).toBe(Infinity);
		expect(days(4)).toBeLessThan(days(4, false));
		expect(days(4)).toBeLessThan(days(4, true, 0.5));
		expect(days(4, true, 1, 0.3)).toBeLessThan(days(4, true, 1, 0.6));
		// What is not dry within the days that are known is reckoned on from them, never cut off at their end.
		expect(days(0.01)).toBeGreaterThan(120);
		const full = dailyDemandL({ et0Mm: 4, crownM2: 0.5, rootFunction: 1, surfaceM2: 0.1 }, values);
		const half = dailyDemandL({ et0Mm: 4, crownM2: 0.5, rootFunction: 0.5, surfaceM2: 0.1 }, values);
		expect(half.transpirationL).toBeCloseTo(full.transpirationL / 2, 12);
		expect(half.evaporationL).toBe(full.evaporationL);
	});
});

describe('a measured mix', () => {
	it('worked example: 10 L took up 7 L and let 2.5 L go', () => {
		expect(benchTest({ fillL: 10, takenUpL: 7, drainedL: 2.5 })).toEqual({
			porosity: 0.7,
			containerCapacity: 0.45,
			airSpace: 0.25,
			dryKgL: null
		});
	});
	it('two weighings give the water, a third the pores', () => {
		const two = weighTest({ fillL: 2, dryKg: 1, drainedKg: 1.9, fullKg: null }, 0.65);
		expect(two.containerCapacity).toBeCloseTo(0.45, 9);
		expect(two.dryKgL).toBeCloseTo(0.5, 9);
		expect(weighTest({ fillL: 2, dryKg: 1, drainedKg: 1.9, fullKg: 2.4 }, 0.65).porosity).toBeCloseTo(0.7, 9);
		// More water than the parts could hold: the scale is right.
		expect(weighTest({ fillL: 2, dryKg: 1, drainedKg: 2.5, fullKg: null }, 0.65).airSpace).toBe(0);
	});
	it('impossible tests are refused, saying what is wrong', () => {
		const first = (read: { error?: { issues: { message: string }[] } | undefined }) =>
			read.error?.issues[0]?.message;
		expect(first(benchTestInput.safeParse({ fillL: 1, takenUpL: 2, drainedL: 0 }))).toMatch(/mix itself/);
		expect(first(benchTestInput.safeParse({ fillL: 5, takenUpL: 2, drainedL: 3 }))).toMatch(/poured in/);
		expect(first(weighTestInput.safeParse({ fillL: 1, dryKg: 2, drainedKg: 1 }))).toMatch(/heavier/);
	});
	it('takes the place of the grain sizes: exact at the tested depth, wetter in a shallower pot, airier in a deeper one', () => {
		fc.assert(
			fc.property(
				fc.double({ min: 0.5, max: 0.9, noNaN: true }),
				fc.double({ min: 0.25, max: 0.85, noNaN: true }),
				fc.integer({ min: 60, max: 400 }),
				(porosity, waterShare, depthMm) => {
					const measured = {
						measuredOn: '2026-03-01',
						how: 'volumes' as const,
						depthMm,
						porosity,
						containerCapacity: porosity * waterShare,
						dryKgL: null
					};
					const body = bodyOf({ ...pottingMixOf('pumice-bark'), measured }, values);
					const at = (mm: number) =>
						waterAndAir(body, { depthMm: mm }, { coarseLayerMm: 0, coarsePoreMm: 1 }, mm);
					expect(at(depthMm).containerCapacity).toBeCloseTo(measured.containerCapacity, 3);
					expect(at(depthMm).porosity).toBeCloseTo(porosity, 9);
					expect(at(depthMm / 2).airSpace).toBeLessThanOrEqual(at(depthMm).airSpace + 1e-6);
					expect(at(depthMm * 2).airSpace).toBeGreaterThanOrEqual(at(depthMm).airSpace - 1e-6);
				}
			),
			{ numRuns: 60 }
		);
	});
	it('the same parts in the same proportions are the same mix', () => {
		const a = pottingMixOf('pumice-bark');
		expect(sameMix(a, { parts: a.parts.map((part) => ({ ...part, parts: part.parts * 2 })) })).toBe(true);
		expect(sameMix(a, pottingMixOf('pumice'))).toBe(false);
	});
	it('old mix after rot, pests or of unknown history goes in only with a reason', () => {
		for (const history of ['rot', 'pests', 'unknown'] as const) {
			expect(mixReuse.safeParse({ history, because: '' }).success, history).toBe(false);
			expect(mixReuse.safeParse({ history, because: 'Steamed at 80 °C.' }).success, history).toBe(true);
		}
		expect(mixReuse.safeParse({ history: 'healthy', because: '' }).success).toBe(true);
	});
	it('the cheapest of what will do is never dearer than the nearest, and does as well', () => {
		const stock = ['pumice-medium', 'perlite', 'bark-fine', 'grit-coarse'] as const;
		const wish = { airFrom: 0.2, airTo: 0.35, waterFrom: 0, waterTo: 1 };
		const pricePerL = { 'pumice-medium': 0.64, perlite: 0.21, 'bark-fine': 0.19, 'grit-coarse': 0.28 };
		const find = (prefer: 'change' | 'cost') =>
			reachMix(
				stock,
				wish,
				{ pot: { depthMm: 180 }, layer: { coarseLayerMm: 0, coarsePoreMm: 1 }, fillMm: 180 },
				values,
				{ begin: pottingMixOf('pumice-bark').parts, prefer, pricePerL }
			)[0];
		const [near, cheap] = [find('change'), find('cost')];
		expect(cheap?.miss).toBeLessThanOrEqual(near?.miss ?? 0);
		expect(cheap?.costPerL ?? 9).toBeLessThanOrEqual(near?.costPerL ?? 0);
		expect(near?.change ?? 9).toBeLessThanOrEqual(cheap?.change ?? 0);
		// Cost by hand: parts × price over what they make together.
		const byHand =
			(near?.parts.reduce(
				(sum, part) => sum + (pricePerL[part.componentId as keyof typeof pricePerL] * part.parts) / 10,
				0
			) ?? 0) / mixBody(near?.parts ?? [], values).yield;
		expect(near?.costPerL).toBeCloseTo(byHand, 9);
	});
});

describe('setting', () => {
	const roots = [
		'6:00 30 anchor',
		'6:40 28 anchor',
		'9:00 22 scaffold',
		'12:00 26 anchor dead',
		'1:30 25 anchor',
		'4:00 8 feeder'
	].map((line, i) => {
		const entry = parseQuickRoot(line, 'container', 90, values);
		if (!entry.ok) throw new Error(entry.problem);
		return segmentFromQuick(entry.root, { trunkDiameterMm: 90, ballRadiusMm: 200 }, `r${i + 1}`);
	});
	it('wires go over sound structural roots that stay, far enough apart, with two holes each in the floor', () => {
		const wires = wiresOver(roots, new Set(['r5']), values);
		expect(wires.map((wire) => wire.rootId).sort()).toEqual(['r1', 'r3']);
		const all = wiresOver(roots, new Set(), values);
		for (const [i, a] of all.entries())
			for (const b of all.slice(i + 1)) {
				const [from, to] = [a, b].map((wire) =>
					startAzimuth(roots.find((root) => root.id === wire.rootId) ?? { course: [] })
				);
				const turn = Math.abs((from ?? 0) - (to ?? 0)) % 360;
				expect(Math.min(turn, 360 - turn)).toBeGreaterThanOrEqual(values['seat.wireApartDeg']);
			}
		const holes = wireHoles(all, roundPot(360, 300, 200), values);
		expect(holes).toHaveLength(2 * all.length);
		for (const hole of holes) expect(hole.radiusMm).toBeLessThanOrEqual(150 - values['seat.holeFromEdgeMm']);
	});
	it('a mound is a cone over its share of the surface', () => {
		// π r² h / 3, r = 150 at a straight wall, no headspace.
		expect(moundL(roundPot(300, 300, 200), 0, 30, values)).toBeCloseTo(
			((Math.PI * 150 ** 2 * 30) / 3e6) * values['seat.moundCover'],
			9
		);
		const flat = layerAmounts(
			{
				pot: roundPot(300, 240, 200),
				ballDiameterMm: 220,
				ballDepthMm: 120,
				coarseLayerMm: 0,
				topLayerMm: 0,
				headspaceMm: 20
			},
			values
		);
		expect(flat.moundL).toBe(0);
	});
	it('drain holes are added until the floor is open enough', () => {
		const pot = roundPot(300, 240, 200);
		const need = extraHoles(pot, { count: 0, holeMm: 0 }, 25, values);
		const open = need * Math.PI * 12.5 ** 2;
		expect(open).toBeGreaterThanOrEqual(Math.PI * 120 ** 2 * values['seat.openFloor']);
		expect(open - Math.PI * 12.5 ** 2).toBeLessThan(Math.PI * 120 ** 2 * values['seat.openFloor']);
		expect(extraHoles(pot, { count: 20, holeMm: 25 }, 25, values)).toBe(0);
	});
	it('holding never makes it weaker: stones help, ties more', () => {
		fc.assert(
			fc.property(
				fc.double({ min: 1, max: 80, noNaN: true }),
				fc.double({ min: 0, max: 30, noNaN: true }),
				fc.double({ min: 0.2, max: 3, noNaN: true }),
				(ballKg, stoneKg, crownMiddleM) => {
					const held = heldWind(
						{ massKg: ballKg, widthMm: 250, depthMm: 130 },
						{ massKg: ballKg * 1.8, baseWidthMm: 260, crownAreaM2: 0.4, crownMiddleM },
						stoneKg,
						values
					);
					expect(held.stonesMs).toBeGreaterThanOrEqual(held.looseMs - 1e-9);
					expect(held.tiedMs).toBeGreaterThanOrEqual(held.stonesMs - 1e-9);
				}
			)
		);
	});
	it('what is held must say when it is let go', () => {
		const seat = {
			height: 'mound',
			flareOverRimMm: 5,
			moundMm: 20,
			screens: 1,
			extraHoles: 0,
			holeMm: 20,
			pockets: 'stick',
			firming: 'press',
			wires: [],
			pads: 0,
			stones: 2,
			stoneKg: 4,
			offOn: null
		};
		expect(seatSchema.safeParse({ ...seat, holding: 'stones' }).error?.issues[0]?.message).toMatch(
			/come off/
		);
		expect(seatSchema.safeParse({ ...seat, holding: 'own-stance' }).success).toBe(true);
	});
});

describe('stock and kit', () => {
	const item = (change: object) =>
		stockItemSchema.parse({
			id: 'i',
			version: 1,
			item: 'perlite',
			packSize: 20,
			packs: 3,
			opened: 5,
			...change
		});
	it('what is drawn and what is left are what was there; it never goes below nothing', () => {
		fc.assert(
			fc.property(
				fc.double({ min: 0, max: 300, noNaN: true }),
				fc.integer({ min: 0, max: 9 }),
				fc.double({ min: 0, max: 40, noNaN: true }),
				(need, packs, opened) => {
					const taken = draw(need, item({ packs, opened }));
					const left = taken.left.packs * 20 + taken.left.opened;
					expect(left + Math.min(need, taken.have)).toBeCloseTo(taken.have, 6);
					expect(taken.left.opened).toBeGreaterThanOrEqual(0);
					expect(taken.left.packs).toBe(packs - taken.open);
					expect(taken.short).toBeCloseTo(Math.max(0, need - taken.have), 6);
				}
			)
		);
	});
	it('opens no bag while what is open reaches, and says how many to buy', () => {
		expect(draw(5, item({})).open).toBe(0);
		expect(draw(5.1, item({})).open).toBe(1);
		expect(draw(45, item({})).left).toEqual({ packs: 1, opened: 0 });
		expect(draw(90, item({ price: 10 }))).toMatchObject({
			open: 3,
			short: 25,
			buyPacks: 2,
			buyCost: 20,
			usedCost: 45
		});
		expect(draw(7, null)).toMatchObject({ have: 0, short: 7, buyPacks: null, usedCost: null });
	});
	const pot = roundPot(190, 145, 150);
	const work = (plantCount: number): KitWork => ({
		plantCount,
		thickestMm: 40,
		planting: {
			pot,
			mix: pottingMixOf('pumice-bark'),
			reuse: newMix,
			amounts: layerAmounts(
				{ pot, ballDiameterMm: 120, ballDepthMm: 100, coarseLayerMm: 10, topLayerMm: 0, headspaceMm: 15 },
				values
			),
			coarseId: 'grit-coarse',
			topId: null,
			seat: null,
			stockPot: { name: 'Nursery pot', count: 31, price: 0.5 }
		},
		lift: null,
		ground: null
	});
	it('a lot of forty is forty times one, and its pots fall short', () => {
		const [one, forty] = [kitList(work(1), [], values), kitList(work(40), [], values)];
		for (const line of one.materials)
			expect(forty.materials.find((other) => other.item === line.item)?.need).toBeCloseTo(line.need * 40, 6);
		expect(forty.pots).toMatchObject({ need: 40, have: 31, short: 9, buyCost: 4.5 });
	});
	it('what holds it is on the list: wire, pads and pliers for ties, stones for stones', () => {
		const begun = work(2);
		const held = (seat: object) =>
			kitList(
				{ ...begun, planting: begun.planting && { ...begun.planting, seat: seatSchema.parse(seat) } },
				[],
				values
			);
		const common = {
			height: 'below-rim',
			flareOverRimMm: -15,
			moundMm: 0,
			screens: 2,
			extraHoles: 3,
			holeMm: 22,
			pockets: 'stick',
			firming: 'loose',
			wires: [],
			pads: 0,
			stones: 0,
			stoneKg: 0,
			offOn: '2027-04-01'
		};
		const tied = held({
			...common,
			holding: 'wires',
			pads: 2,
			wires: [
				{ rootId: 'a', azimuthDeg: 0, radiusMm: 50 },
				{ rootId: 'b', azimuthDeg: 120, radiusMm: 50 }
			]
		});
		const need = (kit: typeof tied, item: string) => kit.materials.find((line) => line.item === item)?.need;
		expect(need(tied, 'pad')).toBe(4);
		expect(need(tied, 'wire')).toBeGreaterThan(0);
		// Screens over old holes and new ones, of both plants.
		expect(need(tied, 'mesh')).toBeCloseTo((2 + 3) * (values['kit.screenMm'] / 1000) ** 2 * 2, 9);
		expect(tied.tools).toContain('pliers, drill for wire holes');
		expect(tied.tools.map(plain)).toContain('drill bit 22 mm');
		const stood = held({ ...common, holding: 'stones', stones: 3, stoneKg: 6 });
		expect(need(stood, 'stone')).toBe(6);
		expect(need(stood, 'wire')).toBeUndefined();
	});
	it('a lift takes wrap and twine round the ball; what can harm brings its protection', () => {
		const lift = { ballDiameterMm: 600, ballDepthMm: 350, people: 2, way: 'a sling' };
		const kit = kitList({ plantCount: 1, thickestMm: 0, planting: null, lift, ground: null }, [], values);
		// Side, top and floor of a cylinder of 0.6 by 0.35 m.
		const surface = Math.PI * 0.6 * 0.35 + 2 * Math.PI * 0.3 ** 2;
		expect(kit.materials.find((line) => line.item === 'wrap')?.need).toBeCloseTo(
			surface * (1 + values['kit.wrapOverlap']),
			9
		);
		// So many turns round 0.6 m, for each of them.
		const twine = (plantCount: number) =>
			kitList({ plantCount, thickestMm: 0, planting: null, lift, ground: null }, [], values).materials.find(
				(line) => line.item === 'twine'
			)?.need;
		expect(twine(1)).toBeCloseTo(Math.PI * 0.6 * values['kit.twineTurns'], 9);
		expect(twine(3)).toBeCloseTo(3 * Math.PI * 0.6 * values['kit.twineTurns'], 9);
		expect(kit.tools).toContain('2 people: a sling');
		expect(kit.tools[0]).toMatch(/no root was measured/);
		expect(kit.pots).toBeNull();
		expect(kit.protection.join(' ')).toMatch(/services located/);
	});
	it('old mix draws on no bag; the tools match the thickest root', () => {
		const begun = work(1);
		const old = kitList(
			{
				...begun,
				planting: begun.planting && { ...begun.planting, reuse: { history: 'healthy', because: '' } }
			},
			[],
			values
		);
		expect(old.materials.map((line) => line.item)).toEqual(['grit-coarse', 'label']);
		expect(plain(kitList(work(1), [], values).tools[0] ?? '')).toMatch(/saw for roots up to 40 mm/);
		expect(kitList({ ...work(1), thickestMm: 8 }, [], values).tools[0]).toBe('loppers and secateurs');
	});
});

describe('the way there', () => {
	const ball = {
		diameterMm: 700,
		depthMm: 400,
		mostKg: 280,
		heightM: 2,
		way: 'barrow or machine',
		plantCount: 1
	};
	it('a gate that is too narrow and a vehicle that is too weak stop it', () => {
		const answers = judgeRoute({ ...emptyRoute, narrowestMm: 650, payloadKg: 300 }, ball, values);
		expect(answers.filter((one) => one.answer === 'stop')).toHaveLength(2);
		expect(answers.some((one) => one.answer === 'unknown')).toBe(true);
	});
	it('counts journeys for a lot, and warns of steps and of what stands out of the van', () => {
		const answers = judgeRoute(
			{ ...emptyRoute, narrowestMm: 1200, carryM: 5, steps: 3, payloadKg: 1000, loadLengthMm: 2000 },
			{ ...ball, plantCount: 7 },
			values
		);
		const text = answers.map((one) => one.text).join(' ');
		expect(text).toMatch(/3 at a time: 3 journeys/);
		expect(text).toMatch(/no barrow/);
		expect(plain(text)).toMatch(/2.4 m long/);
	});
	it('nobody digs before permission, services and the authority', () => {
		expect(liftStops('own', null)).toEqual([]);
		expect(
			liftStops('not-yet', { protectedSpecies: true, servicesLocated: false, pests: 'root' })
		).toHaveLength(4);
	});
	it('a soak that was none has no minutes, and a step is ticked once', () => {
		const lift = {
			plannedOn: '2026-04-18',
			school: 'field',
			reading: 'across',
			ballDiameterMm: 400,
			ballDepthMm: 250,
			route: {},
			ticks: ['rings', 'rings']
		};
		expect(liftInput.safeParse(lift).error?.issues[0]?.message).toMatch(/once/);
		const log = {
			liftedOn: '2026-04-18',
			ballDiameterMm: 380,
			ballDepthMm: 200,
			outMinutes: 30,
			soak: 'wetted',
			soakMinutes: 10
		};
		expect(liftInput.safeParse({ ...lift, ticks: [], log }).error?.issues[0]?.path).toEqual([
			'log',
			'soakMinutes'
		]);
	});
});

describe('a place against a kind', () => {
	const place = (change: object) =>
		placeSchema.parse({
			id: 'p',
			version: 1,
			name: 'There',
			kind: 'garden',
			latitudeDeg: 52,
			note: '',
			...change
		});
	const kindOf = (id: string) => {
		const kind = shippedKinds.find((one) => one.id === id);
		if (!kind) throw new Error(id);
		return { ...kind, origin: 'shipped' as const, version: 1 };
	};
	const ask = (id: string, change: object, inGround: boolean, drainMin: number | null = null) =>
		siteCheck(
			kindOf(id),
			place(change),
			{ inGround, today: '2026-04-18', drainMin, rootsCutOn: null, newShoots: 'none' },
			values
		);
	it('a tropical tree in an open garden is stopped; a hornbeam is not', () => {
		expect(siteVerdict(ask('bougainvillea', {}, true))).toBe('stop');
		expect(ask('carpinus', {}, true).find((one) => one.what === 'cold')?.answer).toBe('ok');
	});
	it('judges by the one rule of cold what it stands now, and says what it stands hardened', () => {
		const [kind, there] = [kindOf('carpinus'), place({ kind: 'open' })];
		const cold = (rootsCutOn: string | null, inGround = false, newShoots: NewShoots = 'none') =>
			siteCheck(
				kind,
				there,
				{ inGround, today: '2026-04-18', drainMin: null, rootsCutOn, newShoots },
				values
			).find((one) => one.what === 'cold');
		const rule = coldLimit(
			{ kind, place: null, lastCutOn: '2026-04-10', inGround: false, newShoots: 'none' },
			'2026-04-18',
			values
		);
		expect(plain(cold(null)?.because ?? '')).toContain(`it stands ${kind.coldestC} °C now;`);
		expect(plain(cold('2026-04-10')?.because ?? '')).toContain(
			`it stands ${Math.round(rule.limitC)} °C now, with roots freshly cut;`
		);
		expect(plain(cold('2026-04-10')?.because ?? '')).toContain(
			`stands ${kind.coldestC} °C hardened in a pot`
		);
		expect(plain(cold('2025-04-10')?.because ?? '')).toContain(`it stands ${kind.coldestC} °C now;`);
		expect(cold('2026-04-10', true)?.because).not.toContain('freshly cut');
		// In the ground it stands more, now as hardened.
		expect(plain(cold(null, true)?.because ?? '')).toContain(
			`it stands ${kind.coldestC - values['site.groundHardierC']} °C now;`
		);
		expect(cold(null, false, 'out')?.because).toContain('tender new shoots');
		// A night that only a grown root system stands stops it.
		expect(cold('2026-04-10')?.answer === 'stop').toBe(
			nightTemperature(there, '2026-04-18', values).coldC < rule.limitC
		);
	});
	it('warns of a night as near to what it stands as Today does, but not where heating holds it', () => {
		const kind = kindOf('carpinus');
		const ask = (kindOfPlace: string, marginC: number, inGround = false) =>
			siteCheck(
				// Freshly cut, it stands the least of all year.
				kind,
				place({ kind: kindOfPlace, latitudeDeg: 43, heldMinimumC: kindOfPlace === 'heated' ? 4 : null }),
				{ inGround, today: '2026-04-18', drainMin: null, rootsCutOn: '2026-04-10', newShoots: 'none' },
				{ ...values, 'cold.marginC': marginC }
			).find((one) => one.what === 'cold');
		const night = nightTemperature(place({ kind: 'open', latitudeDeg: 43 }), '2026-04-18', values).coldC;
		const rule = coldLimit(
			{ kind, place: null, lastCutOn: '2026-04-10', inGround: false, newShoots: 'none' },
			'2026-04-18',
			values
		);
		const above = night - rule.limitC;
		expect(above).toBeGreaterThan(0);
		expect(ask('open', above - 0.01)?.answer).toBe('ok');
		expect(ask('open', above - 0.01)?.because).not.toContain('ready');
		expect(ask('open', above + 0.01)?.answer).toBe('warn');
		expect(ask('open', above + 0.01)?.because).toContain(', with roots freshly cut: have cover ready; one');
		expect(ask('heated', 20)?.because).not.toContain('ready');
	});
	it('water that stands in the test hole stops planting in the ground, and is not asked of a pot', () => {
		expect(ask('carpinus', {}, true, 2000).find((one) => one.what === 'drainage')?.answer).toBe('stop');
		expect(ask('carpinus', {}, false, 2000).some((one) => one.what === 'drainage')).toBe(false);
	});
	it('light, wind and water are warned of, and said to be unknown where nobody wrote them', () => {
		const answers = ask('adenium', { light: 'shade', wind: 'exposed', waterM: 90, kind: 'indoors' }, false);
		for (const what of ['light', 'wind', 'reach'])
			expect(answers.find((one) => one.what === what)?.answer, what).toBe('warn');
		for (const what of ['light', 'wind', 'reach'])
			expect(ask('carpinus', {}, false).find((one) => one.what === what)?.answer).toBe('unknown');
	});
});
