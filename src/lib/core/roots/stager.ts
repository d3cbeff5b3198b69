import type { Values } from '../values/values';
import { girdlingOf } from './geometry';
import { ledger, type LedgerCut, type LedgerMap } from './ledger';
import { rootFlawNames, type Segment } from './root-map';
import { usualCutPlace } from './shares';

export interface StagedCut extends LedgerCut {
	reason: string;
}

export interface LeftUndone {
	segmentId: string;
	reason: string;
	/** What stands in the way. */
	because: string;
}

export interface Staging {
	cuts: StagedCut[];
	left: LeftUndone[];
}

interface Claim {
	segment: Segment;
	/** Lower goes first: 0 rot, 1 girdlers, 2 circling and turned back, 3 rising, descending, non-radial, 4 neatness. */
	rank: number;
	/** Last stage by which it must be cut, where that is wanted. */
	byStage: number;
	reason: string;
}

/** What speaks for cutting a root, from its condition, its course and its noted flaws; null when nothing does. */
export function claimOf(segment: Segment, map: LedgerMap, values: Values): Omit<Claim, 'segment'> | null {
	const last = Number.POSITIVE_INFINITY;
	if (segment.condition === 'dead') {
		const from = segment.deadFromMm ?? 0;
		const word = segment.flaws.includes('rotten') ? 'rotten' : 'dead';
		return { rank: 0, byStage: 0, reason: from > 0 ? `${word} from ${Math.round(from)} mm` : word };
	}
	const { contactShare, severity } = girdlingOf(segment, map, values);
	if (severity !== 'none' && severity !== 'watch') {
		const percent = Math.round(contactShare * 100);
		return {
			rank: 1,
			byStage: severity === 'moderate' ? last : 1,
			reason: `girdles ${percent} % of the trunk, ${severity}`
		};
	}
	const ranked: [number, Segment['flaws']][] = [
		[1, ['girdling']],
		[2, ['circling', 'turned-back']],
		[3, ['rising', 'descending', 'non-radial', 'crossing', 'above-plane']],
		[4, ['torn', 'crowded', 'too-thick', 'sucker']]
	];
	for (const [rank, flaws] of ranked) {
		const flaw = segment.flaws.find((candidate) => flaws.includes(candidate));
		if (flaw) return { rank, byStage: last, reason: rootFlawNames[flaw] };
	}
	return null;
}

/**
 * A simple honest stager: takes the claims in order (rot, girdlers, circling, rising and crossing, neatness) and puts
 * each cut into the earliest stage whose allowance and anchorage still hold. What fits nowhere is left, with the reason.
 * Rot goes at once and costs nothing living. Kept, untraced and sound anchor roots are never taken.
 * It is greedy: no promise that nothing better exists.
 * @param allowances living share allowed in each stage; as many stages as allowances
 * @param fixed cuts already chosen or done; they stay as they are
 */
export function stageCuts(
	map: LedgerMap,
	allowances: readonly number[],
	values: Values,
	fixed: readonly LedgerCut[] = []
): Staging {
	const taken = new Set(fixed.map((cut) => cut.segmentId));
	const claims: Claim[] = [];
	for (const segment of map.segments) {
		if (taken.has(segment.id)) continue;
		const claim = claimOf(segment, map, values);
		if (claim) claims.push({ segment, ...claim });
	}
	claims.sort((a, b) => a.rank - b.rank || b.segment.diameterStartMm - a.segment.diameterStartMm);

	const cuts: StagedCut[] = [];
	const left: LeftUndone[] = [];
	for (const { segment, rank, byStage, reason } of claims) {
		const leave = (because: string) => left.push({ segmentId: segment.id, reason, because });
		if (segment.keep) {
			leave('you locked it to be kept');
			continue;
		}
		if (!segment.sourceKnown) {
			leave('its source is not known: trace it further');
			continue;
		}
		if (segment.rootClass === 'anchor' && rank > 0) {
			leave('anchors are kept unless rotten');
			continue;
		}
		const place = { segmentId: segment.id, atMm: usualCutPlace(segment) };
		const stage = allowances.findIndex((_, index) => {
			const trial = ledger(map, [...fixed, ...cuts, { ...place, stage: index }], allowances, values);
			const shortBefore = ledger(map, [...fixed, ...cuts], allowances, values).windows;
			const holds = trial.windows.every(
				(window, i) => !window.short || (shortBefore[i]?.short ?? false) || rank === 0
			);
			return holds && trial.violations.length === 0 && (rank === 0 || trial.stages.every((s) => s.fits));
		});
		if (stage >= 0) {
			const late = stage > byStage ? '; wanted earlier, the allowance holds it back' : '';
			cuts.push({ ...place, stage, reason: reason + late });
		} else {
			const alone = ledger(
				map,
				[...fixed, ...cuts, { ...place, stage: allowances.length - 1 }],
				allowances,
				values
			);
			leave(
				alone.violations[0] ??
					(alone.windows.some((window) => window.short)
						? 'anchorage would fall short'
						: 'it would exceed the allowance in every stage')
			);
		}
	}
	return { cuts, left };
}
