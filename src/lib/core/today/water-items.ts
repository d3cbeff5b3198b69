import { holds } from '../examine/diagnosis/open-causes';
import { fallWords } from '../aftercare/water/forecast';
import { wateringWayNames } from '../aftercare/water/watering';
import { firstWaterOpen, isFirstWater } from '../aftercare/tasks/pressing';
import { daysBetween } from '../maths/calendar';
import { measured } from '../text/measured';
import { midSentence } from '../text/mid-sentence';
import { percent } from '../text/percent';
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
	const byPlace = new Map<string, TodayTree[]>();
	for (const entry of trees) {
		if (entry.tree.state !== 'in-care' || !entry.standing?.pottedOn) continue;
		// A dry rest has its first water on the list: nothing is asked beside it.
		if (entry.water?.restUntil || firstWaterOpen(entry.tasks, today)) continue;
		const last = waterOn(entry);
		const since = daysBetween(last ?? entry.standing.pottedOn, today);
		if (last === null || since > values['decision.waterKnownDays']) {
			const group = byPlace.get(entry.place.id);
			if (group) group.push(entry);
			else byPlace.set(entry.place.id, [entry]);
		}
	}
	return [...byPlace.values()].flatMap((group) =>
		group.length < values['today.groupFrom']
			? group.map((entry) => unknownWaterItem(entry, [entry], today, values))
			: group.slice(0, 1).map((first) => unknownWaterItem(first, group, today, values))
	);
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
	const one = group.length === 1;
	const plants = countOf(first);
	return {
		...common(first),
		...(!one && {
			treeName: group.map(({ tree }) => tree.tag).join(', '),
			group: group.map(({ tree }) => ({ id: tree.id, tag: tree.tag }))
		}),
		urgency: values['today.rank.unknownWater'] + risesSlowly(longest, values),
		level: 'due',
		sentence: one
			? plants > 1
				? `The water of these ${plants} is not known: lift or feel them now`
				: 'Its water is not known: lift it or feel it now'
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

/** Its next watering, when it is near, and what is wrong with its water. */
export function waterItems(
	entry: TodayTree,
	today: string,
	moves: ReadonlyMap<string, readonly { id: string; move: number }[]>,
	values: Values
): TodayItem[] {
	const { water } = entry;
	if (water?.firstOwedFrom && !entry.tasks.some(isFirstWater))
		return [
			{
				...common(entry),
				urgency: values['today.rank.water'],
				level: 'now',
				sentence: `Give ${countOf(entry) > 1 ? 'them their' : 'it its'} first water: soak the ground over the roots`,
				reason: `Set in the ground on ${water.firstOwedFrom}; nobody wrote down that it was watered in. Soil and roots are to meet, without air between them.`,
				figure: 'not written',
				stage: 'aftercare',
				task: null
			}
		];
	// What nobody touched for long is asked for, not reckoned on.
	if (!water || water.from === 'assumed') return [];
	if (
		water.from !== 'ground' &&
		(water.knownOn === null || daysBetween(water.knownOn, today) > values['decision.waterKnownDays'])
	)
		return [];
	const neighbours = (moves.get(entry.place.id) ?? []).filter((one) => one.id !== entry.tree.id);
	const alarms = [
		...water.alarms,
		...(water.fall
			? [
					fallWords(
						water.fall,
						neighbours.map((one) => one.move),
						values
					)
				]
			: [])
	];
	const items: TodayItem[] = alarms.map((text) => ({
		...common(entry),
		urgency: values['today.rank.alarm'],
		level: 'due',
		sentence: text,
		reason: `Root function ${percent(water.phi)}, between ${Math.round(water.low * 100)} and ${Math.round(water.high * 100)}.`,
		figure: `${percent(water.dryness)} dry`,
		stage: 'aftercare',
		task: null
	}));
	if (water.nextOn !== null) {
		const until = daysBetween(today, water.nextOn);
		const less = entry.standing?.urgent?.water === 'less' ? entry.standing.urgent : null;
		if (less && until <= values['today.waterAheadDays'])
			items.push({
				...common(entry),
				urgency: until <= 0 ? values['today.rank.feel'] : values['today.rank.soon'] - until,
				level: until <= 0 ? 'due' : 'soon',
				sentence: 'Feel it a finger deep before any water',
				reason: `It is reckoned ${percent(water.dryness)} dry${until > 0 ? ` today, and may want water on ${water.nextOn}` : ''}, but ${midSentence(holds(less))}: it is watered less, and only where it is dry.`,
				figure: until <= 0 ? `${percent(water.dryness)} dry` : `in ${daysInWords(until)}`,
				stage: 'aftercare',
				task: null
			});
		else if (until <= values['today.waterAheadDays']) {
			const late = water.latest !== null && water.latest < today;
			items.push({
				...common(entry),
				urgency:
					until <= 0
						? values[late ? 'today.rank.waterLate' : 'today.rank.water'] + rises(-until, values)
						: values['today.rank.soon'] - until,
				level: until <= 0 ? 'now' : 'soon',
				sentence: `${pourWords(countOf(entry), water)}, ${wateringWayNames[water.way]}`,
				reason: `${water.reason} ${water.rainPerhaps ? `Had no rain fallen but what was measured, it would be ${percent(water.dryness)} dry` : `${percent(water.dryness)} dry today`}${water.earliest && water.latest && water.earliest !== water.latest ? `; between ${water.earliest} and ${water.latest}, by what is known of its roots` : ''}.`,
				figure:
					until > 0
						? `in ${daysInWords(until)}`
						: water.rainPerhaps
							? 'perhaps dry'
							: `${percent(water.dryness)} dry`,
				stage: 'aftercare',
				pourL: Math.round(water.litres * 100) / 100,
				task: null
			});
		}
	}
	return items;
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
