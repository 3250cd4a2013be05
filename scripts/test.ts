import { execFileSync } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, relative } from 'node:path';
import { check, CHECKS, run, runChecks, type Check } from './checks';
import { fail, numberOption, readArguments } from './options';
import { costLines, grown, measured, type Cost } from './part-cost';
import { build, compile, installBrowsers } from './prepare.mjs';
import { interfaceTally, secondsOfSpecs, tell, unitTally, type Tally } from './test-reports';
import { changedFiles, sources, touchedSpecs } from './touched';

const { values: options, positionals: patterns } = readArguments({
	only: { type: 'string' },
	fuzz: { type: 'string' },
	quick: { type: 'boolean' },
	since: { type: 'string' },
	twice: { type: 'boolean' }
});
const dir = mkdtempSync(join(tmpdir(), 'otium-test-'));
process.once('exit', () => rmSync(dir, { recursive: true, force: true }));
/** How long each browser test took when all of them ran last, in seconds. */
const SPECS = 'node_modules/.otium/spec-seconds.json';
/** Seconds of browser tests that a quick run takes. */
const QUICK_SECONDS = 60;
/** What one takes that nobody has timed. */
const UNTIMED_SECONDS = 20;

process.exit(await asAsked());

/** Runs what the command line asks for. Returns the exit code. */
async function asAsked(): Promise<number> {
	if (options.fuzz !== undefined) return lookFurther(numberOption(options.fuzz, 'fuzz', 10));
	if (patterns.length > 0) return tell(sum(await some(patterns)));
	if (options.quick) return quick();
	if (options.twice) return twice();
	return whole();
}

/** Everything, each part with what it took. Returns the exit code. */
async function whole(): Promise<number> {
	const { only } = options;
	if (only !== undefined && only !== 'unit' && only !== 'e2e') fail(`--only takes unit or e2e, not "${only}".`);
	const costs: Cost[] = [];
	const tallies: Tally[] = [];
	const part = async (name: string, work: () => Promise<Tally | void>) => {
		const { cost, result } = await measured(name, work);
		costs.push(cost);
		if (result) tallies.push(result);
	};
	// The compiler works beside what needs no database, and is counted to it on a fresh machine.
	const compiled = compile();
	if (only !== 'unit') await part('build', build);
	if (only === undefined) await part('checks', () => runChecks());
	await compiled;
	if (only !== 'e2e') await part('unit', () => unitTests());
	if (only !== 'unit') {
		await installBrowsers();
		await part('interface', () => interfaceTests());
	}
	console.log(`\n${costLines(costs).join('\n')}`);
	tallies.push(growth(costs));
	return tell(sum(tallies));
}

/** What each part took against what is written down for it, in yardsticks and with a word why it changed last. */
function growth(costs: Cost[]): Tally {
	const written = JSON.parse(readFileSync('scripts/test-costs.json', 'utf8'));
	const failed = grown(costs, written).map((says) => ({ name: 'cost', says }));
	return { passed: 0, failed };
}

/** @param which arguments of Vitest that say which */
async function unitTests(which: string[] = ['run']): Promise<Tally> {
	console.log('\n== unit');
	const file = join(dir, 'unit.json');
	const reports = ['--reporter=default', '--reporter=json', `--outputFile.json=${file}`];
	const { code } = await run('npx', ['vitest', ...which, ...reports]);
	return counted('unit', code, () => unitTally(file));
}

async function interfaceTests(files: string[] = [], name?: string): Promise<Tally> {
	console.log('\n== interface');
	const file = join(dir, 'interface.json');
	const only = [...files, ...(name ? ['-g', literally(name)] : [])];
	const report = { PLAYWRIGHT_JSON_OUTPUT_NAME: file };
	const { code } = await run('npx', ['playwright', 'test', '--reporter=list,json', ...only], report);
	const tally = counted('interface', code, () => interfaceTally(file));
	if (files.length === 0 && existsSync(file)) writeFileSync(SPECS, JSON.stringify(secondsOfSpecs(file)));
	return tally.failed.length > 0 && existsSync(file) ? recorded(tally) : tally;
}

/** What failed runs once more, and is recorded: recording everything takes a quarter of the time. It has failed all the same. */
async function recorded(tally: Tally): Promise<Tally> {
	console.log('\n== what failed, once more and recorded');
	const file = join(dir, 'again.json');
	await run('npx', ['playwright', 'test', '--last-failed', '--trace=on', '--reporter=list,json'], {
		PLAYWRIGHT_JSON_OUTPUT_NAME: file
	});
	const again = counted('interface', 0, () => interfaceTally(file));
	const failed = tally.failed.map((one) => {
		const second = again.failed.find(({ name }) => name === one.name);
		if (!second) return { ...one, again: 'it passed when it ran once more: it depends on the moment' };
		return { ...one, picture: second.picture, trace: second.trace, again: 'it failed once more' };
	});
	return { ...tally, failed };
}

/** What tests in a browser need beside the database. */
async function readyForBrowsers(): Promise<void> {
	await build();
	await installBrowsers();
}

/** A runner that fails without a failed test, or leaves no report, has failed all the same. */
function counted(name: string, code: number, read: () => Tally): Tally {
	try {
		const tally = read();
		return code !== 0 && tally.failed.length === 0 ? { ...tally, failed: [{ name }] } : tally;
	} catch {
		return { passed: 0, failed: [{ name, says: 'It left no report.' }] };
	}
}

/**
 * What a change reaches: types, lint and format of what changed, unit tests by what they import, and the browser tests whose
 * screens are nearest, as far as the time allows. Returns the exit code.
 */
