// Gets a fresh machine ready: packages, the build, the browser that tests drive. Each step is skipped when it is done.
import { execFileSync, spawn } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readdirSync, readFileSync, renameSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { BUNDLED } from './bundle-options.mjs';

const STAMPS = 'node_modules/.otium';
/** Names the version of Node whose packages lie beside it. */
export const PACKED = 'packed';

/** @param {string} command @param {string[]} args @param {string} waiting what to say while it takes long */
function run(command, args, waiting) {
	return new Promise((resolve, reject) => {
		const started = Date.now();
		const child = spawn(command, args, { stdio: ['ignore', 'pipe', 'pipe'] });
		let output = '';
		child.stdout.on('data', (data) => (output += data));
		child.stderr.on('data', (data) => (output += data));
		const ticker = setInterval(
			() => console.log(`  ${waiting} (${Math.round((Date.now() - started) / 1000)} s)`),
			20_000
		);
		child.on('error', reject);
		child.on('exit', (code) => {
			clearInterval(ticker);
			if (code === 0) return resolve(undefined);
			console.error(output.slice(-4_000));
			reject(new Error(`${command} ${args.join(' ')} failed`));
		});
	});
}

/**
 * The same for what nothing can do without: ends with this sentence when it fails.
 * @param {string} command @param {string[]} args @param {string} waiting @param {string} failed
 */
async function mustRun(command, args, waiting, failed) {
	try {
		await run(command, args, waiting);
	} catch {
		console.error(`\n${failed}`);
		process.exit(1);
	}
}

/** @param {string} name */
const stamp = (name) => (existsSync(join(STAMPS, name)) ? readFileSync(join(STAMPS, name), 'utf8') : '');
/** @param {string} name @param {string} value */
function setStamp(name, value) {
	mkdirSync(STAMPS, { recursive: true });
	writeFileSync(join(STAMPS, name), value);
}

/** What is installed for these packages by this Node. */
const wantedPackages = () =>
	createHash('sha256').update(readFileSync('package-lock.json')).update(process.version).digest('hex');

/** Installs the packages that the lock file names; what has to be compiled is left to `compile`. */
export async function install() {
	if (isPacked()) return;
	const wanted = wantedPackages();
	if (stamp('installed') === wanted) return;
	console.log('Installing packages.');
	await mustRun(
		'npm',
		['ci', '--ignore-scripts', '--no-audit', '--no-fund'],
		'still installing',
		'The packages could not be installed. This needs the package registry.'
	);
	execFileSync('npx', ['svelte-kit', 'sync'], { stdio: 'ignore' });
	setStamp('installed', wanted);
}

/** Compiles the database driver for this machine: nothing of ours runs without it, but much can be made ready meanwhile. */
export async function compile() {
	if (isPacked()) return;
	const wanted = wantedPackages();
	if (stamp('compiled') === wanted) return;
	console.log('Compiling the database driver for this machine: that takes two to three minutes, once.');
	await mustRun(
		'npm',
		['rebuild', 'better-sqlite3'],
		'the compiler is still at work',
		'The database driver could not be compiled. This needs python3, make and a C++ compiler.'
	);
	setStamp('compiled', wanted);
}

/** @param {string} path @returns {number} the newest change below it, ms */
function newest(path) {
	const stat = statSync(path);
	if (!stat.isDirectory()) return stat.mtimeMs;
	return Math.max(stat.mtimeMs, ...readdirSync(path).map((name) => newest(join(path, name))));
}

/** Whether this is a packed application (`./otium pack`): everything is here, for the version of Node it was packed by. */
function isPacked() {
	const [packed] = stamp(PACKED).split('.');
	if (!packed) return false;
	const [here] = process.version.split('.');
	if (packed === here) return true;
	console.error(`This was packed for Node.js ${packed.slice(1)}, and here is ${here.slice(1)}. Pack it with that one.`);
	process.exit(1);
}

/** Builds the application when anything it is made of has changed. */
export async function build() {
	if (isPacked()) return;
	const settings = [
		'svelte.config.js',
		'scripts/bundle-server.mjs',
		'scripts/bundle-options.mjs',
		'vite.config.ts',
		'tsconfig.json'
	];
	const sources = ['src', 'static', 'package-lock.json', ...settings];
	const wanted = String(Math.max(...sources.map(newest)));
	if (stamp('built') === wanted && existsSync('build/handler.js')) return;
	console.log('Building.');
	await mustRun('npx', ['vite', 'build'], 'still building', 'The build failed; see above.');
	setStamp('built', wanted);
}

const COMMANDS = join(STAMPS, 'commands');

/**
 * The file that a command is started from: all commands in one bundle for the sources as they are, made once. Without it
 * reading several hundred files takes longer each time than most commands do. null: it can't be written here.
 * @param {string} name
 */
export async function commandFile(name) {
	const wanted = Math.max(...['src', 'scripts', 'stand-ins', 'package-lock.json', 'tsconfig.json'].map(newest));
	const dir = join(COMMANDS, String(wanted));
	if (!existsSync(dir)) {
		const fresh = `${dir}.${process.pid}.part`;
		try {
			const { build } = await import('esbuild');
			await build({
				entryPoints: readdirSync('scripts')
					.filter((file) => /^[\w-]+\.ts$/.test(file))
					.map((file) => `scripts/${file}`),
				outdir: fresh,
				...BUNDLED,
				sourcemap: 'linked',
				logLevel: 'silent'
			});
			// What earlier sources made goes; a command that runs from it has read it already.
			for (const old of readdirSync(COMMANDS))
				if (!old.endsWith('.part')) rmSync(join(COMMANDS, old), { recursive: true });
			renameSync(fresh, dir);
		} catch {
			rmSync(fresh, { recursive: true, force: true });
			if (!existsSync(dir)) return null;
		}
	}
	return join(dir, `${name}.js`);
}

/** What the tests drive, and the package of Debian that has it: three engines (one of them also without a window), and a screen for the one that needs one. */
const BROWSERS = {
	'/usr/bin/chromium': 'chromium',
	'/usr/bin/chromium-headless-shell': 'chromium-headless-shell',
	'/usr/bin/firefox-esr': 'firefox-esr',
	'/usr/bin/WebKitWebDriver': 'webkit2gtk-driver',
	'/usr/bin/Xvfb': 'xvfb'
};

/** Debian's browsers, for the tests that drive a real one. */
export async function installBrowsers() {
	const missing = Object.entries(BROWSERS).filter(([file]) => !existsSync(file));
	if (missing.length === 0) return;
	console.log('Installing browsers for the interface tests.');
	const sudo = process.getuid?.() === 0 ? [] : ['sudo'];
	try {
		for (const args of [
			['apt-get', 'update'],
			['apt-get', 'install', '-y', '--no-install-recommends', ...missing.map(([, name]) => name)]
		]) {
			const [command, ...rest] = [...sudo, 'env', 'DEBIAN_FRONTEND=noninteractive', ...args];
			await run(command, rest, 'still installing browsers');
		}
	} catch {
		const files = missing.map(([file]) => file).join(', ');
		console.error(`The browsers could not be installed. On another system, put them at ${files} and try again.`);
		process.exit(1);
	}
}
