import { readFormatSettings } from '$lib/server/settings';
import { asICalendar, feedToken, sameToken, yardEvents } from '$lib/server/calendar';
import { answer } from '$lib/server/edge/http';
import { notFound } from '$lib/server/errors';
import { getStore } from '$lib/server/store';
import type { RequestHandler } from './$types';

/** The yard’s work as a calendar feed; only with the secret address, which can be revoked. */
export const GET: RequestHandler = ({ params }) =>
	answer(async () => {
		const { db } = await getStore();
		const token = await feedToken(db);
		if (token === null || !sameToken(params.token, `${token}.ics`)) throw notFound('calendar');
		return new Response(asICalendar(await yardEvents(db), await readFormatSettings(db)), {
			headers: {
				'content-type': 'text/calendar; charset=utf-8',
				'cache-control': 'no-store',
				'content-disposition': 'inline; filename="bruntle.ics"'
			}
		});
	});
