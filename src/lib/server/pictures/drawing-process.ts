import sharp, { type OutputInfo, type Sharp } from 'sharp';
import { offer } from '../thread';

/** A camera's picture has 12 million; a file that unfolds to far more is a bomb. */
const MOST_PIXELS = 40_000_000;

// One thread: pictures must not take the processor from saves.
sharp.concurrency(1);
sharp.cache(false);

/** How a picture is drawn afresh. */
export type Drawing = {
	bytes: Uint8Array;
	/** Formats; whatever is none of them becomes nothing. */
	accepts: string[];
	/** In pixels, and as high. */
	widest: number;
	/** `paper`: drawings and screenshots without loss. */
	as: { jpeg: number } | 'paper' | 'png';
};
export type Drawn = { bytes: Uint8Array; width: number; height: number };

const tasks = {
	/** null: it is no such picture, is damaged, or has too many pixels. */
	async draw({ bytes, accepts, widest, as }: Drawing): Promise<Drawn | null> {
		try {
			const limits = { limitInputPixels: MOST_PIXELS, failOn: 'error', sequentialRead: true } as const;
			const { format, width } = await sharp(bytes, limits).metadata();
			if (!format || !accepts.includes(format)) return null;
			// A drawing is drawn at the size it is shown at, not at the few pixels that it may name.
			const density =
				format === 'svg' ? { density: Math.min(2_400, Math.max(72, (72 * widest) / 2 / (width || 1))) } : {};
			const picture = sharp(bytes, { ...limits, ...density })
				.autoOrient()
				.resize({ width: widest, height: widest, fit: 'inside', withoutEnlargement: true });
			return drawn(await encode(picture, as, format).toBuffer({ resolveWithObject: true }));
		} catch {
			return null;
		}
	}
};

function encode(picture: Sharp, as: Drawing['as'], format: string): Sharp {
	if (as === 'png') return picture.png();
	if (as === 'paper') return picture.webp(format === 'jpeg' ? { quality: 88 } : { lossless: true });
	return picture.flatten({ background: '#ffffff' }).jpeg({ quality: as.jpeg });
}

const drawn = ({ data, info }: { data: Buffer; info: OutputInfo }): Drawn => ({
	bytes: new Uint8Array(data),
	width: info.width,
	height: info.height
});

export type PictureDrawing = typeof tasks;

offer(tasks);
