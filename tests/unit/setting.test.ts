import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { crownCourse, heightForCrownShare } from '$core/aftercare/crown/crown-course';
import { observationSchema } from '$core/examine/looks/observation';
import { differentFronts, rankFronts } from '$core/roots/setting/fronts';
import { cutSchema } from '$core/roots/plan/plan';
import { parseQuickRoot } from '$core/roots/io/quick-entry';
import { rootMapInput, segmentFromQuick, type RootMapInput } from '$core/roots/map/root-map';
import { ballWedges, costOfAngle, settingToBegin, splitTilt, stance } from '$core/roots/setting/setting';
import { tilted } from '$core/roots/map/geometry';
import { type Setting } from '$core/roots/plan/plan';
import { stageGate } from '$core/roots/plan/stage-gate';
import { defaultValues } from '$core/values/values';

const mapOf = (lines: string[], more: Partial<RootMapInput> = {}): RootMapInput =>
	rootMapInput.parse({
		mappedOn: '2026-03-02',
		frame: 'container',
		trunkDiameterMm: 60,
		ballRadiusMm: 150,
		ballDepthMm: 100,
		segments: lines.map((line, i) => {
			const entry = parseQuickRoot(line, 'container', 60, defaultValues);
			if (!entry.ok) throw new Error(entry.problem);
			return segmentFromQuick(entry.root, { trunkDiameterMm: 60, ballRadiusMm: 150 }, `r${i}`);
		}),
		...more
	});
const even = ['6 20 anchor', '9 20 anchor', '12 20 anchor', '3 20 anchor'];

describe('the wedge of a tilted ball', () => {
	const planes = (tiltDeg: number, baseDepthMm: number, planeDepthMm = -500) => ({
		tiltDeg,
		planeDepthMm,
		baseDepthMm
	});
	const [R, H] = [150, 100];
	it('with the base through the middle of the underside is ⅔ R³ tan α (closed form of the cylindrical wedge)', () => {
		for (const deg of [5, 12, 20]) {
			const { shavedL } = ballWedges(R, H, planes(deg, H * Math.cos((deg * Math.PI) / 180)));
			expect(shavedL).toBeCloseTo(((2 / 3) * R ** 3 * Math.tan((deg * Math.PI) / 180)) / 1e6, 3);
		}
	});
	it('with the base through the upper edge is π R³ tan α (half a cylinder)', () => {
		const rad = (10 * Math.PI) / 180;
		// The upper edge lies at −R along the tilt.
		const edge = tilted(-R, H, 10).depthMm;
		const { shavedL, fillL } = ballWedges(R, H, planes(10, edge));
		expect(shavedL).toBeCloseTo((Math.PI * R ** 3 * Math.tan(rad)) / 1e6, 2);
		expect(fillL).toBeCloseTo(0, 3);
	});
	it('keeps the volume: shaved, standing out and left are the ball', () => {
		fc.assert(
			fc.property(
				fc.double({ min: 0, max: 45, noNaN: true }),
				fc.double({ min: 10, max: 160, noNaN: true }),
				fc.double({ min: -40, max: 60, noNaN: true }),
				(tiltDeg, baseDepthMm, planeDepthMm) => {
					const { shavedL, aboveL, left } = ballWedges(R, H, { tiltDeg, baseDepthMm, planeDepthMm });
					expect(shavedL + aboveL + left.litres).toBeCloseTo((Math.PI * R * R * H) / 1e6, 2);
				}
			)
		);
	});
	it('is nothing for a ball that stands level on its own underside', () => {
		const { shavedL, aboveL, fillL } = ballWedges(R, H, planes(0, H, 0));
		expect([shavedL, aboveL, fillL]).toEqual([0, 0, 0]);
	});
});

