import { describe, expect, it } from 'vitest';
import { bookDetails, bookInput, bookKind, type BookDetails, type BookKind } from '$core/aftercare/book/book';
import { defaultValues } from '$core/values/values';
import { likeTrees, removeBook, writeBook, writeBookForAll } from '$lib/server/book';
import { exportCase, importCase } from '$lib/server/case-file';
import { taskInput, type TaskKind } from '$core/vocabulary/task';
import { tasks } from '$lib/server/records/records';
import { openTask } from '$lib/server/task-work';
import { undo } from '$lib/server/records/work';
import { loadRecords } from '$lib/server/records/tree-records';
import { kindBefore, takeIn, closeTree } from '$lib/server/trees';
import { closingInput } from '$core/take-in/tree';
import { standingOf } from '$core/tree/standing';
import { rootLosses } from '$core/tree/losses';
import { today } from '$lib/server/clock';
import { asTakenIn, freshStore, refusal, storeWithTree } from './helpers';

const input = (kind: BookKind, on: string, details: Partial<BookDetails> = {}, note = '') =>
	bookInput.parse({ kind, on, details: { ...bookDetails.parse({}), ...details }, note });

describe('the field book', () => {
	it('keeps an entry, what it brings up, and its correction; taken out, its open work goes with it', async () => {
		const { store, tree } = await storeWithTree();
		const on = today();
		await writeBook(store, tree.id, input('covered', on, { untilOn: '2026-05-20' }));
		const before = await loadRecords(store.db, tree.id);
		expect(before.book).toHaveLength(1);
		expect(
			before.tasks.filter((task) => task.state === 'open').map((task) => [task.title, task.fromOn])
		).toEqual([['Begin to take the cover off, a little longer each day', '2026-05-20']]);
		expect(before.journal.at(-1)?.what).toBe(
			'Field book: Plastic cover or tent put on: begin to take it off on 2026-05-20.'
		);
		const [entry] = before.book;
		if (!entry) throw new Error('no entry');
		await writeBook(store, tree.id, input('covered', on, { untilOn: '2026-06-01' }), entry);
		const after = await loadRecords(store.db, tree.id);
		expect(after.book.map((one) => [one.id, one.version, one.details.untilOn])).toEqual([
			[entry.id, 2, '2026-06-01']
		]);
		expect(after.tasks.map((task) => task.fromOn)).toEqual(['2026-06-01']);
		expect((await refusal(removeBook(store, tree.id, entry))).status).toBe(409);
		const out = await removeBook(store, tree.id, { id: entry.id, version: 2 });
		expect((await loadRecords(store.db, tree.id)).tasks).toEqual([]);
		await undo(store, out);
		const back = await loadRecords(store.db, tree.id);
		expect([back.book.length, back.tasks.length]).toEqual([1, 1]);
	});
	it('closes the work that it does, not the same work of next year', async () => {
		const { store, tree } = await storeWithTree({ situation: 'potted' });
		const turning = (fromOn: string) => ({
			...taskInput.parse({
				title: 'Turn it',
				kind: 'turning',
				stage: 'aftercare',
				mark: 'trade',
				fromOn,
				toOn: fromOn,
				minutes: 1
			}),
			...openTask,
			release: null,
			everyDays: null,
			source: 'turning@2026-03-01',
			id: `t-${fromOn}`,
			version: 1
		});
		await store.write(async (tx) => {
			for (const fromOn of ['2026-04-10', '2027-04-10']) await tasks.put(tx, tree.id, turning(fromOn));
		});
		await writeBook(store, tree.id, input('turned', today(), {}));
		const states = (await loadRecords(store.db, tree.id)).tasks.map((task) => [task.fromOn, task.state]);
		expect(states).toEqual([
			['2026-04-10', 'done'],
			['2027-04-10', 'open']
		]);
	});
	it('a crown cut closes what asked for one, by whatever plan, and not the shade that stands instead of it', async () => {
		const { store, tree } = await storeWithTree();
		const task = (id: string, kind: TaskKind, source: string) => ({
			...taskInput.parse({
				kind,
				title: id,
				reason: '',
				stage: 'aftercare',
				fromOn: '2026-04-01',
				toOn: '2026-04-30',
				minutes: 5
			}),
			...openTask,
			source,
			id,
			version: 1
		});
		await store.write(async (tx) => {
			await tasks.put(tx, tree.id, task('planned', 'crown', 'crown@2026-04-01'));
			await tasks.put(tx, tree.id, task('rehearsed', 'crown', 'rehearsed-crown@2026-04-01'));
			await tasks.put(tx, tree.id, task('shade', 'shelter', 'rehearsed-shade@2026-04-01'));
		});
		const states = async () =>
			Object.fromEntries((await tasks.list(store.db, tree.id)).map((one) => [one.id, one.state]));
		await writeBook(store, tree.id, input('crown-cut', today(), { share: 0.1, choice: 'dead' }));
		expect(await states()).toEqual({ planned: 'open', rehearsed: 'open', shade: 'open' });
		await writeBook(store, tree.id, input('crown-cut', today(), { share: 0.1, choice: 'living' }));
		expect(await states()).toEqual({ planned: 'done', rehearsed: 'done', shade: 'open' });
	});
	it('is written for several like trees at once, for all or for none, and taken back together', async () => {
		const { store, tree } = await storeWithTree();
		const { tree: second } = await takeIn(store, asTakenIn(tree, { tag: 'T-2' }));
		const { tree: later } = await takeIn(store, asTakenIn(tree, { tag: 'T-3', takenInOn: '2026-04-10' }));
		const { tree: other } = await takeIn(store, asTakenIn(tree, { tag: 'T-4', kindId: 'carpinus' }));
		expect((await likeTrees(store.db, tree)).map((one) => one.tag)).toEqual(['T-2', 'T-3']);
		const inBatch = { ...tree, batch: 'spring' };
		expect((await likeTrees(store.db, inBatch)).map((one) => one.tag)).toEqual(['T-2', 'T-3']);
		// One batch is alike whatever its kind; what is no longer in care is not asked.
		const { tree: batched } = await takeIn(
			store,
			asTakenIn(tree, { tag: 'T-5', kindId: 'carpinus', batch: 'spring' })
		);
		expect((await likeTrees(store.db, inBatch)).map((one) => one.tag)).toEqual(['T-2', 'T-3', 'T-5']);
		await closeTree(
			store,
			batched.id,
			batched.version,
			closingInput.parse({ state: 'gone', closedOn: today(), closingNote: 'To its owner.' })
		);
		expect((await likeTrees(store.db, inBatch)).map((one) => one.tag)).toEqual(['T-2', 'T-3']);
		const counts = async () =>
			Promise.all(
				[tree, second, later, other].map(async (one) => (await loadRecords(store.db, one.id)).book.length)
			);
		const wash = input('leaves-washed', '2026-04-05', { choice: 'rinsed', everyDays: 5 });
		const refused = await refusal(writeBookForAll(store, [tree.id, second.id, 'nobody'], wash));
		expect(refused.status).toBe(404);
		expect(await counts()).toEqual([0, 0, 0, 0]);
		const entries = await writeBookForAll(store, [tree.id, second.id, second.id], wash);
		expect(await counts()).toEqual([1, 1, 0, 0]);
		expect((await loadRecords(store.db, second.id)).tasks.map((task) => task.fromOn)).toEqual(['2026-04-10']);
		await undo(store, ...entries);
		expect(await counts()).toEqual([0, 0, 0, 0]);
		// What may not be done without a word of why on one of them names that tree.
		const sawn = input('stem-sawn', today(), {
			heightMm: 700,
			count: 3,
			choice: Object.keys(bookKind('stem-sawn').choices?.options ?? {})[0] ?? null
		});
		expect(
			(await refusal(writeBookForAll(store, [tree.id, second.id], sawn))).problems[0]?.message
		).toContain('for T-1:');
	});
	it('is part of a case and reads back identically', async () => {
		const { store, tree } = await storeWithTree();
		await writeBook(
			store,
			tree.id,
			input('ball-scored', today(), { count: 6, depthMm: 20, choice: 'sides' })
		);
		const written = await exportCase(store.db, tree.id);
		const elsewhere = await freshStore();
		await importCase(elsewhere, JSON.parse(JSON.stringify(written)));
		expect(await exportCase(elsewhere.db, tree.id)).toEqual(written);
		const records = await loadRecords(elsewhere.db, tree.id);
		expect(rootLosses(records, defaultValues).done).toEqual([
			expect.objectContaining({ by: 'ball', on: today() })
		]);
		expect(standingOf(records, today(), defaultValues).rootsLiving.known).toBe('worked-out');
	});
	it('a stop is answered with a word of why, and nothing is written without it', async () => {
		const { store, tree } = await storeWithTree();
		const sawn = { heightMm: 500, choice: 'open', count: 4 };
		const no = await refusal(writeBook(store, tree.id, input('stem-sawn', today(), sawn)));
		expect(no.problems[0]).toMatchObject({
			field: 'note',
			message: expect.stringContaining('was not found yet') as string
		});
		expect((await loadRecords(store.db, tree.id)).book).toEqual([]);
		await writeBook(store, tree.id, input('stem-sawn', today(), sawn, 'Split by the storm'));
		const kept = await loadRecords(store.db, tree.id);
		expect(kept.journal.at(-1)?.what).toContain('Split by the storm');
		expect(standingOf(kept, today(), defaultValues).heightMm.value).toBe(500);
	});
	it('refuses a day that cannot be', async () => {
		const { store, tree } = await storeWithTree();
		expect(
			(await refusal(writeBook(store, tree.id, input('bought', '2099-01-01', { choice: 'sun' })))).problems[0]
				?.field
		).toBe('on');
		expect(
			(await refusal(writeBook(store, 'nobody', input('bought', today(), { choice: 'sun' })))).status
		).toBe(404);
	});
	it('work that an entry does is closed by it, of its own rule alone', async () => {
		const { store, tree } = await storeWithTree();
		const task = (title: string, source: string) =>
			store.write(async (tx) => {
				const { tasks } = await import('$lib/server/records/records');
				const { openTask } = await import('$lib/server/task-work');
				const { taskInput } = await import('$core/vocabulary/task');
				await tasks.put(tx, tree.id, {
					...taskInput.parse({ kind: 'other', title, fromOn: today(), toOn: today() }),
					...openTask,
					source,
					id: `t-${title}`,
					version: 1
				});
			});
		await task('turn', `turning@${today()}`);
		await task('feed', `feeding@${today()}`);
		await writeBook(store, tree.id, input('turned', today(), { bearingDeg: 90 }));
		const state = async () =>
			(await loadRecords(store.db, tree.id)).tasks.map((one) => [one.title, one.state]).sort();
		expect(await state()).toEqual([
			['feed', 'open'],
			['turn', 'done']
		]);
		// Feeding waits: fed against that, the word of why is kept.
		const fed = input('fed', today(), { product: 'Fish' });
		expect((await refusal(writeBook(store, tree.id, fed))).problems[0]?.message).toContain(
			'Feeding still waits'
		);
		await writeBook(store, tree.id, { ...fed, note: 'Leaves were yellow' });
		expect(await state()).toEqual([
			['feed', 'done'],
			['turn', 'done']
		]);
	});
});

