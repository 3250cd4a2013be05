import sharp, { type OutputInfo, type Sharp } from 'sharp';

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
 * taken, stays behind.
 * @param accepts formats; whatever is none of them becomes nothing
 * @returns null: it is not such a picture, is damaged, has too many pixels, or took too long
 */
export async function reEncode(
	bytes: Uint8Array,
	{ widest, quality }: Wanted,
	accepts = ['jpeg', 'png']
): Promise<Uint8Array | null> {
	const drawn = await redraw(bytes, accepts, widest, (picture) =>
		picture.flatten({ background: '#ffffff' }).jpeg({ quality })
	);
	return drawn && drawn.data;
}

/** So wide is a picture of a question at most, in pixels; a drawing without a size of its own becomes half as wide. */
const WIDEST = 2_000;

/**
 * Draws a picture of a question afresh, as WebP; drawings and screenshots without loss. An SVG becomes a picture here, so
 * that nothing in it ever runs or fetches in a browser.
 * @returns null: as above
 */
export async function drawForPaper(
	bytes: Uint8Array
): Promise<{ bytes: Uint8Array; width: number; height: number } | null> {
	const drawn = await redraw(bytes, ['jpeg', 'png', 'webp', 'svg'], WIDEST, (picture, format) =>
		picture.webp(format === 'jpeg' ? { quality: 88 } : { lossless: true })
	);
	return drawn && { bytes: drawn.data, width: drawn.info.width, height: drawn.info.height };
}

/** A picture of ours for where WebP can't be shown; null: as above. */
export async function asPng(bytes: Uint8Array): Promise<Uint8Array | null> {
	const drawn = await redraw(bytes, ['webp'], 1_200, (picture) => picture.png());
	return drawn && drawn.data;
}

async function redraw(
	bytes: Uint8Array,
	accepts: string[],
	widest: number,
	encode: (picture: Sharp, format: string) => Sharp
): Promise<{ data: Uint8Array; info: OutputInfo } | null> {
	const { process, queue } = sharp.counters();
	if (process + queue >= MOST_AT_ONCE) return null;
	try {
		const limits = { limitInputPixels: MOST_PIXELS, failOn: 'error', sequentialRead: true } as const;
		const { format, width } = await sharp(bytes, limits).metadata();
		if (!format || !accepts.includes(format)) return null;
		// A drawing is drawn at the size it is shown at, not at the few pixels that it may name.
		const density =
			format === 'svg' ? { density: Math.min(2_400, Math.max(72, (72 * widest) / 2 / (width || 1))) } : {};
		const picture = sharp(bytes, { ...limits, ...density })
			.timeout({ seconds: SECONDS })
			.autoOrient()
			.resize({ width: widest, height: widest, fit: 'inside', withoutEnlargement: true });
		return await encode(picture, format).toBuffer({ resolveWithObject: true });
	} catch {
		return null;
	}
}
