import { measured, measuredWhole } from '../../text/measured';
import { percent } from '../../text/percent';
import type { SeasonFit } from '../../climate/windows';
import type { Values } from '../../values/values';
import type { StageLoss } from './ledger';
import type { Permission } from '../../vocabulary/words';
import { consentOf, isOwnersToSay } from './consent';
import type { Consent, Cut } from './plan';
import type { Segment } from '../map/root-map';
import { cutHow, holdHead } from './cutting';
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

/** Roots that are to be cut, on a day, and what they stand in. */
interface CutsAhead {
	/** What the stage takes with these cuts, against its allowance. */
	stage: Pick<StageLoss, 'loss' | 'allowed'>;
	seasonFit: SeasonFit;
	/** Coldest night ahead that is known, else a usual one of the season, °C; null for roots that stay in the ground. */
	nightC: number | null;
	coldLimitC: number;
	cuts: readonly { cut: Pick<Cut, 'atMm'>; segment: Segment }[];
	map: Pick<RootMapInput, 'frame' | 'trunkDiameterMm' | 'segments'>;
	windows: readonly AnchorageWindow[];
	consents: readonly Consent[];
	permission: Permission;
}

/** The owner said no, or was not asked. */
function ownerStops({ cuts, map, consents, permission }: CutsAhead, values: Values): CutStop[] {
	const answers = cuts
		.filter(({ segment }) => isOwnersToSay(segment, { permission }, map, values))
		.map(({ segment }) => consentOf({ consents: [...consents] }, segment.id)?.answer ?? null);
	const roots = (count: number): string => `${count} root${count === 1 ? '' : 's'}`;
	const refused = answers.filter((answer) => answer === 'no').length;
	const unasked = answers.filter((answer) => answer === null).length;
	if (refused > 0) return [{ kind: 'owner', why: `The owner said no to ${roots(refused)} of these.` }];
	if (unasked > 0)
		return [{ kind: 'owner', why: `The owner was not asked about ${roots(unasked)} of these.` }];
	return [];
}

/** A cut through the old stem or tap cannot be taken back. */
function oneWayStops({ cuts, map }: CutsAhead, values: Values): CutStop[] {
	const through = cuts.filter(({ cut, segment }) =>
		isThroughStem(segment, cut.atMm, map.trunkDiameterMm, values)
	);
	if (through.length === 0) return [];
	return [
		{
			kind: 'one-way',
			why: `This cuts through the old stem or tap itself (${through.map(({ segment }) => measured(segment.diameterStartMm, 'mm')).join(', ')}): once, and for good. First see that the roots at the surface hold and feed it alone; try its stance without support.`
		}
	];
}

/** Holds that are lost: those for an arborist first, then the others. */
function holdStops({ cuts, map, windows }: CutsAhead, values: Values): CutStop[] {
	const holds = cuts.flatMap(({ cut, segment }) => cutHow(segment, cut, { map, windows }, values).hold ?? []);
	return [true, false].flatMap((arborist): CutStop[] => {
		const grave = holds.filter((hold) => hold.arborist === arborist);
		const [first] = grave;
		if (!first) return [];
		const why = [...new Set(grave.map((hold) => hold.why))].join(' ');
		return [{ kind: arborist ? 'arborist' : 'hold', why: `${holdHead(first).replace(/\.$/, '')}: ${why}` }];
	});
}

/** What stands against cutting these roots on a day. None of it forbids the work; each asks for a reason in the record. */
export function cutStops(ahead: CutsAhead, values: Values): CutStop[] {
	const { stage, seasonFit, nightC, coldLimitC } = ahead;
	const stops = [...ownerStops(ahead, values), ...oneWayStops(ahead, values)];
	if (stage.loss > stage.allowed + 1e-9)
		stops.push({
			kind: 'over-allowance',
			why: `It takes ${percent(stage.loss)} of the living root, and ${percent(stage.allowed)} is allowed in this stage.`
		});
	if (nightC !== null && nightC < coldLimitC)
		stops.push({
			kind: 'cold',
			why: `Nights of about ${measuredWhole(nightC, '°C')} are ahead where it stands; freshly cut roots stand ${measuredWhole(coldLimitC, '°C')}.`
		});
	if (seasonFit === 'out-of-window')
		stops.push({ kind: 'out-of-window', why: 'The day is out of the window of its kind for root work.' });
	return [...stops, ...holdStops(ahead, values)];
}
