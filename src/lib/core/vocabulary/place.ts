import { wordsOf } from './words-of';
import { z } from 'zod';
import { id, measure, note, oneOf, shortText, version } from './fields';

export const placeKindNames = {
	open: 'open bench',
	shade: 'shade',
	'cold-frame': 'cold frame',
	greenhouse: 'unheated greenhouse',
	heated: 'heated bay',
	indoors: 'indoors',
	garden: 'garden ground'
};
export type PlaceKind = keyof typeof placeKindNames;
export const placeKinds = wordsOf(placeKindNames);

/** How much light falls there, and how much wind. */
export const lightLevelNames = {
	sun: 'full sun',
	part: 'part shade',
	shade: 'shade'
};
export type LightLevel = keyof typeof lightLevelNames;
export const lightLevels = wordsOf(lightLevelNames);
export const exposureNames = {
	sheltered: 'sheltered',
	some: 'some wind',
	exposed: 'exposed'
};
export type Exposure = keyof typeof exposureNames;
export const exposures = wordsOf(exposureNames);

const placeFields = z.strictObject({
	name: shortText(60),
	kind: oneOf(placeKinds),
	latitudeDeg: measure(-66, 66, '°').describe('Latitude, south negative'),
	longitudeDeg: measure(-180, 180, '°').nullable().default(null),
	elevationM: measure(-400, 5000, 'm').default(0),
	heldMinimumC: measure(-20, 35, '°C').nullable().default(null).describe('Temperature the heating holds, °C'),
	coldestMonthC: measure(-50, 35, '°C')
		.describe('Mean of the coldest month outdoors, day and night together, °C')
		.nullable()
		.default(null),
	warmestMonthC: measure(-20, 45, '°C')
		.describe('Mean of the warmest month outdoors, day and night together, °C')
		.nullable()
		.default(null),
	light: oneOf(lightLevels).nullable().default(null),
	wind: oneOf(exposures).nullable().default(null),
	waterM: measure(0, 2000, 'm').nullable().default(null).describe('Way to the nearest water, m'),
	note: note(600)
});
/** The two months come together or not at all, and the right way round. */
type Months = { coldestMonthC: number | null; warmestMonthC: number | null };
type Rule = [holds: (place: Months) => boolean, otherwise: { path: string[]; error: string }];
const besides = (missing: keyof Months, other: keyof Months): Rule => [
	(place) => place[missing] !== null || place[other] === null,
	{ path: [missing], error: 'is wanted beside the other month; or leave both empty' }
];
const wayRound: Rule = [
	({ coldestMonthC, warmestMonthC }) =>
		coldestMonthC === null || warmestMonthC === null || coldestMonthC <= warmestMonthC,
	{ path: ['warmestMonthC'], error: 'must not be colder than the coldest month' }
];

export const placeInput = placeFields
	.refine(...besides('coldestMonthC', 'warmestMonthC'))
	.refine(...besides('warmestMonthC', 'coldestMonthC'))
	.refine(...wayRound);
export type PlaceInput = z.infer<typeof placeInput>;
export const placeSchema = placeFields.extend({ id: id(), version: version() }).refine(...wayRound);
/** What of a place decides its climate: its position and shelter, and the months that were typed for it. */
export const placeClimateInput = placeFields
	.pick({
		kind: true,
		latitudeDeg: true,
		elevationM: true,
		heldMinimumC: true,
		coldestMonthC: true,
		warmestMonthC: true
	})
	.refine(...wayRound);
export type Place = z.infer<typeof placeSchema>;
