/**
 * Every working default of Bruntle is one `WorkingValue`: it carries where it comes from, can be shown
 * with that mark, and can be overridden by the owner within its bounds.
 */

/** published: a named source · trade: common practice, no source · memory: recalled, unchecked · ours: our own working default. */
export type Mark = 'published' | 'trade' | 'memory' | 'ours';

export const markSentence: Record<Mark, string> = {
	published: 'published source',
	trade: 'common practice in the trade, no source',
	memory: 'recalled from memory, not checked against the source',
	ours: 'our own working default'
};

export interface WorkingValue {
	label: string;
	value: number;
	unit: string;
	mark: Mark;
	/** Named source for `published`, or what the value leans on. */
	source?: string;
	note?: string;
	min: number;
	max: number;
}

/** Declares a family of values, keeping the literal keys for type safety. */
export const defineValues = <K extends string>(values: Record<K, WorkingValue>): Record<K, WorkingValue> =>
	values;

/**
 * A working value of our own, with the bounds it may be changed within; `more` says another mark, its source, or a note.
 * @param value in the unit named
 */
export const ours = (
	label: string,
	value: number,
	unit: string,
	[min, max]: readonly [number, number],
	more: Pick<Partial<WorkingValue>, 'mark' | 'source' | 'note'> = {}
): WorkingValue => ({ label, value, unit, mark: 'ours', min, max, ...more });
