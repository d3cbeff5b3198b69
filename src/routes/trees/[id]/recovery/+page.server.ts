import { observationInput } from '$core/examine/looks/observation';
import { lookQuestions } from '$core/recovery/look';
import { decisionInput } from '$core/recovery/said';
import { workLabel } from '$core/tree/line-of-care';
import { lastRootWork, rootLosses } from '$core/tree/losses';
import { stillWaitedFor } from '$core/tree/gate';
import { looksSeen } from '$core/tree/looks';
import { closingInput } from '$core/take-in/tree';
import { correctsIn, formVersion, readForm } from '$lib/server/edge/form';
import { acting } from '$lib/server/edge/http';
import { recordDecision, recordLook, recoveryOf, twinOf } from '$lib/server/recovery';
import { valuesInForce } from '$core/values/values';
import { getStore } from '$lib/server/store';
import { closeTree, reopenTree } from '$lib/server/trees';
import { error } from '@sveltejs/kit';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ parent }) => {
	const { records, overrides, today, stands } = await parent();
	const values = valuesInForce(overrides);
	const { tree } = records;
	const { db } = await getStore();
	const of = await recoveryOf(db, records, values);
	if (!of)
		error(404, { message: 'The place of this tree is gone.', advice: 'Choose another under Take in.' });
	const last = lastRootWork(records, values);
	const observations = looksSeen(records, values);
	return {
		of,
		works: rootLosses(records, values).done.map((loss) => ({ on: loss.on, label: workLabel(loss) })),
		questions: lookQuestions(
			{
				today,
				sinceOn: of.since.on,
				worked: of.facts.worked ?? false,
				kind: records.kind,
				tree,
				seasonBeganOn: of.facts.seasonBeganOn,
				nearSeason: of.nearSeason,
				progress: of.season.progress,
				evergreen: of.facts.evergreen,
				observations,
				referenceWanting: of.facts.referenceShootMm === null && tree.referenceTreeId === null,
				wounded: last !== null,
				rotWasCut: last?.rotWasCut ?? false,
				structuralCut: last?.structuralCut ?? false,
				waits: stillWaitedFor(records, today, values),
				suckersSeen: (observations.findLast((look) => look.suckers !== null)?.suckers ?? 0) > 0,
				pestsSeen: stands.pests.value === 'leaf' || stands.pests.value === 'root'
			},
			values
		),
		twin: await twinOf(db, tree)
	};
};

export const actions: Actions = {
	look: async ({ request, params }) => {
		const form = await request.formData();
		return acting(form, async () => {
			const corrects = correctsIn(form);
			const { entryId } = await recordLook(
				await getStore(),
				params.id,
				readForm(observationInput, form),
				true,
				corrects
			);
			return { told: corrects ? 'The look is corrected.' : 'The look is kept.', entryId };
		});
	},
	decide: async ({ request, params }) => {
		const form = await request.formData();
		return acting(form, async () => ({
			told: 'The decision is kept.',
			entryId: await recordDecision(await getStore(), params.id, readForm(decisionInput, form))
		}));
	},
	closeCase: async ({ request, params }) => {
		const form = await request.formData();
		return acting(form, async () => ({
			told: 'The case is closed.',
			entryId: await closeTree(await getStore(), params.id, formVersion(form), readForm(closingInput, form))
		}));
	},
	reopen: async ({ request, params }) => {
		const form = await request.formData();
		return acting(form, async () => ({
			told: 'The case is open again.',
			entryId: await reopenTree(await getStore(), params.id, formVersion(form))
		}));
	}
};
