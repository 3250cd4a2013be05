// Puts the built server and the packages that it loads together. Otherwise Node looks up and reads hundreds of small
// files, which is half of the time for which a server that is started again keeps a room waiting.
import { readdirSync, rmSync } from 'node:fs';
import { mkdir, writeFile } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import { build } from 'esbuild';

/** Code for this machine stays where it was installed. */
const NATIVE = ['better-sqlite3', 'sharp', '@node-rs/argon2', 'esbuild'];
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
 * @param {string} out the folder of the build. `handler.js` in it stays the entrance, and what it needs lies beside it:
 *   the pages' files are looked for from there.
 */
export async function bundleServer(out) {
	const { outputFiles } = await build({
		entryPoints: [join(out, 'handler.js')],
		outdir: out,
		bundle: true,
		splitting: true,
		// As it was written: smaller would start no sooner, and what a log says of a fault would lead nowhere.
		minify: false,
		format: 'esm',
		platform: 'node',
		// What is imported when it is first needed would come without its names from a module of the older kind.
		mainFields: ['module', 'main'],
		external: [...NATIVE, ...OTHER_DATABASES],
		banner: { js: REQUIRE },
		logLevel: 'error',
		write: false
	});
	for (const name of readdirSync(out))
		if (name !== 'client' && name !== 'prerendered') rmSync(join(out, name), { recursive: true });
	for (const { path, contents } of outputFiles) {
		await mkdir(dirname(path), { recursive: true });
		await writeFile(path, contents);
	}
}
