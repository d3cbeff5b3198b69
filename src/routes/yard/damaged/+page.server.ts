import { damagedRows, mendDamaged, removeDamaged } from '$lib/server/damaged';
import { acting } from '$lib/server/edge/http';
import { getStore } from '$lib/server/store';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = async () => ({ damaged: await damagedRows(await getStore()) });

const reference = (form: FormData): { record: string; id: string } => ({
	record: String(form.get('record') ?? ''),
	id: String(form.get('id') ?? '')
});
/** Fields of a record are sent under their path, behind this. */
const CELL = 'cell.';

export const actions: Actions = {
	mend: async ({ request }) => {
		const form = await request.formData();
		return acting(form, async () => {
			const typed: Record<string, string> = {};
			for (const [name, value] of form)
				if (name.startsWith(CELL) && typeof value === 'string') typed[name.slice(CELL.length)] = value;
			return { told: 'Mended.', entryId: await mendDamaged(await getStore(), reference(form), typed) };
		});
	},
	remove: async ({ request }) => {
		const form = await request.formData();
		return acting(form, async () => ({
			told: 'Taken out.',
			entryId: await removeDamaged(await getStore(), reference(form))
		}));
	}
};
