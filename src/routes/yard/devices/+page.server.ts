import { id } from '$core/vocabulary/fields';
import { deviceInput } from '$core/aftercare/weather/device';
import { addDevice, deviceRows, removeDevice } from '$lib/server/devices';
import { formVersion, readForm } from '$lib/server/edge/form';
import { acting, check } from '$lib/server/edge/http';
import { places } from '$lib/server/records/records';
import { getStore } from '$lib/server/store';
import { treeRows } from '$lib/server/tree-lists';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = async () => {
	const { db } = await getStore();
	const [rows, allPlaces, trees] = await Promise.all([deviceRows(db), places.list(db), treeRows(db)]);
	return {
		rows: rows.map(({ device: { tokenHash: _hash, ...device }, ...row }) => ({ ...row, device })),
		places: allPlaces,
		trees: trees
			.filter((tree) => tree.state === 'in-care')
			.map(({ id: treeId, tag, name }) => ({ id: treeId, tag, name }))
	};
};

export const actions: Actions = {
	add: async ({ request }) => {
		const form = await request.formData();
		return acting(form, async () => {
			const { token, entryId } = await addDevice(await getStore(), readForm(deviceInput, form));
			return { told: 'The device is known.', entryId, token };
		});
	},
	remove: async ({ request }) => {
		const form = await request.formData();
		return acting(form, async () => {
			await removeDevice(await getStore(), check(id(), form.get('id')), formVersion(form));
			return { told: 'Removed. Its token is worth nothing any more.' };
		});
	}
};
