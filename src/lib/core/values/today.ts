import { taskKinds, type TaskKind } from '../vocabulary/task';
import { defineValues, type WorkingValue, ours } from './define';

/** Where something stands in the order of Today; only how they compare counts. */
const rank = (label: string, value: number): WorkingValue => ({
	...ours(`Today: ${label}`, value, 'points', [0, 500]),
	note: 'Only their order counts.'
});

/** How much a day of delay matters, by kind of work. */
const weights: Record<TaskKind, [label: string, weight: number]> = {
	referral: ['to be seen by an arborist', 12],
	water: ['water', 10],
	cold: ['shelter from cold', 9],
	'dry-rest': ['dry rest', 7],
	neighbours: ['trees beside it', 6],
	pest: ['pests', 6],
	backup: ['cuttings and divisions', 6],
	collar: ['collar', 5],
	crown: ['crown', 5],
	shelter: ['shelter', 4],
	look: ['a look', 3],
	'root-stage': ['a stage of root work', 3],
	feeding: ['feeding', 1],
	turning: ['turning', 0.5],
	suckers: ['suckers', 1],
	other: ['other work', 2]
};
export type WeightKey = `today.weight.${TaskKind}`;

const weightValues = Object.fromEntries(
	taskKinds.map((kind) => [
		`today.weight.${kind}`,
		ours(`Delay matters, ${weights[kind][0]}`, weights[kind][1], 'points a day', [0, 50])
	])
) as Record<WeightKey, WorkingValue>;

/** What comes first on Today, what waiting adds, and how far ahead it looks. */
export const todayValues = defineValues({
	...weightValues,
	'today.weightPressing': ours(
		'Work that harms when it is late: delay matters at least',
		6,
		'points a day',
		[0, 50]
	),
	'today.weightSmall': ours('Small work, late or not: delay matters at most', 1, 'points a day', [0, 50]),
	'today.rank.referral': rank('an arborist has to see it', 220),
	'today.rank.out': rank('out of the ground', 200),
	'today.rank.actNow': rank('a cause that cannot wait', 190),
	'today.rank.danger': rank('weather of today beyond what it stands', 170),
	'today.rank.cold': rank('a usual night is too cold for it', 160),
	'today.rank.loose': rank('it is loose or moves', 150),
	'today.rank.smell': rank('its root zone smells since the work', 145),
	'today.rank.waterLate': rank('water, past its last day', 135),
	'today.rank.dangerNext': rank('weather of tomorrow beyond what it stands', 110),
	'today.rank.water': rank('water', 105),
	'today.rank.feel': rank('feel it before water', 104),
	'today.rank.late': rank('work that is late', 100),
	'today.rank.coldMaybe': rank('a cold night would be too cold for it', 90),
	'today.rank.alarm': rank('something is wrong with its water', 70),
	'today.rank.dangerLater': rank('weather of later days beyond what it stands', 60),
	'today.rank.check': rank('a check of a minute before a likely cause is acted on', 60),
	'today.rank.planned': rank('planned work whose day is here', 60),
	'today.rank.unknownWater': rank('its water is not known', 58),
	'today.rank.heeled': rank('heeled in', 55),
	'today.rank.open': rank('work whose days are open', 50),
	'today.rank.oldDecision': rank('a decision too old to work by', 45),
	'today.rank.unseen': rank('nobody has looked for long', 40),
	'today.rank.lapsed': rank('work whose days are over for good', 25),
	'today.rank.soon': rank('what comes within days', 20),
	'today.rank.undated': rank('planned work without a day', 15),
	'today.lateTimes': ours('Late work: how much delay matters counts', 3, 'times', [0, 20]),
	'today.openTimes': ours('Open work: how much delay matters counts', 2, 'times', [0, 20]),
	'today.smallLess': ours('Small work stands lower by', 15, 'points', [0, 100]),
	'today.risesMost': ours('Waiting, and the number of trees, raise it by at most', 20, 'points', [0, 100]),
	'today.slowDays': ours('What is slow to harm rises a point in', 7, 'days', [0, 100]),
	'today.aheadDays': ours('Work is listed before it opens', 7, 'days', [0, 60]),
	'today.waterAheadDays': ours('Water is listed before it is needed', 3, 'days', [0, 14]),
	'today.weatherAheadDays': ours('Dangers of the weather are looked for ahead', 2, 'days', [0, 10]),
	'today.groupFrom': ours(
		'Trees of one place with unknown water, or before the same cold night, are one line from',
		3,
		'trees',
		[0, 50]
	),
	'today.stopMinutes': ours('Round: a thing to do without a time of its own takes', 5, 'min', [0, 120])
});
