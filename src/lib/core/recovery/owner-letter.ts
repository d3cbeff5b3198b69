import { midSentence } from '../text/mid-sentence';
import { sideName } from '../text/sides';
import { firmnessSaid } from '../examine/looks/seen-words';
import { measured } from '../text/measured';
import { listed } from '../text/plural';
import type { Situation } from '../vocabulary/words';
import type { Values } from '../values/values';
import { percent } from '../text/percent';
import type { Vigour } from '../vocabulary/words';

export interface LetterFacts {
	treeName: string;
	kindName: string;
	place: string;
	today: string;
	trunkDiameterMm: number;
	heightM: number | null;
	/** Sound structural share left in windows of 120° by their middle, 0 … 1, by the map; empty where none was made. */
	windows: readonly { middleDeg: number; share: number }[];
	/** Its sides are told by the compass; else by its front, where nobody took the compass to it. */
	byCompass: boolean;
	wanted: number;
	/** Part of the map was only assumed. */
	assumed: boolean;
	/** Of those that are mapped; null where nobody mapped them. */
	structuralCuts: number | null;
	/** Every root that was cut, with its reason. */
	/** With what stood against a cut, and why it was made all the same; empty where nothing did. */
	cuts: readonly { on: string; root: string; why: string; despite: string }[];
	/** Its last lift that was done: what lay outside the ball, null where nobody measured it, was cut, and how thick what was noted of it was. */
	lifted?: { on: string; ballMm: number | null; rootsMm: readonly number[] } | null;
	/** Work in its ground that was done, by day. */
	groundWorks?: readonly { on: string; what: string }[];
	/** Roots that the owner has a say in, and the answer. */
	asked: readonly {
		root: string;
		why: string;
		answer: 'yes' | 'no' | null;
		on: string | null;
		how: string;
	}[];
	/** What is held over, and what must happen first. */
	carried: readonly { what: string; why: string; first: string; fromOn: string | null }[];
	structuralRot: boolean;
	/** Last look at how it stands. */
	firmness: 'firm' | 'moves' | 'loose' | null;
	firmnessOn: string | null;
	/** Wires or stones hold it since it was seen to move; null where nothing does. */
	heldOn: string | null;
	/** Since when it stands anew, on its own stance, and nobody has tried it; null where that is not so. */
	setOn?: string | null;
	/** What presses takes it out of its pot, and it is held when it is set anew. */
	setsAnew?: boolean;
	/** Referrals that are open, with what to do until they are settled. */
	referrals: readonly string[];
	/** What those who were called in said. */
	results: readonly { on: string; about: string; said: string }[];
	/** How its case was closed; null while it is in care. */
	ended: { state: 're-established' | 'gone' | 'dead'; on: string } | null;
	probability: number | null;
	probabilityLow: number | null;
	probabilityHigh: number | null;
	/** Where its roots may not be enough in time: how likely it comes through at all, and that they are, by when. */
	slow?: { through: number; inTime: number; by: string } | null;
	vigour: Vigour;
	/** Whether it is large enough, or stands in the ground, so that its fall would matter to people. */
	mayFall: boolean;
	/** Whether it stands in the ground, so that what is dug beside it matters. */
	inGround: boolean;
	/** Radius of the ground to keep off, m, and how it was found. */
	structuralZoneM: number;
	next: readonly { on: string; what: string }[];
}

export interface Letter {
	/** The answer to the question that is asked: will it fall, or does it hold in its pot? In one sentence. */
	answer: string;
	/** True when a qualified arborist has to judge before anything else. */
	urgent: boolean;
	sections: { title: string; paragraphs: string[] }[];
}

/** Ends with one mark, whatever it ended with. */
const ended = (text: string): string => (/[.?!]$/.test(text.trim()) ? text.trim() : `${text.trim()}.`);

/**
 * Whether the fall of a tree would matter to people: of every one in the ground, and of one in a pot that is large.
 * @param heightM null where nobody measured it: then its trunk tells
 */
export const mayFall = (
	tree: { situation: Situation; heightM: number | null; trunkDiameterMm: number },
	values: Values
): boolean =>
	tree.situation === 'in-ground' ||
	(tree.heightM === null
		? tree.trunkDiameterMm >= values['letter.fallsFromTrunkMm']
		: tree.heightM >= values['letter.fallsFromM']);

/** What the measured windows and the looks say of its hold. */
interface Hold {
	weakest: { middleDeg: number; share: number } | null;
	/** The weakest window keeps less than is wanted. */
	short: boolean;
	urgent: boolean;
	answer: string;
}

