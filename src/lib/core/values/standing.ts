import { defineValues, type WorkingValue } from './define';

const value = (label: string, number: number, unit: string, max: number): WorkingValue => ({
	label,
	value: number,
	unit,
	mark: 'ours',
	min: 0,
	max
});

/** How it stands: when two records agree on a thing, and when they speak of the same time. */
export const standingValues = defineValues({
	'standing.sameTimeDays': value('Two records speak of the same time within', 7, 'days', 60),
	'standing.sameTrunk': value('Trunks measured alike within', 0.1, 'share', 0.9),
	'standing.sameSize': value('Heights, living limits and ball widths alike within', 0.15, 'share', 0.9),
	'standing.sameBallDepth': value('Ball depths alike within', 0.2, 'share', 0.9),
	'standing.sameCover': value('Leaf covers alike within', 0.15, 'share of the crown', 0.9),
	'standing.sameLeanDeg': value('Leans alike within', 3, '°', 45),
	'standing.samePh': value('pH alike within', 0.5, 'pH', 5)
});
