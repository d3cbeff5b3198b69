import { readingInput, readingsBody } from '$core/aftercare/weather/device';
import { calculations } from '$core/compute/calculations';
import { treeCaseSchema } from '$core/tree/case';
import { hoursBody, weatherBody } from '../weather';
import { answerSchema, jsonSchema } from './json-schema';

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

const computePaths = () => ({
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
	...Object.fromEntries(
		calculations.map(({ name, summary, input, output }) => [
			`/api/v1/compute/${name}`,
			{
				post: {
					operationId: name,
					summary,
					tags: ['compute'],
					requestBody: { required: true, ...body(jsonSchema(input, 'input')) },
					responses: {
						'200': { description: 'The result', ...body(answerSchema(output)) },
						default: refused
					}
				}
			}
		])
	)
});

const treePaths = () => ({
	'/api/v1/trees': {
		get: {
			operationId: 'listTrees',
			summary: 'All trees, shortly, or the first of those whose tag or name has words that begin as asked',
			tags: ['trees'],
			parameters: [
				{ name: 'find', in: 'query', schema: { type: 'string', minLength: 1, maxLength: 120 } },
				{ name: 'state', in: 'query', schema: { type: 'string', enum: ['in-care'] } }
			],
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
});

const readingPaths = () => ({
	'/api/v1/readings': {
		get: {
			operationId: 'lastReading',
			summary: 'The last reading of the device whose token is sent',
			tags: ['devices'],
			security: [{ device: [] }],
			responses: {
				'200': {
					description: 'The device and its last reading',
					...body({
						type: 'object',
						properties: {
							device: { type: 'string' },
							last: { anyOf: [jsonSchema(readingInput, 'output'), { type: 'null' }] }
						}
					})
				},
				default: refused
			}
		},
		post: {
			operationId: 'keepReadings',
			summary: 'Readings of a device, one or many, as JSON or CSV; the same reading twice is kept once',
			tags: ['devices'],
			security: [{ device: [] }],
			requestBody: {
				required: true,
				content: {
					'application/json': {
						schema: { anyOf: [jsonSchema(readingInput, 'input'), jsonSchema(readingsBody, 'input')] }
					},
					'text/csv': {
						schema: { type: 'string', description: 'RFC 4180, a heading with the names of the fields' }
					}
				}
			},
			responses: {
				'201': {
					description: 'How many were kept, and how many were known',
					...body({
						type: 'object',
						properties: {
							device: { type: 'string' },
							kept: { type: 'integer', description: 'readings kept, count' },
							known: { type: 'integer', description: 'readings known already, count' }
						}
					})
				},
				default: refused
			}
		}
	}
});

const weatherPaths = () => ({
	'/api/v1/weather': {
		post: {
			operationId: 'keepWeather',
			summary:
				'Days of weather of a station or a forecast, or the readings of a station by the hour; a day of the same place and source is replaced',
			tags: ['weather'],
			requestBody: {
				required: true,
				...body({ anyOf: [jsonSchema(weatherBody, 'input'), jsonSchema(hoursBody, 'input')] })
			},
			responses: {
				'201': {
					description: 'How many days were kept',
					...body({
						type: 'object',
						properties: {
							kept: { type: 'integer', description: 'days kept, count' },
							missed: { type: 'integer', description: 'nights below a limit that were noted, count' },
							short: { type: 'integer', description: 'days with too few hours, left out, count' }
						}
					})
				},
				default: refused
			}
		}
	}
});

/** The OpenAPI 3.1 description of everything under /api/v1, made from the schemas themselves. */
export const openApi = () => ({
	openapi: '3.1.0',
	info: { title: 'Bruntle', version: '1', summary: 'Computations and open records of rescued trees' },
	paths: { ...computePaths(), ...treePaths(), ...readingPaths(), ...weatherPaths() },
	components: {
		schemas: { TreeCase: jsonSchema(treeCaseSchema, 'input') },
		securitySchemes: { device: { type: 'http', scheme: 'bearer', description: 'Token of a device' } }
	}
});
