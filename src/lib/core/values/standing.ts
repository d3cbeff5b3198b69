import { defineValues, ours } from './define';

/** How it stands: when two records agree on a thing, and when they speak of the same time. */
export const standingValues = defineValues({
	'standing.sameTimeDays': ours('Two records speak of the same time within', 7, 'days', [0, 60]),
	'standing.sameTrunk': ours('Trunks measured alike within', 0.1, 'share', [0, 0.9]),
	'standing.sameSize': ours('Heights, living limits and ball widths alike within', 0.15, 'share', [0, 0.9]),
	'standing.sameBallDepth': ours('Ball depths alike within', 0.2, 'share', [0, 0.9]),
	'standing.sameCover': ours('Leaf covers alike within', 0.15, 'share of the crown', [0, 0.9]),
	'standing.sameLeanDeg': ours('Leans alike within', 3, '°', [0, 45]),
	'standing.samePh': ours('pH alike within', 0.5, 'pH', [0, 5])
});
