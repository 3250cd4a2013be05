import js from '@eslint/js';
import svelte from 'eslint-plugin-svelte';
import globals from 'globals';
import ts from 'typescript-eslint';
import svelteConfig from './svelte.config.js';

/** Arrows run one way: routes → lib/server → core, routes → lib/ui, lib/player → core. */
const WORLD = ['node:*', 'fs', 'path', 'knex', 'better-sqlite3', 'pino', '@node-rs/*', 'nodemailer', 'idb'];
const FRAMEWORK = ['svelte', 'svelte/*', '@sveltejs/*', 'flowbite-svelte', 'flowbite-svelte-icons', '$app/*', '$env/*'];
const OURS_ABOVE_CORE = ['$lib/*', '$ui/*', '$player/*', '**/lib/**', '**/routes/**', '**/stand-ins/**'];

/** A folder's index is its only door; what fixtures offer to tests lies in files of its own. */
const DEEP = [
	{
		regex: '^\\.\\./(?!testing/)[a-z-]+/[a-z-]',
		message: 'A folder’s index is its only door: import from it, not from a file behind it.'
	},
	{
		regex: '^\\$(core|lib/server)/(?!testing/)[a-z-]+/[a-z-]',
		message: 'A folder’s index is its only door: import from it, not from a file behind it.'
	}
];
/** By its list of all, each build would compile hundreds of icons and components that stand nowhere. */
const ALL_OF_FLOWBITE = {
	regex: '^flowbite-svelte(-icons)?$',
	message: 'Import the one component: flowbite-svelte/Button.svelte.'
};
/** See scripts/bundle-server.mjs. */
const REQUEST_FROM_NOWHERE = {
	group: ['$app/server'],
	message: 'The built server does not follow a request through what it waits for: hand on what is needed of it.'
};

/**
 * @param {string[]} group
 * @param {string} message
 */
const refuse = (group, message) => ({
	'no-restricted-imports': /** @type {['error', object]} */ ([
		'error',
		{ patterns: [{ group, message }, ALL_OF_FLOWBITE, ...DEEP] }
	])
});

export default ts.config(
	{ ignores: ['build/', '.svelte-kit/', 'node_modules/', 'data/', 'test-results/', 'playwright-report/'] },
	js.configs.recommended,
	...ts.configs.recommended,
	...svelte.configs.recommended,
	{
		languageOptions: { globals: { ...globals.browser, ...globals.node } },
		rules: {
			'no-undef': 'off',
			'@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
			'svelte/no-navigation-without-resolve': 'off'
		}
	},
	{
		files: ['**/*.svelte', '**/*.svelte.ts'],
		languageOptions: { parserOptions: { parser: ts.parser, svelteConfig } }
	},
	{
		files: ['src/core/**/*.ts'],
		ignores: ['src/core/**/*.test.ts'],
		rules: refuse(
			[...WORLD, ...FRAMEWORK, ...OURS_ABOVE_CORE],
			'Core is pure: it imports no framework, nothing that touches the world and nothing of ours above it.'
		)
	},
	{
		files: ['src/lib/server/**/*.ts'],
		rules: {
			'no-restricted-imports': [
				'error',
				{
					patterns: [
						{
							group: ['$ui/*', '$player/*', '$lib/ui/*', '$lib/player/*', '**/routes/**', 'svelte', 'flowbite-svelte'],
							message: 'The server side imports core and itself, never a screen.'
						},
						{ group: ['**/stand-ins/**'], message: 'A stand-in is the world outside: the product does not know it.' },
						REQUEST_FROM_NOWHERE,
						...DEEP
					]
				}
			]
		}
	},
	{
		files: ['src/lib/ui/**', 'src/lib/player/**'],
		rules: refuse(
			['$lib/server', '$lib/server/*', '**/routes/**', 'knex', 'better-sqlite3', 'node:*'],
			'What runs in the browser imports core, never the server side.'
		)
	},
	{
		files: ['src/routes/**/*.ts', 'src/routes/**/*.svelte', 'scripts/**/*.ts', 'e2e/**/*.ts'],
		rules: { 'no-restricted-imports': ['error', { patterns: [REQUEST_FROM_NOWHERE, ALL_OF_FLOWBITE, DEEP[1]] }] }
	},
	{
		files: ['src/lib/server/**/*.ts'],
		ignores: ['src/lib/server/db/**', '**/*.test.ts'],
		rules: {
			'no-restricted-syntax': [
				'error',
				{
					selector:
						'CallExpression[callee.property.name=/^(raw|whereRaw|orWhereRaw|orderByRaw|groupByRaw|havingRaw|joinRaw)$/]',
					message: 'SQL of one dialect stands in lib/server/db: use the query builder, or put the statement there.'
				}
			]
		}
	},
	{
		files: ['stand-ins/**/*.ts'],
		rules: {
			'no-restricted-imports': [
				'error',
				{
					patterns: [
						{
							group: ['$lib/*', '$ui/*', '$player/*', '**/lib/server/**', '**/routes/**'],
							message: 'A stand-in is the world outside: it knows the product by HTTP alone.'
						}
					]
				}
			]
		}
	},
	{
		files: ['src/**/*.svelte'],
		rules: {
			'no-restricted-syntax': [
				'error',
				{
					selector:
						"SvelteElement[name.name='svelte:window'] SvelteAttribute[key.name='onkeydown'], SvelteElement[name.name='svelte:window'] SvelteShorthandAttribute[key.name='onkeydown'], SvelteElement[name.name='svelte:window'] SvelteAttribute[key.name='onkeypress']",
					message: 'Keys that nothing has the focus for are heard by $ui/Shortcuts.svelte alone.'
				}
			]
		}
	}
);
