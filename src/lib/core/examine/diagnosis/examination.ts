import { z } from 'zod';
import { calendarDate, id, note, version } from '../../vocabulary/fields';
import { eventsSchema } from './context';
import { findingsSchema, type Finding } from './finding';
import { signIds, type SignId } from '../../vocabulary/signs';

export const examinationInput = z.strictObject({
	examinedOn: calendarDate(),
	note: note(),
	events: eventsSchema.describe('What befell it in the weeks before'),
	failingFast: z.boolean().default(false).describe('It fails within weeks, where it stands'),
	findings: findingsSchema
});
export type ExaminationInput = z.infer<typeof examinationInput>;
export const examinationSchema = examinationInput.extend({ id: id(), version: version() });
export type Examination = z.infer<typeof examinationSchema>;

/** From what is new to what was not looked for again. */
const signChanges = ['new', 'worse', 'better', 'gone', 'same', 'first looked', 'not looked'] as const;
export type SignChange = (typeof signChanges)[number];

/** How one sign stands in a later look against an earlier one. Grades are null where it was not looked for. */
export const comparedSignOutput = z.object({
	signId: z.enum(signIds as [SignId, ...SignId[]]),
	before: z.number().nullable(),
	after: z.number().nullable(),
	change: z.enum(signChanges)
});
export type ComparedSign = z.infer<typeof comparedSignOutput>;

/**
 * What changed from one look to the next: for every sign that either of them looked for. What was seen for the first time
 * counts as new even when it was not looked for before; what was looked for the first time and is not there is no change.
 * @returns changes first, then what stayed, then what was looked for first, then what was not looked for again
 */
export function compareLooks(
	before: readonly Pick<Finding, 'signId' | 'grade'>[],
	after: readonly Pick<Finding, 'signId' | 'grade'>[]
): ComparedSign[] {
	const earlier = new Map(before.map((finding) => [finding.signId, finding.grade]));
	const later = new Map(after.map((finding) => [finding.signId, finding.grade]));
	return [...new Set([...later.keys(), ...earlier.keys()])]
		.map((signId): ComparedSign => {
			const was = earlier.get(signId) ?? null;
			const is = later.get(signId) ?? null;
			return { signId, before: was, after: is, change: changeOf(was, is) };
		})
		.sort((a, b) => signChanges.indexOf(a.change) - signChanges.indexOf(b.change));
}

function changeOf(was: number | null, is: number | null): SignChange {
	if (is === null) return 'not looked';
	if (is > 0 && !was) return 'new';
	if (was === null) return 'first looked';
	if (was === 0) return 'same';
	if (is === 0) return 'gone';
	return is > was ? 'worse' : is < was ? 'better' : 'same';
}
