import { describe, expect, it } from 'vitest';
import { addDays } from '$core/maths/calendar';
import { bareDay } from '$core/climate/series';
import { girdlingSeverity } from '$core/examine/measuring/girdling';
import { growingSeason } from '$core/climate/normals';
import { courseKnown, potState } from '$core/aftercare/water/pot-state';
import { seasonPhase } from '$core/examine/diagnosis/context';
import { wiresOver } from '$core/replant/pots/seat';
import { copiesRound } from '$core/roots/map/root-map';
import { fitGrowth } from '$core/recovery/growth-curve';
import { fitInPot, ballOfSizes } from '$core/replant/pots/fit';
import { replantPlanSchema } from '$core/replant/pots/replant-plan';
import { pottingMixOf } from '$core/replant/mixes/mixes';
import { roundPot, type Pot } from '$core/replant/pots/volume';
import { emptyRoute, judgeRoute } from '$core/replant/lifting/route';
import { kitList, type KitWork } from '$core/replant/kit/kit';
import { measurementSchema } from '$core/examine/measuring/measurement';
import { parseQuickRoot } from '$core/roots/io/quick-entry';
import { rankFronts } from '$core/roots/setting/fronts';
import { readPenetrometerCsv } from '$core/examine/soil/penetrometer-csv';
import { readingWords } from '$core/examine/measuring/words';
import { rootMapInput, segmentFromQuick } from '$core/roots/map/root-map';
import { standingOf } from '$core/tree/standing';
import { defaultValues as values } from '$core/values/values';
import { observationSchema } from '$core/examine/looks/observation';
import { crownSupply } from '$core/aftercare/crown/crown';
import { plain } from '$core/text/format';
import { percent } from '$core/text/percent';
import { groundPlanSchema } from '$core/replant/ground/ground-plan';
import { bookEntrySchema } from '$core/aftercare/book/book';
import { examinationSchema } from '$core/examine/diagnosis/examination';
import { stoodLoss } from '$core/tree/losses';
import { proposeAftercare, waterSchoolOf } from '$lib/server/aftercare';
import { aftercareTasks } from '$core/aftercare/tasks/rules';
import { weighPot } from '$core/examine/measuring/weighing';
import { lookQuestions } from '$core/recovery/look';
import { trenchLayout } from '$core/replant/ground/loosening';
import { mixBody, waterAndAir } from '$core/replant/mixes/retention';
import { carryOver } from '$core/roots/plan/done';
import { reductionPlanQuestion } from '$core/roots/plan/reduction/question';
import { courseLengthMm, planPoint } from '$core/roots/map/geometry';
import { ribbon, ribbonAt } from '$core/roots/map/ribbon';
import { sideRoot } from '$core/roots/map/side-root';
import { plannedWork } from '$core/tree/planned';
import { treeWater } from '$core/tree/tree-water';
import { bench, cut, plantingOn, treeRecords, worked } from '../records';

/** What changes of single numbers, comparisons and conditions showed that no other test noticed, by what they change. */

const mapOf = (lines: readonly string[]) =>
	rootMapInput.parse({
		mappedOn: '2026-03-02',
		frame: 'ground',
		trunkDiameterMm: 60,
		ballRadiusMm: 200,
		segments: lines.map((line, i) => {
			const entry = parseQuickRoot(line, 'ground', 60, values);
			if (!entry.ok) throw new Error(entry.problem);
			return segmentFromQuick(entry.root, { trunkDiameterMm: 60, ballRadiusMm: 200 }, `r${i}`);
		})
	});

describe('a front tells how its roots spread', () => {
	it('in shares of both sides, that make a hundred', () => {
		// Seen from the front (180° behind the viewer's back): 20 mm at 90°, 10 mm at 270°.
		const fronts = rankFronts(mapOf(['0° 12 anchor', '90° 20 anchor', '270° 10 anchor']), values);
		const from = (deg: number) => fronts.find((front) => front.azimuthDeg === deg)?.reasons.map(plain) ?? [];
		expect(from(0)).toContain('roots spread 33 % to the left, 67 % to the right');
		expect(from(180)).toContain('roots spread 67 % to the left, 33 % to the right');
		expect(
			rankFronts(mapOf(['0° 12 anchor']), values).find((front) => front.azimuthDeg === 0)?.reasons
		).toContain('no root spreads to the sides');
	});
});

