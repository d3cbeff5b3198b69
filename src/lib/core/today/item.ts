import type { ReleaseFacts } from '../aftercare/tasks/release';
import type { Tree } from '../take-in/tree';
import { counted } from '../text/plural';
import type { StandingKept } from '../tree/kept';
import type { WaterState } from '../tree/water-state';
import type { TriageDecision } from '../examine/triage/triage';
import type { Values } from '../values/values';
import type { Kind } from '../vocabulary/kind';
import type { Place } from '../vocabulary/place';
import type { Task, TodayTask } from '../vocabulary/task';
import type { Stage } from '../vocabulary/words';

export interface TodayTree {
	tree: Pick<
		Tree,
		'id' | 'tag' | 'name' | 'situation' | 'state' | 'takenInOn' | 'plantCount' | 'heightM' | 'sharedPot'
	>;
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
	task:
		| (Pick<Task, 'id' | 'version' | 'title' | 'kind' | 'source' | 'minutes' | 'everyDays'> & {
				/** Its days are over for good: on which it was done is asked for. */
				lapsed: boolean;
		  })
		| null;
}

/** What every line about one tree says of it. */
export const common = ({ tree, place }: TodayTree) => ({
	treeId: tree.id,
	tag: tree.tag,
	treeName: tree.name,
	placeName: place.name,
	group: [] as TodayItem['group'],
	pourL: null
});

/**
 * How many of it there are to be worked on: of a lot those that live.
 * @returns plants, 1 of a tree
 */
export const countOf = ({ tree, standing }: Pick<TodayTree, 'tree' | 'standing'>): number =>
	standing?.alive ?? tree.plantCount;

/** A number of days in words. */
export const daysInWords = (count: number): string => counted(count, 'day');

/**
 * What waiting, or the number of trees, adds to a rank: up to a most, so that it never passes what stands well above it.
 * @param by days waited, or trees beyond the first
 * @returns points of rank
 */
export const rises = (by: number, values: Values): number =>
	Math.max(0, Math.min(values['today.risesMost'], by));
/**
 * The same of what is slow to harm.
 * @returns points of rank
 */
export const risesSlowly = (waitedDays: number, values: Values): number =>
	rises(waitedDays / Math.max(1, values['today.slowDays']), values);
