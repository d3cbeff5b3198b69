/** One input of a computed number, with where it comes from. */
export interface WorkingLine {
	label: string;
	value: string;
	mark?: string;
}
