import { z } from 'zod';
import { id, measure, note, oneOf, shortText, version } from '../fields/fields';

export const placeKinds = [
	'open',
	'shade',
	'cold-frame',
	'greenhouse',
	'heated',
	'indoors',
	'garden'
] as const;
export type PlaceKind = (typeof placeKinds)[number];
export const placeKindNames: Record<PlaceKind, string> = {
	open: 'open bench',
	shade: 'shade',
	'cold-frame': 'cold frame',
	greenhouse: 'unheated greenhouse',
	heated: 'heated bay',
	indoors: 'indoors',
	garden: 'garden ground'
};

export const placeInput = z.strictObject({
	name: shortText(60),
	kind: oneOf(placeKinds),
	latitudeDeg: measure(-66, 66, '°').describe('Latitude, south negative'),
	longitudeDeg: measure(-180, 180, '°').nullable().default(null),
	elevationM: measure(-400, 5000, 'm').default(0),
	heldMinimumC: measure(-20, 35, '°C').nullable().default(null).describe('Temperature the heating holds, °C'),
	note: note(600)
});
export type PlaceInput = z.infer<typeof placeInput>;
export const placeSchema = placeInput.extend({ id: id(), version: version() });
export type Place = z.infer<typeof placeSchema>;
