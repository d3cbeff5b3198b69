import { measured, inUnit } from '../text/measured';
import { chanceSaid, percent } from '../text/percent';
import { type TodayTask } from '../vocabulary/task';
import { hasLapsed, headed, timed, type ReleaseFacts } from '../aftercare/tasks/release';
import type { Task } from '../vocabulary/task';
import { addDays, daysBetween } from '../maths/calendar';
import { coldLimit, type ColdLimit } from '../climate/cold-limit';
import { nightTemperature, type NightTemperature } from '../climate/normals';
import type { Place } from '../vocabulary/place';
import type { Kind } from '../vocabulary/kind';
import type { Stage } from '../vocabulary/words';
import type { Tree } from '../take-in/tree';
import { needsNewLook, triageDecisionNames, type TriageDecision } from '../examine/triage/triage';
import type { Values } from '../values/values';
import type { WaterState } from '../tree/water-state';
import { fallWords } from '../aftercare/water/forecast';
import type { StandingKept } from '../tree/kept';
import { wateringWayNames } from '../aftercare/water/watering';
import { limitsOf, warningsFor, type GuardKind } from '../aftercare/weather/guards';
import type { SeriesDay } from '../climate/series';

export interface TodayTree {
	tree: Pick<Tree, 'id' | 'tag' | 'name' | 'situation' | 'state' | 'takenInOn' | 'plantCount'>;
	kind: Kind;
	place: Place;
	tasks: readonly TodayTask[];
	lastLookOn: string | null;
	/** Day of the last root cut, if any. */
	lastCutOn: string | null;
	/** The last decision before the work, and whether it was planted since. */
	lastDecision: { on: string; decision: TriageDecision; workedSince: boolean | 0 | 1 } | null;
	/** Its water as last reckoned; null where it is not known. */
	water: WaterState | null;
	/** How it stands, as last folded; null where that was not done yet. */
	standing: StandingKept | null;
	/** What was seen since its work, for what waits for the tree. */
	facts: ReleaseFacts;
}

export interface TodayItem {
	/** Higher comes first. */
	urgency: number;
	level: 'now' | 'due' | 'soon';
	treeId: string;
	tag: string;
	treeName: string;
	placeName: string;
	sentence: string;
	reason: string;
	/** The number that decides it. */
	figure: string;
	stage: Stage;
	/** All trees that it touches, where it is for a group. */
	group: { id: string; tag: string }[];
	/** Litres to pour, for a watering that one touch writes down. */
	pourL: number | null;
	/** Task that one touch closes; null for what only leads somewhere. */
	task: Pick<Task, 'id' | 'version' | 'title' | 'kind' | 'source' | 'minutes' | 'everyDays'> | null;
}

/** How much a day of delay matters, by kind of work [our own]. */
const weights: Record<Task['kind'], number> = {
	referral: 12,
	water: 10,
	cold: 9,
	'dry-rest': 7,
	neighbours: 6,
	pest: 6,
	backup: 6,
	collar: 5,
	crown: 5,
	shelter: 4,
	look: 3,
	'root-stage': 3,
	feeding: 1,
	turning: 0.5,
	suckers: 1,
	other: 2
};

type Pressing = Pick<Task, 'kind' | 'state' | 'toOn' | 'source'>;
const isLate = (task: Pressing, today: string): boolean =>
	task.state === 'open' && task.toOn < today && weights[task.kind] >= 6;

/** True when a task is already late for work that cannot wait. */
export const isAlarm = (task: Pressing, today: string, values: Values): boolean =>
	isLate(task, today) && !hasLapsed(task, today, values);

/** True when such work is over for good, and nobody said whether it was done. */
export const isUnanswered = (task: Pressing, today: string, values: Values): boolean =>
	isLate(task, today) && hasLapsed(task, today, values);

/**
 * What to do now, most urgent first: cold nights that would touch a tree, then work whose window is closing or past,
 * then trees that nobody has looked at for long. Work that opens within a week is listed last as coming up.
 */
