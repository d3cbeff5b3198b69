import type { SeasonFit } from '../climate/windows';
import type { Values } from '../values/values';
import type { StageLoss } from './ledger';
import type { Cut } from './plan';
import type { Segment } from './root-map';
import { cutHow } from './cutting';
import { courseLengthMm } from './geometry';
import type { RootMapInput } from './root-map';
import type { AnchorageWindow } from './ledger';

/** Why a hand stops before it cuts: it may go on for a reason that is written down. */
export interface CutStop {
	kind: 'over-allowance' | 'cold' | 'out-of-window' | 'arborist';
	why: string;
}

/**
 * What stands against cutting these roots on a day. None of it forbids the work; each asks for a reason in the record.
 * @param stage what the stage takes with these cuts, against its allowance
 * @param nightC coldest night ahead that is known, else a usual one of the season, °C; null for roots that stay in the ground
 */
export function cutStops(
	{
		stage,
		seasonFit,
		nightC,
		coldLimitC,
		cuts,
		map,
		windows
	}: {
		stage: Pick<StageLoss, 'loss' | 'allowed'>;
		seasonFit: SeasonFit;
		nightC: number | null;
		coldLimitC: number;
		cuts: readonly { cut: Pick<Cut, 'atMm'>; segment: Segment }[];
		map: Pick<RootMapInput, 'frame' | 'trunkDiameterMm' | 'segments'>;
		windows: readonly AnchorageWindow[];
	},
	values: Values
): CutStop[] {
	const percent = (share: number): string => `${Math.round(share * 100)} %`;
	const forOthers = cuts.flatMap(({ cut, segment }) => {
		const { arborist } = cutHow(segment, cut, map, courseLengthMm(segment.course), values, windows);
		return arborist === null ? [] : [arborist];
	});
	return [
		...(stage.loss > stage.allowed + 1e-9
			? [
					{
						kind: 'over-allowance' as const,
						why: `It takes ${percent(stage.loss)} of the living root, and ${percent(stage.allowed)} is allowed in this stage.`
					}
				]
			: []),
		...(nightC !== null && nightC < coldLimitC
			? [
					{
						kind: 'cold' as const,
						why: `Nights of about ${Math.round(nightC)} °C are ahead where it stands; freshly cut roots stand ${Math.round(coldLimitC)} °C.`
					}
				]
			: []),
		...(seasonFit === 'out-of-window'
			? [{ kind: 'out-of-window' as const, why: 'The day is out of the window of its kind for root work.' }]
			: []),
		...(forOthers.length > 0
			? [
					{
						kind: 'arborist' as const,
						why: `Not without a qualified arborist: ${[...new Set(forOthers)].join(' ')}`
					}
				]
			: [])
	];
}
