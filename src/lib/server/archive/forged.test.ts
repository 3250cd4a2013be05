import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { open } from 'node:fs/promises';
import { unzipSync, zipSync } from 'fflate';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { ZipFile } from './zip-file';
import { layoutFault } from './zip-layout';

let dir: string;
let genuine: Buffer;
const COMMENT = 40;
const NAMES = ['results.csv', 'papers/numbers.json', 'añb.txt'];
beforeAll(async () => {
	dir = mkdtempSync(join(tmpdir(), 'otium-forged-'));
	const zip = await ZipFile.create(join(dir, 'genuine.zip'));
	for (const name of NAMES) await zip.add(name, [`${name} `.repeat(300)]);
	await zip.end(COMMENT, async () => 's'.repeat(COMMENT));
	genuine = readFileSync(join(dir, 'genuine.zip'));
});
afterAll(() => rmSync(dir, { recursive: true }));

/** What is wrong with these bytes as an archive. */
async function faultOf(bytes: Uint8Array): Promise<string | null> {
	const path = join(dir, 'tried.zip');
	writeFileSync(path, bytes);
	const file = await open(path);
	try {
		return await layoutFault(file, bytes.length, COMMENT);
	} finally {
		await file.close();
	}
}
/** Where the list begins, and where its end stands. */
const ends = (bytes: Buffer) => {
	const end = bytes.length - COMMENT - 22;
	return { end, list: bytes.readUInt32LE(end + 16) };
};

describe('an archive', () => {
	it('as the house writes it has nothing beside its files, with and without a seal', async () => {
		expect(await faultOf(genuine)).toBeNull();
		const bare = Buffer.from(genuine.subarray(0, -COMMENT));
		bare.writeUInt16LE(0, bare.length - 2);
		expect(await faultOf(bare)).toBeNull();
		expect(Object.keys(unzipSync(genuine))).toEqual(NAMES);
	});

	it('is refused where another file hides in what readers from the front pass over', async () => {
		// The forged file lies in the extra field of the genuine one’s local header, and the list names that one.
		const forged = Buffer.from(zipSync({ 'results.csv': Buffer.from('FORGED') }, { level: 0 }));
		const entry = forged.subarray(0, forged.readUInt32LE(forged.length - 22 + 16));
		const nameLength = Buffer.byteLength(NAMES[0]);
		const head = Buffer.from(genuine.subarray(0, 30 + nameLength));
		head.writeUInt16LE(entry.length, 28);
		const { end, list } = ends(genuine);
		const rest = Buffer.from(genuine.subarray(30 + nameLength));
		const all = Buffer.concat([head, entry, rest]);
		const shift = entry.length;
		all.writeUInt32LE(list + shift, end + shift + 16);
		let at = list + shift;
		for (const [i, name] of NAMES.entries()) {
			all.writeUInt32LE(i === 0 ? head.length : all.readUInt32LE(at + 42) + shift, at + 42);
			if (i === 0)
				for (const [to, from] of [
					[8, 6],
					[10, 8]
				])
					all.writeUInt16LE(entry.readUInt16LE(from), at + to);
			if (i === 0)
				for (const [to, from] of [
					[16, 14],
					[20, 18],
					[24, 22]
				])
					all.writeUInt32LE(entry.readUInt32LE(from), at + to);
			at += 46 + Buffer.byteLength(name);
		}
		// As a program reads it that goes by the list: what was forged.
		expect(Buffer.from(unzipSync(all)['results.csv']).toString()).toBe('FORGED');
		expect(await faultOf(all)).toContain('results.csv does not lie where the list says');
	});

	it('is refused with bytes before, between or behind, a second list, another name, an extra field or a comment', async () => {
		const { end, list } = ends(genuine);
		const put = (at: number, bytes: Uint8Array) =>
			Buffer.concat([genuine.subarray(0, at), bytes, genuine.subarray(at)]);
		const gap = put(list, Buffer.from('between'));
		gap.writeUInt32LE(list + 7, end + 7 + 16);
		const changed = (change: (bytes: Buffer) => void) => {
			const copy = Buffer.from(genuine);
			change(copy);
			return copy;
		};
		for (const bytes of [
			put(0, Buffer.from('before')),
			gap,
			put(genuine.length, Buffer.from('behind')),
			Buffer.concat([genuine, genuine]),
			Buffer.concat([genuine.subarray(0, -COMMENT), zipSync({ 'x.csv': Buffer.from('x') })]),
			changed((copy) => copy.write('R', 30)),
			changed((copy) => copy.write('R', list + 46)),
			changed((copy) => copy.writeUInt16LE(1, list + 30)),
			changed((copy) => copy.writeUInt16LE(1, list + 32)),
			changed((copy) => copy.writeUInt32LE(copy.readUInt32LE(list + 20) - 1, list + 20)),
			changed((copy) => copy.writeUInt16LE(2, end + 10)),
			genuine.subarray(0, -1),
			Buffer.alloc(0),
			Buffer.alloc(500)
		])
			expect(await faultOf(bytes)).not.toBeNull();
	});

	it('is refused wherever one of its marks, names or sizes is another', async () => {
		const { list } = ends(genuine);
		const headers = [...Array(30 + 11).keys(), ...Array(46 + 11).keys()].map((i, nth) => (nth < 41 ? i : list + i));
		// Versions, dates, attributes: they say nothing about what lies in it.
		const idle = new Set([4, 5, 10, 11, 12, 13, ...Array.from({ length: 12 }, (_, i) => 14 + i)]);
		for (const at of [4, 5, 6, 7, 12, 13, 14, 15, 36, 37, 38, 39, 40, 41]) idle.add(list + at);
		for (const at of headers.filter((at) => !idle.has(at))) {
			const copy = Buffer.from(genuine);
			copy[at] ^= 1;
			expect(await faultOf(copy), `byte ${at}`).not.toBeNull();
		}
	});
});
