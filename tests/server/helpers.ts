import { defaultValues } from '$core/values/values';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { placeInput } from '$core/vocabulary/place';
import { parseQuickRoot } from '$core/roots/io/quick-entry';
import { rootMapInput, segmentFromQuick } from '$core/roots/map/root-map';
import { treeInput, type Tree, type TreeInput } from '$core/take-in/tree';
import { openStore, type Store } from '$lib/server/db/database';
import { Refusal } from '$lib/server/errors';
import type { RootsInput } from '$lib/server/roots';
import { seedKinds } from '$lib/server/store';
import { takeIn } from '$lib/server/trees';
import { addPlace } from '$lib/server/yard';
import { makeDemoYard } from '../../src/demo/yard';
import { cut } from '../records';

process.env.BRUNTLE_NOW = '2026-04-18T09:00:00Z';

/** A fresh database file with the shipped kinds. */
export async function freshStore(
	url = `file:${path.join(mkdtempSync(path.join(tmpdir(), 'bruntle-')), 'test.db')}`
): Promise<Store> {
	const store = await openStore(url);
	await seedKinds(store);
	return store;
}

let madeDemo: Promise<Store> | null = null;

/** The demo yard in a database of the caller’s own. It is made once a worker. */
export async function demoStore(): Promise<Store> {
	madeDemo ??= freshStore().then(async (store) => {
		await makeDemoYard(store);
		return store;
	});
	const copy = path.join(mkdtempSync(path.join(tmpdir(), 'bruntle-')), 'demo.db');
	await (await madeDemo).db.$client.execute({ sql: 'VACUUM INTO ?', args: [copy] });
	return freshStore(`file:${copy}`);
}

/** A fresh database with one place and one tree. */
export async function storeWithTree(
	change: Record<string, unknown> = {},
	url?: string
): Promise<{ store: Store; tree: Tree; placeId: string }> {
	const store = await freshStore(url);
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

/** What was written at taking in of a tree, to take another like it in. */
export const asTakenIn = (tree: Tree, change: Partial<TreeInput> = {}): TreeInput =>
	treeInput.parse({
		...Object.fromEntries(Object.entries(tree).filter(([field]) => Object.hasOwn(treeInput.shape, field))),
		...change
	});

/** Six roots of a tree of 60 mm, the last of them rotten, with a plan that cuts those named. */
export const rootsWith = (cutIds: string[] = []): RootsInput => {
	const segments = [
		'6 30 anchor',
		'9 28 anchor',
		'12 29 anchor',
		'3 27 anchor',
		'4 10 circling',
		'8 9 rotten'
	].map((line, i) => {
		const entry = parseQuickRoot(line, 'container', 60, defaultValues);
		if (!entry.ok) throw new Error(entry.problem);
		return segmentFromQuick(entry.root, { trunkDiameterMm: 60, ballRadiusMm: 150 }, `r${i}`);
	});
	return {
		map: rootMapInput.parse({
			mappedOn: '2026-03-02',
			frame: 'container',
			trunkDiameterMm: 60,
			ballRadiusMm: 150,
			segments
		}),
		mapVersion: null,
		planVersion: null,
		plan: {
			temper: 'usual',
			vigour: 'fair',
			reserves: 'field-grown',
			stageDates: ['2026-03-02', '2027-01-10'],
			cuts: cutIds.map((segmentId, i) => ({ ...cut(segmentId, 0), id: `c${i}` })),
			notBefore: [],
			consents: [],
			setting: null
		}
	};
};

/** The refusal of a piece of work that must be refused; whatever else is thrown passes through. */
export async function refusal(work: Promise<unknown>): Promise<Refusal> {
	try {
		await work;
	} catch (cause) {
		if (cause instanceof Refusal) return cause;
		throw cause;
	}
	throw new Error('nothing was refused');
}
