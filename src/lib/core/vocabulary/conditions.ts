import { wordsOf } from './words-of';

/** What trees may have in common. */
export type SharedThing = 'batch' | 'mix' | 'watering' | 'place';

/** What can be wrong with a tree in trouble; several may hold at once. */
export interface Condition {
	label: string;
	/** What a sentence begins with that says it holds, where "label is" is none. */
	subject?: string;
	/** What follows from it, in one sentence. */
	meaning: string;
	/** The same once what it asks to be found out was: nothing is asked twice. */
	meaningThen?: string;
	/** Its treatment works at the roots, so that season counts. */
	atRoots: boolean;
	/** Through what it reaches other trees, if it does. */
	spreadsBy?: readonly SharedThing[];
	/** What its treatment asks of the person, so that no two that contradict are shown together. */
	asks?: Partial<Record<Ask, string>>;
	/** Danger to people: said before anything about the tree. */
	danger?: string;
	/** Nothing is done about it as such: it only says how the rest is to be read. */
	untreatable?: boolean;
}

/** Things a treatment may ask for; the words beside say which way. */
const askNames = {
	water: 'about water',
	roots: 'about touching the roots',
	pot: 'about the pot',
	place: 'about its place'
};
export type Ask = keyof typeof askNames;
export const asks = wordsOf(askNames);