async function quick(): Promise<number> {
	const changed = changedFiles(options.since);
	if (changed.length === 0) fail('Nothing has changed. --since COMMIT compares with another commit.');
	const code = changed.filter((file) => /\.(ts|svelte)$/.test(file));
	const { specs, left } = nearestSpecs(changed);
	await compile();
	const tallies = [await runChecks(changed)];
	// By the import graph of the tests themselves.
	if (code.length > 0) tallies.push(await unitTests(['related', '--run', '--passWithNoTests', ...code]));
	if (specs.length > 0) {
		await readyForBrowsers();
		tallies.push(await interfaceTests(specs));
	}
	console.log(`\nChanged: ${changed.length === 1 ? changed[0] : `${changed.length} files`}.`);
	console.log(`In a browser: ${specs.length > 0 ? specs.join(', ') : 'nothing'}.`);
	if (left.length > 0) console.log(`Left out, though the change reaches them: ${left.join(', ')}.`);
	console.log('Left out: all that the change does not reach by imports or addresses. ./otium test runs everything.');
	return tell(sum(tallies));
}

/** The browser tests that a change touches, the nearest first, as far as the time allows, and those that are left out. */
function nearestSpecs(changed: string[]): { specs: string[]; left: string[] } {
	const timed: Record<string, number> = existsSync(SPECS) ? JSON.parse(readFileSync(SPECS, 'utf8')) : {};
	const specs: string[] = [];
	const left: string[] = [];
	let seconds = 0;
	for (const { spec } of touchedSpecs(changed)) {
		const takes = timed[spec] ?? UNTIMED_SECONDS;
		if (seconds + takes > QUICK_SECONDS) left.push(spec);
		else {
			specs.push(spec);
			seconds += takes;
		}
	}
	return { specs, left };
}

/** The checks, test files and tests that these name: by a check's name, part of a path, or words of a test's name. */
async function some(patterns: string[]): Promise<Tally[]> {
	const files = sources().filter((file) => /\.(test|spec)\.ts$/.test(file));
	const tallies: Tally[] = [];
	for (const pattern of patterns) {
		if ((CHECKS as readonly string[]).includes(pattern)) {
			const end = await check(pattern as Check);
			tallies.push({ passed: end ? 0 : 1, failed: end ? [end] : [] });
			continue;
		}
		const path = relative('', pattern);
		const byPath = files.filter((file) => file.includes(path));
		const byName = byPath.length > 0 ? [] : files.filter((file) => readFileSync(file, 'utf8').includes(pattern));
		const chosen = byPath.length > 0 ? byPath : byName;
		if (chosen.length === 0) fail(`Nothing is called "${pattern}": no check, no test's file, and no test.`);
		const name = byPath.length > 0 ? undefined : pattern;
		const specs = chosen.filter((file) => file.endsWith('.spec.ts'));
		const units = chosen.filter((file) => !file.endsWith('.spec.ts'));
		await compile();
		if (units.length > 0) tallies.push(await unitTests(['run', ...units, ...(name ? ['-t', literally(name)] : [])]));
		if (specs.length > 0) {
			await readyForBrowsers();
			tallies.push(await interfaceTests(specs, name));
		}
	}
	return tallies;
}

/** Everything twice: what ends in two ways depends on the moment, and is told by name. Returns the exit code. */
async function twice(): Promise<number> {
	await compile();
	await readyForBrowsers();
	const rounds: Tally[] = [];
	for (const round of ['first', 'second']) {
		console.log(`\n== the ${round} time`);
		rounds.push(sum([await unitTests(), await interfaceTests()]));
	}
	const [first, second] = rounds;
	const failedIn = (tally: Tally, name: string) => tally.failed.some((one) => one.name === name);
	const failed = [...first.failed, ...second.failed.filter(({ name }) => !failedIn(first, name))].map((one) => ({
		...one,
		again:
			failedIn(first, one.name) && failedIn(second, one.name) ? 'it failed both times' : 'it failed once of two times'
	}));
	return tell({ passed: second.passed, failed });
}

function sum(tallies: Tally[]): Tally {
	return {
		passed: tallies.reduce((all, { passed }) => all + passed, 0),
		failed: tallies.flatMap(({ failed }) => failed)
	};
}

/** As it is written, for a runner that takes a pattern. */
function literally(text: string): string {
	return text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&');
}

/** Property tests again and again with other seeds and more runs, for so many minutes. Returns the exit code. */
async function lookFurther(minutes: number): Promise<number> {
	await compile();
	const until = Date.now() + minutes * 60_000;
	const files = execFileSync('git', ['grep', '-l', "from 'fast-check'", '--', 'src/*.test.ts'], { encoding: 'utf8' });
	for (let rounds = 1; ; rounds++) {
		const seed = Math.floor(Math.random() * 2 ** 31);
		console.log(`\n== round ${rounds}, seed ${seed}`);
		const { code } = await run('npx', ['vitest', 'run', ...files.trim().split('\n')], {
			OTIUM_FUZZ_SEED: String(seed),
			OTIUM_FUZZ_TIMES: '5'
		});
		if (code !== 0) {
			console.log(
				`\nTo repeat: OTIUM_FUZZ_SEED=${seed} OTIUM_FUZZ_TIMES=5 npx vitest run FILE, with the file that failed above.`
			);
			return 1;
		}
		if (Date.now() > until) {
			console.log(`\n${rounds} ${rounds === 1 ? 'round' : 'rounds'}, nothing found.`);
			return 0;
		}
	}
}
