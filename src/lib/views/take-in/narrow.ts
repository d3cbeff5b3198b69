/** What of a row of the yard's list is searched in. */
export interface Searched {
	tag: string;
	name: string;
	kindName: string;
	placeName: string;
	group?: string;
}

/** Whether a row holds every word that was typed, in any order and case; nothing typed fits all. */
export function fits(row: Searched, words: string): boolean {
	const text = `${row.tag} ${row.name} ${row.kindName} ${row.placeName} ${row.group ?? ''}`.toLowerCase();
	return words
		.toLowerCase()
		.split(/\s+/)
		.every((word) => text.includes(word));
}
