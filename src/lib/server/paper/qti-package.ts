import { mediaOf, type Medium, type Paper, type Question } from '$core/paper';
import { fail } from '$core/problem';
import { mediumFile, type Told } from '$core/qti';
import type { House } from '../house';
import { keepMedium, readMedium } from '../media';
import { QuestionSchema } from '../question';
import { orTooLong } from '../thread';
import { PaperFrame } from './edit-schema';
import { READING } from './read-document';

/** What a package brings: the paper as it would be, and what is told of its files. */
export type Incoming = { paper: Paper; told: Told[] };

/** A package of 500 questions is read in a second or two. */
const DEADLINE_MS = 20_000;

/**
 * Reads a QTI package in a thread of its own. A question that is larger than questions may be is left out and told, and
 * so is a file that can't be shown or played.
 * @param keeps whether the package's pictures, sound and film are kept; else the paper that is told of has none
 * @throws ProblemError not_taken, in words
 */
export async function readQti(
	otium: Pick<House, 'threads' | 'db' | 'now' | 'dataDir'>,
	bytes: Uint8Array,
	keeps: { staffId: string } | null
): Promise<Incoming> {
	const read = await orTooLong(otium.threads.run(READING, 'qti', { bytes }, DEADLINE_MS), tooLong);
	if (!read.ok) fail('not_taken', { message: read.message });
	const { told } = read;
	const kept = new Map<string, Medium>();
	if (keeps)
		for (const { file, path, bytes: content } of read.media) {
			const medium = await keepMedium(otium, content, keeps.staffId).catch(() => null);
			if (medium) kept.set(file, medium);
			else told.push({ where: path, message: 'It was left out: it is damaged, or is not what its name says.' });
		}
	const material = (read.paper.material ?? []).flatMap(({ name, pages }) => {
		const found = inPlace(pages, kept);
		return found.length > 0 ? [{ name, pages: found }] : [];
	});
	const frame = PaperFrame.safeParse({ ...read.paper, material: material.length > 0 ? material : undefined });
	if (!frame.success) fail('not_taken', { message: `The test can’t be taken over: ${frame.error.issues[0].message}.` });
	const parts = frame.data.parts.map(({ questions, ...about }) => ({
		...about,
		questions: questions.flatMap((question): Question[] => {
			const checked = QuestionSchema.safeParse(withKept(question as Question, kept));
			if (checked.success) return [checked.data];
			const { path, message } = checked.error.issues[0];
			const where = (question as Question).stem.slice(0, 60) || 'A question without a text';
			told.push({ where, message: `It was left out: its ${path.join(' ')} does not fit (${message}).` });
			return [];
		})
	}));
	return { paper: { ...frame.data, parts }, told };
}

/** Files of a package under the names that they were kept by; what was not kept is left out. */
function inPlace(media: Medium[], kept: ReadonlyMap<string, Medium>): Medium[] {
	return media.flatMap(({ file, alt, plays }) => {
		const known = kept.get(file);
		return known ? [{ ...known, alt, ...(plays === undefined ? {} : { plays }) }] : [];
	});
}

/** A question whose files are those that were kept, under their own names. */
function withKept(question: Question, kept: ReadonlyMap<string, Medium>): Question {
	const those = (media: Medium[] | undefined) => {
		const found = inPlace(media ?? [], kept);
		return found.length > 0 ? { media: found } : {};
	};
	const { media, stimulus, ...rest } = question;
	const { media: shared, ...text } = stimulus ?? { id: '', text: '' };
	return { ...rest, ...those(media), ...(stimulus ? { stimulus: { ...text, ...those(shared) } } : {}) } as Question;
}

/** A paper as a zipped QTI package, with all that its questions show and play. */
export async function packageOf(
	otium: Pick<House, 'threads' | 'db' | 'dataDir'>,
	paper: Paper,
	version: '3.0' | '2.1'
): Promise<Uint8Array> {
	const media: Record<string, Uint8Array> = {};
	for (const medium of mediaOf(paper)) {
		const found = await readMedium(otium, medium.file);
		if (found) media[mediumFile(medium)] = found.bytes;
	}
	return orTooLong(otium.threads.run(READING, 'pack', { paper, version, media }, DEADLINE_MS), tooLong);
}

const tooLong = (): never => fail('not_taken', { message: 'This package takes too long. Send it in two parts.' });
