import { measured } from '../text/measured';
import { defineValues, type WorkingValue } from './define';

const weight = (label: string, value: number): WorkingValue => ({
	label: `Front: weight of ${label}`,
	value,
	unit: 'points',
	mark: 'ours',
	note: 'Only their proportions count. What is looked for is trade practice.',
	min: 0,
	max: 10
});

/** How a tree is to stand: its front, its angle, and what rests on what. */
export const settingValues = defineValues({
	'front.flare': weight('the flare that shows', 3),
	'front.spread': weight('roots that spread to both sides', 3),
	'front.gaps': weight('no gap towards the viewer', 2),
	'front.lean': weight('a lean towards the viewer', 2),
	'front.straightDeg': {
		label: 'Front: a thick root this near to the line of sight points at the viewer',
		value: 20,
		unit: '°',
		mark: 'trade',
		min: 0,
		max: 60
	},
	'front.flareDepthMm': {
		label: 'Front: roots whose upper side lies no deeper show as flare',
		value: 15,
		unit: 'mm',
		mark: 'ours',
		min: 0,
		max: 200
	},
	'front.gapDeg': {
		label: 'Front: a stretch this wide without a root is no gap',
		value: 40,
		unit: '°',
		mark: 'ours',
		min: 0,
		max: 110
	},
	'front.leanDeg': {
		label: 'Front: a lean that counts in full',
		value: 15,
		unit: '°',
		mark: 'ours',
		min: 1,
		max: 60
	},
	'front.pokingCosts': {
		label: 'Front: share of the spread that the thickest root pointing straight at the viewer costs',
		value: 0.5,
		unit: 'share',
		mark: 'ours',
		min: 0,
		max: 1
	},
	'front.poking': {
		label: 'Front: a root pointing at the viewer is spoken of from this share of the thickest',
		value: 0.5,
		unit: 'share',
		mark: 'ours',
		min: 0,
		max: 1
	},
	'front.bareFrom': {
		label: 'Front: a stretch without a root is spoken of beyond this many times what is no gap',
		value: 1.5,
		unit: 'times',
		mark: 'ours',
		min: 1,
		max: 5
	},
	'front.leanSaid': {
		label: 'Front: a lean is spoken of from this far off level',
		value: 0.1,
		unit: 'share',
		mark: 'ours',
		note: 'Half is a trunk that leans to neither; 1 leans to the viewer in full, 0 away from them.',
		min: 0,
		max: 0.5
	},
	'setting.aboveShare': {
		label: 'A root is above the plane when more than this share of it stands out',
		value: 0.25,
		unit: 'share',
		mark: 'ours',
		min: 0,
		max: 1
	},
	'stops.stemShare': {
		label: 'A root straight down this thick against the trunk is the old stem or tap itself',
		value: 0.5,
		unit: 'share',
		mark: 'ours',
		min: 0.1,
		max: 1
	},
	'stops.askFromMm': {
		label: 'The owner is asked about a sound root from this thickness',
		value: 25,
		unit: 'mm',
		mark: 'memory',
		note: `BS 5837:2012 asks for an arborist’s word before roots of ${measured(25, 'mm')} and more are severed; recalled, not checked.`,
		min: 1,
		max: 500
	},
	'setting.formFactor': {
		label: 'Wood of a whole tree, as a share of a column of its trunk and height',
		value: 0.5,
		unit: 'share',
		mark: 'memory',
		note: 'Form factors of forest trees lie about 0.4 to 0.5; branches are added.',
		min: 0.1,
		max: 2
	},
	'setting.greenDensityKgL': {
		label: 'Density of green wood with bark and leaves',
		value: 0.9,
		unit: 'kg/L',
		mark: 'memory',
		min: 0.4,
		max: 1.3
	},
	'setting.massHeight': {
		label: 'Height of the middle of its mass, as a share of the height of the tree',
		value: 0.4,
		unit: 'share',
		mark: 'ours',
		min: 0.1,
		max: 0.8
	}
});
