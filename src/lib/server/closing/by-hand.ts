import { strToU8 } from 'fflate';
import { isMarkedByHand, plainText } from '$core/paper';
import { standingAnswers } from '../answers';
import type { House } from '../house';
import { readHanded } from '../handed';
import { formOf } from '../sitting';
import { zipStream, type ZipEntry } from '../zip-stream';
import type { Account } from './account';

type Needs = Pick<House, 'db' | 'dataDir'>;

/** How many answers of a session wait for a person to read them. */
export function countByHand({ lines }: Pick<Account, 'lines'>): number {
	return lines.reduce((sum, { score }) => sum + (score?.toMark ?? 0), 0);
}

/**
 * Everything of a session that a person marks: a folder for each question, in it the texts, photos and PDFs of each
 * candidate under their number. One file after the other is read, so that a large session fits into a small machine.
 */
export function byHandZip(otium: Needs, account: Account): ReadableStream<Uint8Array> {
	return zipStream(entriesOf(otium, account));
}

async function* entriesOf(otium: Needs, { lines }: Account): AsyncGenerator<ZipEntry> {
	/** By question: its folder. */
	const folders = new Map<string, string>();
	for (const { sittingId, number, score } of lines) {
		// Whose work does not count, or is not over, is nobody’s to mark.
		if (!score) continue;
		const form = await formOf(otium.db, sittingId);
		const asked = form?.questions.filter(isMarkedByHand) ?? [];
		if (asked.length === 0) continue;
		const given = (await standingAnswers(otium.db, [sittingId])).get(sittingId) ?? [];
		for (const question of asked) {
			const value = given.find(({ questionId }) => questionId === question.id)?.value ?? null;
			if (!folders.has(question.id))
				folders.set(question.id, folderFor(plainText(question.stem), [...folders.values()]));
			const path = `${folders.get(question.id)}/${fileName(number)}`;
			if (typeof value === 'string' && value.trim() !== '') yield { path: `${path}.txt`, bytes: strToU8(value) };
			if (!Array.isArray(value)) continue;
			for (const [i, id] of value.entries()) {
				const file = await readHanded(otium, sittingId, id);
				const extension = file?.type === 'application/pdf' ? 'pdf' : 'jpg';
				if (file) yield { path: `${path}-${i + 1}.${extension}`, bytes: file.bytes, isPacked: true };
			}
		}
	}
}

/** Two questions whose texts begin alike have two folders. */
function folderFor(stem: string, taken: string[]): string {
	const name = fileName(stem);
	let [folder, count] = [name, 1];
	while (taken.includes(folder)) folder = `${name} ${++count}`;
	return folder;
}

/** A text as part of a path: short, and without what file systems give a meaning. */
function fileName(text: string): string {
	const plain = text.replace(/[^\p{L}\p{N} _-]+/gu, ' ').replace(/\s+/g, ' ');
	return plain.trim().slice(0, 60).trim() || 'question';
}
