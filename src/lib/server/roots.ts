import { percent } from '../core/text/percent';
import { counted } from '../core/text/plural';
import type { TreeRecords } from '../core/tree/case';
import { addDays } from '../core/maths/calendar';
import { coldLimit, newShootsOn } from '../core/climate/cold-limit';
import { nightTemperature } from '../core/climate/normals';
import type { Place } from '../core/vocabulary/place';
import { seasonFit } from '../core/climate/windows';
import { plannedOf } from '../core/roots/plan/done';
import { cutStops, type CutStop } from '../core/roots/plan/work-stops';
import { roman, type Cut, type Plan, type PlanInput } from '../core/roots/plan/plan';
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
import { addFollowing } from './task-work';
import type { Reader, Store } from './db/database';
import { invalid, Refusal } from './errors';
import { plans, rootMaps } from './records/records';
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
					'Nothing was overwritten; choose which of the two is to stand.',
					[],
					{ map: mapBefore ?? null, plan: planBefore ?? null }
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

/**
 * What stands against cuts that were made on a day.
 * @param records with the plan as it is after them
 * @param making identities of the cuts
 */
async function stopsOf(
	db: Reader,
	records: TreeRecords,
	making: readonly string[],
	on: string,
	values: Values
): Promise<CutStop[]> {
	const { tree, kind, rootMap, plan } = records;
	const place = placeOf(records);
	const cuts = plan?.cuts.filter((cut) => making.includes(cut.id)) ?? [];
	const [first] = cuts;
	if (!place || !plan || !rootMap || !first) return [];
	const { ledger } = planStanding(
		{ tree, kind },
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
				{
					kind,
					place,
					lastCutOn: on,
					inGround: tree.situation === 'in-ground',
					newShoots: newShootsOn(standingOf(records, on, values).buds, { kind, place }, on, values)
				},
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

const placeOf = ({ places, tree }: TreeRecords): Place | undefined =>
	places.find((candidate) => candidate.id === tree.placeId);

/** Cuts that name what is planned, of roots that may be cut. @throws Refusal 409, 422 */
function refuseCuts(records: TreeRecords, plan: Plan, rootMap: RootMap, input: CutsDone): void {
	refuseCare('on', input.on, records.tree);
	const known = new Set(plan.cuts.filter((cut) => cut.state === 'planned').map((cut) => cut.id));
	const made = new Set(input.done.map(({ id }) => id));
	const stray = [...input.done, ...input.left].find(({ id }) => !known.has(id));
	if (stray) throw invalid([{ field: 'done', message: 'must name cuts that are still planned' }]);
	const [flag] = openFlags(records.tasks);
	const holds = plan.cuts.some((cut) => {
		const root = rootMap.segments.find((segment) => segment.id === cut.segmentId);
		return made.has(cut.id) && root !== undefined && isStructural(root);
	});
	if (flag && holds)
		throw new Refusal(
			409,
			`${flag.title}: no structural root of it is cut before that.`,
			'Write down under Aftercare who looked at it and what they said.'
		);
}

/** A plan with what was really cut of it, and what was left. */
function planAfter(
	plan: Plan,
	{ on, done, left, treatments }: CutsDone,
	told: Pick<Cut, 'ofPlanned' | 'because'>
): Plan {
	const madeOf = new Map(done.map((entry) => [entry.id, entry]));
	const leftOf = new Map(left.map((entry) => [entry.id, entry.why]));
	return {
		...plan,
		cuts: plan.cuts.map((cut): Cut => {
			const made = madeOf.get(cut.id);
			if (!made) return leftOf.has(cut.id) ? { ...cut, state: 'left', note: leftOf.get(cut.id) ?? '' } : cut;
			const elsewhere = made.atMm !== null && Math.abs(made.atMm - cut.atMm) >= 1;
			return {
				...cut,
				state: 'done',
				doneOn: on,
				atMm: made.atMm ?? cut.atMm,
				plannedAtMm: elsewhere ? cut.atMm : null,
				note: made.note || cut.note,
				treatments,
				...told
			};
		})
	};
}

/** Longest line of the journal. */
const JOURNAL_LINE = 400;

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
	refuseCuts(records, plan, rootMap, input);
	const place = placeOf(records);
	const making = plan.cuts.filter((cut) => input.done.some(({ id }) => id === cut.id));
	const stages = [...new Set(making.map((cut) => cut.stage))];
	const cost = place && planStanding(records, place, rootMap, plan, values).ledger.cutCost;
	const lost = making.reduce((sum, cut) => sum + (cost?.get(cut.segmentId) ?? 0), 0);
	const ofPlanned = making.length > 0 ? plannedOf(rootMap, plan.cuts, stages, values) : null;
	const stops = await stopsOf(
		store.db,
		{ ...records, plan: planAfter(plan, input, { ofPlanned, because: '' }) },
		making.map((cut) => cut.id),
		input.on,
		values
	);
	const because = stops.length > 0 ? input.because.trim() : '';
	if (stops.length > 0 && because === '')
		throw invalid([
			{
				field: 'because',
				message: `must say why it is cut all the same: ${stops.map(({ why }) => why).join(' ')}`
			}
		]);
	const after = (before: Plan): Plan => planAfter(before, input, { ofPlanned, because });
	const looks = nextLooks({ ...records, plan: after(plan) }, input.on, values);
	const what = `Cut ${counted(making.length, 'root')}, stage ${stages.map(roman).join(' and ') || '–'}: ${percent(lost)} of the living root${because ? `; all the same, because: ${because}` : ''}`;
	const { entryId } = await doWork(
		store,
		{ treeId, stage: 'roots', on: input.on, what: what.slice(0, JOURNAL_LINE) },
		async (work) => {
			await addFollowing(work, treeId, looks);
			const kept = await work.change(plans, plan.id, input.planVersion, after);
			if (making.length > 0) await sayForecast(work, treeId, input.on, values);
			return kept;
		}
	);
	return entryId;
}
