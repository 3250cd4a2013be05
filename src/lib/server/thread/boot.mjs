// Starts a thread, or a process that is spoken to like one. The server is bundled into one program, so a thread's own part is made of the sources as they lie: in one
// piece, as Node would take seconds to resolve its hundreds of modules one by one.
import { mkdirSync, rmSync, writeFileSync } from 'node:fs';
import { constants, setPriority } from 'node:os';
import { basename, join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { threadId, workerData } from 'node:worker_threads';
import { buildSync } from 'esbuild';

const { entry, root } = workerData ?? JSON.parse(process.env.OTIUM_THREAD ?? '');
// Whoever waits for an answer to be saved goes first. Only on Linux is this the thread's own and not the whole server's.
if (process.platform === 'linux') setPriority(constants.priority.PRIORITY_BELOW_NORMAL);
// Nothing is left behind by a server that is gone.
if (workerData === null) process.on('disconnect', () => process.exit(0));
/** Below the packages, so that those are found from there. */
const FOLDER = join(root, 'node_modules/.otium/threads');

/** The part as one file; null: it can't be written here. */
function bundled() {
	const { outputFiles } = buildSync({
		entryPoints: [entry],
		bundle: true,
		packages: 'external',
		format: 'esm',
		platform: 'node',
		write: false,
		absWorkingDir: root,
		logLevel: 'silent'
	});
	const file = join(FOLDER, `${basename(entry, '.ts')}-${process.pid}-${threadId}.mjs`);
	try {
		mkdirSync(FOLDER, { recursive: true });
		writeFileSync(file, outputFiles[0].contents);
		return file;
	} catch {
		return null;
	}
}

const file = bundled();
if (file) {
	try {
		await import(pathToFileURL(file).href);
	} finally {
		rmSync(file, { force: true });
	}
} else {
	const { register } = await import('tsx/esm/api');
	register();
	await import(entry);
}
