import { open } from 'node:fs/promises';
import { Unzip, UnzipInflate, Zip, ZipDeflate } from 'fflate';
import { PEOPLE } from '$core/archive';

const AT_ONCE = 1024 * 1024;

/**
 * Copies an archive without the file in which people are named. Its manifest still proves every other file; only that the
 * file is the one which was sealed, byte by byte, can't be proven any more. Texts that people wrote stay as they are.
 */
export async function withoutNames(from: string, to: string): Promise<void> {
	const [source, target] = [await open(from, 'r'), await open(to, 'wx', 0o600)];
	const chunks: Uint8Array[] = [];
	try {
		const zip = new Zip((error, chunk) => {
			if (error) throw error;
			chunks.push(chunk);
		});
		const unzip = new Unzip((entry) => {
			if (entry.name === PEOPLE) return;
			const copy = new ZipDeflate(entry.name, { level: 6 });
			zip.add(copy);
			entry.ondata = (error, chunk, isLast) => {
				if (error) throw error;
				copy.push(chunk, isLast);
			};
			entry.start();
		});
		unzip.register(UnzipInflate);
		const { size } = await source.stat();
		const buffer = Buffer.alloc(AT_ONCE);
		for (let at = 0; at < size;) {
			const { bytesRead } = await source.read(buffer, 0, AT_ONCE, at);
			at += bytesRead;
			unzip.push(Buffer.from(buffer.subarray(0, bytesRead)), at >= size);
			for (const chunk of chunks.splice(0)) await target.write(chunk);
		}
		zip.end();
		for (const chunk of chunks.splice(0)) await target.write(chunk);
		await target.sync();
	} finally {
		await source.close();
		await target.close();
	}
}
