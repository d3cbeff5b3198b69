/** A tree that the review of the yard names, and why. */
export interface ReviewRow {
	treeId: string;
	tag: string;
	name: string;
	placeName: string;
	on: string | null;
	why: string;
}

/** The whole yard in spring or autumn, on one sheet. */
export interface Review {
	stages: ReviewRow[];
	pots: ReviewRow[];
	unseen: ReviewRow[];
	undecided: ReviewRow[];
}