describe('the fronts of a tree', () => {
	it('rest on the roots that leave its trunk: a side root of one, and what lies deep or is dead, changes nothing', () => {
		const map = mapOf(['0° 12 anchor', '120° 20 anchor', '250° 16 anchor']);
		const ranked = rankFronts(map, values);
		const [root] = map.segments;
		if (!root) throw new Error('no root');
		const beside = (change: object) =>
			rankFronts({ ...map, segments: [...map.segments, { ...root, id: 'more', ...change }] }, values);
		expect(beside({ parentId: root.id })).toEqual(ranked);
		expect(beside({ condition: 'dead' })).toEqual(ranked);
		expect(beside({})).not.toEqual(ranked);
	});
});

describe('a root copied round', () => {
	it('stands at even turns, and no course winds on beyond two rounds', () => {
		const map = mapOf(['0° 12 anchor']);
		const wound = map.segments.map((segment) => ({
			...segment,
			keep: true,
			course: segment.course.map((point, i) => ({ ...point, azimuthDeg: i * 250 }))
		}));
		let id = 0;
		const copies = copiesRound(wound, 'r0', 3, () => `n${id++}`);
		expect(copies.map((copy) => copy.course.at(-1)?.azimuthDeg)).toEqual([620, 380]);
		for (const copy of copies) expect(copy.keep).toBe(false);
		for (const point of copies.flatMap((copy) => copy.course))
			expect(point.azimuthDeg).toBeLessThanOrEqual(720);
	});
});

describe('a growth curve', () => {
	it('is as unsure at a time as its three numbers make it: the middle of the curve by the delta rule', () => {
		// First tree of Draper & Smith 1981, exercise 24.N.
		const points = [
			[118, 30],
			[484, 58],
			[664, 87],
			[1004, 115],
			[1231, 120],
			[1372, 142],
			[1582, 145]
		].map(([time = 0, size = 0]) => ({ time, size }));
		const curve = fitGrowth(points);
		if (!curve) throw new Error('it fits');
		// Far beyond its rise only the asymptote is left: its error is the error of the curve.
		expect(curve.errorAt(60_000)).toBeCloseTo(curve.errors.asymptote, 6);
		// Long before it the curve is zero, surely.
		expect(curve.errorAt(-60_000)).toBeCloseTo(0, 6);
		// Between them three errors that hang together: less than if they did not.
		const apart = Math.hypot(
			curve.errors.asymptote / 2,
			(curve.errors.midpoint * curve.asymptote) / (4 * curve.scale)
		);
		expect(curve.errorAt(curve.midpoint)).toBeLessThan(apart);
		expect(curve.errorAt(curve.midpoint)).toBeGreaterThan(1);
	});
});

describe('a ball in a box that narrows', () => {
	it('has the room of the width at its own height', () => {
		const box = (bottomWidthMm: number): Pot => ({
			shape: 'rectangle',
			topLengthMm: 600,
			topWidthMm: 300,
			bottomLengthMm: 600,
			bottomWidthMm,
			heightMm: 200
		});
		const level = { tiltDeg: 0, tiltTowardDeg: 0, flareOverRimMm: 0, floorMm: 0 };
		const ball = ballOfSizes(200, 100, 0.98);
		const straight = fitInPot(ball, box(300), level);
		expect(straight.tightest.clearanceMm).toBeCloseTo(50, 0);
		// Floor of 200: at a height h of 200 the width is 200 + h / 2, and the ball reaches from 100 up to the rim.
		const narrowed = fitInPot(ball, box(200), level);
		expect(narrowed.tightest.clearanceMm).toBeLessThan(straight.tightest.clearanceMm - 10);
		expect(narrowed.tightest.clearanceMm).toBeGreaterThan(25);
	});
});

describe('what the vehicle carries', () => {
	const ball = { diameterMm: 500, depthMm: 400, mostKg: 60.3, heightM: 1.6, way: 'barrow', plantCount: 1 };
	const needKg = ball.mostKg * (1 + values['route.treeKg']);
	const judged = (payloadKg: number) =>
		judgeRoute({ ...emptyRoute, payloadKg }, ball, values).find(({ text }) => /vehicle carries/.test(text));
	it('is the heaviest ball with its tree, told whole', () => {
		expect(judged(needKg)?.answer).toBe('ok');
		const over = judged(50.5);
		expect(over?.answer).toBe('stop');
		expect(plain(over?.text ?? '')).toBe(
			`With wet clay and the tree it may weigh ${Math.round(needKg)} kg; the vehicle carries 50.5 kg.`
		);
	});
});

