import { plain } from '$core/text/format';
import { measuredPair } from '$core/text/measured';
import { beforeAll, describe, expect, it } from 'vitest';
import type { TreeCase } from '$core/tree/case';
import { exportCase, importCase } from '$lib/server/case-file';
import type { Store } from '$lib/server/db/database';
import { kinds, places, trees } from '$lib/server/records/records';
import { doWork, undo } from '$lib/server/records/work';
import { demoStore, freshStore, refusal } from './helpers';

let demo: Store;
beforeAll(async () => {
	demo = await demoStore();
});

const caseOf = async (tag: string): Promise<TreeCase> => {
	const tree = (await trees.list(demo.db)).find((candidate) => candidate.tag === tag);
	if (!tree) throw new Error(tag);
	return exportCase(demo.db, tree.id);
};

describe('a whole case as JSON', () => {
	it('reads back identically into an empty database, for every tree of the demo', async () => {
		for (const { id } of await trees.list(demo.db)) {
			const written = JSON.parse(JSON.stringify(await exportCase(demo.db, id)));
			const empty = await freshStore();
			await importCase(empty, written);
			expect(JSON.parse(JSON.stringify(await exportCase(empty.db, id)))).toEqual(written);
		}
	});

	it('changes no kind that stands here: differences are named, and the tree goes by ours, or by theirs beside it', async () => {
		const written = await caseOf('H-03');
		const theirs = {
			...written.kind,
			sap: 'toxic' as const,
			coldestC: -9,
			origin: 'own' as const,
			version: 4
		};
		const file = { ...written, kind: theirs };
		const empty = await freshStore();
		const before = await kinds.list(empty.db);
		const asked = await refusal(importCase(empty, file, 'ask'));
		expect(asked.status).toBe(409);
		expect(asked.problems.map(({ field, message }) => [field, plain(message)])).toEqual([
			['coldestC', `Coldest night in a pot: ${written.kind.coldestC} °C here, -9 °C in the file`],
			['sap', 'Sap: none here, toxic in the file']
		]);
		expect(await trees.list(empty.db)).toEqual([]);

		const { entryId } = await importCase(empty, file);
		expect((await exportCase(empty.db, written.tree.id)).kind).toEqual(
			before.find(({ id }) => id === written.kind.id)
		);
		expect(await kinds.list(empty.db)).toEqual(before);
		await undo(empty, entryId);

		const taken = await importCase(empty, file, 'theirs');
		const { kind } = await exportCase(empty.db, written.tree.id);
		expect(kind).toMatchObject({ sap: 'toxic', coldestC: -9, origin: 'own' });
		expect(kind.id).not.toBe(written.kind.id);
		expect((await kinds.list(empty.db)).filter(({ id }) => id !== kind.id)).toEqual(before);
		await undo(empty, taken.entryId);
		expect(await kinds.list(empty.db)).toEqual(before);
		// Of the same kind nothing is asked; one that is not here comes in as the yard’s own, whatever it calls itself.
		await undo(empty, (await importCase(empty, written, 'ask')).entryId);
		const unknown = { ...written.kind, id: 'not-here', origin: 'shipped' as const };
		await importCase(
			empty,
			{ ...written, kind: unknown, tree: { ...written.tree, kindId: 'not-here' } },
			'ask'
		);
		expect(await kinds.get(empty.db, 'not-here')).toMatchObject({ origin: 'own' });
	});

	it('is one entry of the journal, taken back whole; what was written since is not lost by it', async () => {
		const written = await caseOf('C-07');
		const empty = await freshStore();
		const places0 = await places.list(empty.db);
		const { entryId, tree } = await importCase(empty, written);
		await undo(empty, entryId);
		expect(await trees.list(empty.db)).toEqual([]);
		expect(await places.list(empty.db)).toEqual(places0);
		const again = await importCase(empty, written);
		expect(JSON.parse(JSON.stringify(await exportCase(empty.db, tree.id)))).toEqual(
			JSON.parse(JSON.stringify(written))
		);
		await doWork(empty, { treeId: tree.id, stage: 'aftercare', what: 'Looked' }, (work) =>
			work.change(trees, tree.id, tree.version, (before) => ({ ...before, note: 'Looked at' }))
		);
		expect((await refusal(undo(empty, again.entryId))).status).toBe(409);
		expect((await trees.get(empty.db, tree.id))?.note).toBe('Looked at');
	});

	it('is refused when it stands here already, or its tag does', async () => {
		const written = await caseOf('H-03');
		expect((await refusal(importCase(demo, written))).status).toBe(409);
		const renamed = { ...written, tree: { ...written.tree, id: 'another' } };
		expect((await refusal(importCase(demo, renamed))).message).toMatch(/tag H-03 is already on/);
	});

	it('of a wrong version, with unknown fields, broken links or absurd numbers is refused, naming them, and writes nothing', async () => {
		const written = await caseOf('C-07');
		const empty = await freshStore();
		const fault = async (change: object) =>
			(await refusal(importCase(empty, { ...written, ...change }))).problems[0];
		expect(await fault({ version: 99 })).toMatchObject({
			field: 'version',
			message: expect.stringMatching(/must be 6/)
		});
		expect(await fault({ schema: 'other' })).toMatchObject({ field: 'schema' });
		expect(await fault({ extra: 1 })).toMatchObject({ field: 'extra', message: 'is not a field known here' });
		expect(await fault({ places: [] })).toMatchObject({ field: 'places' });
		expect(await fault({ tree: { ...written.tree, trunkDiameterMm: -4 } })).toMatchObject({
			field: 'tree.trunkDiameterMm',
			message: `must be a number from ${measuredPair(1, ' to ', 3000, 'mm')}`
		});
		expect(await fault({ rootMap: { ...written.rootMap, segments: [] } })).toMatchObject({
			field: 'plan.cuts'
		});
		expect(await fault({ tasks: [...written.tasks, ...written.tasks] })).toMatchObject({ field: 'tasks' });
		expect((await refusal(importCase(empty, 'text'))).status).toBe(422);
		expect(await trees.list(empty.db)).toEqual([]);
	});

	it('leaves nothing behind when it breaks in the middle', async () => {
		const written = await caseOf('C-07');
		const empty = await freshStore();
		await importCase(empty, written);
		const clash = { ...written, tree: { ...written.tree, id: 'twin', tag: 'C-70' } };
		expect((await refusal(importCase(empty, clash))).message).toMatch(/stands here already/);
		expect(await trees.list(empty.db)).toHaveLength(1);
	});
});
