import { firstWords, mediaBeside, mediaOf, questionsOf, type Medium, type Paper, type Question } from '$core/paper';
import { fail } from '$core/problem';
import { mediumFile, type Told } from '$core/qti';
import type { House } from '../house';
import { keepMedium, readMedium } from '../media';
import { QuestionSchema } from '../question';
import { orTooLong } from '../thread';
import { PaperFrame } from './edit-schema';
import { READING } from './read-document';
import type { ReadQti } from './reading';

/** What a package brings: the paper as it would be, and what is told of its files. */
export type Incoming = { paper: Paper; told: Told[] };

/** A package of 500 questions is read in a second or two. */
const DEADLINE_MS = 20_000;
/** A file of 5,000 in about ten. */
const BANK_DEADLINE_MS = 90_000;

/**
 * Reads a QTI package in a thread of its own. A question that is larger than questions may be is left out and told, and
 * so is a file that can't be shown or played.
 * @param keeps whether the package's pictures, sound and film are kept; else the paper that is told of has none
 * @throws ProblemError not_taken, in words
 */
export async function readQti(otium: Reading, bytes: Uint8Array, keeps: { staffId: string } | null): Promise<Incoming> {
	const read = await unpacked(otium, bytes, false);
	const { told } = read;
	const kept = await keepMedia(otium, read, keeps);
	const material = (read.paper.material ?? []).flatMap(({ name, pages }) => {
		const found = inPlace(pages, kept);
		return found.length > 0 ? [{ name, pages: found }] : [];
	});
	const frame = PaperFrame.safeParse({ ...read.paper, material: material.length > 0 ? material : undefined });
	if (!frame.success) fail('not_taken', { message: `The test can’t be taken over: ${frame.error.issues[0].message}.` });
	const parts = frame.data.parts.map(({ questions, ...about }) => ({
		...about,
		questions: fitting(questions as Question[], kept, told)
	}));
	return { paper: { ...frame.data, parts }, told };
}

/**
 * Reads a QTI package of questions for the bank; what a test in it says is not taken.
 * @throws ProblemError not_taken, in words
 */
export async function readBankQti(
	otium: Reading,
	bytes: Uint8Array,
	keeps: { staffId: string } | null
): Promise<{ questions: Question[]; told: Told[] }> {
	const read = await unpacked(otium, bytes, true);
	const kept = await keepMedia(otium, read, keeps);
	return { questions: fitting(questionsOf(read.paper), kept, read.told), told: read.told };
}

type Reading = Pick<House, 'threads' | 'db' | 'now' | 'dataDir'>;
type Unpacked = Extract<ReadQti, { ok: true }>;

async function unpacked(otium: Reading, bytes: Uint8Array, isBank: boolean): Promise<Unpacked> {
	const deadline = isBank ? BANK_DEADLINE_MS : DEADLINE_MS;
	const read = await orTooLong(otium.threads.run(READING, 'qti', { bytes, isBank }, deadline), tooLong);
	if (!read.ok) fail('not_taken', { message: read.message });
	return read;
}

/** The files of a package as they were kept, by the names that it gives them; null: nothing is kept yet. */
type Kept = ReadonlyMap<string, Medium> | null;

async function keepMedia(otium: Reading, { media, told }: Unpacked, keeps: { staffId: string } | null): Promise<Kept> {
	if (!keeps) return null;
	const kept = new Map<string, Medium>();
	for (const { file, path, bytes } of media) {
		const medium = await keepMedium(otium, bytes, keeps.staffId).catch(() => null);
		if (medium) kept.set(file, medium);
		else told.push({ where: path, message: 'It was left out: it is damaged, or is not what its name says.' });
	}
	return kept;
}

/** Those questions that are as questions may be; the others are told. */
function fitting(questions: Question[], kept: Kept, told: Told[]): Question[] {
	return questions.flatMap((question): Question[] => {
		const checked = QuestionSchema.safeParse(withKept(question, kept));
		if (checked.success) return [checked.data];
		const { path, message } = checked.error.issues[0];
		const where = firstWords(question.stem, 60) || 'A question without a text';
		const why = path.length === 0 ? message : `its ${path.join(' ')} does not fit (${message}).`;
		told.push({ where, message: `It was left out: ${why}` });
		return [];
	});
}

/** Files of a package under the names that they were kept by; what was not kept is left out. */
function inPlace(media: Medium[], kept: Kept): Medium[] {
	// By what they hold they are named in a package of ours, and so they would be kept.
	if (!kept) return media.filter(({ file }) => /^[0-9a-f]{64}$/.test(file));
	return media.flatMap(({ file, alt, plays }) => {
		const known = kept.get(file);
		return known ? [{ ...known, alt, ...(plays === undefined ? {} : { plays }) }] : [];
	});
}

/** A question whose files are those that were kept, under their own names. */
function withKept(question: Question, kept: Kept): Question {
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
	const media = await packed(otium, mediaOf(paper));
	return orTooLong(otium.threads.run(READING, 'pack', { paper, version, media }, DEADLINE_MS), tooLong);
}

/**
 * Questions of the bank as a zipped QTI package without a test, with all that they show and play.
 * @param contents as they are stored
 */
export async function bankPackageOf(
	otium: Pick<House, 'threads' | 'db' | 'dataDir'>,
	contents: string[]
): Promise<Uint8Array> {
	const shown = contents
		.filter((content) => content.includes('"file"'))
		.map((content) => JSON.parse(content) as Question);
	const media = await packed(otium, shown.flatMap(mediaBeside));
	return orTooLong(otium.threads.run(READING, 'packBank', { contents, media }, BANK_DEADLINE_MS), tooLong);
}

/** The files that these name, by their paths in a package. */
async function packed(otium: Pick<House, 'db' | 'dataDir'>, media: Medium[]): Promise<Record<string, Uint8Array>> {
	const files: Record<string, Uint8Array> = {};
	for (const medium of media) {
		const found = files[mediumFile(medium)] ? null : await readMedium(otium, medium.file);
		if (found) files[mediumFile(medium)] = found.bytes;
	}
	return files;
}

const tooLong = (): never => fail('not_taken', { message: 'This package takes too long. Send it in two parts.' });