describe('the load space', () => {
	const ball = { diameterMm: 500, depthMm: 400, mostKg: 60, heightM: 1.6, way: 'barrow', plantCount: 1 };
	const said = (loadLengthMm: number) =>
		judgeRoute({ ...emptyRoute, loadLengthMm }, ball, values).find(({ text }) => /load space/.test(text));
	it('takes what is just as long as it, and not what is longer', () => {
		expect(said(2000)?.answer).toBe('ok');
		expect(said(1999)?.answer).toBe('warn');
		expect(plain(said(1999)?.text ?? '')).toMatch(/^Laid down it is 2 m long/);
	});
});

describe('the kit for works in the ground', () => {
	const work = (method: 'trenches' | 'holes'): KitWork => ({
		plantCount: 1,
		thickestMm: 0,
		planting: null,
		lift: null,
		ground: {
			collar: null,
			mulch: null,
			sulphur: null,
			loosening: { method, compostL: 12 }
		} as unknown as KitWork['ground']
	});
	it('has what its way of loosening needs, and no other', () => {
		const tools = (method: 'trenches' | 'holes') => kitList(work(method), [], values).tools.join('; ');
		expect(tools('trenches')).toContain('no mattock near roots');
		expect(tools('trenches')).not.toContain('auger');
		expect(tools('holes')).toContain('auger or bar');
		expect(tools('holes')).not.toContain('mattock');
		expect(tools('holes')).not.toContain('trowel, brush');
		expect(kitList(work('holes'), [], values).pots).toBeNull();
	});
});

describe('a reading in words', () => {
	const words = (raw: object) =>
		readingWords(
			measurementSchema.parse({
				id: 'm',
				version: 1,
				measuredOn: '2026-06-01',
				raw: { tool: 'moisture', ...raw }
			}).raw,
			'2026-06-01',
			{ trunkDiameterMm: 60 },
			values,
			{ percent: (share: number) => `${Math.round(share * 100)} %` } as never
		);
	it('of a weighing counts the days after the water as people do', () => {
		const weighed = (wateredOn: string) =>
			words({ tool: 'weighing', nowKg: 9, fullKg: 12, dryKg: 8, wateredOn, neighbours: [] });
		expect(weighed('2026-05-31')).toContain('1 day after water');
		expect(weighed('2026-05-29')).toContain('3 days after water');
		expect(weighed('2026-06-01')).toContain('0 days after water');
	});
	it('of moisture says what was felt, what a probe read, and nothing of what was not', () => {
		expect(words({ feel: 'dry', probeShare: null })).toBe('feels dry');
		expect(words({ feel: null, probeShare: 0.2 })).toBe('a probe reads 20 % water by volume');
		expect(words({ feel: 'dry', probeShare: 0.2 })).toBe('feels dry, a probe reads 20 % water by volume');
	});
});

describe('whether a twig lives', () => {
	const alive = (change: object) =>
		standingOf(treeRecords({ observations: [], examinations: [], ...change }), '2026-06-02', values).twigAlive
			.value;
	const look = (diebackLimitMm: number) =>
		observationSchema.parse({ id: 'o', version: 1, observedOn: '2026-06-01', diebackLimitMm });
	it('is told by green found at any height, and by none at all', () => {
		expect(alive({ observations: [look(300)] })).toBe(true);
		expect(alive({ observations: [look(0)] })).toBe(false);
	});
});

describe('a penetrometer file that cannot be read', () => {
	it('gives nothing but the reason', () => {
		expect(readPenetrometerCsv('a;b;c\n1;2;3')).toEqual({
			readings: [],
			rows: 0,
			skipped: [],
			skippedCount: 0,
			notes: [],
			refusal: expect.stringMatching(/\w/) as string
		});
	});
});

