import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { build } from 'vite';
import { afterAll, afterEach, beforeAll, describe, expect, it, vi } from 'vitest';
import { defaultValues } from '$core/values/values';
import { refreshWater } from '$lib/server/kept-water';
import { reckonTrees } from '$lib/server/reckon';
import * as tables from '$lib/server/db/schema';
import { trees } from '$lib/server/records/records';
import { openReckoners } from '$lib/server/threads';
import { storeWithTree } from './helpers';

// Beside the packages, which the thread reads as it is built.
mkdirSync('.svelte-kit', { recursive: true });
const folder = mkdtempSync(path.resolve('.svelte-kit', 'threads-'));
const on = '2026-04-18';

/** A yard of so many like trees, as the database has them. */
async function yardOf(count: number) {
	const { store, tree } = await storeWithTree({ situation: 'potted' });
	const ids = [tree.id, ...Array.from({ length: count - 1 }, (_, i) => `x${i}`)];
	await store.write(async (tx) => {
		for (const [i, id] of ids.entries())
			if (id !== tree.id) await trees.put(tx, null, { ...tree, id, tag: `X-${i}`, version: 1 });
	});
	return { store, ids };
}
const keptOf = async ({ store }: Awaited<ReturnType<typeof yardOf>>) => {
	await refreshWater(store, defaultValues, 1000);
	const rows = await store.db.select().from(tables.treeWater).orderBy(tables.treeWater.treeId);
	await store.write((tx) => tx.delete(tables.treeWater));
	return rows;
};

beforeAll(async () => {
	await build({
		configFile: 'vite.threads.config.ts',
		logLevel: 'error',
		build: { outDir: folder, emptyOutDir: true }
	});
}, 60_000);
afterEach(() => void vi.unstubAllEnvs());
afterAll(() => rmSync(folder, { recursive: true, force: true }));

describe('trees reckoned in threads', () => {
	it('come out as they do here; a thread that ended says so', async () => {
		const { store, ids } = await yardOf(3);
		expect(openReckoners(store)).toEqual([]);
		vi.stubEnv('BRUNTLE_THREADS', folder);
		const reckoners = openReckoners(store);
		expect(reckoners.length).toBeGreaterThan(0);
		for (const reckoner of reckoners) {
			expect(await reckoner.reckon(ids, on, defaultValues)).toEqual(
				await reckonTrees(store.db, ids, on, defaultValues)
			);
			reckoner.end();
			await expect(reckoner.reckon(ids, on, defaultValues)).rejects.toThrow('has ended');
		}
	}, 60_000);
	it('fill a large yard alike, and where a thread fails it is done without', async () => {
		vi.stubEnv('BRUNTLE_NOW', `${on}T09:00:00Z`);
		const yard = await yardOf(230);
		const alone = await keptOf(yard);
		expect(alone).toHaveLength(230);
		vi.stubEnv('BRUNTLE_THREADS', folder);
		expect(await keptOf(yard)).toEqual(alone);
		const broken = path.join(folder, 'broken');
		mkdirSync(broken);
		writeFileSync(path.join(broken, 'reckon.thread.js'), 'throw new Error("no such thread");');
		vi.stubEnv('BRUNTLE_THREADS', broken);
		const told = vi.spyOn(console, 'error').mockImplementation(() => undefined);
		expect(await keptOf(yard)).toEqual(alone);
		expect(told).toHaveBeenCalled();
		told.mockRestore();
	}, 60_000);
});
