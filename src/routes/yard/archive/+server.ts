import { answer, check } from '$lib/server/edge/http';
import { Refusal } from '$lib/server/errors';
import { getStore } from '$lib/server/store';
import { archiveOf, MOST_PIECE, sendingName, takePiece } from '$lib/server/yard-archive/yard';
import { json } from '@sveltejs/kit';
import { z } from 'zod';
import type { RequestHandler } from './$types';

/** The whole yard as open files. It holds what owners alone see: the names of all people, and how the yard is set. */
export const GET: RequestHandler = ({ locals }) =>
	answer(async () => {
		if (locals.who?.role !== 'owner')
			throw new Refusal(403, 'Only an owner of this yard does that.', 'Ask one of them.');
		const { stream, bytes, madeAt } = await archiveOf(await getStore());
		return new Response(stream, {
			headers: {
				'content-type': 'application/zip',
				'content-length': String(bytes),
				'cache-control': 'no-store',
				'content-disposition': `attachment; filename="bruntle-yard-open-${madeAt.slice(0, 10)}.zip"`
			}
		});
	});

const pieceAsked = z.strictObject({
	sending: sendingName(),
	at: z.coerce.number({ error: 'must be a number' }).int().nonnegative()
});

/** A piece of an archive that is to be read in. */
export const PUT: RequestHandler = ({ request, url }) =>
	answer(async () => {
		const { sending, at } = check(pieceAsked, Object.fromEntries(url.searchParams));
		if (request.headers.get('content-type') !== 'application/zip')
			throw new Refusal(415, 'The body must be a piece of a ZIP archive.', 'Send it as application/zip.');
		const piece = Buffer.from(await request.arrayBuffer());
		if (piece.length === 0 || piece.length > MOST_PIECE)
			throw new Refusal(
				413,
				`A piece is of 1 byte to ${MOST_PIECE / 1024 / 1024} MB.`,
				'Send it in smaller ones.'
			);
		return json({ there: await takePiece(sending, at, piece) });
	});
