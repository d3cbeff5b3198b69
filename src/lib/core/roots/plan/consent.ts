import type { Permission } from '../../vocabulary/words';
import type { Consent, Cut, PlanInput } from './plan';
import type { RootMapInput, Segment } from '../map/root-map';
import { isStructural } from '../map/shares';
import type { Values } from '../../values/values';

/** What the owner said of a root; null where nobody asked. */
export const consentOf = (plan: Pick<PlanInput, 'consents'>, segmentId: string): Consent | null =>
	plan.consents.find((one) => one.segmentId === segmentId) ?? null;

/** Whether somebody else has a say in cutting a root: a sound one that holds or is thick, of a tree in the ground that is not one's own. */
export const isOwnersToSay = (
	segment: Segment,
	{ permission }: { permission: Permission },
	{ frame }: Pick<RootMapInput, 'frame'>,
	values: Values
): boolean =>
	permission !== 'own' &&
	frame === 'ground' &&
	(isStructural(segment) || segment.diameterStartMm >= values['stops.askFromMm']) &&
	segment.condition === 'sound';

/** Roots to ask the owner about, those planned to be cut, and those that were answered for. */
export function ownersRoots(
	map: Pick<RootMapInput, 'segments' | 'frame'>,
	plan: Pick<PlanInput, 'cuts' | 'consents'>,
	tree: { permission: Permission },
	values: Values
): { segment: Segment; cut: Cut | null; consent: Consent | null }[] {
	return map.segments.flatMap((segment) => {
		const cut = plan.cuts.find((one) => one.segmentId === segment.id && one.state !== 'left') ?? null;
		const consent = consentOf(plan, segment.id);
		// Of one that is cut nobody is asked any more; what was answered stands.
		const toAsk = cut !== null && cut.state !== 'done' && isOwnersToSay(segment, tree, map, values);
		return toAsk || consent ? [{ segment, cut, consent }] : [];
	});
}
