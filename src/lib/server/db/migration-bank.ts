import { createHash } from 'node:crypto';
import type { Knex } from 'knex';
import { foldName } from '$core/access';
import { questionsOf, saidIn, type Paper, type Question } from '$core/paper';
import { canonicalJson } from './canonical-json';
import type { Migration } from './migrations';

/** The bank: each question with its revisions, who may use it, what colleagues remark, and which papers have it. */
export const bank: Migration = {
	name: '014-bank',
	async up(db: Knex) {
		await db.schema.createTable('question', (t) => {
			t.string('id').primary();
			// Whose it is; null: of all sites.
			t.string('site_id').references('site.id').index();
			t.string('owner');
			t.string('audience').notNullable();
			// As it is now: the content of its latest revision, and what lists and searches need of it.
			t.integer('revision').notNullable();
			t.text('content').notNullable();
			t.string('digest').notNullable();
			t.string('kind').notNullable();
			t.string('topic').notNullable().index();
			t.string('difficulty');
			t.float('points').notNullable();
			// Tags between commas, the paper's own language left out: `,pt,`.
			t.string('languages').notNullable();
			t.text('said').notNullable();
			t.bigInteger('changed_at').notNullable().index();
			t.string('changed_by');
			// Not offered any more; what has it keeps it.
			t.bigInteger('retired_at');
		});
		await db.schema.createTable('question_revision', (t) => {
			t.string('question_id').notNullable().references('question.id');
			t.integer('revision').notNullable();
			t.text('content').notNullable();
			t.string('digest').notNullable();
			t.bigInteger('at').notNullable();
			t.string('by');
			t.primary(['question_id', 'revision']);
		});
		await db.schema.createTable('question_reader', (t) => {
			t.string('question_id').notNullable().references('question.id');
			t.string('staff_id').notNullable().references('staff.id');
			t.primary(['question_id', 'staff_id']);
		});
		await db.schema.createTable('question_remark', (t) => {
			t.string('id').primary();
			t.string('question_id').notNullable().references('question.id').index();
			t.text('text').notNullable();
			t.bigInteger('at').notNullable();
			t.string('by').notNullable();
			t.bigInteger('settled_at');
			t.string('settled_by');
		});
		await db.schema.createTable('question_use', (t) => {
			t.string('question_id').notNullable().references('question.id');
			t.string('paper_id').notNullable().references('paper.id').index();
			t.primary(['question_id', 'paper_id']);
		});
		await fill(db);
	}
};

/** Every question of every frozen version, the latest version's as it is now; for the authors who could read them before. */
async function fill(db: Knex) {
	const versions: { id: string; content: string; draft_id: string | null; frozen_at: number | null }[] = await db(
		'paper'
	)
		.orderBy(['title', 'version'])
		.select('id', 'content', 'draft_id', 'frozen_at');
	const known = new Map<string, { revision: number; digests: Set<string> }>();
	for (const version of versions) {
		const siteId = await siteOf(db, version);
		const at = version.frozen_at ?? Date.now();
		const paper: Paper = JSON.parse(version.content);
		for (const question of questionsOf(paper)) {
			const content = canonicalJson(question);
			const digest = createHash('sha256').update(content).digest('hex');
			const before = known.get(question.id);
			if (!before?.digests.has(digest)) {
				const revision = (before?.revision ?? 0) + 1;
				const now = { revision, content, digest, ...columnsOf(question), changed_at: at };
				if (before) await db('question').where({ id: question.id }).update(now);
				else await db('question').insert({ id: question.id, site_id: siteId, audience: 'site', ...now });
				await db('question_revision').insert({ question_id: question.id, revision, content, digest, at });
				known.set(question.id, { revision, digests: (before?.digests ?? new Set()).add(digest) });
			}
			await db('question_use').insert({ question_id: question.id, paper_id: version.id });
		}
	}
}

/** The one site at which a version was written or may be sat; null: there are several, or none. */
async function siteOf(db: Knex, version: { id: string; draft_id: string | null }): Promise<string | null> {
	if (version.draft_id !== null)
		return (await db('paper_draft').where({ id: version.draft_id }).first('site_id'))?.site_id ?? null;
	const allowed: { site_id: string | null; group_site: string | null }[] = await db('paper_allowed')
		.leftJoin('candidate_group', 'candidate_group.id', 'paper_allowed.group_id')
		.where({ paper_id: version.id })
		.select('paper_allowed.site_id', 'candidate_group.site_id as group_site');
	const sites = new Set(allowed.map((row) => row.site_id ?? row.group_site));
	return sites.size === 1 ? [...sites][0] : null;
}

/** What lists and searches need of a question, as it was kept when the bank was made. */
function columnsOf(question: Question) {
	return {
		kind: question.kind,
		topic: question.topic,
		difficulty: question.difficulty ?? null,
		points: question.points,
		languages: `,${Object.keys(question.inOther ?? {}).join(',')},`,
		said: saidIn(question).split(/\s+/).map(foldName).join(' ')
	};
}
