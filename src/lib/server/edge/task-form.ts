import { z } from 'zod';
import { resultKinds } from '../../core/aftercare/tasks/result';
import { calendarDate, count, id, note, oneOf } from '../../core/vocabulary/fields';
import { closeTask, taskResult, type TaskResult } from '../aftercare';
import { today } from '../clock';
import { getStore } from '../store';
import { numberIn, readForm } from './form';
import { check } from './http';

const closingForm = z.strictObject({
	treeId: id(),
	taskId: id(),
	version: count(1, 1_000_000_000),
	state: oneOf(['done', 'skipped']),
	skipReason: note(300),
	result: note(1200),
	ends: z.stringbool().default(false),
	/** Day on which it was done; today where the form asks for none. */
	on: calendarDate().optional()
});
const askedWord = z.enum(resultKinds).nullable().catch(null);

/** What the person found, where the form asked for it. @throws Refusal 422 */
function foundIn(form: FormData): TaskResult | null {
	const asked = askedWord.parse(form.get('asked'));
	const number = (name: string): number | null => {
		const text = String(form.get(name) ?? '').trim();
		return text === '' ? null : numberIn(form, name, text);
	};
	switch (asked) {
		case 'buds':
			return check(taskResult, { kind: asked, buds: form.get('buds') ?? '' });
		case 'smell':
			return check(taskResult, { kind: asked, smell: form.get('smell') ?? '' });
		case 'firmness':
			return check(taskResult, { kind: asked, firmness: form.get('firmness') ?? '' });
		case 'weight':
			return check(taskResult, { kind: asked, weightKg: number('weightKg') });
		case 'felt':
			return check(taskResult, {
				kind: asked,
				feel: form.get('feel') || null,
				probeShare: number('probeShare')
			});
		case 'watering':
			return check(taskResult, { kind: asked, litres: number('litres') });
		default:
			return null;
	}
}

/** Closes a task from the form that Today and Aftercare share. */
export async function closeTaskFromForm(form: FormData): Promise<{ told: string; entryId: string[] }> {
	const found = foundIn(form);
	const { treeId, ...closing } = readForm(closingForm, form);
	const entryId = await closeTask(await getStore(), treeId, {
		...closing,
		found,
		on: closing.on ?? today(),
		againFrom: today()
	});
	return {
		told: closing.state === 'skipped' ? 'Skipped, with its reason.' : found ? 'Done, and kept.' : 'Done.',
		entryId
	};
}
