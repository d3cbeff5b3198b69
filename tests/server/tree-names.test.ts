import { takeIn, closeTree } from '$lib/server/trees';
import { freeTag, treeNames, treesBeside, treesCalled } from '$lib/server/tree-names';
import { addPlace } from '$lib/server/yard';
import { placeInput } from '$core/vocabulary/place';
import { describe, expect, it } from 'vitest';
import { asTakenIn, storeWithTree } from './helpers';

const yard = async () => {
	const { store, tree } = await storeWithTree();
	const { id: shade } = await addPlace(
		store,
		placeInput.parse({ name: 'Shade', kind: 'open', latitudeDeg: 52 })
	);
	const add = async (tag: string, name: string, kindId = 'fagus', placeId = tree.placeId) =>
		(await takeIn(store, asTakenIn(tree, { tag, name, kindId, placeId }))).tree;
	return { store, tree, shade, add };
};
const tags = (list: readonly { tag: string }[]) => list.map(({ tag }) => tag);

describe('trees that are named beside another', () => {
	it('are first those of its kind, then of its place, never itself, and what is named already stands among them', async () => {
		const { store, tree, shade, add } = await yard();
		const dead = await add('A-0', 'Beech that died');
		await closeTree(store, dead.id, dead.version, {
			state: 'dead',
			closedOn: '2026-04-01',
			closingNote: 'dry',
			lossCause: null,
			lossConditions: '',
			shownEarlier: ''
		});
		await add('A-1', 'Pine here', 'pinus');
		await add('A-2', 'Pine there', 'pinus', shade);
		await add('A-3', 'Beech there', 'fagus', shade);
		await add('Z-9', 'Beech here');
		expect(tags(await treesBeside(store.db, tree))).toEqual(['Z-9', 'A-3', 'A-1', 'A-2']);
		expect(tags(await treesBeside(store.db, tree, [dead.id, null]))).toEqual([
			'Z-9',
			'A-3',
			'A-1',
			'A-2',
			'A-0'
		]);
		expect(tags(await treesBeside(store.db, tree, [], false))).toEqual(['A-0', 'Z-9', 'A-3', 'A-1', 'A-2']);
		expect(tags(await treesBeside(store.db, null))).toEqual(['A-1', 'A-2', 'A-3', 'T-1', 'Z-9']);
		expect(tags(await treeNames(store.db))).toEqual(['A-0', 'A-1', 'A-2', 'A-3', 'T-1', 'Z-9']);
	});
	it('are thirty at most, however large the yard, and the others are found by words of tag and name', async () => {
		const { store, tree, add } = await yard();
		for (let i = 0; i < 40; i++) await add(`B-${String(i).padStart(2, '0')}`, `Beech ${i}`);
		await add('É-1', 'Épicéa du pré');
		expect(await treesBeside(store.db, tree)).toHaveLength(30);
		expect(tags(await treesCalled(store.db, 'epicea pr', true))).toEqual(['É-1']);
		expect(tags(await treesCalled(store.db, 'b-39', true))).toEqual(['B-39']);
		expect(await treesCalled(store.db, 'beech', true)).toHaveLength(30);
		expect(await treesCalled(store.db, 'eech', true)).toEqual([]);
	});
	it('of a closed case are found only where any will do', async () => {
		const { store, add } = await yard();
		const gone = await add('G-1', 'Gone');
		await closeTree(store, gone.id, gone.version, {
			state: 'gone',
			closedOn: '2026-04-01',
			closingNote: '',
			lossCause: null,
			lossConditions: '',
			shownEarlier: ''
		});
		expect(await treesCalled(store.db, 'gone', true)).toEqual([]);
		expect(tags(await treesCalled(store.db, 'gone', false))).toEqual(['G-1']);
	});
	it('a tag is offered that no tree bears, in whatever case it was written', async () => {
		const { store, add } = await yard();
		expect(await freeTag(store.db)).toBe('T-02');
		await add('t-03', 'Small');
		await add('T-04', 'Next');
		expect(await freeTag(store.db)).toBe('T-05');
	});
});
