import { addDays, daysBetween } from '../maths/calendar';
import { contextOf, type DiagnosisContext } from '../examine/diagnosis/context';
import { stageOf, WEEK, type Stage } from '../rehearse/course';
import { anyFuture, type Future, type OutdoorsDay } from '../rehearse/futures';
import type { Values } from '../values/values';
import { practiceWish, type PracticeWish } from './round';
import { drawsOf, sceneOfTruth, truthOf, type PracticeTruth } from './truth';

/** A practice tree with its truth, its weather and its luck: what every way of caring for it meets. */
export interface PracticeTree {
	truth: PracticeTruth;
	stage: Stage;
	future: Future;
	/** Its weather outdoors, from the day after it was taken in. */
	outdoors: readonly OutdoorsDay[];
	values: Values;
	/** Days that it is looked after for, whole weeks. */
	days: number;
}

const memory = new WeakMap<Values, Map<string, PracticeTree>>();
const REMEMBERED = 24;

/** The practice tree of a wish; the same wish and values give the same one. */
export function practiceTree(given: PracticeWish, values: Values): PracticeTree {
	const wish = practiceWish.parse(given);
	const known = memory.get(values) ?? new Map<string, PracticeTree>();
	memory.set(values, known);
	const key = JSON.stringify(wish);
	const before = known.get(key);
	if (before) return before;
	const truth = truthOf(wish, values);
	const scene = sceneOfTruth(truth, values);
	const stage = stageOf(scene, values);
	const outdoors: OutdoorsDay[] = [];
	const drawn = anyFuture(
		scene,
		stage.calendar,
		stage.begin,
		{
			random: drawsOf(wish.seed, 'future'),
			used: new Set([0]),
			ondrawn: (day) => outdoors.push({ ...day })
		},
		values
	);
	const future = { ...drawn, z: 0, rot: false, airless: scene.airlessChance === 1 };
	const tree = { truth, stage, future, outdoors, values, days: stage.weeks * WEEK };
	known.set(key, tree);
	for (const oldest of known.keys()) {
		if (known.size <= REMEMBERED) break;
		known.delete(oldest);
	}
	return tree;
}

/** The calendar day of a day of the round. @param day from 0 */
export const dateOf = ({ truth }: PracticeTree, day: number): string => addDays(truth.startOn, day);
/** The day of the round of a calendar day. @returns days since it was taken in, from 0 */
export const dayOf = ({ truth }: PracticeTree, on: string): number => daysBetween(truth.startOn, on);

/**
 * What is known of it before anything is looked at on a day of the round: its season then; what befell it, on the day it comes.
 * @param day from 0
 */
export const contextOn = (
	tree: PracticeTree,
	day: number,
	before: NonNullable<DiagnosisContext['before']> = []
): DiagnosisContext =>
	contextOf(
		{ tree: tree.truth, kind: tree.truth.kind, place: tree.truth.place },
		dateOf(tree, day),
		day === 0 ? tree.truth.events : [],
		tree.values,
		before
	);
