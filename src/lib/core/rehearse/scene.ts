import { z } from 'zod';
import { weatherHabits } from '../climate/drawn-weather';
import { recoveryCaseInput } from '../recovery/forecast-case';
import { calendarDate, count, id, measure, oneOf, share, shortText } from '../vocabulary/fields';
import { groups, liftingWindows } from '../vocabulary/kind';
import { placeClimateInput } from '../vocabulary/place';

/** A pot it may stand in: what it holds, and the air its mix keeps when it has drained. */
export const scenePot = z.strictObject({
	id: id(),
	label: shortText(120),
	rootedMostL: measure(0.001, 20_000, 'L').describe('Most water that the part with roots holds'),
	unrootedMostL: measure(0, 20_000, 'L').describe('and the part that has none yet'),
	surfaceM2: measure(0.0001, 100, 'm²'),
	crownM2: measure(0, 2000, 'm²').describe('Ground that the crown covers'),
	airSpace: share().describe('Air in the mix after it has drained, share of its volume'),
	held: share().describe('Water that its mix takes up and gives, share of its volume'),
	replants: z.boolean().describe('It has to be replanted for it')
});
export type ScenePot = z.infer<typeof scenePot>;

/** A place it may stand at. */
export const scenePlace = z.strictObject({
	id: id(),
	label: shortText(60),
	...placeClimateInput.shape
});
export type ScenePlace = z.infer<typeof scenePlace>;

/** A root stage that is planned: what it takes, and what it does away with. */
export const sceneStage = z.strictObject({
	on: calendarDate(),
	share: share().describe('Living root that it takes, of what lives then'),
	rot: share().describe('Part of the rot that it cuts out'),
	girdles: share().describe('Part of the girdling that it frees the trunk of')
});
export type SceneStage = z.infer<typeof sceneStage>;

/** Soil of a tree in the ground, in millimetres over the ground of its roots. */
export const sceneGround = z.strictObject({
	ballMm: measure(1, 5000, 'mm'),
	backfillMm: measure(0, 50_000, 'mm'),
	areaM2: measure(0.001, 10_000, 'm²'),
	crownRatio: measure(0, 200, 'times'),
	grassShare: share()
});

/** A tree as it stands, as far as it bears on the seasons ahead. */
export const rehearsalScene = z
	.strictObject({
		recovery: recoveryCaseInput.describe(
			'As Recovery judges it; the last day of it is the first of the rehearsal'
		),
		group: oneOf(groups),
		liftingWindow: oneOf(liftingWindows),
		coldestC: measure(-60, 30, '°C').describe('Coldest night it stands with its roots in a pot'),
		wetnessTrigger: share().describe('Dryness at which it is watered: 0 wet, 1 dry'),
		lastCutOn: calendarDate().nullable().default(null).describe('Day its roots were last cut or lifted'),
		rotChance: share()
			.nullable()
			.default(null)
			.describe('Chance of rot at roots or stem; null where nobody looked'),
		airlessChance: share()
			.describe('Chance that the mix it stands in has no air, 0 to 1')
			.nullable()
			.default(null)
			.describe('Chance that the mix it stands in has no air; null where nobody looked'),
		girdled: share().default(0).describe('Share of the trunk that roots lie tight against'),
		dryness: share().default(0.3).describe('How dry it is today: 0 drained, 1 dry'),
		ground: sceneGround.nullable().default(null).describe('For a tree in the ground'),
		pots: z.array(scenePot).max(8).default([]).describe('The pot it stands in first; none in the ground'),
		potGuessed: z
			.boolean()
			.default(false)
			.describe('Nobody wrote down what it stands in: how much it holds and drinks is a guess'),
		places: z.array(scenePlace).min(1).max(12).describe('Where it stands first'),
		replantOn: calendarDate()
			.nullable()
			.default(null)
			.describe('Day that its planting is planned for; null where none is'),
		restUntil: calendarDate()
			.nullable()
			.default(null)
			.describe('First day of water after the dry rest it is in; null where it is in none'),
		backupsAlive: count(0, 2000).default(0).describe('Cuttings and divisions of it that live'),
		stages: z.array(sceneStage).max(6).default([]).describe('Root stages that are planned, in order'),
		habits: weatherHabits.prefault({}).describe('How the weather there goes about its climate'),
		backupRate: share().default(0.4).describe('Share of cuttings that come through'),
		days: count(60, 1095)
			.nullable()
			.default(null)
			.describe('How far it is played; null for the usual two years')
	})
	.refine(({ pots, ground }) => pots.length > 0 || ground !== null, {
		path: ['pots'],
		error: 'must hold the pot it stands in, or the ground has to be told'
	});
export type RehearsalScene = z.infer<typeof rehearsalScene>;
