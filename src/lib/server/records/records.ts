import { taskSchema } from '../../core/vocabulary/task';
import { bookEntrySchema } from '../../core/aftercare/book/book';
import { changeSchema } from '../../core/tree/changes';
import { placeSchema } from '../../core/vocabulary/place';
import { examinationSchema } from '../../core/examine/diagnosis/examination';
import { groundPlanSchema } from '../../core/replant/ground/ground-plan';
import { kindSchema } from '../../core/vocabulary/kind';
import { liftSchema } from '../../core/replant/lifting/lift';
import { measurementSchema } from '../../core/examine/measuring/measurement';
import { plantingSchema, replantPlanSchema } from '../../core/replant/pots/replant-plan';
import { ownMixSchema, stockItemSchema, stockPotSchema } from '../../core/replant/kit/stock';
import { pictureSchema } from '../../core/take-in/picture';
import { backupSchema } from '../../core/recovery/backup';
import { rehearsalSchema } from '../../core/recovery/rehearsal/kept';
import { decisionSchema, saidForecastSchema } from '../../core/recovery/said';
import { observationSchema } from '../../core/examine/looks/observation';
import { planSchema } from '../../core/roots/plan/plan';
import { rootMapSchema } from '../../core/roots/map/root-map';
import { treeSchema } from '../../core/take-in/tree';
import { triageSchema } from '../../core/examine/triage/triage';
import { wateringSchema } from '../../core/aftercare/water/watering';
import { deviceSchema } from '../../core/aftercare/weather/device';
import { weatherDaySchema } from '../../core/climate/weather-day';
import type { z } from 'zod';
import type { TreeRecordField, treeRecordFields } from '../../core/tree/case';
import * as tables from '../db/schema';
import { aggregate, type Aggregate, type Identified } from './aggregate';

export const places = aggregate({
	name: 'place',
	noun: 'place',
	schema: placeSchema,
	table: tables.place,
	orderBy: tables.place.name
});

export const kinds = aggregate({
	name: 'kind',
	noun: 'kind',
	schema: kindSchema,
	table: tables.kind,
	orderBy: tables.kind.genus
});

export const trees = aggregate({
	name: 'tree',
	noun: 'tree',
	schema: treeSchema,
	table: tables.tree,
	orderBy: tables.tree.tag
});

export const examinations = aggregate({
	name: 'examination',
	noun: 'examination',
	schema: examinationSchema,
	table: tables.examination,
	treeId: tables.examination.treeId,
	orderBy: tables.examination.examinedOn,
	part: { field: 'findings', table: tables.finding }
});

export const measurements = aggregate({
	name: 'measurement',
	noun: 'measurement',
	schema: measurementSchema,
	table: tables.measurement,
	treeId: tables.measurement.treeId,
	orderBy: tables.measurement.measuredOn
});

export const triages = aggregate({
	name: 'triage',
	noun: 'decision',
	schema: triageSchema,
	table: tables.triage,
	treeId: tables.triage.treeId,
	orderBy: tables.triage.decidedOn
});

export const factorChanges = aggregate({
	name: 'factor-change',
	noun: 'change',
	schema: changeSchema,
	table: tables.factorChange,
	treeId: tables.factorChange.treeId,
	orderBy: tables.factorChange.changedOn
});

export const rootMaps = aggregate({
	name: 'root-map',
	noun: 'root map',
	schema: rootMapSchema,
	table: tables.rootMap,
	treeId: tables.rootMap.treeId,
	orderBy: tables.rootMap.mappedOn,
	part: { field: 'segments', table: tables.rootSegment }
});

export const plans = aggregate({
	name: 'plan',
	noun: 'reduction plan',
	schema: planSchema,
	table: tables.reductionPlan,
	treeId: tables.reductionPlan.treeId,
	orderBy: tables.reductionPlan.id,
	part: { field: 'cuts', table: tables.cut }
});

export const lifts = aggregate({
	name: 'lift',
	noun: 'lift',
	schema: liftSchema,
	table: tables.lift,
	treeId: tables.lift.treeId,
	orderBy: tables.lift.plannedOn
});

export const replantPlans = aggregate({
	name: 'replant-plan',
	noun: 'plan of the planting',
	schema: replantPlanSchema,
	table: tables.replantPlan,
	treeId: tables.replantPlan.treeId,
	orderBy: tables.replantPlan.id
});

export const groundPlans = aggregate({
	name: 'ground-plan',
	noun: 'plan of ground works',
	schema: groundPlanSchema,
	table: tables.groundPlan,
	treeId: tables.groundPlan.treeId,
	orderBy: tables.groundPlan.plannedOn
});

