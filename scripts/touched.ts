import { execFileSync } from 'node:child_process';
import { existsSync, readFileSync } from 'node:fs';
import { dirname, join, normalize } from 'node:path';

/** Where an import with this beginning points. */
const ALIASES: [string, string][] = [
	['$core', 'src/core'],
	['$ui', 'src/lib/ui'],
	['$player', 'src/lib/player'],
	['$lib', 'src/lib']
];
const ENDINGS = ['', '.ts', '.svelte', '/index.ts', '.svelte.ts'];
/** What a browser test does by a helper, and the page that it does it on. */
const BY_HELPER: [RegExp, string][] = [
	[/\b(arrive|begun|atWork|sits|under)\(/, '/sit'],
	[/\bactsIn\(|\broom\(/, '/live/x']
];

const git = (...args: string[]) => execFileSync('git', args, { encoding: 'utf8' }).split('\n').filter(Boolean);

/**
 * The files that differ from that commit, new ones too. Without one: what is not committed, or else the last commit.
 * @throws when there is no such commit
 */
export function changedFiles(since?: string): string[] {
	const fresh = git('ls-files', '--others', '--exclude-standard');
	const changed = (from: string) => [...new Set([...git('diff', '--name-only', from), ...fresh])].filter(existsSync);
	if (since !== undefined) return changed(since);
	const open = changed('HEAD');
	return open.length > 0 ? open : changed('HEAD~1');
}

/** Which files import each file, directly. */
export function importers(files: string[]): Map<string, Set<string>> {
	const known = new Set(files);
	const found = new Map<string, Set<string>>();
	for (const file of files) {
		for (const [, named] of readFileSync(file, 'utf8').matchAll(/(?:from|import)\s*\(?\s*['"]([^'"]+)['"]/g)) {
			const target = resolved(named, file, known);
			if (target) found.set(target, (found.get(target) ?? new Set()).add(file));
		}
	}
	return found;
}

function resolved(named: string, from: string, known: Set<string>): string | null {
	const alias = ALIASES.find(([name]) => named === name || named.startsWith(`${name}/`));
	if (!alias && !named.startsWith('.')) return null;
	const path = alias ? alias[1] + named.slice(alias[0].length) : normalize(join(dirname(from), named));
	return ENDINGS.map((ending) => path + ending).find((one) => known.has(one)) ?? null;
}

/** The files that reach one of these by what they import, with these; how many steps each is away. */
export function reaching(start: string[], by: Map<string, Set<string>>): Map<string, number> {
	const steps = new Map(start.map((file) => [file, 0]));
	const queue = [...start];
	for (const file of queue) {
		for (const importer of by.get(file) ?? []) {
			if (steps.has(importer)) continue;
			steps.set(importer, steps.get(file)! + 1);
			queue.push(importer);
		}
	}
	return steps;
}

/** All that is written here in TypeScript and Svelte. */
export const sources = () =>
	git('ls-files', '-co', '--exclude-standard', 'src', 'e2e', 'scripts', 'stand-ins').filter(
		(file) => /\.(ts|svelte)$/.test(file) && existsSync(file)
	);

/**
 * The address of a file of `src/routes`, its parameters as `x`, and whether it is around all pages below; null for one that
 * is elsewhere.
 */
export function addressOf(file: string): { address: string; andBelow: boolean } | null {
	const [, within, name] = /^src\/routes\/(.*?)\/?\+([^/]*)$/.exec(file) ?? [];
	if (within === undefined) return null;
	const parts = within.split('/').filter((part) => part !== '' && !part.startsWith('('));
	const address = `/${parts.map((part) => (part.startsWith('[') ? 'x' : part)).join('/')}`;
	return { address, andBelow: name.startsWith('layout') };
}

/** The addresses that a browser test goes to, as far as its text says; `${…}` is `x`. */
export function addressesIn(text: string): Set<string> {
	const named = [...text.matchAll(/['"`](\/[^'"`\s]*)['"`]/g)].map(([, path]) =>
		path.replace(/\$\{[^}]*\}/g, 'x').replace(/[?#].*$/, '')
	);
	return new Set([...named, ...BY_HELPER.filter(([pattern]) => pattern.test(text)).map(([, path]) => path)]);
}

/** A browser test that a change touches, and by how many imports its screen is away from what changed. */
export type TouchedSpec = { spec: string; steps: number };

/** The browser tests that a change touches, the nearest first: by a screen or route that they go to, or themselves. */
export function touchedSpecs(changed: string[]): TouchedSpec[] {
	const files = sources();
	const steps = reaching(changed, importers(files));
	const routes = [...steps].flatMap(([file, away]) => {
		const address = addressOf(file);
		return address === null ? [] : [{ ...address, away }];
	});
	const awayFrom = (path: string) =>
		Math.min(
			...routes
				.filter(({ address, andBelow }) => path === address || (andBelow && path.startsWith(address)))
				.map(({ away }) => away)
		);
	return files
		.filter((file) => file.endsWith('.spec.ts'))
		.flatMap((spec): TouchedSpec[] => {
			if (changed.includes(spec)) return [{ spec, steps: 0 }];
			const away = Math.min(...[...addressesIn(readFileSync(spec, 'utf8'))].map(awayFrom));
			return away === Infinity ? [] : [{ spec, steps: away + 1 }];
		})
		.sort((a, b) => a.steps - b.steps || (a.spec < b.spec ? -1 : 1));
}
