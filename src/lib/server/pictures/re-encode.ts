import sharp from 'sharp';

/** How large a picture may become, and how good it is. */
type Wanted = { widest: number; quality: number };

/** A camera's picture has 12 million; a file that unfolds to far more is a bomb. */
const MOST_PIXELS = 40_000_000;
const SECONDS = 5;
/** More than so many at once are refused rather than kept waiting. */
const MOST_AT_ONCE = 16;

// One thread each: pictures must not take the processor from saves.
sharp.concurrency(1);
sharp.cache(false);

/**
 * Draws a picture from outside afresh, as a JPEG: what was hidden in the file, or tells where and with what it was
 * taken, stays behind, and whatever is no JPEG or PNG becomes none.
 * @returns null: it is not such a picture, is damaged, has too many pixels, or took too long
 */
export async function reEncode(bytes: Uint8Array, { widest, quality }: Wanted): Promise<Uint8Array | null> {
	const { process, queue } = sharp.counters();
	if (process + queue >= MOST_AT_ONCE) return null;
	try {
		const picture = sharp(bytes, { limitInputPixels: MOST_PIXELS, failOn: 'error', sequentialRead: true });
		const { format } = await picture.metadata();
		if (format !== 'jpeg' && format !== 'png') return null;
		return await picture
			.timeout({ seconds: SECONDS })
			.autoOrient()
			.resize({ width: widest, height: widest, fit: 'inside', withoutEnlargement: true })
			.flatten({ background: '#ffffff' })
			.jpeg({ quality })
			.toBuffer();
	} catch {
		return null;
	}
}