/** What is to be done about a hold that is doubted in a pot. */
const holdAsked = ({
	heldOn,
	setOn,
	setsAnew
}: Pick<LetterFacts, 'heldOn' | 'setOn' | 'setsAnew'>): string =>
	heldOn !== null
		? `it has been held since ${heldOn}; try whether it stands firm before anything else is done to it`
		: setOn
			? `it was set anew on ${setOn}; try whether it stands firm, and tie it or wedge it where it does not, before anything else is done to it`
			: setsAnew
				? 'it is to be set anew; tie it or wedge it then'
				: 'tie it or wedge it before anything else is done to it';

function holdOf(facts: LetterFacts): Hold {
	const weakest = facts.windows.reduce<Hold['weakest']>(
		(least, window) => (least === null || window.share < least.share ? window : least),
		null
	);
	const short = weakest !== null && weakest.share < facts.wanted;
	const moves = facts.firmness === 'loose' || facts.firmness === 'moves';
	const doubts = [
		...(short ? ['one side keeps less than is wanted'] : []),
		...(facts.structuralRot ? ['a structural root is rotten'] : []),
		...(moves ? ['it moved when it was last tried'] : [])
	];
	const doubted = doubts.length > 0;
	const why = doubted ? ` (${doubts.join('; ')})` : '';
	const urgent = doubted || facts.referrals.length > 0;
	const inPot = doubted
		? `What was found gives reason to doubt its hold in the pot${why}: ${holdAsked(facts)}.`
		: facts.windows.length === 0
			? 'Nobody has laid its roots open, so how they hold it in its pot is not known.'
			: 'Nothing that was found speaks against its hold in its pot today.';
	const falls = urgent
		? `What was found gives reason to doubt its hold${why}. Keep people from under it until a qualified arborist has judged it on the spot.`
		: facts.windows.length === 0
			? 'Nobody has laid its roots open, so nothing can be said about its hold from here; an arborist can judge it.'
			: 'Nothing that was found speaks against its hold today. That is not a certificate: only a qualified arborist on the spot can judge whether a tree is safe.';
	return { weakest, short, urgent, answer: facts.mayFall ? falls : inPot };
}

/**
 * A letter to the owner of a tree. It answers the question about falling with what was measured, by which method,
 * within which limits, and refers on: stability is never certified here.
 */
export function ownersLetter(facts: LetterFacts): Letter {
	const hold = holdOf(facts);
	const sections = [
		holdSection(facts, hold),
		askedSection(facts),
		cutSection(facts),
		groundSection(facts),
		heldOverSection(facts),
		methodSection(facts),
		recoverySection(facts),
		adviceSection(facts, hold)
	];
	return {
		answer: hold.answer,
		urgent: hold.urgent,
		sections: sections.filter((section) => section !== null)
	};
}

type Section = Letter['sections'][number];

const holdSection = (facts: LetterFacts, { weakest, short, answer }: Hold): Section => ({
	title: facts.mayFall ? 'Will it fall?' : 'Does it hold in its pot?',
	paragraphs: [
		answer,
		...(weakest
			? [
					`Sound structural roots were added up in three windows of a third of the circle each, turned all round the trunk. The weakest window, towards ${sideName(weakest.middleDeg, facts.byCompass)}, keeps ${percent(weakest.share)} of its share; ${percent(facts.wanted)} is wanted.${short ? ' That is less than wanted.' : ''}`
				]
			: []),
		facts.lifted ? liftSaid(facts.lifted) : '',
		facts.structuralCuts !== null && facts.structuralCuts > 0
			? `${facts.structuralCuts} structural root${facts.structuralCuts === 1 ? ' was' : 's were'} cut.`
			: facts.lifted
				? ''
				: facts.structuralCuts === null
					? 'Its roots were not mapped: whether a structural root was cut before is not known.'
					: 'No structural root was cut here.',
		facts.firmness
			? `At the last look (${facts.firmnessOn ?? ''}) it ${firmnessSaid[facts.firmness].then}.`
			: 'Whether it moves at the base was not tried.',
		...facts.referrals,
		...facts.results.map(({ on, about, said }) => `${on}: ${said} (asked because: ${about})`)
	].filter((text) => text !== '')
});

const liftSaid = ({ on, ballMm, rootsMm }: NonNullable<LetterFacts['lifted']>): string =>
	`It was lifted on ${on}: all roots beyond ${ballMm === null ? 'its ball' : `a ball ${measured(ballMm, 'mm')} across`} were cut${rootsMm.length === 0 ? '' : `, among them ${listed(rootsMm.map((mm) => measured(mm, 'mm')))} thick`}.`;