export function todayItems(
	trees: readonly TodayTree[],
	today: string,
	values: Values,
	weather: ReadonlyMap<string, readonly SeriesDay[]> = new Map()
): TodayItem[] {
	const items: TodayItem[] = guardItems(trees, today, values, weather);
	const nights = new Map<string, NightTemperature>();
	const moves = new Map<string, { id: string; move: number }[]>();
	for (const { tree, place, water } of trees)
		if (water && water.move !== null)
			moves.set(place.id, [...(moves.get(place.id) ?? []), { id: tree.id, move: water.move }]);
	for (const entry of trees) {
		if (entry.tree.state !== 'in-care') continue;
		items.push(...taskItems(entry, today, values));
		items.push(...standingItems(entry, today, values));
		const night = nights.get(entry.place.id) ?? nightTemperature(entry.place, today, values);
		nights.set(entry.place.id, night);
		// A forecast or a reading of tonight speaks for itself.
		const known = weather.get(entry.place.id)?.some((day) => day.on === today && day.how === '');
		const cold = known ? null : coldItem(entry, night, today, values);
		if (cold) items.push(cold);
		items.push(...waterItems(entry, today, moves, values));
		const look = lookItem(entry, today, values);
		if (look) items.push(look);
		const decision = decisionItem(entry, today, values);
		if (decision) items.push(decision);
	}
	items.push(...unknownWaterItems(trees, today, values));
	return items.sort((a, b) => b.urgency - a.urgency || a.placeName.localeCompare(b.placeName));
}

const common = ({ tree, place }: TodayTree) => ({
	treeId: tree.id,
	tag: tree.tag,
	treeName: tree.name,
	placeName: place.name,
	group: [] as TodayItem['group'],
	pourL: null
});

const days = (count: number): string => `${count} day${count === 1 ? '' : 's'}`;

function taskItems(entry: TodayTree, today: string, values: Values): TodayItem[] {
	return entry.tasks.flatMap((given) => {
		if (given.state !== 'open') return [];
		const task = timed(given, entry.facts, today, values);
		// What the tree has not released yet stays quiet.
		if (task.released?.state === 'held') return [];
		const asks = task.released !== null && task.released.ask !== '';
		const untilOpen = daysBetween(today, task.fromOn);
		const untilEnd = daysBetween(today, task.toOn);
		if (untilOpen > 7) return [];
		const weight = weights[task.kind];
		// Small work that is late does not press before what harms a tree.
		const small = weight <= 1;
		const flag = task.kind === 'referral';
		const lapsed = hasLapsed(given, today, values);
		const level = flag || (untilEnd < 0 && !small && !lapsed) ? 'now' : untilOpen <= 0 ? 'due' : 'soon';
		const urgency = flag
			? 220 + Math.max(0, Math.min(30, -untilEnd))
			: level === 'now'
				? 100 + weight * 3 + Math.min(30, -untilEnd)
				: lapsed
					? 25
					: level === 'due'
						? 50 + weight * 2 - Math.max(0, Math.min(20, untilEnd)) - (small ? 15 : 0)
						: weight - untilOpen;
		const figure =
			untilEnd < 0
				? `${days(-untilEnd)} late`
				: untilOpen > 0
					? `in ${days(untilOpen)}`
					: untilEnd === 0
						? 'last day'
						: `${days(untilEnd)} left`;
		return [
			{
				...common(entry),
				urgency,
				level: level as TodayItem['level'],
				sentence: lapsed ? `Done or missed? ${task.title}` : headed(task),
				reason: lapsed
					? `Its days were over on ${task.toOn}. Say that it was done, or skip it with a word of why.`
					: task.released
						? `${task.released.ask === '' ? '' : `“${task.title}” waits for it. `}${task.reason} ${capital(task.released.because)}.`
						: task.reason,
				figure,
				stage: asks ? 'recovery' : task.stage,
				// What nobody saw yet is not closed by one touch.
				task: asks
					? null
					: {
							id: task.id,
							version: task.version,
							title: task.title,
							kind: task.kind,
							source: task.source,
							minutes: task.minutes,
							everyDays: task.everyDays
						}
			}
		];
	});
}

