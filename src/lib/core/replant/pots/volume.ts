import { wordsOf } from '../../vocabulary/words-of';
import { z } from 'zod';
import { measure, oneOf } from '../../vocabulary/fields';

export const potShapeNames = {
	round: 'round',
	rectangle: 'rectangular, tapered',
	oval: 'oval',
	box: 'box, straight sides',
	tray: 'tray',
	bag: 'grow bag'
};
export type PotShape = keyof typeof potShapeNames;
export const potShapes = wordsOf(potShapeNames);
/** Shapes that are circles seen from above, and shapes whose sides stand upright. */
export const isRound = (shape: PotShape): boolean => shape === 'round' || shape === 'bag';
/** Whether a pot has one width from floor to rim by its shape. */
export const isStraight = (shape: PotShape): boolean =>
	shape === 'box' || shape === 'tray' || shape === 'bag';

const WIDEST_MM = 4000;
const DEEPEST_MM = 3000;
const side = (what: string) => measure(20, WIDEST_MM, 'mm').describe(`${what}, inside, mm`);

/** No pot is moulded, built or sewn deeper than this many of its narrowest inner width. */
const DEEPEST_WIDTHS = 6;

/** A container by its inner sizes. Round pots use length as the diameter; width then equals it. */
export const potSchema = z
	.strictObject({
		shape: oneOf(potShapes),
		topLengthMm: side('Length or diameter at the rim'),
		topWidthMm: side('Width at the rim'),
		bottomLengthMm: side('Length or diameter at the floor'),
		bottomWidthMm: side('Width at the floor'),
		heightMm: measure(10, DEEPEST_MM, 'mm').describe('Inner height, mm')
	})
	.refine((pot) => pot.bottomLengthMm <= pot.topLengthMm * 1.2, {
		path: ['bottomLengthMm'],
		error: 'must not be more than 1.2 times the length at the rim'
	})
	.refine((pot) => pot.bottomWidthMm <= pot.topWidthMm * 1.2, {
		path: ['bottomWidthMm'],
		error: 'must not be more than 1.2 times the width at the rim'
	})
	.refine(
		(pot) =>
			pot.heightMm <=
			DEEPEST_WIDTHS *
				Math.min(
					pot.topLengthMm,
					pot.topWidthMm,
					...(isStraight(pot.shape) ? [] : [pot.bottomLengthMm, pot.bottomWidthMm])
				),
		{
			path: ['heightMm'],
			error: `must not be more than ${DEEPEST_WIDTHS} times its narrowest width; no pot is made so deep`
		}
	);
export type Pot = z.infer<typeof potSchema>;

/** A round pot by its widths at the rim and at the bottom and its height inside, mm. */
export const roundPot = (topMm: number, bottomMm: number, heightMm: number): Pot => ({
	shape: 'round',
	topLengthMm: topMm,
	topWidthMm: topMm,
	bottomLengthMm: bottomMm,
	bottomWidthMm: bottomMm,
	heightMm
});

/** A pot of the same shape, wider and deeper. @param factor on all of its sizes */
export function scaledPot(pot: Pot, factor: number): Pot {
	const by = (mm: number, most: number): number => Math.min(most, Math.round(mm * factor));
	return {
		shape: pot.shape,
		topLengthMm: by(pot.topLengthMm, WIDEST_MM),
		topWidthMm: by(pot.topWidthMm, WIDEST_MM),
		bottomLengthMm: by(pot.bottomLengthMm, WIDEST_MM),
		bottomWidthMm: by(pot.bottomWidthMm, WIDEST_MM),
		heightMm: by(pot.heightMm, DEEPEST_MM)
	};
}

const LITRE_MM3 = 1e6;

/**
 * Litres between two heights above the floor, by the prismoid between the two cross-sections:
 * exact for round frusta, tapered rectangles and ovals alike, since their sides are straight.
 * @param fromMm, toMm heights above the floor, 0 ≤ from ≤ to ≤ inner height
 * @example round 300/240 × 250 mm, whole: 14.37 L
 */
export function potVolumeL(pot: Pot, fromMm = 0, toMm = pot.heightMm): number {
	const low = Math.max(0, Math.min(pot.heightMm, fromMm));
	const high = Math.max(low, Math.min(pot.heightMm, toMm));
	const area = (heightMm: number): number => crossSectionMm2(pot, heightMm);
	return (((high - low) / 6) * (area(low) + 4 * area((low + high) / 2) + area(high))) / LITRE_MM3;
}

/** Open area at a height above the floor, mm². */
export function crossSectionMm2(pot: Pot, heightMm: number): number {
	const t = pot.heightMm === 0 ? 1 : heightMm / pot.heightMm;
	const { bottomLengthMm, bottomWidthMm } = floorOf(pot);
	const length = bottomLengthMm + t * (pot.topLengthMm - bottomLengthMm);
	const width = bottomWidthMm + t * (pot.topWidthMm - bottomWidthMm);
	if (isRound(pot.shape)) return (Math.PI / 4) * length * length;
	return pot.shape === 'oval' ? (Math.PI / 4) * length * width : length * width;
}

/** Inner sizes at the floor; those of the rim where the sides stand upright. */
export const floorOf = (pot: Pot): Pick<Pot, 'bottomLengthMm' | 'bottomWidthMm'> =>
	isStraight(pot.shape)
		? { bottomLengthMm: pot.topLengthMm, bottomWidthMm: pot.topWidthMm }
		: { bottomLengthMm: pot.bottomLengthMm, bottomWidthMm: pot.bottomWidthMm };

/** A pot from what was typed: widths of round ones and floors of straight ones follow from the rest. */
export function asPot(shape: PotShape, sizes: Omit<Pot, 'shape'>): Pot {
	const round = isRound(shape);
	const pot = {
		shape,
		...sizes,
		topWidthMm: round ? sizes.topLengthMm : sizes.topWidthMm,
		bottomWidthMm: round ? sizes.bottomLengthMm : sizes.bottomWidthMm
	};
	return { ...pot, ...floorOf(pot) };
}