describe('what was lost of a kind before', () => {
	it('is told with its lesson, and the next tree is counted', async () => {
		const { store, tree: first } = await storeWithTree({ takenInOn: '2025-01-01' });
		const { tree: second } = await takeIn(store, asTakenIn(first, { tag: 'T-2', takenInOn: '2025-06-01' }));
		await closeTree(
			store,
			first.id,
			first.version,
			closingInput.parse({
				state: 'dead',
				closedOn: '2025-05-01',
				lossCause: 'cut-too-much',
				closingNote: 'Half would have been enough',
				shownEarlier: 'Buds in April'
			})
		);
		expect(await kindBefore(store.db, second)).toEqual({
			attempt: 2,
			reEstablished: 0,
			lost: [
				{
					id: first.id,
					tag: 'T-1',
					name: first.name,
					closedOn: '2025-05-01',
					lossCause: 'cut-too-much',
					closingNote: 'Half would have been enough',
					shownEarlier: 'Buds in April'
				}
			]
		});
		expect(await kindBefore(store.db, first)).toMatchObject({ attempt: 1, lost: [] });
	});
	it('counts every tree of the kind taken in by then, and tells the five latest losses', async () => {
		const { store, tree: first } = await storeWithTree({ takenInOn: '2025-01-01' });
		const close = async (tag: string, state: string, closedOn: string) => {
			const { tree } = await takeIn(store, asTakenIn(first, { tag, takenInOn: '2025-01-01' }));
			await closeTree(
				store,
				tree.id,
				tree.version,
				closingInput.parse({ state, closedOn, closingNote: 'so', shownEarlier: '' })
			);
		};
		for (const month of [3, 8, 4, 7, 5, 6]) await close(`L-${month}`, 'dead', `2025-0${month}-01`);
		await close('R-1', 're-established', '2025-09-01');
		await takeIn(store, asTakenIn(first, { tag: 'P-1', kindId: 'pinus', takenInOn: '2025-01-01' }));
		const { tree: next } = await takeIn(store, asTakenIn(first, { tag: 'N-1', takenInOn: '2025-01-02' }));
		await takeIn(store, asTakenIn(first, { tag: 'N-2', takenInOn: '2025-01-03' }));
		const before = await kindBefore(store.db, next);
		expect(before).toMatchObject({ attempt: 9, reEstablished: 1 });
		expect(before.lost.map(({ tag }) => tag)).toEqual(['L-8', 'L-7', 'L-6', 'L-5', 'L-4']);
	});
});
