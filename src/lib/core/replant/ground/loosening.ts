import { isStructural } from '../../roots/map/shares';
import { planPoint, type PlanPoint } from '../../roots/map/geometry';
import type { Segment } from '../../roots/map/root-map';
import { judgeCore, densityNames, type SoilCoresData } from '../../examine/soil/bulk-density';
import type { Examination } from '../../examine/diagnosis/examination';
import type { SignId } from '../../vocabulary/signs';
import type { ResistanceProfile } from '../../examine/soil/penetrometer';
import { measured } from '../../text/measured';
import { textureClasses } from '../../vocabulary/textures';
import type { Values } from '../../values/values';

export interface Trench {
	azimuthDeg: number;
	/** Least distance from its middle line to a structural root, mm; Infinity where none was mapped near. */
	clearanceMm: number;
	/** Left out: a structural root lies in it wherever it is turned. */
	skipped: boolean;
}
export interface Hole extends PlanPoint {
	azimuthDeg: number;
	radiusMm: number;
}

/**
 * Course of a structural root in plan, mm, drawn on in its last direction as far as a reach: nobody saw it end where the
 * digging ended.
 */
export function courseDrawnOn(root: Segment, reachMm: number): { seen: PlanPoint[]; on: PlanPoint[] } {
	const seen = root.course.map(planPoint);
	const last = seen.at(-1);
	const before = seen.at(-2);
	if (!last || !before) return { seen, on: [] };
	const far = Math.hypot(last.x, last.y);
	const step = Math.hypot(last.x - before.x, last.y - before.y);
	if (far >= reachMm || step === 0) return { seen, on: [] };
	const [ux, uy] = [(last.x - before.x) / step, (last.y - before.y) / step];
	// One that turns back is not drawn across the trunk.
	if (ux * last.x + uy * last.y <= 0) return { seen, on: [] };
	const left = reachMm - far;
	return { seen, on: [last, { x: last.x + ux * left, y: last.y + uy * left }] };
}

/** Structural roots as points not further apart than a step, in plan, mm, drawn on to a reach. */
function structuralPoints(
	segments: readonly Segment[],
	stepMm: number,
	reachMm: number
): { x: number; y: number; halfMm: number }[] {
	return segments
		.filter((root) => isStructural(root) && root.condition !== 'dead')
		.flatMap((root) => {
			const { seen, on } = courseDrawnOn(root, reachMm);
			const course = [...seen, ...on.slice(1)];
			const halfMm = root.diameterStartMm / 2;
			return course.flatMap((point, i) => {
				const next = course[i + 1];
				if (!next) return [{ ...point, halfMm }];
				const steps = Math.max(1, Math.ceil(Math.hypot(next.x - point.x, next.y - point.y) / stepMm));
				return Array.from({ length: steps }, (_, k) => ({
					x: point.x + ((next.x - point.x) * k) / steps,
					y: point.y + ((next.y - point.y) * k) / steps,
					halfMm
				}));
			});
		});
}

/**
 * Radial trenches between structural roots: evenly spread, the whole star turned for the most room, then each moved within its
 * own sector to where it lies clearest. One that cannot clear is left out rather than cut.
 * @param innerMm, outerMm from the middle of the trunk
 */
export function trenchLayout(
	segments: readonly Segment[],
	{ count, innerMm, outerMm, widthMm }: { count: number; innerMm: number; outerMm: number; widthMm: number },
	values: Values
): Trench[] {
	const roots = structuralPoints(segments, 20, outerMm);
	const clearance = (azimuthDeg: number): number => {
		const { x: ux, y: uy } = planPoint({ azimuthDeg, radiusMm: 1 });
		let least = Infinity;
		for (const root of roots) {
			const along = root.x * ux + root.y * uy;
			if (along < innerMm - widthMm || along > outerMm + widthMm) continue;
			least = Math.min(least, Math.abs(root.x * uy - root.y * ux) - root.halfMm);
		}
		return least;
	};
	const sector = 360 / count;
	const byDegree = Array.from({ length: 360 }, (_, deg) => clearance(deg));
	const at = (deg: number): number => byDegree[((Math.round(deg) % 360) + 360) % 360] ?? 0;
	const star = (turn: number): number =>
		Array.from({ length: count }, (_, i) => Math.min(at(turn + i * sector), 1e6)).reduce((a, b) => a + b, 0);
	let turn = 0;
	for (let deg = 0; deg < sector; deg++) if (star(deg) > star(turn) + 1e-9) turn = deg;
	const wanted = widthMm / 2 + values['loosen.clearMm'];
	return Array.from({ length: count }, (_, i): Trench => {
		const middle = turn + i * sector;
		let best = middle;
		// Only as far as needed: an even star loosens most.
		for (let off = 0; off <= sector / 3 && at(best) < wanted; off++)
			for (const deg of [middle - off, middle + off]) if (at(deg) > at(best)) best = deg;
		return {
			azimuthDeg: ((Math.round(best) % 360) + 360) % 360,
			clearanceMm: at(best) - widthMm / 2,
			skipped: at(best) < wanted
		};
	});
}

