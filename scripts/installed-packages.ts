import { readFileSync } from 'node:fs';

type Locked = { version?: string; dev?: boolean; devOptional?: boolean; optional?: boolean; link?: boolean };

/** What the product is installed with, by the lock file, as `name@version`; without what only tests and tools need. */
export function installedPackages(): string[] {
	const { packages } = JSON.parse(readFileSync('package-lock.json', 'utf8')) as { packages: Record<string, Locked> };
	return Object.entries(packages).flatMap(([path, one]) => {
		const [, name] = /(?:^|\/)node_modules\/((?:@[^/]+\/)?[^/]+)$/.exec(path) ?? [];
		const isOurs = name && !one.dev && !one.devOptional && !one.optional && !one.link;
		return isOurs ? [`${name}@${one.version}`] : [];
	});
}