/** What its standing itself asks for: to be set when it is out of the ground, to be held firm. */
function standingItems(entry: TodayTree, today: string, values: Values): TodayItem[] {
	const { standing, tree } = entry;
	if (!standing) return [];
	const items: TodayItem[] = [];
	if (standing.urgent && daysBetween(standing.urgent.on, today) <= values['urgent.days']) {
		const { label, chance, on, stage, meaning } = standing.urgent;
		items.push({
			...common(entry),
			urgency: 190 + Math.min(5, daysBetween(on, today)),
			level: 'now',
			sentence: `${label} is likely: act now`,
			reason: `Looked at on ${on}. ${meaning}`,
			figure: chanceSaid(chance),
			stage,
			task: null
		});
	}
	if (standing.out) {
		const since = daysBetween(standing.out.on, today);
		const safe = standing.out.how === 'heeled-in';
		const many = tree.plantCount > 1 ? `all ${tree.plantCount} of them ` : '';
		items.push({
			...common(entry),
			urgency: safe ? 55 + Math.min(20, since / 7) : 200 + Math.min(15, since),
			level: safe ? 'due' : 'now',
			sentence: safe
				? `Heeled in: pot or plant ${many || 'it '}in its window`
				: `Out of the ground: set ${many || 'it '}or heel ${many ? 'them' : 'it'} in`,
			reason: safe
				? `Heeled in since ${standing.out.on}; its place there is for days or weeks, not for seasons.`
				: `${standing.out.how === 'wrapped' ? 'Wrapped' : 'Out'} since ${standing.out.on}; roots in the air die by the hour.`,
			figure: since === 0 ? 'today' : days(since),
			stage: 'replant',
			task: null
		});
	}
	const { planned } = standing;
	// What is out of the ground is asked for above; a decision that is old asks for a new look first.
	if (planned?.undated && !needsNewLook({ decidedOn: planned.on }, today, values))
		items.push({
			...common(entry),
			urgency: 15,
			level: 'soon',
			sentence: `${planned.what}: give it a day`,
			reason: `Decided on ${planned.on}.`,
			figure: 'no day yet',
			stage: planned.stage,
			task: null
		});
	if (planned && !planned.undated && !standing.out && planned.on <= addDays(today, 7)) {
		const late = daysBetween(planned.on, today);
		items.push({
			...common(entry),
			urgency: late >= 0 ? 60 + Math.min(30, late) : 20,
			level: late >= 0 ? 'due' : 'soon',
			sentence: planned.what,
			reason: `Planned for ${planned.on}.`,
			figure: late > 0 ? `${days(late)} late` : late === 0 ? 'today' : `in ${days(-late)}`,
			stage: planned.stage,
			task: null
		});
	}
	if (standing.firmness && daysBetween(standing.firmness.on, today) <= values['look.overdueDays'])
		items.push({
			...common(entry),
			urgency: 150,
			level: 'now',
			sentence:
				standing.firmness.value === 'loose'
					? 'It is loose: tie it again'
					: 'It moves at the base: hold it firm',
			reason: `Seen on ${standing.firmness.on}. Roots that are moved tear as they grow: wires, where, and over which roots, before all else.`,
			figure: standing.firmness.value,
			stage: 'replant',
			task: null
		});
	return items;
}

/** Day on which its water was last poured, weighed, felt or read, by hand or by a device. */
const waterOn = ({ standing, water }: TodayTree): string | null =>
	[standing?.waterOn, water?.knownOn]
		.filter((on) => on !== null && on !== undefined)
		.sort()
		.at(-1) ?? null;

