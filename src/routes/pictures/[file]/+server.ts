import { pictureFile } from '$lib/server/pictures';
import { error } from '@sveltejs/kit';
import type { RequestHandler } from './$types';

/** A picture by its hash, whole or small. It never changes, so that it may be kept. */
export const GET: RequestHandler = async ({ params }) => {
	const named = /^([0-9a-f]{64})(\.small)?\.jpg$/.exec(params.file);
	const file = named?.[1] ? await pictureFile(named[1], named[2] !== undefined) : null;
	if (!file)
		error(404, { message: 'There is no such picture.', advice: 'It may lie beside another database.' });
	return new Response(new Uint8Array(file), {
		headers: { 'content-type': 'image/jpeg', 'cache-control': 'private, max-age=31536000, immutable' }
	});
};