const askedSection = ({ asked }: LetterFacts): Section | null =>
	asked.length === 0
		? null
		: {
				title: 'Roots we ask you about',
				paragraphs: [
					'These roots are thick enough to matter to your tree. Each is cut only with your yes; a root you keep stays.',
					...asked.map(({ root, why, answer, on, how }, i) => {
						const about = `${i + 1}. The root ${root}${why ? `: ${why}` : ''}.`;
						return answer === null
							? `${about} Yes ☐  No ☐`
							: `${about} You said ${answer} on ${on ?? ''}${how ? `, ${how}` : ''}.`;
					})
				]
			};

const cutSection = ({ cuts }: LetterFacts): Section | null =>
	cuts.length === 0
		? null
		: {
				title: 'What was cut, and why',
				paragraphs: cuts.map(({ on, root, why, despite }) =>
					[
						`${on}: the root ${root}${why ? `, because: ${why}` : '; no reason was written down'}`,
						...(despite
							? [`Something stood against cutting that day; why it was done all the same: ${despite}`]
							: [])
					]
						.map(ended)
						.join(' ')
				)
			};

const groundSection = ({ groundWorks = [] }: LetterFacts): Section | null =>
	groundWorks.length === 0
		? null
		: {
				title: 'What was done in its ground',
				paragraphs: groundWorks.map(({ on, what }) => ended(`${on}: ${midSentence(what)}`))
			};

const heldOverSection = ({ carried }: LetterFacts): Section | null =>
	carried.length === 0
		? null
		: {
				title: 'What is held over',
				paragraphs: carried.map(({ what, why, first, fromOn }) =>
					ended(
						`${what}${fromOn ? `, from ${fromOn}` : ''}${why ? `: ${why}` : ''}${first ? `; first: ${first}` : ''}`
					)
				)
			};

const methodSection = (facts: LetterFacts): Section => ({
	title: 'How this was found, and what it cannot tell',
	paragraphs: [
		...(facts.windows.length === 0
			? []
			: [
					'Roots round the collar were laid open by hand or with air, measured and mapped; each counts by its cross-section and its class.'
				]),
		`${facts.windows.length === 0 ? 'Only what shows without digging was looked at' : 'Only what was laid open was seen'}${facts.assumed ? '; part of the map is assumed from what was seen and holds nothing in this sum' : ''}. Rot inside sound-looking wood, the soil’s hold, wind and the crown’s sail are not in it.`,
		'No pull test, no sound or resistance measurement and no climb was made.'
	]
});

const endedSaid = {
	're-established': 'It is re-established',
	gone: 'It went to another home',
	dead: 'It died'
} as const;

const recoverySection = (facts: LetterFacts): Section => ({
	title: 'How it does',
	paragraphs: [
		facts.ended
			? `${endedSaid[facts.ended.state]}: our care of it ended on ${facts.ended.on}.`
			: facts.probability === null
				? 'Whether it will recover is not known yet.'
				: `It is thought to recover with ${percent(facts.probability)}, between ${percent(facts.probabilityLow ?? 0)} and ${percent(facts.probabilityHigh ?? 1)}; this rests on looks, not on a promise.`,
		!facts.ended && facts.probability !== null && facts.slow
			? `What holds the number down is time: it is thought to come through with ${percent(facts.slow.through)}, and its roots to be enough by ${facts.slow.by} with ${percent(facts.slow.inTime)}.`
			: '',
		`Its vigour was judged ${facts.vigour}. Its trunk measures ${measured(facts.trunkDiameterMm, 'mm')}${facts.heightM ? `, its height about ${measured(facts.heightM, 'm')}` : ''}.`
	].filter((text) => text !== '')
});

const MOVE_BY_POT = 'Move it by its pot, never by its trunk, and look whether it has come loose after wind.';

const adviceSection = (facts: LetterFacts, { urgent }: Hold): Section => ({
	title: 'What to do',
	paragraphs: [
		!facts.mayFall
			? MOVE_BY_POT
			: urgent
				? 'Have a qualified arborist judge its stability before anything else.'
				: `Have it judged by a qualified arborist after storms, and when anything about it changes: a new lean, ${facts.inGround ? 'heaved soil' : 'a pot that tips or splits'}, a crack, fungi at the base.`,
		...(facts.mayFall && !facts.inGround ? [MOVE_BY_POT] : []),
		...(facts.mayFall && facts.inGround
			? [
					`Keep digging, parking and heavy loads off the ground within about ${measured(Math.round(facts.structuralZoneM * 10) / 10, 'm')} of the trunk (structural root zone by AS 4970-2009).`
				]
			: []),
		`Keep mulch and soil off the flare.${facts.mayFall ? ' Local rules on trees, and permits, come before anything said here; work over a height or near lines is licensed work.' : ''}`,
		...facts.next.map(({ on, what }) => ended(`${on}: ${what}`))
	]
});
