import type { Paper, Question } from '$core/paper';
import { fail } from '$core/problem';
import type { Told } from '$core/qti';
import type { House } from '../house';
import { QuestionSchema } from '../question';
import { orTooLong } from '../thread';
import { PaperFrame } from './edit-schema';
import { READING } from './read-document';

/** What a package brings: the paper as it would be, and what is told of its files. */
export type Incoming = { paper: Paper; told: Told[] };

/** A package of 500 questions is read in a second or two. */
const DEADLINE_MS = 20_000;

/**
 * Reads a QTI package in a thread of its own. A question that is larger than questions may be is left out and told.
 * @throws ProblemError not_taken, in words
 */
export async function readQti(otium: Pick<House, 'threads'>, bytes: Uint8Array): Promise<Incoming> {
	const read = await orTooLong(otium.threads.run(READING, 'qti', { bytes }, DEADLINE_MS), tooLong);
	if (!read.ok) fail('not_taken', { message: read.message });
	const { told } = read;
	const frame = PaperFrame.safeParse(read.paper);
	if (!frame.success) fail('not_taken', { message: `The test can’t be taken over: ${frame.error.issues[0].message}.` });
	const parts = frame.data.parts.map(({ title, draw, questions }) => ({
		title,
		draw,
		questions: questions.flatMap((question): Question[] => {
			const checked = QuestionSchema.safeParse(question);
			if (checked.success) return [checked.data];
			const { path, message } = checked.error.issues[0];
			const where = (question as Question).stem.slice(0, 60) || 'A question without a text';
			told.push({ where, message: `It was left out: its ${path.join(' ')} does not fit (${message}).` });
			return [];
		})
	}));
	return { paper: { ...frame.data, parts }, told };
}

/** A paper as a zipped QTI package. */
export async function packageOf(
	otium: Pick<House, 'threads'>,
	paper: Paper,
	version: '3.0' | '2.1'
): Promise<Uint8Array> {
	return orTooLong(otium.threads.run(READING, 'pack', { paper, version }, DEADLINE_MS), tooLong);
}

const tooLong = (): never => fail('not_taken', { message: 'This package takes too long. Send it in two parts.' });
