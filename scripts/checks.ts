import { spawn } from 'node:child_process';

export type Tally = { passed: number; failed: number };

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

const CHECKS: { name: string; args: string[] }[] = [
	{ name: 'format', args: ['prettier', '--check', '.', '--log-level', 'warn'] },
	{ name: 'lint', args: ['eslint', '.', '--max-warnings', '0'] },
	{ name: 'types', args: ['svelte-check', '--tsconfig', './tsconfig.json', '--fail-on-warnings'] }
];

/** Format, lint and types; each counts as one. */
export async function runChecks(): Promise<Tally> {
	const tally: Tally = { passed: 0, failed: 0 };
	await run('npx', ['svelte-kit', 'sync']);
	for (const { name, args } of CHECKS) {
		console.log(`\n== ${name}`);
		const { code } = await run('npx', args);
		if (code === 0) tally.passed++;
		else tally.failed++;
	}
	return tally;
}