describe('where wires go over', () => {
	it('begins at the thickest root and goes on to the one that stands freest, the thicker of two alike', () => {
		const { segments } = mapOf([
			'0° 14 anchor',
			'90° 30 anchor',
			'100° 16 anchor',
			'210° 15 anchor',
			'330° 18 anchor'
		]);
		const over = (most: number) => wiresOver(segments, new Set(), values, most).map(({ rootId }) => rootId);
		expect(over(1)).toEqual(['r1']);
		// From 90° the two at 210° and 330° stand alike free: the thicker goes first.
		expect(over(2)).toEqual(['r1', 'r4']);
		expect(over(3)).toEqual(['r1', 'r3', 'r4']);
	});
});

describe('a girdling root', () => {
	it('goes up a class when it is thicker than its share of the trunk, and not at it', () => {
		const limit = values['girdling.thickShareOfTrunk'] * 100;
		const of = (diameterMm: number) =>
			girdlingSeverity(values['girdling.watchBelow'] / 2, diameterMm, 100, values);
		expect(of(limit)).toBe('watch');
		expect(of(limit + 0.01)).toBe('moderate');
	});
});

describe('the end of the season', () => {
	it('begins so many weeks before its last day', () => {
		const maple = { group: 'deciduous', coldestC: -15 } as const;
		const place = { kind: 'open', latitudeDeg: 52, elevationM: 60, heldMinimumC: null } as const;
		const season = growingSeason(place, false, 2026, values);
		if (!season) throw new Error('it has one');
		const last = addDays(season.to, -Math.round(7 * values['diagnosis.ending-weeks']));
		expect(seasonPhase(maple, place, last, values)).toBe('summer');
		expect(seasonPhase(maple, place, addDays(last, 1), values)).toBe('autumn');
	});
});

describe('a pot that is found wetter than reckoned', () => {
	it('has more in both its parts, each in proportion to its room', () => {
		const stores = { rootedMostL: 2, unrootedMostL: 4, surfaceM2: 0.05, crownM2: 0.1 };
		const state = potState(
			{
				begin: { on: '2026-06-01', water: { rootedL: 0.5, unrootedL: 3 }, sd: 0.3 },
				stores,
				series: [bareDay('2026-06-02', { et0Mm: 0, rainMm: 0 })],
				poured: [],
				seen: [{ on: '2026-06-02', dryness: 0, sd: 1e-6, how: 'weighing' }],
				phiOn: () => 1,
				phiSpread: 0.2,
				inLeaf: () => true,
				rainReach: 0
			},
			values
		);
		expect(state[0]?.water.rootedL).toBeCloseTo(2, 4);
		expect(state[0]?.water.unrootedL).toBeCloseTo(4, 4);
		const half = potState(
			{
				begin: { on: '2026-06-01', water: { rootedL: 1, unrootedL: 2 }, sd: 0.3 },
				stores,
				series: [bareDay('2026-06-02', { et0Mm: 0, rainMm: 0 })],
				poured: [],
				seen: [{ on: '2026-06-02', dryness: 0.25, sd: 1e-6, how: 'weighing' }],
				phiOn: () => 1,
				phiSpread: 0.2,
				inLeaf: () => true,
				rainReach: 0
			},
			values
		);
		// 4.5 of 6 L: 1.5 L more over a room of 1 and 2 L.
		expect(half[0]?.water.rootedL).toBeCloseTo(1.5, 4);
		expect(half[0]?.water.unrootedL).toBeCloseTo(3, 4);
	});
});

describe('the crown after a cut', () => {
	it('is balanced by what the roots that are left feed', () => {
		// One of five living roots of one size.
		const records = treeRecords({}, [cut('r4', 0, '2025-02-10')]);
		const schools = { crownSchool: 'balance', waterSchool: 'at-once', workOn: '2025-02-10' } as const;
		const { excess } = crownSupply(0.8, values);
		expect(excess).toBeGreaterThan(0);
		const crown = proposeAftercare(records, schools, values).find(({ source }) =>
			source.startsWith('crown@')
		);
		expect(crown?.reason).toContain(`feed about ${percent(1 - excess)} of the crown`);
	});
});

