import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { advise } from '$core/examine/diagnosis/advice';
import { diagnose } from '$core/examine/diagnosis/diagnose';
import { decisionsDue } from '$core/recovery/decisions';
import { recoveryForecast } from '$core/recovery/forecast';
import { walkingRound, todayItems } from '$core/today/today';
import { ballOf, ballToWork } from '$core/tree/ball';
import { beforeWorkBegin, triageSubjectOf } from '$core/tree/before-work';
import { bookFacts } from '$core/tree/booked';
import { carriedOver, contextFor, eventsTold, foundLately } from '$core/tree/carried';
import { daysOfChange, changedTogether } from '$core/tree/changes';
import { checkNow } from '$core/tree/closer';
import { gateOf, releaseFacts, stillWaitedFor } from '$core/tree/gate';
import { lineOfCare } from '$core/tree/line-of-care';
import { standingLines } from '$core/tree/lines';
import { looksSeen } from '$core/tree/looks';
import { lastRootWork, liftsDone, rootLosses, rootsGone } from '$core/tree/losses';
import { plannedWork } from '$core/tree/planned';
import { recoverySince } from '$core/tree/recovery-case';
import { rotKnown, rotLeft } from '$core/tree/rot-known';
import { standingOf } from '$core/tree/standing';
import { treeDemand } from '$core/tree/tree-demand';
import { urgentOf } from '$core/tree/urgent';
import { defaultValues as values } from '$core/values/values';
import { proposeAftercare } from '$lib/server/aftercare';
import { recoveryOf } from '$lib/server/recovery';
import { trees } from '$lib/server/records/records';
import { loadRecords } from '$lib/server/records/tree-records';
import { waterOf } from '$lib/server/water';
import { todayTrees } from '$lib/server/tree-lists';
import type { Store } from '$lib/server/db/database';
import { crownSchools, waterSchools } from '$core/vocabulary/words';
import { demoTrees } from '../../src/demo/scenario';
import { printOf } from '../kept';
import { demoStore } from './helpers';

type Records = Awaited<ReturnType<typeof loadRecords>>;

/** What the yard says of its trees on a day, from its records alone. */
const said: Record<string, (records: Records, on: string) => unknown> = {
	stands: (records, on) => standingOf(records, on, values),
	lines: (records, on) => standingLines(standingOf(records, on, values)),
	urgent: (records, on) => urgentOf(records, on, values),
	'line of care': (records, on) => lineOfCare(records, on, values),
	ball: (records, on) => [ballOf(records, on, values), ballToWork(records, on, values)],
	'before the work': (records, on) => [
		beforeWorkBegin(records, on, values),
		triageSubjectOf(records, records.kind, placeOf(records), on, values)
	],
	book: (records, on) => bookFacts(records, on, values),
	'carried over': (records, on) => {
		const before = records.examinations.at(-1);
		const events = eventsTold(records, on, values);
		return [
			events,
			foundLately(records, on, values),
			before ? carriedOver(records, placeOf(records), before, on, values) : null,
			contextFor(records, on, events, null, values)
		];
	},
	causes: (records, on) => {
		const look = records.examinations.at(-1);
		const events = eventsTold(records, on, values);
		if (!look) return null;
		const { context } = contextFor(records, on, events, look.id, values);
		const found = diagnose(context, look.findings, values);
		const standing = {
			seasonFit: 'in-window' as const,
			vigour: records.tree.vigour,
			windowOn: null,
			monthsToWindow: 0,
			failingFast: false,
			girdledOverThird: false
		};
		return [
			found,
			advise(found, context, look.findings, standing, values),
			advise(
				found,
				context,
				look.findings,
				{ ...standing, seasonFit: 'out-of-window', monthsToWindow: 5 },
				values
			)
		];
	},
	check: (records, on) => checkNow(records, placeOf(records), on, values),
	changes: (records) => changedTogether(daysOfChange(records.factorChanges, records.plantings, records.plan)),
	waits: (records, on) => [
		stillWaitedFor(records, on, values),
		gateOf(records, 120, values),
		releaseFacts(records, [], 120, values)
	],
	looks: (records) => looksSeen(records, values),
	losses: (records) => [
		rootLosses(records, values),
		liftsDone(records, values),
		rootsGone(records, values),
		lastRootWork(records, values),
		recoverySince(records, values)
	],
	planned: (records, on) => plannedWork(records, on, values),
	rot: (records, on) => [rotKnown(records, on, values), rotLeft(records, on, values)],
	demand: (records, on) => {
		const place = placeOf(records);
		return place ? treeDemand(records, place, on, values) : null;
	}
};

