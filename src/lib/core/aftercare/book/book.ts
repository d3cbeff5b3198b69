import { sideName } from '../../text/sides';
import { inUnit } from '../../text/measured';
import { percent } from '../../text/percent';
import { z } from 'zod';
import {
	calendarDate,
	count,
	id,
	measure,
	note,
	oneOf,
	share,
	shortText,
	version
} from '../../vocabulary/fields';
import type { Stage } from '../../vocabulary/words';

/*
 * The field book: what is done to a tree or seen on it and has no page of its own, each with the details that kind of thing has, so that it
 * counts wherever it matters and is more than a sentence.
 */

/** done: to the tree · seen: on it · before: what it went through before it was taken in, or elsewhere. */
export type Deals = 'done' | 'seen' | 'before';
export const dealsNames: Record<Deals, string> = {
	done: 'Done',
	seen: 'Seen',
	before: 'Before'
};

/** Details an entry may carry; whatever a kind does not ask for stays null or empty. */
export const bookDetails = z.strictObject({
	choice: shortText(40).nullable().default(null).describe('One of the choices of its kind'),
	product: note(80).describe('Name on the label'),
	strength: note(80).describe('Strength or dose as the label gives it'),
	first: note(300).describe('What must happen first'),
	share: share().nullable().default(null),
	heightMm: measure(0, 60_000, 'mm').nullable().default(null).describe('Above the flare'),
	bearingDeg: measure(0, 360, '°').nullable().default(null),
	leanDeg: measure(0, 89, '°').nullable().default(null).describe('From upright'),
	lengthMm: measure(0, 60_000, 'mm').nullable().default(null),
	widthMm: measure(0, 20_000, 'mm').nullable().default(null),
	depthMm: measure(0, 5000, 'mm').nullable().default(null),
	diameterMm: measure(0.5, 3000, 'mm').nullable().default(null),
	count: count(0, 10_000).nullable().default(null),
	grams: measure(0, 1_000_000, 'g').nullable().default(null),
	litres: measure(0, 5000, 'L').nullable().default(null),
	minutes: measure(0, 20_000, 'min').nullable().default(null),
	temperatureC: measure(-40, 60, '°C').nullable().default(null),
	price: measure(0, 10_000_000, '').nullable().default(null).describe('Paid, in the money of the owner'),
	everyDays: count(1, 3660).nullable().default(null).describe('To be done again after so many days'),
	untilOn: calendarDate().nullable().default(null).describe('Until when it stays, or when to look again')
});
export type BookDetails = z.infer<typeof bookDetails>;
export type Detail = keyof BookDetails;

interface Asked {
	label: string;
	hint?: string;
	needed?: boolean;
}
export interface BookKindOf {
	label: string;
	deals: Deals;
	/** Where it is told in the journal and the line of care. */
	stage: Stage;
	/** What is asked, in its order. */
	asks: Partial<Record<Detail, Asked>>;
	choices?: { label: string; options: Readonly<Record<string, string>> };
	/** What to mind, shown where it is written. */
	minds?: string;
	/** Title of the task that falls due on `untilOn`. */
	until?: string;
	/** Title of the task that comes up again every so many days. */
	again?: string;
}

const side = (label = 'Side', needed = false): Asked => ({ label, needed });
const again: Asked = { label: 'Again every (days)', hint: 'Leave it empty if it is done once' };
const label = {
	product: { label: 'Product', hint: 'Name on its label' },
	strength: { label: 'Strength or dose', hint: 'As the label gives it; Bruntle gives none' }
} as const;
const minded = 'The label and local rules come before anything said here.';

