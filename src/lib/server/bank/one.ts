import { nanoid } from 'nanoid';
import type { StaffMember } from '$core/access';
import {
	likeness,
	mayChange,
	mayUse,
	NEARLY_THE_SAME,
	wordsOf,
	writesAt,
	type Audience,
	type BankQuestion,
	type Ownership
} from '$core/bank';
import type { Question } from '$core/paper';
import { fail } from '$core/problem';
import type { Actor } from '$core/sitting';
import { transact, whereEveryWord, type Query } from '../db';
import type { Writing } from '../house';
import { appendToLogbook } from '../logbook';
import { joinSat, ownershipOf, whereMayUse, writerOf } from './ownership';
import { folded, writeRevision, type Latest } from './write-revision';

/** A question of the bank with all that is known of it. @throws ProblemError not_found, also where somebody may not use it */
export async function bankQuestion(db: Query, staff: StaffMember, id: string, now: number): Promise<BankQuestion> {
	const ownership = await usable(db, staff, id);
	const row = await db('question').where({ id }).first('content', 'retired_at');
	const question: Question = JSON.parse(row.content);
	const revisions: { revision: number; content: string; at: number; name: string | null }[] = await db(
		'question_revision'
	)
		.leftJoin('staff', 'staff.id', 'question_revision.by')
		.where({ question_id: id })
		.orderBy('revision', 'desc')
		.select('revision', 'content', 'at', 'staff.name');
	const remarks: { id: string; text: string; at: number; name: string; settled_at: number | null }[] = await db(
		'question_remark'
	)
		.leftJoin('staff', 'staff.id', 'question_remark.by')
		.where({ question_id: id })
		.orderBy('at')
		.select('question_remark.id', 'text', 'at', 'staff.name', 'settled_at');
	const { revision, digest: _, ...whose } = ownership;
	return {
		question,
		revision,
		ownership: whose,
		mayChange: mayChange(ownership, writerOf(staff)),
		isRetired: row.retired_at !== null,
		revisions: revisions.map((one) => ({
			revision: one.revision,
			question: JSON.parse(one.content),
			at: one.at,
			by: one.name ?? ''
		})),
		remarks: remarks.map(({ id, text, at, name, settled_at }) => ({ id, text, at, by: name, settledAt: settled_at })),
		papers: await papersWith(db, id, now),
		did: await didBefore(db, id),
		alike: await alikeTo(db, staff, question)
	};
}

async function papersWith(db: Query, id: string, now: number): Promise<BankQuestion['papers']> {
	const rows: { title: string; version: number; sessions: number; last: number | null }[] = await db('question_use')
		.join('paper', 'paper.id', 'question_use.paper_id')
		.leftJoin('session', joinSat('paper.id', now))
		.where({ question_id: id })
		.groupBy('paper.id')
		.orderBy([{ column: 'title' }, { column: 'version', order: 'desc' }])
		.select('title', 'version')
		.count('session.id as sessions')
		.max('session.opens as last');
	return rows.map(({ title, version, sessions, last }) => ({
		title,
		version,
		sessions: Number(sessions),
		lastOpened: last
	}));
}

/** Words that are looked for, and how many that have one of them are compared. */
const TELLING_WORDS = 3;
const MOST_COMPARED = 400;
const MOST_ALIKE = 5;

/**
 * Questions that ask nearly the same: of those that share one of the three longest words, which are seldom the common
 * ones. A copy that replaced all three is not found.
 */
export async function alikeTo(
	db: Query,
	staff: StaffMember,
	question: Question
): Promise<{ id: string; question: Question }[]> {
	const words = [...new Set(wordsOf(question.stem))].sort((a, b) => b.length - a.length).slice(0, TELLING_WORDS);
	if (words.length === 0) return [];
	const rows: { id: string; content: string }[] = await db('question')
		.modify((query) => whereMayUse(db, query, writerOf(staff)))
		.whereNot('id', question.id)
		.where((any) => words.forEach((word) => any.orWhere((one) => whereEveryWord(one, folded(word), ['said']))))
		.limit(MOST_COMPARED)
		.select('id', 'content');
	return rows
		.map((row) => ({ id: row.id, question: JSON.parse(row.content) as Question }))
		.map((one) => ({ ...one, like: likeness(one.question.stem, question.stem) }))
		.filter(({ like }) => like >= NEARLY_THE_SAME)
		.sort((a, b) => b.like - a.like)
		.slice(0, MOST_ALIKE)
		.map(({ id, question }) => ({ id, question }));
}

export type BankChange = {
	question: Question;
	/** The revision that was read; null: it is new. */
	revision: number | null;
	siteId: string | null;
	audience: Audience;
	named: string[];
};

/**
 * Keeps a question of the bank as its next revision, or as a new one. Papers that have it keep theirs.
 * @throws ProblemError not_yours, not_found, paper_changed (somebody has revised it since)
 */