/** What takes long is asked less often. */
const DEAR = ['causes', 'check'];

function placeOf({ places, tree }: Records) {
	return places.find(({ id }) => id === tree.placeId) ?? null;
}

/** The same tree with less known of it, or elsewhere: what is told one way alone does not pass for a rule. */
const less: Partial<Records>[] = [
	{ examinations: [] },
	{ measurements: [] },
	{ observations: [] },
	{ plantings: [] },
	{ tasks: [] },
	{ lifts: [] },
	{ book: [] },
	{ waterings: [] },
	{ triages: [] },
	{ rootMap: null, plan: null }
];
const otherwise: ((records: Records) => Records)[] = [
	...less.map((change) => (records: Records): Records => ({ ...records, ...change })),
	(records) => ({
		...records,
		places: records.places.map((place) => ({
			...place,
			latitudeDeg: -place.latitudeDeg,
			kind: 'greenhouse' as const
		}))
	}),
	...(['potted', 'in-ground', 'just-lifted'] as const).map((situation) => (records: Records): Records => ({
		...records,
		tree: { ...records.tree, situation }
	}))
];
const days = ['2026-04-18', '2026-05-20', '2026-07-30', '2026-10-05', '2027-02-10', '2027-06-01'];

let store: Store;
beforeAll(async () => {
	store = await demoStore();
});
const begunAt = process.env.BRUNTLE_NOW;
afterAll(() => {
	process.env.BRUNTLE_NOW = begunAt;
});

/** Identities are made anew with each yard: they count as the first, second … that was met. */
function named(): (answer: unknown) => unknown {
	const met = new Map<string, string>();
	return (answer) =>
		JSON.parse(
			(JSON.stringify(answer) ?? 'null').replace(/[0-9a-f]{8}-[0-9a-f-]{27}/g, (id) => {
				const known = met.get(id) ?? `id${met.size}`;
				met.set(id, known);
				return known;
			})
		);
}

/** What is said of a tree from its records alone, through a year, and where less is known. */
function byRecords(records: Records): [what: string, answers: unknown][] {
	const asked: [Records, string][] = [
		...days.map((day): [Records, string] => [records, day]),
		...otherwise.map((change, at): [Records, string] => [change(records), days[at % days.length] ?? ''])
	];
	return Object.entries(said).map(([what, of]) => [
		what,
		asked.filter((_, at) => !DEAR.includes(what) || at % 5 === 0).map(([one, day]) => of(one, day))
	]);
}

/** What is said of a tree on a day with its weather and its water. */
async function byWater(records: Records, on: string): Promise<[what: string, answers: unknown][]> {
	process.env.BRUNTLE_NOW = `${on}T09:00:00Z`;
	const of = await recoveryOf(store.db, records, values);
	const workOn = recoverySince(records, values).on;
	return [
		['recovery', of],
		[
			'decisions',
			of && [0.3, 0.7, 0.95].map((probability) => decisionsDue({ ...of.facts, probability }, values))
		],
		['forecast', of && recoveryForecast(of.case, values)],
		['water', await waterOf(store.db, records.tree.id, values)],
		[
			'aftercare',
			crownSchools.flatMap((crownSchool) =>
				waterSchools.map((waterSchool) =>
					proposeAftercare(records, { workOn, crownSchool, waterSchool }, values)
				)
			)
		]
	];
}
const waterDays = ['2026-04-18', '2026-06-20', '2026-10-05'];

describe('what the invented yard says is what it said', () => {
	it.each(demoTrees.map(({ input }) => input.tag))('of %s', async (tag) => {
		const tree = (await trees.list(store.db)).find((one) => one.tag === tag);
		const records = await loadRecords(store.db, tree?.id ?? '');
		const lines = byRecords(records).map(
			([what, answers]) => `${what} ${printOf(`yard ${what}`, named()(answers))}`
		);
		for (const on of waterDays)
			for (const [what, answers] of await byWater(records, on))
				lines.push(`${on} ${what} ${printOf(`yard ${what}`, named()(answers))}`);
		await expect(`${lines.join('\n')}\n`).toMatchFileSnapshot(`../kept/yard/${tag}.txt`);
	});

	it('on Today', async () => {
		const lines: string[] = [];
		for (const on of waterDays) {
			const items = todayItems(await todayTrees(store.db, on), on, values);
			lines.push(`${on} ${printOf('yard today', named()([items, walkingRound(items, values)]))}`);
		}
		await expect(`${lines.join('\n')}\n`).toMatchFileSnapshot('../kept/yard/today.txt');
	});
});
