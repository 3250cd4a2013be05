import { questionsOf } from '$core/paper';
import type { StaffMember } from '$core/access';
import { met, type Filling } from '$core/plan';
import type { Paper, Question } from '$core/paper';
import { fail } from '$core/problem';
import type { Query } from '../db';
import type { House } from '../house';
import { choose, type ChoosableRow } from './choosing';
import { joinSat, whereMayUse, writerOf } from './ownership';

/** More than any plan looks through. */
const MOST = 20_000;

/**
 * What the bank would add to a paper so that its plan is met: what is there already counts. Questions that were sat lately,
 * or that another paper of the present administration has, are taken last.
 * @param minutes how long what is added should take; null: it does not matter
 * @throws ProblemError not_taken
 */
export async function fillFromBank(
	otium: Pick<House, 'db' | 'now' | 'threads'>,
	staff: StaffMember,
	paper: Paper,
	minutes: number | null,
	signal?: AbortSignal
): Promise<Filling> {
	const here = questionsOf(paper);
	const plan = paper.plan ?? [];
	const there = met(here, plan);
	const wanted = plan.map((cell, i) => ({ ...cell, count: Math.max(0, cell.count - there[i]) }));
	if (wanted.every(({ count }) => count === 0)) fail('not_taken', { message: 'Everything that is planned is there.' });
	const now = otium.now();
	const rows = await choosable(otium.db, staff, paper.title, now);
	const inPaper = new Set(here.map(({ id }) => id));
	const bank = rows.filter(({ id }) => !inPaper.has(id));
	const choice = {
		bank: bank.map(({ content, lastUsed, isKnown }) => ({ content, lastUsed, isKnown })),
		plan: wanted,
		minutes,
		now
	};
	const filled = await choose(otium, choice, signal);
	if (!filled) fail('not_taken', { message: 'No choice was found in time. Plan fewer topics at once.' });
	const { ids, ...rest } = filled;
	const byId = new Map(bank.map(({ id, content }) => [id, content]));
	return {
		questions: ids.flat().map((id): Question => JSON.parse(byId.get(id)!)),
		...rest
	};
}

async function choosable(
	db: Query,
	staff: StaffMember,
	title: string,
	now: number
): Promise<(ChoosableRow & { id: string })[]> {
	const rows: { id: string; content: string }[] = await db('question')
		.modify((query) => whereMayUse(db, query, writerOf(staff)))
		.whereNull('retired_at')
		.limit(MOST)
		.select('id', 'content');
	const used: { question_id: string; last: number }[] = await db('question_use')
		.join('session', joinSat('question_use.paper_id', now))
		.groupBy('question_id')
		.select('question_id')
		.max('session.opens as last');
	const latest = await db('administration').orderBy('made_at', 'desc').first('id');
	const known: string[] = latest
		? await db('question_use')
				.join('paper', 'paper.id', 'question_use.paper_id')
				.join('session', 'session.paper_id', 'paper.id')
				.where('session.administration_id', latest.id)
				.whereNot('paper.title', title)
				.distinct('question_id')
				.pluck('question_id')
		: [];
	const lastUsed = new Map(used.map(({ question_id, last }) => [question_id, last]));
	const isKnown = new Set(known);
	return rows.map(({ id, content }) => ({
		id,
		content,
		lastUsed: lastUsed.get(id) ?? null,
		isKnown: isKnown.has(id)
	}));
}
