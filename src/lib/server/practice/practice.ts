import { deal, dealtCount, dealtPoints, mediaBeside, summarise, type Form, type Paper } from '$core/paper';
import { fail } from '$core/problem';
import type { Query } from '../db';
import { paperVersion } from '../records';

/** A paper that anyone may try. */
export type PracticePaper = {
	id: string;
	title: string;
	about: string;
	questions: number;
	points: number;
	minutes: number;
};

/**
 * The papers for practice, the latest version of each: those whose author says so, that were not withdrawn, and that no
 * session but a rehearsal has, so that nothing which counts is given away.
 */
export async function practicePapers(db: Query): Promise<PracticePaper[]> {
	const rows: { id: string; title: string; version: number; content: string }[] = await db('paper')
		.whereNull('withdrawn_at')
		.whereLike('content', '%"practice":{%')
		.whereNotIn('id', db('session').whereNot({ kind: 'rehearsal' }).select('paper_id'))
		.orderBy([{ column: 'title' }, { column: 'version', order: 'desc' }])
		.select('id', 'title', 'version', 'content');
	const latest = new Map<string, PracticePaper>();
	for (const { id, title, content } of rows) {
		const paper: Paper = JSON.parse(content);
		if (!paper.practice || latest.has(title)) continue;
		latest.set(title, {
			id,
			title,
			about: [paper.card?.subject, paper.card?.level].filter(Boolean).join(', '),
			questions: dealtCount(paper),
			points: dealtPoints(paper),
			minutes: summarise(paper).suggestedMinutes
		});
	}
	return [...latest.values()];
}

/**
 * A practice paper, and its form by a seed, dealt anew each time it is asked for: nothing of whoever tries it is kept.
 * @throws ProblemError not_found when it is none
 */
export async function practiceForm(db: Query, paperId: string, seed: number): Promise<{ paper: Paper; form: Form }> {
	const isOne = (await practicePapers(db)).some(({ id }) => id === paperId);
	if (!isOne) fail('not_found', { message: 'This is no paper for practice.', instead: 'Choose one from the list.' });
	const { content } = await paperVersion(db, paperId);
	return { paper: content, form: deal(content, { questionsInOwnOrder: true, choicesInOwnOrder: true }, seed) };
}

/** Whether a practice paper shows or plays a file. */
export function playsFile(paper: Paper, file: string): boolean {
	return paper.parts.some(({ questions }) =>
		questions.some((question) => mediaBeside(question).some((medium) => medium.file === file))
	);
}
