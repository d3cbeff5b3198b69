import type { Group } from '../kinds/kind';
import type { Values } from '../values/values';
import { componentOf } from './components';
import { mixBody, type MixPart } from './retention';

/** A potting mix by parts of volume. Common mixes of the trade [T]; parts are habit, not measurement. */
export interface Mix {
	name: string;
	parts: readonly MixPart[];
	suits: string;
	groups: readonly Group[];
	afterRot: boolean;
	caution: string;
}

const DUST = 'Wet pumice, perlite and grit before pouring; wear a mask against the dust.';
const COMPOST = 'Open bags away from the face and wash hands: potting mixes can carry Legionella.';

export const mixes = {
	pumice: {
		name: 'Pumice alone',
		parts: [{ componentId: 'pumice-coarse', parts: 1 }],
		suits: 'collected trees and conifers, after a hard reduction',
		groups: ['conifer', 'deciduous', 'broadleaf-evergreen'],
		afterRot: true,
		caution: DUST
	},
	'pumice-bark': {
		name: 'Pumice and bark, 3 : 1',
		parts: [
			{ componentId: 'pumice-medium', parts: 3 },
			{ componentId: 'bark-fine', parts: 1 }
		],
		suits: 'deciduous and evergreen trees in their first boxes',
		groups: ['deciduous', 'broadleaf-evergreen', 'conifer'],
		afterRot: true,
		caution: DUST
	},
	'compost-grit': {
		name: 'Compost with grit, 1 : 1',
		parts: [
			{ componentId: 'compost', parts: 1 },
			{ componentId: 'grit-fine', parts: 1 }
		],
		suits: 'dry-country trees',
		groups: ['broadleaf-evergreen', 'deciduous'],
		afterRot: false,
		caution: COMPOST
	},
	'compost-perlite-loam': {
		name: 'Compost, perlite and a little loam, 4 : 5 : 1',
		parts: [
			{ componentId: 'compost', parts: 4 },
			{ componentId: 'perlite', parts: 5 },
			{ componentId: 'loam', parts: 1 }
		],
		suits: 'fleshy plants; the loam wets again after drying',
		groups: ['succulent', 'palm', 'tropical'],
		afterRot: false,
		caution: `${COMPOST} ${DUST}`
	},
	'equal-mineral': {
		name: 'Perlite, vermiculite and pumice, equal',
		parts: [
			{ componentId: 'perlite', parts: 1 },
			{ componentId: 'vermiculite', parts: 1 },
			{ componentId: 'pumice-medium', parts: 1 }
		],
		suits: 'a rotted stump and cuttings',
		groups: ['succulent', 'tropical'],
		afterRot: true,
		caution: DUST
	},
	'coir-grit': {
		name: 'Coir with coarse mineral grit, 1 : 2',
		parts: [
			{ componentId: 'coir', parts: 1 },
			{ componentId: 'grit-coarse', parts: 2 }
		],
		suits: 'tropical and indoor trees after root rot',
		groups: ['tropical', 'palm', 'broadleaf-evergreen'],
		afterRot: true,
		caution: DUST
	},
	bark: {
		name: 'Bark, peat-free ericaceous and perlite, 3 : 2 : 1',
		parts: [
			{ componentId: 'bark-fine', parts: 3 },
			{ componentId: 'ericaceous-compost', parts: 2 },
			{ componentId: 'perlite', parts: 1 }
		],
		suits: 'ericaceous shrubs',
		groups: ['ericaceous'],
		afterRot: false,
		caution: COMPOST
	},
	'site-soil': {
		name: 'The soil of the site',
		parts: [{ componentId: 'site-soil', parts: 1 }],
		suits: 'replanting in the ground',
		groups: ['deciduous', 'broadleaf-evergreen', 'conifer'],
		afterRot: false,
		caution: 'Do not move diseased soil.'
	}
} as const satisfies Record<string, Mix>;

export type MixId = keyof typeof mixes;
export const mixIds = Object.keys(mixes) as [MixId, ...MixId[]];
export const mixOf = (id: MixId): Mix => mixes[id];

/**
 * Litres of each component to measure out for an amount of mix. Fines settle between coarse grains, so together they are
 * more than the mix they make.
 */
export function componentLitres(
	id: MixId,
	mixL: number,
	values: Values
): { component: string; litres: number }[] {
	const { parts } = mixOf(id);
	const total = parts.reduce((sum, part) => sum + part.parts, 0);
	const pouredL = mixL / mixBody(parts, values).yield;
	return parts.map((part) => ({
		component: componentOf(part.componentId).name,
		litres: (pouredL * part.parts) / total
	}));
}

/** The mix to begin with for a group; after rot only mixes that stay airy. */
export const usualMix = (group: Group, afterRot: boolean): MixId =>
	mixIds.find((id) => mixOf(id).groups.includes(group) && (!afterRot || mixOf(id).afterRot)) ?? 'pumice-bark';
