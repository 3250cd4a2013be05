import type { FileHandle } from 'node:fs/promises';

/** Marks and lengths of APPNOTE 6.3.9: local header (4.3.7), data descriptor (4.3.9), central header (4.3.12), end (4.3.16). */
const LOCAL = { mark: 0x04034b50, length: 30 };
const DESCRIPTOR = { mark: 0x08074b50, length: 16 };
const CENTRAL = { mark: 0x02014b50, length: 46 };
export const END = { mark: 0x06054b50, length: 22 };
const SIZES_FOLLOW = 8;
/** A ZIP file with more, or larger, needs another layout, which no archive of ours has. */
const MOST = 0xffffffff;

type Entry = { name: string; flags: number; method: number; packed: number; unpacked: number; crc: number; at: number };

/**
 * Why a ZIP file is not laid out as an archive of ours is; null: it is. Each program reads such a file in its own way: from
 * the front, or by the list at its end. Here nothing is left that they could read differently: the list names each entry
 * once, in order, the entries lie one behind the other from the first byte to the list, and neither has anything beside it.
 * @param commentLength of the seal, which stands in the comment; a file without names has none
 */
export async function layoutFault(file: FileHandle, size: number, commentLength: number): Promise<string | null> {
	const read = async (at: number, length: number): Promise<Buffer | null> => {
		if (at < 0 || at + length > size) return null;
		const { buffer, bytesRead } = await file.read(Buffer.alloc(length), 0, length, at);
		return bytesRead === length ? buffer : null;
	};
	for (const comment of [commentLength, 0]) {
		const at = size - comment - END.length;
		const end = await read(at, END.length);
		if (end?.readUInt32LE(0) !== END.mark || end.readUInt16LE(20) !== comment) continue;
		return laidOut(read, at, end);
	}
	return 'The end of the archive is missing, or something was put behind it.';
}

async function laidOut(
	read: (at: number, length: number) => Promise<Buffer | null>,
	endAt: number,
	end: Buffer
): Promise<string | null> {
	const [count, length, from] = [end.readUInt16LE(10), end.readUInt32LE(12), end.readUInt32LE(16)];
	const isOne = end.readUInt16LE(4) === 0 && end.readUInt16LE(6) === 0 && end.readUInt16LE(8) === count;
	const list = isOne && from + length === endAt ? await read(from, length) : null;
	if (!list) return 'The list of its files does not lie where it should.';
	const entries = entriesOf(list, count);
	if (!entries) return 'The list of its files has something beside the names.';
	let at = 0;
	for (const entry of entries) {
		const next = entry.at === at ? await endOf(read, entry) : null;
		if (next === null) return `${entry.name} does not lie where the list says, or is called otherwise there.`;
		at = next;
	}
	return at === from ? null : 'Something lies between its files and their list.';
}

/** null: the list has extra fields, comments or bytes of its own. */
function entriesOf(list: Buffer, count: number): Entry[] | null {
	const entries: Entry[] = [];
	let at = 0;
	while (at < list.length) {
		if (list.length - at < CENTRAL.length || list.readUInt32LE(at) !== CENTRAL.mark) return null;
		const nameLength = list.readUInt16LE(at + 28);
		const beside = [30, 32, 34].some((offset) => list.readUInt16LE(at + offset) !== 0);
		const [packed, unpacked, start] = [20, 24, 42].map((offset) => list.readUInt32LE(at + offset));
		const to = at + CENTRAL.length + nameLength;
		if (beside || to > list.length || [packed, unpacked, start].includes(MOST)) return null;
		entries.push({
			name: list.toString('utf8', at + CENTRAL.length, to),
			flags: list.readUInt16LE(at + 8),
			method: list.readUInt16LE(at + 10),
			crc: list.readUInt32LE(at + 16),
			packed,
			unpacked,
			at: start
		});
		at = to;
	}
	return entries.length === count ? entries : null;
}

/** Where the entry ends; null: what stands before it says something else than the list. */
async function endOf(
	read: (at: number, length: number) => Promise<Buffer | null>,
	entry: Entry
): Promise<number | null> {
	const nameLength = Buffer.byteLength(entry.name);
	const head = await read(entry.at, LOCAL.length + nameLength);
	if (!head || head.readUInt32LE(0) !== LOCAL.mark) return null;
	const isSame =
		head.readUInt16LE(6) === entry.flags &&
		head.readUInt16LE(8) === entry.method &&
		head.readUInt16LE(26) === nameLength &&
		head.readUInt16LE(28) === 0 &&
		head.toString('utf8', LOCAL.length) === entry.name;
	if (!isSame) return null;
	const dataEnds = entry.at + LOCAL.length + nameLength + entry.packed;
	const sizes = [entry.crc, entry.packed, entry.unpacked];
	if ((entry.flags & SIZES_FOLLOW) === 0)
		return [14, 18, 22].every((offset, i) => head.readUInt32LE(offset) === sizes[i]) ? dataEnds : null;
	const descriptor = await read(dataEnds, DESCRIPTOR.length);
	if (descriptor?.readUInt32LE(0) !== DESCRIPTOR.mark) return null;
	return [4, 8, 12].every((offset, i) => descriptor.readUInt32LE(offset) === sizes[i])
		? dataEnds + DESCRIPTOR.length
		: null;
}
