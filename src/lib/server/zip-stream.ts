import { Zip, ZipDeflate, ZipPassThrough } from 'fflate';
import { giveWay } from './event-loop';

/** `isPacked`: what it holds is compressed already. */
export type ZipEntry = { path: string; bytes: Uint8Array; isPacked?: boolean };

/**
 * A ZIP file while it is written: one file after the other is read and packed, giving way in between, so that a large one fits
 * into a small machine and keeps nobody waiting.
 */
export function zipStream(entries: AsyncGenerator<ZipEntry>): ReadableStream<Uint8Array> {
	let zip: Zip;
	return new ReadableStream<Uint8Array>({
		start(controller) {
			zip = new Zip((error, chunk, isLast) => {
				if (error) return controller.error(error);
				controller.enqueue(chunk);
				if (isLast) controller.close();
			});
		},
		async pull() {
			await giveWay();
			const next = await entries.next();
			if (next.done) return zip.end();
			const { path, bytes, isPacked } = next.value;
			const file = isPacked ? new ZipPassThrough(path) : new ZipDeflate(path);
			zip.add(file);
			file.push(bytes, true);
		},
		cancel: () => zip.terminate()
	});
}
