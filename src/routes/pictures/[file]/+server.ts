import { pictureFile, pictureIsKept } from '$lib/server/pictures';
import { getStore } from '$lib/server/store';
import { error } from '@sveltejs/kit';
import type { RequestHandler } from './$types';

/** What stands in the place of a picture whose file is not here. */
const MISSING = `<svg xmlns="http://www.w3.org/2000/svg" width="480" height="320" viewBox="0 0 480 320"><rect width="480" height="320" fill="#e6dcc8"/><g font-family="sans-serif" font-size="22" fill="#231c17" text-anchor="middle"><text x="240" y="150">The file of this picture</text><text x="240" y="184">is not here.</text></g></svg>`;

/** A picture in the record of a tree by its hash, whole or small. It never changes, so that it may be kept. */
export const GET: RequestHandler = async ({ params }) => {
	const named = /^([0-9a-f]{64})(\.small)?\.jpg$/.exec(params.file);
	const { db } = await getStore();
	if (!named?.[1] || !(await pictureIsKept(db, named[1])))
		error(404, {
			message: 'There is no such picture.',
			advice: 'It may have been taken out; undo brings it back.'
		});
	const file = await pictureFile(named[1], named[2] !== undefined);
	if (!file)
		return new Response(MISSING, {
			status: 404,
			headers: { 'content-type': 'image/svg+xml', 'cache-control': 'no-store' }
		});
	return new Response(new Uint8Array(file), {
		headers: { 'content-type': 'image/jpeg', 'cache-control': 'private, max-age=86400' }
	});
};