describe('aftercare of a tree in the ground', () => {
	it('sees the collar again where it was worked on, never where it only came', () => {
		const schools = { crownSchool: 'balance', waterSchool: 'at-once', workOn: '2026-03-18' } as const;
		const tree = { situation: 'in-ground', takenInOn: '2026-03-18' } as const;
		const again = (
			change: Parameters<typeof treeRecords>[0],
			cuts: Parameters<typeof treeRecords>[1] = []
		) => {
			const records = treeRecords({ plantings: [], ...change }, cuts);
			return proposeAftercare({ ...records, tree: { ...records.tree, ...tree } }, schools, values).some(
				({ source }) => source === 'collar-again@2026-03-18'
			);
		};
		const opened = (doneOn: string) =>
			groundPlanSchema.parse({
				id: 'g',
				version: 1,
				plannedOn: doneOn,
				collar: { openMm: 400, depthMm: 80, tool: 'hand' },
				doneOn
			});
		const cuts = [cut('r0', 1, '2026-03-18')];
		expect(again({})).toBe(false);
		expect(again({}, cuts)).toBe(true);
		// A collar that was opened for the cuts brings its own looks.
		expect(again({ groundPlans: [opened('2026-03-17')] }, cuts)).toBe(false);
		expect(again({ groundPlans: [opened('2026-01-17')] }, cuts)).toBe(true);
	});
});

describe('what a tree lost where it grew', () => {
	const grown = { ...treeRecords().tree, situation: 'in-ground', reserves: 'field-grown' } as const;
	const lost = (change: Parameters<typeof treeRecords>[0] = {}, cuts = [cut('r0', 1, '2026-03-18')]) =>
		stoodLoss(treeRecords({ plantings: [], tree: grown, ...change }, cuts), values);
	it('is all that was cut of it, and is not known of one that was dug, planted, potted, or did not grow in the field', () => {
		const one = lost() ?? 0;
		expect(one).toBeGreaterThan(0);
		expect(lost({}, [])).toBe(0);
		expect(lost({}, [cut('r0', 1, '2026-03-18'), cut('r1', 1, '2027-03-18')])).toBeGreaterThan(one);
		const hole = groundPlanSchema.parse({
			id: 'g',
			version: 1,
			plannedOn: '2026-03-01',
			hole: { widthMm: 900, depthMm: 350, ballDiameterMm: 450, ballDepthMm: 320 },
			doneOn: '2026-03-01'
		});
		expect(lost({ groundPlans: [{ ...hole, doneOn: null }] })).toBe(one);
		expect(lost({ groundPlans: [hole] })).toBeNull();
		expect(lost({ plantings: [plantingOn('2026-03-01')] })).toBeNull();
		expect(lost({ tree: { ...grown, situation: 'potted' } })).toBeNull();
		expect(lost({ tree: { ...grown, reserves: 'few-years-potted' } })).toBeNull();
	});
});

describe('the school on the first water', () => {
	const day = '2026-03-18';
	const rotten = examinationSchema.parse({
		id: 'r',
		version: 1,
		examinedOn: day,
		findings: [
			{ signId: 'sour-smell', grade: 2 },
			{ signId: 'roots-dark-soft', grade: 1 },
			{ signId: 'stays-wet', grade: 2 }
		]
	});
	const out = bookEntrySchema.parse({
		id: 'b',
		version: 1,
		kind: 'rot-cut-out',
		on: day,
		details: { share: 0.2 }
	});
	const school = (change: Parameters<typeof treeRecords>[0]) =>
		waterSchoolOf(
			treeRecords({ plantings: [], plan: null, rootMap: null, ...change }),
			addDays(day, 2),
			values
		);
	it('is dry where rot was cut out or presses still, at once where neither is', () => {
		expect(school({})).toBe('at-once');
		expect(school({ examinations: [rotten] })).toBe('dry-rest');
		expect(school({ book: [out] })).toBe('dry-rest');
		// Cut out on the day of the look it presses no more, and the cut rests dry.
		expect(school({ examinations: [rotten], book: [out] })).toBe('dry-rest');
	});
});

describe('what is planned', () => {
	it('comes in the order of its days, whichever page it was planned on', () => {
		const records = treeRecords({}, [cut('r0', 1)]);
		const { id: _id, version: _version, ...planting } = plantingOn('2026-11-01');
		const planned = plannedWork(
			{
				...records,
				replantPlan: replantPlanSchema.parse({ id: 'rp', version: 1, planting, waterSchool: 'at-once' })
			},
			'2026-03-01',
			values
		);
		expect(planned.map((one) => one.on)).toEqual(['2026-11-01', '2026-11-10']);
		expect(planned.map((one) => one.stage)).toEqual(['replant', 'roots']);
	});
});

