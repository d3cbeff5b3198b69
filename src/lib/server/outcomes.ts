import { sql } from 'drizzle-orm';
import { addDays } from '../core/maths/calendar';
import type { SeasonFit } from '../core/climate/windows';
import type { Group } from '../core/vocabulary/kind';
import type { LossRow, OutcomeCase } from '../core/recovery/outcomes/outcomes';
import type { Review, ReviewRow } from '../core/recovery/outcomes/review';
import type { Said } from '../core/recovery/outcomes/forecast-score';
import type { Reserves, TreeState } from '../core/vocabulary/words';
import type { Values } from '../core/values/values';
import type { Reader } from './db/database';
import { jsonRows } from './db/json-rows';
import * as tables from './db/schema';
import { sound, soundTree } from './records/sound';

const { tree, kind, place, planting, task, saidForecast, observation, examination, reductionPlan, cut } =
	tables;

/** Every case with what its first work was, for counting. */
export async function outcomeCases(db: Reader): Promise<OutcomeCase[]> {
	const rows = await jsonRows<{
		treeId: string;
		tag: string;
		group: Group;
		reserves: Reserves;
		state: TreeState;
		takenInOn: string;
		closedOn: string | null;
		workOn: string | null;
		context: string | { livingLoss: number; seasonFit: SeasonFit } | null;
		balanced: 0 | 1;
		cared: 0 | 1;
		mixName: string | null;
	}>(
		db,
		{
			treeId: tree.id,
			tag: tree.tag,
			group: kind.group,
			reserves: tree.reserves,
			state: tree.state,
			takenInOn: tree.takenInOn,
			closedOn: tree.closedOn,
			workOn: sql`(select min(${saidForecast.saidOn}) from ${saidForecast} where ${saidForecast.treeId} = ${tree.id} and ${sound(db, 'said-forecast', saidForecast.id)} and ${saidForecast.occasion} = 'work')`,
			context: sql`(select ${saidForecast.context} from ${saidForecast} where ${saidForecast.treeId} = ${tree.id} and ${sound(db, 'said-forecast', saidForecast.id)} and ${saidForecast.occasion} = 'work' order by ${saidForecast.saidOn}, ${saidForecast.id} limit 1)`,
			balanced: sql`exists (select 1 from ${task} where ${task.treeId} = ${tree.id} and ${task.kind} = 'crown' and ${task.source} like 'crown@%')`,
			cared: sql`exists (select 1 from ${task} where ${task.treeId} = ${tree.id} and ${task.source} like 'feeding@%')`,
			mixName: sql`(select json_extract(${planting.mix}, '$.name') from ${planting} where ${planting.treeId} = ${tree.id} and ${sound(db, 'planting', planting.id)} order by ${planting.plantedOn} limit 1)`
		},
		sql`from ${tree} join ${kind} on ${kind.id} = ${tree.kindId} where ${soundTree(db)} order by ${tree.tag}`
	);
	return rows.map(({ takenInOn, workOn, context, balanced, cared, ...row }) => {
		const of =
			typeof context === 'string'
				? (JSON.parse(context) as { livingLoss: number; seasonFit: SeasonFit })
				: context;
		return {
			...row,
			fromOn: workOn ?? takenInOn,
			livingLoss: of?.livingLoss ?? null,
			seasonFit: of?.seasonFit ?? null,
			crownSchool: balanced ? 'balance' : cared ? 'keep-leaves' : null
		};
	});
}

/**
 * What was forecast at the first work of each case against what came of it: cases that are decided, closed as re-established or
 * lost, or whose horizon has passed.
 */
export async function saidAgainstCame(db: Reader, today: string): Promise<(Said & { tag: string })[]> {
	const rows = await jsonRows<{
		tag: string;
		state: TreeState;
		closedOn: string | null;
		probability: number;
		horizonOn: string;
	}>(
		db,
		{
			tag: tree.tag,
			state: tree.state,
			closedOn: tree.closedOn,
			probability: saidForecast.probability,
			horizonOn: saidForecast.horizonOn
		},
		sql`from ${saidForecast} join ${tree} on ${tree.id} = ${saidForecast.treeId}
			where ${soundTree(db)} and ${sound(db, 'said-forecast', saidForecast.id)} and ${saidForecast.id} = (select "first"."id" from ${saidForecast} as "first" where "first"."treeId" = ${tree.id} and "first"."occasion" = 'work' order by "first"."saidOn", "first"."id" limit 1)`
	);
	return rows.flatMap(({ tag, state, closedOn, probability, horizonOn }) => {
		if (state === 're-established')
			return [{ tag, probability, happened: closedOn !== null && closedOn <= horizonOn }];
		if (state === 'dead' || (state === 'in-care' && horizonOn < today))
			return [{ tag, probability, happened: false }];
		return [];
	});
}

