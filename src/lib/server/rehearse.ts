import type { KeptRehearsal, RehearsalInput } from '../core/recovery/rehearsal/kept';
import type { RehearsedPlan } from '../core/recovery/rehearsal/plan';
import { whatCame, type CameLine } from '../core/rehearse/came';
import type { RehearsalScene } from '../core/rehearse/scene';
import { habitsFrom, sceneOf } from '../core/rehearse/scene-of-tree';
import { stagesTaken, tasksTaken } from '../core/rehearse/taken-over';
import { recoveryForecast } from '../core/recovery/forecast';
import { counted } from '../core/text/plural';
import type { TreeRecords } from '../core/tree/case';
import type { Values } from '../core/values/values';
import { today } from './clock';
import type { Reader, Store } from './db/database';
import { Refusal } from './errors';
import { places, plans, rehearsals, stockPots, tasks } from './records/records';
import { loadRecords } from './records/tree-records';
import { doWork } from './records/work';
import { recoveryOf } from './recovery';
import { closeInWork, openTask } from './task-work';
import { refuseCare, requireTree } from './trees';
import { waterFor } from './water';
import { placeSeries } from './weather';

/** A tree as a scene to rehearse on, with the plan that stands; null where it is not known what it stands in. */
export async function rehearsalOf(
	db: Reader,
	records: TreeRecords,
	values: Values
): Promise<{ scene: RehearsalScene; planned: RehearsedPlan } | null> {
	const on = today();
	const [of, water, everywhere, stock, weather] = await Promise.all([
		recoveryOf(db, records, values),
		waterFor(db, records, values),
		places.list(db),
		stockPots.list(db),
		placeSeries(db, habitsFrom(on, values), on, values)
	]);
	if (!of) return null;
	return sceneOf(
		records,
		{
			recovery: of.case,
			places: everywhere,
			stock,
			series: weather.get(records.tree.placeId)?.series ?? [],
			water
		},
		on,
		values
	);
}

/** Rehearsals whose plan was taken over, newest first, each against what came since. */
export async function rehearsedBefore(
	db: Reader,
	records: TreeRecords,
	values: Values
): Promise<{ kept: KeptRehearsal; came: CameLine[] }[]> {
	if (records.rehearsals.length === 0) return [];
	const on = records.tree.closedOn ?? today();
	const [of, water] = await Promise.all([recoveryOf(db, records, values), waterFor(db, records, values)]);
	const forecast = of ? recoveryForecast(of.case, values, { bands: false }) : null;
	const weighed = water?.pot?.course.findLast((point) => point.seen !== null);
	return records.rehearsals
		.map((kept) => ({
			kept,
			came: whatCame(
				kept,
				{
					state: records.tree.state,
					chance: forecast?.known ? forecast.now : null,
					roots: weighed && weighed.on > kept.rehearsedOn ? weighed : null,
					waterings: records.waterings.filter((one) => one.wateredOn > kept.rehearsedOn).length
				},
				on
			)
		}))
		.reverse();
}

/** Tasks that an earlier plan brought, which was taken over from a rehearsal. */
const isRehearsed = (source: string): boolean => source.startsWith('rehearsed-');

/**
 * Takes one plan of a rehearsal over: the stages of its roots are set anew, what it asks besides becomes tasks, and the rehearsal is
 * kept beside it. What an earlier plan that was taken over still had open falls away.
 * @param planVersion version of the plan of reduction that was rehearsed; null where there is none
 * @throws Refusal 404, 409 (its plan of reduction was changed meanwhile), 422
 */
export async function takeOver(
	store: Store,
	treeId: string,
	input: RehearsalInput,
	planVersion: number | null,
	values: Values
): Promise<{ entryId: string; tasks: number }> {
	const records = await loadRecords(store.db, treeId);
	refuseCare('rehearsedOn', input.rehearsedOn, records.tree);
	if (records.tree.state !== 'in-care')
		throw new Refusal(409, 'The case of this tree is closed.', 'Open it again under Recovery first.');
	const made = await rehearsalOf(store.db, records, values);
	const place = records.places.find((one) => one.id === records.tree.placeId);
	const taken = input.outcomes[input.taken]?.plan;
	if (!made || !place || !taken)
		throw new Refusal(409, 'This tree cannot be rehearsed any more.', 'Load the page again.');
	const stages = stagesTaken(records, place, taken, today(), values);
	const asked = tasksTaken(made.scene, { taken, planned: made.planned }, today(), values);
	const { entryId } = await doWork(
		store,
		{
			treeId,
			stage: 'recovery',
			what: `Taken over from a rehearsal: “${taken.name}”${asked.length > 0 ? `; ${counted(asked.length, 'task')}` : ''}`
		},
		async (work) => {
			await requireTree(work, treeId);
			const [plan] = await plans.list(work.tx, treeId);
			if ((plan?.version ?? null) !== planVersion)
				throw new Refusal(
					409,
					'The plan of its roots was changed in the meantime.',
					'Load the page again and rehearse it anew.'
				);
			if (plan && stages)
				await work.change(plans, plan.id, plan.version, (before) => ({ ...before, ...stages }));
			for (const task of await tasks.list(work.tx, treeId))
				if (task.state === 'open' && isRehearsed(task.source))
					await closeInWork(work, task.id, task.version, {
						state: 'skipped',
						skipReason: 'another plan was taken over',
						ends: true,
						on: today()
					});
			for (const task of asked) await work.add(tasks, { ...task, ...openTask });
			await work.add(rehearsals, input);
		}
	);
	return { entryId, tasks: asked.length };
}
