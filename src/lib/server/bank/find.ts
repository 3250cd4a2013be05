import type { Audience, BankLine, TopicBranch, Writer } from '$core/bank';
import { BANK_PAGE, topicTree } from '$core/bank';
import { keyInWords, type Difficulty, type Question, type QuestionKind } from '$core/paper';
import { whereEveryWord, type Query } from '../db';
import { joinSat, whereMayUse } from './ownership';
import { folded } from './write-revision';

/** What is looked for in the bank; what is left out does not matter. */
export type BankAsk = {
	text?: string;
	/** A branch of the tree of topics. */
	topic?: string;
	kind?: QuestionKind;
	difficulty?: Difficulty | 'none';
	/** A language besides the question's own. */
	language?: string;
	/** In no frozen paper, or in at least one. */
	use?: 'never' | 'used';
	/** With a remark that nobody has settled. */
	remarks?: 'open';
	/** Those that are not offered any more; otherwise they are left out. */
	retired?: boolean;
	from?: number;
};

const STEM_LETTERS = 300;

type Row = {
	id: string;
	content: string;
	kind: QuestionKind;
	topic: string;
	difficulty: Difficulty | null;
	points: number;
	audience: Audience;
	site_id: string | null;
	retired_at: number | null;
	changed_at: number;
};

function asked(db: Query, writer: Writer, ask: BankAsk) {
	return db('question').modify((query) => {
		whereMayUse(db, query, writer);
		whereEveryWord(query, folded(ask.text ?? ''), ['question.said']);
		if (ask.topic)
			query.where((branch) =>
				branch
					.where('question.topic', ask.topic!)
					// The next sign after the stroke's is a bound that no name below the branch reaches.
					.orWhere((below) =>
						below.where('question.topic', '>', `${ask.topic} / `).where('question.topic', '<', `${ask.topic} /!`)
					)
			);
		if (ask.kind) query.where('question.kind', ask.kind);
		if (ask.difficulty) query.where('question.difficulty', ask.difficulty === 'none' ? null : ask.difficulty);
		if (ask.language) query.whereLike('question.languages', `%,${ask.language.replace(/[^A-Za-z0-9-]/g, '')},%`);
		const used = db('question_use').select('question_id');
		if (ask.use === 'never') query.whereNotIn('question.id', used);
		if (ask.use === 'used') query.whereIn('question.id', used);
		if (ask.remarks === 'open')
			query.whereIn('question.id', db('question_remark').whereNull('settled_at').select('question_id'));
		if (ask.retired) query.whereNotNull('question.retired_at');
		else query.whereNull('question.retired_at');
	});
}

/** A page of the questions that somebody may use, by topic; and how many there are in all. */
export async function findInBank(
	db: Query,
	writer: Writer,
	ask: BankAsk,
	now: number
): Promise<{ total: number; lines: BankLine[] }> {
	const [{ n }] = (await asked(db, writer, ask).count('* as n')) as { n: number }[];
	const rows: Row[] = await asked(db, writer, ask)
		.orderBy(['question.topic', 'question.id'])
		.offset(ask.from ?? 0)
		.limit(BANK_PAGE)
		.select(
			'id',
			'content',
			'kind',
			'topic',
			'difficulty',
			'points',
			'audience',
			'site_id',
			'retired_at',
			'changed_at'
		);
	const ids = rows.map(({ id }) => id);
	const uses: { question_id: string; papers: number; last: number | null }[] = await db('question_use')
		.leftJoin('session', joinSat('question_use.paper_id', now))
		.whereIn('question_id', ids)
		.groupBy('question_id')
		.select('question_id')
		.countDistinct('question_use.paper_id as papers')
		.max('session.opens as last');
	const remarks: { question_id: string; n: number }[] = await db('question_remark')
		.whereIn('question_id', ids)
		.whereNull('settled_at')
		.groupBy('question_id')
		.select('question_id')
		.count('* as n');
	const useOf = new Map(uses.map((use) => [use.question_id, use]));
	const remarksOf = new Map(remarks.map((row) => [row.question_id, Number(row.n)]));
	return {
		total: Number(n),
		lines: rows.map((row) => lineOf(row, useOf.get(row.id), remarksOf.get(row.id) ?? 0))
	};
}

/** All that a search finds, as it is stored and in the order of the list; null: more than `most`. */
export async function contentsFound(db: Query, writer: Writer, ask: BankAsk, most: number): Promise<string[] | null> {
	const contents: string[] = await asked(db, writer, ask)
		.orderBy(['question.topic', 'question.id'])
		.limit(most + 1)
		.pluck('content');
	return contents.length > most ? null : contents;
}

function lineOf(row: Row, use: { papers: number; last: number | null } | undefined, openRemarks: number): BankLine {
	const question: Question = JSON.parse(row.content);
	return {
		id: row.id,
		stem: question.stem.slice(0, STEM_LETTERS),
		kind: row.kind,
		topic: row.topic,
		difficulty: row.difficulty,
		points: row.points,
		audience: row.audience,
		siteId: row.site_id,
		isRetired: row.retired_at !== null,
		changedAt: row.changed_at,
		papers: Number(use?.papers ?? 0),
		lastUsed: use?.last ?? null,
		openRemarks,
		key: keyInWords(question).slice(0, STEM_LETTERS)
	};
}

/** The tree of topics of what somebody may use. */
export async function bankTopics(db: Query, writer: Writer): Promise<TopicBranch[]> {
	const rows: { topic: string; n: number }[] = await asked(db, writer, {})
		.groupBy('topic')
		.select('topic')
		.count('* as n');
	return topicTree(rows.map(({ topic, n }) => ({ topic, count: Number(n) })));
}
