import { z } from 'zod';
import { count, id, note, oneOf } from '../../core/fields/fields';
import { today } from '../clock';
import { getStore } from '../store';
import { closeTask } from '../aftercare';
import { readForm } from './form';

const closingForm = z.strictObject({
	treeId: id(),
	taskId: id(),
	version: count(1, 1_000_000_000),
	state: oneOf(['done', 'skipped']),
	skipReason: note(300),
	ends: z.stringbool().default(false)
});

/** Closes a task from the form that Today and Aftercare share. */
export async function closeTaskFromForm(form: FormData): Promise<{ told: string; entryId: string }> {
	const { treeId, ...closing } = readForm(closingForm, form);
	const entryId = await closeTask(await getStore(), treeId, { ...closing, on: today() });
	return { told: closing.state === 'done' ? 'Done.' : 'Skipped, with its reason.', entryId };
}
