import { describe, expect, it } from 'vitest';
import { actsOfDay } from '$core/practice/acts-of';
import { dateOf, practiceTree } from '$core/practice/practice-tree';
import { practiceWish } from '$core/practice/round';
import type { TreeRecords } from '$core/tree/case';
import { defaultValues as values } from '$core/values/values';
import { taskSchema } from '$core/vocabulary/task';
import { addDays } from '$core/maths/calendar';
import type { Place } from '$core/vocabulary/place';
import { bench, plantingOn, treeRecords } from '../records';

/** What a day of work is to a practice tree, as its records tell it. */

const tree = practiceTree(practiceWish.parse({ seed: 4, conditions: [], situation: 'potted' }), values);
const day = 20;
const on = dateOf(tree, day);
const acts = (records: Partial<TreeRecords>, placeBefore = 'p') =>
	actsOfDay(tree, treeRecords(records), on, {
		placeBefore,
		begun: { pot: null, dryness: 0.5 }
	});
const remedies = (records: Partial<TreeRecords>, placeBefore?: string) =>
	acts(records, placeBefore).flatMap((act) => (act.what === 'treat' ? [[act.remedy, act.untilDay]] : []));

const place = (id: string, change: Partial<Place> = {}): Place => ({ ...bench, id, name: id, ...change });
const moved = (before: Partial<Place>, after: Partial<Place>) =>
	remedies(
		{
			tree: { ...treeRecords().tree, placeId: 'new' },
			places: [place('old', before), place('new', after)]
		},
		'old'
	);

describe('carried to another place', () => {
	it('is light where more falls there, and shade where little does; what is not told lies between', () => {
		const LEVELS = ['shade', null, 'sun'] as const;
		for (const [i, before] of LEVELS.entries())
			for (const [j, after] of LEVELS.entries()) {
				const seen = moved({ light: before }, { light: after }).map(([remedy]) => remedy);
				expect(seen.includes('light'), `${before} → ${after}`).toBe(j > i);
				expect(seen.includes('shade'), `${before} → ${after}`).toBe(after === 'shade');
			}
		expect(moved({ light: 'part' }, { light: null })).toEqual([['shelter', day]]);
	});

	it('is shelter for good under glass or a roof, and its end in the open', () => {
		for (const kind of ['heated', 'indoors', 'greenhouse'] as const)
			expect(moved({}, { kind })).toEqual([['shelter', null]]);
		for (const kind of ['open', 'shade', 'cold-frame', 'garden'] as const)
			expect(moved({}, { kind })).toEqual([['shelter', day]]);
	});

	it('is nothing where it stays, or goes where nothing is known of', () => {
		expect(acts({})).toEqual([]);
		expect(acts({ tree: { ...treeRecords().tree, placeId: 'gone' } })).toEqual([]);
	});
});

const rest = (fromOn: string, source = `first-water@${on}`) =>
	taskSchema.parse({
		id: 'w',
		version: 1,
		kind: 'dry-rest',
		title: 'First water',
		reason: '',
		fromOn,
		toOn: addDays(fromOn, 7),
		source,
		state: 'open',
		closedOn: null,
		skipReason: '',
		result: ''
	});
const restUntil = (tasks: TreeRecords['tasks']) =>
	acts({ plantings: [plantingOn(on)], tasks }).map((act) => act.what === 'plant' && act.restUntilDay);

describe('planted', () => {
	it('is left dry until the first water of this very planting, and watered in where that is due at once', () => {
		expect(restUntil([rest(addDays(on, 12))])).toEqual([day + 12]);
		expect(restUntil([rest(on)])).toEqual([null]);
		expect(restUntil([rest(addDays(on, 12), `first-water@${addDays(on, -300)}`)])).toEqual([null]);
		expect(restUntil([rest(addDays(on, 12), `settle-water@${on}`)])).toEqual([null]);
		expect(restUntil([])).toEqual([null]);
	});
});
