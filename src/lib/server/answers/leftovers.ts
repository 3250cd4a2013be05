import { createDecipheriv } from 'node:crypto';
import { groupBy } from '$core/group-by';
import type { Revision } from '$core/paper';
import { ProblemError } from '$core/problem';
import { paperKey } from '../identity';
import type { House } from '../house';
import { RevisionContent } from './revision-schema';

/** What this needs of the house. */
type Needs = Pick<House, 'db' | 'answers' | 'quotas'>;

/** A revision as it lay on a device: sealed (AES-GCM, base64), or plain where its browser had no cryptography. */
export type Leftover = {
	sittingId: string;
	epoch: number;
	seq: number;
	iv?: string;
	data?: string;
	plain?: unknown;
};
type Numbered = { sittingId: string; epoch: number; seqs: number[] };
export type LeftoversTaken = { taken: Numbered[]; refused: Numbered[]; kept: number };

/** The tag is behind the text, as the Web Cryptography API puts it. */
const TAG_BYTES = 16;

/**
 * Takes what earlier lives of a device had kept. What a device brings that is signed in to that sitting, and has signed the
 * request itself, counts by the same rules as every other answer. Anybody else shows by a seal that opens that the row was
 * on such a device once, since only that one was ever given the key; it is kept, and a person decides about it. Nobody
 * else's plain rows are taken.
 * @param signedIn whose request it is; null: a stranger's
 * @returns what is on the disk now, what will never be taken, and how many of the signed-in sitting are held back
 */
export async function takeLeftovers(
	otium: Needs,
	rows: Leftover[],
	signedIn: { sittingId: string; epoch: number } | null
): Promise<LeftoversTaken> {
	const result: LeftoversTaken = { taken: [], refused: [], kept: 0 };
	for (const [, group] of groupBy(rows, (row) => `${row.sittingId} ${row.epoch}`)) {
		const { sittingId, epoch } = group[0];
		const known = await otium.db('sitting').where({ id: sittingId }).first('id');
		const key = known && Buffer.from(await paperKey(otium.db, sittingId, epoch), 'base64');
		const isOwn = signedIn?.sittingId === sittingId && epoch <= signedIn.epoch;
		// What opens no seal costs the sitting nothing: a stranger can't use up what is for its own device.
		const read = key ? group.map((row) => readRow(row, key, isOwn)) : [];
		if (read.some((revision) => revision !== null))
			await otium.quotas.take('answers', sittingId, JSON.stringify(read).length, isOwn ? '' : 'leftovers');
		const taken: number[] = [];
		const refused: number[] = [];
		for (const [i, row] of group.entries()) {
			const revision = read[i] ?? null;
			const kept = revision ? await save(otium, sittingId, epoch, revision, !isOwn) : 'refused';
			(kept === 'refused' ? refused : taken).push(row.seq);
			if (kept === 'kept' && signedIn?.sittingId === sittingId) result.kept++;
		}
		if (taken.length > 0) result.taken.push({ sittingId, epoch, seqs: taken });
		if (refused.length > 0) result.refused.push({ sittingId, epoch, seqs: refused });
	}
	return result;
}

async function save(otium: Needs, sittingId: string, epoch: number, revision: Revision, isUnproven: boolean) {
	try {
		const { kept } = await otium.answers.saveSent(sittingId, epoch, [revision], { isUnproven });
		return kept === null ? 'counted' : 'kept';
	} catch (error) {
		if (error instanceof ProblemError) return 'refused';
		throw error;
	}
}

function readRow(row: Leftover, key: Buffer, mayBePlain: boolean): Revision | null {
	const content = row.data === undefined ? (mayBePlain ? row.plain : null) : open(row, key);
	const parsed = RevisionContent.safeParse(content);
	return parsed.success ? { ...parsed.data, seq: row.seq } : null;
}

function open(row: Leftover, key: Buffer): unknown {
	try {
		const sealed = Buffer.from(row.data!, 'base64');
		const decipher = createDecipheriv('aes-256-gcm', key, Buffer.from(row.iv ?? '', 'base64'));
		decipher.setAuthTag(sealed.subarray(-TAG_BYTES));
		const text = Buffer.concat([decipher.update(sealed.subarray(0, -TAG_BYTES)), decipher.final()]);
		return JSON.parse(text.toString());
	} catch {
		return null;
	}
}
