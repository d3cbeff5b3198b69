import { wordsOf } from '../../vocabulary/words-of';
import type { Plane } from './plane';

/** Why no card was found, and what to do. */
export const cardFaultSaid = {
	'no-card':
		'No card was found: it takes three of its markers, whole, sharp and in even light. Take the picture anew, or touch four corners.',
	'too-blurred':
		'The card is too blurred to go by: hold the camera still, and touch the card on its screen so that it is sharp.'
};
export const cardFaults = wordsOf(cardFaultSaid);
export type CardFault = keyof typeof cardFaultSaid;

/** The card as it was found in a picture. */
export interface FoundCard {
	plane: Plane;
	/** Markers that were found, 3 or 4. */
	markers: number;
	/** How far the corners of the markers lie from where the plane puts them, one deviation on each axis, px. */
	offPx: number;
}
