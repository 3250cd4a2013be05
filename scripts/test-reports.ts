import { readFileSync } from 'node:fs';
import { relative } from 'node:path';

/** A test that failed, as it is told at the end of all. */
export type Failure = {
	/** The file and the test in it, or the check. */
	name: string;
	/** The line that failed: file, line and column. */
	line?: string;
	/** The first lines of what it said. */
	says?: string;
	/** The seed of a property test that found it. */
	seed?: string;
	picture?: string;
	trace?: string;
	/** What came of running it once more. */
	again?: string;
};

/** How many passed, and what failed. */
export type Tally = { passed: number; failed: Failure[] };

/** What Vitest's report in JSON has of what is read here. */
type UnitReport = {
	numPassedTests: number;
	testResults: {
		name: string;
		status: string;
		message: string;
		assertionResults: { fullName: string; status: string; failureMessages: string[] }[];
	}[];
};

/** Reads Vitest's report in JSON. */
export function unitTally(file: string): Tally {
	const report: UnitReport = JSON.parse(readFileSync(file, 'utf8'));
	const failed = report.testResults.flatMap(({ name, status, message, assertionResults }): Failure[] => {
		const file = relative('', name);
		const failures = assertionResults.filter((one) => one.status === 'failed');
		// A file that could not be read has no tests.
		if (status === 'failed' && failures.length === 0) return [{ name: file, ...said(message, file) }];
		return failures.map((one) => ({
			name: `${file} › ${one.fullName}`,
			...said(one.failureMessages.join('\n'), file)
		}));
	});
	return { passed: report.numPassedTests, failed };
}

/** What Playwright's has. */
type InterfaceReport = { stats: { expected: number; flaky: number }; suites: Suite[] };
type Suite = { file: string; specs: Spec[]; suites?: Suite[] };
type Spec = { title: string; line: number; tests: { status: string; results: Result[] }[] };
type Result = {
	status: string;
	duration: number;
	errors: { message?: string; location?: { file: string; line: number; column: number } }[];
	attachments: { name: string; path?: string }[];
};

/** Reads Playwright's report in JSON. */
export function interfaceTally(file: string): Tally {
	const { stats, suites }: InterfaceReport = JSON.parse(readFileSync(file, 'utf8'));
	return { passed: stats.expected, failed: suites.flatMap(failedIn) };
}

/** How long the tests of each file took together, in seconds. */
export function secondsOfSpecs(file: string): Record<string, number> {
	const { suites }: InterfaceReport = JSON.parse(readFileSync(file, 'utf8'));
	const ms = ({ specs, suites = [] }: Suite): number =>
		specs.flatMap(({ tests }) => tests.flatMap(({ results }) => results)).reduce((all, one) => all + one.duration, 0) +
		suites.reduce((all, one) => all + ms(one), 0);
	return Object.fromEntries(suites.map((suite) => [`e2e/${suite.file}`, Math.round(ms(suite) / 1_000)]));
}

function failedIn({ file, specs, suites = [] }: Suite): Failure[] {
	const failed = specs.flatMap((spec) =>
		spec.tests
			.filter(({ status }) => status === 'unexpected' || status === 'flaky')
			.map(({ results }): Failure => {
				const result = results.find((one) => one.errors.length > 0) ?? results[0];
				const error = result?.errors[0];
				const path = (name: string) => {
					const found = result?.attachments.find((one) => one.name === name)?.path;
					return found && relative('', found);
				};
				const at = error?.location;
				return {
					name: `e2e/${file} › ${spec.title}`,
					line: at ? `${relative('', at.file)}:${at.line}:${at.column}` : `e2e/${file}:${spec.line}`,
					says: firstLines(error?.message ?? ''),
					picture: path('screenshot'),
					trace: path('trace')
				};
			})
	);
	return [...failed, ...suites.flatMap(failedIn)];
}

// Colours of a terminal.
// eslint-disable-next-line no-control-regex
const COLOURS = /\u001b\[[0-9;]*m/g;

function said(message: string, file: string): Pick<Failure, 'line' | 'says' | 'seed'> {
	const plain = message.replace(COLOURS, '');
	const inFile = plain.split('\n').find((line) => line.includes(file) && /:\d+:\d+/.test(line));
	return {
		line: inFile && `${file}:${/:(\d+:\d+)\)?$/.exec(inFile.trim())?.[1] ?? ''}`,
		says: firstLines(plain),
		seed: /seed: (-?\d+)/.exec(plain)?.[1]
	};
}

const firstLines = (text: string) =>
	text
		.replace(COLOURS, '')
		.split('\n')
		.filter((line) => line.trim() !== '')
		.slice(0, 4)
		.join('\n');

/** Tells what failed, each with all that helps to find why, and the count on the last line. Returns the exit code. */
export function tell({ passed, failed }: Tally): number {
	for (const { name, line, says, seed, picture, trace, again } of failed) {
		console.log(`\nfailed: ${name}`);
		if (line) console.log(`  at       ${line}`);
		if (says) console.log(says.replace(/^/gm, '  '));
		if (seed) console.log(`  seed     ${seed}`);
		if (picture) console.log(`  picture  ${picture}`);
		if (trace) console.log(`  trace    npx playwright show-trace ${trace}`);
		if (again) console.log(`  again    ${again}`);
	}
	console.log(`\n${passed} passed, ${failed.length} failed`);
	return failed.length > 0 ? 1 : 0;
}
