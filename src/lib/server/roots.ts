import { percent } from '../core/text/percent';
import type { TreeRecords } from '../core/tree/case';
import { addDays } from '../core/maths/calendar';
import { coldLimit } from '../core/climate/cold-limit';
import { nightTemperature } from '../core/climate/normals';
import type { Place } from '../core/vocabulary/place';
import { seasonFit } from '../core/climate/windows';
import { plannedOf } from '../core/roots/plan/done';
import { cutStops, type CutStop } from '../core/roots/plan/work-stops';
import { roman, type Plan, type PlanInput } from '../core/roots/plan/plan';
import type { RootMap, RootMapInput } from '../core/roots/map/root-map';
import { isStructural } from '../core/roots/map/shares';
import { openFlags } from '../core/aftercare/tasks/flags';
import type { PotMate } from '../core/roots/map/mates';
import { planStanding } from '../core/roots/plan/plan-standing';
import { standingOf } from '../core/tree/standing';
import type { WoundTreatment } from '../core/roots/plan/wound';
import type { Tree } from '../core/take-in/tree';
import type { Values } from '../core/values/values';
import { nextLooks } from './aftercare';
import { today } from './clock';
import { openTask } from './task-work';
import type { Reader, Store } from './db/database';
import { invalid, Refusal } from './errors';
import { plans, rootMaps, tasks } from './records/records';
import { doWork } from './records/work';
import { sayForecast } from './recovery';
import { loadRecords, matesInPot } from './records/tree-records';
import { refuseCare, refuseDate, requireTree } from './trees';
import { placeSeries } from './weather';

export interface RootsInput {
	map: RootMapInput;
	mapVersion: number | null;
	plan: PlanInput;
	planVersion: number | null;
}

/**
 * Keeps the root map and its plan together, as they are drawn.
 * @param input versions as last read, or null when there was none yet
 * @throws Refusal 404, 409 (drawn on elsewhere), 422 (a cut of a root that is not on the map)
 */
export async function saveRoots(
	store: Store,
	treeId: string,
	input: RootsInput
): Promise<{ map: RootMap; plan: Plan }> {
	const { result } = await doWork(
		store,
		{ treeId, stage: 'roots', what: 'Mapped and planned roots', undoable: false },
		async (work) => {
			const tree = await requireTree(work, treeId);
			refuseDate('mappedOn', input.map.mappedOn, tree);
			const known = new Set(input.map.segments.map((segment) => segment.id));
			const told = [...input.plan.cuts, ...input.plan.consents];
			const stray = told.findIndex((cut) => !known.has(cut.segmentId));
			if (stray >= 0)
				throw invalid([
					{
						field:
							stray < input.plan.cuts.length
								? `plan.cuts.${stray}.segmentId`
								: `plan.consents.${stray - input.plan.cuts.length}.segmentId`,
						message: 'must be a root of this map'
					}
				]);
			const [mapBefore] = await rootMaps.list(work.tx, treeId);
			const [planBefore] = await plans.list(work.tx, treeId);
			if (
				(mapBefore?.version ?? null) !== input.mapVersion ||
				(planBefore?.version ?? null) !== input.planVersion
			)
				throw new Refusal(
					409,
					'These roots were changed elsewhere in the meantime.',
					'Load the page again; your last step is still shown here until you do.'
				);
			const map = mapBefore
				? await work.change(rootMaps, mapBefore.id, mapBefore.version, (before) => ({
						...before,
						...input.map
					}))
				: await work.add(rootMaps, input.map);
			const plan = planBefore
				? await work.change(plans, planBefore.id, planBefore.version, (before) => ({
						...before,
						...input.plan
					}))
				: await work.add(plans, input.plan);
			return { map, plan };
		}
	);
	return result;
}

/** Maps of the other trees in care that stand in the same pot. */
export async function potMates(db: Reader, tree: Tree): Promise<PotMate[]> {
	const found = await Promise.all(
		(await matesInPot(db, tree)).map(async ({ id, tag, name }): Promise<PotMate[]> => {
			const [map] = await rootMaps.list(db, id);
			return map ? [{ id, tag, name, map }] : [];
		})
	);
	return found.flat();
}

/** Coldest night ahead of freshly cut roots, °C: as it is known, else as usual for the season; null for roots that stay in the ground. */
export async function nightAhead(
	db: Reader,
	tree: Tree,
	place: Place,
	on: string,
	values: Values
): Promise<number | null> {
	if (tree.situation === 'in-ground') return null;
	const series =
		(await placeSeries(db, on, addDays(on, values['guard.workDays']), values)).get(place.id)?.series ?? [];
	const known = series.filter((day) => day.how === '').map((day) => day.minC);
	if (known.length > 0) return Math.min(...known);
	// Of a day that is past nobody guesses what its nights were.
	return on === today() ? nightTemperature(place, on, values).usualC : null;
}

