import polygonClipping from 'polygon-clipping';
import { describe, expect, it } from 'vitest';
import { circularSummary, rayleigh } from '$core/maths/circular';
import { contactArc, liesAgainst } from '$core/roots/map/contact';
import { crossings } from '$core/roots/map/course';
import { planPoint, polarOf, type PlanPoint } from '$core/roots/map/geometry';
import {
	areaMm2,
	barkRadiusMm,
	combinedDiameterMm,
	nearestBark,
	outlineRing,
	outlineSchema,
	perimeterMm,
	selfCrosses,
	tapeDiameterMm,
	type Outline,
	type Stem
} from '$core/roots/map/outline';
import { segmentSchema } from '$core/roots/map/root-map';
import { createRandom } from '$core/maths/random';
import { defaultValues as values, resolveValues } from '$core/values/values';

const stem = (outline: Outline, radiusMm = 0, azimuthDeg = 0): Stem => ({
	id: `s${radiusMm}-${azimuthDeg}`,
	centre: { azimuthDeg, radiusMm },
	outline,
	note: ''
});
const pairs = (points: readonly PlanPoint[]): [number, number][] => points.map(({ x, y }) => [x, y]);
/** Area of a multipolygon of the library, holes left out, by the shoelace. */
const areaOf = (shape: [number, number][][][]): number =>
	shape.flat().reduce((sum, ring) => {
		const twice = ring.reduce((total, [x, y], i) => {
			const [nx, ny] = ring[(i + 1) % ring.length] ?? [x, y];
			return total + x * ny - nx * y;
		}, 0);
		return sum + twice / 2;
	}, 0);

describe('outlines of the trunk against closed forms', () => {
	it('circle: π d and π d²/4, wherever it stands', () => {
		const round = stem({ shape: 'circle', diameterMm: 80 }, 150, 40);
		expect(perimeterMm(round)).toBeCloseTo(Math.PI * 80, 1);
		expect(areaMm2(round) / ((Math.PI * 80 * 80) / 4)).toBeCloseTo(1, 4);
		expect(tapeDiameterMm(round)).toBe(80);
	});
	it('ellipse: π a b, and the perimeter by the arithmetic-geometric mean of the complete elliptic integral', () => {
		const [a, b] = [60, 25];
		const oval = stem({ shape: 'ellipse', longMm: 2 * a, shortMm: 2 * b, longAzimuthDeg: 30 });
		expect(areaMm2(oval) / (Math.PI * a * b)).toBeCloseTo(1, 4);
		// Abramowitz & Stegun 17.6 (from memory): E(m) = K(m) (1 − Σ 2^(n−1) c_n²), perimeter 4 a E.
		let [x, y, c, sum, power] = [1, b / a, Math.sqrt(1 - (b / a) ** 2), 0, 0.5];
		sum += power * c * c;
		for (let n = 0; n < 8; n++) {
			c = (x - y) / 2;
			[x, y] = [(x + y) / 2, Math.sqrt(x * y)];
			power *= 2;
			sum += power * c * c;
		}
		const perimeter = 4 * a * (Math.PI / (2 * x)) * (1 - sum);
		expect(perimeterMm(oval) / perimeter).toBeCloseTo(1, 4);
		// Its long axis points where it was said.
		expect(barkRadiusMm({ trunkDiameterMm: 80, stems: [oval] }, 30)).toBeCloseTo(a, 1);
		expect(barkRadiusMm({ trunkDiameterMm: 80, stems: [oval] }, 120)).toBeCloseTo(b, 1);
	});
	it('a root all along the bark of an ellipse touches all of it; a tangent at its flat side touches more than at its tip', () => {
		const oval = stem({ shape: 'ellipse', longMm: 120, shortMm: 60, longAzimuthDeg: 0 });
		const round = outlineRing(oval).filter((_, i) => i % 13 === 0);
		const course = [...round, round[0] ?? { x: 0, y: 0 }].map((p) => ({ ...polarOf(p), depthMm: 0 }));
		expect(contactArc({ course, diameterStartMm: 6, parentId: 'x' }, [oval], values).share).toBeCloseTo(1, 6);
		const line = (p: PlanPoint, q: PlanPoint) => [
			{ ...polarOf(p), depthMm: 0 },
			{ ...polarOf(q), depthMm: 0 }
		];
		const flat = line({ x: 33, y: -200 }, { x: 33, y: 200 });
		const tip = line({ x: -200, y: -63 }, { x: 200, y: -63 });
		const share = (of: typeof flat) =>
			contactArc(
				{ course: of, diameterStartMm: 6, parentId: 'x' },
				[oval],
				resolveValues({ 'contact.toleranceMm': 3 })
			).share;
		expect(share(flat)).toBeGreaterThan(1.5 * share(tip));
		expect(share(tip)).toBeGreaterThan(0);
	});
	it('several stems count together as BS 5837:2012, 4.6.1 says (from memory)', () => {
		const stems = [300, 400].map((diameterMm, i) => stem({ shape: 'circle', diameterMm }, 400 * i));
		expect(combinedDiameterMm(stems)).toBeCloseTo(500, 6);
		const seven = Array.from({ length: 7 }, (_, i) =>
			stem({ shape: 'circle', diameterMm: 100 + 10 * i }, 300, i * 50)
		);
		expect(combinedDiameterMm(seven)).toBeCloseTo(130 * Math.sqrt(7), 6);
		expect(combinedDiameterMm([stem({ shape: 'circle', diameterMm: 90 })])).toBeCloseTo(90, 6);
	});
});

