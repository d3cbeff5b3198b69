import { answerPicture, pictureIsKept } from '$lib/server/pictures';
import { getStore } from '$lib/server/store';
import { error } from '@sveltejs/kit';
import type { RequestHandler } from './$types';

/** A picture in the record of a tree by its hash, whole or small. */
export const GET: RequestHandler = async ({ params }) => {
	const named = /^([0-9a-f]{64})(\.small)?\.jpg$/.exec(params.file);
	const { db } = await getStore();
	if (!named?.[1] || !(await pictureIsKept(db, named[1])))
		error(404, {
			message: 'There is no such picture.',
			advice: 'It may have been taken out; undo brings it back.'
		});
	return answerPicture(named[1], named[2] !== undefined);
};
