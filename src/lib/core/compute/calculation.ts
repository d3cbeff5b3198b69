import { z } from 'zod';
import type { Rgba } from '../examine/pictures/raster';
import type { Values } from '../values/values';

/** One calculation of the core, offered by name with schemas for what goes in and what comes out. */
export interface Calculation {
	name: string;
	summary: string;
	input: z.ZodType;
	output: z.ZodType;
	/** What the schema of the output describes, or a promise of it where a solver has to be loaded or a picture decoded. */
	run(input: unknown, values: Values, decoded?: Decoder): unknown;
}

/** Decodes a picture that is sent as base64; `field` is where it stands. */
export type Decoder = (base64: string, field: string) => Promise<Rgba>;

/** Largest picture that is sent, characters of base64: some 7 MB of file. */
const PICTURE_CHARACTERS = 9_500_000;

/** A picture as JPEG, PNG or WebP in base64. */
export const picture = () =>
	z
		.string()
		.max(PICTURE_CHARACTERS, { error: `must be at most ${PICTURE_CHARACTERS} characters of base64` })
		.regex(/^[A-Za-z0-9+/]*={0,2}$/, { error: 'must be a picture in base64' })
		.describe('JPEG, PNG or WebP, as base64 without a prefix');

const cannotSee: Decoder = () => Promise.reject(new Error('Pictures are decoded by who asks.'));

/** Ties a name to schemas and a typed function; the input is checked before the function sees it. */
export function calculation<I extends z.ZodType, O extends z.ZodType>(
	name: string,
	summary: string,
	input: I,
	output: O,
	run: (input: z.output<I>, values: Values, decoded: Decoder) => z.input<O> | Promise<z.input<O>>
): Calculation {
	return {
		name,
		summary,
		input,
		output,
		run: (raw, values, decoded = cannotSee) => run(input.parse(raw), values, decoded)
	};
}
