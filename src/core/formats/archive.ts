import { Unzip, UnzipInflate } from 'fflate';

/** What an archive may hold. A roster of 10,000 people is some 3 MB. */
export const ARCHIVE_LIMITS = { files: 2_000, bytes: 64 * 1024 * 1024, ratio: 200 };
/** So many bytes are unpacked at a time: at the most a thousandfold comes out of them before it is counted. */
const PIECE = 8 * 1024;

export type ReadArchive = { ok: true; files: Map<string, Uint8Array> } | { ok: false; message: string };

const DAMAGED = {
	ok: false,
	message: 'This zip can’t be opened; it may be damaged or cut off. Make it again and send it.'
} as const;

/**
 * Unpacks a zip piece by piece and counts what comes out, whatever its listing promises: a few kilobytes can unpack to
 * gigabytes. Folders are dropped from names, so no entry can point outside.
 * @param keepsFolders names keep their folders, `items/one.xml`; an archive with an entry that points outside is refused
 */
export function readArchive(bytes: Uint8Array, limits = ARCHIVE_LIMITS, keepsFolders = false): ReadArchive {
	const files = new Map<string, Uint8Array>();
	const most = Math.min(limits.bytes, Math.max(1024 * 1024, bytes.length * limits.ratio));
	let [count, total, open] = [0, 0, 0];
	let excess: string | null = null;
	let isDamaged = false;

	const unzip = new Unzip((file) => {
		if (file.name.endsWith('/') || excess !== null) return;
		if (++count > limits.files) {
			excess = `it holds more than ${limits.files} files`;
			return;
		}
		const path = file.name.split(/[\\/]/);
		if (keepsFolders && (path.includes('..') || path[0] === '' || /^[A-Za-z]:$/.test(path[0]))) {
			excess = `the name “${file.name.slice(0, 60)}” points outside it`;
			return;
		}
		const pieces: Uint8Array[] = [];
		open++;
		file.ondata = (error, piece, isLast) => {
			if (error) isDamaged = true;
			if (error || excess !== null) return;
			total += piece.length;
			if (total > most) {
				excess =
					most === limits.bytes
						? `it unpacks to more than ${Math.floor(limits.bytes / 1024 / 1024)} MB`
						: `${file.name} unpacks to more than ${limits.ratio} times the size of the archive`;
				return;
			}
			pieces.push(piece);
			if (!isLast) return;
			open--;
			files.set(keepsFolders ? path.filter((part) => part !== '.').join('/') : path.at(-1)!, joined(pieces));
		};
		file.start();
	});
	unzip.register(UnzipInflate);
	try {
		for (let at = 0; at < bytes.length && excess === null && !isDamaged; at += PIECE)
			unzip.push(bytes.subarray(at, at + PIECE), at + PIECE >= bytes.length);
	} catch {
		isDamaged = true;
	}
	if (excess !== null)
		return { ok: false, message: `This archive is not opened: ${excess}. Send the files themselves.` };
	return isDamaged || open > 0 || !hasEnd(bytes) ? DAMAGED : { ok: true, files };
}

function joined(pieces: Uint8Array[]): Uint8Array {
	const whole = new Uint8Array(pieces.reduce((sum, piece) => sum + piece.length, 0));
	let at = 0;
	for (const piece of pieces) {
		whole.set(piece, at);
		at += piece.length;
	}
	return whole;
}

/** Whether the record that ends every archive is there, with a comment of at most 64 kB behind it (APPNOTE, 4.3.16). */
function hasEnd(bytes: Uint8Array): boolean {
	for (let at = bytes.length - 22; at >= Math.max(0, bytes.length - 22 - 0xffff); at--)
		if (bytes[at] === 0x50 && bytes[at + 1] === 0x4b && bytes[at + 2] === 5 && bytes[at + 3] === 6) return true;
	return false;
}

/** Whether bytes begin as a zip does. */
export function isArchive(bytes: Uint8Array): boolean {
	return bytes[0] === 0x50 && bytes[1] === 0x4b && (bytes[2] === 3 || bytes[2] === 5);
}
