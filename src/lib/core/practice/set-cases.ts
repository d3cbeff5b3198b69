import type { ConditionId } from '../vocabulary/conditions';
import type { Situation } from '../vocabulary/words';
import { practiceWish, type PracticeWish } from './round';

/** A case that a class is set: one tree, the same for all. */
export interface SetCase {
	/** From 1, the easiest, upward. */
	number: number;
	name: string;
	/** What a trainee is told of it: how it comes in, never what ails it. */
	story: string;
	wish: PracticeWish;
}

const set = (
	number: number,
	name: string,
	story: string,
	seed: number,
	conditions: readonly ConditionId[],
	situation: Situation
): SetCase => ({ number, name, story, wish: practiceWish.parse({ seed, conditions, situation }) });

/** Twelve cases in rising difficulty: one plain fault, one that misleads, two at once, none at all, what is past help. */
export const setCases: readonly SetCase[] = [
	set(
		1,
		'Forgotten',
		'It was forgotten for a fortnight in August, and weighs little.',
		3101,
		['drought'],
		'potted'
	),
	set(2, 'The heavy pot', 'It has been watered every day, out of care.', 5107, ['sour-root-zone'], 'potted'),
	set(
		3,
		'Straight into the lawn',
		'A garden tree that grows less each year.',
		1112,
		['buried-collar'],
		'in-ground'
	),
	set(
		4,
		'Out of the hedge',
		'Dug some days ago and potted up the same evening.',
		14118,
		['recent-root-loss'],
		'just-lifted'
	),
	set(5, 'Sticky benches', 'The neighbour on the bench looks just the same.', 2121, ['pest'], 'potted'),
	set(6, 'Nothing to see', 'Its owner is worried and cannot say why.', 3127, [], 'potted'),
	set(
		7,
		'Years in one pot',
		'It has stood in one pot for as long as anybody knows.',
		14132,
		['pot-bound'],
		'potted'
	),
	set(
		8,
		'A smell at the bench',
		'It came with a smell, and nobody has seen its roots.',
		13139,
		['root-rot'],
		'potted'
	),
	set(
		9,
		'Wet and dry at once',
		'Its owner waters it, and yet it weighs little.',
		9143,
		['dry-core', 'collapsed-mix'],
		'potted'
	),
	set(
		10,
		'Behind the new drive',
		'It went back in the year after the drive was laid.',
		4149,
		['compaction', 'girdling-roots'],
		'in-ground'
	),
	set(
		11,
		'Moved twice',
		'It came by post, was repotted on the day, and drops its leaves.',
		12151,
		['repotted-too-early', 'low-light'],
		'potted'
	),
	set(
		12,
		'Branch by branch',
		'Its owner says that it began with one branch.',
		2157,
		['vascular-wilt', 'drought'],
		'in-ground'
	)
];
