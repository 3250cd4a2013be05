import { createHash } from 'node:crypto';
import { open } from 'node:fs/promises';
import { Unzip, UnzipInflate } from 'fflate';
import { faultsOf, MANIFEST, PEOPLE, SIGNATURE, type ArchiveVerdict, type Manifest } from '$core/archive';
import { ResultCheck } from './result-check';
import { isSealOf, readKey, sealLength } from './seal';
import { END, layoutFault } from './zip-layout';

/** So much is read at once. */
const AT_ONCE = 1024 * 1024;

/**
 * Proves an archive without the server that wrote it: that it is whole, that every file is the one that was sealed, and
 * that each result follows from its paper, answers and corrections.
 * @param onRead told how many bytes were read
 */
export async function verifyArchive(path: string, onRead: (bytes: number) => void = () => {}): Promise<ArchiveVerdict> {
	const file = await open(path, 'r');
	try {
		const { size } = await file.stat();
		const fault = await layoutFault(file, size, sealLength('archive'));
		const entries = new Entries();
		const hash = createHash('sha256');
		const sealed = size - sealLength('archive');
		const tail: Buffer[] = [];
		const buffer = Buffer.alloc(AT_ONCE);
		for (let at = 0; at < size;) {
			const { bytesRead } = await file.read(buffer, 0, AT_ONCE, at);
			if (bytesRead === 0) break;
			const chunk = Buffer.from(buffer.subarray(0, bytesRead));
			if (at < sealed) hash.update(chunk.subarray(0, Math.min(bytesRead, sealed - at)));
			if (at + bytesRead > sealed - END.length) tail.push(chunk.subarray(Math.max(0, sealed - END.length - at)));
			at += bytesRead;
			entries.push(chunk, at >= size);
			onRead(at);
		}
		entries.broken ??= fault;
		return verdictOf(entries, size, hash.digest('hex'), Buffer.concat(tail));
	} finally {
		await file.close();
	}
}

function verdictOf(entries: Entries, bytes: number, sha256: string, tail: Buffer): ArchiveVerdict {
	const text = entries.texts.get(MANIFEST);
	const nothing = { manifest: null, bytes, isWithoutNames: false, remarked: 0 };
	const manifest = text === undefined ? null : readManifest(text);
	const key = manifest && readKey(manifest.key);
	if (entries.broken !== null || !manifest || !key)
		return { ...nothing, faults: [entries.broken ?? 'This is no archive of Otium, or its end is missing.'] };
	const faults = [...faultsOf(manifest, entries.found), ...entries.results.faults(manifest.marking === undefined)];
	const digest = createHash('sha256').update(text!).digest('hex');
	if (!isSealOf(key, 'manifest', digest, entries.texts.get(SIGNATURE) ?? ''))
		faults.unshift(`${MANIFEST} was changed after it was sealed.`);
	const isWithoutNames = !entries.found.has(PEOPLE);
	const isEnd = tail.length > END.length && tail.readUInt32LE(0) === END.mark;
	const isWhole = isEnd && isSealOf(key, 'archive', sha256, tail.subarray(END.length).toString('latin1'));
	// Without its names it is another file, of which each part is proven by the manifest.
	if (!isWhole && !isWithoutNames && faults.length === 0)
		faults.push('The file is not the one that was sealed, byte by byte.');
	return { manifest, bytes, isWithoutNames, remarked: entries.results.checked, faults };
}

function readManifest(text: string): Manifest | null {
	try {
		const read = JSON.parse(text) as Manifest;
		return read.format === 'otium archive' && Array.isArray(read.files) ? read : null;
	} catch {
		return null;
	}
}

/** What lies in an archive: of each file its hash; the texts of a few; results are worked out again as they come. */
class Entries {
	readonly found = new Map<string, { sha256: string; bytes: number }>();
	readonly texts = new Map<string, string>();
	readonly results = new ResultCheck();
	broken: string | null = null;
	#unzip: Unzip;

	constructor() {
		this.#unzip = new Unzip((entry) => this.#read(entry));
		this.#unzip.register(UnzipInflate);
	}

	#read(entry: Parameters<NonNullable<Unzip['onfile']>>[0]) {
		const { name } = entry;
		const hash = createHash('sha256');
		const keeps = name === MANIFEST || name === SIGNATURE;
		const texts: Buffer[] = [];
		let bytes = 0;
		if (this.found.has(name)) this.broken ??= `${name} is there twice.`;
		entry.ondata = (error, chunk, isLast) => {
			if (error) {
				this.broken ??= `${name} can’t be unpacked: the archive was damaged or changed there.`;
				return;
			}
			hash.update(chunk);
			bytes += chunk.length;
			if (keeps) texts.push(Buffer.from(chunk));
			else this.results.read(name, chunk, isLast);
			if (!isLast) return;
			this.found.set(name, { sha256: hash.digest('hex'), bytes });
			if (keeps) this.texts.set(name, Buffer.concat(texts).toString('utf8'));
		};
		entry.start();
	}

	push(chunk: Uint8Array, isLast: boolean) {
		if (this.broken !== null) return;
		try {
			this.#unzip.push(chunk, isLast);
		} catch {
			this.broken = 'The archive can’t be unpacked: it was damaged, changed or cut off.';
		}
	}
}
