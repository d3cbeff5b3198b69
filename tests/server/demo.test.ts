import { beforeAll, describe, expect, it } from 'vitest';
import { standingSentence } from '$core/tree/line-of-care';
import { releaseFacts } from '$core/tree/gate';
import { standingOf } from '$core/tree/standing';
import { pressingOf } from '$core/tree/urgent';
import { verdict } from '$core/recovery/verdict';
import { planStanding } from '$core/roots/plan/plan-standing';
import { todayItems } from '$core/today/today';
import { defaultValues } from '$core/values/values';
import { makeDemoYard } from '../../src/demo/yard';
import { demoTrees } from '../../src/demo/scenario';
import { exportCase } from '$lib/server/case-file';
import type { Store } from '$lib/server/db/database';
import { trees } from '$lib/server/records/records';
import { listedTrees, todayTrees } from '$lib/server/tree-lists';
import { loadRecords } from '$lib/server/records/tree-records';
import { referenceShootMm } from '$lib/server/trees';
import { refreshWater } from '$lib/server/kept-water';
import { demoStore, freshStore } from './helpers';

let store: Store;
beforeAll(async () => {
	store = await demoStore();
});

const byTag = async (tag: string) => {
	const tree = (await trees.list(store.db)).find((candidate) => candidate.tag === tag);
	if (!tree) throw new Error(tag);
	return loadRecords(store.db, tree.id);
};

describe('the invented yard', () => {
	it('has its trees, one lot, one dead with its lesson and one re-established', async () => {
		const all = await trees.list(store.db);
		expect(all.length).toBe(demoTrees.length);
		expect(all.filter((tree) => tree.plantCount > 1)).toHaveLength(1);
		expect(all.find((tree) => tree.state === 'dead')?.closingNote).toContain('Next time');
		expect(all.filter((tree) => tree.state === 're-established')).toHaveLength(1);
	});

	it('is the same yard each time', async () => {
		const other = await freshStore();
		await makeDemoYard(other);
		const strip = async (from: Store) => {
			const all = await trees.list(from.db);
			const cases = await Promise.all(all.map((tree) => exportCase(from.db, tree.id)));
			return cases.map((doc) => ({
				tag: doc.tree.tag,
				looks: doc.observations.map(({ id: _id, ...rest }) => rest),
				tasks: doc.tasks.map((task) => `${task.title} ${task.state} ${task.fromOn}`).sort(),
				roots: doc.rootMap?.segments,
				cuts: doc.plan?.cuts
			}));
		};
		expect(await strip(other)).toEqual(await strip(store));
	});

	it('was cut within its allowances, and keeps what was locked', async () => {
		for (const tree of await trees.list(store.db)) {
			const { kind, places, rootMap, plan } = await loadRecords(store.db, tree.id);
			const place = places.find((candidate) => candidate.id === tree.placeId);
			if (!rootMap || !plan || !place) continue;
			const { ledger } = planStanding({ tree, kind }, place, rootMap, plan, defaultValues);
			expect(ledger.violations, tree.tag).toEqual([]);
		}
	});

	it('has two years of looks on its oldest trees, none after the day the clock stands', async () => {
		const twin = await byTag('H-00');
		expect(twin.observations.length).toBeGreaterThan(12);
		expect(twin.observations.every((look) => look.observedOn <= '2026-04-18')).toBe(true);
	});

	it('brings up urgent work first', async () => {
		const items = todayItems(await todayTrees(store.db, '2026-04-18'), '2026-04-18', defaultValues);
		expect(items.length).toBeGreaterThan(5);
		expect(items.map((item) => item.urgency)).toEqual(
			[...items.map((item) => item.urgency)].sort((a, b) => b - a)
		);
		expect(items.some((item) => item.tag === 'C-07' && item.sentence.includes('share its mix'))).toBe(true);
	});

	it('says the same of what comes next in the list as in the head of each tree', async () => {
		const on = '2026-04-18';
		await refreshWater(store, defaultValues);
		for (const row of await listedTrees(store, on, defaultValues)) {
			if (row.state !== 'in-care') continue;
			const records = await loadRecords(store.db, row.id);
			const facts = releaseFacts(records, [], await referenceShootMm(store.db, records), defaultValues);
			const { next } = standingSentence(
				records,
				on,
				{
					facts,
					...pressingOf(records, on, defaultValues),
					standing: standingOf(records, on, defaultValues)
				},
				defaultValues
			);
			expect(row.nextTask ?? 'Nothing is planned: set the next look.', row.tag).toBe(next);
		}
	});

	it('does not call the big lawn tree re-established', async () => {
		const { tree, observations } = await byTag('L-01');
		const judged = verdict(
			{
				today: '2026-04-18',
				situation: tree.situation,
				trunkDiameterMm: tree.trunkDiameterMm,
				sinceOn: '2025-06-21',
				observations,
				rootFunction: null,
				referenceShootMm: null,
				openAlarms: 0,
				stagesLeft: 1
			},
			defaultValues
		);
		expect(judged.reEstablished).toBe(false);
		expect(judged.criteria.find((c) => c.name === 'function')?.answer).toBe('unknown');
	});
});
