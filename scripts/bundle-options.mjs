/** Code for this machine stays where it was installed, and so does what runs tests. */
const INSTALLED = ['better-sqlite3', 'sharp', '@node-rs/argon2', 'esbuild', '@playwright/test', 'vitest', 'fast-check'];
/** What Knex asks for only where a database is not ours. */
const OTHER_DATABASES = [
	'mariadb',
	'mysql',
	'mysql2',
	'oracledb',
	'pg',
	'pg-native',
	'pg-query-stream',
	'sqlite3',
	'tedious'
];
/** Packages of the older kind ask for Node's own modules by this. */
const REQUIRE =
	"import { createRequire as requireFrom } from 'node:module'; const require = requireFrom(import.meta.url);";

/**
 * How a program of ours and the packages that it loads are put together. Otherwise Node looks up and reads hundreds of small
 * files, which is half of the time that a start takes.
 * @satisfies {import('esbuild').BuildOptions}
 */
export const BUNDLED = {
	bundle: true,
	splitting: true,
	format: 'esm',
	platform: 'node',
	// What is imported when it is first needed would come without its names from a module of the older kind.
	mainFields: ['module', 'main'],
	external: [...INSTALLED, ...OTHER_DATABASES],
	banner: { js: REQUIRE }
};
