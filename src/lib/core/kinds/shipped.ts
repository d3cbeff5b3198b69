import type { Group, Kind, LiftingWindow, SapCaution } from './kind';

/**
 * Kinds that rescuers meet. Every number is recalled from memory [M], for plants with their roots in a pot;
 * the owner can change each of them.
 */
type Row = readonly [
	genus: string,
	commonName: string,
	group: Group,
	coldestC: number,
	wetnessTrigger: number,
	window: LiftingWindow,
	sap?: SapCaution,
	caution?: string
];

const rows: readonly Row[] = [
	['Carpinus', 'Hornbeam', 'deciduous', -15, 0.4, 'leafless'],
	['Fagus', 'Beech', 'deciduous', -15, 0.4, 'leafless'],
	['Ulmus', 'Elm', 'deciduous', -15, 0.45, 'leafless'],
	['Zelkova', 'Zelkova', 'deciduous', -15, 0.4, 'leafless'],
	['Tilia', 'Lime', 'deciduous', -18, 0.35, 'leafless'],
	['Betula', 'Birch', 'deciduous', -20, 0.35, 'leafless', 'none', 'Bleeds when cut near bud swell.'],
	['Alnus', 'Alder', 'deciduous', -20, 0.25, 'leafless'],
	[
		'Larix',
		'Larch',
		'conifer',
		-25,
		0.4,
		'leafless',
		'none',
		'Drops its needles; worked leafless like a broadleaf.'
	],
	['Fraxinus', 'Ash', 'deciduous', -15, 0.45, 'leafless', 'none', 'Plant-health rules may forbid moving it.'],
	['Malus', 'Apple', 'deciduous', -18, 0.4, 'leafless'],
	[
		'Prunus',
		'Cherry and plum',
		'deciduous',
		-15,
		0.45,
		'leafless',
		'toxic',
		'Leaves and stones are poisonous.'
	],
	['Pyrus', 'Pear', 'deciduous', -15, 0.45, 'leafless'],
	['Sorbus', 'Rowan', 'deciduous', -20, 0.4, 'leafless'],
	['Corylus', 'Hazel', 'deciduous', -18, 0.4, 'leafless'],
	['Salix', 'Willow', 'deciduous', -20, 0.2, 'leafless'],
	['Wisteria', 'Wisteria', 'deciduous', -12, 0.35, 'leafless', 'toxic', 'Seeds and pods are poisonous.'],
	['Ginkgo', 'Ginkgo', 'deciduous', -15, 0.45, 'leafless', 'irritant', 'Fruit flesh irritates the skin.'],
	['Liquidambar', 'Sweetgum', 'deciduous', -12, 0.35, 'leafless'],
	['Parrotia', 'Ironwood', 'deciduous', -15, 0.4, 'leafless'],
	['Lagerstroemia', 'Crape myrtle', 'deciduous', -5, 0.45, 'early-spring'],
	['Punica', 'Pomegranate', 'deciduous', -4, 0.5, 'early-spring'],
	['Morus', 'Mulberry', 'deciduous', -12, 0.45, 'leafless', 'irritant', 'Milky sap may irritate.'],
	['Celtis', 'Hackberry', 'deciduous', -12, 0.45, 'leafless'],
	['Quercus', 'Oak', 'deciduous', -12, 0.5, 'early-spring'],
	[
		'Buxus',
		'Box',
		'broadleaf-evergreen',
		-15,
		0.45,
		'spring-or-autumn',
		'irritant',
		'Toxic if eaten; blight spores travel on tools.'
	],
	['Ilex', 'Holly', 'broadleaf-evergreen', -12, 0.45, 'spring-or-autumn', 'toxic', 'Berries are poisonous.'],
	[
		'Ligustrum',
		'Privet',
		'broadleaf-evergreen',
		-12,
		0.45,
		'spring-or-autumn',
		'toxic',
		'Berries are poisonous.'
	],
	['Myrtus', 'Myrtle', 'broadleaf-evergreen', -4, 0.45, 'early-spring'],
	['Laurus', 'Bay', 'broadleaf-evergreen', -6, 0.5, 'early-spring'],
	['Arbutus', 'Strawberry tree', 'broadleaf-evergreen', -8, 0.5, 'early-spring'],
	['Camellia', 'Camellia', 'broadleaf-evergreen', -6, 0.35, 'early-spring'],
	[
		'Cotoneaster',
		'Cotoneaster',
		'broadleaf-evergreen',
		-15,
		0.45,
		'spring-or-autumn',
		'toxic',
		'Berries are mildly poisonous.'
	],
	[
		'Pyracantha',
		'Firethorn',
		'broadleaf-evergreen',
		-12,
		0.45,
		'spring-or-autumn',
		'irritant',
		'Thorn wounds inflame; gloves and eyes.'
	],
	['Osmanthus', 'Osmanthus', 'broadleaf-evergreen', -8, 0.45, 'spring-or-autumn'],
	['Pinus', 'Pine', 'conifer', -20, 0.55, 'spring-or-autumn', 'irritant', 'Resin sticks and may irritate.'],
	[
		'Juniperus',
		'Juniper',
		'conifer',
		-20,
		0.55,
		'spring-or-autumn',
		'irritant',
		'Needles prick and may raise a rash.'
	],
	[
		'Taxus',
		'Yew',
		'conifer',
		-18,
		0.45,
		'spring-or-autumn',
		'toxic',
		'Every part but the red aril is deadly if eaten; keep from stock.'
	],
	['Picea', 'Spruce', 'conifer', -25, 0.4, 'spring-or-autumn'],
	['Abies', 'Fir', 'conifer', -20, 0.4, 'spring-or-autumn'],
	['Cedrus', 'Cedar', 'conifer', -12, 0.5, 'spring-or-autumn'],
	['Chamaecyparis', 'False cypress', 'conifer', -15, 0.4, 'spring-or-autumn'],
	['Thuja', 'Thuja', 'conifer', -18, 0.4, 'spring-or-autumn', 'toxic', 'Toxic if eaten.'],
	['Tsuga', 'Hemlock fir', 'conifer', -18, 0.35, 'spring-or-autumn'],
	['Cryptomeria', 'Cryptomeria', 'conifer', -10, 0.35, 'early-spring'],
	[
		'Bougainvillea',
		'Bougainvillea',
		'tropical',
		5,
		0.6,
		'warm-growth',
		'irritant',
		'Thorns; sap may irritate.'
	],
	['Carmona', 'Fukien tea', 'tropical', 12, 0.4, 'warm-growth'],
	['Murraya', 'Orange jessamine', 'tropical', 10, 0.45, 'warm-growth'],
	['Hibiscus', 'Hibiscus', 'tropical', 8, 0.4, 'warm-growth'],
	['Schefflera', 'Umbrella tree', 'tropical', 10, 0.6, 'warm-growth', 'irritant', 'Sap irritates skin.'],
	['Citrus', 'Citrus', 'tropical', 4, 0.5, 'warm-growth', 'irritant', 'Peel oil burns skin in sun; thorns.'],
	['Psidium', 'Guava', 'tropical', 6, 0.45, 'warm-growth'],
	[
		'Adenium',
		'Adenium',
		'succulent',
		12,
		0.95,
		'warm-dry',
		'toxic',
		'Sap is poisonous; gloves, wash hands and blades.'
	],
	['Portulacaria', 'Spekboom', 'succulent', 5, 0.9, 'warm-dry'],
	[
		'Euphorbia',
		'Euphorbia',
		'succulent',
		8,
		0.95,
		'warm-dry',
		'toxic',
		'Milky sap burns skin and eyes; goggles and gloves.'
	],
	['Pachypodium', 'Pachypodium', 'succulent', 10, 0.95, 'warm-dry', 'toxic', 'Sap is poisonous; spines.'],
	['Beaucarnea', 'Ponytail', 'succulent', 5, 0.9, 'warm-dry'],
	['Calluna', 'Heather', 'ericaceous', -18, 0.25, 'spring-or-autumn'],
	['Pieris', 'Pieris', 'ericaceous', -12, 0.25, 'spring-or-autumn', 'toxic', 'Every part is poisonous.'],
	['Kalmia', 'Kalmia', 'ericaceous', -15, 0.25, 'spring-or-autumn', 'toxic', 'Every part is poisonous.'],
	['Enkianthus', 'Enkianthus', 'ericaceous', -15, 0.3, 'early-spring'],
	['Cordyline', 'Cabbage palm', 'palm', -4, 0.5, 'warm-growth'],
	['Dracaena', 'Dragon tree', 'palm', 8, 0.7, 'warm-growth'],
	['Chamaerops', 'Fan palm', 'palm', -8, 0.5, 'warm-growth', 'irritant', 'Spined leaf stalks; eyes.']
];

