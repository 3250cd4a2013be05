import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { run, runChecks, type Tally } from './checks';
import { fail, numberOption, readOptions } from './options';

const { only, fuzz } = readOptions({ only: { type: 'string' }, fuzz: { type: 'string' } });
if (only !== undefined && only !== 'unit' && only !== 'e2e') fail(`--only takes unit or e2e, not "${only}".`);

if (fuzz !== undefined) process.exit(await lookFurther(numberOption(fuzz, 'fuzz', 10)));

const dir = mkdtempSync(join(tmpdir(), 'otium-test-'));
const total: Tally = { passed: 0, failed: 0 };
const add = (tally: Tally) => {
	total.passed += tally.passed;
	total.failed += tally.failed;
};

if (only === undefined) add(await runChecks());
if (only !== 'e2e') add(await unitTests());
if (only !== 'unit') add(await interfaceTests());
rmSync(dir, { recursive: true });
console.log(`\n${total.passed} passed, ${total.failed} failed`);
process.exit(total.failed > 0 ? 1 : 0);

async function unitTests(): Promise<Tally> {
	console.log('\n== unit');
	const file = join(dir, 'unit.json');
	const { code } = await run('npx', [
		'vitest',
		'run',
		'--reporter=default',
		'--reporter=json',
		`--outputFile.json=${file}`
	]);
	return counted(code, () => {
		const report = JSON.parse(readFileSync(file, 'utf8'));
		return {
			passed: report.numPassedTests,
			failed: report.numFailedTests + report.numFailedTestSuites * Number(report.numFailedTests === 0)
		};
	});
}

async function interfaceTests(): Promise<Tally> {
	console.log('\n== interface');
	const file = join(dir, 'interface.json');
	const { code } = await run('npx', ['playwright', 'test', '--reporter=list,json'], {
		PLAYWRIGHT_JSON_OUTPUT_NAME: file
	});
	return counted(code, () => {
		const { expected, unexpected, flaky } = JSON.parse(readFileSync(file, 'utf8')).stats;
		if (flaky > 0) console.log(`\n${flaky} passed on the second try only: the list above calls them flaky.`);
		return { passed: expected + flaky, failed: unexpected };
	});
}

/** A runner that fails without a failed test, or leaves no report, has failed all the same. */
function counted(code: number, read: () => Tally): Tally {
	try {
		const tally = read();
		return code !== 0 && tally.failed === 0 ? { ...tally, failed: 1 } : tally;
	} catch {
		return { passed: 0, failed: 1 };
	}
}

/** Property tests again and again with other seeds, for so many minutes. Returns the exit code. */
async function lookFurther(minutes: number): Promise<number> {
	const until = Date.now() + minutes * 60_000;
	const files = execFileSync('git', ['grep', '-l', "from 'fast-check'", '--', 'src/*.test.ts'], { encoding: 'utf8' });
	for (let rounds = 1; ; rounds++) {
		const seed = Math.floor(Math.random() * 2 ** 31);
		console.log(`\n== round ${rounds}, seed ${seed}`);
		const { code } = await run('npx', ['vitest', 'run', ...files.trim().split('\n')], {
			OTIUM_FUZZ_SEED: String(seed)
		});
		if (code !== 0) {
			console.log(`\nTo repeat: OTIUM_FUZZ_SEED=${seed} npx vitest run FILE, with the file that failed above.`);
			return 1;
		}
		if (Date.now() > until) {
			console.log(`\n${rounds} ${rounds === 1 ? 'round' : 'rounds'}, nothing found.`);
			return 0;
		}
	}
}
