import { addDays } from '../../core/maths/calendar';
import { actsOfDay } from '../../core/practice/acts-of';
import { judged } from '../../core/practice/judged';
import { playRound, canShow, seenOf, type PlayedRound } from '../../core/practice/played';
import { dateOf, practiceTree, type PracticeTree } from '../../core/practice/practice-tree';
import { feltOf, leavesOf, rootsOf, weightOf } from '../../core/practice/read';
import {
	careRule,
	practiceAct,
	remedyNames,
	type CareRule,
	type PracticeAct,
	type Reading,
	type Remedy
} from '../../core/practice/round';
import type { MoveAnswer, PracticeMove, PracticeNow } from '../../core/practice/moves';
import { wateringInput } from '../../core/aftercare/water/watering';
import { feels, feltDryness } from '../../core/examine/measuring/moisture';
import { examinationInput } from '../../core/examine/diagnosis/examination';
import { measurementInput } from '../../core/examine/measuring/measurement';
import { nothingSeen } from '../../core/examine/looks/observation';
import type { Factor } from '../../core/tree/changes';
import { percent } from '../../core/text/percent';
import { inUnit } from '../../core/text/measured';
import type { Store } from '../db/database';
import { invalid, Refusal } from '../errors';
import { recordChange, recordExamination, recordMeasurement } from '../examine';
import { recordLook } from '../recovery';
import { places } from '../records/records';
import { loadRecords } from '../records/tree-records';
import { saveRoots } from '../roots';
import { readSetting, writeSetting } from '../settings';
import { recordWatering } from '../water';
import { setCases } from '../../core/practice/set-cases';
import { storyOf } from './begin';
import { keepProgress, practiceValues, roundOf, roundStore, type RoundRow } from './rounds';
import { practisingAs, type RoundUnderWay } from './under-way';
import { writeForecast, writeWeather } from './weather-of';
import { now } from '../clock';

/** A round with its tree, as far as it is. */
export interface OpenRound {
	row: RoundRow;
	tree: PracticeTree;
}

/** A round of a person with its tree. @throws Refusal 404 */
export async function openRound(id: string, byId: string | null): Promise<OpenRound> {
	const row = await roundOf(id, byId);
	return { row, tree: practiceTree(row.wish, practiceValues) };
}

const atWork = <T>({ row, tree }: OpenRound, day: number, work: (store: Store) => Promise<T>): Promise<T> =>
	practisingAs(
		{
			id: row.id,
			treeId: row.treeId,
			day,
			today: dateOf(tree, day),
			over: row.endedAt !== null,
			store: () => roundStore(row.id)
		},
		async () => work(await roundStore(row.id))
	);

/** The care that stands. */
export const careOf = (acts: readonly PracticeAct[]): CareRule =>
	acts.flatMap((act) => (act.what === 'care' ? [act.rule] : [])).at(-1) ?? careRule.parse({});

/**
 * Does a move of a trainee.
 * @throws Refusal 404 · 409 the round is over, or went on elsewhere · 422
 */
export async function move(id: string, byId: string | null, input: PracticeMove): Promise<MoveAnswer> {
	const open = await openRound(id, byId);
	const { row, tree } = open;
	if (row.endedAt !== null)
		throw new Refusal(409, 'This round is over.', 'Look at how it was judged, or begin another.');
	const keep = async (
		acts: PracticeAct[],
		told: string,
		more: Partial<MoveAnswer> = {}
	): Promise<MoveAnswer> => {
		await keepProgress(row, { acts: acts.map((act) => practiceAct.parse(act)) });
		return { told, day: row.day, over: false, ...more };
	};
	const { day } = row;
	const played = (): PlayedRound => playRound(tree, row.acts, day);
	switch (input.move) {
		case 'see': {
			if (!canShow(tree, day, input.signId))
				throw invalid([{ field: 'signId', message: 'cannot show on this tree now' }]);
			const grade = seenOf(tree, played(), input.signId);
			const known = row.acts.some(
				(act) => act.what === 'check' && act.day === day && act.signId === input.signId
			);
			return known
				? { told: '', grade, day, over: false }
				: keep([{ what: 'check', day, signId: input.signId }], '', { grade });
		}
		case 'read':
			return read(open, input.reading, played(), keep);
		case 'say':
			return keep([{ what: 'say', day, chances: input.chances }], 'Kept: it is held against what was true.');
		case 'treat': {
			const { remedy, forDays } = input;
			await atWork(open, day, (store) =>
				recordChange(store, row.treeId, {
					changedOn: dateOf(tree, day),
					factors: [factorOf[remedy] ?? 'treatment'],
					note: `Practice: ${remedyNames[remedy]}${forDays === null ? '' : `, for ${forDays} days`}.`
				})
			);
			return keep(
				[{ what: 'treat', day, remedy, untilDay: forDays === null ? null : day + forDays, loss: 0 }],
				`Done: ${remedyNames[remedy]}.`
			);
		}
		case 'care':
			return keep([{ what: 'care', day, rule: input.rule }], 'Kept: so it is cared for while days go by.');
		case 'days':
			return pass(open, input.days);
		case 'end':
			return pass(open, tree.days - day);
	}
}

