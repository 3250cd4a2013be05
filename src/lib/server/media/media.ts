import { join } from 'node:path';
import { fileTypeFromBuffer } from 'file-type';
import { LRUCache } from 'lru-cache';
import { MEDIUM_TYPES, shows, type Medium, type MediumType } from '$core/paper';
import { fail } from '$core/problem';
import { perHouse } from '../db';
import type { House } from '../house';
import { drawForPaper } from '../pictures';
import { ContentFiles } from './content-files';

type Needs = Pick<House, 'db' | 'now' | 'dataDir'>;
type Drawing = Needs & Pick<House, 'threads'>;

export const MOST_MEDIUM_BYTES = 10 * 1024 * 1024;
/**
 * Keeps a file that an author gives a question: a picture is drawn afresh, sound and film are kept as they are.
 * @returns it, without an alternative text
 * @throws ProblemError medium
 */
export async function keepMedium(otium: Drawing, bytes: Uint8Array, staffId: string | null): Promise<Medium> {
	if (bytes.length === 0 || bytes.length > MOST_MEDIUM_BYTES) fail('medium');
	// `audio/ogg; codecs=opus`
	const found = (await fileTypeFromBuffer(bytes))?.mime.split(';')[0] ?? '';
	const isPlayed = Object.hasOwn(MEDIUM_TYPES, found) && shows({ type: found as MediumType }) !== 'picture';
	const picture = isPlayed ? null : await drawForPaper(otium, bytes);
	if (!isPlayed && !picture) fail('medium');
	const type = picture ? 'image/webp' : (found as MediumType);
	const kept = picture?.bytes ?? bytes;
	const file = await filesOf(otium).keep(kept);
	const size = picture ? { width: picture.width, height: picture.height } : {};
	await otium
		.db('media_file')
		.insert({
			sha256: file,
			type,
			bytes: kept.length,
			...size,
			added_at: otium.now(),
			added_by: staffId
		})
		.onConflict('sha256')
		.ignore();
	return { file, type, alt: '', ...size };
}

/** What a room fetches when it begins lies in memory: a thousand devices ask for the same few files within a minute. */
const HELD_BYTES = 64 * 1024 * 1024;
const heldOf = perHouse(
	() =>
		new LRUCache<string, { bytes: Uint8Array; type: string }>({
			maxSize: HELD_BYTES,
			maxEntrySize: HELD_BYTES / 4,
			sizeCalculation: ({ bytes }) => bytes.length
		})
);

/** A file by its name; null: there is none. */
export async function readMedium(
	otium: Pick<House, 'db' | 'dataDir'>,
	file: string
): Promise<{ bytes: Uint8Array; type: string } | null> {
	const held = heldOf(otium.db).get(file);
	if (held) return held;
	const row = await otium.db('media_file').where({ sha256: file }).first('type');
	const bytes = row ? await filesOf(otium).read(file) : null;
	if (!bytes) return null;
	const found = { bytes, type: row.type };
	heldOf(otium.db).set(file, found);
	return found;
}

/** A file as an answer. It is what it says it is, and were it a page, nothing of it would run. */
export function mediumResponse({ bytes, type }: { bytes: Uint8Array; type: string }): Response {
	return new Response(new Uint8Array(bytes), {
		headers: {
			'content-type': type,
			'cache-control': 'private, no-store',
			'content-security-policy': "default-src 'none'; sandbox",
			'x-content-type-options': 'nosniff'
		}
	});
}

function filesOf({ dataDir }: Pick<House, 'dataDir'>): ContentFiles {
	return new ContentFiles(join(dataDir, 'media'));
}
