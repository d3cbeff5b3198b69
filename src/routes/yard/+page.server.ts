import { treesPlaced } from '$lib/server/tree-names';
import { climateValuesOf, growingSeason, nightTemperature } from '$core/climate/normals';
import { placeInput } from '$core/vocabulary/place';
import { id } from '$core/vocabulary/fields';
import { listed } from '$core/text/plural';
import { today } from '$lib/server/clock';
import { formVersion, readForm } from '$lib/server/edge/form';
import { acting, check } from '$lib/server/edge/http';
import { places } from '$lib/server/records/records';
import { readValues } from '$lib/server/settings';
import { getStore } from '$lib/server/store';
import { addPlace, changePlace, removePlace } from '$lib/server/yard';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = async () => {
	const { db } = await getStore();
	const [allPlaces, allTrees, values] = await Promise.all([places.list(db), treesPlaced(db), readValues(db)]);
	const on = today();
	return {
		noTrees: allTrees.length === 0,
		heightWithinKm: values['place.heightWithinKm'],
		climateValues: climateValuesOf(values),
		rows: allPlaces.map((place) => ({
			place,
			trees: allTrees
				.filter((tree) => tree.placeId === place.id && tree.state === 'in-care')
				.map(({ id: treeId, tag, name }) => ({ id: treeId, tag, name })),
			tonight: nightTemperature(place, on, values),
			season: growingSeason(place, false, Number(on.slice(0, 4)), values)
		}))
	};
};

/** That the climate of a place was changed at others too. */
const sharedSaid = (names: readonly string[]): string =>
	names.length === 0
		? ''
		: ` ${listed(names)} ${names.length === 1 ? 'lies' : 'lie'} there too: the same months count.`;
const idOf = (form: FormData): string => check(id(), form.get('id'));

export const actions: Actions = {
	add: async ({ request }) => {
		const form = await request.formData();
		return acting(form, async () => {
			const { entryId, sharedWith } = await addPlace(await getStore(), readForm(placeInput, form));
			return { told: `The place is known.${sharedSaid(sharedWith)}`, entryId };
		});
	},
	change: async ({ request }) => {
		const form = await request.formData();
		return acting(form, async () => {
			const { entryId, sharedWith } = await changePlace(
				await getStore(),
				idOf(form),
				formVersion(form),
				readForm(placeInput, form)
			);
			return { told: `Kept.${sharedSaid(sharedWith)}`, entryId };
		});
	},
	remove: async ({ request }) => {
		const form = await request.formData();
		return acting(form, async () => ({
			told: 'Removed.',
			entryId: await removePlace(await getStore(), idOf(form), formVersion(form))
		}));
	}
};
