import { parse } from 'devalue';
import { z } from 'zod';
import { fieldsEntered } from '$core/text/fields';
import type { RefusedWork, SentRequest } from './kept';

/*
 * What is sent, and what was answered to it.
 */

/** Headers that a request keeps when it is sent again. */
const kept = ['content-type', 'accept', 'x-sveltekit-action'];

/** A request that changes something, as it can be sent again. */
export async function requestSent(request: Request): Promise<SentRequest> {
	const { pathname, search } = new URL(request.url);
	const headers = Object.fromEntries(
		kept.flatMap((name) => {
			const value = request.headers.get(name);
			return value === null ? [] : [[name, value]];
		})
	);
	return { path: pathname + search, method: request.method, headers, body: await request.arrayBuffer() };
}

/** Whether a request changes something; a calculation that is asked alone does not. */
export const changes = ({ method, url }: Pick<Request, 'method' | 'url'>): boolean =>
	!['GET', 'HEAD', 'OPTIONS'].includes(method) && !new URL(url).pathname.startsWith('/api/v1/compute/');

const refusal = z.looseObject({
	message: z.string(),
	advice: z.string().default(''),
	meanwhile: z.record(z.string(), z.string()).nullish()
});
const form = z.looseObject({
	type: z.enum(['success', 'redirect', 'failure', 'error']),
	status: z.int().optional(),
	data: z.string().optional(),
	error: refusal.optional()
});
const problem = z.looseObject({ title: z.string(), detail: z.string().default(''), meanwhile: z.unknown() });

const NO_WORDS = 'The yard did not take it.';

async function jsonOf(response: Response): Promise<unknown> {
	try {
		return await response.clone().json();
	} catch {
		return null;
	}
}

/** Why a request was not taken, from what was answered; null where it was. */
export async function refusedIn(response: Response): Promise<RefusedWork | null> {
	const json = await jsonOf(response);
	const said = form.safeParse(json).data;
	if (said) {
		if (said.type === 'success' || said.type === 'redirect') return null;
		const told = refusal.safeParse(
			said.type === 'error'
				? said.error
				: (parse(said.data ?? '-1') as { refusal?: unknown } | undefined)?.refusal
		).data;
		return {
			status: said.status ?? response.status,
			message: told?.message ?? NO_WORDS,
			advice: told?.advice ?? '',
			meanwhile: told?.meanwhile ?? null
		};
	}
	if (response.status < 400) return null;
	const told = problem.safeParse(json).data;
	return {
		status: response.status,
		message: told?.title ?? NO_WORDS,
		advice: told?.detail ?? '',
		meanwhile: told?.meanwhile === undefined || told.meanwhile === null ? null : {}
	};
}

const bodyOf = ({ headers, body }: SentRequest): Promise<FormData> =>
	new Response(body, { headers: { 'content-type': headers['content-type'] ?? '' } }).formData();

const isForm = (sent: SentRequest): boolean => /form/.test(sent.headers['content-type'] ?? '');

/** What was entered in a form that was sent, by the names of its fields; nothing for what is no form. */
export async function typedIn(sent: SentRequest): Promise<[name: string, value: string][]> {
	if (!isForm(sent)) return [];
	const fields = [...(await bodyOf(sent))].map(([name, value]): [string, string] => [
		name,
		typeof value === 'string' ? value : value.name || 'a picture'
	]);
	return [...fieldsEntered(fields)];
}

/** Fields that name what a form is about. */
const naming = ['id', 'treeId', 'taskId', 'wateringId', 'backupId'];

/** What a request is about: its address, and which record the form names, for one address may change many. */
export async function thingOf(sent: SentRequest): Promise<string> {
	const said = isForm(sent) ? await bodyOf(sent) : null;
	return JSON.stringify([sent.method, sent.path, ...naming.map((name) => said?.get(name) ?? null)]);
}

/** A form as it was sent, meant over what stands there by now. */
export async function meantOver(sent: SentRequest, version: string): Promise<SentRequest> {
	const said = await bodyOf(sent);
	said.set('version', version);
	const made = new Response(said);
	const type = made.headers.get('content-type') ?? '';
	return { ...sent, headers: { ...sent.headers, 'content-type': type }, body: await made.arrayBuffer() };
}
