import { openApi } from '$lib/server/edge/openapi';
import { json } from '@sveltejs/kit';
import type { RequestHandler } from './$types';

export const GET: RequestHandler = () => json(openApi());
