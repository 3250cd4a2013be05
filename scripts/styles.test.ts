import { execFileSync } from 'node:child_process';
import { readdirSync, readFileSync } from 'node:fs';
import { basename, dirname, join, normalize, relative } from 'node:path';
import { expect, it } from 'vitest';

const FLOWBITE = 'node_modules/flowbite-svelte/dist';

/** Folders of components whose look the style sheet has: those that `@source` names. */
function folders(): Set<string> {
	const named = [...readFileSync('src/app.css', 'utf8').matchAll(/@source '.*\/dist\/(.*?)\{(.*)\}'/g)];
	return new Set(named.flatMap(([, before, names]) => names.split(',').map((name) => `${before}${name}`)));
}

/** The components that a component is made of, itself included. */
function madeOf(file: string, seen = new Set<string>()): Set<string> {
	if (seen.has(file)) return seen;
	seen.add(file);
	for (const [, path] of readFileSync(file, 'utf8').matchAll(/from "(\.[^"]*\.svelte)"/g))
		madeOf(normalize(join(dirname(file), path)), seen);
	return seen;
}

it('the style sheet has the look of every ready-made component that stands on a screen', () => {
	const imports = execFileSync('git', ['grep', '-h', "from 'flowbite-svelte/", '--', 'src/*.svelte'], {
		encoding: 'utf8'
	});
	const names = [...imports.matchAll(/from 'flowbite-svelte\/(\w+)\.svelte'/g)]
		.map(([, name]) => name)
		// A theme has no look of its own.
		.filter((name) => name !== 'ThemeProvider');
	const wanted = new Set(names);
	expect(wanted).toContain('Modal');
	const files = readdirSync(FLOWBITE, { recursive: true, encoding: 'utf8' });
	const needed = [...wanted].flatMap((name) => {
		const file = files.find((one) => basename(one) === `${name}.svelte`)!;
		return [...madeOf(join(FLOWBITE, file))].map((one) => dirname(relative(FLOWBITE, one)));
	});
	expect(needed.filter((folder) => !folders().has(folder))).toEqual([]);
});
