import { ALONG_HEADER, type Along } from '$core/vocabulary/along';
import { yardFile, yardPrint } from '$lib/server/along/yard-file';
import { yardIdOf } from '$lib/server/along/yard-id';
import { clockIsPinned, now, today } from '$lib/server/clock';
import { answer } from '$lib/server/edge/http';
import { Refusal } from '$lib/server/errors';
import { getStore } from '$lib/server/store';
import type { RequestHandler } from './$types';

/** The yard as a database, for the phone that takes it along; nothing where it has not changed since the copy there. */
export const GET: RequestHandler = ({ locals, request }) =>
	answer(async () => {
		const { who } = locals;
		if (!who) throw new Refusal(401, 'This yard wants your key.', 'Sign in with your name and passphrase.');
		const store = await getStore();
		const etag = `"${await yardPrint(store.db, today())}-${who.id ?? 'here'}-${who.role}"`;
		const headers = { etag, 'cache-control': 'private, no-cache' };
		if (request.headers.get('if-none-match') === etag) return new Response(null, { status: 304, headers });
		// Known before the copy is made, so that the copy knows it too.
		const yard = await yardIdOf(store);
		const { bytes, trees, ofTrees } = await yardFile(store, today());
		const along: Along = {
			yard,
			takenAt: now().toISOString(),
			clockAt: clockIsPinned() ? now().toISOString() : null,
			who,
			trees,
			ofTrees
		};
		return new Response(new Uint8Array(bytes), {
			headers: {
				...headers,
				'content-type': 'application/vnd.sqlite3',
				[ALONG_HEADER]: encodeURIComponent(JSON.stringify(along))
			}
		});
	});