/** Where only the group is known: cautious numbers of that group, to be replaced once the kind is. */
const groupRows: readonly [id: string, ...row: Row][] = [
	['group-deciduous', 'Kind not known', 'Deciduous broadleaf', 'deciduous', -8, 0.4, 'leafless'],
	[
		'group-broadleaf-evergreen',
		'Kind not known',
		'Broadleaf evergreen',
		'broadleaf-evergreen',
		-4,
		0.45,
		'early-spring'
	],
	['group-conifer', 'Kind not known', 'Conifer', 'conifer', -10, 0.45, 'spring-or-autumn'],
	['group-tropical', 'Kind not known', 'Tropical woody', 'tropical', 12, 0.5, 'warm-growth'],
	['group-succulent', 'Kind not known', 'Succulent or fleshy-rooted', 'succulent', 10, 0.9, 'warm-dry'],
	['group-ericaceous', 'Kind not known', 'Ericaceous', 'ericaceous', -8, 0.25, 'spring-or-autumn'],
	['group-palm', 'Kind not known', 'Palm-like', 'palm', 5, 0.5, 'warm-growth']
];
const UNKNOWN_SAP = 'Kind not known: treat its sap as irritant, keep it from mouth and stock.';

const kindOf = (
	id: string,
	[genus, commonName, group, coldestC, wetnessTrigger, liftingWindow, sap = 'none', caution = '']: Row
): Kind => ({
	id,
	genus,
	commonName,
	group,
	coldestC,
	wetnessTrigger,
	liftingWindow,
	sap,
	caution,
	origin: 'shipped',
	version: 1
});

export const shippedKinds: readonly Kind[] = [
	...groupRows.map(([id, ...row]) => ({
		...kindOf(id, row),
		sap: 'irritant' as const,
		caution: UNKNOWN_SAP
	})),
	...rows.map((row) => kindOf(row[0].toLowerCase(), row))
];
