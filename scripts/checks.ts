import { spawn } from 'node:child_process';
import { rmSync } from 'node:fs';
import type { Failure, Tally } from './test-reports';

/** Runs a command with its output shown; resolves with its exit code and what it printed. */
export function run(
	command: string,
	args: string[],
	env: Record<string, string> = {}
): Promise<{ code: number; output: string }> {
	return new Promise((resolve) => {
		const child = spawn(command, args, { stdio: ['ignore', 'pipe', 'pipe'], env: { ...process.env, ...env } });
		let output = '';
		for (const stream of [child.stdout, child.stderr]) {
			stream.on('data', (data: Buffer) => {
				output += data;
				process.stdout.write(data);
			});
		}
		child.on('error', (error) => resolve({ code: 1, output: error.message }));
		child.on('exit', (code) => resolve({ code: code ?? 1, output }));
	});
}

export const CHECKS = ['lint', 'format', 'types'] as const;
export type Check = (typeof CHECKS)[number];

/**
 * What each check runs. What needs types, a promise that nobody waits for hides its failure, is asked of a compiler that is
 * fast; and so is the format of what is TypeScript alone.
 */
const COMMANDS: Record<Check, (files: string[] | null) => string[][]> = {
	lint: (files) => [
		['eslint', '--max-warnings', '0', '--no-warn-ignored', ...(files ?? ['.'])],
		['oxlint', '--type-aware', ...(files?.filter(isScript) ?? ['src', 'scripts', 'stand-ins'])]
	],
	format: (files) => [
		['prettier', '--check', '--log-level', 'warn', '--ignore-unknown', ...(files ?? ['.'])],
		[
			...['oxfmt', '--check', '--ignore-path', '.gitignore', '--no-error-on-unmatched-pattern'],
			...(files?.filter(isScript) ?? ['**/*.ts', '**/*.js', '**/*.mjs'])
		]
	],
	types: () => [['svelte-check', '--tsconfig', './tsconfig.json', '--fail-on-warnings', '--tsgo']]
};
const isScript = (file: string) => /\.(ts|js|mjs)$/.test(file);
/** A program that is asked about no file at all would look at every one. */
const asksAbout = (files: string[] | null, [program]: string[]) =>
	files === null || program === 'svelte-check' || files.some(program.startsWith('ox') ? isScript : () => true);

/** One check, of these files: all that there are, if nothing else is said. Types hang together, and are always read whole. */
export async function check(name: Check, files: string[] | null = null): Promise<Failure | null> {
	let said = '';
	for (const command of COMMANDS[name](files).filter((one) => asksAbout(files, one))) {
		const { code, output } = await run('npx', command);
		if (code !== 0) said += output;
	}
	console.log(`== ${name}: ${said === '' ? 'nothing found' : 'see above'}`);
	return said === '' ? null : { name, says: said.trim().split('\n').slice(-12).join('\n') };
}

/** Format, lint and types, side by side; each counts as one. */
export async function runChecks(files: string[] | null = null): Promise<Tally> {
	// What the compiler was given of files that are gone would still be checked.
	rmSync('.svelte-kit/.svelte-check', { recursive: true, force: true });
	// Never beside a build, which writes the same files for itself: its pages would not fit its server.
	await run('npx', ['svelte-kit', 'sync']);
	const ends = await Promise.all([
		check('lint', files),
		check('format', files).then(async (end) => [end, await check('types')])
	]);
	const failed = ends.flat().filter((end) => end !== null);
	return { passed: CHECKS.length - failed.length, failed };
}
