import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { groundAmounts, groundPlanInput } from '$core/replant/ground/ground-plan';
import { plain } from '$core/text/format';
import type { SignId } from '$core/vocabulary/signs';
import {
	courseDrawnOn,
	holeLayout,
	looseningAims,
	soilSaid,
	trenchLayout
} from '$core/replant/ground/loosening';
import type { Texture } from '$core/vocabulary/textures';
import { sulphurDose, sulphurSoilOf } from '$core/replant/ground/sulphur';
import { planPoint } from '$core/roots/map/geometry';
import { segmentSchema, type Segment } from '$core/roots/map/root-map';
import { resistanceProfile } from '$core/examine/soil/penetrometer';
import { defaultValues as values } from '$core/values/values';

const root = (azimuthDeg: number, reachMm: number, diameterMm: number, id: string): Segment =>
	segmentSchema.parse({
		id,
		parentId: null,
		rootClass: 'anchor',
		condition: 'sound',
		diameterStartMm: diameterMm,
		diameterEndMm: diameterMm / 2,
		fineScore: 1,
		course: [
			{ azimuthDeg, radiusMm: 200, depthMm: 50 },
			{ azimuthDeg, radiusMm: reachMm, depthMm: 80 }
		]
	});
const plan = (change: object) => groundPlanInput.parse({ plannedOn: '2026-05-01', ...change });

describe('sulphur', () => {
	/** Oregon State University Extension, lb per 100 ft² to reach pH 4.5, as in the handbook; from memory. */
	const table = {
		5: [0.4, 1.2, 1.4],
		5.5: [0.8, 2.4, 2.6],
		6: [1.2, 3.5, 3.7],
		6.5: [1.5, 4.6, 4.8],
		7: [1.9, 5.8, 6]
	};
	it('follows the table, row by row', () => {
		for (const [ph, row] of Object.entries(table))
			for (const [i, soil] of (['sand', 'loam', 'clay'] as const).entries()) {
				const { gPerM2 } = sulphurDose(
					{ phNow: Number(ph), phAim: 4.5, soil, areaM2: 1, startOn: '2026-04-01' },
					values
				);
				// 1 lb / 100 ft² = 453.592 g / 9.2903 m².
				expect(gPerM2 / (453.59237 / 9.290304), `${ph} ${soil}`).toBeCloseTo(row[i] ?? 0, 6);
			}
	});
	it('is split into doses that add up, none over what may go on at once, with a test before each further one', () => {
		fc.assert(
			fc.property(
				fc.double({ min: 4.5, max: 7, noNaN: true }),
				fc.double({ min: 4.5, max: 7, noNaN: true }),
				fc.double({ min: 0.5, max: 200, noNaN: true }),
				(phNow, phAim, areaM2) => {
					const dose = sulphurDose({ phNow, phAim, soil: 'clay', areaM2, startOn: '2026-04-01' }, values);
					expect(dose.doses.reduce((sum, one) => sum + one.kg, 0)).toBeCloseTo(dose.totalKg, 9);
					if (phAim >= phNow) expect(dose.doses).toEqual([]);
					for (const [i, one] of dose.doses.entries()) {
						expect((one.kg * 1000) / areaM2).toBeLessThanOrEqual(values['sulphur.mostAtOnce'] + 1e-6);
						expect(one.retestOn === null).toBe(i === 0);
						if (one.retestOn) expect(one.retestOn < one.on).toBe(true);
					}
				}
			)
		);
	});
	it('says when the soil is beyond the table, and reads the three soils from the texture', () => {
		const limy = { phNow: 8, phAim: 5, soil: 'loam', areaM2: 4, startOn: '2026-04-01' } as const;
		const untried = sulphurDose(limy, values);
		expect(untried).toMatchObject({ inTable: false, totalKg: 0, doses: [] });
		expect(untried.note).toMatch(/vinegar/);
		const fizzes = sulphurDose({ ...limy, carbonate: 'fizzes' }, values);
		expect(fizzes).toMatchObject({ totalKg: 0, doses: [] });
		expect(fizzes.note).toMatch(/neutralised first/);
		// Without lime it takes at least what it takes from pH 7.
		const quiet = sulphurDose({ ...limy, carbonate: 'quiet' }, values);
		expect(quiet.totalKg).toBeCloseTo(sulphurDose({ ...limy, phNow: 7 }, values).totalKg, 9);
		expect(quiet.note).toMatch(/the least it takes/);
		expect(sulphurDose({ ...limy, phNow: 7 }, values).note).toBe('');
		expect(['sand', 'loamy-sand'].map((one) => sulphurSoilOf(one as Texture))).toEqual(['sand', 'sand']);
		expect(['clay', 'silty-clay', 'sandy-clay'].map((one) => sulphurSoilOf(one as Texture))).toEqual([
			'clay',
			'clay',
			'clay'
		]);
		expect(['silt-loam', 'clay-loam', 'sandy-loam'].map((one) => sulphurSoilOf(one as Texture))).toEqual([
			'loam',
			'loam',
			'loam'
		]);
	});
	it('is refused where the pH is to rise', () => {
		const read = groundPlanInput.safeParse({
			plannedOn: '2026-05-01',
			sulphur: { phNow: 5, phAim: 6, soil: 'loam', areaM2: 3 }
		});
		expect(read.error?.issues[0]?.message).toMatch(/below the pH/);
	});
});

