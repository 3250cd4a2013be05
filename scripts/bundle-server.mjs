// Puts the built server and the packages that it loads together: a server that is started again keeps a room waiting.
import { readdirSync, rmSync } from 'node:fs';
import { mkdir, writeFile } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import { build } from 'esbuild';
import { BUNDLED } from './bundle-options.mjs';

/**
 * SvelteKit follows each request through all that it waits for, so that any code can ask which one it is. None of ours
 * asks, and before Node.js 24 following takes a fifth of the time of a saved answer. Where the module for it is missing, SvelteKit
 * does without.
 * @type {import('esbuild').Plugin}
 */
const followNoRequests = {
	name: 'follow-no-requests',
	setup(build) {
		build.onResolve({ filter: /^node:async_hooks$/ }, ({ kind, path }) =>
			kind === 'dynamic-import' ? { path, namespace: 'missing' } : undefined
		);
		build.onLoad({ filter: /^/, namespace: 'missing' }, () => ({ contents: 'export {};' }));
	}
};

/**
 * @param {string} out the folder of the build. `handler.js` in it stays the entrance, and what it needs lies beside it:
 *   the pages' files are looked for from there.
 */
export async function bundleServer(out) {
	const { outputFiles } = await build({
		entryPoints: [join(out, 'handler.js')],
		outdir: out,
		...BUNDLED,
		// As it was written: smaller would start no sooner, and what a log says of a fault would lead nowhere.
		minify: false,
		plugins: [followNoRequests],
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
