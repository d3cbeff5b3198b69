import { clockIsPinned, clockIsSetBack, today } from '$lib/server/clock';
import { hasOwner } from '$lib/server/people/people';
import { lastEntryAt } from '$lib/server/records/work';
import { damagedCount } from '$lib/server/records/sound';
import { readFormatSettings } from '$lib/server/settings';
import { getStore, yardStore } from '$lib/server/store';
import { practiceNow } from '$lib/server/practice/step';
import { practising } from '$lib/server/practice/under-way';
import type { LayoutServerLoad } from './$types';

/** Read anew on every page: an app that stays open over midnight, or over a week, never dates today’s work to another day. */
export const load: LayoutServerLoad = async ({ url, depends, locals }) => {
	void url.pathname;
	depends('bruntle:day');
	const store = await getStore();
	const lastAt = locals.who && (await lastEntryAt(store.db));
	const round = practising();
	return {
		formatSettings: await readFormatSettings(store.db),
		who: locals.who,
		/** Whether anybody owns the yard, so that there are keys. */
		owned: locals.who !== null && (await hasOwner((await yardStore()).db)),
		damaged: locals.who ? damagedCount(store.db) : 0,
		today: today(),
		/** The latest entry, where the clock stands before it. */
		lastAt: clockIsSetBack(lastAt) ? lastAt : null,
		/** The practice round that the page belongs to. */
		practice: round && (await practiceNow(round, locals.who?.id ?? null)),
		demo: process.env.BRUNTLE_DEMO === '1' && clockIsPinned()
	};
};
