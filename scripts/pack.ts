import { execFileSync } from 'node:child_process';
import { cpSync, existsSync, mkdtempSync, readFileSync, renameSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { create } from 'tar';
import { fail, readOptions } from './options';
import { PACKED } from './prepare.mjs';

const options = readOptions({ to: { type: 'string' } });
if (!options.to) fail('Name the file: ./otium pack --to otium.tar.gz');

/** What a machine needs that only serves. The commands read their sources, so these go along. */
const PARTS = ['otium', 'package.json', 'package-lock.json', 'build', 'scripts', 'src', 'stand-ins', 'tsconfig.json'];
const SAID = ['README.md', 'SECURITY.md', 'LICENSE', 'CHANGELOG.md', 'docs/sbom.cdx.json', '.svelte-kit/tsconfig.json'];

const to = resolve(options.to);
if (existsSync(to)) fail(`${options.to} is there already. Name another file, or move it away.`);
const { name, version } = JSON.parse(readFileSync('package.json', 'utf8')) as { name: string; version: string };
const staged = mkdtempSync(join(tmpdir(), 'otium-pack-'));
const root = `${name}-${version}`;
try {
	console.log('Packing: copying, and leaving out what only builds and tests.');
	for (const part of [...PARTS, ...SAID, 'node_modules'])
		cpSync(part, join(staged, root, part), { recursive: true, verbatimSymlinks: true });
	// The database driver was compiled here and goes along as it is.
	execFileSync('npm', ['prune', '--omit=dev', '--ignore-scripts', '--no-audit', '--no-fund', '--offline'], {
		cwd: join(staged, root),
		stdio: 'pipe'
	});
	writeFileSync(join(staged, root, 'node_modules/.otium', PACKED), process.version);
	await create({ gzip: true, cwd: staged, file: `${to}.part`, portable: true }, [root]);
	renameSync(`${to}.part`, to);
} finally {
	rmSync(`${to}.part`, { force: true });
	rmSync(staged, { recursive: true, force: true });
}
const of = `Node.js ${process.version.slice(1).split('.')[0]}, ${process.platform}, ${process.arch}`;
console.log(`${options.to}: unpack it on a machine with ${of}, and run ./otium start in it.`);
