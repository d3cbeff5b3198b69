import { describe, expect, it } from 'vitest';
import { trees } from '$lib/server/records/records';
import { undo } from '$lib/server/records/work';
import { MOST_ROWS, readSheet, takeInSheet } from '$lib/server/tree-sheet';
import { refusal, storeWithTree } from './helpers';

const form = (text: string, more: Record<string, string> = {}): FormData => {
	const data = new FormData();
	for (const [name, value] of Object.entries({
		text,
		situation: 'potted',
		permission: 'own',
		vigour: 'fair',
		reserves: 'long-potted',
		...more
	}))
		data.set(name, value);
	return data;
};
const HEAD = 'tag,name,kind,trunk,place';

describe('a spreadsheet of trees', () => {
	it('is looked at without keeping anything, then taken in as far as it can be, and taken back by undo', async () => {
		const { store, tree } = await storeWithTree();
		const sheet = form(
			`${HEAD}\nS-1,Beech one,Beech,40,Bench\nS-2,Beech two,Beech,,Bench\n${tree.tag},Beech three,Beech,30,Bench\nS-4,Hornbeam,Carpinus betulus,25 mm,bench`
		);
		const { rows } = await readSheet(store, sheet);
		expect(rows.map(({ problems }) => problems.length)).toEqual([0, 1, 1, 0]);
		expect(await trees.list(store.db)).toHaveLength(1);
		const { count, left, entryIds } = await takeInSheet(store, sheet);
		expect([count, left]).toEqual([2, 2]);
		expect((await trees.list(store.db)).map(({ tag }) => tag).sort()).toEqual(
			['S-1', 'S-4', tree.tag].sort()
		);
		await undo(store, ...entryIds);
		expect(await trees.list(store.db)).toHaveLength(1);
	});

	it('goes by the columns that were chosen by hand', async () => {
		const { store } = await storeWithTree();
		const text = 'a,b,c,d,e\nBeech,S-1,Beech one,Bench,40';
		expect((await readSheet(store, form(text))).missing).toEqual([
			'Tag',
			'Name',
			'Kind',
			'Trunk above the flare'
		]);
		const chosen = {
			'columns.kind': '0',
			'columns.tag': '1',
			'columns.name': '2',
			'columns.place': '3',
			'columns.trunk': '4'
		};
		const { columns, rows } = await readSheet(store, form(text, chosen));
		expect(columns).toMatchObject({ kind: 0, tag: 1, name: 2, place: 3, trunk: 4, note: null });
		expect(rows[0]?.problems).toEqual([]);
		// None, and what is no column, is none.
		expect(
			(await readSheet(store, form(text, { ...chosen, 'columns.place': '-1' }))).columns.place
		).toBeNull();
		expect(
			(await readSheet(store, form(text, { ...chosen, 'columns.place': '9' }))).columns.place
		).toBeNull();
	});

	it('is refused in words where it is none, too long, or holds no tree', async () => {
		const { store } = await storeWithTree();
		for (const text of [
			'',
			'   ',
			'only one column\nx',
			`${HEAD}\n${'S,Beech,Beech,40,Bench\n'.repeat(MOST_ROWS + 1)}`,
			'x'.repeat(1_000_001)
		])
			expect(await refusal(readSheet(store, form(text))), text.slice(0, 20)).toMatchObject({ status: 422 });
		expect(
			await refusal(takeInSheet(store, form(`${HEAD}\nS-1,Beech,Nothofagus nothing,,Bench`)))
		).toMatchObject({
			status: 422
		});
		expect(await trees.list(store.db)).toHaveLength(1);
	});
});