/** What is changed about a tree by a remedy, as changes are told. */
const factorOf: Partial<Record<Remedy, Factor>> = {
	'free-roots': 'roots-cut',
	'cut-rot': 'roots-cut',
	'open-ball': 'roots-cut',
	'new-mix': 'mix',
	'smaller-pot': 'pot',
	'larger-pot': 'pot',
	soak: 'watering',
	flush: 'watering',
	turn: 'watering',
	shelter: 'place',
	shade: 'light',
	light: 'light'
};

/** Reads something off the tree and writes it down where a person would have. */
async function read(
	open: OpenRound,
	reading: Reading,
	played: PlayedRound,
	keep: (acts: PracticeAct[], told: string) => Promise<MoveAnswer>
): Promise<MoveAnswer> {
	const { row, tree } = open;
	const { day } = row;
	const on = dateOf(tree, day);
	const act: PracticeAct = { what: 'read', day, reading };
	switch (reading) {
		case 'leaves': {
			const look = leavesOf(tree, played);
			await atWork(open, day, (store) => recordLook(store, row.treeId, look, false));
			const said = [
				look.leafState === 'dropped'
					? 'no leaf is left'
					: look.leafCover === null
						? 'it is bare for the season'
						: `${percent(look.leafCover)} of its crown in leaf`,
				...(look.leafState && look.leafState !== 'dropped' ? [`leaves ${look.leafState}`] : []),
				...(look.shootExtensionMm === null ? [] : [`shoots ${inUnit(look.shootExtensionMm, 'mm')}`]),
				look.firmness === 'firm'
					? 'it stands firm'
					: look.firmness === 'moves'
						? 'it rocks a little'
						: 'it moves at the base',
				look.smell === 'none' ? 'no smell' : `it smells ${look.smell ?? ''}`
			];
			return keep([act], `Looked at: ${said.join(', ')}. Kept under Recovery.`);
		}
		case 'water': {
			const { dryness, words } = feltOf(tree, played);
			const feel = [...feels].sort(
				(a, b) =>
					Math.abs(feltDryness(a, practiceValues) - dryness) -
					Math.abs(feltDryness(b, practiceValues) - dryness)
			)[0];
			await atWork(open, day, (store) =>
				recordMeasurement(
					store,
					row.treeId,
					measurementInput.parse({
						measuredOn: on,
						raw: { tool: 'moisture', feel: feel ?? 'damp', probeShare: null },
						note: ''
					})
				)
			);
			return keep([act], `Felt two knuckles deep: ${words}.`);
		}
		case 'weight': {
			const weightKg = weightOf(tree, played);
			if (weightKg === null)
				throw invalid([{ field: 'reading', message: 'cannot be weighed: it stands in the ground' }]);
			await atWork(open, day, (store) =>
				recordLook(store, row.treeId, { ...nothingSeen, observedOn: on, weightKg }, false)
			);
			return keep([act], `It weighs ${inUnit(weightKg, 'kg')}.`);
		}
		case 'roots': {
			await atWork(open, day, async (store) => {
				const { rootMap, plan } = await loadRecords(store.db, row.treeId);
				if (rootMap)
					throw new Refusal(409, 'Its roots are on the map already.', 'Go on with them under Roots.');
				const map = rootsOf(tree, played);
				return saveRoots(store, row.treeId, {
					map,
					mapVersion: null,
					planVersion: plan?.version ?? null,
					plan: {
						temper: 'usual',
						vigour: tree.truth.vigour,
						reserves: 'few-years-potted',
						stageDates: [on],
						cuts: [],
						notBefore: [],
						consents: [],
						setting: null
					}
				});
			});
			return keep([act], 'Its roots are bare and on the map, under Roots.');
		}
	}
}

/** Lets days go by: what was done today counts, then its weather comes, and it is cared for as was chosen. */
async function pass(open: OpenRound, days: number): Promise<MoveAnswer> {
	const { row, tree } = open;
	const from = row.day;
	const to = Math.min(tree.days, from + days);
	const acts = [...row.acts];
	const before = playRound(tree, acts, from);
	const newActs = await atWork(open, from, async (store) => {
		await keepLook(store, open, before);
		const records = { ...(await loadRecords(store.db, row.treeId)), places: await places.list(store.db) };
		return actsOfDay(tree, records, dateOf(tree, from), {
			placeBefore: await placeAt(store, row, records.tree.placeId),
			begun: before
		});
	});
	const done = newActs.map((act) => practiceAct.parse(act));
	acts.push(...done);
	const whole = playRound(tree, acts, to);
	// It is found dead on the day that it died.
	const day = whole.diedOn !== null && whole.diedOn > from ? Math.min(to, whole.diedOn) : to;
	const over = day >= tree.days || whole.diedOn !== null;
	const ended = over ? judged(tree, acts, percent) : null;
	await keepProgress(row, {
		day,
		acts: done,
		...(ended && { endedAt: now().toISOString(), judged: ended })
	});
	await atWork(open, day, async (store) => {
		await writeWeather(store, tree, [from, day]);
		const poured = whole.days.filter((one) => one.watered && one.day > from && one.day <= day);
		const byHand = new Set(acts.flatMap((act) => (act.what === 'water' ? [act.day] : [])));
		for (const one of poured)
			if (!byHand.has(one.day - 1))
				await recordWatering(
					store,
					row.treeId,
					wateringInput.parse({ wateredOn: dateOf(tree, one.day - 1), litres: null, note: '' })
				);
		if (!over) await writeForecast(store, tree, day);
		await keepPlace(store, row);
	});
	return { told: toldOf(tree, whole, from, day, over), day, over };
}

