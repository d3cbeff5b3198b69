import { treeCaseSchema } from '$core/case/case';
import { calculations } from '$core/compute/calculations';
import { jsonSchema } from '$lib/server/edge/json-schema';
import { json } from '@sveltejs/kit';
import type { RequestHandler } from './$types';

const body = (schema: unknown) => ({ content: { 'application/json': { schema } } });
const refused = {
	description: 'Refused: what is wrong, and which field must be what (RFC 9457)',
	content: {
		'application/problem+json': {
			schema: {
				type: 'object',
				required: ['type', 'title', 'status'],
				properties: {
					type: { type: 'string' },
					title: { type: 'string' },
					status: { type: 'integer' },
					detail: { type: 'string' },
					errors: {
						type: 'array',
						items: {
							type: 'object',
							required: ['field', 'message'],
							properties: { field: { type: 'string' }, message: { type: 'string' } }
						}
					}
				}
			}
		}
	}
};

/** The OpenAPI 3.1 description of everything under /api/v1, made from the schemas themselves. */
export const GET: RequestHandler = () => {
	const compute = Object.fromEntries(
		calculations.map(({ name, summary, input, output }) => [
			`/api/v1/compute/${name}`,
			{
				post: {
					operationId: name,
					summary,
					tags: ['compute'],
					requestBody: { required: true, ...body(jsonSchema(input, 'input')) },
					responses: {
						'200': { description: 'The result', ...body(jsonSchema(output, 'output')) },
						default: refused
					}
				}
			}
		])
	);
	const id = { name: 'id', in: 'path', required: true, schema: { type: 'string' } };
	const short = {
		type: 'object',
		properties: {
			id: { type: 'string' },
			tag: { type: 'string' },
			name: { type: 'string' },
			state: { type: 'string' }
		}
	};
	const treeCase = { $ref: '#/components/schemas/TreeCase' };
	return json({
		openapi: '3.1.0',
		info: { title: 'Bruntle', version: '1', summary: 'Computations and open records of rescued trees' },
		paths: {
			'/api/v1/compute': {
				get: {
					operationId: 'calculations',
					summary: 'Every calculation with its schemas',
					tags: ['compute'],
					responses: {
						'200': {
							description: 'The calculations',
							...body({
								type: 'object',
								properties: { calculations: { type: 'array', items: { type: 'object' } } }
							})
						}
					}
				}
			},
			...compute,
			'/api/v1/trees': {
				get: {
					operationId: 'listTrees',
					summary: 'All trees, shortly',
					tags: ['trees'],
					responses: {
						'200': {
							description: 'The trees',
							...body({ type: 'object', properties: { trees: { type: 'array', items: short } } })
						}
					}
				},
				post: {
					operationId: 'importTree',
					summary: 'Imports a whole tree with all its records, all or nothing',
					tags: ['trees'],
					requestBody: { required: true, ...body(treeCase) },
					responses: { '201': { description: 'Imported', ...body(short) }, default: refused }
				}
			},
			'/api/v1/trees/{id}': {
				get: {
					operationId: 'exportTree',
					summary: 'A whole tree with all its records',
					tags: ['trees'],
					parameters: [id],
					responses: { '200': { description: 'The tree', ...body(treeCase) }, default: refused }
				}
			}
		},
		components: { schemas: { TreeCase: jsonSchema(treeCaseSchema, 'input') } }
	});
};
