import { z } from 'zod';
import { type Tilted, tilted } from '../map/geometry';
import { type Setting } from '../plan/plan';

import type { Values } from '../../values/values';
import { courseLengthMm } from '../map/geometry';
import { ledger, type LedgerCut } from '../plan/ledger';
import type { RootMapInput, Segment } from '../map/root-map';

export type SettingMap = Pick<
	RootMapInput,
	'segments' | 'trunkDiameterMm' | 'stems' | 'ballRadiusMm' | 'ballDepthMm' | 'lean'
>;

/** Depth of the ball: as measured, or down to the lowest root mapped. */
export const ballDepthOf = (map: Pick<SettingMap, 'segments' | 'ballDepthMm'>): number =>
	map.ballDepthMm ??
	Math.max(
		30,
		...map.segments.flatMap((segment) =>
			segment.course.map((point) => point.depthMm + segment.diameterStartMm / 2)
		)
	);

/** How far along a direction a place in plan lies, mm. */
export function alongOf(point: { azimuthDeg: number; radiusMm: number }, towardDeg: number): number {
	return point.radiusMm * Math.cos(((point.azimuthDeg - towardDeg) * Math.PI) / 180);
}

/** What of a root does not fit the angle. */
export const outOfPlaceOutput = z.object({
	segmentId: z.string(),
	where: z
		.enum(['above', 'below'])
		.describe('above: stands out of the soil · below: lies under the flat base'),
	atMm: z.number().describe('Where along the root it would be cut')
});
export type OutOfPlace = z.infer<typeof outOfPlaceOutput>;

const STEP_MM = 3;

/** Roots, by stretches of 3 mm, that stand out of the root plane or lie under the base. */
function outOfPlace(
	map: SettingMap,
	setting: Pick<Setting, 'tiltDeg' | 'tiltTowardDeg' | 'planeDepthMm' | 'baseDepthMm'>,
	values: Values
): OutOfPlace[] {
	return map.segments.flatMap((segment) => {
		const found = whereOut(segment, map, setting, values);
		return found ? [found] : [];
	});
}

function whereOut(
	segment: Segment,
	map: SettingMap,
	{ tiltDeg, tiltTowardDeg, planeDepthMm, baseDepthMm }: Parameters<typeof outOfPlace>[1],
	values: Values
): OutOfPlace | null {
	const lengthMm = courseLengthMm(segment.course);
	// At the trunk itself the flare is meant to be seen.
	const collar = segment.parentId === null ? segment.diameterStartMm : 0;
	let walked = 0;
	let above = 0;
	let firstAbove: number | null = null;
	let firstBelow: number | null = null;
	for (const [index, from] of segment.course.entries()) {
		const to = segment.course[index + 1];
		if (!to) break;
		const stretch = courseLengthMm([from, to]);
		const steps = Math.max(1, Math.ceil(stretch / STEP_MM));
		const [a, b] = [alongOf(from, tiltTowardDeg), alongOf(to, tiltTowardDeg)];
		for (let step = 0; step < steps; step++) {
			const share = (step + 0.5) / steps;
			const at = walked + share * stretch;
			const { depthMm } = tilted(
				a + share * (b - a),
				from.depthMm + share * (to.depthMm - from.depthMm),
				tiltDeg
			);
			const half =
				(segment.diameterStartMm + (segment.diameterEndMm - segment.diameterStartMm) * (at / lengthMm)) / 2;
			if (at > collar && depthMm + half < planeDepthMm) {
				above += stretch / steps;
				firstAbove ??= at;
			}
			if (depthMm - half > baseDepthMm) firstBelow ??= at;
		}
		walked += stretch;
	}
	const isAbove = firstAbove !== null && above > values['setting.aboveShare'] * lengthMm;
	if (!isAbove && firstBelow === null) return null;
	const first = isAbove && (firstBelow === null || (firstAbove ?? 0) < firstBelow) ? 'above' : 'below';
	const at = (first === 'above' ? firstAbove : firstBelow) ?? 0;
	// Nearer to its start than it is thick, it is cut at the start.
	return { segmentId: segment.id, where: first, atMm: at <= collar * 1.5 + STEP_MM ? 0 : Math.round(at) };
}

export const angleCostOutput = z.object({
	out: z.array(outOfPlaceOutput),
	livingShare: z.number().describe('Living share that would come off, 0 to 1')
});