describe('the cost of an angle', () => {
	const wide = (map: RootMapInput): Setting => ({ ...settingToBegin(map), tiltTowardDeg: 0 });
	it('is nothing as it stands, and roots of the far side come out of the soil as it tilts', () => {
		const map = mapOf(even);
		expect(costOfAngle(map, wide(map), defaultValues).livingShare).toBe(0);
		const steep = costOfAngle(map, { ...wide(map), tiltDeg: 35, baseDepthMm: 500 }, defaultValues);
		// Tilted to the front at 6 o’clock, the root at 12 rises.
		expect(steep.out).toEqual([expect.objectContaining({ segmentId: 'r2', where: 'above' })]);
		expect(steep.livingShare).toBeCloseTo(0.25, 6);
	});
	it('a sinker goes below the base and is cut where it passes it, not before', () => {
		const map = mapOf([...even, '6 10 down l300']);
		const { out } = costOfAngle(map, { ...wide(map), baseDepthMm: 90 }, defaultValues);
		expect(out).toHaveLength(1);
		expect(out[0]).toMatchObject({ segmentId: 'r4', where: 'below' });
		expect(out[0]?.atMm).toBeGreaterThan(30);
	});
	it('what the session cannot bear waits: this time and next time make the whole, within the allowance', () => {
		const map = mapOf(['6 20 anchor', '9 20 anchor', '12 20 anchor', '3 20 anchor', '11 10', '1 8']);
		const setting = { ...wide(map), tiltDeg: 40, baseDepthMm: 400 };
		fc.assert(
			fc.property(fc.double({ min: 0, max: 1, noNaN: true }), (room) => {
				const { thisTimeDeg, nextTimeDeg, byDegree } = splitTilt(map, setting, room, defaultValues);
				expect(thisTimeDeg + nextTimeDeg).toBeCloseTo(40, 9);
				const now = byDegree.find(({ tiltDeg }) => tiltDeg === thisTimeDeg);
				expect(now?.livingShare ?? 1).toBeLessThanOrEqual(room + 1e-9);
			}),
			{ numRuns: 20 }
		);
		expect(splitTilt(map, setting, 1, defaultValues).nextTimeDeg).toBe(0);
		expect(splitTilt(map, setting, 0, defaultValues).thisTimeDeg).toBeLessThan(40);
	});
	it('turning the map turns the answer and nothing else', () => {
		const map = mapOf([...even, '11 12', '2:30 9 down']);
		const turned = {
			...map,
			segments: map.segments.map((s) => ({
				...s,
				course: s.course.map((p) => ({ ...p, azimuthDeg: p.azimuthDeg + 75 }))
			}))
		};
		const at = { ...wide(map), tiltDeg: 25, planeDepthMm: 5, baseDepthMm: 70 };
		const before = costOfAngle(map, at, defaultValues);
		const after = costOfAngle(turned, { ...at, tiltTowardDeg: 75 }, defaultValues);
		expect(after.livingShare).toBeCloseTo(before.livingShare, 9);
		expect(after.out.map(({ segmentId, where }) => [segmentId, where])).toEqual(
			before.out.map(({ segmentId, where }) => [segmentId, where])
		);
	});
});

describe('standing unaided', () => {
	it('an upright tree on a level ball stands in the middle; a leaning tall one on a narrow ball does not', () => {
		const map = mapOf(even);
		const upright = stance(map, settingToBegin(map), 0.8, defaultValues);
		expect(upright?.stands).toBe(true);
		expect(upright?.marginMm).toBeCloseTo(150, -0.5);
		const leaning = { ...map, lean: { towardDeg: 0, deg: 40 }, ballRadiusMm: 60, ballDepthMm: 40 };
		expect(stance(leaning, settingToBegin(leaning), 2.5, defaultValues)?.stands).toBe(false);
	});
	it('tilting against the lean brings the middle of mass back', () => {
		const map = mapOf(even, { lean: { towardDeg: 0, deg: 20 } });
		const level = { ...settingToBegin(map), baseDepthMm: 80 };
		const as = stance(map, level, 1.5, defaultValues);
		const back = stance(map, { ...level, tiltDeg: 15, tiltTowardDeg: 180 }, 1.5, defaultValues);
		// Along 0°, and along 180° after it: the sign turns with the direction.
		expect(Math.abs(back?.middleAlongMm ?? NaN)).toBeLessThan(Math.abs(as?.middleAlongMm ?? 0));
	});
	it('says nothing when the height is not known', () => {
		const map = mapOf(even);
		expect(stance(map, settingToBegin(map), null, defaultValues)).toBeNull();
	});
});

