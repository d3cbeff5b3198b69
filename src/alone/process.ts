import { Buffer } from 'buffer';

/*
 * What the server finds around it on a computer, where it runs in a browser. Read before anything of the server.
 */

const none = (): void => undefined;
const world = globalThis as Record<string, unknown>;
world.process = {
	env: { DATABASE_URL: 'alone:', BRUNTLE_BACKUPS: '0' },
	on: none,
	once: none,
	emit: none,
	cwd: () => '/',
	platform: 'browser',
	argv: [],
	versions: {}
};
world.Buffer = Buffer;
world.setImmediate = (work: () => void) => setTimeout(work, 0);
// A timer of a browser keeps nothing awake.
const later = globalThis.setTimeout.bind(globalThis);
world.setTimeout = (work: () => void, ms?: number) =>
	Object.assign(Object(later(work, ms)) as object, { unref: none });
const every = globalThis.setInterval.bind(globalThis);
world.setInterval = (work: () => void, ms?: number) =>
	Object.assign(Object(every(work, ms)) as object, { unref: none });
