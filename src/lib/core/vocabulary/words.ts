import { wordsOf } from './words-of';

/** The six stages of the work; one name in core, views and routes. */
export const stageNames = {
	'take-in': 'Take in',
	examine: 'Examine',
	roots: 'Roots',
	replant: 'Replant',
	aftercare: 'Aftercare',
	recovery: 'Recovery'
};
export type Stage = keyof typeof stageNames;
export const stages = wordsOf(stageNames);

export const situationNames = {
	potted: 'potted',
	'in-ground': 'in the ground',
	'just-lifted': 'just lifted'
};
export type Situation = keyof typeof situationNames;
export const situations = wordsOf(situationNames);

export const vigours = ['strong', 'fair', 'weak'] as const;
export type Vigour = (typeof vigours)[number];

export const reservesNames = {
	'field-grown': 'field-grown',
	'few-years-potted': 'a few years in a pot',
	'long-potted': 'long in a pot, or old and collected'
};
export type Reserves = keyof typeof reservesNames;
export const reserves = wordsOf(reservesNames);

export const permissionNames = {
	own: 'my own tree',
	written: 'given in writing',
	'not-yet': 'not yet given'
};
export type Permission = keyof typeof permissionNames;
export const permissions = wordsOf(permissionNames);

export const treeStateNames = {
	'in-care': 'in care',
	're-established': 're-established',
	dead: 'dead',
	gone: 'gone to another home'
};
export type TreeState = keyof typeof treeStateNames;
export const treeStates = wordsOf(treeStateNames);

/** Schools on which practice splits and which change the tasks that follow (handbook 12). */
export const crownSchools = ['balance', 'keep-leaves'] as const;
export type CrownSchool = (typeof crownSchools)[number];
export const waterSchools = ['at-once', 'dry-rest'] as const;
export type WaterSchool = (typeof waterSchools)[number];
