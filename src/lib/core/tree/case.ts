import { z } from 'zod';
import { taskSchema } from '../vocabulary/task';
import { bookEntrySchema } from '../aftercare/book/book';
import { changeSchema } from './changes';
import { calendarDate, id, instant, shortText, toldText } from '../vocabulary/fields';
import { placeSchema } from '../vocabulary/place';
import { examinationSchema } from '../examine/diagnosis/examination';
import { groundPlanSchema } from '../replant/ground/ground-plan';
import { kindSchema } from '../vocabulary/kind';
import { liftSchema } from '../replant/lifting/lift';
import { measurementSchema } from '../examine/measuring/measurement';
import { mixIds, pottingMixOf } from '../replant/mixes/mixes';
import { plantingSchema, replantPlanSchema } from '../replant/pots/replant-plan';
import { casePictureSchema, pictureSchema, type Picture } from '../take-in/picture';
import { backupSchema } from '../recovery/backup';
import { observationSchema } from '../examine/looks/observation';
import { rehearsalSchema } from '../recovery/rehearsal/kept';
import { decisionSchema, saidForecastSchema } from '../recovery/said';
import { planSchema } from '../roots/plan/plan';
import { rootMapSchema } from '../roots/map/root-map';
import { stages } from '../vocabulary/words';
import { treeSchema } from '../take-in/tree';
import { wateringSchema } from '../aftercare/water/watering';
import { triageSchema } from '../examine/triage/triage';

/** What was done, when and at which stage. Written by the app, never edited. */
export const journalEntrySchema = z.strictObject({
	id: id(),
	at: instant(),
	on: calendarDate(),
	stage: z.enum(stages),
	what: toldText(400),
	by: shortText(60).nullable().default(null).describe('Who did it; null at the computer itself')
});
export type JournalEntry = z.infer<typeof journalEntrySchema>;

export const CASE_SCHEMA = 'bruntle/tree-case';
export const CASE_VERSION = 6;

const records = <T extends z.ZodType>(schema: T, most: number) =>
	z.array(schema).max(most, { error: `must be at most ${most} records` });

/**
 * Every kind of record that belongs to a tree, under its name in a case. A new kind is one line here, and one with its table in
 * `server/records/records.ts`; loading, exporting, importing and undoing follow from the two.
 */
export const treeRecordFields = {
	examinations: records(examinationSchema, 2000),
	measurements: records(measurementSchema, 5000),
	triages: records(triageSchema, 500),
	factorChanges: records(changeSchema, 5000),
	rootMap: rootMapSchema.nullable(),
	plan: planSchema.nullable(),
	lifts: records(liftSchema, 200),
	replantPlan: replantPlanSchema.nullable(),
	plantings: records(plantingSchema, 500),
	waterings: records(wateringSchema, 20_000),
	groundPlans: records(groundPlanSchema, 200),
	tasks: records(taskSchema, 5000),
	observations: records(observationSchema, 20_000),
	pictures: records(pictureSchema, 5000),
	backups: records(backupSchema, 2000),
	decisions: records(decisionSchema, 5000),
	book: records(bookEntrySchema, 5000),
	forecasts: records(saidForecastSchema, 20_000),
	rehearsals: records(rehearsalSchema, 200)
};
export type TreeRecordField = keyof typeof treeRecordFields;
/** Whether a tree has one record of a kind at the most, as it has one map. */
export const isSingle = (field: TreeRecordField): boolean => treeRecordFields[field] instanceof z.ZodNullable;

/** A whole tree with all its records, as exported and imported. */
export const treeCaseSchema = z.strictObject({
	schema: z.literal(CASE_SCHEMA, { error: `must be "${CASE_SCHEMA}"` }),
	version: z.literal(CASE_VERSION, { error: `must be ${CASE_VERSION}, the version this Bruntle reads` }),
	tree: treeSchema,
	kind: kindSchema,
	places: records(placeSchema, 100),
	...treeRecordFields,
	pictures: records(casePictureSchema, 5000),
	journal: records(journalEntrySchema, 20_000)
});
export type TreeCase = z.infer<typeof treeCaseSchema>;
/** As it stands in the yard: pictures without their files. */
export type TreeRecords = Omit<TreeCase, 'schema' | 'version' | 'pictures'> & {
	pictures: Picture[];
	/** Other trees in care that stand in the same pot; they stay with their own case. */
	mates: readonly PotMateRecords[];
};