describe('ranking fronts', () => {
	it('an even base without lean ranks all four sides alike, and a turned map turns them', () => {
		const map = mapOf([...even, '7:30 20 anchor', '10:30 20 anchor', '1:30 20 anchor', '4:30 20 anchor']);
		const fronts = rankFronts(map, defaultValues);
		const at = (deg: number) => fronts.find((front) => front.azimuthDeg === deg)?.points ?? NaN;
		for (const deg of [90, 180, 270]) expect(at(deg)).toBeCloseTo(at(0), 9);
		const odd = mapOf(['6 20 anchor', '8 14 anchor', '11 25 anchor', '2 9 scaffold']);
		const turned = {
			...odd,
			segments: odd.segments.map((s) => ({
				...s,
				course: s.course.map((p) => ({ ...p, azimuthDeg: p.azimuthDeg + 45 }))
			}))
		};
		const [best] = rankFronts(odd, defaultValues);
		const [then] = rankFronts(turned, defaultValues);
		expect(then?.points).toBeCloseTo(best?.points ?? NaN, 9);
		expect(((then?.azimuthDeg ?? 0) - (best?.azimuthDeg ?? 0) + 360) % 360).toBe(45);
	});
	it('a lean towards a side speaks for it, a gap before it against it', () => {
		const leaning = rankFronts(mapOf(even, { lean: { towardDeg: 90, deg: 20 } }), defaultValues);
		expect(leaning[0]?.lean).toBeGreaterThan(0.5);
		const at = (list: typeof leaning, deg: number) => list.find((front) => front.azimuthDeg === deg);
		expect(at(leaning, 90)?.points).toBeGreaterThan(at(leaning, 270)?.points ?? 100);
		// Roots only behind, seen from 6 o’clock.
		const gap = rankFronts(mapOf(['10 20 anchor', '12 20 anchor', '2 20 anchor']), defaultValues);
		expect(at(gap, 0)?.gaps).toBeCloseTo(0, 9);
		expect(at(gap, 180)?.gaps).toBeGreaterThan(0.5);
		expect(at(gap, 0)?.reasons.join()).toMatch(/bare of roots/);
	});
	it('a thick root that points at the viewer is said', () => {
		const fronts = rankFronts(mapOf(['6 30 anchor', '9 15 anchor', '3 15 anchor']), defaultValues);
		expect(fronts.find((front) => front.azimuthDeg === 0)?.reasons.join()).toMatch(/straight at the viewer/);
	});
	it('offers fronts that differ', () => {
		const chosen = differentFronts(rankFronts(mapOf(even), defaultValues), 3);
		expect(chosen).toHaveLength(3);
		for (const a of chosen)
			for (const b of chosen)
				if (a !== b)
					expect(Math.abs(((a.azimuthDeg - b.azimuthDeg + 540) % 360) - 180)).toBeGreaterThanOrEqual(60);
	});
	it('answers with no roots at all', () => {
		expect(rankFronts(mapOf([]), defaultValues)[0]?.reasons).toContain(
			'no structural root shows at the flare'
		);
	});
});

describe('the crown over the stages', () => {
	it('by balance demand never stays above supply, by the other school nothing is taken', () => {
		fc.assert(
			fc.property(
				fc.array(fc.double({ min: 0, max: 0.5, noNaN: true }), { minLength: 1, maxLength: 4 }),
				fc.double({ min: 0.02, max: 1, noNaN: true }),
				(losses, begun) => {
					for (const stage of crownCourse(losses, 'balance', defaultValues, begun)) {
						expect(stage.demandAfter * stage.holdTo).toBeLessThanOrEqual(stage.supplyAfter + 1e-9);
						expect(stage.removeShare).toBeLessThanOrEqual(defaultValues['crown.takeMost']);
						// Nothing is left to shade while the saw may still take it.
						if (stage.removeShare < defaultValues['crown.takeMost']) expect(stage.holdTo).toBe(1);
					}
					for (const stage of crownCourse(losses, 'keep-leaves', defaultValues)) {
						expect(stage.removeShare).toBe(0);
						expect(stage.demandAfter).toBe(1);
						expect(stage.holdTo).toBeCloseTo(Math.min(1, stage.supplyAfter), 9);
					}
				}
			)
		);
	});
	it('after a lift the roots that came along feed so much less of it', () => {
		const [first] = crownCourse([0.4], 'keep-leaves', defaultValues, 0.1);
		expect(first?.supplyAfter).toBeCloseTo(0.1 * 0.6 * 1.15, 9);
	});
	it('agrees with the handbook: 1 − supply/demand with a reserve of 1.15', () => {
		const [first] = crownCourse([0.4], 'balance', defaultValues);
		expect(first?.removeShare).toBeCloseTo(1 - 0.6 * 1.15, 9);
	});
	it('height is no crown share: closed forms of cone, column and spheroid', () => {
		expect(heightForCrownShare(0.125, 'cone')).toBeCloseTo(0.5, 9);
		expect(heightForCrownShare(0.3, 'column')).toBe(0.3);
		expect(heightForCrownShare(0.5, 'round')).toBeCloseTo(0.5, 9);
		// Cap of a sphere of radius 1 and height h: π h² (3 − h) / 3 of 4π/3.
		const f = heightForCrownShare(0.2, 'round');
		const h = 2 * f;
		expect((h * h * (3 - h)) / 4).toBeCloseTo(0.2, 9);
	});
});