export const stockPots = aggregate({
	name: 'stock-pot',
	noun: 'pot',
	schema: stockPotSchema,
	table: tables.stockPot,
	orderBy: tables.stockPot.name
});

export const stockItems = aggregate({
	name: 'stock-item',
	noun: 'entry of the stock',
	schema: stockItemSchema,
	table: tables.stockItem,
	orderBy: tables.stockItem.item
});

export const ownMixes = aggregate({
	name: 'own-mix',
	noun: 'mix',
	schema: ownMixSchema,
	table: tables.ownMix,
	orderBy: tables.ownMix.name
});

export const waterings = aggregate({
	name: 'watering',
	noun: 'watering',
	schema: wateringSchema,
	table: tables.watering,
	treeId: tables.watering.treeId,
	orderBy: tables.watering.wateredOn
});

export const weatherDays = aggregate({
	name: 'weather-day',
	noun: 'day of weather',
	schema: weatherDaySchema,
	table: tables.weatherDay,
	orderBy: tables.weatherDay.on
});

export const devices = aggregate({
	name: 'device',
	noun: 'device',
	schema: deviceSchema,
	table: tables.device,
	orderBy: tables.device.name
});

export const plantings = aggregate({
	name: 'planting',
	noun: 'planting',
	schema: plantingSchema,
	table: tables.planting,
	treeId: tables.planting.treeId,
	orderBy: tables.planting.plantedOn
});

export const tasks = aggregate({
	name: 'task',
	noun: 'task',
	schema: taskSchema,
	table: tables.task,
	treeId: tables.task.treeId,
	orderBy: tables.task.fromOn
});

export const observations = aggregate({
	name: 'observation',
	noun: 'look',
	schema: observationSchema,
	table: tables.observation,
	treeId: tables.observation.treeId,
	orderBy: tables.observation.observedOn
});

export const pictures = aggregate({
	name: 'picture',
	noun: 'picture',
	schema: pictureSchema,
	table: tables.picture,
	treeId: tables.picture.treeId,
	orderBy: tables.picture.takenOn
});

export const backups = aggregate({
	name: 'backup',
	noun: 'batch of cuttings',
	schema: backupSchema,
	table: tables.backup,
	treeId: tables.backup.treeId,
	orderBy: tables.backup.takenOn
});

export const decisions = aggregate({
	name: 'decision',
	noun: 'decision',
	schema: decisionSchema,
	table: tables.decision,
	treeId: tables.decision.treeId,
	orderBy: tables.decision.decidedOn
});

export const bookEntries = aggregate({
	name: 'book-entry',
	noun: 'entry of the field book',
	schema: bookEntrySchema,
	table: tables.bookEntry,
	treeId: tables.bookEntry.treeId,
	orderBy: tables.bookEntry.on
});

export const saidForecasts = aggregate({
	name: 'said-forecast',
	noun: 'forecast',
	schema: saidForecastSchema,
	table: tables.saidForecast,
	treeId: tables.saidForecast.treeId,
	orderBy: tables.saidForecast.saidOn
});

export const rehearsals = aggregate({
	name: 'rehearsal',
	noun: 'rehearsal',
	schema: rehearsalSchema,
	table: tables.rehearsal,
	treeId: tables.rehearsal.treeId,
	orderBy: tables.rehearsal.rehearsedOn
});

/** Where the records of a tree are kept, by their names in a case. */
export const ofTree = {
	examinations,
	measurements,
	triages,
	factorChanges,
	rootMap: rootMaps,
	plan: plans,
	lifts,
	replantPlan: replantPlans,
	plantings,
	waterings,
	groundPlans,
	tasks,
	observations,
	pictures,
	backups,
	decisions,
	book: bookEntries,
	forecasts: saidForecasts,
	rehearsals
} satisfies { [F in TreeRecordField]: Aggregate<Extract<RecordOf<F>, Identified>> };
/** The record that a field of a case holds one or many of. */
type RecordOf<F extends TreeRecordField> =
	NonNullable<Held<F>> extends readonly (infer One)[] ? One : NonNullable<Held<F>>;
type Held<F extends TreeRecordField> = z.infer<(typeof treeRecordFields)[F]>;

/** Every kind of record that people write. */
export const everyRecord = [
	...Object.values(ofTree),
	trees,
	places,
	kinds,
	weatherDays,
	devices,
	stockPots,
	stockItems,
	ownMixes
] as unknown as readonly Aggregate<Identified>[];

/** The repository of a record by its name, as undo finds it. */
export const aggregateNamed = (name: string): Aggregate<Identified> | undefined =>
	everyRecord.find((entry) => entry.name === name);
