import js from '@eslint/js';
import prettier from 'eslint-config-prettier';
import svelte from 'eslint-plugin-svelte';
import globals from 'globals';
import ts from 'typescript-eslint';
import svelteConfig from './svelte.config.js';

/**
 * The arrows of the house: routes → views → ui, core; routes → server → core.
 * A folder may import only what stands below it; both alias and relative paths are caught.
 */
const room = (files, forbidden, message) => ({
	files,
	rules: {
		'no-restricted-imports': ['error', { patterns: [{ regex: forbidden, message }] }]
	}
});
const outside = (...names) => `(^|/)(${names.join('|')})(/|$)|^\\$(${names.join('|')})(/|$)`;

export default ts.config(
	{ ignores: ['build/', '.svelte-kit/', 'node_modules/', 'drizzle/', 'data/', '.bruntle/'] },
	js.configs.recommended,
	...ts.configs.recommended,
	...svelte.configs.recommended,
	prettier,
	...svelte.configs.prettier,
	{
		languageOptions: { globals: { ...globals.browser, ...globals.node } },
		rules: {
			'no-undef': 'off',
			// Maps and sets here are computed whole and never changed afterwards.
			'svelte/prefer-svelte-reactivity': 'off',
			'@typescript-eslint/no-explicit-any': 'error',
			'@typescript-eslint/no-non-null-assertion': 'error',
			'@typescript-eslint/no-unused-vars': [
				'error',
				{ argsIgnorePattern: '^_', varsIgnorePattern: '^_', ignoreRestSiblings: true }
			]
		}
	},
	{
		files: ['**/*.svelte', '**/*.svelte.ts'],
		languageOptions: {
			parserOptions: {
				projectService: true,
				extraFileExtensions: ['.svelte'],
				parser: ts.parser,
				svelteConfig
			}
		}
	},
	room(
		['src/lib/core/**'],
		`${outside('server', 'views', 'ui', 'routes', 'workers', 'demo')}|^svelte|^\\$app|^\\$env|^@sveltejs|^drizzle|^@libsql|^bits-ui|^@lucide|^d3(?!-polygon$)|^node:`,
		'core computes only: no interface, database, clock or platform.'
	),
	room(
		['src/lib/ui/**'],
		`${outside('server', 'views', 'routes', 'workers', 'demo')}|(^|/|\\$)core/(?!format/)`,
		'ui holds shared components without domain knowledge (only core/format).'
	),
	room(['src/lib/views/**'], outside('server', 'routes', 'demo'), 'views use ui and core, never the server.'),
	room(
		['src/lib/server/**'],
		`${outside('views', 'ui', 'routes')}|^svelte|^bits-ui`,
		'server uses core, never the interface.'
	),
	room(['src/lib/workers/**'], outside('server', 'views', 'ui', 'routes'), 'workers are thin wraps of core.'),
	room(['src/demo/**'], outside('views', 'ui', 'routes'), 'the demo goes through server and core only.')
);
