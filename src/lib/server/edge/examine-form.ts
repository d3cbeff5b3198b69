import { id } from '../../core/vocabulary/fields';
import { measurementInput } from '../../core/examine/measuring/measurement';
import { recordMeasurement, removeFromExamine, type Removable } from '../examine';
import { getStore } from '../store';
import { formVersion, jsonIn } from './form';
import { acting, check } from './http';

interface ActionEvent {
	request: Request;
	params: { id: string };
}

/** The action that takes a record of Examine out. */
export const removing =
	(what: Removable) =>
	async ({ request, params }: ActionEvent) => {
		const form = await request.formData();
		return acting(form, async () => ({
			told: `The ${what} is taken out.`,
			entryId: await removeFromExamine(
				await getStore(),
				params.id,
				what,
				check(id(), form.get('id')),
				formVersion(form)
			)
		}));
	};

/** Keeping and taking out measurements, as the pages Measure and Soil share them. */
export const measurementActions = {
	measure: async ({ request, params }: ActionEvent) => {
		const form = await request.formData();
		return acting(form, async () => {
			const input = check(measurementInput, {
				measuredOn: form.get('measuredOn'),
				note: form.get('note') ?? '',
				raw: jsonIn(form, 'raw')
			});
			const { entryId } = await recordMeasurement(await getStore(), params.id, input);
			return { told: 'The measurement is kept.', entryId };
		});
	},
	remove: removing('measurement')
};
