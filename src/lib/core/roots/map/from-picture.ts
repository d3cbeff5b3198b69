import type { OfferedRoot } from '../../examine/pictures/offered';
import type { Values } from '../../values/values';
import { courseLengthMm, polarOf, type CoursePoint, type PlanPoint } from './geometry';
import { barkRadiusMm, type Trunk } from './outline';
import { ribbon } from './ribbon';
import { usualClass, usualDepthMm, usualFineScore, type Segment } from './root-map';

/** A root read from a picture, and whether it runs out of what the picture shows. */
export interface PicturedRoot extends OfferedRoot {
	runsOut: boolean;
	/** How deep below the flare it was said to lie, mm; null where nobody said. */
	depthMm: number | null;
}

const tenths = (mm: number): number => Math.round(mm * 10) / 10;

/**
 * Roots of a map from roots read in a picture. Class, and depth where nobody said it, stay guesses; dark and soft cannot be seen, so until
 * somebody felt them they are doubtful. What is done with them is for the person.
 * @param roots each after the one that it leaves
 * @param from which picture, how deep below the flare its plane lies (null where nobody said) and with it roots of which nothing else was
 * said, and what was felt of the roots
 */
export function segmentsFromPicture(
	roots: readonly PicturedRoot[],
	map: Trunk,
	from: { pictureId: string; depthMm: number | null; condition: 'sound' | 'doubtful' },
	values: Values,
	newId: () => string
): Segment[] {
	const ids = roots.map(newId);
	return roots.map((root, i): Segment => {
		const diameterStartMm = Math.min(map.trunkDiameterMm, Math.max(0.2, tenths(root.diameterStartMm)));
		const saidMm = root.depthMm ?? from.depthMm;
		const depthMm = saidMm ?? usualDepthMm(diameterStartMm);
		const rootClass = usualClass(diameterStartMm, map.trunkDiameterMm, values);
		const course = joined(root.course).map((point): CoursePoint => ({ ...point, depthMm }));
		const parentId = root.parent === null ? null : (ids[root.parent] ?? null);
		return {
			id: ids[i] ?? newId(),
			parentId,
			attachMm: parentId === null ? 0 : tenths(root.attachMm),
			rootClass: parentId !== null && rootClass !== 'feeder' ? 'secondary' : rootClass,
			condition: from.condition,
			deadFromMm: null,
			doubtfulFromMm: null,
			// Where it runs out of the picture nobody saw its end.
			seenToMm: root.runsOut ? Math.floor(courseLengthMm(course)) : null,
			diameterStartMm,
			diameterEndMm: Math.max(0.1, Math.min(tenths(root.diameterEndMm), diameterStartMm * 1.5)),
			fineScore: usualFineScore[rootClass],
			flaws: [],
			seenOtherwise: [],
			guessed: ['class', ...(saidMm === null ? (['depth'] as const) : [])],
			sourceKnown: true,
			keep: false,
			measuredIn: {
				pictureId: from.pictureId,
				thicknessErrorMm: tenths(root.thicknessErrorMm),
				lengthErrorMm: tenths(root.lengthErrorMm)
			},
			depthIn: null,
			course,
			note: ''
		};
	});
}

/** Directions along a course as a map keeps them: each near the one before, also over the front. */
function joined(course: readonly PlanPoint[]): { azimuthDeg: number; radiusMm: number }[] {
	const points = course.map(polarOf);
	let before = points[0]?.azimuthDeg ?? 0;
	return points.map(({ azimuthDeg, radiusMm }) => {
		const near = azimuthDeg + 360 * Math.round((before - azimuthDeg) / 360);
		before = near > 2 * 360 || near < -360 ? azimuthDeg : near;
		return { azimuthDeg: before, radiusMm };
	});
}

/** What a picture from the side still says of the depth of a root after it was changed by hand. */
export const stillDeep = (before: Segment, now: Segment): Segment['depthIn'] =>
	before.course[0]?.depthMm === now.course[0]?.depthMm ? now.depthIn : null;

/** What a picture still says of a root after it was changed by hand: not what was typed or drawn since. */
export function stillMeasured(before: Segment, now: Segment): Segment['measuredIn'] {
	if (!now.measuredIn) return null;
	const same = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b);
	const plan = ({ course }: Segment): unknown =>
		course.map(({ azimuthDeg, radiusMm }) => [azimuthDeg, radiusMm]);
	const thicknessErrorMm =
		before.diameterStartMm === now.diameterStartMm ? now.measuredIn.thicknessErrorMm : null;
	const lengthErrorMm = same(plan(before), plan(now)) ? now.measuredIn.lengthErrorMm : null;
	return thicknessErrorMm === null && lengthErrorMm === null
		? null
		: { ...now.measuredIn, thicknessErrorMm, lengthErrorMm };
}

/**
 * How a root was measured, where a picture told it.
 * @param say a measure in words, from mm
 * @returns empty where it was measured by hand
 */
export function measuredSaid(
	{ measuredIn }: Pick<Segment, 'measuredIn'>,
	say: (mm: number) => string
): string {
	if (!measuredIn) return '';
	const { thicknessErrorMm, lengthErrorMm } = measuredIn;
	const of = [
		...(thicknessErrorMm === null ? [] : [`thickness ± ${say(thicknessErrorMm)}`]),
		...(lengthErrorMm === null ? [] : [`length ± ${say(lengthErrorMm)}`])
	];
	return `measured in a picture, ${of.join(', ')}`;
}

/** Share of a root read from a picture that lies on a root of the map already. */
function shareOn(course: readonly PlanPoint[], segment: Segment): number {
	const points = ribbon(segment);
	const on = course.filter(({ x, y }) =>
		points.some((point) => Math.hypot(point.x - x, point.y - y) <= point.halfWidthMm + NEAR_MM)
	);
	return course.length > 0 ? on.length / course.length : 0;
}
const NEAR_MM = 4;

/** Whether a root read from a picture stands on the map already: most of it lies on one of its roots. */
export const standsOnMap = (course: readonly PlanPoint[], segments: readonly Segment[]): boolean =>
	segments.some((segment) => 2 * shareOn(course, segment) > 1);

/** How far the bark lies from the middle in each whole degree, mm. */
export const barkAround = (map: Trunk): number[] =>
	Array.from({ length: 360 }, (_, deg) => barkRadiusMm(map, deg) || map.trunkDiameterMm / 2);