/** What stands against cuts that were made on a day. */
async function stopsOf(
	db: Reader,
	records: TreeRecords,
	place: Place,
	plan: Plan,
	made: ReadonlySet<string>,
	on: string,
	values: Values
): Promise<CutStop[]> {
	const { tree, kind, rootMap } = records;
	const cuts = plan.cuts.filter((cut) => made.has(cut.id));
	const [first] = cuts;
	if (!rootMap || !first) return [];
	const { ledger } = planStanding(
		tree,
		kind,
		place,
		rootMap,
		{ ...plan, cuts: plan.cuts.filter((cut) => cut.state === 'done') },
		values
	);
	const stage = ledger.stages[first.stage];
	return cutStops(
		{
			stage: stage ?? { loss: 0, allowed: 1 },
			seasonFit: seasonFit(kind, place, on, values),
			nightC: await nightAhead(db, tree, place, on, values),
			coldLimitC: coldLimit(
				{ kind, lastCutOn: on, inGround: tree.situation === 'in-ground', newShoots: false },
				on,
				values
			).limitC,
			cuts: cuts.flatMap((cut) => {
				const segment = rootMap.segments.find((one) => one.id === cut.segmentId);
				return segment ? [{ cut, segment }] : [];
			}),
			map: rootMap,
			windows: ledger.windows,
			consents: plan.consents,
			permission: standingOf(records, on, values).permission.value ?? tree.permission
		},
		values
	);
}

/** Which planned cuts were made on a day, and which were left, with the reason. */
export interface CutsDone {
	on: string;
	planVersion: number;
	/** Cuts made; `atMm` where it was cut elsewhere than planned. */
	done: { id: string; atMm: number | null; note: string }[];
	left: { id: string; why: string }[];
	/** What was put on the wounds of this session. */
	treatments: WoundTreatment[];
	/** Why it was cut against what stood against it that day; empty where nothing did. */
	because: string;
}

/** Writes what was really cut, and plans the next looks that it asks for. @throws Refusal 404, 409, 422 */
export async function recordCuts(
	store: Store,
	treeId: string,
	input: CutsDone,
	values: Values
): Promise<string> {
	const records = await loadRecords(store.db, treeId);
	const { plan, rootMap } = records;
	if (!plan || !rootMap)
		throw new Refusal(409, 'There is no plan to cut by yet.', 'Map the roots and choose the cuts first.');
	const done = new Map(input.done.map((entry) => [entry.id, entry]));
	const left = new Map(input.left.map((entry) => [entry.id, entry.why]));
	const known = new Set(plan.cuts.filter((cut) => cut.state === 'planned').map((cut) => cut.id));
	const stray = [...done.keys(), ...left.keys()].find((id) => !known.has(id));
	if (stray) throw invalid([{ field: 'done', message: 'must name cuts that are still planned' }]);
	const [flag] = openFlags(records.tasks);
	const holds = plan.cuts.some((cut) => {
		const root = rootMap.segments.find((segment) => segment.id === cut.segmentId);
		return done.has(cut.id) && root !== undefined && isStructural(root);
	});
	if (flag && holds)
		throw new Refusal(
			409,
			`${flag.title}: no structural root of it is cut before that.`,
			'Write down under Aftercare who looked at it and what they said.'
		);
	const place = records.places.find((candidate) => candidate.id === records.tree.placeId);
	const cost = place
		? planStanding(records.tree, records.kind, place, rootMap, plan, values).ledger.cutCost
		: null;
	const lost = plan.cuts.reduce(
		(sum, cut) => sum + (done.has(cut.id) ? (cost?.get(cut.segmentId) ?? 0) : 0),
		0
	);
	const making = plan.cuts.filter((cut) => done.has(cut.id));
	const inHand = [...new Set(making.map((cut) => cut.stage))];
	const stages = inHand.map(roman);
	const ofPlanned = making.length > 0 ? plannedOf(rootMap, plan.cuts, inHand, values) : null;
	let because = '';
	const after = (before: Plan): Plan => ({
		...before,
		cuts: before.cuts.map((cut) => {
			const made = done.get(cut.id);
			if (made) {
				const elsewhere = made.atMm !== null && Math.abs(made.atMm - cut.atMm) >= 1;
				return {
					...cut,
					state: 'done' as const,
					doneOn: input.on,
					atMm: made.atMm ?? cut.atMm,
					plannedAtMm: elsewhere ? cut.atMm : null,
					note: made.note || cut.note,
					treatments: input.treatments,
					ofPlanned,
					because
				};
			}
			return left.has(cut.id) ? { ...cut, state: 'left' as const, note: left.get(cut.id) ?? '' } : cut;
		})
	});
	const stops = place
		? await stopsOf(
				store.db,
				records,
				place,
				after(plan),
				new Set(making.map((cut) => cut.id)),
				input.on,
				values
			)
		: [];
	if (stops.length > 0 && input.because.trim() === '')
		throw invalid([
			{
				field: 'because',
				message: `must say why it is cut all the same: ${stops.map(({ why }) => why).join(' ')}`
			}
		]);
	if (stops.length > 0) because = input.because.trim();
	const looks = nextLooks({ ...records, plan: after(plan) }, input.on, values);
	const { entryId } = await doWork(
		store,
		{
			treeId,
			stage: 'roots',
			on: input.on,
			what: `Cut ${done.size} root${done.size === 1 ? '' : 's'}, stage ${stages.join(' and ') || '–'}: ${percent(lost)} of the living root${stops.length > 0 ? `; all the same, because: ${input.because.trim()}` : ''}`.slice(
				0,
				400
			)
		},
		async (work) => {
			refuseCare('on', input.on, records.tree);
			for (const task of looks) await work.add(tasks, { ...task, ...openTask });
			const kept = await work.change(plans, plan.id, input.planVersion, after);
			if (done.size > 0) await sayForecast(work, treeId, input.on, values);
			return kept;
		}
	);
	return entryId;
}