/** Vertical holes on a square grid in a ring, without those too near to structural roots. */
export function holeLayout(
	segments: readonly Segment[],
	{
		innerMm,
		outerMm,
		spacingMm,
		holeMm
	}: { innerMm: number; outerMm: number; spacingMm: number; holeMm: number },
	values: Values
): { holes: Hole[]; leftOut: number } {
	const roots = structuralPoints(segments, 30, outerMm);
	const holes: Hole[] = [];
	let leftOut = 0;
	const reach = Math.floor(outerMm / spacingMm);
	for (let i = -reach; i <= reach; i++)
		for (let k = -reach; k <= reach; k++) {
			const [x, y] = [i * spacingMm, k * spacingMm];
			const radiusMm = Math.hypot(x, y);
			if (radiusMm < innerMm || radiusMm > outerMm) continue;
			const clear = roots.every(
				(root) => Math.hypot(root.x - x, root.y - y) - root.halfMm - holeMm / 2 >= values['loosen.clearMm']
			);
			if (clear)
				holes.push({ x, y, radiusMm, azimuthDeg: ((Math.atan2(x, -y) * 180) / Math.PI + 360) % 360 });
			else leftOut++;
		}
	return { holes, leftOut };
}

export interface LooseningAim {
	fromMm: number;
	toMm: number;
	found: string;
	aim: string;
}

/**
 * To what depth, and what should be found there afterwards, from what was measured of the soil.
 * @param profile of the last penetrometer reading, null where none
 * @param cores of the last soil cores, null where none
 */
export function looseningAims(
	profile: ResistanceProfile | null,
	cores: SoilCoresData | null,
	values: Values
): { depthMm: number; aims: LooseningAim[] } {
	const aims: LooseningAim[] = [];
	let worstMpa = 0;
	for (const band of profile?.bands ?? [])
		if (band.hardness !== 'open') {
			const last = aims.at(-1);
			const tenths = Math.round(band.meanMpa * 10) / 10;
			if (last && last.toMm === band.fromMm) {
				last.toMm = band.toMm;
				worstMpa = Math.max(worstMpa, tenths);
				last.found = `up to ${measured(worstMpa, 'MPa')}`;
			} else {
				worstMpa = tenths;
				aims.push({
					fromMm: band.fromMm,
					toMm: band.toMm,
					found: measured(tenths, 'MPa'),
					aim: `under ${measured(values['soil.resistance-slow'], 'MPa')} at field moisture`
				});
			}
		}
	for (const core of cores?.cores ?? []) {
		if (!cores) break;
		const judged = judgeCore(core, cores.texture, values);
		if (judged.judgement !== 'affects' && judged.judgement !== 'restricts' && judged.lacksAir !== true)
			continue;
		aims.push({
			fromMm: core.fromMm,
			toMm: core.toMm,
			found: `${Math.round(judged.bulkDensityMgPerM3 * 100) / 100} Mg/m³: ${densityNames[judged.judgement]}`,
			aim: `under ${values[`soil.density.ideal.${cores.texture}`]} Mg/m³ in ${textureClasses[cores.texture].label}`
		});
	}
	aims.sort((a, b) => a.fromMm - b.fromMm);
	const deepest = aims.reduce((deep, aim) => Math.max(deep, aim.toMm), 0);
	return {
		depthMm: Math.min(
			values['loosen.mostDepthMm'],
			deepest > 0 ? deepest + values['loosen.underHardMm'] : values['loosen.trenchDepthMm']
		),
		aims
	};
}

/** What speaks for loosening where no measurement found the soil hard. */
export interface SoilSaid {
	/** felt-hard: a look met hard soil, how deep is not known; not-hard: measured, and nowhere hard; unknown: nobody measured it. */
	how: 'felt-hard' | 'not-hard' | 'unknown';
	/** Day of the look or of the measurement; null where there is neither. */
	on: string | null;
}

/**
 * What is known of how hard the soil is, where it was not found hard by depth.
 * @param measuredOn day of the last rod or cores; null where there were none
 * @param looks in the order of their days
 */
export function soilSaid(
	measuredOn: string | null,
	looks: readonly Pick<Examination, 'examinedOn' | 'findings'>[]
): SoilSaid {
	const look = looks.findLast(({ findings }) => findings.some((one) => hardSoilSigns.has(one.signId)));
	const hard = look?.findings.some((one) => hardSoilSigns.has(one.signId) && one.grade > 0);
	// A look counts what was measured before it; what was measured after it knows better.
	if (look && hard && look.examinedOn >= (measuredOn ?? '')) return { how: 'felt-hard', on: look.examinedOn };
	return { how: measuredOn === null ? 'unknown' : 'not-hard', on: measuredOn };
}
const hardSoilSigns: ReadonlySet<SignId> = new Set(['probe-stops', 'dense-soil']);
