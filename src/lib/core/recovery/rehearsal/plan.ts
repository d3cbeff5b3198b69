import { z } from 'zod';
import { wordsOf } from '../../vocabulary/words-of';
import { count, id, oneOf, shortText } from '../../vocabulary/fields';
import { crownSchools } from '../../vocabulary/words';

/** What a plan does with the roots. */
export const rootWayNames = {
	'as-planned': 'as planned',
	'half-now': 'half of the next stage, the rest a year on',
	wait: 'nothing this year',
	treat: 'cut back to sound wood now'
};
export type RootWay = keyof typeof rootWayNames;
export const rootWays = wordsOf(rootWayNames);

/** How a plan waters. */
export const waterRuleNames = {
	'by-need': 'by need',
	'every-days': 'every so many days',
	'dry-first': 'dry first, then by need'
};
export type WaterRule = keyof typeof waterRuleNames;
export const waterRules = wordsOf(waterRuleNames);

/** Most plans that are played side by side. */
export const PLANS_MOST = 4;

/** One plan for a tree as it stands, of those that are played side by side. */
export const rehearsedPlan = z.strictObject({
	name: shortText(60),
	roots: oneOf(rootWays).default('as-planned'),
	crown: oneOf(crownSchools)
		.default('keep-leaves')
		.describe('balance takes of the crown what roots cannot feed'),
	potId: id()
		.nullable()
		.default(null)
		.describe('One of the pots of the scene; null leaves it where it stands'),
	placeId: id().nullable().default(null).describe('One of the places of the scene; null leaves it there'),
	shade: z.boolean().default(false).describe('Shade cloth over it, from its work on'),
	warnings: z.boolean().default(true).describe('It is covered or carried in when a night is too cold for it'),
	water: oneOf(waterRules).default('by-need'),
	everyDays: count(1, 60).default(7).describe('Days between waterings, where it is watered by the calendar'),
	backups: count(0, 200).default(0).describe('Cuttings taken first')
});
export type RehearsedPlan = z.infer<typeof rehearsedPlan>;
