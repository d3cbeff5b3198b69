import { holds } from '../examine/diagnosis/open-causes';
import { fallWords } from '../aftercare/water/forecast';
import { wateringWayNames } from '../aftercare/water/watering';
import { firstWaterOpen, isFirstWater } from '../aftercare/tasks/pressing';
import { daysBetween } from '../maths/calendar';
import { measured } from '../text/measured';
import { midSentence } from '../text/mid-sentence';
import { percent } from '../text/percent';
import { sharedPotName } from '../take-in/tree';
import type { WaterState } from '../tree/water-state';
import type { Values } from '../values/values';
import { common, countOf, daysInWords, rises, risesSlowly, type TodayItem, type TodayTree } from './item';

/** Day on which its water was last poured, weighed, felt or read, by hand or by a device. */
const waterOn = ({ standing, water }: TodayTree): string | null =>
	[standing?.waterOn, water?.knownOn]
		.filter((on) => on !== null && on !== undefined)
		.sort()
		.at(-1) ?? null;

/** Potted trees whose water nobody knows any more; those of one place together, since one round answers them. */
export function unknownWaterItems(trees: readonly TodayTree[], today: string, values: Values): TodayItem[] {
	const unknown: TodayTree[] = [];
	// A dry rest has its first water on the list: nothing is asked beside it, nor of what stands in one pot with it.
	const resting = new Set(
		trees.flatMap((entry) =>
			entry.water?.restUntil || firstWaterOpen(entry.tasks, today) ? [potOf(entry)] : []
		)
	);
	for (const entry of trees) {
		if (entry.tree.state !== 'in-care' || !entry.standing?.pottedOn || resting.has(potOf(entry))) continue;
		const last = waterOn(entry);
		const since = daysBetween(last ?? entry.standing.pottedOn, today);
		if (last === null || since > values['decision.waterKnownDays']) unknown.push(entry);
	}
	return grouped(unknown, ({ place }) => place.id).flatMap((group) => {
		const pots = grouped(group, potOf);
		return (pots.length < values['today.groupFrom'] ? pots : [group]).flatMap((asked) =>
			asked.slice(0, 1).map((first) => unknownWaterItem(first, asked, today, values))
		);
	});
}

function unknownWaterItem(
	first: TodayTree,
	group: readonly TodayTree[],
	today: string,
	values: Values
): TodayItem {
	const dryFrom = group
		.map(({ water }) => water?.earliest ?? null)
		.filter((on) => on !== null)
		.sort()[0];
	const longest = Math.max(
		...group.map((entry) => daysBetween(waterOn(entry) ?? entry.standing?.pottedOn ?? today, today))
	);
	const last = waterOn(first);
	const one = grouped(group, potOf).length === 1;
	const plants = countOf(first);
	const heavy = first.standing?.tooHeavy === true;
	return {
		...together(group, first),
		urgency: values['today.rank.unknownWater'] + risesSlowly(longest, values),
		level: 'due',
		sentence: one
			? group.length > 1
				? `The water of their pot is not known: ${heavy ? 'feel or probe it' : 'lift it or feel it'} now`
				: plants > 1
					? `The water of these ${plants} is not known: lift or feel them now`
					: `Its water is not known: ${heavy ? 'feel or probe it' : 'lift it or feel it'} now`
			: `Water of ${group.length} trees is not known: lift or feel them now`,
		reason: `${
			!one
				? 'Nobody wrote down for weeks, or ever, what tells how dry they are: a watering, a feel, or a weight to set against one after water.'
				: last === null
					? `Nobody wrote down a watering or a feel since ${first.standing?.pottedOn ?? ''}, nor a weight that tells how dry it is.`
					: `It was last known on ${last}, when it was poured, weighed or felt.`
		}${dryFrom === undefined ? '' : dryFrom <= today ? ' It may be dry already.' : ` It may be dry from ${dryFrom} on.`}`,
		figure: one && last !== null ? daysInWords(longest) : 'not known',
		stage: 'aftercare',
		task: null
	};
}

/** The pot a tree stands in: shared with others by its name, else its own. */
const potOf = ({ tree }: TodayTree): string =>
	(tree.situation === 'potted' && sharedPotName(tree.sharedPot)) || tree.id;

/** Trees by what they share, in their order. */
function grouped(trees: readonly TodayTree[], of: (entry: TodayTree) => string): TodayTree[][] {
	const by = new Map<string, TodayTree[]>();
	for (const entry of trees) {
		const group = by.get(of(entry));
		if (group) group.push(entry);
		else by.set(of(entry), [entry]);
	}
	return [...by.values()];
}

/** A line that is told of several trees, or of one. */
const together = (group: readonly TodayTree[], first: TodayTree) => ({
	...common(first),
	...(group.length > 1 && {
		treeName: group.map(({ tree }) => tree.tag).join(', '),
		group: group.map(({ tree }) => ({ id: tree.id, tag: tree.tag }))
	})
});

/**
 * The next watering of each pot, when it is near, and what is wrong with its water: of what stands in one pot it is told once. Where one of
 * them is to be watered less, all of them are.
 */
