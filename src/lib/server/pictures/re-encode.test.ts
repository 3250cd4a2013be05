import { crc32, deflateSync } from 'node:zlib';
import fc from 'fast-check';
import sharp from 'sharp';
import { afterAll, describe, expect, it } from 'vitest';
import { Threads } from '../thread';
import { imageType } from './image-type';
import { drawForPaper, reEncode } from './re-encode';

const threads = new Threads();
const here = { threads };
afterAll(() => threads.close());

const SIZE = { widest: 100, quality: 60 };
const drawn = (width: number, height: number) =>
	sharp({ create: { width, height, channels: 3, background: '#1f5e57' } });

/** A PNG (ISO/IEC 15948) of one colour that claims this size, in a few kilobytes. */
function bomb(width: number, height: number): Uint8Array {
	const chunk = (type: string, data: Buffer) => {
		const body = Buffer.concat([Buffer.from(type), data]);
		const [length, sum] = [Buffer.alloc(4), Buffer.alloc(4)];
		length.writeUInt32BE(data.length);
		sum.writeUInt32BE(crc32(body));
		return Buffer.concat([length, body, sum]);
	};
	const head = Buffer.alloc(13);
	head.writeUInt32BE(width, 0);
	head.writeUInt32BE(height, 4);
	head[8] = 1; // one bit for each pixel, grey
	const row = Buffer.alloc(1 + Math.ceil(width / 8));
	const rows = deflateSync(Buffer.concat(Array.from({ length: Math.min(height, 2_000) }, () => row)), { level: 9 });
	const start = Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]);
	return Buffer.concat([start, chunk('IHDR', head), chunk('IDAT', rows), chunk('IEND', Buffer.alloc(0))]);
}

describe('a picture from outside', () => {
	it('leaves behind what was hidden in it, and where and with what it was taken', async () => {
		const told = await drawn(60, 40)
			.withExif({ IFD0: { Make: 'Quayside Optics' }, IFD3: { GPSLatitudeRef: 'N', GPSLatitude: '50/1 22/1 0/1' } })
			.jpeg()
			.toBuffer();
		const sent = Buffer.concat([told, Buffer.from('<script>alert(1)</script>')]);
		expect((await sharp(sent).metadata()).exif).toBeDefined();
		const kept = Buffer.from((await reEncode(here, sent, SIZE))!);
		expect((await sharp(kept).metadata()).exif).toBeUndefined();
		expect(kept.includes('Quayside Optics')).toBe(false);
		expect(kept.includes('<script>')).toBe(false);
	});

	it('is turned as the camera was held, made no larger than is needed, and has no hole', async () => {
		const lying = await drawn(400, 200).withMetadata({ orientation: 6 }).jpeg().toBuffer();
		expect(await sharp((await reEncode(here, lying, SIZE))!).metadata()).toMatchObject({ width: 50, height: 100 });
		const clear = { r: 0, g: 0, b: 0, alpha: 0 };
		const hollow = await sharp({ create: { width: 10, height: 10, channels: 4, background: clear } })
			.png()
			.toBuffer();
		const kept = await reEncode(here, hollow, SIZE);
		expect(imageType(kept!)).toBe('image/jpeg');
		expect((await sharp(kept!).raw().toBuffer())[0]).toBeGreaterThan(250);
	});

	it('that would unfold to thousands of millions of pixels is refused at once', async () => {
		const sent = bomb(60_000, 60_000);
		expect(sent.length).toBeLessThan(40_000);
		const began = performance.now();
		expect(await reEncode(here, sent, SIZE)).toBeNull();
		expect(performance.now() - began).toBeLessThan(20_000);
	});

	it.each([
		['SVG', async () => Buffer.from('<svg xmlns="http://www.w3.org/2000/svg" width="9" height="9"/>')],
		['WebP', () => drawn(9, 9).webp().toBuffer()],
		['GIF', () => drawn(9, 9).gif().toBuffer()],
		['nothing', async () => Buffer.alloc(0)]
	])('of another kind is refused: %s', async (_, made) => expect(await reEncode(here, await made(), SIZE)).toBeNull());

	it('that is damaged is refused or drawn, and never stops the house', async () => {
		const whole = await drawn(60, 40).jpeg().toBuffer();
		await fc.assert(
			fc.asyncProperty(
				fc.array(fc.tuple(fc.nat(whole.length - 1), fc.nat(255)), { minLength: 1, maxLength: 40 }),
				fc.nat(whole.length),
				async (damage, length) => {
					const sent = Buffer.from(whole.subarray(0, length));
					for (const [at, byte] of damage) if (at < length) sent[at] = byte;
					const kept = await reEncode(here, sent, SIZE);
					expect(kept === null || imageType(kept) === 'image/jpeg').toBe(true);
				}
			)
		);
	});
});

describe('a drawing that costs too much', () => {
	/** As the simplest filter of SVG 1.1, 15.1, over and over. */
	const filters = (count: number) =>
		Buffer.from(
			`<svg xmlns="http://www.w3.org/2000/svg" width="2000" height="2000"><filter id="a">${'<feTurbulence baseFrequency=".9" numOctaves="9"/>'.repeat(count)}</filter><rect width="2000" height="2000" filter="url(#a)"/></svg>`
		);

	it('is ended at its deadline, and neither photos nor what this process checks wait for it', async () => {
		const dear = Promise.all([1, 2].map(() => drawForPaper(here, filters(20))));
		let isOver = false;
		void dear.then(() => (isOver = true));
		const photo = await drawn(400, 200).jpeg().toBuffer();
		for (let i = 0; i < 5; i++) {
			expect(await reEncode(here, photo, SIZE)).not.toBeNull();
			// A signature is checked in the threads that drawings once took.
			await crypto.subtle.digest('SHA-256', new Uint8Array(64));
		}
		expect(isOver).toBe(false);
		expect(await dear).toEqual([null, null]);
		// A drawing that costs little is drawn after it.
		const plain = '<svg xmlns="http://www.w3.org/2000/svg" width="9" height="9"><rect width="9" height="9"/></svg>';
		expect(await drawForPaper(here, Buffer.from(plain))).not.toBeNull();
	});

	it('is refused in words when too many wait already', async () => {
		const all = await Promise.allSettled(Array.from({ length: 12 }, () => drawForPaper(here, Buffer.from('x'))));
		const refused = all.filter((one) => one.status === 'rejected').map(({ reason }) => reason.problem.code);
		expect(refused).toEqual(Array(4).fill('slow_down'));
	});
});
