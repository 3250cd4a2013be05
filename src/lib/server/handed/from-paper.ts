import { isBlank, printedDeal, readTyped, typedFrom, type Form, type FormQuestion } from '$core/paper';
import { fullName } from '$core/names';
import { fail } from '$core/problem';
import { STATE_NAMES, type Actor, type SittingState } from '$core/sitting';
import { addAnswers, givenIn } from '../answers';
import { transact, type Query } from '../db';
import type { Acting } from '../house';
import { appendToLogbook } from '../logbook';
import { paperVersion } from '../records';
import { newReceipt } from '../session';
import { actIn, formOf, loadSitting, tell, type Loaded, type Touched } from '../sitting';

/** A question as somebody types in what was written to it. */
export type ToType = {
	/** As it stands on the paper that was written on, whose letters are meant. */
	question: FormQuestion;
	/** What counts now, as it would be typed. */
	typed: string;
	/** It is not among theirs: another draw was printed than the one that they were dealt. */
	isForeign: boolean;
};
export type PaperToType = {
	name: string;
	state: SittingState;
	/** Nothing of theirs is here yet: what is typed in makes them handed in. */
	isNew: boolean;
	/** The printed form whose letters are meant; null: theirs, as it stood on their screen. */
	form: number | null;
	questions: ToType[];
};

/** What can be typed in for this sitting. @param form a printed form; null: their own, where they have one */
export async function paperToType(db: Query, one: Loaded, form: number | null): Promise<PaperToType> {
	const { sitting, candidate } = one;
	mustBeOver(one);
	const own = await formOf(db, sitting.id);
	const written = await writtenOn(db, one, own, form);
	const given = await givenIn(db, sitting.id);
	const mine = own && new Set(own.questions.map(({ id }) => id));
	return {
		name: fullName(candidate),
		state: sitting.state,
		isNew: sitting.state === 'absent',
		form: written.number,
		questions: written.questions.map((question) => ({
			question,
			typed: typedFrom(question, given.get(question.id)?.value ?? null),
			isForeign: mine !== null && !mine.has(question.id)
		}))
	};
}

/** What was written on: this printed form, or their own; the first printed one where they have none. */
async function writtenOn(
	db: Query,
	one: Loaded,
	own: Form | null,
	form: number | null
): Promise<Form & { number: number | null }> {
	if (form === null && own) return { ...own, number: null };
	const number = form ?? 1;
	return { ...printedDeal((await paperVersion(db, one.paperId)).content, number), number };
}

/**
 * Keeps what somebody wrote on paper, typed in by staff: each changed answer is a revision like any other, and the log says
 * whose hand it was. Who was absent here is handed in by it, with the printed form as theirs.
 * @param answers as typed, with what stood there before: nothing is written over that somebody else has changed meanwhile
 * @returns how many of them stand as typed: all
 */
export async function typeFromPaper(
	otium: Acting,
	by: Actor,
	sittingId: string,
	asked: {
		id: string;
		form: number | null;
		reason: string;
		answers: { questionId: string; text: string; before: string }[];
	}
): Promise<number> {
	const now = otium.now();
	const touched: Touched = new Map();
	const answeredIn = await transact(otium.db, async (trx) => {
		const one = (await loadSitting(trx, sittingId, now)) ?? fail('not_found');
		mustBeOver(one);
		// The same once more, after its answer was lost.
		if (one.sitting.commandIds.some((id) => id.endsWith(` ${asked.id}`))) return null;
		const own = await formOf(trx, sittingId);
		const { number, ...written } = await writtenOn(trx, one, own, asked.form);
		const given = await givenIn(trx, sittingId);
		const mine = new Set((own ?? written).questions.map(({ id }) => id));
		const changed = asked.answers.flatMap(({ questionId, text, before }) => {
			const at = written.questions.findIndex(({ id }) => id === questionId);
			const question = written.questions[at];
			if (!question || !mine.has(questionId)) fail('not_found');
			const stands = typedFrom(question, given.get(questionId)?.value ?? null);
			if (stands === text.trim()) return [];
			if (stands !== before)
				fail('changed_meanwhile', {
					message: `Somebody else has just typed in question ${at + 1}: “${stands}”.`,
					instead: 'Reload the page, compare, and type in what is missing.'
				});
			const read = readTyped(question, text);
			if (!read.ok) fail('not_taken', { message: `Question ${at + 1}: ${read.why}` });
			return [{ questionId, value: read.value }];
		});
		const isNew = one.sitting.state === 'absent';
		if (isNew) {
			if (changed.every(({ value }) => isBlank(value)))
				fail('not_taken', {
					message: 'Nothing is typed in.',
					instead: 'Type in what they wrote. Who wrote nothing stays absent.'
				});
			if (!own) await trx('form').insert({ sitting_id: sittingId, form: JSON.stringify(written) });
		}
		await addAnswers(trx, sittingId, changed, now);
		if (isNew) {
			const body = { kind: 'take_from_paper' as const, receipt: newReceipt(), reason: asked.reason };
			const [outcome] = await actIn(trx, now, [{ id: asked.id, sittingId, by, body }], touched);
			if (!outcome.ok) fail('refused', { message: outcome.refusal.message, instead: outcome.refusal.instead });
		}
		if (changed.length === 0) return null;
		await appendToLogbook(trx, [
			{
				at: now,
				by,
				kind: 'typed_from_paper',
				sessionId: one.session.id,
				sittingId,
				body: { answers: changed.length, form: number, reason: asked.reason }
			}
		]);
		return one.session.id;
	});
	tell(otium, touched);
	if (answeredIn !== null) otium.hub.answered([{ sittingId, sessionId: answeredIn }]);
	return asked.answers.length;
}

function mustBeOver({ sitting, session, candidate }: Loaded): void {
	if (['handed_in', 'time_up'].includes(sitting.state)) return;
	if (sitting.state === 'absent' && session.endedAt !== null) return;
	fail('not_taken', {
		message: `${fullName(candidate)} is ${STATE_NAMES[sitting.state].toLowerCase()} in ${session.name}.`,
		instead: 'What was written on paper is typed in once their work, or the session, is over.'
	});
}
