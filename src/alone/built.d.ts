/** The server as Kit has built it. */
declare module '$built/index.js' {
	export { Server } from '@sveltejs/kit';
}
declare module '$built/manifest.js' {
	import type { SSRManifest } from '@sveltejs/kit';
	export const manifest: SSRManifest;
}
declare module 'sql.js/dist/sql-wasm-inline.js' {
	import type { SqlJsStatic } from 'sql.js';
	export default function initSqlJs(): Promise<SqlJsStatic>;
}