describe('polygons against a general geometry library (polygon-clipping)', () => {
	const { next: random } = createRandom(7);
	const traced = (): PlanPoint[] => {
		const n = 4 + Math.floor(random() * 9);
		return Array.from({ length: n }, (_, i) =>
			planPoint({ azimuthDeg: (i * 360) / n + random() * 15, radiusMm: 40 + random() * 60 })
		);
	};
	it('areas of 60 traced outlines, and of what two of them share', () => {
		for (let i = 0; i < 60; i++) {
			const points = traced();
			const polygon = stem({ shape: 'polygon', points: points.map(polarOf) });
			const library = Math.abs(areaOf(polygonClipping.union([pairs(points)])));
			// Corners of the outline are cut off by the even steps, by less than a thousandth.
			expect(areaMm2(polygon) / library).toBeCloseTo(1, 2);
			expect(outlineSchema.safeParse(polygon.outline).success).toBe(true);
			const inside = { shape: 'circle', diameterMm: 30 } as const;
			const disc = outlineRing(stem(inside));
			const shared = Math.abs(areaOf(polygonClipping.intersection([pairs(points)], [pairs(disc)])));
			expect(shared).toBeCloseTo(areaMm2(stem(inside)), 3);
		}
	});
	it('tells outlines that cross themselves: 300 random rings', () => {
		let crossing = 0;
		for (let i = 0; i < 300; i++) {
			const n = 4 + Math.floor(random() * 3);
			const points = Array.from({ length: n }, () => ({ x: random() * 100, y: random() * 100 }));
			const library = polygonClipping.union([pairs(points)]);
			const twice = points.reduce((sum, p, k) => {
				const q = points[(k + 1) % n] ?? p;
				return sum + p.x * q.y - q.x * p.y;
			}, 0);
			const simple =
				library.length === 1 &&
				library[0]?.length === 1 &&
				Math.abs(Math.abs(areaOf(library)) - Math.abs(twice) / 2) < 1e-6;
			expect(selfCrosses(points), JSON.stringify(points)).toBe(!simple);
			if (!simple) crossing++;
		}
		expect(crossing).toBeGreaterThan(60);
		expect(crossing).toBeLessThan(290);
	});
	it('finds crossings of straight roots where thin strips share an area: 200 pairs', () => {
		const strip = (a: PlanPoint, b: PlanPoint): [number, number][] => {
			const length = Math.hypot(b.x - a.x, b.y - a.y);
			const [nx, ny] = [((b.y - a.y) / length) * 1e-4, (-(b.x - a.x) / length) * 1e-4];
			return [
				[a.x + nx, a.y + ny],
				[b.x + nx, b.y + ny],
				[b.x - nx, b.y - ny],
				[a.x - nx, a.y - ny]
			];
		};
		const root = (id: string, a: PlanPoint, b: PlanPoint) =>
			segmentSchema.parse({
				id,
				parentId: null,
				rootClass: 'secondary',
				condition: 'sound',
				diameterStartMm: 5,
				diameterEndMm: 2,
				fineScore: 1,
				course: [a, b].map((p) => ({ ...polarOf(p), depthMm: 0 }))
			});
		const point = (): PlanPoint => ({ x: random() * 400 - 200, y: random() * 400 - 200 });
		let met = 0;
		for (let i = 0; i < 200; i++) {
			const [a, b, c, d] = [point(), point(), point(), point()] as const;
			const found = crossings([root('a', a, b), root('b', c, d)]).length > 0;
			const library = polygonClipping.intersection([strip(a, b)], [strip(c, d)]).length > 0;
			expect(found).toBe(library);
			if (found) met++;
		}
		expect(met).toBeGreaterThan(20);
	});
	it('a root that lies within a stem lies against it, however far the bark is', () => {
		const trunk = { trunkDiameterMm: 100, stems: [stem({ shape: 'circle', diameterMm: 100 }, 40, 90)] };
		const at = (azimuthDeg: number, radiusMm: number, depthMm = 0) => ({ azimuthDeg, radiusMm, depthMm });
		const near = resolveValues({ 'contact.toleranceMm': 2 });
		// Deeper than the trunk reaches it passes under it.
		expect(liesAgainst(trunk, at(90, 40, 49), 4, near)).toBe(true);
		expect(liesAgainst(trunk, at(90, 40, 60), 4, near)).toBe(false);
		expect(liesAgainst(trunk, at(90, 40), 4, near)).toBe(true);
		expect(liesAgainst(trunk, at(90, 93), 4, near)).toBe(true);
		expect(liesAgainst(trunk, at(90, 96), 4, near)).toBe(false);
		expect(liesAgainst(trunk, at(270, 20), 4, near)).toBe(false);
	});
	it('the nearest place on the bark lies on the outline and no corner is nearer', () => {
		const points = traced();
		const trunk = { trunkDiameterMm: 100, stems: [stem({ shape: 'polygon', points: points.map(polarOf) })] };
		for (let i = 0; i < 50; i++) {
			const p = { x: random() * 400 - 200, y: random() * 400 - 200 };
			const near = nearestBark(trunk, p);
			for (const corner of points)
				expect(near.distanceMm).toBeLessThanOrEqual(Math.hypot(p.x - corner.x, p.y - corner.y) + 1);
		}
	});
});

