import { z } from 'zod';

/** A JSON Schema (2020-12) from a Zod schema, as sent in or as answered. */
export const jsonSchema = (schema: z.ZodType, io: 'input' | 'output') =>
	z.toJSONSchema(schema, { io, unrepresentable: 'any' });
