import { z } from 'zod';
import { describeNumbers } from '../../core/compute/field-words';

/** What every calculation adds to its answer: where its numbers come from. */
const from = {
	type: 'object',
	description: 'Where the numbers come from',
	required: ['formula', 'marks', 'values', 'more'],
	properties: {
		formula: { type: 'string', description: 'Source of the formula' },
		marks: {
			type: 'object',
			description: 'Working values used, by their mark',
			additionalProperties: { type: 'integer', description: 'how many of this mark, count' }
		},
		values: {
			type: 'array',
			description: 'The working values used, by name',
			items: {
				type: 'object',
				properties: {
					key: { type: 'string' },
					value: { type: 'number', description: 'the number in force, in the unit beside' },
					unit: { type: 'string' },
					mark: { enum: ['published', 'trade', 'memory', 'ours'] },
					source: { type: 'string' }
				}
			}
		},
		more: { type: 'integer', description: 'working values used beyond those listed, count' }
	}
};

/** The schema of what a calculation answers, with where its numbers come from. */
export const answerSchema = (schema: z.ZodType) => {
	const made = jsonSchema(schema, 'output');
	return { ...made, properties: { ...made.properties, from }, required: [...(made.required ?? []), 'from'] };
};

/** A JSON Schema (2020-12) from a Zod schema, as sent in or as answered; every number with its meaning and unit. */
export function jsonSchema(schema: z.ZodType, io: 'input' | 'output') {
	const made = z.toJSONSchema(schema, { io, unrepresentable: 'any' });
	describeNumbers(made);
	return made;
}
