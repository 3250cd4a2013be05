import { mkdir, readFile, rm } from 'node:fs/promises';
import { join } from 'node:path';
import { nanoid } from 'nanoid';
import type { Query } from '../db';
import type { House } from '../house';
import { imageType } from './image-type';
import { reEncode } from './re-encode';
import { writeWhole } from '../whole-file';

/** What this needs of the house. */
type Needs = Pick<House, 'db' | 'now' | 'dataDir'>;
type Drawing = Needs & Pick<House, 'threads'>;

export type Snapshot = { id: string; at: number };

/** A small picture, as the player makes it, has some 6 kB. */
export const MOST_SNAPSHOT_BYTES = 100_000;
const SIZE = { widest: 640, quality: 60 };
const DAY_MS = 24 * 3_600_000;

/**
 * Keeps a picture from a candidate's camera, drawn afresh, in a file of its own outside the database.
 * @param keepDays after so many days it is deleted
 * @returns false: it is not a picture that can be kept, or came too soon after the last
 */
export async function keepSnapshot(
	otium: Drawing,
	sittingId: string,
	bytes: Uint8Array,
	everySeconds: number,
	keepDays: number
): Promise<boolean> {
	if (bytes.length > MOST_SNAPSHOT_BYTES || imageType(bytes) !== 'image/jpeg') return false;
	const now = otium.now();
	const last = await otium.db('snapshot').where({ sitting_id: sittingId }).max('at as at').first();
	// A device that sends more often than the rules say fills the disk for nothing.
	if (last?.at && now - (last.at as number) < everySeconds * 500) return false;
	const picture = await reEncode(otium, bytes, SIZE);
	if (!picture) return false;
	const id = nanoid();
	await mkdir(folder(otium), { recursive: true });
	await writeWhole(join(folder(otium), `${id}.jpg`), picture);
	await otium
		.db('snapshot')
		.insert({ id, sitting_id: sittingId, at: now, bytes: picture.length, keep_until: now + keepDays * DAY_MS });
	return true;
}

/** The latest pictures of a sitting, oldest first. */
export async function snapshotsOf(db: Query, sittingId: string, most = 24): Promise<Snapshot[]> {
	const rows: Snapshot[] = await db('snapshot')
		.where({ sitting_id: sittingId, deleted_at: null })
		.orderBy('at', 'desc')
		.limit(most)
		.select('id', 'at');
	return rows.reverse();
}

/** The picture itself; null: it is not this sitting's, or has been deleted. */
export async function readSnapshot(otium: Needs, sittingId: string, id: string): Promise<Uint8Array | null> {
	const row = await otium.db('snapshot').where({ id, sitting_id: sittingId, deleted_at: null }).first('id');
	return row ? readFile(join(folder(otium), `${row.id}.jpg`)).catch(() => null) : null;
}

/** Deletes what has been kept for long enough. The row stays and says when. */
export async function deleteOldSnapshots(otium: Needs): Promise<number> {
	const now = otium.now();
	const old: string[] = await otium
		.db('snapshot')
		.where({ deleted_at: null })
		.where('keep_until', '<=', now)
		.limit(2_000)
		.pluck('id');
	for (const id of old) {
		await rm(join(folder(otium), `${id}.jpg`), { force: true });
		await otium.db('snapshot').where({ id }).update({ deleted_at: now });
	}
	return old.length;
}

function folder(otium: Needs): string {
	return join(otium.dataDir, 'snapshots');
}
