/** Stands for node:util. */

const isObject = (value: unknown): value is Record<string, unknown> =>
	typeof value === 'object' && value !== null;

/** Whether two values of JSON say the same, whatever the order of their names. */
export function isDeepStrictEqual(a: unknown, b: unknown): boolean {
	if (!isObject(a) || !isObject(b)) return Object.is(a, b);
	if (Array.isArray(a) !== Array.isArray(b)) return false;
	const names = Object.keys(a);
	return (
		names.length === Object.keys(b).length &&
		names.every((name) => Object.hasOwn(b, name) && isDeepStrictEqual(a[name], b[name]))
	);
}

export const promisify = () => (): Promise<never> =>
	Promise.reject(new Error('this is done on the computer of the yard alone'));
