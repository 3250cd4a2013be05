// Puts the built server and the packages that it loads together: a server that is started again keeps a room waiting.
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join, resolve } from 'node:path';
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

/** The entrance that SvelteKit's adapter for Node has for a built application. */
const ENTRANCE = join(dirname(createRequire(import.meta.url).resolve('@sveltejs/adapter-node/package.json')), 'files');

/**
 * What the entrance leaves open: where the application is, and how it was built.
 * @param {import('@sveltejs/kit').Builder} builder
 * @returns {import('esbuild').Plugin}
 */
function ofThisApplication(builder) {
	const server = resolve(builder.getServerDirectory());
	/** @type {Record<string, string>} */
	const filled = {
		BASE: JSON.stringify(builder.config.kit.paths.base),
		ENV_PREFIX: '""',
		PRECOMPRESS: 'true',
		PRERENDERED: `new Set(${JSON.stringify(builder.prerendered.paths)})`
	};
	return {
		name: 'of-this-application',
		setup(build) {
			build.onResolve({ filter: /^(SERVER|MANIFEST)$/ }, ({ path }) => ({
				path: join(server, path === 'SERVER' ? 'index.js' : 'manifest.js')
			}));
			build.onLoad({ filter: /\.js$/ }, ({ path }) => {
				if (dirname(path) !== ENTRANCE) return undefined;
				const text = readFileSync(path, 'utf8');
				return { contents: text.replace(/\b(BASE|ENV_PREFIX|PRECOMPRESS|PRERENDERED)\b/g, (name) => filled[name]) };
			});
		}
	};
}

/**
 * An adapter that puts together in one step what the one for Node puts together for a second bundler to read: that took
 * half a minute of each build. `handler.js` in the folder is the entrance, and what it needs lies beside it: the pages' files
 * are looked for from there.
 * @param {string} out the folder of the build
 * @returns {import('@sveltejs/kit').Adapter}
 */
export function bundledServer(out) {
	return {
		name: 'bundled-server',
		supports: { read: () => true },
		async adapt(builder) {
			builder.rimraf(out);
			builder.writeClient(join(out, 'client'));
			builder.writePrerendered(join(out, 'prerendered'));
			await Promise.all([
				builder.compress(join(out, 'client')),
				builder.compress(join(out, 'prerendered')),
				build({
					entryPoints: [join(ENTRANCE, 'handler.js')],
					outdir: out,
					...BUNDLED,
					// As it was written: smaller would start no sooner, and what a log says of a fault would lead nowhere.
					minify: false,
					plugins: [followNoRequests, ofThisApplication(builder)],
					logLevel: 'error'
				})
			]);
		}
	};
}
