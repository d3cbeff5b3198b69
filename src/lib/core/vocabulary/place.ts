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

export const placeInput = z.strictObject({
	name: shortText(60),
	kind: oneOf(placeKinds),
	latitudeDeg: measure(-66, 66, '°').describe('Latitude, south negative'),
	longitudeDeg: measure(-180, 180, '°').nullable().default(null),
	elevationM: measure(-400, 5000, 'm').default(0),
	heldMinimumC: measure(-20, 35, '°C').nullable().default(null).describe('Temperature the heating holds, °C'),
	light: oneOf(lightLevels).nullable().default(null),
	wind: oneOf(exposures).nullable().default(null),
	waterM: measure(0, 2000, 'm').nullable().default(null).describe('Way to the nearest water, m'),
	note: note(600)
});
export type PlaceInput = z.infer<typeof placeInput>;
export const placeSchema = placeInput.extend({ id: id(), version: version() });
export type Place = z.infer<typeof placeSchema>;
