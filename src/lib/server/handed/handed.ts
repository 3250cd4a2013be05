import { createHash } from 'node:crypto';
import { join } from 'node:path';
import { fileTypeFromBuffer } from 'file-type';
import type { HandedFile } from '$core/paper';
import { fail } from '$core/problem';
import { macOf, type Query } from '../db';
import type { House } from '../house';
import { ContentFiles } from '../media';
import { reEncode } from '../pictures';

type Needs = Pick<House, 'db' | 'now' | 'dataDir'>;
type Drawing = Needs & Pick<House, 'threads'>;

export const MOST_HANDED_BYTES = 10 * 1024 * 1024;
/** Pencil on squared paper stays readable at this. */
const SIZE = { widest: 2_600, quality: 82 };
/** What is taken out of an answer stays here, so there may be more files than a question takes; not any number. */
const MOST_OF_QUESTION = 30;
/** All files of a sitting together: a photo has half a megabyte. */
const MOST_OF_SITTING_BYTES = 150 * 1024 * 1024;

/**
 * Keeps a photo, drawn afresh, or a PDF as it is. It is part of the answer once the answer names it.
 * @throws ProblemError handed_file, handed_enough
 */
export async function keepHanded(
	otium: Drawing,
	sittingId: string,
	questionId: string,
	{ name, bytes, byCode }: { name: string; bytes: Uint8Array; byCode: boolean }
): Promise<HandedFile> {
	if (bytes.length === 0 || bytes.length > MOST_HANDED_BYTES) fail('handed_file');
	const isPdf = (await fileTypeFromBuffer(bytes))?.mime === 'application/pdf';
	const kept = isPdf ? bytes : await reEncode(otium, bytes, SIZE, ['jpeg', 'png', 'webp']);
	if (!kept) fail('handed_file');
	const sha256 = createHash('sha256').update(kept).digest('hex');
	const id = idOf(otium.db, sittingId, questionId, sha256);
	const there = await handedIn(otium.db, sittingId);
	const known = there.find((file) => file.id === id);
	if (known) return known;
	const ofQuestion = there.filter((file) => file.questionId === questionId).length;
	const bytesOfAll = there.reduce((sum, file) => sum + file.bytes, kept.length);
	if (ofQuestion >= MOST_OF_QUESTION || bytesOfAll > MOST_OF_SITTING_BYTES) fail('handed_enough');
	await filesOf(otium).keep(kept);
	const row = {
		id,
		sitting_id: sittingId,
		question_id: questionId,
		name: name.replace(/\p{C}/gu, '').trim().slice(0, 120) || (isPdf ? 'PDF' : 'Photo'),
		type: isPdf ? 'application/pdf' : 'image/jpeg',
		bytes: kept.length,
		sha256,
		at: otium.now(),
		by_code: byCode
	};
	await otium.db('sitting_file').insert(row).onConflict('id').ignore();
	return fromRow(row);
}

/**
 * What a file is called in an answer. It follows from what is in it: the chain of answers binds the file, too, and one that
 * is sent twice is there once.
 */
function idOf(db: Query, sittingId: string, questionId: string, sha256: string): string {
	return macOf(db, 'marks', `handed ${JSON.stringify([sittingId, questionId, sha256])}`).slice(0, 21);
}

/** The files of a sitting, in the order in which they came. */
export async function handedIn(db: Query, sittingId: string): Promise<HandedFile[]> {
	const rows: Row[] = await db('sitting_file').where({ sitting_id: sittingId }).orderBy('at');
	return rows.map(fromRow);
}

/** A file that was handed over in a sitting; null: there is none of that id. */
export async function readHanded(
	otium: Pick<House, 'db' | 'dataDir'>,
	sittingId: string,
	id: string
): Promise<{ name: string; type: string; bytes: Uint8Array } | null> {
	const row: Row | undefined = await otium.db('sitting_file').where({ sitting_id: sittingId, id }).first();
	const bytes = row ? await filesOf(otium).read(row.sha256) : null;
	return bytes && { name: row!.name, type: row!.type, bytes };
}

/** Deletes what was handed over in a sitting. A file that another sitting has as well stays. */
export async function dropHanded(otium: Pick<House, 'db' | 'dataDir'>, sittingId: string): Promise<void> {
	const rows: Row[] = await otium.db('sitting_file').where({ sitting_id: sittingId });
	for (const { id, sha256 } of rows) {
		await otium.db('sitting_file').where({ id }).delete();
		if (!(await otium.db('sitting_file').where({ sha256 }).first('id'))) await filesOf(otium).drop(sha256);
	}
}

type Row = {
	id: string;
	question_id: string;
	name: string;
	type: string;
	bytes: number;
	sha256: string;
	at: number;
	by_code: boolean | number;
};

function fromRow({ id, question_id, name, type, bytes, at, by_code }: Row): HandedFile {
	return { id, questionId: question_id, name, type, bytes, at, byCode: Boolean(by_code) };
}

function filesOf({ dataDir }: Pick<House, 'dataDir'>): ContentFiles {
	return new ContentFiles(join(dataDir, 'handed'));
}
