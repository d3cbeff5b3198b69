import { describe, expect, it } from 'vitest';
import { examinationInput } from '$core/examine/diagnosis/examination';
import { observationInput } from '$core/examine/looks/observation';
import { defaultValues } from '$core/values/values';
import { aboutKg, unlikelyGain, unlikelyKg } from '$core/tree/weights';
import { wateringInput } from '$core/aftercare/water/watering';
import { recordExamination } from '$lib/server/examine';
import { recordLook } from '$lib/server/recovery';
import { recordPlanting } from '$lib/server/replant';
import { loadRecords } from '$lib/server/records/tree-records';
import { recordWatering } from '$lib/server/water';
import { undo } from '$lib/server/records/work';
import { plantingOn } from '../records';
import { refusal, storeWithTree } from './helpers';

/** What was written down can be written anew in its place, says so, and is one record still. */

const watered = (change: object) => wateringInput.parse({ wateredOn: '2026-03-20', ...change });

describe('a look under Examine', () => {
	const smelt = examinationInput.parse({
		examinedOn: '2026-03-10',
		findings: [{ signId: 'sour-smell', grade: 1, measuredBy: null }]
	});
	it('is corrected in its place, says that it was, and undo brings it back', async () => {
		const { store, tree } = await storeWithTree();
		const { examination } = await recordExamination(store, tree.id, smelt);
		const { examination: corrected, entryId } = await recordExamination(
			store,
			tree.id,
			{
				...smelt,
				findings: [{ signId: 'sour-smell', grade: 0, measuredBy: null }],
				note: 'Peat, not rot.'
			},
			examination
		);
		expect([corrected.id, corrected.version]).toEqual([examination.id, 2]);
		const records = await loadRecords(store.db, tree.id);
		expect(records.examinations).toHaveLength(1);
		expect(records.examinations[0]?.findings[0]?.grade).toBe(0);
		expect(records.journal.some((entry) => /^Corrected the look/.test(entry.what))).toBe(true);
		await undo(store, entryId);
		expect((await loadRecords(store.db, tree.id)).examinations[0]?.findings[0]?.grade).toBe(1);
	});
	it('after work of its day is seen after it; one that was kept before that work led to it', async () => {
		const { store, tree } = await storeWithTree({ situation: 'potted' });
		await recordExamination(store, tree.id, smelt);
		const { id: _id, version: _version, ...planting } = plantingOn(smelt.examinedOn);
		await recordPlanting(
			store,
			tree.id,
			planting,
			{ waterSchool: 'at-once', fromStock: null },
			defaultValues
		);
		await recordExamination(store, tree.id, smelt);
		const records = await loadRecords(store.db, tree.id);
		expect(records.examinations.map((look) => look.events)).toEqual([[], ['repotted']]);
	});
	it('of another tree, or read before it was changed, is refused and nothing is written', async () => {
		const { store, tree } = await storeWithTree();
		const { examination } = await recordExamination(store, tree.id, smelt);
		const stranger = recordExamination(store, tree.id, smelt, { id: 'no-such', version: 1 });
		expect((await refusal(stranger)).status).toBe(404);
		await recordExamination(store, tree.id, smelt, examination);
		expect((await refusal(recordExamination(store, tree.id, smelt, examination))).status).toBe(409);
		expect((await loadRecords(store.db, tree.id)).examinations).toHaveLength(1);
	});
});

describe('a look under Recovery', () => {
	it('is corrected; what its form does not carry over stays', async () => {
		const { store, tree } = await storeWithTree();
		const input = observationInput.parse({
			observedOn: '2026-03-12',
			buds: 'open',
			shootsMm: [40, 50],
			leafCover: 0.9
		});
		const { observation } = await recordLook(store, tree.id, input);
		const { observation: now } = await recordLook(
			store,
			tree.id,
			observationInput.parse({ observedOn: '2026-03-12', buds: 'swelling', leafCover: 0.1 }),
			true,
			observation
		);
		expect(now).toMatchObject({
			id: observation.id,
			version: 2,
			buds: 'swelling',
			leafCover: 0.1,
			shootsMm: [40, 50],
			shootExtensionMm: 45
		});
		expect((await loadRecords(store.db, tree.id)).observations).toHaveLength(1);
	});
});

