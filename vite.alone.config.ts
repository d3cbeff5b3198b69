import path from 'node:path';
import { defineConfig } from 'vite';
import { markersGivenOut } from './vite.markers';

const instead = (name: string): string => path.resolve('src/alone/instead', `${name}.ts`);
const nothing = instead('nothing');
/** What only a computer has. */
const gone = [
	'node:fs',
	'node:os',
	'node:net',
	'node:module',
	'node:url',
	'node:stream',
	'node:stream/promises',
	'node:worker_threads',
	'piscina',
	'yazl',
	'yauzl',
	'mkcert',
	'@node-rs/argon2',
	'fxa-common-password-list',
	// A copy of the yard comes as the server has it.
	'drizzle-orm/libsql/migrator'
];
const replaced = {
	'@libsql/client': 'libsql',
	'node:crypto': 'crypto',
	'node:async_hooks': 'async-hooks',
	'node:fs/promises': 'files',
	'node:path': 'path',
	'node:util': 'util',
	sharp: 'sharp'
};

/** The same server once more, as one script for the browser, with what only a computer has put out: for a phone without a network. */
export default defineConfig({
	publicDir: false,
	// Otherwise what is set at run time would be taken for nothing.
	define: { 'process.env': 'globalThis.process.env' },
	plugins: [
		markersGivenOut(),
		{
			name: 'workers-of-pages-stay-out',
			enforce: 'pre',
			// A page makes its workers in the browser; here it is only written.
			transform: (code) =>
				code.includes('new Worker(new URL(')
					? code.replaceAll('new Worker(new URL(', 'new globalThis.Worker(new URL(')
					: null
		}
	],
	resolve: {
		alias: [
			{ find: '$core', replacement: path.resolve('src/lib/core') },
			{ find: '$built', replacement: path.resolve('.svelte-kit/output/server') },
			...Object.entries(replaced).map(([name, by]) => ({
				find: new RegExp(`^${name}$`),
				replacement: instead(by)
			})),
			...gone.map((name) => ({ find: new RegExp(`^${name}$`), replacement: nothing }))
		],
		conditions: ['browser']
	},
	build: {
		outDir: 'build/client/alone',
		emptyOutDir: true,
		assetsInlineLimit: 0,
		target: 'es2022',
		rollupOptions: {
			input: 'src/alone/server.ts',
			output: { format: 'iife', entryFileNames: 'server.js' }
		}
	}
});
