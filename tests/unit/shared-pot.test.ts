import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { carryOver, sessionsOf } from '$core/roots/plan/done';
import { planPoint } from '$core/roots/map/geometry';
import { barkRadiusMm } from '$core/roots/map/outline';
import { cutSchema } from '$core/roots/plan/plan';
import { parsePlaces, parseQuickRoot, writePlaces } from '$core/roots/io/quick-entry';
import { copiesRound, reseated, rootMapInput, segmentFromQuick, turnMap } from '$core/roots/map/root-map';
import { matesOn, touchingMates } from '$core/roots/map/mates';
import { rootShares } from '$core/roots/map/shares';
import { candidatesOf } from '$core/roots/plan/reduction/problem';
import { claimOf } from '$core/roots/plan/claims';
import { ledger } from '$core/roots/plan/ledger';
import { defaultValues } from '$core/values/values';

const mapOf = (lines: string[], more: Record<string, unknown> = {}) =>
	rootMapInput.parse({
		mappedOn: '2026-03-02',
		frame: 'container',
		trunkDiameterMm: 60,
		ballRadiusMm: 150,
		segments: lines.map((line, i) => {
			const entry = parseQuickRoot(line, 'container', 60, defaultValues);
			if (!entry.ok) throw new Error(entry.problem);
			return segmentFromQuick(entry.root, { trunkDiameterMm: 60, ballRadiusMm: 150 }, `r${i}`);
		}),
		...more
	});

describe('several plants in one pot', () => {
	const left = mapOf(['9 20 anchor l140', '3 12 l160 d20'], { inPot: { azimuthDeg: 90, radiusMm: 100 } });
	const right = mapOf(['3 20 anchor', '9 12 l160 d20'], { inPot: { azimuthDeg: 270, radiusMm: 100 } });
	const mate = { id: 'm', tag: 'M-1', name: 'Mate', map: right };
	it('lie where they stand: the distance of the trunks is that in the pot', () => {
		const [on] = matesOn(left, [mate]);
		const trunk = on?.stems[0];
		expect(trunk && planPoint(trunk.centre).x).toBeCloseTo(-200, 6);
		expect(trunk && planPoint(trunk.centre).y).toBeCloseTo(0, 6);
	});
	it('touch where their roots cross at one depth, and not where one runs under the other', () => {
		const across = mapOf(['4:30 14 l200 d20', '12 9'], { inPot: { azimuthDeg: 90, radiusMm: 60 } });
		const other = mapOf(['7:30 14 l200 d20'], { inPot: { azimuthDeg: 270, radiusMm: 60 } });
		const on = matesOn(across, [{ ...mate, map: other }]);
		expect(touchingMates(across.segments, on, 5)).toEqual([{ tag: 'M-1', segmentIds: ['r0'] }]);
		const deep = mapOf(['7:30 14 l200 d120'], { inPot: { azimuthDeg: 270, radiusMm: 60 } });
		expect(touchingMates(across.segments, matesOn(across, [{ ...mate, map: deep }]), 5)).toEqual([]);
	});
	it('are left out while nobody said where they stand', () => {
		const nowhere = mapOf(['6 10']);
		expect(matesOn(nowhere, [{ ...mate, map: nowhere }])).toEqual([]);
	});
});

describe('places as they are typed', () => {
	it('are read back as they were written, in both frames', () => {
		fc.assert(
			fc.property(
				fc.array(fc.tuple(fc.integer({ min: 0, max: 719 }), fc.integer({ min: 0, max: 20_000 })), {
					minLength: 1,
					maxLength: 12
				}),
				fc.constantFrom('container' as const, 'ground' as const),
				(raw, frame) => {
					const points = raw.map(([half, radiusMm]) => ({ azimuthDeg: half / 2, radiusMm }));
					const read = parsePlaces(writePlaces(points, frame), frame);
					if (!read.ok) throw new Error(read.problem);
					expect(read.points).toHaveLength(points.length);
					for (const [i, point] of read.points.entries()) {
						expect(point.azimuthDeg % 360).toBeCloseTo(points[i]?.azimuthDeg ?? NaN, 6);
						expect(point.radiusMm).toBe(points[i]?.radiusMm);
					}
				}
			)
		);
	});
	it.each(['13 40', '12', '12 -5', '12 40 3', 'north 40', '12 99999'])('refuses "%s"', (text) => {
		expect(parsePlaces(text, 'ground').ok).toBe(false);
	});
});

