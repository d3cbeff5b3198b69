/** Stands for node:path where files are only names. */
const joined = (...parts: string[]): string => parts.filter((part) => part !== '').join('/');

export default {
	join: joined,
	resolve: joined,
	dirname: (name: string): string => name.slice(0, Math.max(0, name.lastIndexOf('/'))),
	basename: (name: string): string => name.slice(name.lastIndexOf('/') + 1)
};