const bookKinds = {
	/* Roots and ball */
	'ball-scored': {
		label: 'Bound ball scored',
		deals: 'done',
		stage: 'roots',
		asks: {
			count: { label: 'Cuts round the side', needed: true },
			depthMm: { label: 'Depth of the cuts', needed: true }
		},
		choices: { label: 'Where', options: { sides: 'the sides', 'sides-and-base': 'sides and base' } },
		minds: 'A blade towards the other hand slips: cut away from it. What is severed counts as root lost.'
	},
	'ball-sliced': {
		label: 'Base of the ball sliced off',
		deals: 'done',
		stage: 'roots',
		asks: { depthMm: { label: 'Thickness taken off', needed: true } },
		minds: 'What comes off counts as root lost, and the ball is shallower by it.'
	},
	'ball-shaved': {
		label: 'Ball shaved round',
		deals: 'done',
		stage: 'roots',
		asks: {
			depthMm: { label: 'Taken off all round', needed: true },
			bearingDeg: side('Side that was spared')
		}
	},
	'roots-teased': {
		label: 'Roots of the ball teased out',
		deals: 'done',
		stage: 'roots',
		asks: { depthMm: { label: 'Depth' }, share: { label: 'Fine roots torn off in doing so' } }
	},
	'roots-freed': {
		label: 'Roots freed with air or water before a cut',
		deals: 'done',
		stage: 'roots',
		asks: { lengthMm: { label: 'Out from the trunk' }, depthMm: { label: 'Depth' }, bearingDeg: side() },
		choices: { label: 'With', options: { air: 'an air tool', water: 'water', hand: 'hand tools' } },
		minds: 'Eyes, ears, dust mask. Bare roots dry within minutes in sun and wind: cover them.'
	},
	'roots-washed': {
		label: 'Roots washed',
		deals: 'done',
		stage: 'roots',
		asks: { temperatureC: { label: 'Water' }, minutes: { label: 'For' } },
		minds: 'Not with icy water, and not on frozen ground.'
	},
	'roots-pinned': {
		label: 'Flyaway roots pinned down',
		deals: 'done',
		stage: 'replant',
		asks: { count: { label: 'Pins' }, bearingDeg: side(), untilOn: { label: 'Off on', needed: true } },
		until: 'Take the pins out: do the roots lie?'
	},
	'guide-sticks': {
		label: 'Guide sticks between roots',
		deals: 'done',
		stage: 'replant',
		asks: { count: { label: 'Sticks' }, untilOn: { label: 'Off on', needed: true } },
		minds: 'Wood rots in wet pots: take it out in time.',
		until: 'Take the guide sticks out'
	},
	'moss-on-roots': {
		label: 'Moss laid over roots',
		deals: 'done',
		stage: 'replant',
		asks: { untilOn: { label: 'Off on', needed: true } },
		minds: 'Moss left on bark keeps it wet.',
		until: 'Take the moss off roots and bark'
	},
	'tile-under': {
		label: 'Tile or board laid under the ball',
		deals: 'done',
		stage: 'replant',
		asks: { widthMm: { label: 'Width' }, depthMm: { label: 'Depth below the flare' } },
		choices: { label: 'Of', options: { tile: 'tile', board: 'board', slate: 'slate or stone' } }
	},
	'rot-cut-out': {
		label: 'Rotten root or tissue cut out',
		deals: 'done',
		stage: 'roots',
		asks: {
			share: { label: 'Living root that went with it' },
			bearingDeg: side(),
			product: label.product,
			strength: label.strength
		},
		minds: 'Clean blade after every cut. Bag or burn what comes off, as local rules say.'
	},
	/* Stem and crown */
	'stem-sawn': {
		label: 'Stem or trunk sawn',
		deals: 'done',
		stage: 'recovery',
		asks: {
			heightMm: { label: 'Height of the cut', needed: true },
			diameterMm: { label: 'Thickness at the cut' },
			bearingDeg: side('The cut faces'),
			count: { label: 'Living shoots it has left' }
		},
		choices: {
			label: 'Cut face',
			options: { open: 'left open', paste: 'sealed', whittled: 'whittled flush', stub: 'left as a stub' }
		},
		minds: 'Only to wood that is known to live, and never beside the only living shoot.'
	},
	'stem-carved': {
		label: 'Stem carved or hollowed',
		deals: 'done',
		stage: 'recovery',
		asks: {
			heightMm: { label: 'Middle height', needed: true },
			bearingDeg: side('Side', true),
			lengthMm: { label: 'Length' },
			depthMm: { label: 'Depth' },
			count: { label: 'Living shoots it has left' },
			product: label.product
		},
		minds: 'Eyes and gloves. Trees wall decay off, they do not mend it: take what is dead, no more.'
	},
	'callus-scraped': {
		label: 'Edge of a wound cut anew',
		deals: 'done',
		stage: 'recovery',
		asks: { heightMm: { label: 'Height' }, bearingDeg: side(), widthMm: { label: 'Width of the wound' } }
	},
	'stub-whittled': {
		label: 'Stub whittled back',
		deals: 'done',
		stage: 'recovery',
		asks: {
			heightMm: { label: 'Height', needed: true },
			bearingDeg: side(),
			diameterMm: { label: 'Thickness' }
		}
	},
	'crown-cut': {
		label: 'Crown cut back',
		deals: 'done',
		stage: 'recovery',
		asks: {
			share: { label: 'Of its leaf area', needed: true },
			heightMm: { label: 'Height it has now' },
			bearingDeg: side('Side of the trunk that was kept')
		},
		choices: {
			label: 'Wood',
			options: { dead: 'dead and crossing only', living: 'living too', headed: 'headed to a chosen trunk' }
		},
		minds: 'Over a height or near lines this is licensed work.'
	},
	wired: {
		label: 'Wired',
		deals: 'done',
		stage: 'recovery',
		asks: { count: { label: 'Branches' }, untilOn: { label: 'Look at the wire on', needed: true } },
		until: 'Does the wire bite? Take it off in time'
	},
	whitewashed: {
		label: 'Stem whitewashed or wrapped',
		deals: 'done',
		stage: 'aftercare',
		asks: { heightMm: { label: 'Up to' }, product: label.product, untilOn: { label: 'Look at it on' } },
		minds: 'Above the flare only; a wrap left on traps water.',
		until: 'Look under the wrap, or whitewash anew'
	},
	'suckers-off': {
		label: 'Suckers taken off',
		deals: 'done',
		stage: 'aftercare',
		asks: { count: { label: 'How many' }, everyDays: again },
		again: 'Suckers again?'
	},
	/* Soil, feed, water, air */
	fed: {
		label: 'Fed',
		deals: 'done',
		stage: 'aftercare',
		asks: {
			product: { ...label.product, needed: true },
			strength: label.strength,
			grams: { label: 'Amount' },
			everyDays: again
		},
		minds: minded,
		again: 'Feed again, if it grows'
	},
	'weed-preventer': {
		label: 'Weed preventer given',
		deals: 'done',
		stage: 'aftercare',
		asks: { product: { ...label.product, needed: true }, strength: label.strength, everyDays: again },
		minds: `What stops seedlings can stop new root tips. ${minded}`,
		again: 'Weed preventer again, by its label'
	},
	'top-dressed': {
		label: 'Laid on the surface',
		deals: 'done',
		stage: 'aftercare',
		asks: { depthMm: { label: 'Depth' }, grams: { label: 'Amount' }, product: { label: 'Of what' } },
		choices: {
			label: 'What',
			options: {
				bark: 'bark',
				mulch: 'mulch',
				compost: 'compost',
				manure: 'manure',
				sulphur: 'sulphur',
				lime: 'lime',
				grit: 'grit or stones'
			}
		},
		minds: 'Off the trunk and the flare. Wet dust before you handle it.'
	},
	'mix-part-replaced': {
		label: 'Part of the mix replaced',
		deals: 'done',
		stage: 'replant',
		asks: {
			share: { label: 'Of the mix', needed: true },
			product: { label: 'With which mix' },
			bearingDeg: side()
		}
	},
	'bark-floor': {
		label: 'Bark laid as the floor of the pot',
		deals: 'done',
		stage: 'replant',
		asks: { depthMm: { label: 'Depth', needed: true } },
		minds: 'It rots within a few years and then holds water.'
	},
	treated: {
		label: 'Treated with something',
		deals: 'done',
		stage: 'aftercare',
		asks: {
			product: { ...label.product, needed: true },
			strength: label.strength,
			minutes: { label: 'Left on for' },
			everyDays: again
		},
		choices: {
			label: 'Where',
			options: {
				cuts: 'on cuts',
				roots: 'on roots',
				leaves: 'on leaves',
				soil: 'in the soil',
				stem: 'on the stem'
			}
		},
		minds: `Evidence for powders, baths and pastes is weak to moderate. ${minded}`,
		again: 'Treat again, by its label'
	},
	'leaves-washed': {
		label: 'Leaves washed, above and below',
		deals: 'done',
		stage: 'aftercare',
		asks: {
			product: { label: 'With' },
			strength: label.strength,
			minutes: { label: 'Left on for' },
			everyDays: again
		},
		choices: { label: 'Then', options: { rinsed: 'rinsed off', left: 'left on' } },
		again: 'Wash the leaves again: are pests left?'
	},
	misted: {
		label: 'Sprayed or misted',
		deals: 'done',
		stage: 'aftercare',
		asks: { everyDays: again, untilOn: { label: 'Until' } },
		again: 'Mist it',
		until: 'Stop misting: do the leaves stand without?'
	},
	covered: {
		label: 'Plastic cover or tent put on',
		deals: 'done',
		stage: 'aftercare',
		asks: { untilOn: { label: 'Begin to take it off on', needed: true } },
		minds: 'Never closed in sun. Air it each day, and look for mould.',
		until: 'Begin to take the cover off, a little longer each day'
	},
	warmed: {
		label: 'Bottom warmth given',
		deals: 'done',
		stage: 'aftercare',
		asks: { temperatureC: { label: 'At the roots' }, untilOn: { label: 'Until', needed: true } },
		minds: 'A device that may get wet belongs on a protected circuit.',
		until: 'Take the bottom warmth away'
	},
	'night-moved': {
		label: 'Wheeled or carried under cover for some nights',
		deals: 'done',
		stage: 'aftercare',
		asks: { untilOn: { label: 'Stays until', needed: true } },
		until: 'Bring it out again, if the nights allow'
	},
	turned: {
		label: 'Turned to the light',
		deals: 'done',
		stage: 'aftercare',
		asks: { bearingDeg: side('Side that faces the light now'), everyDays: again },
		again: 'Turn it again, for even light'
	},
	'screens-laid': {
		label: 'Screens saved or laid anew',
		deals: 'done',
		stage: 'replant',
		asks: { count: { label: 'Screens' } }
	},
	labelled: {
		label: 'Label written or remade',
		deals: 'done',
		stage: 'take-in',
		asks: { product: { label: 'What it says' } }
	},
	'put-off': {
		label: 'Put off for later',
		deals: 'done',
		stage: 'recovery',
		asks: {
			first: { label: 'What must happen first', needed: true },
			untilOn: { label: 'Bring it up again on', needed: true }
		},
		choices: {
			label: 'What',
			options: {
				wire: 'wiring',
				carve: 'carving',
				scrape: 'cutting a wound’s edge anew',
				root: 'a root to cut',
				repot: 'repotting',
				crown: 'crown work',
				other: 'something else'
			}
		},
		until: 'Put off until now'
	},
	'checked-again': {
		label: 'Left where it is, to be looked at again',
		deals: 'done',
		stage: 'examine',
		asks: { untilOn: { label: 'Look again on', needed: true } },
		until: 'It was left: look at it again'
	},
	'twin-treated': {
		label: 'Its healthy twin got',
		deals: 'done',
		stage: 'recovery',
		asks: { product: { label: 'What', needed: true } }
	},
	spaced: {
		label: 'Spaced out, or set by a path',
		deals: 'done',
		stage: 'replant',
		asks: { lengthMm: { label: 'To its neighbour' }, widthMm: { label: 'To the path' } }
	},
	/* Seen */
	leans: {
		label: 'Leans',
		deals: 'seen',
		stage: 'examine',
		asks: { bearingDeg: side('Towards', true), leanDeg: { label: 'From upright', needed: true } },
		minds: 'A lean that is new, or soil lifted on the other side: keep people away and call an arborist.'
	},
	'light-from': {
		label: 'Light comes from one side',
		deals: 'seen',
		stage: 'examine',
		asks: { bearingDeg: side('Side', true) }
	},
	'one-sided-water': {
		label: 'Poured or wet on one side only',
		deals: 'seen',
		stage: 'examine',
		asks: { bearingDeg: side('Wet side', true) }
	},
	'roots-one-side': {
		label: 'Roots on one side only',
		deals: 'seen',
		stage: 'examine',
		asks: { bearingDeg: side('Side with roots', true) }
	},
	'frost-split': {
		label: 'Frost split or crack in the bark',
		deals: 'seen',
		stage: 'examine',
		asks: { heightMm: { label: 'From height' }, lengthMm: { label: 'Length' }, bearingDeg: side() }
	},
	'mower-scar': {
		label: 'Wound from a mower, strimmer or car',
		deals: 'seen',
		stage: 'examine',
		asks: {
			heightMm: { label: 'Height' },
			bearingDeg: side(),
			widthMm: { label: 'Width' },
			lengthMm: { label: 'Length' }
		}
	},
	'nests-seen': {
		label: 'Termites, ants or nests in the wood',
		deals: 'seen',
		stage: 'examine',
		asks: { heightMm: { label: 'Height' }, bearingDeg: side() },
		minds: 'Where insects live, wood is decayed behind. Some are notifiable: ask locally.'
	},
	'stone-grown-in': {
		label: 'Stone or object grown in',
		deals: 'seen',
		stage: 'examine',
		asks: { bearingDeg: side(), diameterMm: { label: 'Size' }, depthMm: { label: 'Below the flare' } },
		minds: 'Leave what has grown in.'
	},
	'crown-burnt': {
		label: 'Part of the crown burnt or broken',
		deals: 'seen',
		stage: 'recovery',
		asks: { share: { label: 'Of its leaf area', needed: true }, bearingDeg: side() },
		choices: {
			label: 'By',
			options: { sun: 'sun', frost: 'frost', wind: 'wind', salt: 'salt or chemical', break: 'breakage' }
		}
	},
	'stem-cavity': {
		label: 'Cavity or dead patch in the stem',
		deals: 'seen',
		stage: 'recovery',
		asks: {
			heightMm: { label: 'Middle height', needed: true },
			bearingDeg: side('Side', true),
			lengthMm: { label: 'Length' },
			widthMm: { label: 'Width' },
			depthMm: { label: 'Depth' }
		},
		minds: 'A wound at one side, with living bark above it, is not the limit of its life.'
	},
	'shoots-of-year': {
		label: 'Shoots of an earlier year',
		deals: 'seen',
		stage: 'recovery',
		asks: { lengthMm: { label: 'Mean length', needed: true }, count: { label: 'Shoots measured' } },
		minds: 'Read back along the rings of bud scars; give a day in the autumn of that year.'
	},
	'ground-frozen': {
		label: 'Ground frozen or sodden',
		deals: 'seen',
		stage: 'replant',
		asks: { depthMm: { label: 'Down to' } },
		choices: { label: 'It is', options: { frozen: 'frozen', sodden: 'sodden', dry: 'dust-dry' } }
	},
	/* Before */
	bought: {
		label: 'Bought',
		deals: 'before',
		stage: 'take-in',
		asks: { price: { label: 'Price' }, product: { label: 'From whom' } },
		choices: {
			label: 'It stood there',
			options: {
				shade: 'in shade or under glass',
				sun: 'in full sun',
				indoors: 'indoors',
				unknown: 'not known'
			}
		},
		minds: 'Let a newcomer get used to its place before it is repotted, unless its roots fail.'
	},
	'repotted-before': {
		label: 'Repotted by somebody',
		deals: 'before',
		stage: 'take-in',
		asks: { widthMm: { label: 'Width of the new pot' } },
		choices: {
			label: 'Watering since',
			options: {
				before: 'as before',
				less: 'less than before',
				more: 'more than before',
				unknown: 'not known'
			}
		}
	},
	'rot-before': {
		label: 'Had rot before',
		deals: 'before',
		stage: 'take-in',
		asks: { product: { label: 'What was done' } },
		choices: {
			label: 'Where',
			options: { roots: 'at the roots', stem: 'in the stem', crown: 'in the crown' }
		}
	}
} as const satisfies Record<string, BookKindOf>;

