import { measured } from '../../text/measured';
import { percent } from '../../text/percent';
import type { SeasonFit } from '../../climate/windows';
import type { Values } from '../../values/values';
import type { StageLoss } from './ledger';
import type { Permission } from '../../vocabulary/words';
import { consentOf, isOwnersToSay } from './consent';
import type { Consent, Cut } from './plan';
import type { Segment } from '../map/root-map';
import { cutHow, holdHead } from './cutting';
import { courseLengthMm } from '../map/geometry';
import type { RootMapInput } from '../map/root-map';
import type { AnchorageWindow } from './ledger';

/** Why a hand stops before it cuts: it may go on for a reason that is written down. */
export interface CutStop {
	kind: 'over-allowance' | 'cold' | 'out-of-window' | 'arborist' | 'hold' | 'one-way' | 'owner';
	why: string;
}

/**
 * A root that is the old stem or tap itself: it leaves the trunk straight down and is nearly as thick; cut at its base, nothing of it is left to
 * go back to (handbook 14: a one-time gate).
 */
export const isThroughStem = (
	segment: Pick<Segment, 'parentId' | 'flaws' | 'diameterStartMm' | 'condition'>,
	atMm: number,
	trunkDiameterMm: number,
	values: Values
): boolean =>
	segment.parentId === null &&
	segment.flaws.includes('descending') &&
	segment.diameterStartMm >= values['stops.stemShare'] * trunkDiameterMm &&
	atMm <= segment.diameterStartMm;

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
		windows,
		consents,
		permission
	}: {
		stage: Pick<StageLoss, 'loss' | 'allowed'>;
		seasonFit: SeasonFit;
		nightC: number | null;
		coldLimitC: number;
		cuts: readonly { cut: Pick<Cut, 'atMm'>; segment: Segment }[];
		map: Pick<RootMapInput, 'frame' | 'trunkDiameterMm' | 'segments'>;
		windows: readonly AnchorageWindow[];
		consents: readonly Consent[];
		permission: Permission;
	},
	values: Values
): CutStop[] {
	const holds = cuts.flatMap(
		({ cut, segment }) =>
			cutHow(segment, cut, map, courseLengthMm(segment.course), values, windows).hold ?? []
	);
	const oneWay = cuts.filter(({ cut, segment }) =>
		isThroughStem(segment, cut.atMm, map.trunkDiameterMm, values)
	);
	const theirs = cuts.filter(({ segment }) => isOwnersToSay(segment, { permission }, map, values));
	const said = (answer: Consent['answer'] | null): number =>
		theirs.filter(
			({ segment }) => (consentOf({ consents: [...consents] }, segment.id)?.answer ?? null) === answer
		).length;
	const roots = (count: number): string => `${count} root${count === 1 ? '' : 's'}`;
	return [
		...(said('no') > 0
			? [{ kind: 'owner' as const, why: `The owner said no to ${roots(said('no'))} of these.` }]
			: said(null) > 0
				? [{ kind: 'owner' as const, why: `The owner was not asked about ${roots(said(null))} of these.` }]
				: []),
		...(oneWay.length > 0
			? [
					{
						kind: 'one-way' as const,
						why: `This cuts through the old stem or tap itself (${oneWay.map(({ segment }) => measured(segment.diameterStartMm, 'mm')).join(', ')}): once, and for good. First see that the roots at the surface hold and feed it alone; try its stance without support.`
					}
				]
			: []),
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
						why: `Nights of about ${measured(Math.round(nightC), '°C')} are ahead where it stands; freshly cut roots stand ${measured(Math.round(coldLimitC), '°C')}.`
					}
				]
			: []),
		...(seasonFit === 'out-of-window'
			? [{ kind: 'out-of-window' as const, why: 'The day is out of the window of its kind for root work.' }]
			: []),
		...[true, false].flatMap((arborist): CutStop[] => {
			const grave = holds.filter((hold) => hold.arborist === arborist);
			const [first] = grave;
			if (!first) return [];
			const why = [...new Set(grave.map((hold) => hold.why))].join(' ');
			return [
				{
					kind: arborist ? 'arborist' : 'hold',
					why: `${holdHead(first).replace(/\.$/, '')}: ${why}`
				}
			];
		})
	];
}