/**
 * What an angle costs of the living root, cut where it does not fit.
 * @param planned cuts that are made or planned anyway; only what goes beyond them counts
 */
export function costOfAngle(
	map: SettingMap,
	setting: Parameters<typeof outOfPlace>[1],
	values: Values,
	planned: readonly LedgerCut[] = []
): z.infer<typeof angleCostOutput> {
	const out = outOfPlace(map, setting, values);
	const at = new Map(planned.map((cut) => [cut.segmentId, cut.atMm]));
	for (const { segmentId, atMm } of out) at.set(segmentId, Math.min(at.get(segmentId) ?? Infinity, atMm));
	const cuts = [...at].map(([segmentId, atMm]) => ({ segmentId, atMm, stage: 0 }));
	const before = planned.map((cut) => ({ ...cut, stage: 0 }));
	const lost = (of: readonly LedgerCut[]): number => ledger(map, of, [1], values).totalLoss;
	return { out, livingShare: Math.max(0, lost(cuts) - lost(before)) };
}

/**
 * Volumes between the ball, a cylinder of radius R and depth H tilted by α about the middle of its top, and the level
 * planes of the soil and the base. Strips across the tilt, 2000 of them.
 * @returns litres: shaved under the base, standing out above the soil, and to be filled between ball and base
 * @example base through the middle of the underside: the wedge is ⅔ R³ tan α
 */
export function ballWedges(
	radiusMm: number,
	heightMm: number,
	{ tiltDeg, planeDepthMm, baseDepthMm }: Pick<Setting, 'tiltDeg' | 'planeDepthMm' | 'baseDepthMm'>
): {
	shavedL: number;
	aboveL: number;
	fillL: number;
	left: Tilted & { litres: number };
	baseFromMm: number;
	baseToMm: number;
} {
	const STRIPS = 2000;
	const [cos, sin] = [Math.cos((tiltDeg * Math.PI) / 180), Math.sin((tiltDeg * Math.PI) / 180)];
	const width = (2 * radiusMm) / STRIPS;
	const sum = { shaved: 0, above: 0, fill: 0, left: 0, along: 0, depth: 0 };
	let [baseFrom, baseTo] = [Infinity, -Infinity];
	for (let i = 0; i < STRIPS; i++) {
		const along = -radiusMm + (i + 0.5) * width;
		const area = 2 * Math.sqrt(Math.max(0, radiusMm * radiusMm - along * along)) * width;
		// Where the level planes cut this column, in the ball’s own depth.
		const plane = Math.min(heightMm, Math.max(0, (planeDepthMm - along * sin) / cos));
		const rawBase = (baseDepthMm - along * sin) / cos;
		const base = Math.min(heightMm, Math.max(plane, rawBase));
		sum.above += area * plane;
		sum.shaved += area * (heightMm - base);
		sum.fill += area * Math.max(0, rawBase - heightMm) * cos;
		sum.left += area * (base - plane);
		const middle = tilted(along, (base + plane) / 2, tiltDeg);
		sum.along += area * (base - plane) * middle.alongMm;
		sum.depth += area * (base - plane) * middle.depthMm;
		if (rawBase <= heightMm + 0.5 && base > plane) {
			const at = tilted(along, base, tiltDeg).alongMm;
			baseFrom = Math.min(baseFrom, at);
			baseTo = Math.max(baseTo, at);
		}
	}
	const litres = (mm3: number): number => mm3 / 1e6;
	return {
		shavedL: litres(sum.shaved),
		aboveL: litres(sum.above),
		fillL: litres(sum.fill),
		left: {
			litres: litres(sum.left),
			alongMm: sum.left > 0 ? sum.along / sum.left : 0,
			depthMm: sum.left > 0 ? sum.depth / sum.left : 0
		},
		baseFromMm: baseFrom,
		baseToMm: baseTo
	};
}

/** Whether it stands by itself: the middle of its mass over its base. */
export const stanceOutput = z.object({
	middleAlongMm: z
		.number()
		.describe('Of trunk, crown and ball, along the tilt from the flare; negative behind'),
	middleAboveBaseMm: z.number().describe('Height of it above the base'),
	baseFromMm: z.number(),
	baseToMm: z.number(),
	marginMm: z
		.number()
		.describe('From the middle of mass to the nearer edge of the base; negative when it lies beyond'),
	marginDeg: z.number().describe('Further tilt it bears before it tips, degrees; negative when it would tip'),
	stands: z.boolean(),
	treeKg: z.number(),
	ballKg: z.number()
});
export type Stance = z.infer<typeof stanceOutput>;