export const conditions = {
	'root-rot': {
		asks: { water: 'less', roots: 'open', pot: 'smaller' },
		label: 'Root rot',
		atRoots: true,
		meaning: 'Cut back to clean wood at once, in any season; new, airy mix.',
		spreadsBy: ['batch', 'mix', 'watering']
	},
	'sour-root-zone': {
		asks: { water: 'less' },
		label: 'Sour, airless root zone',
		subject: 'A sour, airless root zone is',
		atRoots: false,
		meaning: 'Let air in: drain, tilt, water less, open the mix.',
		spreadsBy: ['mix', 'watering']
	},
	'girdling-roots': {
		asks: { roots: 'open' },
		label: 'Girdling roots',
		subject: 'Girdling roots are',
		atRoots: true,
		meaning: 'Map the collar; free the trunk and anchors first.',
		meaningThen: 'Free the trunk and anchors first.'
	},
	'buried-collar': {
		label: 'Buried collar',
		subject: 'A buried collar is',
		atRoots: false,
		meaning: 'Open the collar down to the flare by hand or with air.'
	},
	compaction: {
		label: 'Soil compaction',
		atRoots: false,
		meaning: 'Measure by depth, then loosen between the roots and mulch.',
		meaningThen: 'Loosen between the roots and mulch.'
	},
	'pot-bound': {
		asks: { roots: 'open', pot: 'larger' },
		label: 'Pot-bound, circling roots',
		subject: 'Circling roots of a pot too full are',
		atRoots: true,
		meaning: 'Open the ball and reduce what circles.'
	},
	'collapsed-mix': {
		asks: { water: 'less', roots: 'open' },
		label: 'Collapsed or too fine mix',
		subject: 'A collapsed or too fine mix is',
		atRoots: true,
		meaning: 'Change the mix; while that waits, water less and from above.',
		spreadsBy: ['batch', 'mix']
	},
	'dry-core': {
		asks: { water: 'more' },
		label: 'Dry core that sheds water',
		subject: 'A dry core that sheds water is',
		atRoots: false,
		meaning: 'Soak from below, twice, before judging anything else.',
		spreadsBy: ['mix', 'watering']
	},
	drought: {
		asks: { water: 'more' },
		label: 'Drought',
		atRoots: false,
		meaning: 'Water the whole surface slowly; shade until leaves stand again.'
	},
	'over-potting': {
		asks: { water: 'less', pot: 'smaller' },
		label: 'Over-potting',
		atRoots: true,
		meaning: 'Water by weight, and a smaller pot.'
	},
	'weather-injury': {
		label: 'Cold, wind or heat injury',
		atRoots: false,
		meaning: 'Shelter now, cut nothing until the limit of dieback is clear.',
		spreadsBy: ['place', 'batch']
	},
	pest: {
		label: 'Sap-sucking or root-feeding pest',
		subject: 'A sap-sucking or root-feeding pest is',
		atRoots: false,
		meaning: 'Set it apart, wash it, look at its neighbours.',
		spreadsBy: ['place', 'batch']
	},
	'salt-ph-nutrient': {
		label: 'Salt, pH or nutrient trouble',
		atRoots: false,
		meaning:
			'Measure before feeding anything: a strip in soil shaken with distilled water for pH, a meter in the first run-off for salt; flush salt out, and bring pH back where it locks food up.',
		spreadsBy: ['mix', 'watering']
	},
	'stem-rot': {
		asks: { water: 'less' },
		label: 'Stem or crown rot',
		atRoots: false,
		meaning: 'Cut to firm tissue; a big tree goes to a qualified arborist.',
		spreadsBy: ['batch', 'watering']
	},
	'recent-root-loss': {
		asks: { water: 'less', roots: 'leave', place: 'shade' },
		label: 'Recent root loss',
		subject: 'A recent loss of roots is',
		atRoots: false,
		meaning: 'Hold demand down: shade, shelter, humidity; water sparingly, by weight.'
	},
	'low-light': {
		asks: { place: 'light' },
		label: 'Too little light',
		atRoots: false,
		meaning: 'Move it in steps to more light.'
	},
	'not-used-to-place': {
		label: 'Not yet used to its place',
		subject: 'That it is not yet used to its place is',
		atRoots: false,
		asks: { roots: 'leave', place: 'stay' },
		meaning:
			'Leave it where it is: no repotting, no feed; compare the light with where it came from, and wait.'
	},
	'pot-too-small': {
		label: 'Pot too small or too shallow for its kind',
		subject: 'A pot too small or too shallow for its kind is',
		atRoots: true,
		asks: { water: 'more', pot: 'larger' },
		meaning: 'A deeper pot one size up; while that waits, water as often as it dries.'
	},
	'uneven-water': {
		label: 'Watered unevenly, roots on one side',
		subject: 'Uneven water, with roots on one side, is',
		atRoots: false,
		asks: { water: 'even' },
		meaning: 'Water the whole surface, slowly and all round; turn it a quarter each week.'
	},
	'repotted-too-early': {
		label: 'Repotted too early, or watered as before in the bigger pot',
		subject: 'Repotting too early, or water as before in the bigger pot, is',
		atRoots: false,
		asks: { water: 'less', roots: 'leave' },
		meaning: 'Leave the roots in peace; water only by weight until it grows.'
	},
	'graft-trouble': {
		label: 'Graft failing or not compatible',
		subject: 'A failing or ill-matched graft is',
		atRoots: false,
		meaning: 'Support it, look at the union for a crack all round; a large tree goes to a qualified arborist.'
	},
	'chemical-injury': {
		label: 'Weedkiller or other chemical',
		subject: 'A weedkiller or other chemical is',
		atRoots: false,
		asks: { water: 'more' },
		meaning: 'Ask what was sprayed or spilt; rinse leaves, leach a draining pot; keep it off what is eaten.',
		spreadsBy: ['place', 'watering']
	},
	'vascular-wilt': {
		label: 'Vascular wilt',
		atRoots: false,
		meaning:
			'Slice a wilting twig; set it apart, bag or burn what is cut, clean tools; tell the authority where the law asks it.',
		spreadsBy: ['place', 'batch']
	},
	'root-killing-fungus': {
		label: 'Root-killing fungus under the bark',
		subject: 'A root-killing fungus under the bark is',
		atRoots: false,
		meaning:
			'Isolate it and move no soil; leave no stump or root in; a large tree goes to a qualified arborist.',
		spreadsBy: ['place']
	},
	'rising-water': {
		label: 'Water table risen',
		subject: 'A risen water table is',
		atRoots: false,
		asks: { water: 'less' },
		meaning: 'Dig a test hole and look after 24 hours; drain it, or plant it on a mound.',
		spreadsBy: ['place']
	},
	'soil-gas': {
		label: 'Gas in the soil',
		atRoots: false,
		danger:
			'People first: leave the spot, no flame, no switch, no engine; call the gas supplier’s emergency line from further off.',
		meaning: 'Only when the supplier has cleared it: let air into the soil.',
		spreadsBy: ['place']
	},
	dead: {
		label: 'Dead',
		subject: 'That it is dead is',
		atRoots: false,
		untreatable: true,
		meaning:
			'Scratch once more at the flare on four sides and look at one root; try a low cut once; then write the lesson.'
	},
	'something-else': {
		label: 'Something else',
		atRoots: false,
		untreatable: true,
		meaning:
			'None of the named causes explains what was found: show it to somebody, and change one thing at a time.'
	}
} as const satisfies Record<string, Condition>;

export type ConditionId = keyof typeof conditions;
export const conditionIds = Object.keys(conditions) as ConditionId[];
/** How a sentence begins that says of a cause that it holds. @example "Girdling roots are" @param conditionId the cause */
export const subjectOf = (conditionId: ConditionId): string => {
	const { label, subject }: Condition = conditions[conditionId];
	return subject ?? `${label} is`;
};

/**
 * Whether two treatments contradict, and about what: each asks for another way of the same thing.
 * @returns "about water" and the like; null where both can be done
 */
export function contradiction(a: ConditionId, b: ConditionId): string | null {
	const [first, second] = [conditionOf(a).asks ?? {}, conditionOf(b).asks ?? {}];
	const thing = asks.find((ask) => first[ask] && second[ask] && first[ask] !== second[ask]);
	return thing ? askNames[thing] : null;
}
/** All that is told of a condition. */
export const conditionOf = (id: ConditionId): Condition => conditions[id];
