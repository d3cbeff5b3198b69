import { counted } from '$core/text/plural';
import { acting } from '$lib/server/edge/http';
import { readForm } from '$lib/server/edge/form';
import { getStore } from '$lib/server/store';
import { lookIntoSent, readSent, sendingName } from '$lib/server/yard-archive/yard';
import { standsHere } from '$lib/server/yard-archive/read';
import { backUp, backupsOf } from '$lib/server/yard-backup/yard';
import { z } from 'zod';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = async () => {
	const store = await getStore();
	const { backups, ...how } = await backupsOf(store);
	return {
		...how,
		stands: await standsHere(store.db),
		backups: backups.map(({ rows, pictures, sha256: _sum, ...backup }) => ({
			...backup,
			trees: rows.tree ?? 0,
			records: Object.values(rows).reduce((sum, count) => sum + count, 0),
			pictures: pictures.length
		}))
	};
};

const sendingInput = z.strictObject({ sending: sendingName() });

export const actions: Actions = {
	make: async ({ request }) => {
		const form = await request.formData();
		return acting(form, async () => {
			await backUp(await getStore());
			return { told: 'The yard is backed up, and the copy was counted.' };
		});
	},
	look: async ({ request }) => {
		const form = await request.formData();
		return acting(form, async () => {
			const { sending } = readForm(sendingInput, form);
			return { archive: { sending, ...(await lookIntoSent(await getStore(), sending)) } };
		});
	},
	take: async ({ request }) => {
		const form = await request.formData();
		return acting(form, async () => {
			const { trees } = await readSent(await getStore(), readForm(sendingInput, form).sending);
			return { told: `${counted(trees, 'tree')} read in, with all that belongs to them.` };
		});
	}
};
