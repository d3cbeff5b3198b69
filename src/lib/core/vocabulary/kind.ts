import { wordsOf } from './words-of';
import { z } from 'zod';
import { id, measure, note, oneOf, share, shortText, version } from './fields';

/** Groups of kinds that are worked alike. */
export const groupNames = {
	deciduous: 'deciduous broadleaf',
	'broadleaf-evergreen': 'broadleaf evergreen',
	conifer: 'conifer',
	tropical: 'tropical woody',
	succulent: 'succulent or fleshy-rooted',
	ericaceous: 'ericaceous',
	palm: 'palm-like'
};
export type Group = keyof typeof groupNames;
export const groups = wordsOf(groupNames);

/** When a kind is usually lifted or worked at the root. */
export const liftingWindowNames = {
	leafless: 'leaf fall to bud swell',
	'early-spring': 'early spring',
	'spring-or-autumn': 'early spring or early autumn',
	'warm-growth': 'in warm growth',
	'warm-dry': 'warm and dry'
};
export type LiftingWindow = keyof typeof liftingWindowNames;
export const liftingWindows = wordsOf(liftingWindowNames);

export const sapCautions = ['none', 'irritant', 'toxic'] as const;
export type SapCaution = (typeof sapCautions)[number];

export const kindInput = z.strictObject({
	genus: shortText(60),
	commonName: shortText(60),
	group: oneOf(groups),
	coldestC: measure(-60, 30, '°C').describe('Coldest night the plant stands with its roots in a pot, °C'),
	wetnessTrigger: share().describe('How far it dries before water: 0 wet, 1 dry'),
	liftingWindow: oneOf(liftingWindows),
	sap: oneOf(sapCautions).default('none'),
	caution: note(300)
});
export type KindInput = z.infer<typeof kindInput>;

export const kindSchema = kindInput.extend({
	id: id(),
	/** shipped: as it came with Bruntle · own: added or changed by the owner. */
	origin: oneOf(['shipped', 'own']),
	version: version()
});
export type Kind = z.infer<typeof kindSchema>;

/** Kinds that must not meet frost at all are worked and grown like tropicals. */
export const isTender = (kind: Pick<Kind, 'group' | 'coldestC'>): boolean =>
	kind.coldestC >= 0 || kind.group === 'tropical';

/** Conifers that stand bare in winter. */
const bareConifers: readonly string[] = ['Larix', 'Pseudolarix', 'Metasequoia', 'Taxodium', 'Glyptostrobus'];

/** Whether a kind bears leaves all year, so that a bare crown says something in any season. */
export const bearsAlways = (kind: Pick<Kind, 'group' | 'genus'>): boolean =>
	kind.group !== 'deciduous' && !bareConifers.includes(kind.genus);
