import { z } from 'zod';
import { calendarDate, count, id, measure, note, share, shortText, version } from '../vocabulary/fields';

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

/** What a file says of the lens that took it. */
export const focalShare = () =>
	measure(0.05, 100, '(a share)')
		.nullable()
		.default(null)
		.describe('Focal length, of the longer side of the picture; null where the camera did not say');

export const pictureSchema = pictureInput.extend({
	id: id(),
	/** SHA-256 of the kept file, which is named by it. */
	hash: z.string().regex(/^[0-9a-f]{64}$/, { error: 'must be the SHA-256 of the picture' }),
	widthPx: count(1, 20_000),
	heightPx: count(1, 20_000),
	/** Share of green in the light of its middle; 1/3 is grey. */
	greenness: share().nullable(),
	focalShare: focalShare(),
	version: version()
});
export type Picture = z.infer<typeof pictureSchema>;

/** Diagonal of the 35 mm film that focal lengths are told for, mm: 36 by 24. */
const FILM_DIAGONAL_MM = Math.hypot(36, 24);

/**
 * Focal length of a camera against the longer side of its picture, from that which would see as wide an angle on 35 mm film.
 * @param focal35Mm FocalLengthIn35mmFilm as the file says it, mm; 0 where it is not known
 * @param widthPx, heightPx sides of the picture, px
 * @returns share of the longer side, or null where the file did not say one that a lens can have
 * @see CIPA DC-008-2012, Exif 2.3, tag 41989; CIPA DCG-001 takes the diagonal
 */
export function focalShareOf(focal35Mm: number | null, widthPx: number, heightPx: number): number | null {
	const known = focal35Mm !== null && focal35Mm >= FOCAL_MM[0] && focal35Mm <= FOCAL_MM[1];
	return known
		? (focal35Mm / FILM_DIAGONAL_MM) * (Math.hypot(widthPx, heightPx) / Math.max(widthPx, heightPx))
		: null;
}
/** Lenses there are, from a fish eye to a long telephoto, mm on 35 mm film. */
export const FOCAL_MM = [5, 2000] as const;

/** What is read of the words of a camera in its file, and nothing else: neither place nor name. */
export const CAMERA_TAGS = ['DateTimeOriginal', 'FocalLengthIn35mmFormat'];

/**
 * Day and lens as a camera wrote them; the day in its own time, without a zone: that of who took it.
 * @param read the values of `CAMERA_TAGS`
 */
export function cameraSays(read: unknown): { takenOn: string | null; focal35Mm: number | null } {
	const said = z
		.object({ DateTimeOriginal: z.string().catch(''), FocalLengthIn35mmFormat: z.number().catch(0) })
		.catch({ DateTimeOriginal: '', FocalLengthIn35mmFormat: 0 })
		.parse(read);
	const [day] = /^\d{4}[:-]\d{2}[:-]\d{2}/.exec(said.DateTimeOriginal) ?? [];
	const takenOn = day?.replaceAll(':', '-') ?? null;
	const isDay = takenOn !== null && calendarDate().safeParse(takenOn).success;
	return { takenOn: isDay ? takenOn : null, focal35Mm: said.FocalLengthIn35mmFormat || null };
}

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