describe('changing a map as a whole', () => {
	const map = mapOf(['6 20 anchor', '8 14', '11 12 circling', '3 9 girdling'], {
		lean: { towardDeg: 350, deg: 9 },
		obstacles: [
			{
				id: 'o',
				kind: 'wall',
				points: [
					{ azimuthDeg: 10, radiusMm: 120 },
					{ azimuthDeg: 40, radiusMm: 120 }
				]
			}
		]
	});
	it('turning it moves azimuths and nothing else, and back again it is the same', () => {
		fc.assert(
			fc.property(fc.integer({ min: -360, max: 360 }), (deg) => {
				const turned = turnMap(map, deg);
				expect(rootMapInput.safeParse(turned).success).toBe(true);
				const [before, after] = [map, turned].map((one) => ledger(one, [], [1], defaultValues));
				expect(after?.before.resultantLength).toBeCloseTo(before?.before.resultantLength ?? NaN, 9);
				expect([...(after?.carried.values() ?? [])]).toEqual([...(before?.carried.values() ?? [])]);
				const back = turnMap(turned, -deg);
				for (const [i, segment] of back.segments.entries())
					for (const [k, point] of segment.course.entries()) {
						const [a, b] = [planPoint(point), planPoint(map.segments[i]?.course[k] ?? point)];
						expect(Math.hypot(a.x - b.x, a.y - b.y)).toBeLessThan(1e-6);
					}
			})
		);
	});
	it('copies round the ring stand evenly, with their side roots, under names of their own', () => {
		let n = 0;
		const parent = map.segments[0];
		if (!parent) throw new Error('no root');
		const side = { ...parent, id: 'side', parentId: parent.id, attachMm: 30 };
		const copies = copiesRound([parent, side], parent.id, 4, () => `n${n++}`);
		expect(copies).toHaveLength(6);
		const starts = copies.filter((s) => s.parentId === null).map((s) => s.course[0]?.azimuthDeg);
		expect(starts).toEqual([90, 180, 270]);
		for (const copy of copies.filter((s) => s.parentId !== null))
			expect(copies.some((other) => other.id === copy.parentId)).toBe(true);
		expect(rootMapInput.safeParse({ ...map, segments: [parent, side, ...copies] }).success).toBe(true);
	});
	it('a trunk measured better takes the roots along: they leave its bark, and a girdler still lies on it', () => {
		const after = {
			trunkDiameterMm: 80,
			stems: [
				{
					id: 's',
					centre: { azimuthDeg: 0, radiusMm: 0 },
					outline: { shape: 'ellipse' as const, longMm: 96, shortMm: 62, longAzimuthDeg: 20 },
					note: ''
				}
			]
		};
		const moved = reseated(map.segments, map, after);
		for (const [i, segment] of moved.entries()) {
			const [first] = segment.course;
			expect(first?.radiusMm).toBeCloseTo(barkRadiusMm(after, first?.azimuthDeg ?? 0), 6);
			const tip = segment.course.at(-1);
			if (i < 2) expect(tip?.radiusMm).toBe(map.segments[i]?.course.at(-1)?.radiusMm);
		}
		const girdler = moved[3];
		for (const point of girdler?.course.slice(1) ?? [])
			expect(point.radiusMm - barkRadiusMm(after, point.azimuthDeg)).toBeCloseTo(5.5, 6);
	});
});

