import { isStructural, tornOnly } from '../map/shares';
import { turnDeg } from '../../maths/circular';
import { structuralRootZoneRadiusM } from './zones';
import type { Values } from '../../values/values';
import { courseLengthMm, diameterAtMm } from '../map/geometry';
import type { AnchorageWindow } from './ledger';
import type { Cut } from './plan';
import { startAzimuth, type RootMapInput, type Segment } from '../map/root-map';

/** How a root is cut, in words for the bench. */
export interface CutHow {
	tool: string;
	/** Where to, as the end of "Cut it …". */
	backTo: string;
	face: string;
	/** What it takes of the hold of the tree; null where it takes none. */
	hold: LostHold | null;
}

/** Why a cut is grave, and whether it is for a qualified arborist: of a tree large enough to hurt, or one that stands in the ground. */
export interface LostHold {
	why: string;
	arborist: boolean;
}
/** Whether what holds a tree is for a qualified arborist to cut: it stands in the ground, or is large enough to hurt. */
export const isForArborist = (
	map: Pick<RootMapInput, 'frame' | 'trunkDiameterMm'>,
	values: Values
): boolean => map.frame === 'ground' || map.trunkDiameterMm >= values['diagnosis.large-trunk-mm'];
/** The words that a reason to hold begins with. */
export const holdHead = ({ arborist }: LostHold): string =>
	arborist ? 'Not without a qualified arborist.' : 'It takes a hold.';

/**
 * Tool, place and face of a cut [common practice, no source], and what it takes of the hold of the tree.
 * @param windows anchorage as the plan leaves it
 */
export function cutHow(
	segment: Segment,
	{ atMm }: Pick<Cut, 'atMm'>,
	{
		map,
		windows
	}: {
		map: Pick<RootMapInput, 'frame' | 'trunkDiameterMm' | 'segments'>;
		windows: readonly AnchorageWindow[];
	},
	values: Values
): CutHow {
	const thickMm = diameterAtMm(segment, atMm, courseLengthMm(segment.course));
	const structural = isStructural(segment);
	const nearMm = values['ground.noCutTrunkDiameters'] * map.trunkDiameterMm;
	const zoneMm = structuralRootZoneRadiusM(map.trunkDiameterMm / 1000, values) * 1000;
	const fromMm = (segment.course[0]?.radiusMm ?? 0) + atMm;
	const inGround = map.frame === 'ground' && structural;
	const short = windows.some(
		(window) =>
			window.short &&
			Math.abs(turnDeg(window.azimuthDeg, startAzimuth(segment))) <= values['anchorage.windowDeg'] / 2
	);
	const tearOnly = tornOnly(segment) && atMm > 0;
	const kept = map.segments.some((side) => side.parentId === segment.id && side.attachMm < atMm);
	return {
		tool:
			thickMm <= values['cut.secateursMm']
				? 'Sharp secateurs'
				: thickMm <= values['cut.loppersMm']
					? 'Loppers'
					: 'A fine saw',
		backTo:
			segment.condition === 'dead'
				? 'back to sound, pale wood'
				: tearOnly
					? 'behind the tear'
					: atMm === 0
						? segment.parentId === null
							? 'at the trunk, outside its collar'
							: 'where it leaves its parent'
						: kept
							? 'just beyond its last side root that stays'
							: 'at the mark',
		face: 'Face down or outward, clean, never torn.',
		hold: lost(
			inGround && fromMm < nearMm
				? `A structural root within ${values['ground.noCutTrunkDiameters']} trunk diameters of a standing tree.`
				: inGround && fromMm < zoneMm
					? 'A structural root within the structural root zone of a standing tree.'
					: segment.rootClass === 'anchor' && !tearOnly
						? segment.condition === 'dead'
							? 'A rotten anchor: what it held falls to the others.'
							: 'An anchor: what it held falls to the others.'
						: structural && short && !tearOnly
							? 'The anchorage of its side falls below what is wanted.'
							: null,
			isForArborist(map, values)
		)
	};
}

const lost = (why: string | null, arborist: boolean): LostHold | null =>
	why === null ? null : { why: arborist ? why : `${why} Tie the tree down.`, arborist };