export type BookKind = keyof typeof bookKinds;
export const bookKindIds = Object.keys(bookKinds) as unknown as readonly [BookKind, ...BookKind[]];
/** All that is told of a kind of entry. */
export const bookKind = (kind: BookKind): BookKindOf => bookKinds[kind];

export const bookInput = z
	.strictObject({
		kind: oneOf(bookKindIds),
		on: calendarDate(),
		details: bookDetails.default(bookDetails.parse({})),
		note: note(600)
	})
	.superRefine(({ kind, on, details }, context) => {
		const of = bookKind(kind);
		const refuse = (detail: Detail, message: string): void =>
			context.addIssue({ code: 'custom', path: ['details', detail], message });
		const asked = of.asks;
		for (const detail of Object.keys(details) as Detail[]) {
			const given = isGiven(details[detail]);
			if (detail === 'choice') {
				if (given && !(of.choices && Object.hasOwn(of.choices.options, String(details.choice))))
					refuse(
						detail,
						of.choices ? `must be one of: ${Object.keys(of.choices.options).join(', ')}` : 'is not asked here'
					);
				if (!given && of.choices) refuse(detail, 'must be chosen');
			} else if (given && !asked[detail]) refuse(detail, 'is not asked here');
			else if (!given && asked[detail]?.needed) refuse(detail, 'must be given');
		}
		if (details.untilOn !== null && details.untilOn < on) refuse('untilOn', `must not be before ${on}`);
	});
