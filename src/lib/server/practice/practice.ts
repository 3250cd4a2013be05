import { deal, dealtCount, dealtPoints, mediaOf, summarise, type Form, type Paper } from '$core/paper';
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
	const papers: PracticePaper[] = [];
	for (const [title, id] of await practiceIds(db)) {
		const { content: paper } = await paperVersion(db, id);
		papers.push({
			id,
			title,
			about: [paper.card?.subject, paper.card?.level].filter(Boolean).join(', '),
			questions: dealtCount(paper),
			points: dealtPoints(paper),
			minutes: summarise(paper).suggestedMinutes
		});
	}
	return papers;
}

/** Their ids by title. A quotation mark within a text of a paper is escaped there, so that only the field itself is found. */
async function practiceIds(db: Query): Promise<Map<string, string>> {
	const rows: { id: string; title: string }[] = await db('paper')
		.whereNull('withdrawn_at')
		.whereLike('content', '%"practice":{%')
		.whereNotIn('id', db('session').whereNot({ kind: 'rehearsal' }).select('paper_id'))
		.orderBy(['title', 'version'])
		.select('id', 'title');
	// The last of a title is its latest version.
	return new Map(rows.map(({ id, title }) => [title, id]));
}

/**
 * A practice paper, and its form by a seed, dealt anew each time it is asked for: nothing of whoever tries it is kept.
 * null: it is none.
 */
export async function practiceForm(
	db: Query,
	paperId: string,
	seed: number
): Promise<{ paper: Paper; form: Form } | null> {
	if (![...(await practiceIds(db)).values()].includes(paperId)) return null;
	const { content } = await paperVersion(db, paperId);
	return { paper: content, form: deal(content, { questionsInOwnOrder: true, choicesInOwnOrder: true }, seed) };
}

/** Whether a practice paper shows or plays a file. */
export function playsFile(paper: Paper, file: string): boolean {
	return mediaOf(paper).some((medium) => medium.file === file);
}
