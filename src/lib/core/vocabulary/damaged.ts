import type { FieldProblem } from './fields';

/** A record that stands in the database and does not fit what such a record holds. */
export interface DamagedRecord {
	/** Name of its kind of record. */
	record: string;
	id: string;
	treeId: string | null;
	problems: FieldProblem[];
}

export interface DamagedCell {
	/** Path of the field within its record, divided by points. */
	field: string;
	/** What it must be. */
	message: string;
	/** What stands there, as JSON unless it is a text. */
	stands: string;
}

/** A damaged record as a person mends it. */
export interface DamagedRow extends DamagedRecord {
	/** What it is called in a sentence. */
	noun: string;
	/** Tag and name of its tree as they stand; empty for none. */
	tree: string;
	cells: DamagedCell[];
}
