import { z } from 'zod';
import { chanceSaid, likelihood } from '../../text/percent';
import type { Tree } from '../../take-in/tree';
import type { Values } from '../../values/values';
import type { Diagnosis } from './diagnose';
import type { Finding } from './finding';
import type { SignId } from '../../vocabulary/signs';

/** Someone qualified has to look, and how soon. */
export const referralOutput = z.object({
	urgency: z.enum(['now', 'week', 'month']),
	because: z.string().describe('What was seen'),
	until: z.string().describe('What to do until then')
});
export type Referral = z.infer<typeof referralOutput>;

export const referralWords: Record<Referral['urgency'], string> = {
	now: 'today, and nobody under it until then',
	week: 'within a week',
	month: 'within a month'
};

/** A standing tree that may hurt someone when it falls. */
export const isLarge = (
	tree: Pick<Tree, 'situation' | 'trunkDiameterMm' | 'heightM'>,
	values: Values
): boolean =>
	tree.situation === 'in-ground' &&
	(tree.trunkDiameterMm >= values['diagnosis.large-trunk-mm'] ||
		(tree.heightM ?? 0) >= values['diagnosis.large-height-m']);

/**
 * When a large tree has to be seen by a qualified arborist: brackets, cracks into the wood, lean with lifted soil, girdled
 * or rotten anchors. Bruntle names what was seen; whether the tree stands is not for it to judge.
 */
export function referrals(
	tree: Pick<Tree, 'situation' | 'trunkDiameterMm' | 'heightM'>,
	findings: readonly Pick<Finding, 'signId' | 'grade'>[],
	diagnosis: Diagnosis,
	values: Values
): Referral[] {
	const large = isLarge(tree, values);
	if (!large) return [];
	const grade = (sign: SignId): number => findings.find((finding) => finding.signId === sign)?.grade ?? 0;
	const chance = (id: string): number =>
		diagnosis.ranking.find((cause) => cause.conditionId === id)?.chance ?? 0;
	const list: Referral[] = [];
	const clear = 'Keep people, cars and children out from under it; dig and cut nothing.';
	if (grade('soil-lifted') > 0)
		list.push({
			urgency: 'now',
			because:
				grade('leans-rocks') > 0
					? 'It leans and the soil is lifted on one side.'
					: 'The soil is cracked or lifted on one side.',
			until: clear
		});
	if (grade('leans-rocks') === 2 && grade('soil-lifted') === 0)
		list.push({ urgency: 'now', because: 'It moves at the base when pushed.', until: clear });
	if (grade('brackets') > 0)
		list.push({
			urgency: 'week',
			because: 'Fungus brackets at the base speak of rot in roots or butt.',
			until: 'Stay from under it in wind; leave the brackets for the arborist to see.'
		});
	if (grade('bark-cracks') === 2)
		list.push({
			urgency: 'week',
			because: 'A crack runs into the wood.',
			until: 'Stay from under it in wind; mark both ends of the crack with the date.'
		});
	if (grade('nests-in-wood') > 0 && grade('brackets') === 0)
		list.push({
			urgency: 'month',
			because: 'Insects or nests in stem or root wood point to decay behind.',
			until: 'Do not poke or fill the hole.'
		});
	if (grade('girdler-seen') >= 2)
		list.push({
			urgency: 'month',
			because: 'More than a third of the trunk is girdled; anchors may be strangled beneath.',
			until: 'Map the collar; cut no root thicker than a thumb.'
		});
	if (list.length === 0 && chance('root-rot') >= values['diagnosis.referral-rot'])
		list.push({
			urgency: 'week',
			because: `Root rot is ${likelihood(chance('root-rot'))} (${chanceSaid(chance('root-rot'))}); anchors may be rotten.`,
			until: 'Stay from under it in wind; cut no anchor.'
		});
	if (list.length === 0 && chance('stem-rot') >= values['diagnosis.referral-rot'])
		list.push({
			urgency: 'week',
			because: `Stem or butt rot is ${likelihood(chance('stem-rot'))} (${chanceSaid(chance('stem-rot'))}).`,
			until: 'Stay from under it in wind.'
		});
	return list;
}
