import type { Values } from '../../values/values';
import type { RootMapInput, Segment } from '../map/root-map';

interface Cut {
	segmentId: string;
	atMm: number;
	stage: number;
}

const NEARLY = 1e-6;

/** The roots by themselves: what lives, what holds, what a cut takes. */
function rootsAlone(map: Pick<RootMapInput, 'segments'>, values: Values) {
	const find = (id: string | null): Segment | undefined => map.segments.find((segment) => segment.id === id);
	const area = (segment: Segment): number => segment.diameterStartMm ** 2;
	const living = (segment: Segment): boolean => {
		if (segment.condition === 'dead' && (segment.deadFromMm ?? 0) <= 0) return false;
		const parent = find(segment.parentId);
		if (!parent) return true;
		const deadThere = parent.condition === 'dead' && segment.attachMm >= (parent.deadFromMm ?? 0);
		return !deadThere && living(parent);
	};
	/** Cut far enough out a root stays, and loses what it bears beyond. */
	const shortened = (segment: Segment, atMm: number): number | null => {
		if (atMm <= 0) return null;
		if (segment.condition === 'dead' && atMm >= (segment.deadFromMm ?? 0)) return 0;
		if (atMm < values['cut.stubThicknesses'] * segment.diameterStartMm) return null;
		return Math.max(0, 1 - (atMm / lengthOf(segment)) ** values['roots.fineTowardTip']);
	};
	return {
		segments: map.segments,
		find,
		shortened,
		tips: map.segments.map((segment) => {
			const sides = map.segments.filter((other) => other.parentId === segment.id);
			const rest = area(segment) - sides.reduce((sum, side) => sum + area(side), 0);
			return living(segment) && segment.condition !== 'dead' ? Math.max(0, rest) * segment.fineScore : 0;
		}),
		holding: map.segments.map((segment) =>
			living(segment) && segment.condition === 'sound' && segment.seenToMm !== 0
				? area(segment) * values[`classWeight.${segment.rootClass}`]
				: 0
		),
		/** First stage in which a root is gone whole; Infinity when it stays. */
		goneIn: (segment: Segment, among: readonly Cut[]): number => {
			let stage = Infinity;
			for (const cut of among) {
				const root = find(cut.segmentId);
				if (!root) continue;
				if (root.id === segment.id) {
					if (shortened(root, cut.atMm) === null) stage = Math.min(stage, cut.stage);
					continue;
				}
				// Does the way from this root to the trunk pass the cut?
				for (let step: Segment | undefined = segment; step?.parentId; step = find(step.parentId))
					if (step.parentId === root.id && step.attachMm >= cut.atMm) stage = Math.min(stage, cut.stage);
			}
			return stage;
		}
	};
}
type Roots = ReturnType<typeof rootsAlone>;

function lengthOf({ course }: Segment): number {
	const at = ({ azimuthDeg, radiusMm, depthMm }: Segment['course'][number]): number[] => [
		radiusMm * Math.cos((azimuthDeg * Math.PI) / 180),
		radiusMm * Math.sin((azimuthDeg * Math.PI) / 180),
		depthMm
	];
	let sum = 0;
	for (let i = 1; i < course.length; i++) {
		const [a, b] = [course[i - 1], course[i]];
		if (a && b) sum += Math.hypot(...at(b).map((x, axis) => x - (at(a)[axis] ?? 0)));
	}
	return sum;
}

/** Share of all tips that goes in a stage. */
function goesIn(stage: number, roots: Roots, gone: readonly number[], made: readonly Cut[]): number {
	const allTips = roots.tips.reduce((sum, tip) => sum + tip, 0);
	if (allTips <= 0) return 0;
	/** Part of a tip that is off by the end of a stage. */
	const offBy = (i: number, by: number): number => {
		if ((gone[i] ?? Infinity) <= by) return 1;
		const own = made.filter((cut) => cut.segmentId === roots.segments[i]?.id && cut.stage <= by);
		return Math.max(
			0,
			...own.map((cut) => {
				const segment = roots.find(cut.segmentId);
				return (segment && roots.shortened(segment, cut.atMm)) ?? 0;
			})
		);
	};
	return roots.tips.reduce((sum, tip, i) => sum + tip * (offBy(i, stage) - offBy(i, stage - 1)), 0) / allTips;
}

/** Anchorage windows that the plan leaves with too little, by what the cuts that were made had left. */
function windowFaults(
	{ segments, holding }: Roots,
	gone: readonly number[],
	goneDone: readonly number[],
	values: Values
): string[] {
	return Array.from({ length: 12 }, (_, i) => i * 30).flatMap((middle) => {
		const inside = segments.map((segment) => {
			const turn = (((((segment.course[0]?.azimuthDeg ?? 0) - middle) % 360) + 540) % 360) - 180;
			return Math.abs(turn) <= values['anchorage.windowDeg'] / 2;
		});
		const held = holding.reduce((sum, hold, i) => sum + (inside[i] ? hold : 0), 0);
		const left = (among: readonly number[]): number =>
			holding.reduce((sum, hold, i) => sum + (inside[i] && among[i] === Infinity ? hold : 0), 0) / held;
		return held > 0 && left(gone) < Math.min(values['anchorage.wantedShare'], left(goneDone)) - NEARLY
			? [`the window at ${middle}° keeps only ${left(gone).toFixed(3)}`]
			: [];
	});
}

/**
 * Verifies a reduction plan from the roots alone. It shares no step with the planner and none with the ledger, so that a
 * fault in either shows here.
 * @param cuts cuts made first, then those planned
 * @param doneCount how many of the cuts were made; what they broke is not the plan's fault
 * @returns what does not hold, in sentences; empty when all does
 */
export function checkPlan(
	map: Pick<RootMapInput, 'segments'>,
	cuts: readonly Cut[],
	allowances: readonly number[],
	values: Values,
	doneCount: number
): string[] {
	const roots = rootsAlone(map, values);
	const [made, planned] = [cuts.slice(0, doneCount), cuts.slice(doneCount)];
	const gone = map.segments.map((segment) => roots.goneIn(segment, cuts));
	const goneDone = map.segments.map((segment) => roots.goneIn(segment, made));
	const faults: string[] = [];
	let lost = 0;
	for (const [stage, base] of allowances.entries()) {
		const loss = goesIn(stage, roots, gone, cuts);
		const may = base * (1 - (1 - values['stages.regrownShare']) * lost);
		if (loss > Math.max(may, goesIn(stage, roots, goneDone, made)) + NEARLY)
			faults.push(`stage ${stage + 1} takes ${loss.toFixed(4)} of ${may.toFixed(4)}`);
		lost += loss;
	}
	for (const [i, segment] of map.segments.entries())
		if (segment.keep && gone[i] !== Infinity && goneDone[i] === Infinity)
			faults.push(`${segment.id} is kept, yet goes`);
	for (const cut of planned) {
		const root = roots.find(cut.segmentId);
		const seenToMm = root?.seenToMm ?? Infinity;
		if (cut.atMm > seenToMm || seenToMm === 0) faults.push(`${cut.segmentId} lies in soil, yet cut`);
		if (root?.sourceKnown === false) faults.push(`${cut.segmentId} is not traced, yet cut`);
		if (cut.stage >= allowances.length) faults.push(`${cut.segmentId} is cut in a stage that is not there`);
	}
	if (new Set(cuts.map((cut) => cut.segmentId)).size < cuts.length) faults.push('a root is cut twice');
	return [...faults, ...windowFaults(roots, gone, goneDone, values)];
}