describe('an outline is refused', () => {
	const at = (azimuthDeg: number, radiusMm: number) => ({ azimuthDeg, radiusMm });
	it.each([
		['that crosses itself', [at(0, 50), at(180, 50), at(90, 50), at(270, 50)], /cross itself/],
		['of two points', [at(0, 50), at(180, 50)], /three points/],
		['that encloses nothing', [at(0, 10), at(0, 20), at(0, 30)], /cross itself|enclose/]
	])('%s', (_, points, message) => {
		expect(outlineSchema.safeParse({ shape: 'polygon', points }).error?.issues[0]?.message).toMatch(message);
	});
	it('when it is shorter the long way', () => {
		const ellipse = { shape: 'ellipse', longMm: 40, shortMm: 60, longAzimuthDeg: 0 };
		expect(outlineSchema.safeParse(ellipse).error?.issues[0]?.message).toMatch(/long way/);
	});
});

/**
 * Fisher 1993, Statistical Analysis of Circular Data, Appendix B3: 76 turtles after laying eggs (data of Gould in
 * Stephens 1969; values and results from memory, recomputed).
 */
const TURTLES = [
	8, 9, 13, 13, 14, 18, 22, 27, 30, 34, 38, 38, 40, 44, 45, 47, 48, 48, 48, 48, 50, 53, 56, 57, 58, 58, 61,
	63, 64, 64, 64, 65, 65, 68, 70, 73, 78, 78, 78, 83, 83, 88, 88, 88, 90, 92, 92, 93, 95, 96, 98, 100, 103,
	106, 113, 118, 138, 153, 153, 155, 204, 215, 223, 226, 237, 238, 243, 244, 250, 251, 257, 268, 285, 319,
	343, 350
];
describe('directions', () => {
	it('agree with Fisher 1993, B3: mean direction 64°, R̄ 0.50', () => {
		expect(TURTLES).toHaveLength(76);
		const { meanDeg, resultantLength } = circularSummary(
			TURTLES.map((azimuthDeg) => ({ azimuthDeg, weight: 1 }))
		);
		expect(Math.abs((meanDeg ?? 0) - 64)).toBeLessThan(0.5);
		expect(resultantLength).toBeCloseTo(0.497, 2);
		expect(rayleigh(TURTLES.map((azimuthDeg) => ({ azimuthDeg, weight: 1 }))).z).toBeCloseTo(
			76 * 0.497 ** 2,
			0
		);
	});
});
