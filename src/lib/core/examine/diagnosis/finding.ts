import { z } from 'zod';
import { count, id, oneOf } from '../../vocabulary/fields';
import { signIds, signOf, topGrade, type SignId } from '../../vocabulary/signs';

/** What was found of one sign. A sign that was not looked for is left out: unknown stays unknown and moves nothing. */
const findingSchema = z
	.strictObject({
		signId: oneOf(signIds as [SignId, ...SignId[]]),
		grade: count(0, 9).describe(
			'0: looked for and not there; 1 and more: the grades of the sign, a plain one has 1'
		),
		measuredBy: id()
			.nullable()
			.default(null)
			.describe('The measurement, field-book entry or root map that says so; null when set by hand')
	})
	.refine((finding) => !(finding.signId in topGrades) || finding.grade <= topGrades[finding.signId], {
		path: ['grade'],
		error: 'must be a grade of this sign'
	});
export type Finding = z.infer<typeof findingSchema>;

const topGrades = Object.fromEntries(signIds.map((sign) => [sign, topGrade(sign)])) as Record<SignId, number>;

/** Findings of one look: each sign at most once. */
export const findingsSchema = z
	.array(findingSchema)
	.max(signIds.length)
	.refine((findings) => new Set(findings.map((f) => f.signId)).size === findings.length, {
		error: 'must name each sign at most once'
	});

/** Pairs of findings that can hardly both be true of one tree on one day. */
export function contradictions(
	findings: readonly Pick<Finding, 'signId' | 'grade'>[]
): { first: SignId; second: SignId }[] {
	const seen = new Set(findings.filter((finding) => finding.grade > 0).map((finding) => finding.signId));
	return [...seen].flatMap((first) =>
		(signOf(first).opposes ?? [])
			.filter((second): second is SignId => seen.has(second as SignId))
			.map((second) => ({ first, second }))
	);
}
