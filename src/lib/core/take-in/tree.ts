import { situations, vigours, reserves, permissions, treeStates } from '../vocabulary/words';
import { midSentence } from '../text/mid-sentence';
import { z } from 'zod';
import { conditionIds, conditions, type ConditionId } from '../vocabulary/conditions';
import {
	calendarDate,
	chosen,
	count,
	id,
	measure,
	note,
	oneOf,
	shortText,
	version
} from '../vocabulary/fields';

/** Why a tree was lost: a condition of the diagnosis, or what no diagnosis holds. */
const otherCauses = ['cut-too-much', 'wrong-season', 'stolen-or-broken', 'not-known'] as const;
export type LossCause = ConditionId | (typeof otherCauses)[number];
export const lossCauses = [...conditionIds, ...otherCauses] as unknown as readonly [
	LossCause,
	...LossCause[]
];
export const lossCauseNames: Record<LossCause, string> = {
	...(Object.fromEntries(conditionIds.map((id) => [id, midSentence(conditions[id].label)])) as Record<
		ConditionId,
		string
	>),
	'cut-too-much': 'too much root cut at once',
	'wrong-season': 'worked out of season',
	'stolen-or-broken': 'broken, stolen or run over',
	'not-known': 'not known'
};

/** What a person writes when a tree or a lot is taken in. */
export const treeInput = z.strictObject({
	tag: shortText(16).describe('Tag on the tree, unique in the yard'),
	name: shortText(80),
	kindId: chosen(),
	placeId: chosen(),
	situation: oneOf(situations),
	trunkDiameterMm: measure(1, 3000, 'mm').describe('Trunk diameter above the flare, mm'),
	heightM: measure(0.02, 60, 'm').nullable().default(null),
	plantCount: count(1, 5000).default(1).describe('1 for a tree, more for a lot of like plants'),
	origin: note(400),
	permission: oneOf(permissions).default('not-yet'),
	vigour: oneOf(vigours).default('fair'),
	reserves: oneOf(reserves).default('few-years-potted'),
	batch: note(80).describe('Delivery, dig or mix it shares with others'),
	watering: note(80).describe('Tray, line or can round it is watered with, by name'),
	sharedPot: note(80).describe('Pot it stands in together with others, by name'),
	takenInOn: calendarDate(),
	referenceTreeId: id().nullable().default(null).describe('A healthy tree to compare with'),
	parentTreeId: id().nullable().default(null).describe('The tree it was struck or divided from'),
	note: note()
});
export type TreeInput = z.infer<typeof treeInput>;

/** Name of the pot that a tree shares with others, alike however it was typed; empty for none. */
export const sharedPotName = (sharedPot: string): string => sharedPot.trim().toLowerCase();

/** A tree as a person takes it in: how it stands and does, and whether it may be worked on, is said by them and never presumed. */
export const takeInInput = treeInput.extend({
	permission: oneOf(permissions),
	vigour: oneOf(vigours),
	reserves: oneOf(reserves)
});

/** Of a lost tree: its cause, the conditions then, what would have shown it earlier. */
const lossFields = {
	lossCause: oneOf(lossCauses).nullable().default(null),
	lossConditions: note(400),
	shownEarlier: note(400)
};

export const treeSchema = treeInput.extend({
	id: id(),
	state: oneOf(treeStates),
	closedOn: calendarDate().nullable(),
	closingNote: note(),
	...lossFields,
	version: version()
});
export type Tree = z.infer<typeof treeSchema>;
/** A tree as it is named beside another. */
export type TreeName = Pick<Tree, 'id' | 'tag' | 'name' | 'state'>;

/** How a case ends. A dead tree is a state, never a deletion; its lesson is asked for. */
export const closingInput = z
	.strictObject({
		state: oneOf(['re-established', 'dead', 'gone']),
		closedOn: calendarDate(),
		closingNote: note(),
		...lossFields
	})
	.refine((closing) => closing.state !== 'dead' || closing.closingNote.length > 0, {
		path: ['closingNote'],
		error: 'must say what was learned, so that the next tree profits'
	});
export type ClosingInput = z.infer<typeof closingInput>;

/** Trees of the same kind that were taken in here before, and what those that died taught, latest first. */
export interface KindBefore {
	/** Which tree or lot of its kind this one is here. */
	attempt: number;
	reEstablished: number;
	lost: Pick<Tree, 'id' | 'tag' | 'name' | 'closedOn' | 'lossCause' | 'closingNote' | 'shownEarlier'>[];
}
