import { mkdir, readFile, rm } from 'node:fs/promises';
import { join } from 'node:path';
import type { House } from '../house';
import { imageType } from './image-type';
import { reEncode } from './re-encode';
import { writeWhole } from '../whole-file';

/** What this needs of the house. */
type Needs = Pick<House, 'db' | 'now' | 'dataDir'>;
type Drawing = Needs & Pick<House, 'threads'>;

export const MOST_PHOTO_BYTES = 400_000;
const SIZE = { widest: 800, quality: 82 };

/** Keeps a candidate's photo, drawn afresh, or takes it away. false: it is not a JPEG or PNG of a fitting size. */
export async function savePhoto(otium: Drawing, candidateId: string, bytes: Uint8Array | null): Promise<boolean> {
	const isFitting = bytes !== null && bytes.length <= MOST_PHOTO_BYTES && imageType(bytes) !== null;
	const photo = isFitting ? await reEncode(otium, bytes, SIZE) : null;
	if (bytes !== null && photo === null) return false;
	await mkdir(join(otium.dataDir, 'photos'), { recursive: true });
	if (photo === null) await rm(pathOf(otium, candidateId), { force: true });
	else await writeWhole(pathOf(otium, candidateId), photo);
	await otium
		.db('candidate')
		.where({ id: candidateId })
		.update({ photo_at: bytes === null ? null : otium.now() });
	return true;
}

/** A candidate's photo; null: there is none. */
export async function readPhoto(
	otium: Needs,
	candidateId: string
): Promise<{ bytes: Uint8Array; type: string } | null> {
	const row = await otium.db('candidate').where({ id: candidateId }).first('id', 'photo_at');
	if (!row?.photo_at) return null;
	const bytes = await readFile(pathOf(otium, row.id)).catch(() => null);
	return bytes && { bytes, type: imageType(bytes) ?? 'image/jpeg' };
}

/** A photo serves the door: a year after the last session that somebody was expected in, nobody needs it. */
export const PHOTO_KEPT_MS = 365 * 86_400_000;

/** Deletes photos of people who have been expected nowhere for a year, nor have had a new one. Returns how many. */
export async function deleteOldPhotos(otium: Drawing): Promise<number> {
	const before = otium.now() - PHOTO_KEPT_MS;
	const recent = otium
		.db('sitting')
		.join('session', 'session.id', 'sitting.session_id')
		.where('session.opens', '>', before)
		.select('sitting.candidate_id');
	const old: string[] = await otium
		.db('candidate')
		.where('photo_at', '<=', before)
		.whereNotIn('id', recent)
		.limit(500)
		.pluck('id');
	for (const id of old) await savePhoto(otium, id, null);
	return old.length;
}

function pathOf(otium: Needs, candidateId: string): string {
	return join(otium.dataDir, 'photos', encodeURIComponent(candidateId).replaceAll('.', '%2E'));
}