export async function saveBankQuestion(
	otium: Writing,
	staff: StaffMember,
	by: Actor,
	{ question, revision, siteId, audience, named }: BankChange
): Promise<{ revision: number }> {
	if (!writesAt(siteId, writerOf(staff))) fail('not_yours');
	return transact(otium.db, async (trx) => {
		const now = otium.now();
		const there = await ownershipOf(trx, question.id);
		if (there) mustBeChangeable(there, staff);
		if ((there?.revision ?? null) !== revision) fail('paper_changed');
		const whose = { site_id: siteId, audience, ...(there ? {} : { owner: staff.id }) };
		const next = await writeRevision(trx, question, there, { at: now, by: staff.id, whose });
		await trx('question_reader').where({ question_id: question.id }).delete();
		const known: string[] = await trx('staff')
			.whereIn('id', audience === 'named' ? named : [])
			.pluck('id');
		for (const staff_id of known) await trx('question_reader').insert({ question_id: question.id, staff_id });
		await appendToLogbook(trx, [
			{ at: now, by, kind: 'question_kept', body: { question: question.id, revision: next, audience } }
		]);
		return { revision: next };
	});
}

/** Adds a remark that everyone who may use the question sees. @throws ProblemError not_found */
export async function remark(otium: Writing, staff: StaffMember, id: string, text: string): Promise<void> {
	await transact(otium.db, async (trx) => {
		await usable(trx, staff, id);
		await trx('question_remark').insert({ id: nanoid(), question_id: id, text, at: otium.now(), by: staff.id });
	});
}

/** Settles a remark, or opens it again. @throws ProblemError not_found */
export async function settleRemark(
	otium: Writing,
	staff: StaffMember,
	id: string,
	remarkId: string,
	isSettled: boolean
): Promise<void> {
	await transact(otium.db, async (trx) => {
		await usable(trx, staff, id);
		const changed = await trx('question_remark')
			.where({ id: remarkId, question_id: id })
			.update({ settled_at: isSettled ? otium.now() : null, settled_by: isSettled ? staff.id : null });
		if (changed === 0) fail('not_found');
	});
}

/** What can be changed of many at once; what is left out stays. */
export type BulkChange = {
	points?: number;
	topic?: string;
	difficulty?: Question['difficulty'] | 'none';
	audience?: Exclude<Audience, 'named'>;
	retired?: boolean;
};

/**
 * Changes many questions at once, those that somebody may change: each gets a revision of its own where its content changes.
 * @returns how many were changed, and how many are somebody else's
 */
export async function changeMany(
	otium: Writing,
	staff: StaffMember,
	by: Actor,
	ids: string[],
	change: BulkChange
): Promise<{ changed: number; notYours: number }> {
	return transact(otium.db, async (trx) => {
		const now = otium.now();
		const writer = writerOf(staff);
		let [changed, notYours] = [0, 0];
		for (const id of new Set(ids)) {
			const there = await ownershipOf(trx, id);
			if (!there || !mayChange(there, writer)) {
				notYours++;
				continue;
			}
			const { content } = await trx('question').where({ id }).first('content');
			const whose = {
				...(change.audience ? { audience: change.audience } : {}),
				...(change.retired === undefined ? {} : { retired_at: change.retired ? now : null })
			};
			await writeRevision(trx, changedBy(JSON.parse(content), change), there, { at: now, by: staff.id, whose });
			changed++;
		}
		if (changed > 0)
			await appendToLogbook(trx, [{ at: now, by, kind: 'questions_changed', body: { questions: changed, ...change } }]);
		return { changed, notYours };
	});
}

function changedBy(question: Question, { points, topic, difficulty }: BulkChange): Question {
	const changed: Question = { ...question };
	if (points !== undefined) changed.points = points;
	if (topic !== undefined) changed.topic = topic;
	if (difficulty === 'none') delete changed.difficulty;
	else if (difficulty !== undefined) changed.difficulty = difficulty;
	return changed;
}

/** Whose it is, for somebody who may use it. */
async function usable(db: Query, staff: StaffMember, id: string): Promise<Ownership & Latest> {
	const ownership = await ownershipOf(db, id);
	if (!ownership || !mayUse(ownership, writerOf(staff))) fail('not_found');
	return ownership;
}

function mustBeChangeable(ownership: Ownership, staff: StaffMember): void {
	if (!mayUse(ownership, writerOf(staff))) fail('not_found');
	if (!mayChange(ownership, writerOf(staff))) fail('not_yours');
}

/** How it did wherever it was sat and closed, latest first. */
async function didBefore(db: Query, id: string): Promise<BankQuestion['did']> {
	return db('question_figure')
		.join('paper', 'paper.id', 'question_figure.paper_id')
		.join('administration', 'administration.id', 'question_figure.administration_id')
		.where({ question_id: id })
		.orderBy('at', 'desc')
		.select(
			'paper.title as paper',
			'administration.name as administration',
			'seen',
			'facility',
			'discrimination',
			'median_ms as medianMs'
		);
}
