import { id as idField, count } from '$core/vocabulary/fields';
import { practiceTree } from '$core/practice/practice-tree';
import { practiceWish, SEED_MOST } from '$core/practice/round';
import { seedWith } from '$core/practice/truth';
import { setCases } from '$core/practice/set-cases';
import { acting, check, loading } from '$lib/server/edge/http';
import { PRACTICE_COOKIE } from '$lib/server/practice/at-the-door';
import { anySeed, beginRound, weakOf } from '$lib/server/practice/begin';
import {
	allJudged,
	practiceValues,
	readRound,
	removeRound,
	roundOf,
	roundsOf
} from '$lib/server/practice/rounds';
import { roundTold } from '$lib/server/practice/told';
import { redirect, type Cookies } from '@sveltejs/kit';
import { z } from 'zod';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals, cookies, url }) =>
	loading(async () => {
		const byId = locals.who?.id ?? null;
		const rounds = await roundsOf(byId);
		const current = cookies.get(PRACTICE_COOKIE);
		const asked = asks.safeParse(Object.fromEntries(url.searchParams));
		return {
			rounds: rounds.map(roundTold),
			current: rounds.some((round) => round.id === current && round.endedAt === null)
				? (current ?? null)
				: null,
			cases: setCases.map(({ number, name, story, wish }) => ({
				number,
				name,
				story,
				kind: practiceTree(wish, practiceValues).truth.kind.commonName
			})),
			/** What a link asks to begin. */
			asked: asked.success ? { setCase: asked.data.case ?? null, seed: asked.data.seed ?? null } : null,
			others: locals.who?.role === 'owner' && (await allJudged()).some((round) => round.byId !== byId)
		};
	});

const asks = z.object({
	case: z.coerce.number().pipe(count(1, setCases.length)).optional(),
	seed: z.coerce.number().pipe(count(0, SEED_MOST)).optional()
});
const named = z.object({ id: idField() });

function enter(cookies: Cookies, id: string): void {
	cookies.set(PRACTICE_COOKIE, id, { path: '/', httpOnly: true, sameSite: 'lax', secure: false });
}

export const actions: Actions = {
	start: async ({ request, locals, cookies }) => {
		const form = await request.formData();
		const byId = locals.who?.id ?? null;
		let treeId = '';
		const result = await acting(form, async () => {
			const { case: setCase, seed } = check(
				asks,
				Object.fromEntries(['case', 'seed'].flatMap((key) => (form.get(key) ? [[key, form.get(key)]] : [])))
			);
			const round = await beginRound(
				setCase !== undefined
					? { setCase }
					: {
							wish: practiceWish.parse({
								seed: seed ?? seedWith(await weakOf(byId), anySeed, practiceValues)
							})
						},
				{ id: byId, name: locals.who?.name ?? '' }
			);
			enter(cookies, round.id);
			treeId = round.treeId;
			return { told: '' };
		});
		if (treeId !== '') redirect(303, `/trees/${treeId}`);
		return result;
	},
	goOn: async ({ request, locals, cookies }) => {
		const form = await request.formData();
		let treeId = '';
		const result = await acting(form, async () => {
			const { id } = check(named, Object.fromEntries(form));
			const round = await roundOf(id, locals.who?.id ?? null);
			enter(cookies, round.id);
			({ treeId } = round);
			return { told: '' };
		});
		if (treeId !== '') redirect(303, `/trees/${treeId}`);
		return result;
	},
	leave: ({ cookies }) => {
		cookies.delete(PRACTICE_COOKIE, { path: '/' });
		redirect(303, '/practice');
	},
	remove: async ({ request, locals, cookies }) => {
		const form = await request.formData();
		return acting(form, async () => {
			const { id } = check(named, Object.fromEntries(form));
			await roundOf(id, locals.who?.id ?? null);
			if (cookies.get(PRACTICE_COOKIE) === id) cookies.delete(PRACTICE_COOKIE, { path: '/' });
			if (await readRound(id)) await removeRound(id);
			return { told: 'Taken out.' };
		});
	}
};
