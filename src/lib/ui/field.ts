/** What a form was refused for; given to every field so that each finds its own line. */
export interface Refused {
	message: string;
	advice: string;
	problems: { field: string; message: string }[];
	typed: Record<string, string>;
}

export const problemOf = (refused: Refused | null | undefined, name: string): string | null => {
	const found = refused?.problems.find(
		({ field }) =>
			field === name || (field.startsWith(`${name}.`) && /^\d+$/.test(field.slice(name.length + 1)))
	);
	return found ? found.message : null;
};
