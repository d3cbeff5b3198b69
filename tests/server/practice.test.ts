import type { RequestEvent } from '@sveltejs/kit';
import { mkdtempSync, readdirSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { addDays } from '$core/maths/calendar';
import { practiceTree } from '$core/practice/practice-tree';
import { practiceWish } from '$core/practice/round';
import { plantingInput } from '$core/replant/pots/replant-plan';
import { pottingMixOf } from '$core/replant/mixes/mixes';
import { roundPot } from '$core/replant/pots/volume';
import { readCsv } from '$core/text/csv';
import { defaultValues as values } from '$core/values/values';
import { wateringInput } from '$core/aftercare/water/watering';
import { bookDetails } from '$core/aftercare/book/book';
import { writeBook } from '$lib/server/book';
import { today } from '$lib/server/clock';
import { recordExamination } from '$lib/server/examine';
import { examinationInput } from '$core/examine/diagnosis/examination';
import { practiceOf, PRACTICE_COOKIE } from '$lib/server/practice/at-the-door';
import { beginRound, weakOf } from '$lib/server/practice/begin';
import {
	allJudged,
	keepProgress,
	readRound,
	removeRound,
	roundOf,
	roundStore
} from '$lib/server/practice/rounds';
import { move, practiceNow } from '$lib/server/practice/step';
import { judgedRound, resultsCsv, roundTold } from '$lib/server/practice/told';
import { practisingAs } from '$lib/server/practice/under-way';
import { places } from '$lib/server/records/records';
import { loadRecords } from '$lib/server/records/tree-records';
import { recordPlanting } from '$lib/server/replant';
import { recordCuts, saveRoots } from '$lib/server/roots';
import { closeStore, getStore, yardStore } from '$lib/server/store';
import { changeTree } from '$lib/server/trees';
import { recordWatering } from '$lib/server/water';
import { loadWeather } from '$lib/server/weather';
import { refusal } from './helpers';

/** Rounds of practice on the server: yards of their own, in which all that is written counts, and which touch nothing else. */

process.env.BRUNTLE_NOW = '2026-04-18T09:00:00Z';
const folder = mkdtempSync(path.join(tmpdir(), 'bruntle-practice-'));
const me = { id: null, name: 'Ada' };

beforeAll(async () => {
	// Another file of tests may have opened a yard in this process.
	await closeStore();
	process.env.DATABASE_URL = `file:${path.join(folder, 'yard.db')}`;
});

afterAll(closeStore);

const wish = (seed: number, more: object = {}) => ({
	wish: practiceWish.parse({ seed, situation: 'potted', ...more })
});
/** Works in the yard of a round, as the pages of its tree do. */
async function inRound<T>(
	id: string,
	work: (store: Awaited<ReturnType<typeof getStore>>, treeId: string) => Promise<T>
) {
	const round = await roundOf(id, null);
	const tree = practiceTree(round.wish, values);
	return practisingAs(
		{
			id,
			treeId: round.treeId,
			day: round.day,
			today: addDays(tree.truth.startOn, round.day),
			over: false,
			store: () => roundStore(id)
		},
		async () => work(await getStore(), round.treeId)
	);
}
const actsOf = async (id: string) => (await roundOf(id, null)).acts;

describe('a round of practice', () => {
	it('takes a tree in on its own day, in a yard of its own; in the yard itself nothing is', async () => {
		const round = await beginRound({ setCase: 2 }, me);
		const yard = await yardStore();
		const counts = async () =>
			(
				await yard.db.$client.execute(
					'select (select count(*) from tree) + (select count(*) from place) + (select count(*) from journal) + (select count(*) from weather_day) as n'
				)
			).rows[0]?.n;
		expect(await counts()).toBe(0);
		const records = await inRound(round.id, (store, id) => loadRecords(store.db, id));
		const { truth } = practiceTree(round.wish, values);
		expect(records.tree).toMatchObject({
			takenInOn: truth.startOn,
			kindId: truth.kind.id,
			situation: 'potted'
		});
		expect(records.plantings).toHaveLength(1);
		expect(records.tree.note).toBe('It has been watered every day, out of care.');
		expect(await inRound(round.id, () => Promise.resolve(today()))).toBe(truth.startOn);
		expect(today()).toBe('2026-04-18');
		await move(round.id, null, { move: 'days', days: 7 });
		expect(await counts()).toBe(0);
	});

	it('answers what is looked for, counts it once a day, and keeps it as a look overnight', async () => {
		const round = await beginRound({ setCase: 2 }, me);
		const first = await move(round.id, null, { move: 'see', signId: 'sour-smell' });
		expect(first.grade).toBeGreaterThan(0);
		expect((await move(round.id, null, { move: 'see', signId: 'sour-smell' })).grade).toBe(first.grade);
		expect((await actsOf(round.id)).filter((act) => act.what === 'check')).toHaveLength(1);
		expect((await refusal(move(round.id, null, { move: 'see', signId: 'traffic' }))).status).toBe(422);
		await move(round.id, null, { move: 'days', days: 1 });
		const { examinations } = await inRound(round.id, (store, id) => loadRecords(store.db, id));
		expect(examinations.map((one) => one.findings)).toEqual([
			[{ signId: 'sour-smell', grade: first.grade, measuredBy: null }]
		]);
		// Kept by its form it is no second look; on another day it is.
		const seen = await move(round.id, null, { move: 'see', signId: 'sour-smell' });
		await inRound(round.id, (store, id) =>
			recordExamination(
				store,
				id,
				examinationInput.parse({
					examinedOn: today(),
					findings: [{ signId: 'sour-smell', grade: seen.grade, measuredBy: null }]
				})
			)
		);
		await move(round.id, null, { move: 'days', days: 1 });
		const looks = await inRound(round.id, (store, id) => loadRecords(store.db, id));
		expect(looks.examinations.map((one) => one.findings.length)).toEqual([1, 1]);
		const { examinedOn } = looks.examinations[1] ?? { examinedOn: '' };
		expect(examinedOn).toBe(addDays(looks.examinations[0]?.examinedOn ?? '', 1));
	});

	it('a day that was watered by hand is one watering in its records', async () => {
		const round = await beginRound({ setCase: 2 }, me);
		await inRound(round.id, (store, id) =>
			recordWatering(store, id, wateringInput.parse({ wateredOn: today(), note: '' }))
		);
		await move(round.id, null, { move: 'care', rule: { water: 'by-hand', everyDays: 3, covers: true } });
		await move(round.id, null, { move: 'days', days: 7 });
		const { waterings } = await inRound(round.id, (store, id) => loadRecords(store.db, id));
		expect(waterings).toHaveLength(1);
	});

	it('writes down what is read where a person would', async () => {
		const round = await beginRound(wish(2127, { conditions: [] }), me);
		const told: string[] = [];
		for (const reading of ['leaves', 'water', 'weight'] as const)
			told.push((await move(round.id, null, { move: 'read', reading })).told);
		expect(told[0]).toMatch(/^Looked at: /);
		expect(told[1]).toMatch(/^Felt two knuckles deep: (soaking|wet|moist|nearly dry|dry)\.$/);
		expect(told[2]).toMatch(/^It weighs .*\.$/);
		const records = await inRound(round.id, (store, id) => loadRecords(store.db, id));
		expect(records.observations).toHaveLength(2);
		expect(records.measurements).toHaveLength(1);
	});

	it('takes the records of a day for what was done: cuts, pots, water, the book, another place', async () => {
		const round = await beginRound(wish(31, { conditions: ['root-rot'], kindId: 'carpinus' }), me);
		await move(round.id, null, { move: 'read', reading: 'roots' });
		expect((await refusal(move(round.id, null, { move: 'read', reading: 'roots' }))).status).toBe(409);
		const on = practiceTree(round.wish, values).truth.startOn;
		await inRound(round.id, async (store, id) => {
			const { rootMap, plan } = await loadRecords(store.db, id);
			const dead = rootMap?.segments.filter((one) => one.condition === 'dead') ?? [];
			expect(dead.length).toBeGreaterThan(0);
			if (!rootMap || !plan) throw new Error('its roots are not on the map');
			const { id: _map, version: mapVersion, ...map } = rootMap;
			const { id: _plan, version: planVersion, ...bare } = plan;
			const saved = await saveRoots(store, id, {
				map,
				mapVersion,
				planVersion,
				plan: {
					...bare,
					cuts: dead.map((one, i) => ({
						id: `c${i}`,
						segmentId: one.id,
						atMm: 0,
						plannedAtMm: null,
						stage: 0,
						reason: 'rot',
						state: 'planned' as const,
						doneOn: null,
						note: '',
						byOwner: false,
						whyThen: '',
						treatments: [],
						ofPlanned: null,
						because: ''
					}))
				}
			});
			await recordCuts(
				store,
				id,
				{
					on,
					planVersion: saved.plan.version,
					done: saved.plan.cuts.map((cut) => ({ id: cut.id, atMm: null, note: '' })),
					left: [],
					treatments: [],
					because: 'Rot left no time to wait.'
				},
				values
			);
			await recordWatering(store, id, wateringInput.parse({ wateredOn: on, way: 'from-below', note: '' }));
			await writeBook(store, id, {
				kind: 'leaves-washed',
				on,
				details: bookDetails.parse({ choice: 'rinsed', product: '', strength: '', first: '' }),
				note: ''
			});
			const { tree } = await loadRecords(store.db, id);
			const bay = (await places.list(store.db)).find((place) => place.name === 'Practice bay');
			const {
				id: _id,
				version,
				state: _s,
				closedOn: _c,
				closingNote: _n,
				lossCause: _l,
				lossConditions: _o,
				shownEarlier: _e,
				...input
			} = tree;
			await changeTree(store, id, version, { ...input, placeId: bay?.id ?? '' });
		});
		await move(round.id, null, { move: 'days', days: 1 });
		const done = (await actsOf(round.id)).filter((act) => act.day === 0);
		expect(done.find((act) => act.what === 'cut')).toMatchObject({ rot: 1, girdles: 0 });
		expect(done.find((act) => act.what === 'water')).toMatchObject({ share: 1 });
		expect(done.flatMap((act) => (act.what === 'treat' ? [act.remedy] : [])).sort()).toEqual([
			'shelter',
			'soak',
			'wash'
		]);
		await inRound(round.id, async (store, id) => {
			await recordPlanting(
				store,
				id,
				plantingInput.parse({
					plantedOn: addDays(on, 1),
					pot: roundPot(400, 320, 250),
					sizeRule: 'normal',
					ballDiameterMm: 200,
					ballDepthMm: 120,
					mix: pottingMixOf('pumice-bark'),
					headspaceMm: 15,
					note: ''
				}),
				{ waterSchool: 'at-once', fromStock: null },
				values
			);
		});
		await move(round.id, null, { move: 'days', days: 1 });
		const planted = (await actsOf(round.id)).filter((act) => act.what === 'plant');
		expect(planted).toHaveLength(1);
		expect(planted[0]).toMatchObject({ day: 1 });
		// What was written for one day counts for that day alone.
		await move(round.id, null, { move: 'days', days: 3 });
		expect((await actsOf(round.id)).filter((act) => act.what === 'cut')).toHaveLength(1);
	});

	it('counts what it is planted into on the day it comes, and not what it came in', async () => {
		const round = await beginRound({ setCase: 2 }, me);
		const on = practiceTree(round.wish, values).truth.startOn;
		await inRound(round.id, async (store, id) => {
			const { plantings } = await loadRecords(store.db, id);
			const { id: _id, version: _version, ...before } = plantings[0] ?? {};
			await recordPlanting(
				store,
				id,
				plantingInput.parse({ ...before, plantedOn: on, mix: pottingMixOf('pumice-bark') }),
				{ waterSchool: 'at-once', fromStock: null },
				values
			);
		});
		await move(round.id, null, { move: 'days', days: 1 });
		expect((await actsOf(round.id)).map((act) => [act.what, act.day])).toEqual([['plant', 0]]);
	});

	it('writes its weather, its forecast and the care it had into its yard', async () => {
		const round = await beginRound({ setCase: 2 }, me);
		await move(round.id, null, { move: 'care', rule: { water: 'every-days', everyDays: 2, covers: true } });
		const answer = await move(round.id, null, { move: 'days', days: 7 });
		expect(answer.told).toMatch(/7 days went by, .* it was watered 4 times\.$/);
		const { waterings } = await inRound(round.id, (store, id) => loadRecords(store.db, id));
		const start = practiceTree(round.wish, values).truth.startOn;
		expect(waterings.map((one) => one.wateredOn)).toEqual([0, 2, 4, 6].map((day) => addDays(start, day)));
		const days = await inRound(round.id, (store) =>
			loadWeather(store.db, addDays(start, 1), addDays(start, 20))
		);
		const of = (source: string): string[] => days.filter((day) => day.source === source).map((day) => day.on);
		expect(of('station').sort()).toEqual([1, 2, 3, 4, 5, 6, 7].map((day) => addDays(start, day)));
		expect(of('forecast').sort().at(-1)).toBe(addDays(start, 14));
		const tree = practiceTree(round.wish, values);
		const third = days.find((day) => day.source === 'station' && day.on === addDays(start, 3));
		expect(third?.minC).toBeCloseTo(tree.outdoors[2]?.minC ?? NaN, 1);
	});

	it('ends when its year has run out or it is dead, is judged once, and takes nothing more', async () => {
		const round = await beginRound({ setCase: 2 }, me);
		await move(round.id, null, { move: 'say', chances: [{ conditionId: 'drought', chance: 0.6 }] });
		await move(round.id, null, { move: 'care', rule: { water: 'every-days', everyDays: 1, covers: true } });
		const answer = await move(round.id, null, { move: 'end' });
		expect(answer.over).toBe(true);
		const row = await roundOf(round.id, null);
		expect(row.endedAt).not.toBeNull();
		expect(row.judged?.diedOn).not.toBeNull();
		expect(row.judged?.brier).toBeCloseTo((0.36 + 1) / 28, 6);
		expect(row.judged?.lessons[0]).toMatch(/water every day was more than it drank/);
		expect((await refusal(move(round.id, null, { move: 'days', days: 1 }))).status).toBe(409);
		const page = judgedRound(row);
		expect(page.days.at(-1)?.day).toBe(row.day);
		expect(await weakOf(null)).toContain('sour-root-zone');
		// A round that is under way tells nothing of what ails its tree.
		const other = await beginRound({ setCase: 2 }, me);
		expect(JSON.stringify(roundTold(await roundOf(other.id, null)))).not.toMatch(/[Ss]our/);
		const now = await inRound(other.id, async () =>
			practiceNow(
				{ id: other.id, treeId: '', day: 0, today: '', over: false, store: () => roundStore(other.id) },
				null
			)
		);
		expect(JSON.stringify(now)).not.toMatch(/sour/i);
	});

	it('is told to a teacher as CSV, a row for each that is over', async () => {
		const over = await allJudged();
		const { header, rows } = readCsv(resultsCsv(over));
		expect(header.slice(0, 5)).toEqual(['trainee', 'started_at', 'ended_at', 'case', 'seed']);
		expect(rows).toHaveLength(over.length);
		expect(rows[0]?.[0]).toBe('Ada');
		expect(rows[0]?.[header.indexOf('what_ailed_it')]).toBe('Sour, airless root zone');
		expect(Number(rows[0]?.[header.indexOf('chance_own')])).toBe(
			Math.round((over[0]?.judged?.own ?? -1) * 1000) / 1000
		);
	});

	it('is nobody else’s, and goes on in one window at a time', async () => {
		const round = await beginRound({ setCase: 3 }, me);
		expect((await refusal(move(round.id, 'somebody', { move: 'days', days: 1 }))).status).toBe(404);
		const row = await roundOf(round.id, null);
		await move(round.id, null, { move: 'days', days: 1 });
		expect((await refusal(keepProgress(row, { day: 2 }))).status).toBe(409);
		await removeRound(round.id);
		expect(await readRound(round.id)).toBeNull();
		expect(readdirSync(path.join(folder, 'practice')).some((file) => file.startsWith(round.id))).toBe(false);
	});
});

describe('which yard a request is of', () => {
	const asked = (
		cookie: string | undefined,
		route: string,
		params: Record<string, string> = {},
		{ method = 'GET', search = '', referer = '' } = {}
	) =>
		practiceOf({
			cookies: { get: (name: string) => (name === PRACTICE_COOKIE ? cookie : undefined) },
			route: { id: route },
			params,
			platform: undefined,
			locals: { who: { id: null, name: '', role: 'owner' } },
			request: new Request('http://localhost/', { method, headers: { referer } }),
			url: new URL(`http://localhost/${search}`)
		} as unknown as RequestEvent);

	it('is that of the round for the pages of its tree, and the yard for all else', async () => {
		const round = await beginRound({ setCase: 4 }, me);
		const own = { id: round.treeId };
		expect((await asked(round.id, '/trees/[id]/roots', own))?.id).toBe(round.id);
		expect((await asked(round.id, '/'))?.id).toBe(round.id);
		expect(await asked(round.id, '/trees/[id]/roots', { id: 'another' })).toBeNull();
		for (const route of [
			'/yard',
			'/yard/stock',
			'/trees/new',
			'/practice',
			'/api/v1/trees',
			'/reference/values'
		])
			expect(await asked(round.id, route), route).toBeNull();
		expect(await asked(undefined, '/trees/[id]/roots', own)).toBeNull();
		expect(await asked('no-such-round', '/trees/[id]/roots', own)).toBeNull();
	});

	it('is the yard again when the round is over, but for the pages of its tree, on which nothing is written', async () => {
		const round = await beginRound({ setCase: 2 }, me);
		await move(round.id, null, { move: 'end' });
		expect(await asked(round.id, '/')).toBeNull();
		expect(await asked(round.id, '/trees')).toBeNull();
		const own = { id: round.treeId };
		expect((await asked(round.id, '/trees/[id]/recovery', own))?.over).toBe(true);
		expect((await refusal(asked(round.id, '/trees/[id]/recovery', own, { method: 'POST' }))).status).toBe(
			409
		);
	});

	it('undoes in the round only what is undone on its pages', async () => {
		const round = await beginRound({ setCase: 4 }, me);
		const post = { method: 'POST' };
		expect(
			await asked(round.id, '/undo', {}, { ...post, referer: 'http://localhost/trees/another/roots' })
		).toBeNull();
		// Today and the list of trees are those of the round as long as it goes on.
		expect((await asked(round.id, '/undo', {}, { ...post, referer: 'http://localhost/' }))?.id).toBe(
			round.id
		);
		expect(
			await asked(round.id, '/undo', {}, { ...post, referer: 'http://localhost/yard/stock' })
		).toBeNull();
		expect(await asked(round.id, '/undo', {}, { ...post, referer: 'nowhere' })).toBeNull();
		expect(
			(
				await asked(
					round.id,
					'/undo',
					{},
					{ ...post, referer: `http://localhost/trees/${round.treeId}/roots` }
				)
			)?.id
		).toBe(round.id);
	});

	it('takes no pictures of a practice tree', async () => {
		const round = await beginRound({ setCase: 4 }, me);
		const own = { id: round.treeId };
		expect(
			(await refusal(asked(round.id, '/trees/[id]/recovery/pictures', own, { method: 'POST' }))).status
		).toBe(409);
		expect(
			(await refusal(asked(round.id, '/trees/[id]/roots', own, { method: 'POST', search: '?/picture' })))
				.status
		).toBe(409);
		expect(await asked(round.id, '/trees/[id]/recovery/pictures', own)).not.toBeNull();
	});

	it('is read where it answers by itself, not by what somebody types', async () => {
		const round = await beginRound({ setCase: 4 }, me);
		const own = { id: round.treeId };
		for (const [route, search] of [
			['/trees/[id]/examine/measure', '?/measure'],
			['/trees/[id]/aftercare', '?/felt'],
			['/trees/[id]/recovery', '?/look']
		] as const)
			expect((await refusal(asked(round.id, route, own, { method: 'POST', search }))).message, route).toMatch(
				/At the tree/
			);
		expect(
			await asked(round.id, '/trees/[id]/aftercare', own, { method: 'POST', search: '?/water' })
		).not.toBeNull();
	});

	it('keeps both of two things that are done at once', async () => {
		const round = await beginRound({ setCase: 2 }, me);
		await Promise.all([
			move(round.id, null, { move: 'see', signId: 'sour-smell' }),
			move(round.id, null, { move: 'see', signId: 'dieback-hollow' })
		]);
		expect((await actsOf(round.id)).filter((act) => act.what === 'check')).toHaveLength(2);
	});
});
