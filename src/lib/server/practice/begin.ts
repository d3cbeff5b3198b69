import { randomUUID } from 'node:crypto';
import { addDays } from '../../core/maths/calendar';
import { createRandom } from '../../core/maths/random';
import { midSentence } from '../../core/text/mid-sentence';
import { practiceTree } from '../../core/practice/practice-tree';
import { practiceWish, SEED_MOST, type PracticeWish } from '../../core/practice/round';
import { setCases, type SetCase } from '../../core/practice/set-cases';
import { bayOf, type PracticeTruth } from '../../core/practice/truth';
import { recentEventNames } from '../../core/vocabulary/season-and-events';
import type { ConditionId } from '../../core/vocabulary/conditions';
import { treeInput } from '../../core/take-in/tree';
import { placeInput } from '../../core/vocabulary/place';
import { simulateWeather } from '../../core/simulate/weather';
import { listed } from '../../core/text/plural';
import { readFormatSettings, writeSetting } from '../settings';
import { seedKinds, yardStore } from '../store';
import { recordPlanting } from '../replant';
import { takeIn } from '../trees';
import { actingAs } from '../acting';
import { now } from '../clock';
import { keepWeather } from '../weather';
import { addPlace } from '../yard';
import { keepRound, newRoundStore, practiceValues, removeRound, roundsOf, type RoundRow } from './rounds';
import { practisingAs } from './under-way';
import { writeForecast } from './weather-of';

/** Days of weather that are known when a tree is taken in. */
const KNOWN_DAYS = 60;
/** Rounds that are looked back on for what a trainee judged badly. */
const LOOKED_BACK = 8;

/** Causes that somebody judged badly in the last rounds: they come oftener. */
export async function weakOf(byId: string | null): Promise<ConditionId[]> {
	const rounds = (await roundsOf(byId)).filter((round) => round.judged).slice(0, LOOKED_BACK);
	const times = new Map<ConditionId, number>();
	for (const { judged } of rounds)
		for (const id of judged?.weak ?? []) times.set(id, (times.get(id) ?? 0) + 1);
	return [...times]
		.sort((a, b) => b[1] - a[1])
		.slice(0, 4)
		.map(([id]) => id);
}

/** A seed that nobody chose. @returns whole number from 0 */
export const anySeed = (): number =>
	Math.floor(createRandom(Date.now() ^ Math.floor(Math.random() * SEED_MOST)).next() * SEED_MOST);

/** What is told of a tree when it comes in. */
export const storyOf = (truth: PracticeTruth, set: SetCase | undefined): string =>
	[
		...(set ? [set.story] : []),
		...(truth.events.length > 0
			? [`Told when it came: ${listed(truth.events.map((event) => recentEventNames[event]))}.`]
			: [])
	].join(' ');

/**
 * Begins a round: draws the tree, makes it a yard of its own, and takes it in there.
 * @param of a set case by its number, or a wish
 */
export async function beginRound(
	of: { setCase: number } | { wish: PracticeWish },
	who: { id: string | null; name: string }
): Promise<RoundRow> {
	const set = 'setCase' in of ? setCases.find((one) => one.number === of.setCase) : undefined;
	const wish = practiceWish.parse(set?.wish ?? ('wish' in of ? of.wish : {}));
	const tree = practiceTree(wish, practiceValues);
	const { truth } = tree;
	const id = randomUUID();
	const startedAt = now().toISOString();
	const { db } = await yardStore();
	const format = await readFormatSettings(db);
	const store = await newRoundStore(id);
	const round = {
		id,
		treeId: '',
		day: 0,
		today: truth.startOn,
		over: false,
		store: () => Promise.resolve(store)
	};
	// Begun by a form of today, it is written as of its own day.
	const act = { id, at: `${truth.startOn}${startedAt.slice(10)}`, today: truth.startOn };
	const make = <T>(work: () => Promise<T>): Promise<T> =>
		practisingAs(round, () => actingAs(act, who.id, work));
	const treeId = await make(async () => {
		await seedKinds(store);
		await writeSetting(store, 'format', format);
		const { kind: _kind, ...where } = truth.place;
		const bench = await addPlace(
			store,
			placeInput.parse({
				...where,
				name: 'Practice bench',
				kind: 'open',
				heldMinimumC: null,
				light: truth.conditions.includes('low-light') && truth.place.kind === 'open' ? 'shade' : 'sun'
			})
		);
		const bay = await addPlace(store, bayOf(truth.place));
		if (truth.conditions.includes('low-light'))
			await addPlace(
				store,
				placeInput.parse({
					...where,
					name: truth.place.kind === 'open' ? 'Practice terrace' : 'Practice window',
					kind: truth.place.kind === 'open' ? 'open' : 'heated',
					heldMinimumC: truth.place.kind === 'open' ? null : bayOf(truth.place).heldMinimumC,
					light: 'sun'
				})
			);
		const stands =
			truth.place.kind === 'garden'
				? await addPlace(store, placeInput.parse(truth.place))
				: truth.place.kind === 'open'
					? bench
					: bay;
		const { tree: taken } = await takeIn(
			store,
			treeInput.parse({
				tag: 'P-1',
				name: `Practice ${midSentence(truth.kind.commonName)}`,
				kindId: truth.kind.id,
				placeId: stands.id,
				situation: truth.situation,
				trunkDiameterMm: truth.trunkDiameterMm,
				heightM: truth.heightM,
				origin: '',
				permission: 'own',
				vigour: truth.vigour,
				reserves: 'few-years-potted',
				batch: '',
				watering: '',
				sharedPot: '',
				takenInOn: truth.startOn,
				note: storyOf(truth, set)
			})
		);
		if (truth.planting)
			await recordPlanting(
				store,
				taken.id,
				truth.planting,
				{ waterSchool: 'at-once', fromStock: null },
				practiceValues
			);
		await keepWeather(
			store,
			simulateWeather(
				{ ...truth.place, kind: 'open', heldMinimumC: null, id: bench.id },
				{ from: addDays(truth.startOn, -KNOWN_DAYS), to: truth.startOn },
				wish.seed % 100_000,
				practiceValues,
				{ source: 'station', from: 'practice station, simulated' }
			),
			practiceValues
		);
		await writeForecast(store, tree, 0);
		return taken.id;
	});
	const row: RoundRow = {
		id,
		byId: who.id,
		trainee: who.name,
		wish,
		setCase: set?.number ?? null,
		treeId,
		startedAt,
		endedAt: null,
		day: 0,
		acts: [],
		judged: null
	};
	try {
		await keepRound(row);
	} catch (cause) {
		await removeRound(id);
		throw cause;
	}
	return row;
}