/** Potted trees whose water nobody knows any more; those of one place together, since one round answers them. */
function unknownWaterItems(trees: readonly TodayTree[], today: string, values: Values): TodayItem[] {
	const byPlace = new Map<string, TodayTree[]>();
	for (const entry of trees) {
		if (entry.tree.state !== 'in-care' || !entry.standing?.pottedOn) continue;
		// A dry rest has its first water on the list: nothing is asked beside it.
		if (entry.water?.restUntil) continue;
		const last = waterOn(entry);
		const since = daysBetween(last ?? entry.standing.pottedOn, today);
		if (last === null || since > values['decision.waterKnownDays']) {
			const group = byPlace.get(entry.place.id);
			if (group) group.push(entry);
			else byPlace.set(entry.place.id, [entry]);
		}
	}
	return [...byPlace.values()].flatMap((group) =>
		group.length < 3
			? group.map((entry) => unknownWaterItem(entry, [entry], today))
			: group.slice(0, 1).map((first) => unknownWaterItem(first, group, today))
	);
}

function unknownWaterItem(first: TodayTree, group: readonly TodayTree[], today: string): TodayItem {
	const dryFrom = group
		.map(({ water }) => water?.earliest ?? null)
		.filter((on) => on !== null)
		.sort()[0];
	const longest = Math.max(
		...group.map((entry) => daysBetween(waterOn(entry) ?? entry.standing?.pottedOn ?? today, today))
	);
	const last = waterOn(first);
	const one = group.length === 1;
	return {
		...common(first),
		...(!one && {
			treeName: group.map(({ tree }) => tree.tag).join(', '),
			group: group.map(({ tree }) => ({ id: tree.id, tag: tree.tag }))
		}),
		urgency: 58 + Math.min(20, longest / 10) + Math.min(5, group.length / 10),
		level: 'due',
		sentence: one
			? 'Its water is not known: lift it or feel it now'
			: `Water of ${group.length} trees is not known: lift or feel them now`,
		reason: `${
			!one
				? 'Nobody wrote down for weeks, or ever, that they were watered, weighed or felt.'
				: last === null
					? `Nobody wrote down a watering, a weight or a feel since ${first.standing?.pottedOn ?? ''}.`
					: `Last poured, weighed or felt on ${last}.`
		}${dryFrom === undefined ? '' : dryFrom <= today ? ' It may be dry already.' : ` It may be dry from ${dryFrom} on.`}`,
		figure: one && last !== null ? days(longest) : 'not known',
		stage: 'aftercare',
		task: null
	};
}

const capital = (text: string): string => text.replace(/^./, (letter) => letter.toUpperCase());

/** Its next watering, when it is near, and what is wrong with its water. */
function waterItems(
	entry: TodayTree,
	today: string,
	moves: ReadonlyMap<string, readonly { id: string; move: number }[]>,
	values: Values
): TodayItem[] {
	const { water } = entry;
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
		urgency: 70,
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
		if (until <= 0 && less)
			items.push({
				...common(entry),
				urgency: 104,
				level: 'due',
				sentence: 'Feel it a finger deep before any water',
				reason: `It is reckoned ${percent(water.dryness)} dry, but ${less.label.toLowerCase()} is likely: it is watered less, and only where it is dry.`,
				figure: `${percent(water.dryness)} dry`,
				stage: 'aftercare',
				task: null
			});
		else if (until <= 3) {
			const late = water.latest !== null && water.latest < today;
			items.push({
				...common(entry),
				urgency: until <= 0 ? (late ? 135 : 105) + Math.min(20, -until) : 20 - until,
				level: until <= 0 ? 'now' : 'soon',
				sentence: `Water it: ${litresInWords(water.litres)}, ${wateringWayNames[water.way]}`,
				reason: `${water.reason} ${percent(water.dryness)} dry today${water.earliest && water.latest ? `; between ${water.earliest} and ${water.latest}, by what is known of its roots` : ''}.`,
				figure: until <= 0 ? `${percent(water.dryness)} dry` : `in ${days(until)}`,
				stage: 'aftercare',
				pourL: Math.round(water.litres * 100) / 100,
				task: null
			});
		}
	}
	return items;
}