describe('a side root', () => {
	const parent = mapOf(['3 20 scaffold']).segments[0];
	if (!parent) throw new Error('no root');
	const lengthMm = courseLengthMm(parent.course);
	it('leaves the middle of its root, half as thick as it is there, and runs two fifths as far outward', () => {
		const side = sideRoot(parent, null, 's');
		expect(side).toMatchObject({ id: 's', parentId: parent.id, rootClass: 'secondary', condition: 'sound' });
		expect(side?.attachMm).toBeCloseTo(lengthMm / 2, -1);
		expect(courseLengthMm(side?.course ?? [])).toBeCloseTo(0.4 * lengthMm, 0);
		const half = ribbonAt(ribbon(parent), side?.attachMm ?? 0)?.halfWidthMm ?? 0;
		expect(side?.diameterStartMm).toBeCloseTo(half, 1);
		expect(side?.guessed).toEqual(['class', 'depth', 'length']);
	});
	it('goes to where it was drawn, at least 5 mm, and its length is no guess then', () => {
		const from = ribbonAt(ribbon(parent), 30);
		if (!from) throw new Error('no place');
		const to = { x: from.x + 30, y: from.y + 40 };
		const drawn = sideRoot(parent, { attachMm: 30, to }, 's');
		expect(courseLengthMm(drawn?.course ?? [])).toBeCloseTo(50, 3);
		expect(drawn?.guessed).toEqual(['class', 'depth']);
		const end = planPoint(drawn?.course.at(-1) ?? { azimuthDeg: 0, radiusMm: 0 });
		expect([end.x, end.y].map(Math.round)).toEqual([to.x, to.y].map(Math.round));
		const short = sideRoot(parent, { attachMm: 30, to: { x: from.x + 1, y: from.y } }, 's');
		expect(courseLengthMm(short?.course ?? [])).toBeCloseTo(5, 3);
	});
});

describe('the first water', () => {
	const reason = (livingLoss: number) =>
		plain(
			aftercareTasks({ ...worked, livingLoss }, values).find((task) => task.rule === 'first-water')?.reason ??
				''
		);
	it('says that no living root was cut under the share that counts, and not at it', () => {
		const counts = values['aftercare.lossCounts'];
		expect(reason(counts - 0.001)).toMatch(/^No living root was cut/);
		expect(reason(counts)).toMatch(/^Roots are watered in at once/);
	});
	it('a crown that is over what its roots feed by no more than counts is not sheltered for it', () => {
		const rules = (crownExcess: number) =>
			aftercareTasks({ ...worked, inGround: true, inLeaf: true, livingLoss: 0, crownExcess }, values)
				.map((task) => task.title)
				.filter((title) => title.startsWith('Shade, shelter and humidity instead'));
		const counts = values['aftercare.crownExcess'];
		expect(rules(counts)).toEqual([]);
		expect(rules(counts + 0.001)).toHaveLength(1);
	});
});

describe('a weighing in Examine', () => {
	it('is as dry as what it lost is of all the water its pot holds', () => {
		const weighed = measurementSchema.parse({
			id: 'm',
			version: 1,
			measuredOn: '2026-06-19',
			raw: { tool: 'weighing', fullKg: 12, nowKg: 11, dryKg: null, wateredOn: '2026-06-15' }
		});
		const series = Array.from({ length: 100 }, (_, i) =>
			bareDay(addDays('2026-04-01', i), { et0Mm: 3, rainMm: 0 })
		);
		const found = treeWater(
			treeRecords({
				plantings: [plantingOn('2026-04-01')],
				rootMap: null,
				plan: null,
				measurements: [weighed]
			}),
			{ place: bench, series },
			'2026-06-20',
			values
		);
		const seen = found?.state.find((day) => day.on === '2026-06-19')?.seen;
		const most = (found?.stores.rootedMostL ?? 0) + (found?.stores.unrootedMostL ?? 0);
		expect(most).toBeGreaterThan(1);
		expect(seen?.map((one) => one.dryness)).toEqual([expect.closeTo(1 / most, 6)]);
	});
});

describe('a side root in a question to the planner', () => {
	const [main, side] = mapOf(['3 20 scaffold', '4 8 surface']).segments;
	if (!main || !side) throw new Error('no roots');
	const lengthMm = courseLengthMm(main.course);
	const asked = (attachMm: number) =>
		reductionPlanQuestion.safeParse({
			map: { ...mapOf([]), segments: [main, { ...side, parentId: main.id, attachMm }] },
			allowances: [0.2, 0.2]
		}).success;
	it('may leave its root at its very end, give or take a millimetre, and no further', () => {
		expect([lengthMm, lengthMm + 1, lengthMm + 1.5].map(asked)).toEqual([true, true, false]);
	});
});