/**
 * Does it stand unaided at this angle? Trunk and crown are a mass on the leaning axis, the ball what the planes leave of
 * it, the base where ball and level meet. For balance only: wind, wet and loose mix come on top.
 * @param heightM of the tree; null gives null, for nothing can be said then
 */
export function stance(
	map: SettingMap,
	setting: Setting,
	heightM: number | null,
	values: Values
): Stance | null {
	if (heightM === null) return null;
	const radiusMm = map.ballRadiusMm;
	const wedges = ballWedges(radiusMm, ballDepthOf(map), setting);
	if (wedges.left.litres <= 0 || wedges.baseToMm < wedges.baseFromMm) return null;
	const trunkL = (Math.PI * (map.trunkDiameterMm / 100) ** 2 * heightM * 10) / 4;
	const treeKg = trunkL * values['setting.formFactor'] * values['setting.greenDensityKgL'];
	const ballKg = wedges.left.litres * values['lifting.density'];
	const upMm = heightM * 1000 * values['setting.massHeight'];
	const leanRad = ((map.lean?.deg ?? 0) * Math.PI) / 180;
	const outMm = upMm * Math.sin(leanRad);
	const crown = tilted(
		outMm * Math.cos((((map.lean?.towardDeg ?? 0) - setting.tiltTowardDeg) * Math.PI) / 180),
		-upMm * Math.cos(leanRad),
		setting.tiltDeg
	);
	const all = treeKg + ballKg;
	const middleAlongMm = (treeKg * crown.alongMm + ballKg * wedges.left.alongMm) / all;
	const middleDepthMm = (treeKg * crown.depthMm + ballKg * wedges.left.depthMm) / all;
	const marginMm = Math.min(middleAlongMm - wedges.baseFromMm, wedges.baseToMm - middleAlongMm);
	const above = Math.max(1, setting.baseDepthMm - middleDepthMm);
	return {
		middleAlongMm,
		middleAboveBaseMm: above,
		baseFromMm: wedges.baseFromMm,
		baseToMm: wedges.baseToMm,
		marginMm,
		marginDeg: (Math.atan2(marginMm, above) * 180) / Math.PI,
		stands: marginMm > 0,
		treeKg,
		ballKg
	};
}

/**
 * How much of a wished tilt this session can bear: the greatest angle whose cost in living root stays within what is
 * left of the allowance; the rest waits for the next time.
 * @param roomShare living share that may still come off this time, 0 … 1
 */
export function splitTilt(
	map: SettingMap,
	setting: Pick<Setting, 'tiltDeg' | 'tiltTowardDeg' | 'planeDepthMm' | 'baseDepthMm'>,
	roomShare: number,
	values: Values,
	planned: readonly LedgerCut[] = []
): { thisTimeDeg: number; nextTimeDeg: number; byDegree: { tiltDeg: number; livingShare: number }[] } {
	const degrees = Array.from({ length: Math.floor(setting.tiltDeg) + 1 }, (_, deg) => deg);
	if (setting.tiltDeg > Math.floor(setting.tiltDeg)) degrees.push(setting.tiltDeg);
	const byDegree = degrees.map((tiltDeg) => ({
		tiltDeg,
		livingShare: costOfAngle(map, { ...setting, tiltDeg }, values, planned).livingShare
	}));
	let thisTimeDeg = 0;
	for (const { tiltDeg, livingShare } of byDegree) {
		if (livingShare > roomShare + 1e-9) break;
		thisTimeDeg = tiltDeg;
	}
	return { thisTimeDeg, nextTimeDeg: setting.tiltDeg - thisTimeDeg, byDegree };
}

/** A setting to begin with: as it stands, the plane at the flare, the base under the ball. */
export const settingToBegin = (map: SettingMap): Setting => ({
	frontDeg: 0,
	tiltDeg: 0,
	tiltTowardDeg: 0,
	planeDepthMm: 0,
	baseDepthMm: Math.round(ballDepthOf(map)),
	thisTimeDeg: 0
});

/** A root as it lies in a section along a direction, once the tree is tilted. */
export const sectionLine = (segment: Pick<Segment, 'course'>, towardDeg: number, tiltDeg: number): Tilted[] =>
	segment.course.map((point) => tilted(alongOf(point, towardDeg), point.depthMm, tiltDeg));
