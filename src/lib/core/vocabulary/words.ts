/** The six stages of the work; one name in core, views and routes. */
export const stages = ['take-in', 'examine', 'roots', 'replant', 'aftercare', 'recovery'] as const;
export type Stage = (typeof stages)[number];
export const stageNames: Record<Stage, string> = {
	'take-in': 'Take in',
	examine: 'Examine',
	roots: 'Roots',
	replant: 'Replant',
	aftercare: 'Aftercare',
	recovery: 'Recovery'
};

export const situations = ['potted', 'in-ground', 'just-lifted'] as const;
export type Situation = (typeof situations)[number];
export const situationNames: Record<Situation, string> = {
	potted: 'potted',
	'in-ground': 'in the ground',
	'just-lifted': 'just lifted'
};

export const vigours = ['strong', 'fair', 'weak'] as const;
export type Vigour = (typeof vigours)[number];

export const reserves = ['field-grown', 'few-years-potted', 'long-potted'] as const;
export type Reserves = (typeof reserves)[number];
export const reservesNames: Record<Reserves, string> = {
	'field-grown': 'field-grown',
	'few-years-potted': 'a few years in a pot',
	'long-potted': 'long in a pot, or old and collected'
};

export const permissions = ['own', 'written', 'not-yet'] as const;
export type Permission = (typeof permissions)[number];
export const permissionNames: Record<Permission, string> = {
	own: 'my own tree',
	written: 'given in writing',
	'not-yet': 'not yet given'
};

export const treeStates = ['in-care', 're-established', 'dead', 'gone'] as const;
export type TreeState = (typeof treeStates)[number];
export const treeStateNames: Record<TreeState, string> = {
	'in-care': 'in care',
	're-established': 're-established',
	dead: 'dead',
	gone: 'gone to another home'
};

/** Schools on which practice splits and which change the tasks that follow (handbook 12). */
export const crownSchools = ['balance', 'keep-leaves'] as const;
export type CrownSchool = (typeof crownSchools)[number];
export const waterSchools = ['at-once', 'dry-rest'] as const;
export type WaterSchool = (typeof waterSchools)[number];
