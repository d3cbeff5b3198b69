import type { Task } from '../aftercare/task';
import { daysBetween } from '../climate/calendar';
import { nightTemperature, type NightTemperature } from '../climate/normals';
import type { Place } from '../climate/place';
import { isTender, type Kind } from '../kinds/kind';
import type { Stage, Tree } from '../tree/tree';
import { needsNewLook, triageDecisionNames, type TriageDecision } from '../triage/triage';
import type { Values } from '../values/values';

/** What Today reads of a task. */
export type TodayTask = Pick<
	Task,
	'id' | 'version' | 'kind' | 'title' | 'reason' | 'stage' | 'fromOn' | 'toOn' | 'minutes' | 'state'
>;

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
	/** Task that one touch closes; null for what only leads somewhere. */
	task: Pick<Task, 'id' | 'version' | 'title' | 'minutes'> | null;
}

/** How much a day of delay matters, by kind of work [our own]. */
const weights: Record<Task['kind'], number> = {
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
	other: 2
};

/** True when a task is already late for work that cannot wait. */
export const isAlarm = (task: Pick<Task, 'kind' | 'state' | 'toOn'>, today: string): boolean =>
	task.state === 'open' && task.toOn < today && weights[task.kind] >= 6;

/**
 * What to do now, most urgent first: cold nights that would touch a tree, then work whose window is closing or past,
 * then trees that nobody has looked at for long. Work that opens within a week is listed last as coming up.
 */
export function todayItems(trees: readonly TodayTree[], today: string, values: Values): TodayItem[] {
	const items: TodayItem[] = [];
	const nights = new Map<string, NightTemperature>();
	for (const entry of trees) {
		if (entry.tree.state !== 'in-care') continue;
		items.push(...taskItems(entry, today));
		const night = nights.get(entry.place.id) ?? nightTemperature(entry.place, today, values);
		nights.set(entry.place.id, night);
		const cold = coldItem(entry, night, today, values);
		if (cold) items.push(cold);
		const look = lookItem(entry, today, values);
		if (look) items.push(look);
		const decision = decisionItem(entry, today, values);
		if (decision) items.push(decision);
	}
	return items.sort((a, b) => b.urgency - a.urgency || (a.placeName < b.placeName ? -1 : 1));
}

const common = ({ tree, place }: TodayTree) => ({
	treeId: tree.id,
	tag: tree.tag,
	treeName: tree.name,
	placeName: place.name
});

const days = (count: number): string => `${count} day${count === 1 ? '' : 's'}`;

function taskItems(entry: TodayTree, today: string): TodayItem[] {
	return entry.tasks.flatMap((task) => {
		if (task.state !== 'open') return [];
		const untilOpen = daysBetween(today, task.fromOn);
		const untilEnd = daysBetween(today, task.toOn);
		if (untilOpen > 7) return [];
		const weight = weights[task.kind];
		const level = untilEnd < 0 ? 'now' : untilOpen <= 0 ? 'due' : 'soon';
		const urgency =
			level === 'now'
				? 100 + weight * 3 + Math.min(30, -untilEnd)
				: level === 'due'
					? 50 + weight * 2 - Math.min(20, untilEnd)
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
				sentence: task.title,
				reason: task.reason,
				figure,
				stage: task.stage,
				task: { id: task.id, version: task.version, title: task.title, minutes: task.minutes }
			}
		];
	});
}

/** The coldest night a tree stands just now, its roots freshly cut or not. */
export function coldLimitC(
	entry: Pick<TodayTree, 'kind' | 'lastCutOn' | 'tree'>,
	today: string,
	values: Values
): number {
	const fresh =
		entry.lastCutOn !== null &&
		entry.tree.situation !== 'in-ground' &&
		daysBetween(entry.lastCutOn, today) <= values['cold.cutRootsDays'];
	const limit = entry.kind.coldestC;
	return fresh && !isTender(entry.kind) ? Math.max(limit, values['cold.cutRootsMinimumC']) : limit;
}

function coldItem(
	entry: TodayTree,
	night: NightTemperature,
	today: string,
	values: Values
): TodayItem | null {
	const limitC = coldLimitC(entry, today, values);
	if (night.coldC >= limitC + values['cold.marginC']) return null;
	const usual = night.usualC < limitC + values['cold.marginC'];
	return {
		...common(entry),
		urgency: usual ? 160 : 90,
		level: usual ? 'now' : 'due',
		sentence: usual ? 'Bring it under cover before tonight' : 'Watch tonight’s low; have cover ready',
		reason: `Its limit is ${Math.round(limitC)} °C; a ${usual ? 'usual' : 'cold'} night of the season here is about ${Math.round(usual ? night.usualC : night.coldC)} °C (climate of the place, not a forecast).`,
		figure: `${Math.round(usual ? night.usualC : night.coldC)} °C`,
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
		if (!stop.tags.includes(item.tag)) stop.tags.push(item.tag);
		stops.set(item.placeName, stop);
	}
	return [...stops.values()].sort((a, b) => a.placeName.localeCompare(b.placeName));
}
