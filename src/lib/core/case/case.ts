import { z } from 'zod';
import { taskSchema } from '../aftercare/task';
import { calendarDate, id, instant } from '../fields/fields';
import { placeSchema } from '../climate/place';
import { examinationSchema } from '../diagnosis/examination';
import { kindSchema } from '../kinds/kind';
import { plantingSchema } from '../pots/replant-plan';
import { observationSchema } from '../recovery/observation';
import { planSchema } from '../roots/plan';
import { rootMapSchema } from '../roots/root-map';
import { stages, treeSchema } from '../tree/tree';

/** What was done, when and at which stage. Written by the app, never edited. */
export const journalEntrySchema = z.strictObject({
	id: id(),
	at: instant(),
	on: calendarDate(),
	stage: z.enum(stages),
	what: z.string().max(400)
});
export type JournalEntry = z.infer<typeof journalEntrySchema>;

export const CASE_SCHEMA = 'bruntle/tree-case';
export const CASE_VERSION = 1;

const records = <T extends z.ZodType>(schema: T, most: number) =>
	z.array(schema).max(most, { error: `must be at most ${most} records` });

/** A whole tree with all its records, as exported and imported. */
export const treeCaseSchema = z.strictObject({
	schema: z.literal(CASE_SCHEMA, { error: `must be "${CASE_SCHEMA}"` }),
	version: z.literal(CASE_VERSION, { error: `must be ${CASE_VERSION}, the version this Bruntle reads` }),
	tree: treeSchema,
	kind: kindSchema,
	places: records(placeSchema, 100),
	examinations: records(examinationSchema, 2000),
	rootMap: rootMapSchema.nullable(),
	plan: planSchema.nullable(),
	plantings: records(plantingSchema, 500),
	tasks: records(taskSchema, 5000),
	observations: records(observationSchema, 20_000),
	journal: records(journalEntrySchema, 20_000)
});
export type TreeCase = z.infer<typeof treeCaseSchema>;
export type TreeRecords = Omit<TreeCase, 'schema' | 'version'>;
