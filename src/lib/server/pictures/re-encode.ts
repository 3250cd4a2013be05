import { fail } from '$core/problem';
import type { House } from '../house';
import { ThreadError, type ThreadKind } from '../thread';
import type { Drawing, Drawn, PictureDrawing } from './drawing-process';

/** What this needs of the house. */
type Needs = Pick<House, 'threads'>;

/** How large a picture may become, and how good it is. */
type Wanted = { widest: number; quality: number };

const DEADLINE_MS = 5_000;
const ENTRY = 'src/lib/server/pictures/drawing-process.ts';
/**
 * What candidates hand over and cameras take. A class hands over at once, and none of it is held up by what an author's
 * drawing costs: that has a process of its own.
 */
const PHOTOS: ThreadKind<PictureDrawing> = { entry: ENTRY, memoryMb: 128, ownProcess: true, mostWaiting: 40 };
const DRAWINGS: ThreadKind<PictureDrawing> = { ...PHOTOS, name: 'drawings', mostWaiting: 8 };

/**
 * Draws a picture from outside afresh, as a JPEG: what was hidden in the file, or tells where and with what it was
 * taken, stays behind.
 * @param accepts formats; whatever is none of them becomes nothing
 * @returns null: it is not such a picture, is damaged, has too many pixels, or took too long
 * @throws ProblemError slow_down when too many wait already
 */
export async function reEncode(
	otium: Needs,
	bytes: Uint8Array,
	{ widest, quality }: Wanted,
	accepts = ['jpeg', 'png']
): Promise<Uint8Array | null> {
	const drawn = await draw(otium, PHOTOS, { bytes, accepts, widest, as: { jpeg: quality } });
	return drawn && drawn.bytes;
}

/** So wide is a picture of a question at most, in pixels; a drawing without a size of its own becomes half as wide. */
const WIDEST = 2_000;

/**
 * Draws a picture of a question afresh, as WebP; drawings and screenshots without loss. An SVG becomes a picture here, so
 * that nothing in it ever runs or fetches in a browser.
 * @returns null: as above
 */
export function drawForPaper(otium: Needs, bytes: Uint8Array): Promise<Drawn | null> {
	return draw(otium, DRAWINGS, { bytes, accepts: ['jpeg', 'png', 'webp', 'svg'], widest: WIDEST, as: 'paper' });
}

/** A picture of ours for where WebP can't be shown; null: as above. */
export async function asPng(otium: Needs, bytes: Uint8Array): Promise<Uint8Array | null> {
	const drawn = await draw(otium, PHOTOS, { bytes, accepts: ['webp'], widest: 1_200, as: 'png' });
	return drawn && drawn.bytes;
}

async function draw({ threads }: Needs, kind: ThreadKind<PictureDrawing>, drawing: Drawing): Promise<Drawn | null> {
	try {
		return await threads.run(kind, 'draw', drawing, DEADLINE_MS);
	} catch (error) {
		if (!(error instanceof ThreadError)) throw error;
		// Whoever sends it again in a moment is served: it was never looked at.
		if (error.code === 'too_many') fail('slow_down', { waitSeconds: 5 });
		return null;
	}
}
