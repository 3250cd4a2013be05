import { dealtCount, dealtPoints, mediaBeside, questionsOf, shows, type Paper } from '$core/paper';
import { perHouse, type Query } from '../db';
import { latest } from '../latest';

/** A version of a paper, as it is stored. */
export type PaperVersion = {
	title: string;
	content: Paper;
	/** How many questions a form has, and how many points there are to reach. */
	questions: number;
	points: number;
	/** What candidates read before they begin; null: nothing. */
	instructions: string | null;
};

/** More papers than a house sits on one day. */
const MOST = 50;
/** A version never changes, so it is read once. */
const papersOf = perHouse(() => latest<PaperVersion>(MOST));

/** The paper, read once and shared: nobody may change it. */
export async function paperVersion(db: Query, id: string): Promise<PaperVersion> {
	const papers = papersOf(db);
	const known = papers.get(id);
	if (known) return known;
	const row = (await db('paper').where({ id }).first('title', 'content')) as { title: string; content: string };
	const content: Paper = JSON.parse(row.content);
	const version = {
		title: row.title,
		content,
		questions: dealtCount(content),
		points: dealtPoints(content),
		instructions: content.instructions ?? null
	};
	papers.set(id, version);
	return version;
}

/** Whether some question of a paper, or a text beside it, has sound or a film. */
export async function hasSound(db: Query, paperId: string): Promise<boolean> {
	const { content } = await paperVersion(db, paperId);
	return questionsOf(content).some((question) => mediaBeside(question).some((medium) => shows(medium) !== 'picture'));
}
