/** The file with its ending, as Node wants it; its types stand under the name without. */
declare module 'comlink/dist/esm/node-adapter.mjs' {
	export { default } from 'comlink/dist/esm/node-adapter';
}