/** What of a mate in a shared pot speaks of the pot. */
export interface PotMateRecords extends Pick<
	TreeCase,
	'plantings' | 'waterings' | 'measurements' | 'examinations'
> {
	tree: Pick<TreeCase['tree'], 'id' | 'tag' | 'name' | 'heightM' | 'trunkDiameterMm'>;
	/** Weights kept in looks. */
	weights: LookWeight[];
	/** First water after work on it that is still to come: the pot has one. */
	firstWater?: TreeCase['tasks'][number] | null;
}

/** A weight of the pot that was kept in a look. */
export interface LookWeight {
	id: string;
	on: string;
	kg: number;
}

/** Signs whose plain "present" of version 1 meant the top of what are now three grades. */
const topOfThree = new Set(['solid-mat', 'probe-stops', 'lump-squeezed', 'water-stands', 'no-flare']);

const isRecord = (value: unknown): value is Record<string, unknown> =>
	typeof value === 'object' && value !== null && !Array.isArray(value);

/**
 * Brings a case of an earlier version to the present one, so that whatever was written can be read back. What it does not
 * know it leaves for the schema to refuse.
 * - Kinds of record that it did not know are empty.
 * - Version 1 had plain signs.
 * - Version 2 kept the name of a shipped recipe with a planting.
 */
export function upgradeCase(raw: unknown): unknown {
	return withNewKinds(coarseWithPlanting(fromSecond(fromFirst(raw))));
}

/** What the coarse layer is of once stood beside the planting of a plan. */
function coarseWithPlanting(raw: unknown): unknown {
	if (!isRecord(raw) || !isRecord(raw.replantPlan) || !('coarseId' in raw.replantPlan)) return raw;
	const { coarseId, planting, ...plan } = raw.replantPlan;
	return {
		...raw,
		replantPlan: { ...plan, planting: isRecord(planting) ? { ...planting, coarseId } : planting }
	};
}

/** Kinds of record that an earlier version did not know are empty in it. */
function withNewKinds(raw: unknown): unknown {
	if (!isRecord(raw) || typeof raw.version !== 'number' || raw.version >= CASE_VERSION) return raw;
	const none = Object.keys(treeRecordFields).map((field) => [
		field,
		isSingle(field as TreeRecordField) ? null : []
	]);
	return { ...Object.fromEntries(none), ...raw, version: CASE_VERSION };
}

function fromSecond(raw: unknown): unknown {
	if (!isRecord(raw) || raw.version !== 2) return raw;
	const plantings = Array.isArray(raw.plantings) ? raw.plantings : [];
	return {
		...raw,
		version: 3,
		tasks: (Array.isArray(raw.tasks) ? raw.tasks : []).map((task: unknown) =>
			isRecord(task) ? { release: null, ...task } : task
		),
		plantings: plantings.map((planting: unknown) => {
			if (!isRecord(planting)) return planting;
			const { mixId, ...rest } = planting;
			const recipe = mixIds.find((known) => known === mixId);
			return recipe ? { ...rest, mix: pottingMixOf(recipe) } : planting;
		})
	};
}

function fromFirst(raw: unknown): unknown {
	if (!isRecord(raw) || raw.version !== 1) return raw;
	const examinations = Array.isArray(raw.examinations) ? raw.examinations : [];
	return {
		...raw,
		version: 2,
		examinations: examinations.map((examination: unknown) =>
			isRecord(examination) && Array.isArray(examination.findings)
				? { ...examination, findings: examination.findings.map(upgradeFinding) }
				: examination
		)
	};
}

function upgradeFinding(finding: unknown): unknown {
	if (!isRecord(finding) || !('state' in finding)) return finding;
	const { state, ...rest } = finding;
	const found = topOfThree.has(String(finding.signId)) ? 2 : 1;
	return { ...rest, grade: state === 'present' ? found : 0, measuredBy: null };
}
