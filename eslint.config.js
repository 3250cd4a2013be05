import js from '@eslint/js';
import svelte from 'eslint-plugin-svelte';
import globals from 'globals';
import ts from 'typescript-eslint';
import svelteConfig from './svelte.config.js';

/** Arrows run one way: routes → lib/server → core, routes → lib/ui, lib/player → core. */
const WORLD = ['node:*', 'fs', 'path', 'knex', 'better-sqlite3', 'pino', '@node-rs/*', 'nodemailer', 'idb'];
const FRAMEWORK = ['svelte', 'svelte/*', '@sveltejs/*', 'flowbite-svelte', 'flowbite-svelte-icons', '$app/*', '$env/*'];
const OURS_ABOVE_CORE = ['$lib/*', '$ui/*', '$player/*', '**/lib/**', '**/routes/**', '**/stand-ins/**'];

/**
 * @param {string[]} group
 * @param {string} message
 */
const refuse = (group, message) => ({
	'no-restricted-imports': /** @type {['error', object]} */ (['error', { patterns: [{ group, message }] }])
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
		rules: refuse(
			['$ui/*', '$player/*', '$lib/ui/*', '$lib/player/*', '**/routes/**', 'svelte', 'flowbite-svelte'],
			'The server side imports core and itself, never a screen.'
		)
	},
	{
		files: ['src/lib/ui/**', 'src/lib/player/**'],
		rules: refuse(
			['$lib/server', '$lib/server/*', '**/routes/**', 'knex', 'better-sqlite3', 'node:*'],
			'What runs in the browser imports core, never the server side.'
		)
	},
	{
		files: ['stand-ins/**/*.ts'],
		rules: refuse(
			['$lib/*', '$ui/*', '$player/*', '**/lib/server/**', '**/routes/**'],
			'A stand-in is the world outside: it knows the product by HTTP alone.'
		)
	}
);
