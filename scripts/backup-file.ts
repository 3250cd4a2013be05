import { createReadStream, createWriteStream, existsSync, readFileSync } from 'node:fs';
import { copyFile, link, mkdir, open, readdir, rename, rm } from 'node:fs/promises';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import type { ReadableStream as NodeWebStream } from 'node:stream/web';
import { Decrypter, Encrypter } from 'age-encryption';
import { create, extract, type ReadEntry } from 'tar';
import { backupDb, KEY_FILE } from '$lib/server/db';
import { fail } from './options';

/** What a file begins with. */
const AGE = 'age-encryption.org/v1';
const SQLITE = 'SQLite format 3';
const GZIP = '\u001f\u008b';

export const DATABASE = 'otium.sqlite';
/** What lies beside the database and belongs to it. */
export const BESIDE = [
	'photos',
	'snapshots',
	'attachments',
	'media',
	'handed',
	'evidence',
	'archives',
	'outbox',
	'anchors.log'
];

const OURS = new Set([DATABASE, ...BESIDE, KEY_FILE]);

/** The words of a file that holds a passphrase, without the line's end; null: none is named. */
export function readPassphrase(file: string | undefined): string | null {
	if (file === undefined) return null;
	if (!existsSync(file)) fail(`There is no file ${file}. It holds the passphrase, on one line.`);
	const passphrase = readFileSync(file, 'utf8').trim();
	if (passphrase.length < 12) fail(`The passphrase in ${file} is shorter than 12 letters.`);
	return passphrase;
}

/**
 * Packs a data folder as one file: tar and gzip, and where a passphrase is named, age (age-encryption.org/v1) around
 * them. The database is as of one instant; a photo that comes meanwhile is in it or not.
 * @param withKey the house's key goes along
 */
export async function pack(data: string, to: string, passphrase: string | null, withKey: boolean): Promise<void> {
	const staged = `${to}.staged`;
	const part = `${to}.part`;
	await mkdir(staged, { recursive: true, mode: 0o700 });
	try {
		await backupDb(join(data, DATABASE), join(staged, DATABASE));
		const beside = (withKey ? [...BESIDE, KEY_FILE] : BESIDE).filter((name) => existsSync(join(data, name)));
		for (const name of beside) await gather(join(data, name), join(staged, name));
		const options = { gzip: true, cwd: staged, portable: true };
		const packed = Readable.from(create(options, [DATABASE, ...beside]));
		await pipeline(await encrypted(packed, passphrase), createWriteStream(part, { mode: 0o600 }));
		await rename(part, to);
	} finally {
		await rm(part, { force: true });
		await rm(staged, { recursive: true, force: true });
	}
}

/**
 * Puts what lies there by name at another place too, so that it stays there for as long as it is being packed: pictures are
 * deleted all the time. What has gone already is not there.
 */
async function gather(from: string, to: string): Promise<void> {
	const gone = (error: { code?: string }) => {
		if (error.code !== 'ENOENT') throw error;
	};
	const entries = await readdir(from, { withFileTypes: true }).catch((error) => {
		if (error.code === 'ENOTDIR') return null;
		gone(error);
		return [];
	});
	if (entries !== null) {
		await mkdir(to, { mode: 0o700 });
		for (const { name } of entries) await gather(join(from, name), join(to, name));
		return;
	}
	// Another disk takes no second name.
	await link(from, to).catch((error) => (error.code === 'ENOENT' ? undefined : copyFile(from, to).catch(gone)));
}

async function encrypted(plain: Readable, passphrase: string | null): Promise<Readable> {
	if (passphrase === null) return plain;
	const encrypter = new Encrypter();
	encrypter.setPassphrase(passphrase);
	return fromWeb(await encrypter.encrypt(toWeb(plain)));
}

async function decrypted(file: Readable, passphrase: string): Promise<Readable> {
	const decrypter = new Decrypter();
	decrypter.addPassphrase(passphrase);
	return fromWeb(await decrypter.decrypt(toWeb(file)));
}

/** The streams of the browser's standard, of which Node's types and the library's say the same in two ways. */
const toWeb = (stream: Readable) => Readable.toWeb(stream) as unknown as ReadableStream<Uint8Array>;
const fromWeb = (stream: unknown) => Readable.fromWeb(stream as NodeWebStream);

/** Unpacks a backup into a folder; what an older version copied is the database alone. */
export async function unpack(from: string, folder: string, passphrase: string | null): Promise<void> {
	const handle = await open(from);
	const { buffer } = await handle.read(Buffer.alloc(32), 0, 32, 0);
	await handle.close();
	const start = buffer.toString('latin1');
	await mkdir(folder, { recursive: true, mode: 0o700 });
	if (start.startsWith(SQLITE)) {
		await pipeline(createReadStream(from), createWriteStream(join(folder, DATABASE), { mode: 0o600 }));
		return;
	}
	const isEncrypted = start.startsWith(AGE);
	if (!isEncrypted && !start.startsWith(GZIP)) throw new Error('it is not an Otium backup');
	if (isEncrypted && passphrase === null)
		fail('This backup is encrypted. Name the file with its passphrase: --passphrase FILE');
	const file = createReadStream(from);
	const packed = isEncrypted ? await decrypted(file, passphrase!) : file;
	const strange: string[] = [];
	// Files and folders of ours, and nothing else: no link leads out of the folder, no device or foreign name comes in.
	const filter = (path: string, entry: object) => {
		const isOurs = OURS.has(path.split('/')[0]) && !path.split('/').includes('..');
		const isPlain = ['File', 'OldFile', 'Directory'].includes((entry as ReadEntry).type);
		if (!isOurs || !isPlain) strange.push(path);
		return isOurs && isPlain;
	};
	await pipeline(packed, extract({ cwd: folder, strict: true, filter }) as unknown as NodeJS.WritableStream);
	if (strange.length > 0) throw new Error(`${strange[0]} is nothing that a backup holds`);
	if (!(await readdir(folder)).includes(DATABASE)) throw new Error('there is no database in it');
}
