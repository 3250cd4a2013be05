import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { run, runChecks, type Tally } from './checks';
import { fail, readOptions } from './options';

const { only } = readOptions({ only: { type: 'string' } });
if (only !== undefined && only !== 'unit' && only !== 'e2e') fail(`--only takes unit or e2e, not "${only}".`);

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
