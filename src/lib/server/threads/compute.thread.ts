import { calculationByName } from '../../core/compute/calculations';
import type { Decoder } from '../../core/compute/calculation';
import { provenance, traced } from '../../core/compute/sources';
import type { FieldProblem } from '../../core/vocabulary/fields';
import type { Values } from '../../core/values/values';
import { refusalOf } from '../edge/fault';
import { parseJson } from '../edge/parse-json';
import type { Refusal } from '../errors';
import { pixelsOf } from '../pictures';

/** A calculation that is asked for: its name, what it is given as JSON text, and the working values in force. */
export interface Asked {
	name: string;
	text: string;
	values: Values;
}

/** What came of it: the answer as JSON text, or why there is none. Errors lose their kind on the way between threads. */
export type Answered =
	| { answer: string }
	| { refused: Pick<Refusal, 'status' | 'message' | 'advice'> & { problems: FieldProblem[] } };

const decoded: Decoder = (base64, field) => pixelsOf(Buffer.from(base64, 'base64'), field);

/** Works one calculation out, with where its numbers come from. */
export default async function compute({ name, text, values }: Asked): Promise<Answered> {
	try {
		const tracing = traced(values);
		const found = await calculationByName.get(name)?.run(parseJson(text), tracing.values, decoded);
		return {
			answer: JSON.stringify({ ...(found as object), from: provenance(name, tracing.used, values) })
		};
	} catch (cause) {
		const refusal = refusalOf(cause);
		if (!refusal) throw cause;
		const { status, message, advice, problems } = refusal;
		return { refused: { status, message, advice, problems: [...problems] } };
	}
}
