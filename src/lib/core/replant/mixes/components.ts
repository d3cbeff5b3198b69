import type { Mark } from '../../values/define';

/** What a potting mix is made of. Grains are taken as sieved: their fine end rules the pores between them. */
export interface Component {
	name: string;
	/** Grain or fibre size, fine and coarse end. */
	fineMm: number;
	coarseMm: number;
	/** Pore that rules its water, where the fine end of its size does not tell; null takes it from there. */
	poreMm: number | null;
	/** Dry mass of a litre as poured. */
	dryKgL: number;
	/** Pores between the grains, and pores inside them that hold water against gravity; shares of the poured volume. */
	between: number;
	inside: number;
	/** How evenly sized the pores are: the n of van Genuchten. */
	evenness: number;
	ph: number;
	/** Years until it has broken down to half its air; null for what lasts. */
	lifeYears: number | null;
	dust: boolean;
	/** Living material that can carry Legionella. */
	living: boolean;
	mark: Mark;
}

const mineral = (
	name: string,
	[fineMm, coarseMm]: [number, number],
	[dryKgL, between, inside, ph]: [number, number, number, number],
	more: Partial<Component> = {}
): Component => ({
	name,
	fineMm,
	coarseMm,
	poreMm: null,
	dryKgL,
	between,
	inside,
	evenness: 3.5,
	ph,
	lifeYears: null,
	dust: true,
	living: false,
	mark: 'memory',
	...more
});
const organic = (
	name: string,
	[fineMm, coarseMm]: [number, number],
	[dryKgL, between, inside, ph]: [number, number, number, number],
	lifeYears: number,
	more: Partial<Component> = {}
): Component => ({
	...mineral(name, [fineMm, coarseMm], [dryKgL, between, inside, ph]),
	evenness: 1.4,
	lifeYears,
	dust: false,
	living: true,
	...more
});

/**
 * Components with their working properties [recalled from memory or our own; bags differ, so that a bench test of the mix
 * replaces them]. Wood-like and peaty ones hold much inside and break down; loams and sands pack.
 */
export const components = {
	'pumice-fine': mineral('pumice 1–3 mm', [1, 3], [0.5, 0.42, 0.3, 7]),
	'pumice-medium': mineral('pumice 3–6 mm', [3, 6], [0.45, 0.45, 0.28, 7]),
	'pumice-coarse': mineral('pumice 4–8 mm', [4, 8], [0.42, 0.47, 0.26, 7]),
	perlite: mineral('perlite 2–6 mm', [2, 6], [0.1, 0.5, 0.25, 7.2]),
	'perlite-fine': mineral('perlite 1–3 mm', [1, 3], [0.12, 0.45, 0.33, 7.2]),
	vermiculite: mineral('vermiculite 2–4 mm', [2, 4], [0.12, 0.35, 0.45, 7.5], {
		evenness: 2.4,
		lifeYears: 4
	}),
	'grit-fine': mineral('grit 2–5 mm', [2, 5], [1.5, 0.43, 0.01, 7]),
	'grit-coarse': mineral('mineral grit 4–8 mm', [4, 8], [1.45, 0.45, 0.01, 7]),
	'lava-fine': mineral('lava 2–5 mm', [2, 5], [0.9, 0.46, 0.16, 7.4]),
	'lava-coarse': mineral('lava 5–10 mm', [5, 10], [0.85, 0.48, 0.15, 7.4]),
	'calcined-clay': mineral('calcined clay 2–5 mm', [2, 5], [0.62, 0.42, 0.33, 6.5]),
	zeolite: mineral('zeolite 2–5 mm', [2, 5], [0.95, 0.43, 0.2, 7.5]),
	'expanded-clay': mineral('expanded clay 4–8 mm', [4, 8], [0.42, 0.45, 0.12, 7.2]),
	'sand-coarse': mineral('coarse sand 0.5–2 mm', [0.5, 2], [1.55, 0.4, 0, 7], { evenness: 2.8 }),
	'sand-fine': mineral('fine sand 0.1–0.5 mm', [0.1, 0.5], [1.5, 0.42, 0, 7], {
		poreMm: 0.1,
		evenness: 2.6,
		dust: false
	}),
	'bark-fine': organic('composted pine bark 3–8 mm', [2, 8], [0.24, 0.42, 0.36, 5], 4, {
		poreMm: 1.6,
		evenness: 1.6
	}),
	'bark-coarse': organic('pine bark 8–15 mm', [8, 15], [0.2, 0.5, 0.27, 4.8], 6, { evenness: 1.9 }),
	coir: organic('coir', [0.3, 5], [0.08, 0.55, 0.38, 6], 4, { poreMm: 0.8, evenness: 1.45 }),
	peat: organic('peat, sieved', [0.3, 5], [0.1, 0.52, 0.38, 4], 3, { poreMm: 0.6 }),
	compost: organic('compost', [0.2, 5], [0.4, 0.42, 0.34, 7], 2, { poreMm: 0.5 }),
	'ericaceous-compost': organic('ericaceous compost', [0.3, 5], [0.25, 0.47, 0.36, 4.8], 2, { poreMm: 0.6 }),
	loam: organic('loam', [0.02, 2], [1.1, 0.38, 0.16, 6.5], 20, { poreMm: 0.1, lifeYears: null }),
	'leaf-mould': organic('leaf mould', [0.3, 5], [0.25, 0.48, 0.36, 6], 2, { poreMm: 0.7 }),
	moss: organic('long-fibred moss', [1, 10], [0.04, 0.6, 0.35, 4.5], 2, { poreMm: 1.2, evenness: 1.5 }),
	'site-soil': organic('soil dug from the hole', [0.02, 4], [1.3, 0.36, 0.12, 6.5], 20, {
		poreMm: 0.08,
		evenness: 1.35,
		lifeYears: null
	})
} as const satisfies Record<string, Component>;

export type ComponentId = keyof typeof components;
export const componentIds = Object.keys(components) as [ComponentId, ...ComponentId[]];
/** All that is told of a component. */
export const componentOf = (id: ComponentId): Component => components[id];
