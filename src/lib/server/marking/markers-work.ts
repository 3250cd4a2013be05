import { type HandPlan, handStanding } from '$core/by-hand';
import type { AnswerValue, Question } from '$core/paper';
import { fail } from '$core/problem';
import { macOf, openSecret, type Query, sealSecret } from '../db';
import { paperVersion } from '../paper';
import { type Beside, besideEach } from './beside';
import { countingSittings } from './results-of';
import { answersTo, type Asked, handQuestions, planFor, type ToMark } from './by-hand';

/** What a marker does next, and what of it they have done. */
export type MarkersWork = {
	question: Question;
	plan: HandPlan;
	/** Those that wait for this person, in an order drawn for them; the one that they decide between two comes with both. */
	queue: {
		key: string;
		label: string;
		value: AnswerValue;
		turn: 'first' | 'second' | 'third';
		others: number[];
		/** Of a question that goes with another: that one. */
		beside: Beside | null;
	}[];
	/** Their own marks, latest first. */
	done: { id: string; key: string; label: string; value: AnswerValue; points: number; at: number }[];
};

/**
 * Answers go by a name that says nothing of the sitting, and is another for each question. It follows from a key of the
 * house: whoever knows the sittings of a room can't work it out.
 */
export function labelOf(db: Query, sittingId: string, questionId: string): string {
	const mark = Buffer.from(macOf(db, 'marks', `blind ${sittingId} ${questionId}`), 'base64url');
	return mark.readBigUInt64BE().toString(36).slice(-5).toUpperCase().padStart(5, '0');
}

/** What a marker's page calls an answer by, and only the house can open. */
function keyOf(db: Query, sittingId: string, questionId: string): string {
	return sealSecret(db, `marking ${questionId} ${sittingId}`);
}

function openKey(db: Query, questionId: string, key: string): string | null {
	const text = openSecret(db, key);
	const before = `marking ${questionId} `;
	return text?.startsWith(before) && text !== key ? text.slice(before.length) : null;
}

/** The work of one marker at one question. */
export async function workOfMarker(db: Query, marker: string, asked: Asked): Promise<MarkersWork> {
	const question = (await handQuestions(db, asked.paperId)).find(({ id }) => id === asked.questionId);
	if (!question) fail('not_found');
	const answers = await answersOf(db, asked);
	const { plan } = await planFor(db, asked);
	const named = (sittingId: string) => ({
		key: keyOf(db, sittingId, asked.questionId),
		label: labelOf(db, sittingId, asked.questionId)
	});
	const waiting = answers
		.flatMap(({ sittingId, value, marks }) => {
			const standing = handStanding(plan, asked.questionId, sittingId, marks);
			if (standing.state === 'settled' || !standing.next.includes(marker)) return [];
			const others = standing.state === 'third' ? marks.map(({ points }) => points) : [];
			return [{ value, turn: standing.state, others, sittingId }];
		})
		.map((one) => ({ ...one, place: macOf(db, 'marks', `queue ${marker} ${asked.questionId} ${one.sittingId}`) }))
		.sort((a, b) => (a.place < b.place ? -1 : 1));
	const { content } = await paperVersion(db, asked.paperId);
	const beside = await besideEach(
		db,
		content,
		question,
		waiting.map(({ sittingId }) => sittingId)
	);
	const queue = waiting.map(({ sittingId, place: _place, ...one }) => ({
		...one,
		...named(sittingId),
		beside: beside.get(sittingId) ?? null
	}));
	const done = answers
		.flatMap(({ sittingId, value, marks }) =>
			marks
				.filter((mark) => mark.marker === marker)
				.map(({ id, points, at }) => ({ id, ...named(sittingId), value, points, at }))
		)
		.sort((a, b) => b.at - a.at);
	return { question, plan, queue, done };
}

/** @param sittingId of one alone */
async function answersOf(db: Query, asked: Asked, sittingId?: string): Promise<ToMark[]> {
	const sittings = await countingSittings(db, (query) => {
		query.where({ 'sitting.administration_id': asked.administrationId, 'sitting.paper_id': asked.paperId });
		if (sittingId !== undefined) query.where('sitting.id', sittingId);
	});
	return answersTo(db, asked, sittings);
}

/** The answer that a marker names by its key; null: there is none by it. */
export async function answerOfKey(db: Query, asked: Asked, key: string): Promise<ToMark | null> {
	const sittingId = openKey(db, asked.questionId, key);
	return sittingId === null ? null : ((await answersOf(db, asked, sittingId))[0] ?? null);
}

/** The sitting of a key; null: there is none, or its answer is not this person's to read. */
export async function sittingOfKey(db: Query, asked: Asked, key: string, marker: string): Promise<string | null> {
	const { plan } = await planFor(db, asked);
	const one = await answerOfKey(db, asked, key);
	if (!one) return null;
	const standing = handStanding(plan, asked.questionId, one.sittingId, one.marks);
	const isTheirs = standing.next.some((next) => next === marker) || one.marks.some((mark) => mark.marker === marker);
	return isTheirs ? one.sittingId : null;
}
