import { cutLabel } from '$core/line-of-care/line';
import { observationInput } from '$core/recovery/observation';
import { verdict } from '$core/recovery/verdict';
import { rootLosses } from '$core/roots/work';
import { isAlarm } from '$core/today/today';
import { closingInput } from '$core/tree/tree';
import { today } from '$lib/server/clock';
import { formVersion, readForm } from '$lib/server/edge/form';
import { acting } from '$lib/server/edge/http';
import { observations, trees } from '$lib/server/records/records';
import { getStore } from '$lib/server/store';
import { closeTree, recordLook, referenceShootMm, reopenTree } from '$lib/server/trees';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ parent }) => {
	const { records, values } = await parent();
	const { tree, plan, plantings } = records;
	const { db } = await getStore();
	const done = rootLosses(records, values).done;
	const sinceOn =
		[done.at(-1)?.on, plantings.at(-1)?.plantedOn]
			.filter((on): on is string => Boolean(on))
			.sort()
			.at(-1) ?? tree.takenInOn;
	const twin = tree.referenceTreeId ? await trees.get(db, tree.referenceTreeId) : null;
	const stagesLeft = new Set(plan?.cuts.filter((cut) => cut.state === 'planned').map((cut) => cut.stage))
		.size;
	const since =
		sinceOn === done.at(-1)?.on
			? 'the last root work'
			: sinceOn === tree.takenInOn
				? 'it was taken in'
				: 'it was replanted';
	return {
		sinceOn,
		since,
		works: done.map((loss) => ({ on: loss.on, label: cutLabel(loss.share) })),
		verdict: verdict(
			{
				today: tree.closedOn ?? today(),
				situation: tree.situation,
				trunkDiameterMm: tree.trunkDiameterMm,
				sinceOn,
				observations: records.observations,
				referenceShootMm: await referenceShootMm(db, tree),
				openAlarms: records.tasks.filter((task) => isAlarm(task, today())).length,
				stagesLeft
			},
			values
		),
		reference: twin
			? { name: `${twin.tag} ${twin.name}`, observations: await observations.list(db, twin.id) }
			: null
	};
};

export const actions: Actions = {
	look: async ({ request, params }) => {
		const form = await request.formData();
		return acting(form, async () => {
			const { entryId } = await recordLook(await getStore(), params.id, readForm(observationInput, form));
			return { told: 'The look is kept.', entryId };
		});
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
