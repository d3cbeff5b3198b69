import { z } from 'zod';
import { calendarDate, id, note, version } from '../fields/fields';
import { findingSchema } from './diagnose';
import { signIds } from './signs';

export const examinationInput = z.strictObject({
	examinedOn: calendarDate(),
	note: note(),
	findings: z
		.array(findingSchema)
		.max(signIds.length)
		.refine((findings) => new Set(findings.map((f) => f.signId)).size === findings.length, {
			error: 'must name each sign at most once'
		})
});
export type ExaminationInput = z.infer<typeof examinationInput>;
export const examinationSchema = examinationInput.extend({ id: id(), version: version() });
export type Examination = z.infer<typeof examinationSchema>;