describe('a root that is only partly laid open', () => {
	const map = mapOf(['6 20 anchor', '8 14 circling seen0', '11 12 dead90 seen50', '2 10 doubtful30']);
	const byId = new Map(map.segments.map((segment) => [segment.id, segment]));
	const shares = rootShares(map.segments, defaultValues);
	it('holds nothing while it is assumed, but counts as living', () => {
		expect(shares.structuralMm2.get('r1')).toBe(0);
		expect(shares.absorbing.get('r1')).toBeGreaterThan(0);
	});
	it('is not cut where it lies in soil', () => {
		const dead = byId.get('r2');
		const claim = dead && claimOf(dead, map, defaultValues);
		if (!dead || !claim) throw new Error('no claim');
		expect(candidatesOf(dead, claim, byId, shares, defaultValues)).toEqual([]);
		expect(
			ledger(map, [{ segmentId: 'r2', atMm: 90, stage: 0 }], [1], defaultValues).violations.join()
		).toMatch(/lies in soil still/);
		expect(candidatesOf({ ...dead, seenToMm: 120 }, claim, byId, shares, defaultValues)).toHaveLength(1);
	});
	it('is refused when it is doubtful and sound at once, or doubtful beyond where it is dead', () => {
		const with2 = (patch: object) =>
			rootMapInput.safeParse({ ...map, segments: [{ ...map.segments[2], ...patch }] }).error?.issues[0]
				?.message;
		expect(with2({ condition: 'sound', deadFromMm: null, doubtfulFromMm: 10 })).toMatch(/sound root/);
		expect(with2({ doubtfulFromMm: 200 })).toMatch(/beyond where it is dead/);
		expect(with2({ doubtfulFromMm: 40 })).toBeUndefined();
	});
});

describe('what was cut against what was planned', () => {
	const map = mapOf(['6 20', '9 20', '12 20', '3 20', '5 10 trace']);
	const cut = (segmentId: string, more: object) =>
		cutSchema.parse({ id: `c-${segmentId}`, segmentId, stage: 0, reason: '', note: '', ...more });
	const plan = {
		stageDates: ['2026-03-02', '2027-03-02'],
		cuts: [
			cut('r0', { state: 'done', doneOn: '2026-03-03', atMm: 60, plannedAtMm: 0 }),
			cut('r1', { state: 'left', note: 'moss on it' }),
			cut('r2', { stage: 1, whyThen: 'stage I is full' })
		]
	};
	it('counts what went, and the whole of what was planned for that stage', () => {
		const [session] = sessionsOf(map, plan, defaultValues);
		expect(session).toMatchObject({ on: '2026-03-03', stages: [0], plannedCount: 2 });
		// Four like roots: two of them at their base were planned; one was cut beyond where it lay open.
		expect(session?.plannedShare).toBeCloseTo(4 / 9, 9);
		expect(session?.livingShare).toBeGreaterThan(0);
		expect(session?.livingShare).toBeLessThan(2 / 9);
	});
	it('what is planned afterwards rewrites nothing of it', () => {
		const then = { count: 2, share: 0.2 };
		const later = {
			...plan,
			cuts: [
				...plan.cuts.map((one) => (one.state === 'done' ? { ...one, ofPlanned: then } : one)),
				cut('r3', {})
			]
		};
		expect(sessionsOf(map, later, defaultValues)[0]).toMatchObject({ plannedCount: 2, plannedShare: 0.2 });
	});
	it('carries over what was left, what waits and what is not traced, each with what must come first', () => {
		expect(carryOver(map, plan, { stage: 1, answer: 'unknown', because: [] })).toEqual([
			{ segmentId: 'r1', why: 'moss on it', first: 'settle what held it back', fromOn: null },
			{ segmentId: 'r2', why: 'stage I is full', first: 'growth regained', fromOn: '2027-03-02' },
			{ segmentId: 'r4', why: 'where it comes from is not known', first: 'trace its source', fromOn: null }
		]);
		expect(carryOver(map, plan, { stage: 1, answer: 'met', because: [] })[1]?.first).toBe('');
	});
});
