import type { SignId } from '../../vocabulary/signs';
import { inOrder, latest, type Fact, type Said } from '../fact';
import { inTerms, type Sayings } from './said';

export type PestsSeen = 'none' | 'leaf' | 'root';

const LEAF_PESTS: readonly SignId[] = ['insects-seen', 'sticky-leaves', 'holes-sawdust'];
const ROOT_PESTS: readonly SignId[] = ['galls-wool', 'root-grubs'];

/**
 * Pests by where they sit: what was seen at the root stands until the root was looked at again, and likewise on the leaf, since "none" on
 * a leaf says nothing of the root.
 */
export function pestsOf({ grade, looked, told, on, values }: Sayings): Fact<PestsSeen> {
	const said = (signs: readonly SignId[], where: 'leaf' | 'root'): Said<PestsSeen>[] =>
		inTerms(signs.flatMap(grade), (found) => (found > 0 ? where : 'none'));
	const decided = told<PestsSeen>((one) => (one.pests === 'unknown' ? null : one.pests));
	const worstFirst = (list: readonly Said<PestsSeen>[], where: 'leaf' | 'root'): Fact<PestsSeen> => {
		const known = inOrder(list).filter((one) => one.on <= on);
		const day = known.at(-1)?.on;
		// Of one day what was found counts, whatever another line of that day left empty.
		const found = known.filter((one) => one.on === day && one.value === where);
		return latest(found.length > 0 ? found : known, on, values['standing.sameTimeDays']);
	};
	const root = worstFirst(
		[...said(ROOT_PESTS, 'root'), ...decided.filter((one) => one.value !== 'leaf')],
		'root'
	);
	const leaf = worstFirst(
		[
			...said(LEAF_PESTS, 'leaf'),
			...looked<PestsSeen>((look) => (look.pests === null ? null : look.pests === 'none' ? 'none' : 'leaf')),
			...decided.filter((one) => one.value !== 'root')
		],
		'leaf'
	);
	if (root.value === 'root') return root;
	return leaf.value === null
		? root
		: leaf.value === 'leaf' || (leaf.on ?? '') >= (root.on ?? '')
			? leaf
			: root;
}
