import { z } from 'zod';
import { circularSummary, sectorShares, turnDeg, widestGap, type Direction } from '../../maths/circular';
import type { Values } from '../../values/values';
import type { Trunk } from '../map/outline';
import type { Cut } from './plan';
import { startAzimuth, type RootMap, type Segment } from '../map/root-map';
import { beyondShare, removedBy, rootShares, type RootShares } from '../map/shares';

export const stageLossOutput = z.object({
	stage: z.number(),
	loss: z.number().describe('Living absorbing share of the whole map that this stage removes'),
	allowed: z
		.number()
		.describe('What this stage may remove, after what earlier stages took and the tree grew back'),
	fits: z.boolean()
});
export type StageLoss = z.infer<typeof stageLossOutput>;

export const anchorageWindowOutput = z.object({
	azimuthDeg: z.number().describe('Middle of the window'),
	left: z
		.number()
		.nullable()
		.describe('Structural share left of what the window held, or null where it never held anything'),
	short: z.boolean()
});
export type AnchorageWindow = z.infer<typeof anchorageWindowOutput>;

export const balanceOutput = z.object({
	holding: z.number().describe('How many roots hold it; without one nothing can be said of their balance'),
	directionDeg: z.number().nullable(),
	resultantLength: z.number(),
	gapDeg: z.number(),
	gapFromDeg: z.number(),
	sectors: z.array(z.number()).describe('Eight 45° sectors, the first centred on azimuth 0')
});
export type Balance = z.infer<typeof balanceOutput>;

/** How evenly the roots that hold it stand round the trunk, in words; null where none is known to hold it. */
export const balanceWords = (
	{ holding, resultantLength }: Pick<Balance, 'holding' | 'resultantLength'>,
	values: Values
): string | null =>
	holding === 0
		? null
		: resultantLength < values['balance.little']
			? 'Even all round'
			: resultantLength < values['balance.much']
				? 'A little one-sided'
				: 'One-sided';

export interface Ledger {
	stages: StageLoss[];
	/** Living share lost over all stages, before anything grows back. */
	totalLoss: number;
	/** Share of every root, own tip and all that hangs on it. */
	carried: ReadonlyMap<string, number>;
	/** What each cut alone costs of the living roots, by segment id. */
	cutCost: ReadonlyMap<string, number>;
	windows: AnchorageWindow[];
	least: AnchorageWindow | null;
	before: Balance;
	after: Balance;
	/** Ids of the roots gone whole after the last stage; one that is only shortened still holds. */
	gone: ReadonlySet<string>;
	/** Part of what a root absorbs by itself that is off after the last stage, of those that were cut. */
	lost: ReadonlyMap<string, number>;
	/** What the plan may not do, in sentences; empty for a plan that holds. */
	violations: string[];
}

export type LedgerMap = Pick<RootMap, 'segments'> & Trunk;
export type LedgerCut = Pick<Cut, 'segmentId' | 'atMm' | 'stage'>;

const WINDOW_COUNT = 12;

function balanceOf(segments: readonly Segment[], shares: RootShares, gone: ReadonlySet<string>): Balance {
	const directions: Direction[] = segments
		.filter((segment) => !gone.has(segment.id))
		.map((segment) => ({
			azimuthDeg: startAzimuth(segment),
			weight: shares.structuralMm2.get(segment.id) ?? 0
		}))
		.filter((direction) => direction.weight > 0);
	const { meanDeg, resultantLength } = circularSummary(directions);
	const gap = widestGap(directions.map((direction) => direction.azimuthDeg));
	return {
		holding: directions.length,
		directionDeg: meanDeg,
		resultantLength,
		gapDeg: gap.widthDeg,
		gapFromDeg: gap.fromDeg,
		sectors: sectorShares(directions)
	};
}

function anchorage(
	segments: readonly Segment[],
	shares: RootShares,
	gone: ReadonlySet<string>,
	values: Values
): AnchorageWindow[] {
	const half = values['anchorage.windowDeg'] / 2;
	const structural = segments.flatMap((segment) => {
		const area = shares.structuralMm2.get(segment.id) ?? 0;
		return area > 0
			? [{ azimuthDeg: startAzimuth(segment), area, left: gone.has(segment.id) ? 0 : area }]
			: [];
	});
	return Array.from({ length: WINDOW_COUNT }, (_, index) => {
		const azimuthDeg = (index * 360) / WINDOW_COUNT;
		let held = 0;
		let left = 0;
		for (const root of structural) {
			if (Math.abs(turnDeg(azimuthDeg, root.azimuthDeg)) > half) continue;
			held += root.area;
			left += root.left;
		}
		const share = held > 0 ? left / held : null;
		return {
			azimuthDeg,
			left: share,
			short: share !== null && share < values['anchorage.wantedShare'] - 1e-9
		};
	});
}

