/** A word of the trade, explained once. */
export interface Term {
	/** As it is listed, in the singular. */
	term: string;
	/** Other forms by which a text may name it; plurals in s are found by themselves. */
	also?: readonly string[];
	meaning: string;
	/** Too common a word to be marked in texts; it is only listed. */
	quiet?: boolean;
}

/** Words of the trade as Bruntle uses them, in the order of the alphabet; one term for one thing. */
export const glossary: readonly Term[] = [
	{
		term: 'absorbing root',
		also: ['feeder root', 'feeder', 'fine root'],
		meaning:
			'A thin young root that takes up water and food. It lives for weeks to a few years and is soon grown again.'
	},
	{
		term: 'aftercare',
		quiet: true,
		meaning:
			'Everything done after the work until the tree stands on its own: water, shade, support, frost, pests.'
	},
	{
		term: 'air-filled porosity',
		also: ['air after draining'],
		meaning:
			'Share of a mix that holds air once it was soaked and has drained. Under some 10 % roots suffocate.'
	},
	{
		term: 'allowance',
		meaning: 'Share of the living roots that may come off in one stage, by kind, season, vigour and reserves.'
	},
	{
		term: 'anchor root',
		also: ['anchor'],
		meaning: 'A thick root that holds the tree up. What anchors are cut, others have to hold.'
	},
	{
		term: 'anchorage',
		meaning: 'How firmly the roots hold the tree, all round and on the side the wind pulls from.'
	},
	{
		term: 'backfill',
		meaning: 'Soil put back round a root ball in its hole. It holds other water than the ball does.'
	},
	{
		term: 'bare-root',
		also: ['bare root', 'bare-rooted'],
		meaning: 'With the soil taken off the roots.'
	},
	{
		term: 'bottom heat',
		meaning: 'Warmth from below that makes cuttings root sooner.'
	},
	{
		term: 'bulk density',
		meaning: 'Dry mass of soil by its volume. Over a limit that depends on texture, roots do not get through.'
	},
	{
		term: 'caliper',
		meaning: 'Thickness of the trunk a hand above the flare, by which field-grown trees are sold.'
	},
	{
		term: 'cambium',
		meaning:
			'The thin layer under the bark from which wood and bark grow. Green and moist it is alive; brown and dry it is dead.'
	},
	{
		term: 'candle',
		meaning: 'The new shoot of a pine before its needles open.'
	},
	{
		term: 'capillary break',
		meaning:
			'A coarse layer at which water stops until the finer one above is full. In a pot it raises the wet zone; it does not drain.'
	},
	{
		term: 'circling root',
		also: ['circler', 'circling'],
		meaning: 'A root that runs round the pot or the ball instead of out of it.'
	},
	{
		term: 'collar',
		also: ['root collar'],
		meaning: 'Where trunk and roots meet.'
	},
	{
		term: 'compaction',
		also: ['compacted'],
		meaning: 'Soil pressed so that its large pores are gone: neither air nor roots get in.'
	},
	{
		term: 'crown',
		quiet: true,
		meaning: 'Everything above the trunk that bears leaves.'
	},
	{
		term: 'crown cover',
		also: ['leaf cover'],
		meaning: 'Share of the crown that is in leaf, of what it would bear in good health.'
	},
	{
		term: 'dieback',
		also: ['die back', 'died back'],
		meaning: 'Wood that dies from the tips inward. Its limit is where living wood begins.'
	},
	{
		term: 'dormant',
		also: ['dormancy', 'at rest'],
		meaning: 'Resting, without growth, until warmth comes.'
	},
	{
		term: 'dry rest',
		meaning: 'Days without water after a succulent was cut, until its wounds are dry.'
	},
	{
		term: 'evapotranspiration',
		also: ['ET₀'],
		meaning: 'Water that soil and leaves give to the air, in mm a day. ET₀ is that of well-watered grass.'
	},
	{
		term: 'field capacity',
		meaning: 'Water that soil still holds a day or two after it was soaked.'
	},
	{
		term: 'flare',
		also: ['root flare'],
		meaning: 'Where the trunk widens into its first main roots. It belongs at the surface, not under soil.'
	},
	{
		term: 'flush',
		meaning: 'A wave of new growth.'
	},
	{
		term: 'front',
		quiet: true,
		meaning: 'The side from which the tree is to be looked at.'
	},
	{
		term: 'girdling root',
		also: ['girdler', 'girdling'],
		meaning: 'A root that lies across the trunk or another root and throttles it as both grow.'
	},
	{
		term: 'hardening off',
		also: ['hardened off', 'harden off'],
		meaning: 'Getting new shoots or a sheltered tree used to sun, wind and cold step by step.'
	},
	{
		term: 'heeled in',
		also: ['heel it in', 'heeling in'],
		meaning: 'Set loosely into soil for the time being, so that the roots stay moist.'
	},
	{
		term: 'hydrophobic',
		also: ['sheds water'],
		meaning: 'Dried out so far that water runs off or past instead of soaking in.'
	},
	{
		term: 'infiltration',
		meaning: 'How fast water sinks into soil.'
	},
	{
		term: 'kerf',
		meaning: 'The slot that a saw leaves.'
	},
	{
		term: 'lifting window',
		meaning: 'Weeks of the year in which roots of this kind may be worked on with least harm.'
	},
	{
		term: 'lot',
		quiet: true,
		meaning: 'Many like plants that are handled as one and counted.'
	},
	{
		term: 'mulch',
		meaning: 'A loose cover of bark, chips or compost. Never against the trunk.'
	},
	{
		term: 'mycorrhiza',
		also: ['mycorrhizal'],
		meaning: 'Fungi that live on roots and trade water and minerals for sugar.'
	},
	{
		term: 'penetrometer',
		meaning: 'A rod that is pushed in and tells how hard the soil is.'
	},
	{
		term: 'perched water',
		also: ['waterlogged layer', 'wet zone'],
		meaning:
			'Water that stands in the lowest part of every drained pot. It is as high in a low pot as in a tall one.'
	},
	{
		term: 'pot-bound',
		meaning: 'With so many roots that they fill the pot and circle.'
	},
	{
		term: 'repotting',
		also: ['repot', 'repotted'],
		meaning: 'Setting a tree into new mix, in the same pot or another.'
	},
	{
		term: 'reserves',
		meaning:
			'Sugar and starch stored in wood and roots, on which a tree lives until new leaves and roots earn more.'
	},
	{
		term: 'resistance',
		meaning: 'Pressure that soil sets against a rod. Over some 2 MPa most roots stop.'
	},
	{
		term: 'root ball',
		also: ['ball'],
		meaning: 'Roots with the soil they hold, as lifted or slid from a pot.'
	},
	{
		term: 'root function',
		meaning: 'How much water the roots can take up, against what they took before the damage.'
	},
	{
		term: 'root plane',
		meaning: 'The level at which the first roots leave the trunk all round, to lie just under the surface.'
	},
	{
		term: 'root protection area',
		meaning:
			'Ground round a standing tree that building work keeps off: a circle of twelve times the stem (BS 5837).'
	},
	{
		term: 'root rot',
		also: ['rotten', 'rot'],
		meaning:
			'Roots that die brown and soft, mostly of too little air in wet soil and of the water moulds that live there.'
	},
	{
		term: 'sap',
		meaning: 'Water and food that move in the wood. Some kinds bleed when cut in spring.'
	},
	{
		term: 'scaffold root',
		also: ['scaffold'],
		meaning: 'A main side root that branches and carries many others.'
	},
	{
		term: 'scorch',
		also: ['scorched'],
		meaning: 'Leaf edges that turn brown because water came too slowly.'
	},
	{
		term: 'scratch test',
		also: ['scratched', 'scratch'],
		meaning: 'A short scratch through the outer bark: green and moist below is alive.'
	},
	{
		term: 'secondary root',
		meaning: 'A root that branches off a scaffold root.'
	},
	{
		term: 'slip',
		quiet: true,
		meaning: 'Bark that comes off easily while the tree is in growth.'
	},
	{
		term: 'soil texture',
		also: ['texture'],
		meaning:
			'How much sand, silt and clay a soil holds. It sets how much water it keeps and how soon it is pressed too hard.'
	},
	{
		term: 'spade cut',
		also: ['root pruning', 'root-pruned'],
		meaning:
			'Roots cut round a standing tree a season or more before lifting, so that new ones grow near the trunk.'
	},
	{
		term: 'stage',
		quiet: true,
		meaning: 'One of several sessions, a growing season or more apart, in which roots are cut.'
	},
	{
		term: 'structural root zone',
		meaning: 'Ground in which lie the roots that hold the tree up (AS 4970). A cut there may let it fall.'
	},
	{
		term: 'sucker',
		meaning: 'A shoot from the roots or the base.'
	},
	{
		term: 'taper',
		meaning: 'How a root or trunk gets thinner along its length.'
	},
	{
		term: 'transpiration',
		meaning: 'Water that leaves breathe out.'
	},
	{
		term: 'turgid',
		meaning: 'Firm with water; the opposite of wilted.'
	},
	{
		term: 'vigour',
		quiet: true,
		meaning: 'How strongly a tree grows for its kind: strong, fair or weak.'
	},
	{
		term: 'wilting point',
		meaning: 'So little water that roots can draw none, though the soil is not bone dry.'
	},
	{
		term: 'woundwood',
		also: ['callus'],
		meaning: 'New wood that grows over a cut from its edges.'
	}
];

