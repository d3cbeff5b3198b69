import { answer } from '$lib/server/edge/http';
import { calculations } from '$core/compute/calculations';
import { formulaSources } from '$core/compute/sources';
import { answerSchema, jsonSchema } from '$lib/server/edge/json-schema';
import { json } from '@sveltejs/kit';
import type { RequestHandler } from './$types';

/** Every calculation of the core with the JSON Schemas of what goes in and comes out. */
export const GET: RequestHandler = () =>
	answer(async () =>
		json({
			calculations: calculations.map(({ name, summary, input, output }) => ({
				name,
				summary,
				input: jsonSchema(input, 'input'),
				output: answerSchema(output),
				source: formulaSources[name] ?? ''
			}))
		})
	);
