import { unzipSync } from 'fflate';

/** What an archive may hold. A roster of 10,000 people is some 3 MB. */
export const ARCHIVE_LIMITS = { files: 2_000, bytes: 64 * 1024 * 1024, ratio: 200 };

export type ReadArchive = { ok: true; files: Map<string, Uint8Array> } | { ok: false; message: string };

/**
 * Unpacks a zip whose listing promises to stay within limits, and refuses it before unpacking otherwise: a few kilobytes
 * can unpack to gigabytes. Folders are dropped from names, so no entry can point outside.
 */
export function readArchive(bytes: Uint8Array, limits = ARCHIVE_LIMITS): ReadArchive {
	let [count, total] = [0, 0];
	let excess: string | null = null;
	const mebibytes = Math.floor(limits.bytes / 1024 / 1024);
	try {
		const unpacked = unzipSync(bytes, {
			filter({ name, size, originalSize }) {
				if (name.endsWith('/') || excess) return false;
				count++;
				total += originalSize;
				if (count > limits.files) excess = `it holds more than ${limits.files} files`;
				else if (total > limits.bytes) excess = `it unpacks to more than ${mebibytes} MB`;
				else if (originalSize > 1024 * 1024 && originalSize > size * limits.ratio)
					excess = `${name} unpacks to ${Math.round(originalSize / Math.max(1, size))} times its size`;
				return excess === null;
			}
		});
		if (excess) return { ok: false, message: `This archive is not opened: ${excess}. Send the files themselves.` };
		const files = new Map<string, Uint8Array>();
		let unpackedBytes = 0;
		for (const [path, content] of Object.entries(unpacked)) {
			unpackedBytes += content.length;
			files.set(path.split(/[\\/]/).pop()!, content);
		}
		// The listing may lie about sizes.
		if (unpackedBytes > limits.bytes)
			return { ok: false, message: `This archive is not opened: it unpacks to more than ${mebibytes} MB.` };
		return { ok: true, files };
	} catch {
		return { ok: false, message: 'This zip can’t be opened; it may be damaged or cut off. Make it again and send it.' };
	}
}

/** Whether bytes begin as a zip does. */
export function isArchive(bytes: Uint8Array): boolean {
	return bytes[0] === 0x50 && bytes[1] === 0x4b && (bytes[2] === 3 || bytes[2] === 5);
}