const litresInWords = (litres: number): string =>
	litres < 1 ? measured(Math.round(litres * 100) * 10, 'ml') : measured(litres, 'L');

/** Cold, heat, gusts and dry air of the next days against what trees stand, one item for each place and danger. */
function guardItems(
	trees: readonly TodayTree[],
	today: string,
	values: Values,
	weather: ReadonlyMap<string, readonly SeriesDay[]>
): TodayItem[] {
	const byPlace = new Map<string, TodayTree[]>();
	for (const entry of trees) {
		if (entry.tree.state !== 'in-care') continue;
		const list = byPlace.get(entry.place.id);
		if (list) list.push(entry);
		else byPlace.set(entry.place.id, [entry]);
	}
	return [...byPlace].flatMap(([placeId, list]) => {
		const ahead = (weather.get(placeId) ?? []).filter(
			(day) => day.on >= today && daysBetween(today, day.on) <= 2 && day.how === ''
		);
		const first = list[0];
		if (ahead.length === 0 || !first) return [];
		const limitsOn = (on: string) =>
			list.map((entry) =>
				limitsOf(
					{
						id: entry.tree.id,
						tag: entry.tree.tag,
						cold: coldOf(entry, on, values),
						rootFunction: entry.water?.phi ?? 1,
						tipsMs: null
					},
					values
				)
			);
		return ahead
			.flatMap((day) => warningsFor([day], limitsOn(day.on)))
			.map((warning): TodayItem => {
				const until = daysBetween(today, warning.on);
				const when =
					until === 0
						? warning.kind === 'cold'
							? 'tonight'
							: 'today'
						: until === 1
							? 'tomorrow'
							: `on ${warning.on}`;
				const unit = warning.kind === 'wind' ? 'm/s' : warning.kind === 'dry-air' ? 'kPa' : '°C';
				const figure = inUnit(Math.round(warning.figure * 10) / 10, unit);
				const tightest = warning.trees[0];
				return {
					urgency: (until === 0 ? 170 : until === 1 ? 110 : 60) + Math.min(20, warning.trees.length),
					level: until === 0 ? 'now' : 'due',
					treeId: tightest?.treeId ?? first.tree.id,
					tag: tightest?.tag ?? first.tree.tag,
					treeName: warning.trees.map((tree) => tree.tag).join(', '),
					placeName: first.place.name,
					sentence: `${guardNames[warning.kind]} ${when}, ${warning.byWhen}: ${warning.what.replace(/^./, (letter) => letter.toLowerCase())}`,
					reason: `${figure} is forecast; ${warning.trees.length === 1 ? 'one tree stands' : `${warning.trees.length} trees stand`} less, the tightest ${inUnit(Math.round((tightest?.limit ?? 0) * 10) / 10, unit)}${tightest?.why ? ` (${tightest.why})` : ''}.`,
					figure,
					stage: 'aftercare',
					group: warning.trees.map(({ treeId, tag }) => ({ id: treeId, tag })),
					pourL: null,
					task: null
				};
			});
	});
}

const guardNames: Record<GuardKind, string> = {
	cold: 'Cold',
	heat: 'Heat',
	wind: 'Gusts',
	'dry-air': 'Dry air'
};

/** The coldest night a tree stands on a day, as it stands now. */
export const coldOf = (
	{
		kind,
		lastCutOn,
		tree,
		facts,
		standing
	}: Pick<TodayTree, 'kind' | 'lastCutOn' | 'tree' | 'facts' | 'standing'>,
	on: string,
	values: Values
): ColdLimit =>
	coldLimit(
		{
			kind,
			lastCutOn,
			inGround: tree.situation === 'in-ground',
			newShoots: facts.looks.at(-1)?.buds === 'open',
			underCover: standing?.underCover ?? null
		},
		on,
		values
	);