/** The register of losses, newest first. */
export const lossRows = (db: Reader): Promise<LossRow[]> =>
	jsonRows<LossRow>(
		db,
		{
			treeId: tree.id,
			tag: tree.tag,
			name: tree.name,
			kindName: kind.commonName,
			closedOn: tree.closedOn,
			lossCause: tree.lossCause,
			lossConditions: tree.lossConditions,
			shownEarlier: tree.shownEarlier,
			closingNote: tree.closingNote
		},
		sql`from ${tree} join ${kind} on ${kind.id} = ${tree.kindId} where ${tree.state} = 'dead' and ${soundTree(db)} order by ${tree.closedOn} desc`
	);

/** The whole yard in spring or autumn: stages that are due, pots that ask, trees nobody looked at, cases without a plan. */
export async function yardReview(db: Reader, today: string, values: Values): Promise<Review> {
	const base = { treeId: tree.id, tag: tree.tag, name: tree.name, placeName: place.name };
	const from = sql`from ${tree} join ${place} on ${place.id} = ${tree.placeId}`;
	const inCare = sql`${tree.state} = 'in-care' and ${soundTree(db)}`;
	const unseenBefore = addDays(today, -values['look.overdueDays']);
	const oldPot = addDays(today, -Math.round(values['review.repotYears'] * 365));
	const lastLook = sql`max(
		coalesce((select max(${observation.observedOn}) from ${observation} where ${observation.treeId} = ${tree.id} and ${sound(db, 'observation', observation.id)}), ''),
		coalesce((select max(${examination.examinedOn}) from ${examination} where ${examination.treeId} = ${tree.id} and ${sound(db, 'examination', examination.id)}), ''),
		${tree.takenInOn})`;
	const plantedOn = sql`(select max(${planting.plantedOn}) from ${planting} where ${planting.treeId} = ${tree.id} and ${sound(db, 'planting', planting.id)})`;
	const atEdge = sql`exists (select 1 from ${observation} where ${observation.treeId} = ${tree.id} and ${observation.rootsAtEdge} = 1 and ${observation.observedOn} >= ${plantedOn})`;
	const [planned, pots, unseen, undecided] = await Promise.all([
		jsonRows<Omit<ReviewRow, 'why' | 'on'> & { stages: string | string[]; left: string }>(
			db,
			{
				...base,
				stages: reductionPlan.stageDates,
				left: sql`(select group_concat(distinct ${cut.stage}) from ${cut} where ${cut.ownerId} = ${reductionPlan.id} and ${cut.state} = 'planned')`
			},
			sql`${from} join ${reductionPlan} on ${reductionPlan.treeId} = ${tree.id}
				where ${inCare} and ${sound(db, 'plan', reductionPlan.id)} and exists (select 1 from ${cut} where ${cut.ownerId} = ${reductionPlan.id} and ${cut.state} = 'planned')`
		),
		jsonRows<Omit<ReviewRow, 'why'> & { edge: 0 | 1 }>(
			db,
			{ ...base, on: plantedOn, edge: atEdge },
			sql`${from} where ${inCare} and ${tree.situation} = 'potted' and ${plantedOn} is not null
				and (${plantedOn} <= ${oldPot} or ${atEdge}) order by ${plantedOn}`
		),
		jsonRows<Omit<ReviewRow, 'why'>>(
			db,
			{ ...base, on: lastLook },
			sql`${from} where ${inCare} and ${lastLook} < ${unseenBefore} order by ${lastLook}`
		),
		jsonRows<Omit<ReviewRow, 'why'>>(
			db,
			{ ...base, on: tree.takenInOn },
			sql`${from} where ${inCare} and not exists (select 1 from ${task} where ${task.treeId} = ${tree.id} and ${task.state} = 'open') order by ${tree.takenInOn}`
		)
	]);
	const ahead = addDays(today, values['review.stagesDays']);
	const stages = planned
		.flatMap(({ stages: dates, left, ...row }): ReviewRow[] => {
			const list = typeof dates === 'string' ? (JSON.parse(dates) as string[]) : dates;
			const first = left
				.split(',')
				.map((stage) => list[Number(stage)])
				.filter((on): on is string => on !== undefined)
				.sort()[0];
			return first !== undefined && first <= ahead
				? [{ ...row, on: first, why: first < today ? 'its day is past' : 'due' }]
				: [];
		})
		.sort((a, b) => ((a.on ?? '') < (b.on ?? '') ? -1 : 1));
	return {
		stages,
		pots: pots.map(({ edge, ...row }) => ({
			...row,
			why: edge ? 'roots seen at the edge of the ball' : 'planted long ago'
		})),
		unseen: unseen.map((row) => ({ ...row, why: 'last look' })),
		undecided: undecided.map((row) => ({ ...row, why: 'nothing is planned for it' }))
	};
}
