import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, relative } from 'node:path';
import { run, runChecks, tell, type Tally } from './checks';
import { fail, numberOption, readOptions } from './options';

const { only, fuzz } = readOptions({ only: { type: 'string' }, fuzz: { type: 'string' } });
if (only !== undefined && only !== 'unit' && only !== 'e2e') fail(`--only takes unit or e2e, not "${only}".`);

if (fuzz !== undefined) process.exit(await lookFurther(numberOption(fuzz, 'fuzz', 10)));

const dir = mkdtempSync(join(tmpdir(), 'otium-test-'));
const total: Tally = { passed: 0, failed: [] };
const add = (tally: Tally) => {
	total.passed += tally.passed;
	total.failed.push(...tally.failed);
};

if (only === undefined) add(await runChecks());
if (only !== 'e2e') add(await unitTests());
if (only !== 'unit') add(await interfaceTests());
rmSync(dir, { recursive: true });
process.exit(tell(total));

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
	return counted('unit', code, () => {
		const report: UnitReport = JSON.parse(readFileSync(file, 'utf8'));
		const failed = report.testResults.flatMap(({ name, status, assertionResults }) => {
			const tests = assertionResults.filter((one) => one.status === 'failed').map((one) => one.fullName);
			// A file that could not be read has no tests.
			if (status === 'failed' && tests.length === 0) return [relative('', name)];
			return tests.map((test) => `${relative('', name)} › ${test}`);
		});
		return { passed: report.numPassedTests, failed };
	});
}

async function interfaceTests(): Promise<Tally> {
	console.log('\n== interface');
	const file = join(dir, 'interface.json');
	const { code } = await run('npx', ['playwright', 'test', '--reporter=list,json'], {
		PLAYWRIGHT_JSON_OUTPUT_NAME: file
	});
	return counted('interface', code, () => {
		const { stats, suites }: InterfaceReport = JSON.parse(readFileSync(file, 'utf8'));
		const { expected, flaky } = stats;
		if (flaky > 0) console.log(`\n${flaky} passed on the second try only: the list above calls them flaky.`);
		return { passed: expected + flaky, failed: failedIn(suites) };
	});
}

/** A runner that fails without a failed test, or leaves no report, has failed all the same. */
function counted(name: string, code: number, read: () => Tally): Tally {
	try {
		const tally = read();
		return code !== 0 && tally.failed.length === 0 ? { ...tally, failed: [name] } : tally;
	} catch {
		return { passed: 0, failed: [name] };
	}
}

/** What Vitest's report in JSON has of what is read here. */
type UnitReport = {
	numPassedTests: number;
	testResults: { name: string; status: string; assertionResults: { fullName: string; status: string }[] }[];
};

/** What Playwright's has. */
type InterfaceReport = { stats: { expected: number; flaky: number }; suites: Suite[] };
type Suite = { file: string; specs: { title: string; tests: { status: string }[] }[]; suites?: Suite[] };

function failedIn(suites: Suite[]): string[] {
	return suites.flatMap(({ file, specs, suites: within = [] }) => [
		...specs
			.filter(({ tests }) => tests.some(({ status }) => status === 'unexpected'))
			.map((one) => `${file} › ${one.title}`),
		...failedIn(within)
	]);
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
