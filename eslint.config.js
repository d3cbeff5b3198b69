import js from '@eslint/js';
import prettier from 'eslint-config-prettier';
import svelte from 'eslint-plugin-svelte';
import globals from 'globals';
import ts from 'typescript-eslint';
import { floorsRule } from './scripts/house.js';
import svelteConfig from './svelte.config.js';

/** Packages that a part of the house leaves alone. */
const without = (part, forbidden, message) => ({
	files: [`src/lib/${part}/**`],
	rules: { 'no-restricted-imports': ['error', { patterns: [{ regex: forbidden, message }] }] }
});

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
				extraFileExtensions: ['.svelte'],
				parser: ts.parser,
				svelteConfig
			}
		}
	},
	{
		files: ['src/**'],
		plugins: { house: { rules: { floors: floorsRule } } },
		rules: { 'house/floors': 'error' }
	},
	without(
		'core',
		'^svelte|^\\$app|^\\$env|^@sveltejs|^drizzle|^@libsql|^bits-ui|^@lucide|^d3(?!-polygon$)|^node:',
		'core computes only: no interface, database, clock or platform.'
	),
	without('server', '^svelte|^bits-ui', 'server uses core, never the interface.')
);
