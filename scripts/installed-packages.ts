import { readFileSync } from 'node:fs';

type Locked = { version?: string; dev?: boolean; devOptional?: boolean; optional?: boolean; link?: boolean };

/** Written into the build, so that they run where they are not installed: the framework's server, and what it brings. */
const BUILT_IN = new Set([
	'@sveltejs/kit',
	'@sveltejs/adapter-node',
	'@polka/url',
	'cookie',
	'mrmime',
	'set-cookie-parser',
	'sirv',
	'totalist'
]);

/** What the product is installed with, by the lock file, as `name@version`; without what only builds and tests need. */
export function installedPackages(): string[] {
	const { packages } = JSON.parse(readFileSync('package-lock.json', 'utf8')) as { packages: Record<string, Locked> };
	return Object.entries(packages).flatMap(([path, one]) => {
		const [, name] = /(?:^|\/)node_modules\/((?:@[^/]+\/)?[^/]+)$/.exec(path) ?? [];
		if (!name) return [];
		const isOurs = !one.dev && !one.devOptional && !one.optional && !one.link;
		return isOurs || BUILT_IN.has(name) ? [`${name}@${one.version}`] : [];
	});
}
