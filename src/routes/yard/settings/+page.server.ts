import { readForm } from '$lib/server/edge/form';
import { acting } from '$lib/server/edge/http';
import { formatSettingsInput, writeSetting } from '$lib/server/settings';
import { getStore } from '$lib/server/store';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = ({ cookies }) => ({
	theme: cookies.get('theme') ?? 'system',
	hands: cookies.get('hands') ?? 'clean'
});

export const actions: Actions = {
	format: async ({ request }) => {
		const form = await request.formData();
		return acting(form, async () => {
			await writeSetting(await getStore(), 'format', readForm(formatSettingsInput, form));
			return { told: 'Kept.' };
		});
	}
};
