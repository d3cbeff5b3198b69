import { answer } from '$lib/server/edge/http';
import { notFound } from '$lib/server/errors';
import { linked } from '$lib/server/people/links';
import { answerPicture, isPictureOf } from '$lib/server/pictures';
import { getStore } from '$lib/server/store';
import type { RequestHandler } from './$types';

/** A picture of a report that somebody reads by its link. */
export const GET: RequestHandler = ({ params }) =>
	answer(async () => {
		const { db } = await getStore();
		const { treeId, page } = await linked(db, params.key);
		const hash = /^([0-9a-f]{64})\.jpg$/.exec(params.file)?.[1];
		if (page !== 'report' || !hash || !(await isPictureOf(db, hash, treeId))) throw notFound('picture');
		return answerPicture(hash, false);
	});
