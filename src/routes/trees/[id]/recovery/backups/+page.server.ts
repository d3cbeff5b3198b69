import { calendarDate, chosen, count, id, oneOf, shortText } from '$core/vocabulary/fields';
import { backupEvents, backupInput } from '$core/recovery/backup';
import { backupKinds } from '$core/vocabulary/backup-kinds';
import { treeInput } from '$core/take-in/tree';
import { readForm } from '$lib/server/edge/form';
import { acting } from '$lib/server/edge/http';
import { places, trees } from '$lib/server/records/records';
import { addBackup, changeBackup, childrenOf, keepAdvice, potBackup } from '$lib/server/recovery';
import { notFound } from '$lib/server/errors';
import { valuesInForce } from '$core/values/values';
import { getStore } from '$lib/server/store';
import { z } from 'zod';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ parent }) => {
	const { records, overrides } = await parent();
	const values = valuesInForce(overrides);
	const { db } = await getStore();
	const [advice, children, yardPlaces] = await Promise.all([
		keepAdvice(db, backupKinds, values),
		childrenOf(db, records.tree.id),
		places.list(db)
	]);
	const own = records.tree.parentTreeId ? await trees.get(db, records.tree.parentTreeId) : null;
	return {
		advice,
		children,
		yardPlaces: yardPlaces.map(({ id: placeId, name }) => ({ id: placeId, name })),
		parentTree: own ? { id: own.id, tag: own.tag, name: own.name } : null
	};
};

const changeForm = z.strictObject({
	backupId: id(),
	version: count(1, 1_000_000_000),
	on: calendarDate(),
	what: oneOf(backupEvents),
	count: count(1, 2000)
});
const potForm = changeForm.omit({ what: true }).extend({
	tag: shortText(16),
	name: shortText(80),
	placeId: chosen(),
	trunkDiameterMm: treeInput.shape.trunkDiameterMm
});

export const actions: Actions = {
	take: async ({ request, params }) => {
		const form = await request.formData();
		return acting(form, async () => ({
			told: 'Kept.',
			entryId: await addBackup(await getStore(), params.id, readForm(backupInput, form))
		}));
	},
	change: async ({ request, params }) => {
		const form = await request.formData();
		return acting(form, async () => ({
			told: 'Kept.',
			entryId: await changeBackup(await getStore(), params.id, readForm(changeForm, form))
		}));
	},
	pot: async ({ request, params }) => {
		const form = await request.formData();
		return acting(form, async () => {
			const store = await getStore();
			const { tag, name, placeId, trunkDiameterMm, ...change } = readForm(potForm, form);
			const parent = await trees.get(store.db, params.id);
			if (!parent) throw notFound('tree');
			const { entryIds } = await potBackup(
				store,
				params.id,
				change,
				treeInput.parse({
					tag,
					name,
					placeId,
					trunkDiameterMm,
					kindId: parent.kindId,
					situation: 'potted',
					origin: `Struck from ${parent.tag} ${parent.name}`.slice(0, 400),
					permission: 'own',
					batch: `${parent.tag} cuttings`,
					takenInOn: change.on
				})
			);
			return { told: `${name} is taken in.`, entryId: entryIds };
		});
	}
};
