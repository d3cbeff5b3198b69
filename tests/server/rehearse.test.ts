import { describe, expect, it } from 'vitest';
import { addDays } from '$core/maths/calendar';
import { rehearsalInput, type RehearsalInput } from '$core/recovery/rehearsal/kept';
import type { RehearsedPlan } from '$core/recovery/rehearsal/plan';
import { closingInput } from '$core/take-in/tree';
import { defaultValues as values } from '$core/values/values';
import type { Store } from '$lib/server/db/database';
import { loadRecords } from '$lib/server/records/tree-records';
import { undo } from '$lib/server/records/work';
import { rehearsalOf, rehearsedBefore, takeOver } from '$lib/server/rehearse';
import { saveRoots } from '$lib/server/roots';
import { closeTree } from '$lib/server/trees';
import { planOf } from '../rehearsal';
import { demoStore, refusal, rootsWith, storeWithTree } from './helpers';

const today = '2026-04-18';
/** A rehearsal of plans as the page sends it, with invented courses. */
const rehearsalWith = (plans: RehearsedPlan[], taken = 0): RehearsalInput => {
	const course = [0, 365, 730].map((days) => ({ on: addDays(today, days), low: 0.5, mean: 0.7, high: 0.9 }));
	return rehearsalInput.parse({
		rehearsedOn: today,
		futures: 405,
		seed: 1,
		taken,
		outcomes: plans.map((plan) => ({
			plan,
			alive: course,
			established: course,
			roots: course,
			end: { alive: 0.7, stands: 0.7, established: 0.7 },
			dies: [{ cause: 'dried', chance: 0.1, showsOn: '2026-08-01' }],
			waterings: 90,
			minutes: 700
		}))
	});
};
/** A potted tree with two cuts planned for today and a later stage that holds none. */
async function withPlan(): Promise<{ store: Store; id: string; version: number }> {
	const { store, tree } = await storeWithTree({ situation: 'potted' });
	const roots = rootsWith(['r2', 'r5']);
	const { plan } = await saveRoots(store, tree.id, {
		...roots,
		plan: { ...roots.plan, stageDates: ['2026-11-20'] }
	});
	return { store, id: tree.id, version: plan.version };
}
const openTasks = async (store: Store, id: string) =>
	(await loadRecords(store.db, id)).tasks.filter((task) => task.state === 'open');

describe('a plan of a rehearsal that is taken over', () => {
	it('sets the stages anew, makes its work, keeps the rehearsal, and is taken back whole', async () => {
		const { store, id, version } = await withPlan();
		const before = await loadRecords(store.db, id);
		const { entryId, tasks } = await takeOver(
			store,
			id,
			rehearsalWith([planOf(), planOf({ name: 'Wait, in shade', roots: 'wait', shade: true })], 1),
			version,
			values
		);
		const after = await loadRecords(store.db, id);
		expect(tasks).toBe(1);
		expect(after.plan?.stageDates).toEqual(['2027-11-20']);
		expect(after.rehearsals).toMatchObject([{ taken: 1, rehearsedOn: today }]);
		expect((await openTasks(store, id)).map(({ title }) => title)).toContain(
			'Shade cloth over it for 60 days'
		);
		expect(after.journal.at(-1)?.what).toBe('Taken over from a rehearsal: “Wait, in shade”; 1 task');
		await undo(store, entryId);
		const back = await loadRecords(store.db, id);
		expect(back.plan?.stageDates).toEqual(before.plan?.stageDates);
		expect([back.rehearsals, back.tasks]).toEqual([[], before.tasks]);
		store.close();
	});
	it('takes the place of one that was taken over before: its open work falls away, each asked once', async () => {
		const { store, id, version } = await withPlan();
		await takeOver(store, id, rehearsalWith([planOf({ shade: true, backups: 4 })]), version, values);
		await takeOver(
			store,
			id,
			rehearsalWith([planOf({ name: 'By the calendar', water: 'every-days', everyDays: 5 })]),
			version,
			values
		);
		const rehearsed = (await loadRecords(store.db, id)).tasks.filter(({ source }) =>
			source.startsWith('rehearsed-')
		);
		expect(rehearsed.map(({ title, state, skipReason }) => [title, state, skipReason]).sort()).toEqual([
			['Shade cloth over it for 60 days', 'skipped', 'another plan was taken over'],
			['Take 4 cuttings of it', 'skipped', 'another plan was taken over'],
			['Water it every 5 days', 'open', '']
		]);
		expect((await loadRecords(store.db, id)).rehearsals).toHaveLength(2);
		store.close();
	});
	it('writes nothing where the plan of its roots was changed meanwhile, or its case is closed', async () => {
		const { store, id, version } = await withPlan();
		const stale = await refusal(
			takeOver(store, id, rehearsalWith([planOf({ shade: true })]), version + 1, values)
		);
		expect([stale.status, (await loadRecords(store.db, id)).rehearsals]).toEqual([409, []]);
		expect(stale.advice).toMatch(/rehearse it anew/);
		const { tree } = await loadRecords(store.db, id);
		await closeTree(
			store,
			id,
			tree.version,
			closingInput.parse({ state: 'gone', closedOn: today, closingNote: '' })
		);
		const closed = await refusal(takeOver(store, id, rehearsalWith([planOf()]), version, values));
		expect([closed.status, (await loadRecords(store.db, id)).rehearsals]).toEqual([409, []]);
		store.close();
	});
	it('is shown against what came', async () => {
		const { store, id, version } = await withPlan();
		await takeOver(store, id, rehearsalWith([planOf()]), version, values);
		const [one] = await rehearsedBefore(store.db, await loadRecords(store.db, id), values);
		expect(one?.came.map(({ what }) => what)).toEqual([
			'Alive',
			'Re-established',
			'Root function',
			'Waterings'
		]);
		store.close();
	});
});

describe('every tree of the demo yard that stands in something', () => {
	it('can be rehearsed as it stands, its plan among what is asked', async () => {
		const store = await demoStore();
		const rows = await store.db.$client.execute("select id, tag from tree where state = 'in-care' limit 12");
		let scenes = 0;
		for (const row of rows.rows) {
			const records = await loadRecords(store.db, String(row.id));
			const made = await rehearsalOf(store.db, records, values);
			if (!made) {
				// Only what was just lifted and not planted stands in nothing.
				expect(records.tree.situation, String(row.tag)).toBe('just-lifted');
				continue;
			}
			scenes++;
			const { scene } = made;
			expect(scene.places[0]?.id).toBe(records.tree.placeId);
			expect(scene.pots.length > 0 || scene.ground !== null).toBe(true);
			expect(scene.stages.length).toBe(
				new Set(records.plan?.cuts.filter((cut) => cut.state === 'planned').map((cut) => cut.stage)).size
			);
		}
		expect(scenes).toBeGreaterThan(6);
		store.close();
	});
});
