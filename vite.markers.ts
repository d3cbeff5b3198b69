import type { Plugin } from 'vite';

/** The marker package gives its parts out by `this`, which only Node takes for `exports`. */
export const markersGivenOut = (): Plugin => ({
	name: 'markers-given-out',
	transform: (code, id) =>
		/js-aruco2\/src\/(aruco|cv)\.js/.test(id)
			? { code: code.replace('this.CV || ', '').replace(/^this\.(AR|CV) =/gm, 'exports.$1 ='), map: null }
			: null
});