export function waterItems(
	trees: readonly TodayTree[],
	today: string,
	moves: ReadonlyMap<string, readonly { id: string; move: number }[]>,
	values: Values
): TodayItem[] {
	return grouped(trees, potOf).flatMap((inOne) => {
		const ids = new Set(inOne.map(({ tree }) => tree.id));
		const asked = inOne.flatMap((entry) => {
			// What stands in the same pot is weighed with it, and is no neighbour to compare it with.
			const others = (moves.get(entry.place.id) ?? []).filter(({ id }) => !ids.has(id));
			return waterItemsOf(
				entry,
				today,
				others.map(({ move }) => move),
				values
			);
		});
		const [first] = inOne;
		if (inOne.length === 1 || !first) return asked.map(({ item }) => item);
		const feel = asked.some(({ what }) => what === 'feel');
		const told = new Map<string, TodayItem>();
		for (const { what, item } of asked) {
			if (feel && what === 'pour') continue;
			// By each of them it is reckoned a little otherwise: the most pressing is told. What is wrong is told as often as it differs.
			const key = what === 'wrong' ? item.sentence : 'next';
			const before = told.get(key);
			if (!before || before.urgency < item.urgency) told.set(key, item);
		}
		const { treeName, group } = together(inOne, first);
		return [...told.values()].map((item) => ({ ...item, treeName, group }));
	});
}

/** What a line about water asks for: to pour, to feel first, or to see what is wrong. */
interface WaterAsked {
	what: 'pour' | 'feel' | 'wrong';
	item: TodayItem;
}

/**
 * The same of one tree.
 * @param neighbours how others of its place moved, as factors
 */
function waterItemsOf(
	entry: TodayTree,
	today: string,
	neighbours: readonly number[],
	values: Values
): WaterAsked[] {
	const { water } = entry;
	if (water?.firstOwedFrom && !entry.tasks.some(isFirstWater))
		return [{ what: 'pour', item: firstWaterItem(entry, water.firstOwedFrom, values) }];
	// What nobody touched for long is asked for, not reckoned on.
	if (!water || water.from === 'assumed') return [];
	if (
		water.from !== 'ground' &&
		(water.knownOn === null || daysBetween(water.knownOn, today) > values['decision.waterKnownDays'])
	)
		return [];
	const wrong = [...water.alarms, ...(water.fall ? [fallWords(water.fall, neighbours, values)] : [])];
	const next = nextWater(entry, water, today, values);
	return [
		...wrong.map((text): WaterAsked => ({
			what: 'wrong',
			item: {
				...common(entry),
				urgency: values['today.rank.alarm'],
				level: 'due',
				sentence: text,
				reason: `Root function ${percent(water.phi)}, between ${Math.round(water.low * 100)} and ${Math.round(water.high * 100)}.`,
				figure: `${percent(water.dryness)} dry`,
				stage: 'aftercare',
				task: null
			}
		})),
		...(next ? [next] : [])
	];
}

/** Set in the ground, and nobody wrote down that it was watered in. */
const firstWaterItem = (entry: TodayTree, setOn: string, values: Values): TodayItem => ({
	...common(entry),
	urgency: values['today.rank.water'],
	level: 'now',
	sentence: `Give ${countOf(entry) > 1 ? 'them their' : 'it its'} first water: soak the ground over the roots`,
	reason: `Set in the ground on ${setOn}; nobody wrote down that it was watered in. Soil and roots are to meet, without air between them.`,
	figure: 'not written',
	stage: 'aftercare',
	task: null
});

/** Its next watering, or the feel that comes before it where what presses wants less water; null where it is not near. */
function nextWater(entry: TodayTree, water: WaterState, today: string, values: Values): WaterAsked | null {
	if (water.nextOn === null) return null;
	const until = daysBetween(today, water.nextOn);
	if (until > values['today.waterAheadDays']) return null;
	const dry = `${percent(water.dryness)} dry`;
	const soon = values['today.rank.soon'] - until;
	const less = entry.standing?.urgent?.water === 'less' ? entry.standing.urgent : null;
	if (less)
		return {
			what: 'feel',
			item: {
				...common(entry),
				urgency: until <= 0 ? values['today.rank.feel'] : soon,
				level: until <= 0 ? 'due' : 'soon',
				sentence: 'Feel it a finger deep before any water',
				reason: `It is reckoned ${dry}${until > 0 ? ` today, and may want water on ${water.nextOn}` : ''}, but ${midSentence(holds(less))}: it is watered less, and only where it is dry.`,
				figure: until <= 0 ? dry : `in ${daysInWords(until)}`,
				stage: 'aftercare',
				task: null
			}
		};
	const late = water.latest !== null && water.latest < today;
	return {
		what: 'pour',
		item: {
			...common(entry),
			urgency:
				until <= 0
					? values[late ? 'today.rank.waterLate' : 'today.rank.water'] + rises(-until, values)
					: soon,
			level: until <= 0 ? 'now' : 'soon',
			sentence: `${pourWords(countOf(entry), water)}, ${wateringWayNames[water.way]}`,
			reason: `${water.reason} ${water.rainPerhaps ? `Had no rain fallen but what was measured, it would be ${dry}` : `${dry} today`}${water.earliest && water.latest && water.earliest !== water.latest ? `; between ${water.earliest} and ${water.latest}, by what is known of its roots` : ''}.`,
			figure: until > 0 ? `in ${daysInWords(until)}` : water.rainPerhaps ? 'perhaps dry' : dry,
			stage: 'aftercare',
			pourL: Math.round(water.litres * 100) / 100,
			task: null
		}
	};
}

/** What each plant of a lot gets, or the one tree. */
function pourWords(
	plantCount: number,
	{ litres, rainPerhaps }: Pick<WaterState, 'litres' | 'rainPerhaps'>
): string {
	const lot = plantCount > 1;
	const what = lot ? `all ${plantCount}: ${litresInWords(litres)} each` : `it: ${litresInWords(litres)}`;
	return rainPerhaps ? `Feel ${lot ? 'some' : 'it'} first; if dry, water ${what}` : `Water ${what}`;
}

const litresInWords = (litres: number): string =>
	litres < 1 ? measured(Math.round(litres * 100) * 10, 'ml') : measured(litres, 'L');