describe('volumes of ground works', () => {
	it('are those of solid geometry', () => {
		const amounts = groundAmounts(
			plan({
				mulch: { innerM: 0.5, outerM: 2, depthMm: 80 },
				collar: { openMm: 400, depthMm: 200, tool: 'hand' },
				hole: { widthMm: 1000, depthMm: 400, ballDiameterMm: 500, ballDepthMm: 400 }
			}),
			600,
			[],
			values
		);
		// π (R² − r²) × depth
		expect(amounts.mulch?.litres).toBeCloseTo(Math.PI * (2 ** 2 - 0.5 ** 2) * 80, 9);
		expect(amounts.collar?.soilL).toBeCloseTo(Math.PI * (0.7 ** 2 - 0.3 ** 2) * 200, 9);
		expect(amounts.hole?.dugL).toBeCloseTo(Math.PI * 0.5 ** 2 * 400, 9);
		expect(amounts.hole?.backfillL).toBeCloseTo(
			Math.PI * 0.5 ** 2 * 400 - Math.PI * 0.25 ** 2 * 400 * values['pot.ballShape'],
			9
		);
		// Stakes take their own time beside what is dug.
		const held = groundAmounts(plan({ holding: { by: 'guys' } }), 600, [], values);
		expect(held.hours).toBeCloseTo(values['hole.holdMin'] / 60, 12);
		expect(amounts.hours).toBeCloseTo((amounts.hole?.hours ?? 0) + (amounts.collar?.hours ?? 0), 12);
		expect(amounts.hole?.tooDeepMm).toBe(0);
	});
	it('of trenches are length × width × depth × count', () => {
		const amounts = groundAmounts(
			plan({
				loosening: { method: 'trenches', innerM: 1, outerM: 4, depthMm: 300, widthMm: 200, trenches: 8 }
			}),
			300,
			[],
			values
		);
		expect(amounts.loosening).toMatchObject({ count: 8, leftOut: 0 });
		expect(amounts.loosening?.soilL).toBeCloseTo(8 * 3 * 0.2 * 0.3 * 1000, 9);
	});
	it('a plan of nothing, and a ring that ends before it begins, are refused', () => {
		expect(groundPlanInput.safeParse({ plannedOn: '2026-05-01' }).error?.issues[0]?.message).toMatch(
			/at least one/
		);
		expect(
			groundPlanInput.safeParse({ plannedOn: '2026-05-01', mulch: { innerM: 2, outerM: 1, depthMm: 50 } })
				.error?.issues[0]?.message
		).toMatch(/further out/);
	});
});