/** Share carried by each root and all that hangs on it. */
function carriedShares(segments: readonly Segment[], shares: RootShares): Map<string, number> {
	const carried = new Map<string, number>();
	const walk = (segment: Segment): number => {
		const known = carried.get(segment.id);
		if (known !== undefined) return known;
		const sum = (shares.children.get(segment.id) ?? []).reduce(
			(total, side) => total + walk(side),
			shares.absorbing.get(segment.id) ?? 0
		);
		carried.set(segment.id, sum);
		return sum;
	};
	segments.forEach(walk);
	return carried;
}

/**
 * What a set of cuts costs and leaves: living loss by stage against the allowance, anchorage by window, balance.
 * Later stages are allowed B · (1 − (1 − g) · lost before), g being the share grown back between stages.
 * @param cuts at most one a root; unknown roots are ignored
 * @param allowances share allowed in each stage; the last one holds for later stages
 */
export function ledger(
	map: LedgerMap,
	cuts: readonly LedgerCut[],
	allowances: readonly number[],
	values: Values
): Ledger {
	const { segments } = map;
	const byId = new Map(segments.map((segment) => [segment.id, segment]));
	const shares = rootShares(segments, values);
	const carried = carriedShares(segments, shares);
	const stageCount = Math.max(allowances.length, 1, ...cuts.map((cut) => cut.stage + 1));

	const gone = new Set<string>();
	/** Part of what each root absorbs by itself that is off. */
	const lost = new Map<string, number>();
	const cutCost = new Map<string, number>();
	const stages: StageLoss[] = [];
	let lostBefore = 0;
	for (let stage = 0; stage < stageCount; stage++) {
		let loss = 0;
		for (const cut of cuts) {
			if (cut.stage !== stage) continue;
			const root = byId.get(cut.segmentId);
			if (!root) continue;
			const whole = removedBy(cut, byId, shares, values);
			const takes = new Map(whole.map((id) => [id, 1]));
			for (const id of whole) gone.add(id);
			// A root that is only shortened gives what lies beyond the cut, and holds on.
			if (!takes.has(root.id)) takes.set(root.id, beyondShare(root, cut.atMm, values));
			let cost = 0;
			for (const [id, share] of takes) {
				const own = shares.absorbing.get(id) ?? 0;
				cost += share * own;
				loss += Math.max(0, share - (lost.get(id) ?? 0)) * own;
				lost.set(id, Math.max(share, lost.get(id) ?? 0));
			}
			cutCost.set(cut.segmentId, cost);
		}
		const base = allowances[stage] ?? allowances[allowances.length - 1] ?? 0;
		const allowed = base * (1 - (1 - values['stages.regrownShare']) * lostBefore);
		stages.push({ stage, loss, allowed, fits: loss <= allowed + 1e-9 });
		lostBefore += loss;
	}

	const windows = anchorage(segments, shares, gone, values);
	const least = windows.reduce<AnchorageWindow | null>(
		(worst, window) =>
			window.left !== null && (worst === null || worst.left === null || window.left < worst.left)
				? window
				: worst,
		null
	);
	return {
		stages,
		totalLoss: lostBefore,
		carried,
		cutCost,
		windows,
		least,
		before: balanceOf(segments, shares, new Set()),
		after: balanceOf(segments, shares, gone),
		gone,
		lost,
		violations: violationsOf(segments, cuts, gone, byId)
	};
}

function violationsOf(
	segments: readonly Segment[],
	cuts: readonly LedgerCut[],
	gone: ReadonlySet<string>,
	byId: ReadonlyMap<string, Segment>
): string[] {
	const nameOf = (segment: Segment): string => `root ${segments.indexOf(segment) + 1}`;
	const found: string[] = [];
	for (const cut of cuts) {
		const segment = byId.get(cut.segmentId);
		if (segment && !segment.sourceKnown)
			found.push(`The source of ${nameOf(segment)} is not known: trace it further before it is cut.`);
		if (segment && (segment.seenToMm === 0 || cut.atMm > (segment.seenToMm ?? Infinity)))
			found.push(`The cut on ${nameOf(segment)} lies in soil still: lay it open first.`);
	}
	for (const segment of segments)
		if (segment.keep && gone.has(segment.id))
			found.push(`${nameOf(segment)} is locked to be kept, yet it would go.`);
	return found;
}
