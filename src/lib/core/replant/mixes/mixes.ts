import { z } from 'zod';
import type { Group } from '../../vocabulary/kind';
import type { Values } from '../../values/values';
import type { PottingMix } from './bench-test';
import { componentIds, componentOf } from './components';
import { mixBody, type MixPart } from './retention';

/** A potting mix by parts of volume. Common mixes of the trade [T]; parts are habit, not measurement. */
export interface Mix {
	name: string;
	parts: readonly MixPart[];
	suits: string;
	groups: readonly Group[];
	afterRot: boolean;
}

const DUST = 'Wet pumice, perlite and grit before pouring; wear a mask against the dust.';
const COMPOST = 'Open bags away from the face and wash hands: potting mixes can carry Legionella.';

export const mixes = {
	pumice: {
		name: 'Pumice alone',
		parts: [{ componentId: 'pumice-coarse', parts: 1 }],
		suits: 'collected trees and conifers, after a hard reduction',
		groups: ['conifer', 'deciduous', 'broadleaf-evergreen'],
		afterRot: true
	},
	'pumice-bark': {
		name: 'Pumice and bark, 3 : 1',
		parts: [
			{ componentId: 'pumice-medium', parts: 3 },
			{ componentId: 'bark-fine', parts: 1 }
		],
		suits: 'deciduous and evergreen trees in their first boxes',
		groups: ['deciduous', 'broadleaf-evergreen', 'conifer'],
		afterRot: true
	},
	'compost-grit': {
		name: 'Compost with grit, 1 : 1',
		parts: [
			{ componentId: 'compost', parts: 1 },
			{ componentId: 'grit-fine', parts: 1 }
		],
		suits: 'dry-country trees',
		groups: ['broadleaf-evergreen', 'deciduous'],
		afterRot: false
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
		afterRot: false
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
		afterRot: true
	},
	'coir-grit': {
		name: 'Coir with coarse mineral grit, 1 : 2',
		parts: [
			{ componentId: 'coir', parts: 1 },
			{ componentId: 'grit-coarse', parts: 2 }
		],
		suits: 'tropical and indoor trees after root rot',
		groups: ['tropical', 'palm', 'broadleaf-evergreen'],
		afterRot: true
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
		afterRot: false
	},
	'site-soil': {
		name: 'The soil of the site',
		parts: [{ componentId: 'site-soil', parts: 1 }],
		suits: 'replanting in the ground',
		groups: ['deciduous', 'broadleaf-evergreen', 'conifer'],
		afterRot: false
	}
} as const satisfies Record<string, Mix>;

export type MixId = keyof typeof mixes;
export const mixIds = Object.keys(mixes) as [MixId, ...MixId[]];
/** A shipped mix by its name. */
export const mixOf = (id: MixId): Mix => mixes[id];

/** A shipped recipe as a mix that can be changed and used. */
export const pottingMixOf = (id: MixId): PottingMix => ({
	name: mixOf(id).name,
	parts: mixOf(id).parts.map((part) => ({ ...part })),
	measured: null
});

/** What to be careful of with these parts. */
export function mixCautions(parts: readonly MixPart[]): string {
	const used = parts.filter((part) => part.parts > 0).map((part) => componentOf(part.componentId));
	return [
		...(used.some((of) => of.dust) ? [DUST] : []),
		...(used.some((of) => of.living) ? [COMPOST] : []),
		...(parts.some((part) => part.componentId === 'site-soil') ? ['Do not move diseased soil.'] : [])
	].join(' ');
}

export const componentLitresOutput = z.object({
	componentId: z.enum(componentIds),
	litres: z.number().describe('To measure out, L')
});

/**
 * Litres of each component to measure out for an amount of mix. Fines settle between coarse grains, so together they are
 * more than the mix they make.
 * @throws RangeError when the parts make nothing
 */
export function componentLitres(
	parts: readonly MixPart[],
	mixL: number,
	values: Values
): z.infer<typeof componentLitresOutput>[] {
	const total = parts.reduce((sum, part) => sum + part.parts, 0);
	const pouredL = mixL / mixBody(parts, values).yield;
	return parts
		.filter((part) => part.parts > 0)
		.map(({ componentId, parts: share }) => ({ componentId, litres: (pouredL * share) / total }));
}

/** The mix to begin with for a group; after rot only mixes that stay airy. */
export const usualMix = (group: Group, afterRot: boolean): MixId =>
	mixIds.find((id) => mixOf(id).groups.includes(group) && (!afterRot || mixOf(id).afterRot)) ?? 'pumice-bark';
