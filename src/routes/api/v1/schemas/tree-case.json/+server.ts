import { treeCaseSchema } from '$core/tree/case';
import { jsonSchema } from '$lib/server/edge/json-schema';
import { json } from '@sveltejs/kit';
import type { RequestHandler } from './$types';

export const GET: RequestHandler = () => json(jsonSchema(treeCaseSchema, 'input'));
