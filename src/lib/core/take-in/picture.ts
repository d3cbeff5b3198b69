import { z } from 'zod';
import { calendarDate, count, id, note, share, shortText, version } from '../vocabulary/fields';

/** Largest file taken, bytes; largest picture, pixels; longest side, pixels: no camera takes a strip. */
export const PICTURE_BYTES = 20 * 1024 * 1024;
export const PICTURE_PIXELS = 100_000_000;
export const PICTURE_SIDE_PX = 20_000;
/** Longest side that is kept, px; and of the small one in lists. */
export const KEPT_PX = 2000;
export const SMALL_PX = 480;

/** Views that are taken again and again from the same spot; a person may name others. */
const usualViews = ['front', 'back', 'left', 'right', 'collar', 'roots', 'leaf', 'wound'] as const;

const pictureInput = z.strictObject({
	takenOn: calendarDate(),
	view: shortText(40).describe('Named, so that the next is taken from the same spot'),
	note: note(300)
});
export type PictureInput = z.infer<typeof pictureInput>;

export const pictureSchema = pictureInput.extend({
	id: id(),
	/** SHA-256 of the kept file, which is named by it. */
	hash: z.string().regex(/^[0-9a-f]{64}$/, { error: 'must be the SHA-256 of the picture' }),
	widthPx: count(1, 20_000),
	heightPx: count(1, 20_000),
	/** Share of green in the light of its middle; 1/3 is grey. */
	greenness: share().nullable(),
	version: version()
});
export type Picture = z.infer<typeof pictureSchema>;

/** A picture as a case carries it: with its file, unless the case grew too large. */
export const casePictureSchema = pictureSchema.extend({
	jpegBase64: z.string().max(4_000_000).nullable()
});
export type CasePicture = z.infer<typeof casePictureSchema>;

/** Views in the order of their use, those of this tree first, with the last picture of each. */
export function viewsOf(
	pictures: readonly Picture[]
): { view: string; last: Picture | null; count: number }[] {
	const own = new Map<string, Picture[]>();
	for (const picture of pictures) own.set(picture.view, [...(own.get(picture.view) ?? []), picture]);
	const used = [...own].map(([view, list]) => ({ view, last: list.at(-1) ?? null, count: list.length }));
	return [
		...used.sort((a, b) => b.count - a.count),
		...usualViews.filter((view) => !own.has(view)).map((view) => ({ view, last: null, count: 0 }))
	];
}

/**
 * Green chromatic coordinate: the share of green in the light of a picture, by the means of its channels.
 * @param red green blue means, 0 … 255
 * @see Sonnentag et al. 2012, Agricultural and Forest Meteorology 152
 */
export const greenShare = (red: number, green: number, blue: number): number | null => {
	const sum = red + green + blue;
	return sum > 0 ? green / sum : null;
};
