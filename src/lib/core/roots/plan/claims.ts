import { measured } from '../../text/measured';
import { percent } from '../../text/percent';
import type { Values } from '../../values/values';
import { flawsOf } from '../map/course';
import { girdlingOf, liesAgainst } from '../map/contact';
import { courseLengthMm, planPoint } from '../map/geometry';
import type { LedgerMap } from './ledger';
import { tornOnly } from '../map/shares';
import { rootFlawNames, type RootFlaw, type Segment } from '../map/root-map';

/** What speaks for cutting a root, strongest first. */
export type ClaimKind = 'rot' | 'girdling' | 'circling' | 'course' | 'neatness';

export interface Claim {
	kind: ClaimKind;
	/** What cutting it is worth, in points [our own]. */
	benefit: number;
	/** Last stage by which it must be cut; null where it may wait or stay. */
	byStage: number | null;
	reason: string;
	/** How far along the root the trouble begins: a cut must not lie beyond. */
	fromMm: number;
}

const courseFlaws: readonly RootFlaw[] = ['rising', 'descending', 'non-radial', 'crossing', 'above-plane'];
const neatFlaws: readonly RootFlaw[] = ['torn', 'crowded', 'too-thick', 'sucker'];

/** What speaks for cutting a root, from its condition, its course and its noted flaws; null when nothing does. */
export function claimOf(segment: Segment, map: LedgerMap, values: Values): Claim | null {
	if (segment.condition === 'dead') {
		const from = segment.deadFromMm ?? 0;
		const word = segment.flaws.includes('rotten') ? 'rotten' : 'dead';
		return {
			kind: 'rot',
			benefit: values['plan.benefit.rot'],
			byStage: 0,
			reason: from > 0 ? `${word} from ${measured(from, 'mm')}` : word,
			fromMm: from
		};
	}
	const girdling = segment.seenOtherwise.includes('girdling') ? null : girdlingOf(segment, map, values);
	if (girdling && girdling.severity !== 'none' && girdling.severity !== 'watch')
		return {
			kind: 'girdling',
			benefit: values[`plan.benefit.girdling.${girdling.severity}`],
			byStage: girdling.severity === 'moderate' ? null : 1,
			reason: `girdles ${percent(girdling.contactShare)} of the trunk, ${girdling.severity}`,
			fromMm: contactFromMm(segment, map, values)
		};
	const seen = flawsOf(segment, map.segments, values);
	const noted = (list: readonly RootFlaw[]) => seen.find(({ flaw }) => list.includes(flaw));
	const claim = (
		kind: ClaimKind,
		benefit: number,
		{ flaw, why }: { flaw: RootFlaw; why: string | null }
	): Claim => ({
		kind,
		benefit,
		byStage: null,
		reason: rootFlawNames[flaw] + (why ? `: ${why}` : ''),
		fromMm: flawFromMm(segment, flaw)
	});
	const girdler = noted(['girdling']);
	if (girdler)
		return {
			...claim('girdling', values['plan.benefit.girdling.moderate'], girdler),
			fromMm: contactFromMm(segment, map, values)
		};
	const bound = noted(['circling', 'turned-back']);
	if (bound) return claim('circling', values['plan.benefit.circling'], bound);
	const course = noted(courseFlaws);
	if (course) return claim('course', values['plan.benefit.course'], course);
	const neat = noted(neatFlaws);
	return neat
		? claim('neatness', values[tornOnly(segment) ? 'plan.benefit.torn' : 'plan.benefit.neatness'], neat)
		: null;
}

/** How far along its course a root first lies against the trunk again after it has left it. */
function contactFromMm(segment: Segment, map: LedgerMap, values: Values): number {
	const leaves = segment.parentId === null ? segment.diameterStartMm : 0;
	let walked = 0;
	for (const [index, point] of segment.course.entries()) {
		if (walked >= leaves && liesAgainst(map, point, segment.diameterStartMm, values))
			return index === 0 ? 0 : walked;
		const next = segment.course[index + 1];
		if (next) walked += courseLengthMm([point, next]);
	}
	return 0;
}

/** How far along its course a flaw begins; 0 where the course does not tell. */
export function flawFromMm(segment: Pick<Segment, 'course'>, flaw: RootFlaw): number {
	const { course } = segment;
	const along = (index: number): number => courseLengthMm(course.slice(0, index + 1));
	const peak = (of: (index: number) => number): number =>
		course.reduce((best, _, index) => (of(index) > of(best) ? index : best), 0);
	const radius = (index: number): number => course[index]?.radiusMm ?? 0;
	switch (flaw) {
		case 'circling': {
			const widest = radius(peak(radius));
			return along(course.findIndex((point) => point.radiusMm >= 0.85 * widest));
		}
		case 'turned-back':
			return along(peak(radius));
		case 'rising':
			return along(peak((index) => course[index]?.depthMm ?? 0));
		case 'crossing':
		case 'non-radial': {
			const start = course[0];
			const second = course[1];
			if (!start || !second) return 0;
			const [a, b] = [planPoint(start), planPoint(second)];
			const heading = Math.atan2(b.y - a.y, b.x - a.x);
			const turned = course.findIndex((point, index) => {
				const next = course[index + 1];
				if (index === 0 || !next) return false;
				const [p, q] = [planPoint(point), planPoint(next)];
				const turn = Math.atan2(q.y - p.y, q.x - p.x) - heading;
				return Math.abs(Math.atan2(Math.sin(turn), Math.cos(turn))) > Math.PI / 6;
			});
			return turned > 0 ? along(turned) : 0;
		}
		default:
			return 0;
	}
}
