import { spawn } from 'node:child_process';
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

/** Reads only what has changed since it read it last, from what it keeps of its own. */
const COMMANDS: Record<Check, (files: string[]) => string[]> = {
	lint: (files) => [
		...['eslint', '--max-warnings', '0', '--cache', '--cache-location', 'node_modules/.otium/lint'],
		...['--cache-strategy', 'content', '--no-warn-ignored', ...files]
	],
	format: (files) => ['prettier', '--check', '--log-level', 'warn', '--ignore-unknown', ...files],
	types: () => ['svelte-check', '--tsconfig', './tsconfig.json', '--fail-on-warnings', '--incremental']
};

/** One check, of these files: all that there are, if nothing else is said. Types hang together, and are always read whole. */
export async function check(name: Check, files = ['.']): Promise<Failure | null> {
	const { code, output } = await run('npx', COMMANDS[name](files));
	console.log(`== ${name}: ${code === 0 ? 'nothing found' : 'see above'}`);
	return code === 0 ? null : { name, says: output.trim().split('\n').slice(-12).join('\n') };
}

/** Format, lint and types, side by side; each counts as one. */
export async function runChecks(files?: string[]): Promise<Tally> {
	// Never beside a build, which writes the same files for itself: its pages would not fit its server.
	await run('npx', ['svelte-kit', 'sync']);
	const ends = await Promise.all([
		check('lint', files),
		check('format', files).then(async (end) => [end, await check('types')])
	]);
	const failed = ends.flat().filter((end) => end !== null);
	return { passed: CHECKS.length - failed.length, failed };
}
