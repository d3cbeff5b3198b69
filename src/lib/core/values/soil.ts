import { textureClasses, type Texture } from '../vocabulary/textures';
import { defineValues, type WorkingValue } from './define';

const nrcs = 'USDA NRCS, soil quality indicators: bulk density [table from memory]';

/** Bulk density, Mg/m³: ideal below, may affect roots from, restricts them above. */
const densities: readonly [readonly Texture[], ideal: number, affects: number, restricts: number][] = [
	[['sand', 'loamy-sand'], 1.6, 1.69, 1.8],
	[['sandy-loam', 'loam'], 1.4, 1.63, 1.8],
	[['sandy-clay-loam', 'clay-loam'], 1.4, 1.6, 1.75],
	[['silt', 'silt-loam'], 1.4, 1.6, 1.75],
	[['silty-clay-loam'], 1.4, 1.55, 1.65],
	[['sandy-clay', 'silty-clay'], 1.1, 1.49, 1.58],
	[['clay'], 1.1, 1.39, 1.47]
];
const densityWords = {
	ideal: 'ideal for roots below',
	affects: 'may affect roots from',
	restricts: 'restricts roots above'
};
type DensityKey = `soil.density.${keyof typeof densityWords}.${Texture}`;

const densityValues = Object.fromEntries(
	densities.flatMap(([classes, ideal, affects, restricts]) =>
		classes.flatMap((texture) =>
			Object.entries({ ideal, affects, restricts }).map(([word, value]): [string, WorkingValue] => [
				`soil.density.${word}.${texture}`,
				{
					label: `Bulk density of ${textureClasses[texture].label}, ${densityWords[word as keyof typeof densityWords]}`,
					value,
					unit: 'Mg/m³',
					mark: 'published',
					source: nrcs,
					min: 0.5,
					max: 2.4
				}
			])
		)
	)
) as Record<DensityKey, WorkingValue>;

const infiltration = (label: string, value: number): WorkingValue => ({
	label,
	value,
	unit: 'mm/h',
	mark: 'published',
	source: 'USDA NRCS, infiltration rate classes [table from memory]',
	min: 0.01,
	max: 5000
});

export const soilValues = {
	...densityValues,
	...defineValues({
		'soil.particle-density': {
			label: 'Density of mineral grains',
			value: 2.65,
			unit: 'Mg/m³',
			mark: 'published',
			source: 'quartz; usual in soil physics',
			min: 2,
			max: 3
		},
		'soil.steady-share': {
			label: 'Infiltration is steady when the last rate is at least this part of the one before',
			value: 0.8,
			unit: 'share',
			mark: 'ours',
			min: 0.1,
			max: 1
		},
		'soil.air-least': {
			label: 'Air-filled porosity under which roots lack air',
			value: 0.1,
			unit: 'share',
			mark: 'memory',
			min: 0,
			max: 0.5
		},
		'soil.resistance-slow': {
			label: 'Penetration resistance over which roots slow sharply',
			value: 2,
			unit: 'MPa',
			mark: 'memory',
			note: 'At field moisture; widely published.',
			min: 0.2,
			max: 10
		},
		'soil.resistance-stop': {
			label: 'Penetration resistance over which hardly any root grows',
			value: 3,
			unit: 'MPa',
			mark: 'memory',
			note: 'At field moisture; widely published.',
			min: 0.2,
			max: 10
		},
		'soil.hand-depth': {
			label: 'A hand’s depth, where hard soil is worst',
			value: 200,
			unit: 'mm',
			mark: 'ours',
			min: 50,
			max: 600
		},
		'soil.root-depth': {
			label: 'Depth that holds most roots of a tree',
			value: 600,
			unit: 'mm',
			mark: 'memory',
			min: 100,
			max: 2000
		},
		'soil.infiltration.slow': infiltration('Infiltration: very slow below', 1.5),
		'soil.infiltration.moderately-slow': infiltration('Infiltration: slow below', 5),
		'soil.infiltration.moderate': infiltration('Infiltration: moderately slow below', 15),
		'soil.infiltration.moderately-rapid': infiltration('Infiltration: moderate below', 51),
		'soil.infiltration.rapid': infiltration('Infiltration: moderately rapid below', 152),
		'soil.infiltration.very-rapid': infiltration('Infiltration: rapid below', 508)
	})
};
