import type { RequestEvent } from '@sveltejs/kit';
import { linkInput, type SharedPage } from '../../core/vocabulary/people';
import { shareLink } from '../people/links';
import { qrOf, shareState } from '../people/share-state';
import { getStore } from '../store';
import { acting, check } from './http';

/** Makes a link by which somebody reads one page of a tree, as the letter and the report share it. */
export const sharing =
	(page: SharedPage) =>
	async ({ request, params, url }: RequestEvent) => {
		const form = await request.formData();
		return acting(form, async () => {
			const input = check(linkInput, { treeId: params.id, page, untilOn: form.get('untilOn') });
			const key = await shareLink(await getStore(), input);
			const link = `${shareState()?.addresses[0] ?? url.origin}/shared/${key}`;
			return { link, qr: await qrOf(link) };
		});
	};
