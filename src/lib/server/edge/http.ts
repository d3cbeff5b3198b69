import { fieldName, flatFields } from '../../core/text/fields';
import { plain } from '../../core/text/format';
import { error, fail, json } from '@sveltejs/kit';
import { z } from 'zod';
import { fieldProblems, type FieldProblem } from '../../core/vocabulary/fields';
import { invalid, Refusal } from '../errors';
import { refusalOf } from './fault';
import { parseJson } from './parse-json';
import { once } from './sent-once';

/** Largest JSON body taken, bytes. */
const BODY_LIMIT = 10 * 1024 * 1024;

/**
 * Reads the text of a JSON body within the limit, to be read where it is needed.
 * @throws Refusal 413 too large · 415 not JSON
 */
export async function readJsonText(request: Request, limitBytes = BODY_LIMIT): Promise<string> {
	const type = request.headers.get('content-type') ?? '';
	if (!/^application\/([a-z.+-]*\+)?json\b/i.test(type))
		throw new Refusal(415, 'The body must be JSON.', 'Send it with the content type application/json.');
	const tooLarge = new Refusal(
		413,
		`The body is larger than ${limitBytes / 1024 / 1024} MB.`,
		'Send less at once.'
	);
	if (Number(request.headers.get('content-length') ?? 0) > limitBytes) throw tooLarge;
	let text: string;
	try {
		text = await request.text();
	} catch {
		// The server itself cuts a body that is longer than it takes.
		throw tooLarge;
	}
	if (text.length > limitBytes) throw tooLarge;
	return text;
}

/** Reads a JSON body within the limit. @throws Refusal 413 too large · 415 not JSON · 400 not readable */
export const readJson = async (request: Request, limitBytes?: number): Promise<unknown> =>
	parseJson(await readJsonText(request, limitBytes));

/** Checks a body against its schema. @throws Refusal 422 naming field and range */
export function check<T extends z.ZodType>(schema: T, raw: unknown): z.output<T> {
	const parsed = schema.safeParse(raw);
	if (!parsed.success) throw invalid(fieldProblems(parsed.error));
	return parsed.data;
}

/** An error as problem+json. @see RFC 9457 */
export function problem(cause: unknown): Response {
	const refusal = refusalOf(cause);
	if (!refusal) {
		console.error(cause);
		return json(
			{
				type: 'about:blank',
				title: 'Something went wrong here.',
				status: 500,
				detail: 'Nothing was saved. Try again; if it stays, restart Bruntle.'
			},
			{ status: 500, headers: { 'content-type': 'application/problem+json' } }
		);
	}
	return json(
		{
			type: 'about:blank',
			title: refusal.message,
			status: refusal.status,
			detail: refusal.advice,
			...(refusal.problems.length > 0 && { errors: refusal.problems }),
			...(refusal.meanwhile && { meanwhile: refusal.meanwhile })
		},
		{ status: refusal.status, headers: { 'content-type': 'application/problem+json' } }
	);
}

/** A refusal of a whole request, before any page: as a form of this app reads it, else as plain words. */
export const refusedPage = ({ status, message, advice }: Refusal, request: Request): Response =>
	request.headers.get('accept') === 'application/json'
		? json({ type: 'error', status, error: { message, advice } }, { status })
		: new Response(`${message}\n${advice}\n`, {
				status,
				headers: { 'content-type': 'text/plain; charset=utf-8' }
			});

/** What is answered to another program, its sentences in SI. */
async function inPlain(response: Response): Promise<Response> {
	if (!(response.headers.get('content-type') ?? '').includes('json')) return response;
	const headers = new Headers(response.headers);
	headers.delete('content-length');
	return new Response(plain(await response.text()), { status: response.status, headers });
}

/**
 * Runs an API handler; whatever is thrown becomes problem+json.
 * @param asKept records that go out to come in again leave as they are kept
 */
export async function answer(handler: () => Promise<Response>, asKept = false): Promise<Response> {
	try {
		const response = await handler();
		return asKept ? response : await inPlain(response);
	} catch (cause) {
		return await inPlain(problem(cause));
	}
}

/** Runs a page load; a refusal becomes the error page in the app's own voice. */
export async function loading<T>(work: () => Promise<T>): Promise<T> {
	try {
		return await work();
	} catch (cause) {
		const refusal = cause instanceof z.ZodError ? null : refusalOf(cause);
		if (refusal) error(refusal.status, { message: refusal.message, advice: refusal.advice });
		throw cause;
	}
}

/** What a form gets back when it was refused: what to mend, and everything that was typed. */
export interface FormRefusal {
	message: string;
	advice: string;
	problems: FieldProblem[];
	typed: Record<string, string>;
	/** What stands in the fields by now, where it was changed elsewhere meanwhile. */
	meanwhile?: Record<string, string>;
}

/** What is wrong, with the field in words instead of its path. */
function formMessage(refusal: Refusal): string {
	const [only, more] = refusal.problems;
	if (!only || more) return refusal.message;
	return `“${fieldName(only.field)}” ${only.message}.`;
}

/** What was typed into these never goes back. */
const secretFields = new Set(['passphrase', 'before']);

/** Runs a form action, once for a form that is sent again; a refusal goes back to the form with all that was typed. */
export async function acting<T>(form: FormData, work: () => Promise<T>) {
	try {
		return await once(form, work);
	} catch (cause) {
		const refusal = refusalOf(cause);
		if (!refusal) throw cause;
		const typed: Record<string, string> = {};
		for (const [name, value] of form)
			if (typeof value === 'string' && !secretFields.has(name)) typed[name] = value;
		return fail(refusal.status, {
			refusal: {
				message: formMessage(refusal),
				advice: refusal.advice,
				problems: [...refusal.problems],
				typed,
				...(refusal.meanwhile && { meanwhile: flatFields(refusal.meanwhile) })
			} satisfies FormRefusal
		});
	}
}