describe('the gate before a later stage', () => {
	const cut = (stage: number, doneOn: string | null) =>
		cutSchema.parse({
			id: `c${stage}`,
			segmentId: `r${stage}`,
			stage,
			reason: '',
			state: doneOn ? 'done' : 'planned',
			doneOn,
			note: ''
		});
	const plan = { cuts: [cut(0, '2025-03-01'), cut(1, null)] };
	const look = (observedOn: string, rest: Record<string, unknown>) =>
		observationSchema.parse({ id: observedOn, version: 1, observedOn, note: 'x', ...rest });
	const answer = (looks: ReturnType<typeof look>[], reference: number | null = null, evergreen = false) =>
		stageGate(plan, looks, reference, evergreen, defaultValues)?.answer;
	it('is unknown without readings, met by shoots regained, not met by weak ones', () => {
		expect(answer([])).toBe('unknown');
		const before = look('2024-09-01', { shootExtensionMm: 200 });
		expect(answer([before, look('2025-09-01', { shootExtensionMm: 150 })])).toBe('met');
		expect(answer([before, look('2025-09-01', { shootExtensionMm: 100 })])).toBe('not-met');
		expect(answer([look('2025-09-01', { shootExtensionMm: 100 })], 120)).toBe('met');
		expect(answer([look('2025-09-01', { shootExtensionMm: 100 })])).toBe('unknown');
	});
	it('leaf cover alone does not open it; with white tips it does; dieback closes it', () => {
		expect(answer([look('2025-07-01', { leafCover: 0.95 })])).toBe('unknown');
		expect(answer([look('2025-07-01', { leafCover: 0.95, whiteTips: true })])).toBe('met');
		expect(answer([look('2025-07-01', { leafCover: 0.5, whiteTips: true })])).toBe('not-met');
		expect(
			answer([
				look('2025-03-01', { diebackLimitMm: 900 }),
				look('2025-07-01', { leafCover: 0.95, whiteTips: true, diebackLimitMm: 700 })
			])
		).toBe('not-met');
	});
	it('of an evergreen asks for new leaves and white tips, never for a full crown', () => {
		const of = (...looks: ReturnType<typeof look>[]) => answer(looks, null, true);
		expect(of(look('2025-07-01', { leafCover: 0.95, whiteTips: true }))).toBe('unknown');
		expect(of(look('2025-07-01', { buds: 'open' }))).toBe('unknown');
		expect(of(look('2025-07-01', { buds: 'open', whiteTips: true }))).toBe('met');
		expect(
			of(
				look('2025-02-01', { leafCover: 0.9 }),
				look('2025-07-01', { leafCover: 0.7, buds: 'open', whiteTips: true })
			)
		).toBe('not-met');
		// Thin from before, it is not asked for more than it had.
		expect(
			of(
				look('2025-02-01', { leafCover: 0.6 }),
				look('2025-07-01', { leafCover: 0.6, buds: 'open', whiteTips: true })
			)
		).toBe('met');
	});
	it('does not stand before the first stage, nor in a stage that is in hand', () => {
		expect(stageGate({ cuts: [cut(0, null)] }, [], null, false, defaultValues)).toBeNull();
		expect(
			stageGate(
				{ cuts: [cut(0, '2025-03-01'), { ...cut(0, null), id: 'other' }] },
				[],
				null,
				false,
				defaultValues
			)
		).toBeNull();
	});
});
