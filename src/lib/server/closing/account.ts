import { addUp, type Ledger } from '$core/closing';
import { markForm, type Score } from '$core/marking';
import type { Form, Paper } from '$core/paper';
import type { SittingState } from '$core/sitting';
import { standingAnswers } from '../answers/read';
import type { Query } from '../db';
import type { Session } from '../session';

/** A candidate's line in the account of a session. */
export type Line = {
	sittingId: string;
	number: string;
	name: string;
	seat: string | null;
	state: SittingState;
	answered: number;
	questions: number;
	/** null: nothing to mark, or it counts nothing. */
	score: Score | null;
	receipt: string | null;
	endedAt: number | null;
	reason: string | null;
};

export type Account = { ledger: Ledger; lines: Line[] };

type Row = {
	sitting_id: string;
	session_id: string;
	seat: string | null;
	outcome: SittingState | null;
	state: SittingState;
	fold: string;
	answered: number | null;
	number: string;
	given: string;
	family: string;
	form: string | null;
};

/** Everyone who was expected in a session, where they stand in it, and what they reached. */
export async function accountFor(db: Query, session: Session): Promise<Account> {
	const roster: { sitting_id: string }[] = await db('roster').where({ session_id: session.id }).select('sitting_id');
	const rows: Row[] = await db('roster')
		.join('sitting', 'sitting.id', 'roster.sitting_id')
		.join('candidate', 'candidate.id', 'sitting.candidate_id')
		.leftJoin('form', 'form.sitting_id', 'sitting.id')
		.leftJoin('progress', 'progress.sitting_id', 'sitting.id')
		.where({ 'roster.session_id': session.id })
		.orderBy(['candidate.family', 'candidate.given'])
		.select(
			'roster.sitting_id',
			'roster.seat',
			'roster.outcome',
			'sitting.session_id',
			'sitting.state',
			'sitting.fold',
			'progress.answered',
			'candidate.number',
			'candidate.given',
			'candidate.family',
			'form.form'
		);
	const { content } = (await db('paper').where({ id: session.paper.id }).first('content')) as { content: string };
	const paper: Paper = JSON.parse(content);
	const answers = await standingAnswers(
		db,
		rows.map((row) => row.sitting_id)
	);

	const lines = rows.map((row): Line => {
		const fold = JSON.parse(row.fold);
		const movedOn = row.session_id !== session.id;
		const state = movedOn ? (row.outcome ?? 'carried_over') : row.state;
		const form: Form | null = row.form ? JSON.parse(row.form) : null;
		const given = new Map((answers.get(row.sitting_id) ?? []).map((answer) => [answer.questionId, answer.value]));
		const isScored = !movedOn && (state === 'handed_in' || state === 'time_up');
		return {
			sittingId: row.sitting_id,
			number: row.number,
			name: `${row.given} ${row.family}`,
			seat: row.seat,
			state,
			answered: row.answered ?? 0,
			questions: form?.questions.length ?? 0,
			score: form && isScored ? markForm(paper, form, given, session.rules.marking) : null,
			receipt: movedOn ? null : (fold.ended?.receipt ?? null),
			endedAt: movedOn ? null : (fold.ended?.at ?? null),
			reason: fold.reason
		};
	});
	const ledger = addUp(
		roster.map((row) => row.sitting_id),
		lines.map((line) => ({ id: line.sittingId, state: line.state }))
	);
	return { ledger, lines };
}
