import { examinationInput } from '$core/examine/diagnosis/examination';
import { diagnose } from '$core/examine/diagnosis/diagnose';
import { contextFor } from '$core/tree/carried';
import { neighbourChecks, spreading } from '$core/examine/diagnosis/neighbours';
import { removing } from '$lib/server/edge/examine-form';
import { correctsIn, jsonIn } from '$lib/server/edge/form';
import { acting, check, loading } from '$lib/server/edge/http';
import { notFound } from '$lib/server/errors';
import { planNeighbourChecks, recordExamination, treesAround } from '$lib/server/examine';
import { overrideValues, readValues, valueChanges } from '$lib/server/settings';
import { getStore } from '$lib/server/store';
import { loadRecords } from '$lib/server/records/tree-records';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = ({ params }) =>
	loading(async () => {
		const { db } = await getStore();
		return { around: await treesAround(db, params.id) };
	});

export const actions: Actions = {
	record: async ({ request, params }) => {
		const form = await request.formData();
		return acting(form, async () => {
			const input = check(examinationInput, {
				examinedOn: form.get('examinedOn'),
				note: form.get('note') ?? '',
				events: form.getAll('events'),
				failingFast: form.get('failingFast') === 'true',
				findings: jsonIn(form, 'findings')
			});
			const corrects = correctsIn(form);
			const { entryId } = await recordExamination(await getStore(), params.id, input, corrects);
			return { told: corrects ? 'The look is corrected.' : 'The look is kept.', entryId };
		});
	},
	remove: removing('look'),
	numbers: async ({ request }) => {
		const form = await request.formData();
		return acting(form, async () => {
			const changes = check(valueChanges, jsonIn(form, 'numbers'));
			await overrideValues(await getStore(), changes);
			const own = Object.values(changes).filter((value) => value !== null).length;
			return {
				told:
					own > 0
						? `${own === 1 ? 'Your number is' : `Your ${own} numbers are`} in force.`
						: 'Back to the shipped numbers.'
			};
		});
	},
	neighbours: async ({ request, params }) => {
		const form = await request.formData();
		return acting(form, async () => {
			const store = await getStore();
			const [records, values, around] = await Promise.all([
				loadRecords(store.db, params.id),
				readValues(store.db),
				treesAround(store.db, params.id)
			]);
			const { tree, examinations } = records;
			const look = examinations.find((examination) => examination.id === form.get('examinationId'));
			const sick = around.find((entry) => entry.id === params.id);
			if (!look || !sick) throw notFound('look');
			const diagnosis = diagnose(
				contextFor(records, look.examinedOn, look.events, look.id, values).context,
				look.findings,
				values
			);
			const checks = neighbourChecks(sick, spreading(diagnosis, values), around, values);
			const { made, entryId } = await planNeighbourChecks(store, tree, checks);
			return made === 0
				? { told: 'They are on Today already.' }
				: { told: `${made} tree${made === 1 ? '' : 's'} to be checked, on Today.`, entryId };
		});
	}
};
