import type { z } from 'zod';
import type { Values } from '../values/values';

/** One calculation of the core, offered by name with schemas for what goes in and what comes out. */
export interface Calculation {
	name: string;
	summary: string;
	input: z.ZodType;
	output: z.ZodType;
	/** What the schema of the output describes, or a promise of it where a solver has to be loaded. */
	run(input: unknown, values: Values): unknown;
}

/** Ties a name to schemas and a typed function; the input is checked before the function sees it. */
export function calculation<I extends z.ZodType, O extends z.ZodType>(
	name: string,
	summary: string,
	input: I,
	output: O,
	run: (input: z.output<I>, values: Values) => z.input<O> | Promise<z.input<O>>
): Calculation {
	return { name, summary, input, output, run: (raw, values) => run(input.parse(raw), values) };
}