const escaped = (text: string): string => text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&');
const byForm = new Map(
	glossary
		.filter(({ quiet }) => !quiet)
		.flatMap((entry) =>
			[entry.term, ...(entry.also ?? [])].map((form) => [form.toLowerCase(), entry] as const)
		)
);
/** Longest forms first, so that "root ball" is not read as "ball". */
const anyForm = new RegExp(
	`(?<![\\p{L}-])(${[...byForm.keys()]
		.sort((a, b) => b.length - a.length)
		.map(escaped)
		.join('|')})(s)?(?![\\p{L}-])`,
	'giu'
);

/** A text in parts; a part with a term is a word that the glossary explains. */
export interface TextPart {
	text: string;
	term: Term | null;
}

/**
 * Splits a text at the words that the glossary explains, each term at its first place only.
 * @param known terms that were explained nearby already; those met are added
 */
export function withTerms(text: string, known: Set<string> = new Set()): TextPart[] {
	const parts: TextPart[] = [];
	let from = 0;
	for (const match of text.matchAll(anyForm)) {
		const entry = byForm.get((match[1] ?? '').toLowerCase());
		if (!entry || known.has(entry.term)) continue;
		known.add(entry.term);
		if (match.index > from) parts.push({ text: text.slice(from, match.index), term: null });
		parts.push({ text: match[0], term: entry });
		from = match.index + match[0].length;
	}
	if (from < text.length) parts.push({ text: text.slice(from), term: null });
	return parts;
}