describe('a pot that is weighed', () => {
	const weighed = (change: object, on: string) =>
		weighPot(
			{
				fullKg: 10,
				nowKg: 7,
				dryKg: 6,
				neighbours: [],
				wateredOn: '2026-06-01',
				...change
			},
			on,
			values
		);
	const light = values['measuring.light-pot'];
	const fast = Math.floor(values['measuring.dries-fast-days']);
	const dried = (dryness: number, days: number) =>
		weighed({ nowKg: 10 - 4 * dryness }, addDays('2026-06-01', days)).driesFast;
	it('dries fast where it is light within so many days, and not a day later', () => {
		expect([fast, fast + 1].map((days) => dried(light + 0.01, days))).toEqual([true, false]);
		expect(dried(light - 0.01, 1)).toBe(false);
	});
	it('says nothing of it on the day it was watered, or where nobody knows what it weighs dry', () => {
		expect(dried(1, 0)).toBeNull();
		expect(weighed({ dryKg: null }, addDays('2026-06-01', 1)).driesFast).toBeNull();
	});
});

describe('a trench star where no root lies', () => {
	it('is even, whatever its number', () => {
		for (const count of [4, 6, 9])
			expect(
				trenchLayout([], { count, innerMm: 600, outerMm: 3000, widthMm: 250 }, values).map(
					(one) => one.azimuthDeg
				)
			).toEqual(Array.from({ length: count }, (_, i) => Math.round((i * 360) / count)));
	});
});

describe('the mix in a pot', () => {
	it('fills its room above the coarse layer', () => {
		const pot = roundPot(300, 300, 200);
		const body = mixBody(pottingMixOf('pumice-bark').parts, values);
		const found = waterAndAir(body, pot, { coarseLayerMm: 20, coarsePoreMm: 2 }, 180);
		// A cylinder of 300 mm, 160 mm high.
		expect(found.mixL).toBeCloseTo((Math.PI * 150 ** 2 * 160) / 1e6, 6);
		expect(found.waterL + found.airL).toBeCloseTo(found.mixL * found.porosity, 6);
	});
});

describe('what is carried over to later', () => {
	it('is not what was cut already, even where nobody traced it', () => {
		const map = mapOf(['3 20 scaffold trace', '9 12 trace']);
		const left = carryOver(map, { cuts: [cut('r0', 0, '2026-03-02')], stageDates: ['2026-03-02'] }, null);
		expect(left.map((one) => one.segmentId)).toEqual(['r1']);
	});
});

describe('a look at a tree whose living limit nobody measured', () => {
	const asked = (days: number, worked: boolean) =>
		lookQuestions(
			{
				today: addDays('2026-01-01', days),
				sinceOn: '2026-01-01',
				worked,
				seasonBeganOn: null,
				kind: { group: 'deciduous' },
				tree: { situation: 'potted', plantCount: 1 },
				progress: 0,
				nearSeason: false,
				evergreen: false,
				observations: [],
				wounded: false,
				rotWasCut: false,
				structuralCut: false,
				waits: [],
				suckersSeen: false,
				pestsSeen: false
			},
			values
		).find((one) => one.part === 'dieback')?.why;
	it('asks for it when the first weeks are over, and speaks of work only where there was any', () => {
		const routine = values['look.routineDays'];
		expect([asked(routine, true), asked(routine + 1, true), asked(routine + 1, false)]).toEqual([
			undefined,
			'never measured since the work',
			'never measured yet'
		]);
	});
});

describe('the course of a pot', () => {
	it('is told to the last day on which what was seen still speaks, and not at all where nobody told', () => {
		const days = Array.from({ length: 90 }, (_, i) => ({ on: addDays('2026-04-01', i) }));
		const told = courseKnown(days, '2026-04-10', values);
		expect(told[0]?.on).toBe('2026-04-01');
		expect(told.at(-1)?.on).toBe(addDays('2026-04-10', values['decision.waterKnownDays']));
		expect(courseKnown(days, null, values)).toEqual([]);
	});
});
