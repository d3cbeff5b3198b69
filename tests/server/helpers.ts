import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { placeInput } from '$core/climate/place';
import { treeInput, type Tree } from '$core/tree/tree';
import { openStore, type Store } from '$lib/server/db/database';
import { seedKinds } from '$lib/server/store';
import { takeIn } from '$lib/server/trees';
import { addPlace } from '$lib/server/yard';

process.env.BRUNTLE_NOW = '2026-04-18T09:00:00Z';

/** A fresh database file with the shipped kinds. */
export async function freshStore(): Promise<Store> {
	const folder = mkdtempSync(path.join(tmpdir(), 'bruntle-'));
	const store = await openStore(`file:${path.join(folder, 'test.db')}`);
	await seedKinds(store);
	return store;
}

/** A fresh database with one place and one tree. */
export async function storeWithTree(
	change: Record<string, unknown> = {}
): Promise<{ store: Store; tree: Tree; placeId: string }> {
	const store = await freshStore();
	const { id: placeId } = await addPlace(
		store,
		placeInput.parse({ name: 'Bench', kind: 'open', latitudeDeg: 52 })
	);
	const { tree } = await takeIn(
		store,
		treeInput.parse({
			tag: 'T-1',
			name: 'Beech by the gate',
			kindId: 'fagus',
			placeId,
			situation: 'just-lifted',
			trunkDiameterMm: 60,
			origin: 'hedge',
			takenInOn: '2026-03-01',
			batch: '',
			note: '',
			...change
		})
	);
	return { store, tree, placeId };
}
