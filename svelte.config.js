import adapter from '@sveltejs/adapter-node';
import { vitePreprocess } from '@sveltejs/vite-plugin-svelte';

/** @type {import('@sveltejs/kit').Config} */
export default {
	preprocess: vitePreprocess(),
	kit: {
		adapter: adapter({ precompress: false }),
		alias: { $core: 'src/lib/core', $ui: 'src/lib/ui', $views: 'src/lib/views', $demo: 'src/demo' },
		// Who may send what is asked in one place, for forms and JSON alike: lib/server/edge/guard.ts.
		csrf: { trustedOrigins: ['*'] },
		// Whoever takes the yard along asks for it: lib/views/along.
		serviceWorker: { register: false },
		csp: {
			mode: 'auto',
			directives: {
				'default-src': ['self'],
				'script-src': ['self', 'wasm-unsafe-eval'],
				'style-src': ['self', 'unsafe-inline'],
				'img-src': ['self', 'data:', 'blob:'],
				'font-src': ['self', 'data:'],
				'connect-src': ['self'],
				'object-src': ['none'],
				'base-uri': ['self'],
				'form-action': ['self'],
				'frame-ancestors': ['none']
			}
		}
	}
};
