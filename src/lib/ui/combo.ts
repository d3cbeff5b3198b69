/** One of a long list. */
export interface ComboOption {
	value: string;
	label: string;
	group?: string;
	/** What else it is found by. */
	also?: string;
}
