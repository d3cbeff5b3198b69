import { isRound } from '$core/replant/pots/volume';
import type { Picture } from '$core/take-in/picture';
import type { TreeRecords } from '$core/tree/case';
import { error } from '@sveltejs/kit';

/** A picture of a tree, and the width inside of the round pot it stood in that day. @throws HttpError 404 where it is gone */
export function pictureAndRim(
	{ pictures, plantings }: Pick<TreeRecords, 'pictures' | 'plantings'>,
	pictureId: string
): { picture: Picture; rimMm: number | null } {
	const picture = pictures.find(({ id }) => id === pictureId);
	if (!picture)
		error(404, {
			message: 'This picture is not there any more.',
			advice: 'Choose another under Recovery, Pictures.'
		});
	const pot = plantings.findLast(({ plantedOn }) => plantedOn <= picture.takenOn)?.pot;
	return { picture, rimMm: pot && isRound(pot.shape) ? pot.topLengthMm : null };
}