describe('loosening between structural roots', () => {
	const roots = fc.array(
		fc.tuple(
			fc.integer({ min: 0, max: 359 }),
			fc.integer({ min: 400, max: 3000 }),
			fc.integer({ min: 20, max: 150 })
		),
		{ maxLength: 9 }
	);
	const ring = { innerMm: 900, outerMm: 3500 };

	it('no trench that is dug lies on a root: seen by walking along each root, drawn on to the end of the ring', () => {
		fc.assert(
			fc.property(roots, fc.integer({ min: 3, max: 12 }), (list, count) => {
				const map = list.map(([azimuth, reach, thick], i) => root(azimuth, reach, thick, `r${i}`));
				const widthMm = 200;
				const trenches = trenchLayout(map, { ...ring, count, widthMm }, values);
				expect(trenches).toHaveLength(count);
				for (const trench of trenches.filter((one) => !one.skipped)) {
					const { x: ux, y: uy } = planPoint({ azimuthDeg: trench.azimuthDeg, radiusMm: 1 });
					for (const one of map) {
						const { seen, on } = courseDrawnOn(one, ring.outerMm);
						const ends = [...seen, ...on.slice(1)];
						for (let k = 0; k + 1 < ends.length; k++)
							for (let t = 0; t <= 1; t += 0.01) {
								const [a, b] = [ends[k], ends[k + 1]];
								if (!a || !b) continue;
								const [x, y] = [a.x + (b.x - a.x) * t, a.y + (b.y - a.y) * t];
								const along = x * ux + y * uy;
								if (along < ring.innerMm || along > ring.outerMm) continue;
								const across = Math.abs(x * uy - y * ux);
								expect(across - one.diameterStartMm / 2 - widthMm / 2).toBeGreaterThan(
									values['loosen.clearMm'] - 25
								);
							}
					}
				}
			}),
			{ numRuns: 60 }
		);
	});
	it('holes on open ground are as many as the ring has room for, and none near a root', () => {
		const open = holeLayout([], { ...ring, spacingMm: 300, holeMm: 75 }, values);
		const area = Math.PI * (3.5 ** 2 - 0.9 ** 2);
		expect(open.holes.length / (area / 0.09)).toBeGreaterThan(0.97);
		expect(open.holes.length / (area / 0.09)).toBeLessThan(1.03);
		const beside = holeLayout([root(90, 3000, 120, 'a')], { ...ring, spacingMm: 300, holeMm: 75 }, values);
		expect(beside.holes.length + beside.leftOut).toBe(open.holes.length);
		expect(beside.leftOut).toBeGreaterThan(0);
		for (const hole of beside.holes)
			if (hole.x > 900) expect(Math.abs(hole.y)).toBeGreaterThan(60 + 37.5 + values['loosen.clearMm'] - 20);
	});
	it('aims follow the soil as measured: the hard layer, a little below it, and what should be found afterwards', () => {
		const readings = [50, 120, 170, 220, 270, 340].map((depthMm, i) => ({
			position: 1,
			depthMm,
			resistanceMpa: [0.8, 2.4, 3.2, 2.6, 1.2, 1][i] ?? 1,
			readings: 1
		}));
		const { depthMm, aims } = looseningAims(resistanceProfile(readings, values), null, values);
		expect(aims.map((one) => ({ ...one, found: plain(one.found), aim: plain(one.aim) }))).toEqual([
			{ fromMm: 100, toMm: 250, found: 'up to 3.2 MPa', aim: 'under 2 MPa at field moisture' }
		]);
		expect(depthMm).toBe(250 + values['loosen.underHardMm']);
		const hardest = readings.map((one, i) => ({ ...one, resistanceMpa: [0.8, 3.4, 2.2, 1, 1.2, 1][i] ?? 1 }));
		expect(
			looseningAims(resistanceProfile(hardest, values), null, values).aims.map(({ found }) => plain(found))
		).toEqual(['up to 3.4 MPa']);
		expect(looseningAims(null, null, values)).toEqual({
			depthMm: values['loosen.trenchDepthMm'],
			aims: []
		});
	});
});

describe('what speaks for loosening without a hard layer measured', () => {
	const look = (examinedOn: string, ...findings: [SignId, number][]) => ({
		examinedOn,
		findings: findings.map(([signId, grade]) => ({ signId, grade, measuredBy: null }))
	});
	it('a look that met hard soil, unless it was measured since; nothing measured is not soft', () => {
		expect(soilSaid(null, [])).toEqual({ how: 'unknown', on: null });
		expect(soilSaid('2026-04-02', [])).toEqual({ how: 'not-hard', on: '2026-04-02' });
		const hard = look('2026-04-01', ['probe-stops', 1], ['traffic', 1]);
		expect(soilSaid(null, [hard])).toEqual({ how: 'felt-hard', on: '2026-04-01' });
		expect(soilSaid('2026-04-01', [hard]).how).toBe('felt-hard');
		expect(soilSaid('2026-04-02', [hard]).how).toBe('not-hard');
		// A later look that did not look for it takes nothing back; one that found it open does.
		expect(soilSaid(null, [hard, look('2026-05-01', ['traffic', 1])]).how).toBe('felt-hard');
		expect(soilSaid(null, [hard, look('2026-05-01', ['probe-stops', 0])]).how).toBe('unknown');
		expect(soilSaid(null, [look('2026-04-01', ['dense-soil', 2])]).how).toBe('felt-hard');
		expect(soilSaid(null, [look('2026-04-01', ['water-stands', 2])]).how).toBe('unknown');
	});
});
