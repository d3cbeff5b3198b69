import type { Values } from '../values/values';
import type { RootMapInput, Segment } from './root-map';

interface Cut {
	segmentId: string;
	atMm: number;
	stage: number;
}

const NEARLY = 1e-6;

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
	const faults: string[] = [];
	const find = (id: string | null): Segment | undefined => map.segments.find((segment) => segment.id === id);
	const area = (segment: Segment): number => segment.diameterStartMm ** 2;

	const living = (segment: Segment): boolean => {
		if (segment.condition === 'dead' && (segment.deadFromMm ?? 0) <= 0) return false;
		const parent = find(segment.parentId);
		if (!parent) return true;
		const deadThere = parent.condition === 'dead' && segment.attachMm >= (parent.deadFromMm ?? 0);
		return !deadThere && living(parent);
	};
	const tips = map.segments.map((segment) => {
		const sides = map.segments.filter((other) => other.parentId === segment.id);
		const rest = area(segment) - sides.reduce((sum, side) => sum + area(side), 0);
		return living(segment) && segment.condition !== 'dead' ? Math.max(0, rest) * segment.fineScore : 0;
	});
	const allTips = tips.reduce((sum, tip) => sum + tip, 0);
	const holding = map.segments.map((segment) =>
		living(segment) && segment.condition === 'sound' && segment.seenToMm !== 0
			? area(segment) * values[`classWeight.${segment.rootClass}`]
			: 0
	);

	/** First stage in which a root's own tip is off; Infinity when it stays. */
	const goneIn = (segment: Segment, among: readonly Cut[]): number => {
		let stage = Infinity;
		for (const cut of among) {
			const root = find(cut.segmentId);
			if (!root) continue;
			if (root.id === segment.id) {
				const deadEnd = root.condition === 'dead' && cut.atMm > 0 && cut.atMm >= (root.deadFromMm ?? 0);
				if (!deadEnd) stage = Math.min(stage, cut.stage);
				continue;
			}
			// Does the way from this root to the trunk pass the cut?
			for (let step: Segment | undefined = segment; step?.parentId; step = find(step.parentId))
				if (step.parentId === root.id && step.attachMm >= cut.atMm) stage = Math.min(stage, cut.stage);
		}
		return stage;
	};
	const gone = map.segments.map((segment) => goneIn(segment, cuts));
	const goneDone = map.segments.map((segment) => goneIn(segment, cuts.slice(0, doneCount)));

	let lost = 0;
	for (const [stage, base] of allowances.entries()) {
		const off = (among: readonly number[]): number =>
			allTips > 0 ? tips.reduce((sum, tip, i) => sum + (among[i] === stage ? tip : 0), 0) / allTips : 0;
		const loss = off(gone);
		const may = base * (1 - (1 - values['stages.regrownShare']) * lost);
		if (loss > Math.max(may, off(goneDone)) + NEARLY)
			faults.push(`stage ${stage + 1} takes ${loss.toFixed(4)} of ${may.toFixed(4)}`);
		lost += loss;
	}
	for (const [i, segment] of map.segments.entries())
		if (segment.keep && gone[i] !== Infinity && goneDone[i] === Infinity)
			faults.push(`${segment.id} is kept, yet goes`);
	for (const cut of cuts.slice(doneCount)) {
		const seenToMm = find(cut.segmentId)?.seenToMm ?? Infinity;
		if (cut.atMm > seenToMm || seenToMm === 0) faults.push(`${cut.segmentId} lies in soil, yet cut`);
		if (find(cut.segmentId)?.sourceKnown === false) faults.push(`${cut.segmentId} is not traced, yet cut`);
		if (cut.stage >= allowances.length) faults.push(`${cut.segmentId} is cut in a stage that is not there`);
	}
	if (new Set(cuts.map((cut) => cut.segmentId)).size < cuts.length) faults.push('a root is cut twice');
	for (let middle = 0; middle < 360; middle += 30) {
		const inside = map.segments.map((segment) => {
			const turn = (((((segment.course[0]?.azimuthDeg ?? 0) - middle) % 360) + 540) % 360) - 180;
			return Math.abs(turn) <= values['anchorage.windowDeg'] / 2;
		});
		const held = holding.reduce((sum, hold, i) => sum + (inside[i] ? hold : 0), 0);
		const left = (among: readonly number[]): number =>
			holding.reduce((sum, hold, i) => sum + (inside[i] && among[i] === Infinity ? hold : 0), 0) / held;
		if (held > 0 && left(gone) < Math.min(values['anchorage.wantedShare'], left(goneDone)) - NEARLY)
			faults.push(`the window at ${middle}° keeps only ${left(gone).toFixed(3)}`);
	}
	return faults;
}
