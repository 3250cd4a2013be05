import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { afterEach, expect, it, vi } from 'vitest';
import { interfaceTally, secondsOfSpecs, tell, unitTally } from './test-reports';

const dir = mkdtempSync(join(tmpdir(), 'otium-reports-'));
/** A report as the runner leaves it. */
function report(content: object): string {
	const file = join(dir, 'report.json');
	writeFileSync(file, JSON.stringify(content));
	return file;
}
afterEach(() => vi.restoreAllMocks());

const UNIT = {
	numPassedTests: 3,
	testResults: [
		{
			name: resolve('src/core/time/zone.test.ts'),
			status: 'failed',
			message: '',
			assertionResults: [
				{
					fullName: 'zone shows what luxon shows',
					status: 'failed',
					failureMessages: [
						`Error: Property failed after 3 tests\n{ seed: -1829, path: "2:1" }\nCounterexample: [0]\n    at ${resolve('src/core/time/zone.test.ts')}:71:9`
					]
				}
			]
		},
		{ name: resolve('src/a.test.ts'), status: 'failed', message: 'SyntaxError: no such export', assertionResults: [] }
	]
};

it('a unit test that failed is told with its line, what it said, and the seed that found it', () => {
	const { passed, failed } = unitTally(report(UNIT));
	expect(passed).toBe(3);
	expect(failed[0]).toMatchObject({
		name: 'src/core/time/zone.test.ts › zone shows what luxon shows',
		line: 'src/core/time/zone.test.ts:71:9',
		seed: '-1829'
	});
	expect(failed[1]).toMatchObject({ name: 'src/a.test.ts', says: 'SyntaxError: no such export' });
});

const INTERFACE = {
	stats: { expected: 1, flaky: 0 },
	suites: [
		{
			file: 'door.spec.ts',
			specs: [
				{
					title: 'opens',
					line: 5,
					tests: [{ status: 'expected', results: [{ duration: 2_600, errors: [], attachments: [] }] }]
				},
				{
					title: 'closes',
					line: 9,
					tests: [
						{
							status: 'unexpected',
							results: [
								{
									duration: 1_000,
									errors: [
										{
											message: '\u001b[31mError\u001b[39m: expected 3',
											location: { file: resolve('e2e/door.spec.ts'), line: 12, column: 3 }
										}
									],
									attachments: [
										{ name: 'screenshot', path: resolve('test-results/closes/failed.png') },
										{ name: 'trace', path: resolve('test-results/closes/trace.zip') }
									]
								}
							]
						}
					]
				}
			]
		}
	]
};

it('a browser test that failed is told with its line, its picture and its trace; the count stands last', () => {
	const file = report(INTERFACE);
	expect(secondsOfSpecs(file)).toEqual({ 'e2e/door.spec.ts': 4 });
	const tally = interfaceTally(file);
	const lines: string[] = [];
	vi.spyOn(console, 'log').mockImplementation((line: string) => void lines.push(line));
	expect(tell(tally)).toBe(1);
	const told = lines.join('\n');
	expect(told).toContain('failed: e2e/door.spec.ts › closes');
	expect(told).toContain('e2e/door.spec.ts:12:3');
	expect(told).toContain('Error: expected 3');
	expect(told).toContain('test-results/closes/failed.png');
	expect(told).toContain('show-trace test-results/closes/trace.zip');
	expect(told.split('\n').at(-1)).toBe('1 passed, 1 failed');
});
