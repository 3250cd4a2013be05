import { foldName, sitesWith, type StaffMember } from '$core/access';
import { keyInWords, type Paper, type Question } from '$core/paper';
import type { Query } from '../db';
import { ownVersions } from './drafts';
import { paperVersion } from './paper';

/** A question of another paper, with where it stands there. */
export type FoundQuestion = { paper: string; question: Question };

const MOST = 60;

/**
 * Questions of the papers that somebody may write, newest state of each, that have every word of the text in what is asked,
 * its choices, its key or its topic. Without a word, the first of all. A question that stands in several papers is found once.
 * @param without the draft that asks: its own are left out
 */
export async function findQuestions(
	db: Query,
	staff: StaffMember,
	text: string,
	without: string
): Promise<FoundQuestion[]> {
	const words = text.split(/\s+/).map(foldName).filter(Boolean);
	const found = new Map<string, FoundQuestion>();
	const own = await db('paper_draft').where({ id: without }).first('content');
	const here = new Set(own ? questionsOf(JSON.parse(own.content)).map(({ id }) => id) : []);
	for await (const paper of papersOf(db, staff, without))
		for (const question of questionsOf(paper)) {
			if (here.has(question.id) || found.has(question.id)) continue;
			const said = foldName(saidIn(question));
			if (words.every((word) => said.includes(word))) found.set(question.id, { paper: paper.title, question });
			if (found.size === MOST) return [...found.values()];
		}
	return [...found.values()];
}

/** What is being written first, then the latest version of each paper that is not. */
async function* papersOf(db: Query, staff: StaffMember, without: string): AsyncGenerator<Paper> {
	const sites = sitesWith(staff, 'write_papers');
	const drafts: { id: string; title: string }[] = await db('paper_draft')
		.modify((query) => {
			if (sites !== null) query.whereIn('site_id', sites);
		})
		.orderBy('title')
		.select('id', 'title');
	for (const { id } of drafts) {
		if (id === without) continue;
		const row = await db('paper_draft').where({ id }).first('content');
		if (row) yield JSON.parse(row.content);
	}
	const written = new Set(drafts.map(({ title }) => title));
	const versions: { id: string; title: string }[] = await db('paper')
		.modify((query) => {
			if (sites !== null) query.whereIn('id', ownVersions(db, sites));
		})
		.orderBy([{ column: 'title' }, { column: 'version', order: 'desc' }])
		.select('id', 'title');
	for (const { id, title } of versions) {
		if (written.has(title)) continue;
		written.add(title);
		yield (await paperVersion(db, id)).content;
	}
}

const questionsOf = (paper: Paper): Question[] => paper.parts.flatMap(({ questions }) => questions);

function saidIn(question: Question): string {
	const choices = 'choices' in question ? question.choices.map(({ text }) => text) : [];
	return [question.stem, question.topic, keyInWords(question), ...choices].join(' ');
}
