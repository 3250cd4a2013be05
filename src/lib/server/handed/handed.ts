import { join } from 'node:path';
import { fileTypeFromBuffer } from 'file-type';
import { nanoid } from 'nanoid';
import { fail } from '$core/problem';
import type { Query } from '../db';
import type { House } from '../house';
import { ContentFiles } from '../media';
import { reEncode } from '../pictures';

type Needs = Pick<House, 'db' | 'now' | 'dataDir'>;

/** A file that a candidate handed over, by the paper's own name of its question. */
export type HandedFile = {
	id: string;
	questionId: string;
	name: string;
	type: string;
	bytes: number;
	at: number;
	/** It came from another device, by a code. */
	byCode: boolean;
};

export const MOST_HANDED_BYTES = 10 * 1024 * 1024;
/** Pencil on squared paper stays readable at this. */
const SIZE = { widest: 2_600, quality: 82 };
/** What is taken out of an answer stays here, so there may be more files than a question takes; not any number. */
const MOST_OF_QUESTION = 30;

/**
 * Keeps a photo, drawn afresh, or a PDF as it is. It is part of the answer once the answer names it.
 * @throws ProblemError handed_file, handed_enough
 */
export async function keepHanded(
	otium: Needs,
	sittingId: string,
	questionId: string,
	{ name, bytes, byCode }: { name: string; bytes: Uint8Array; byCode: boolean }
): Promise<HandedFile> {
	if (bytes.length === 0 || bytes.length > MOST_HANDED_BYTES) fail('handed_file');
	const isPdf = (await fileTypeFromBuffer(bytes))?.mime === 'application/pdf';
	const kept = isPdf ? bytes : await reEncode(bytes, SIZE, ['jpeg', 'png', 'webp']);
	if (!kept) fail('handed_file');
	const there = await otium
		.db('sitting_file')
		.where({ sitting_id: sittingId, question_id: questionId })
		.count('* as n');
	if (Number(there[0].n) >= MOST_OF_QUESTION) fail('handed_enough');
	const sha256 = await filesOf(otium).keep(kept);
	const row = {
		id: nanoid(),
		sitting_id: sittingId,
		question_id: questionId,
		name: name.replace(/\p{C}/gu, '').trim().slice(0, 120) || (isPdf ? 'PDF' : 'Photo'),
		type: isPdf ? 'application/pdf' : 'image/jpeg',
		bytes: kept.length,
		sha256,
		at: otium.now(),
		by_code: byCode
	};
	await otium.db('sitting_file').insert(row);
	return fromRow(row);
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
