/*
 * What is seen at a look, in its words, without the schema of the look: pages that only show them stay small.
 */

export const budStates = ['none', 'swelling', 'open'] as const;
export const leafStates = ['turgid', 'wilted', 'scorched', 'yellow', 'dropped'] as const;
export const firmnesses = ['firm', 'moves', 'loose'] as const;
export type Firmness = (typeof firmnesses)[number];
/** How it stands by the grade at which an examination found it to lean or rock; nothing where that grade is not one of them. */
export const firmnessOfGrade = (grade: number): Firmness | null => firmnesses[grade] ?? null;
/** How a tree holds, as an examination grades it and as it is said on every page: now, and of a look before. */
export const firmnessSaid: Record<Firmness, { now: string; then: string }> = {
	firm: { now: 'stands firm', then: 'stood firm' },
	moves: { now: 'rocks a little', then: 'rocked a little' },
	loose: { now: 'moves at the base', then: 'moved at the base' }
};

/** A tree that was seen to move, and since when something holds it, or it is set anew, and nobody has tried it; dates as they are stored. */
export interface Moving {
	value: 'moves' | 'loose';
	heldOn?: string | null | undefined;
	setOn?: string | null | undefined;
}
/** What is asked of it: to hold it, or to try it again. */
export const firmnessAsks = ({ value, heldOn, setOn }: Moving): string =>
	heldOn
		? `Held since ${heldOn}: try whether it stands firm`
		: setOn
			? `Set anew on ${setOn}: try whether it stands firm`
			: `It ${firmnessSaid[value].now}: hold it firm`;
/** Since what nobody has tried it; null where it was neither held nor set anew. */
export const untriedSince = ({ heldOn, setOn }: Pick<Moving, 'heldOn' | 'setOn'>): string | null =>
	heldOn ? 'it was held' : setOn ? 'it was set anew' : null;
export const smells = ['none', 'sour', 'sulphur', 'mouldy'] as const;
export type Smell = (typeof smells)[number];
/** What a root zone smells of that smells of anything but earth. */
export const smellSaid: Record<Exclude<Smell, 'none'>, string> = {
	sour: 'sour',
	sulphur: 'of sulphur',
	mouldy: 'mouldy'
};
/** What a bad smell asks for, the same on every page. @param where it stands in a pot, or in soil */
export const smellAsks = (smell: Exclude<Smell, 'none'>, where: 'pot' | 'soil'): string =>
	`Its ${where} smells ${smellSaid[smell]}: let air in, and water only what has dried`;
export const pestAmounts = ['none', 'some', 'many'] as const;
