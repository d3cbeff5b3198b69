import type { RawReading, RawReadingOf, Tool } from '$core/examine/measuring/measurement';
import type { Tree } from '$core/take-in/tree';
import type { Left } from './left';
import type { Values } from '$core/values/values';

/** What every measuring tool is given. */
export interface ToolProps {
	tree: Tree;
	values: Values;
	/** Day of the reading. */
	on: string;
	/** The last reading with the same tool, to begin from. */
	previous: RawReading | null;
	/** What was read before with it and not kept, to go on from. */
	left: Left | null;
	/** Told at every change: the raw reading as far as it goes, checked by its schema; null while there is nothing. */
	onread: (raw: unknown) => void;
}

/** Answers to what is seen or not; unanswered, nobody looked. */
export const yesOrNo = [
	{ value: 'yes', label: 'Yes' },
	{ value: 'no', label: 'No' }
] as const;

/** The last reading, if it is of this tool. */
export const before = <T extends Tool>(previous: RawReading | null, tool: T): RawReadingOf<T> | null =>
	previous?.tool === tool ? (previous as RawReadingOf<T>) : null;
