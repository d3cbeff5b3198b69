import { resultAsked } from '../aftercare/tasks/result';
import { nightTemperature, type NightTemperature } from '../climate/normals';
import type { SeriesDay } from '../climate/series';
import { needsNewLook, triageDecisionNames } from '../examine/triage/triage';
import { daysBetween } from '../maths/calendar';
import type { Values } from '../values/values';
import { common, daysInWords, risesSlowly, type TodayItem, type TodayTree } from './item';
import { standingItems } from './standing-items';
import { taskItems } from './task-items';
import { unknownWaterItems, waterItems } from './water-items';
import { coldItems, guardItems } from './weather-items';

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
	const unmeasured: { entry: TodayTree; night: NightTemperature }[] = [];
	const moves = new Map<string, { id: string; move: number }[]>();
	for (const { tree, place, water } of trees)
		if (water && water.move !== null)
			moves.set(place.id, [...(moves.get(place.id) ?? []), { id: tree.id, move: water.move }]);
	for (const entry of trees) {
		if (entry.tree.state !== 'in-care') continue;
		items.push(...ownItems(entry, today, values));
		const night = nights.get(entry.place.id) ?? nightTemperature(entry.place, today, values);
		nights.set(entry.place.id, night);
		// A forecast or a reading of tonight speaks for itself.
		const known = weather.get(entry.place.id)?.some((day) => day.on === today && day.how === '');
		if (!known) unmeasured.push({ entry, night });
	}
	items.push(
		...waterItems(
			trees.filter(({ tree }) => tree.state === 'in-care'),
			today,
			moves,
			values
		),
		...coldItems(unmeasured, today, values),
		...unknownWaterItems(trees, today, values)
	);
	// Names are put in order once: of thousands of lines most stand level.
	const places = [...new Set(items.map((item) => item.placeName))].sort((a, b) => a.localeCompare(b));
	const order = new Map(places.map((name, at) => [name, at]));
	return items.sort(
		(a, b) => b.urgency - a.urgency || (order.get(a.placeName) ?? 0) - (order.get(b.placeName) ?? 0)
	);
}

/** Lines that a tree asks for by itself, whatever the weather and its neighbours do; of one that did not change they are known. */
function ownItems(entry: TodayTree, today: string, values: Values): readonly TodayItem[] {
	const known = itemsKept.get(entry);
	if (known?.today === today && known.values === values) return known.items;
	const tasks = taskItems(entry, today, values);
	// Work that is a look at it asks for it already.
	const looksAsked = tasks.some(
		({ level, task }) =>
			level !== 'soon' && (task === null || (!task.lapsed && resultAsked(task) === 'growth'))
	);
	const items = [
		...tasks,
		...standingItems(entry, today, values),
		...[looksAsked ? null : lookItem(entry, today, values), decisionItem(entry, today, values)].filter(
			(item) => item !== null
		)
	];
	itemsKept.set(entry, { today, values, items });
	return items;
}
const itemsKept = new WeakMap<TodayTree, { today: string; values: Values; items: readonly TodayItem[] }>();

function lookItem(entry: TodayTree, today: string, values: Values): TodayItem | null {
	const since = entry.lastLookOn ?? entry.tree.takenInOn;
	const unseen = daysBetween(since, today);
	if (unseen < values['look.overdueDays']) return null;
	return {
		...common(entry),
		urgency: values['today.rank.unseen'] + risesSlowly(unseen, values),
		level: 'due',
		sentence: 'Nobody has looked at it for long',
		reason: `A look is due every ${values['look.routineDays']} days while it is in care; after ${values['look.overdueDays']} it is brought up.`,
		figure: `${daysInWords(unseen)} unseen`,
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
		urgency: values['today.rank.oldDecision'] + risesSlowly(old, values),
		level: 'due',
		sentence: 'Look again before the work',
		reason: `“${triageDecisionNames[last.decision]}” was decided ${daysInWords(old)} ago; a decision stands for ${values['triage.new-look-days']} days.`,
		figure: `${daysInWords(old)} old`,
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
export function walkingRound(items: readonly TodayItem[], values: Values): RoundStop[] {
	const stops = new Map<string, RoundStop>();
	for (const item of items) {
		if (item.level === 'soon') continue;
		const stop = stops.get(item.placeName) ?? { placeName: item.placeName, minutes: 0, tags: [] };
		stop.minutes += item.task?.minutes ?? values['today.stopMinutes'];
		for (const tag of item.group.length > 0 ? item.group.map((tree) => tree.tag) : [item.tag])
			if (!stop.tags.includes(tag)) stop.tags.push(tag);
		stops.set(item.placeName, stop);
	}
	return [...stops.values()].sort((a, b) => a.placeName.localeCompare(b.placeName));
}
