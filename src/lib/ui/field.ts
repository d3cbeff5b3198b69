/** What a form was refused for; given to every field so that each finds its own line. */
export interface Refused {
	message: string;
	advice: string;
	problems: { field: string; message: string }[];
	typed: Record<string, string>;
	/** What stands in the fields by now, where it was changed elsewhere meanwhile. */
	meanwhile?: Record<string, string>;
}

/** What stands in a field by now, where that is other than what was sent; null where nobody changed it. */
export const meanwhileIn = (refused: Refused | null | undefined, name: string): string | null => {
	const stands = refused?.meanwhile?.[name];
	const sent = refused?.typed[name];
	if (stands === undefined || sent === undefined || stands.trim() === sent.trim()) return null;
	// 60 and 60.0 are one number.
	const same = stands !== '' && sent !== '' && Number(stands) === Number(sent);
	return same ? null : stands;
};

export const problemOf = (refused: Refused | null | undefined, name: string): string | null => {
	const found = refused?.problems.find(
		({ field }) =>
			field === name || (field.startsWith(`${name}.`) && /^\d+$/.test(field.slice(name.length + 1)))
	);
	return found ? found.message : null;
};