describe('a watering', () => {
	it('is changed in its place', async () => {
		const { store, tree } = await storeWithTree();
		const { watering } = await recordWatering(store, tree.id, watered({ litres: 20 }));
		const { watering: now } = await recordWatering(store, tree.id, watered({ litres: 2 }), watering);
		expect(now).toMatchObject({ id: watering.id, version: 2, litres: 2 });
		const { waterings } = await loadRecords(store.db, tree.id);
		expect(waterings.map((one) => one.litres)).toEqual([2]);
		const stranger = recordWatering(store, tree.id, watered({}), { id: 'no-such', version: 1 });
		expect((await refusal(stranger)).status).toBe(404);
	});
	it('with a weight far from what the pot weighed is asked for again, and taken with a word of why', async () => {
		const { store, tree } = await storeWithTree();
		await recordWatering(store, tree.id, watered({ beforeKg: 2.6, afterKg: 3.1 }));
		const heavy = watered({ wateredOn: '2026-03-25', afterKg: 1500 });
		const refused = await refusal(recordWatering(store, tree.id, heavy));
		expect(refused.problems).toEqual([
			{
				field: 'afterKg',
				message: expect.stringMatching(
					/far from the \u{2063}?3\.1 kg\u{2063}? that it weighed on 2026-03-20/u
				)
			}
		]);
		expect((await loadRecords(store.db, tree.id)).waterings).toHaveLength(1);
		await recordWatering(store, tree.id, { ...heavy, note: 'on the truck scale, crate and all' });
		const look = observationInput.parse({ observedOn: '2026-03-21', weightKg: 0.2 });
		expect((await refusal(recordLook(store, tree.id, look))).problems[0]?.field).toBe('weightKg');
	});
});

describe('what a pot took up', () => {
	it('cannot be more than was poured and stayed, and is asked for again, in the reader’s units', async () => {
		const error = defaultValues['look.readingError'];
		const of = (gainedKg: number, litres: number | null = 10, ranOutL: number | null = 2) =>
			unlikelyGain({ litres, ranOutL, beforeKg: 40, afterKg: 40 + gainedKg }, defaultValues);
		const most = 8 + error * 10;
		expect([of(8), of(most - 0.01), of(3)]).toEqual([null, null, null]);
		expect(of(most + 0.01)).toMatch(
			/^is \u{2063}9\.5 kg\u{2063} more than before, and \u{2063}8 L\u{2063} of what was poured stayed/u
		);
		expect(of(most + 0.01, 10, null)).toBeNull();
		expect(of(30, null, null)).toBeNull();
		// Four times what it weighed before is one comma too many, however much was poured.
		const times = defaultValues['water.weightTimes'];
		expect([of(40 * (times - 1) - 0.1, null, null), of(40 * (times - 1), null, null)]).toEqual([
			null,
			'is 4 times what it weighed before; check them, or say in the note why'
		]);
		// A small pot is weighed no finer than a scale is read.
		const off = defaultValues['water.weightOffKg'];
		expect([of(0.1 + off - 0.001, 0.1, null), of(0.1 + off + 0.001, 0.1, null) !== null]).toEqual([
			null,
			true
		]);
		const { store, tree } = await storeWithTree();
		const wrong = watered({ litres: 2, ranOutL: 0.5, beforeKg: 10, afterKg: 13 });
		expect((await refusal(recordWatering(store, tree.id, wrong))).problems[0]?.field).toBe('afterKg');
		expect((await loadRecords(store.db, tree.id)).waterings).toEqual([]);
		await recordWatering(store, tree.id, { ...wrong, note: 'It rained between.' });
	});
});

describe('what a pot is known to weigh', () => {
	const about = { kg: 3.1, how: 'it weighed' };
	it('is not questioned within four times either way, nor where nothing is known', () => {
		expect(unlikelyKg(12.3, about, defaultValues)).toBeNull();
		expect(unlikelyKg(12.5, about, defaultValues)).toMatch(/far from the \u{2063}3.1 kg\u{2063}/u);
		expect(unlikelyKg(0.78, about, defaultValues)).toBeNull();
		expect(unlikelyKg(0.77, about, defaultValues)).not.toBeNull();
		expect(unlikelyKg(1500, null, defaultValues)).toBeNull();
	});
	it('is reckoned from its sizes while nobody weighed it', async () => {
		const { store, tree } = await storeWithTree();
		const records = await loadRecords(store.db, tree.id);
		expect(aboutKg(records, '2026-04-01', null, defaultValues)).toBeNull();
	});
});
