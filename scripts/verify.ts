import { existsSync, readFileSync, statSync } from 'node:fs';
import { keyPrint, verifyArchive, withoutNames } from '$lib/server/archive';
import { fail, readOptions } from './options';

const [file, ...rest] = process.argv.slice(2);
if (!file || file.startsWith('--')) fail('Name the file: ./otium verify ARCHIVE.zip');
process.argv.splice(2, process.argv.length, ...rest);
const options = readOptions({ 'without-names': { type: 'string' }, key: { type: 'string' } });
if (!existsSync(file)) fail(`There is no file ${file}.`);

const { size } = statSync(file);
const began = Date.now();
let shown = 0;
const verdict = await verifyArchive(file, (bytes) => {
	if (!process.stdout.isTTY || Date.now() - shown < 500) return;
	shown = Date.now();
	process.stdout.write(`\r${Math.round((bytes / size) * 100)} %`);
});
if (process.stdout.isTTY) process.stdout.write('\r');
const { manifest, faults, isWithoutNames, remarked } = verdict;
if (!manifest || faults.length > 0) {
	console.log(`${file} is not what was sealed:`);
	for (const fault of faults.slice(0, 20)) console.log(`  ${fault}`);
	process.exit(1);
}
const print = keyPrint(manifest.key);
const wanted =
	options.key === undefined
		? null
		: existsSync(options.key)
			? keyPrint(readFileSync(options.key, 'utf8'))
			: options.key.toLowerCase();
if (wanted !== null && !/^[0-9a-f]{16,64}$/.test(wanted))
	fail(
		'--key takes a file with the house’s public key, or at least 16 digits of its print as the page Archive shows it.'
	);
if (wanted !== null && !print.startsWith(wanted)) {
	console.log(`${file} was sealed with another key: ${print}.`);
	process.exit(1);
}
const seconds = Math.max(0.1, (Date.now() - began) / 1000);
console.log(`${manifest.administration.name}, closed ${manifest.closedAt} by ${manifest.closedBy}${manifest.second ? ` and ${manifest.second}` : ''}.
${manifest.files.length} files are as they were sealed; ${remarked} results follow from their answers.
${isWithoutNames ? 'Names have been taken out of it; all else is proven.' : 'The file is the one that was sealed, byte by byte.'}
Log: ${manifest.counts.entries} entries of this administration; its head was entry ${manifest.head.entries}, ${manifest.head.hash}.
Signed with the key ${print.slice(0, 32)}…${wanted === null ? ': compare it with the one that the house’s page Archive shows, or name that one with --key. Anybody can seal a file with a key of their own.' : ', the one that was named.'}
${(size / 1_000_000).toFixed(1)} MB in ${seconds.toFixed(1)} s.`);

const copy = options['without-names'];
if (copy) {
	if (existsSync(copy)) fail(`${copy} is there already. Name another file.`);
	await withoutNames(file, copy);
	console.log(`${copy}: the same without the file that names people. Texts that people wrote are as they were.`);
}