function coldItem(
	entry: TodayTree,
	night: NightTemperature,
	today: string,
	values: Values
): TodayItem | null {
	const { limitC, why } = coldOf(entry, today, values);
	const { place, tree } = entry;
	// What heating holds is held: no margin for a clear night, and no cover above the one it has.
	const held = place.kind === 'heated' || place.kind === 'indoors';
	const margin = held ? 0 : values['cold.marginC'];
	if (night.coldC >= limitC + margin) return null;
	const usual = night.usualC < limitC + margin;
	const rooted = tree.situation === 'in-ground';
	const covered = today < (entry.standing?.underCover?.untilOn ?? '');
	const what = held
		? { now: 'Its place is too cold for it: find a warmer one', soon: 'Its place may turn too cold for it' }
		: covered
			? {
					now: 'Its cover is too little for it: find a warmer place',
					soon: 'Its cover may turn too little for it'
				}
			: rooted
				? { now: 'Lay fleece and mulch before tonight', soon: 'Watch tonight’s low; have fleece ready' }
				: { now: 'Bring it under cover before tonight', soon: 'Watch tonight’s low; have cover ready' };
	return {
		...common(entry),
		urgency: usual ? 160 : 90,
		level: usual ? 'now' : 'due',
		sentence: usual ? what.now : what.soon,
		reason: `Its limit is ${measured(Math.round(limitC), '°C')}${why === '' ? '' : `, ${why}`}; a ${usual ? 'usual' : 'cold'} night of the season at ${place.name} is about ${measured(Math.round(usual ? night.usualC : night.coldC), '°C')} (${held ? 'what is held there' : 'climate of the place, not a forecast'}).`,
		figure: measured(Math.round(usual ? night.usualC : night.coldC), '°C'),
		stage: 'aftercare',
		task: null
	};
}

function lookItem(entry: TodayTree, today: string, values: Values): TodayItem | null {
	const since = entry.lastLookOn ?? entry.tree.takenInOn;
	const unseen = daysBetween(since, today);
	if (unseen < values['look.overdueDays']) return null;
	return {
		...common(entry),
		urgency: 40 + Math.min(25, unseen / 10),
		level: 'due',
		sentence: 'Nobody has looked at it for long',
		reason: `A look is due every ${values['look.routineDays']} days while it is in care; after ${values['look.overdueDays']} it is brought up.`,
		figure: `${days(unseen)} unseen`,
		stage: 'recovery',
		task: null
	};
}

/** A decision that is too old to work by, while the work is not done. */
function decisionItem(entry: TodayTree, today: string, values: Values): TodayItem | null {
	const last = entry.lastDecision;
	if (!last || last.decision === 'leave' || last.workedSince) return null;
	if (entry.lastCutOn !== null && entry.lastCutOn >= last.on) return null;
	if (!needsNewLook({ decidedOn: last.on }, today, values)) return null;
	const old = daysBetween(last.on, today);
	return {
		...common(entry),
		urgency: 45 + Math.min(20, old / 5),
		level: 'due',
		sentence: 'Look again before the work',
		reason: `“${triageDecisionNames[last.decision]}” was decided ${days(old)} ago; a decision stands for ${values['triage.new-look-days']} days.`,
		figure: `${days(old)} old`,
		stage: 'examine',
		task: null
	};
}

export interface RoundStop {
	placeName: string;
	minutes: number;
	tags: string[];
}

/** The walking round: what is now and due, place by place, with the minutes it takes. */
export function walkingRound(items: readonly TodayItem[]): RoundStop[] {
	const stops = new Map<string, RoundStop>();
	for (const item of items) {
		if (item.level === 'soon') continue;
		const stop = stops.get(item.placeName) ?? { placeName: item.placeName, minutes: 0, tags: [] };
		stop.minutes += item.task?.minutes ?? 5;
		for (const tag of item.group.length > 0 ? item.group.map((tree) => tree.tag) : [item.tag])
			if (!stop.tags.includes(tag)) stop.tags.push(tag);
		stops.set(item.placeName, stop);
	}
	return [...stops.values()].sort((a, b) => a.placeName.localeCompare(b.placeName));
}
