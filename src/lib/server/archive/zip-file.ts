import { createHash } from 'node:crypto';
import { open, type FileHandle } from 'node:fs/promises';
import { Zip, ZipDeflate } from 'fflate';
import type { ArchivedFile } from '$core/archive';

/** Text is collected up to so many characters before it is packed. */
const AT_ONCE = 256 * 1024;

/**
 * A ZIP file that is written piece by piece, so that it may be larger than memory. Whoever writes awaits each piece: a
 * disk that is full fails at once, and with its own error.
 */
export class ZipFile {
	readonly files: ArchivedFile[] = [];
	bytes = 0;
	#hash = createHash('sha256');
	#chunks: Uint8Array[] = [];
	#zip: Zip;

	private constructor(private readonly file: FileHandle) {
		this.#zip = new Zip((error, chunk) => {
			if (error) throw error;
			this.#chunks.push(chunk);
		});
	}

	static async create(path: string): Promise<ZipFile> {
		return new ZipFile(await open(path, 'w', 0o600));
	}

	/** Writes one file of it. @param lines how many, where it has lines */
	async add(
		name: string,
		pieces: AsyncIterable<string | Uint8Array> | Iterable<string | Uint8Array>
	): Promise<ArchivedFile> {
		const entry = new ZipDeflate(name, { level: 3 });
		this.#zip.add(entry);
		const hash = createHash('sha256');
		let [bytes, lines, text] = [0, 0, ''];
		const push = async (piece: Uint8Array, isLast: boolean) => {
			hash.update(piece);
			bytes += piece.length;
			entry.push(piece, isLast);
			await this.#flush();
		};
		for await (const piece of pieces) {
			if (typeof piece !== 'string') {
				await push(piece, false);
				continue;
			}
			lines++;
			text += `${piece}\n`;
			if (text.length < AT_ONCE) continue;
			await push(Buffer.from(text), false);
			text = '';
		}
		await push(Buffer.from(text), true);
		const file = { name, sha256: hash.digest('hex'), bytes, lines: lines > 0 ? lines : null };
		this.files.push(file);
		return file;
	}

	async #flush() {
		for (const chunk of this.#chunks.splice(0)) {
			this.#hash.update(chunk);
			this.bytes += chunk.length;
			await this.file.write(chunk);
		}
	}

	/**
	 * Ends it, on the disk, with a comment that seals all bytes before it: ZIP allows one at its end.
	 * @param seal given the SHA-256 of those bytes, in hex
	 * @returns the SHA-256 of the whole file, in hex
	 */
	async end(commentLength: number, seal: (sha256: string) => Promise<string>): Promise<string> {
		this.#zip.end();
		const last = this.#chunks.at(-1)!;
		new DataView(last.buffer, last.byteOffset).setUint16(last.length - 2, commentLength, true);
		await this.#flush();
		const comment = Buffer.from(await seal(this.#hash.copy().digest('hex')));
		if (comment.length !== commentLength)
			throw new Error(`The seal has ${comment.length} bytes, not ${commentLength}.`);
		this.#chunks.push(comment);
		await this.#flush();
		await this.file.sync();
		await this.file.close();
		return this.#hash.digest('hex');
	}

	async abandon() {
		this.#zip.terminate();
		await this.file.close().catch(() => {});
	}
}
