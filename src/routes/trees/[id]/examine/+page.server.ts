import { examinationInput } from '$core/diagnosis/examination';
import { acting, check } from '$lib/server/edge/http';
import { Refusal } from '$lib/server/errors';
import { getStore } from '$lib/server/store';
import { recordExamination } from '$lib/server/trees';
import type { Actions } from './$types';

function parseFindings(text: FormDataEntryValue | null): unknown {
	try {
		return JSON.parse(String(text ?? '[]'));
	} catch {
		throw new Refusal(400, 'The signs could not be read.', 'Load the page again and set them anew.');
	}
}

export const actions: Actions = {
	record: async ({ request, params }) => {
		const form = await request.formData();
		return acting(form, async () => {
			const input = check(examinationInput, {
				examinedOn: form.get('examinedOn'),
				note: form.get('note') ?? '',
				findings: parseFindings(form.get('findings'))
			});
			const { entryId } = await recordExamination(await getStore(), params.id, input);
			return { told: 'The look is kept.', entryId };
		});
	}
};
