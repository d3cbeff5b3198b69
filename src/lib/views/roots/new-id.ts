/** A fresh identity for a root or a cut; random values where the page has no secure context. */
export const newId = (prefix: string): string =>
	`${prefix}${Date.now().toString(36)}${Math.floor(Math.random() * 1e6).toString(36)}`;
