import { readFileSync } from 'node:fs';
import { expect, it } from 'vitest';
import { BESIDE, DATABASE } from './backup-file';

const SOURCES = import.meta.glob('../src/lib/server/**/*.ts');

it('a backup has every folder and file that the server writes into its data folder', () => {
	const written = Object.keys(SOURCES)
		.filter((file) => !file.includes('.test.'))
		.flatMap((file) => [
			...readFileSync(new URL(file, import.meta.url), 'utf8').matchAll(/join\((?:[\w.]+\.)?dataDir, '([\w.-]+)'/g)
		])
		.map(([, name]) => name);
	expect(written).toEqual(expect.arrayContaining(['photos', 'evidence', 'archives']));
	// The demo's own clock is no data of a house.
	const missing = written.filter((name) => ![...BESIDE, DATABASE, 'demo-clock.json'].includes(name));
	expect(missing).toEqual([]);
});
