import { spawn } from 'node:child_process';

/** How many passed, and the names of those that failed. */
export type Tally = { passed: number; failed: string[] };

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

type Check = { name: string; args: string[] };
/** Those of a row follow each other; the rows run side by side, each about as long as the other. */
const CHECKS: Check[][] = [
	[{ name: 'lint', args: ['eslint', '.', '--max-warnings', '0'] }],
	[
		{ name: 'format', args: ['prettier', '--check', '.', '--log-level', 'warn'] },
		{ name: 'types', args: ['svelte-check', '--tsconfig', './tsconfig.json', '--fail-on-warnings'] }
	]
];

/** Tells the count on the last line, and before it what failed: its message is far above. Returns the exit code. */
export function tell({ passed, failed }: Tally): number {
	console.log(failed.map((name) => `\nfailed: ${name}`).join(''));
	console.log(`${passed} passed, ${failed.length} failed`);
	return failed.length > 0 ? 1 : 0;
}

/** Format, lint and types; each counts as one. */
export async function runChecks(): Promise<Tally> {
	const tally: Tally = { passed: 0, failed: [] };
	// Never beside a build, which writes the same files for itself: its pages would not fit its server.
	await run('npx', ['svelte-kit', 'sync']);
	const check = async ({ name, args }: Check) => {
		const { code } = await run('npx', args);
		console.log(`== ${name}: ${code === 0 ? 'nothing found' : 'see above'}`);
		if (code === 0) tally.passed++;
		else tally.failed.push(name);
	};
	await Promise.all(
		CHECKS.map(async (row) => {
			for (const one of row) await check(one);
		})
	);
	return tally;
}
