import { createHash } from 'node:crypto';
import { mkdir, readFile, rm } from 'node:fs/promises';
import { join } from 'node:path';
import { z } from 'zod';
import { fail } from '$core/problem';
import { openSecret, sealSecret, type Query } from '../db';
import type { House } from '../house';
import { writeWhole } from '../whole-file';

type Needs = Pick<House, 'db' | 'now' | 'dataDir'>;

const MOST_BYTES = 2_000_000;
/** As base64 it is a third longer, and something stands beside it. */
export const MOST_SHOWN_BYTES = 1.5 * MOST_BYTES;

/** A file as a form sends it. */
export const Shown = z.object({
	name: z.string().trim().min(1).max(120),
	type: z.enum(
		['image/png', 'image/jpeg', 'application/pdf', 'text/plain'],
		'Attach a picture (PNG, JPEG), a PDF or plain text.'
	),
	base64: z.string()
});
export type Shown = z.infer<typeof Shown>;
/** What somebody showed about their health is not kept longer than a year. */
const KEEP_MS = 365 * 24 * 3_600_000;

export type Evidence = { id: string; name: string; type: string; bytes: Uint8Array };

/**
 * Keeps what was shown for a grant or a request, sealed, in a file of its own. It is named by what is in it, so that sent
 * twice it is kept once. Returns its id; null: nothing was shown.
 * @throws ProblemError attachment
 */
export async function evidenceFrom(otium: Needs, shown: Shown | null): Promise<string | null> {
	if (shown === null) return null;
	const bytes = Buffer.from(shown.base64, 'base64');
	if (bytes.length === 0 || bytes.length > MOST_BYTES)
		fail('attachment', { message: 'This file is empty, or larger than 2 MB.', instead: 'Choose a smaller one.' });
	const id = createHash('sha256').update(bytes).digest('base64url');
	const now = otium.now();
	await mkdir(folder(otium), { recursive: true });
	await writeWhole(fileOf(otium, id), sealSecret(otium.db, bytes.toString('base64')));
	await otium
		.db('evidence')
		.insert({ id, name: shown.name, type: shown.type, at: now, keep_until: now + KEEP_MS, deleted_at: null })
		.onConflict('id')
		.merge(['keep_until', 'deleted_at']);
	return id;
}

/** null: there is none, or it was deleted when its time was over. */
export async function readEvidence(otium: Needs, id: string): Promise<Evidence | null> {
	const row = await otium.db('evidence').where({ id, deleted_at: null }).first('name', 'type');
	if (!row) return null;
	const sealed = await readFile(fileOf(otium, id), 'utf8').catch(() => null);
	const bytes = sealed === null ? null : openSecret(otium.db, sealed);
	return bytes === null ? null : { id, name: row.name, type: row.type, bytes: Buffer.from(bytes, 'base64') };
}

/** The sites of those for whom it was shown, by a grant or a request. */
export async function sitesOfEvidence(db: Query, id: string): Promise<string[]> {
	const granted = db('grant_given')
		.join('candidate', 'candidate.id', 'grant_given.candidate_id')
		.join('candidate_group', 'candidate_group.id', 'candidate.group_id')
		.where({ evidence_id: id })
		.distinct('candidate_group.site_id');
	const asked = db('grant_request').where({ evidence_id: id }).distinct('site_id');
	const rows: { site_id: string }[] = [...(await granted), ...(await asked)];
	return [...new Set(rows.map((row) => row.site_id))];
}

/** Deletes what has been kept for long enough; the row stays and says when. Returns how many. */
export async function deleteOldEvidence(otium: Needs): Promise<number> {
	const now = otium.now();
	const old: string[] = await otium
		.db('evidence')
		.where({ deleted_at: null })
		.where('keep_until', '<=', now)
		.limit(500)
		.pluck('id');
	for (const id of old) {
		await rm(fileOf(otium, id), { force: true });
		await otium.db('evidence').where({ id }).update({ deleted_at: now });
	}
	return old.length;
}

const folder = ({ dataDir }: Needs) => join(dataDir, 'evidence');

/** Ids come from outside; only such a one may become a file's name. */
function fileOf(otium: Needs, id: string): string {
	if (!/^[\w-]{8,64}$/.test(id)) throw new Error('not an evidence id');
	return join(folder(otium), id);
}