export type BookInput = z.infer<typeof bookInput>;
export const bookEntrySchema = bookInput.safeExtend({ id: id(), version: version() });
export type BookEntry = z.infer<typeof bookEntrySchema>;

const isGiven = (value: unknown): boolean => value !== null && value !== '' && value !== undefined;

const units: Partial<Record<Detail, string>> = {
	heightMm: 'mm',
	lengthMm: 'mm',
	widthMm: 'mm',
	depthMm: 'mm',
	diameterMm: 'mm',
	grams: 'g',
	litres: 'L',
	minutes: 'min',
	temperatureC: '°C',
	leanDeg: '°'
};

/** What an entry says, in one sentence its measures marked and its dates as kept; `inWords` puts both as the person reads them. */
export function bookSentence(
	{ kind, details, note: text }: Pick<BookInput, 'kind' | 'details' | 'note'>,
	inGround: boolean
): string {
	const of = bookKind(kind);
	const parts = (Object.keys(of.asks) as Detail[]).flatMap((detail): string[] => {
		const value = details[detail];
		const asked = of.asks[detail];
		if (!asked || !isGiven(value)) return [];
		if (detail === 'first') return [];
		if (detail === 'product' || detail === 'strength') return [String(value)];
		const name = asked.label.replace(/ \(.*\)$/, '').toLowerCase();
		if (detail === 'bearingDeg') return [`${name} ${sideName(Number(value), inGround)}`];
		if (detail === 'share') return [`${percent(Number(value))} ${name}`];
		if (detail === 'everyDays') return [`again every ${value} ${value === 1 ? 'day' : 'days'}`];
		return [`${name} ${typeof value === 'number' ? inUnit(value, units[detail] ?? '') : String(value)}`];
	});
	const choice = details.choice === null ? '' : (of.choices?.options[details.choice] ?? '');
	const said = [...(choice ? [choice] : []), ...parts].join(', ');
	return `${of.label}${said ? `: ${said}` : ''}.${text ? ` ${text.replace(/\.?$/, '.')}` : ''}`;
}

/** What was put off and has not come up yet: the carry-over that is not a root. */
export const putOff = (
	book: readonly BookEntry[],
	on: string
): { what: string; first: string; fromOn: string | null }[] =>
	book.flatMap(({ kind, details }) =>
		kind === 'put-off' && (details.untilOn ?? on) >= on
			? [
					{
						what:
							(bookKinds['put-off'].choices.options as Record<string, string>)[details.choice ?? 'other'] ??
							'',
						first: details.first,
						fromOn: details.untilOn
					}
				]
			: []
	);
