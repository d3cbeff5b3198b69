import type { Place } from '../../vocabulary/place';
import type { Kind } from '../../vocabulary/kind';
import type { Tree } from '../../take-in/tree';
import type { Values } from '../../values/values';
import { standingOn } from './act-now';
import { advise } from './advice';
import type { DiagnosisContext } from './context';
import { diagnose } from './diagnose';
import type { Examination } from './examination';
import { referrals, referralWords, type Referral } from './referral';

/** Something that a qualified person has to see or do, with the days there are for it. */
export interface RedFlag {
	title: string;
	reason: string;
	inDays: number;
}

const days: Record<Referral['urgency'], number> = { now: 0, week: 7, month: 30 };

/** What a look found that has to be handed on: danger to people first, then what an arborist has to judge. */
export function redFlags(
	{ tree, kind, place }: { tree: Tree; kind: Kind; place: Place | null },
	look: Examination,
	context: DiagnosisContext,
	values: Values
): RedFlag[] {
	const diagnosis = diagnose(context, look.findings, values);
	const standing = standingOn(
		{ tree, kind, place },
		look.examinedOn,
		{
			failingFast: look.failingFast,
			girdlerGrade: look.findings.find((finding) => finding.signId === 'girdler-seen')?.grade ?? 0
		},
		values
	);
	const { danger } = advise(diagnosis, context, look.findings, standing, values);
	return [
		...danger.map((text) => ({ title: 'Danger to people: do this first', reason: text, inDays: 0 })),
		...referrals(tree, look.findings, diagnosis, values).map(({ urgency, because, until }) => ({
			title: `A qualified arborist has to see it ${referralWords[urgency]}`.slice(0, 120),
			reason: `${because} ${until}`,
			inDays: days[urgency]
		}))
	];
}