/** Signs that were looked for and not kept as a look are one all the same: what was seen is not forgotten overnight. */
async function keepLook(store: Store, { row, tree }: OpenRound, played: PlayedRound): Promise<void> {
	const examinedOn = dateOf(tree, row.day);
	const { examinations } = await loadRecords(store.db, row.treeId);
	const kept = new Set(
		examinations
			.filter((one) => one.examinedOn === examinedOn)
			.flatMap((one) => one.findings.map((of) => of.signId))
	);
	const signs = new Set(
		row.acts.flatMap((act) => (act.what === 'check' && act.day === row.day ? [act.signId] : []))
	);
	const findings = [...signs]
		.filter((signId) => !kept.has(signId))
		.map((signId) => ({ signId, grade: seenOf(tree, played, signId), measuredBy: null }));
	if (findings.length > 0)
		await recordExamination(
			store,
			row.treeId,
			examinationInput.parse({
				examinedOn,
				findings,
				events: kept.size === 0 && row.day === 0 ? tree.truth.events : [],
				note: ''
			})
		);
}

const PLACE = 'practice-place';
/** Where it stood when the day began: kept with the yard of the round. */
async function placeAt(store: Store, row: RoundRow, now: string): Promise<string> {
	const kept = await readSetting(store.db, PLACE);
	return row.day === 0 || typeof kept !== 'string' ? await firstPlace(store, row, now) : kept;
}
async function firstPlace(store: Store, row: RoundRow, now: string): Promise<string> {
	const { tree } = await loadRecords(store.db, row.treeId);
	const all = await places.list(store.db);
	const { truth } = practiceTree(row.wish, practiceValues);
	const name =
		truth.place.kind === 'garden'
			? truth.place.name
			: truth.place.kind === 'open'
				? 'Practice bench'
				: 'Practice bay';
	return all.find((place) => place.name === name)?.id ?? tree.placeId ?? now;
}
async function keepPlace(store: Store, row: RoundRow): Promise<void> {
	const { tree } = await loadRecords(store.db, row.treeId);
	await writeSetting(store, PLACE, tree.placeId);
}

/** What a person would have met in the days that went by. */
function toldOf(tree: PracticeTree, played: PlayedRound, from: number, to: number, over: boolean): string {
	if (played.diedOn !== null) return 'It is dead. The round is over.';
	if (over) return 'The year is over, and it lives. The round is judged.';
	const days = played.days.slice(from, to);
	const coldest = Math.min(...days.map((day) => day.minC));
	const waterings = days.filter((day) => day.watered).length;
	const until = addDays(tree.truth.startOn, to);
	return `It is ${until}. ${days.length === 1 ? 'A day' : `${days.length} days`} went by, the coldest night ${inUnit(Math.round(coldest), '°C')}; ${
		waterings === 0
			? 'it was not watered'
			: waterings === 1
				? 'it was watered once'
				: `it was watered ${waterings} times`
	}.`;
}

/** What a page is told of the round under way: never what ails the tree. */
export async function practiceNow(round: RoundUnderWay, byId: string | null): Promise<PracticeNow> {
	const { row, tree } = await openRound(round.id, byId);
	const today = tree.outdoors[row.day - 1];
	return {
		id: row.id,
		treeId: row.treeId,
		day: row.day,
		days: tree.days,
		on: dateOf(tree, row.day),
		over: row.endedAt !== null,
		weather: today
			? { minC: Math.round(today.minC), maxC: Math.round(today.maxC), rainMm: Math.round(today.rainMm ?? 0) }
			: null,
		care: careOf(row.acts),
		said: row.acts.flatMap((act) => (act.what === 'say' ? [act.chances] : [])).at(-1) ?? null,
		story: storyOf(
			tree.truth,
			setCases.find((one) => one.number === row.setCase)
		),
		potted: tree.truth.planting !== null,
		checked: row.acts.flatMap((act) => (act.what === 'check' && act.day === row.day ? [act.signId] : [])),
		mapped: row.acts.some((act) => act.what === 'read' && act.reading === 'roots')
	};
}
