import type { AnswerValue } from '$core/paper';
import { appendAnswers, type AnswerRow, type Query, type StandingRow } from '../db';

/** One revision of one answer, as the device sent it. */
export type Revision = {
	/** The device's own sequence number, from 1. */
	seq: number;
	questionId: string;
	value: AnswerValue;
	/** Marked for later. */
	marked: boolean;
	struck: string[];
	/** How long the question has been in view altogether. */
	inViewMs: number;
};

/** Why a revision is kept but does not stand. */
export type Kept = 'after_end' | 'freed_device';

type Save = { sittingId: string; epoch: number; revisions: Revision[] };
type Verdict = { kept: Kept | null; late: boolean; sessionId: string };
type Sitting = {
	id: string;
	device_epoch: number | null;
	deadline: number | null;
	answers_until: number | null;
	session_id: string;
	state: string;
};

/**
 * Writes a group of saves within a transaction. Every revision is kept; the one that stands for a question is the one
 * with the highest device and sequence number, so that what is repeated or comes late changes nothing.
 */
export async function writeGroup(trx: Query, saves: Save[], now: number): Promise<Verdict[]> {
	const ids = [...new Set(saves.map((save) => save.sittingId))];
	const rows: Sitting[] = await trx('sitting')
		.whereIn('id', ids)
		.select('id', 'device_epoch', 'deadline', 'answers_until', 'session_id', 'state');
	const sittings = new Map(rows.map((row) => [row.id, row]));
	const verdicts = saves.map((save) => judge(sittings.get(save.sittingId)!, save.epoch, now));

	const answers = saves.flatMap((save, i) => save.revisions.map((revision) => toRow(save, revision, verdicts[i], now)));
	const isNew = await appendAnswers(trx, answers, standingOf, now);
	let from = 0;
	return verdicts.map((verdict, i) => {
		const mine = isNew.slice(from, (from += saves[i].revisions.length));
		// Sent again after its acknowledgement was lost: it was taken then, whatever has ended since.
		return mine.some(Boolean) ? verdict : { ...verdict, kept: null };
	});
}

function judge(sitting: Sitting, epoch: number, now: number): Verdict {
	const late = sitting.deadline !== null && now > sitting.deadline;
	const verdict = { late, sessionId: sitting.session_id };
	if (sitting.device_epoch !== epoch) {
		return { ...verdict, kept: sitting.state === 'carried_over' ? 'after_end' : 'freed_device' };
	}
	return { ...verdict, kept: sitting.answers_until !== null && now > sitting.answers_until ? 'after_end' : null };
}

function toRow(save: Save, revision: Revision, verdict: Verdict, now: number): AnswerRow {
	return {
		sitting_id: save.sittingId,
		epoch: save.epoch,
		seq: revision.seq,
		question_id: revision.questionId,
		value: JSON.stringify({ value: revision.value, marked: revision.marked, struck: revision.struck }),
		in_view_ms: revision.inViewMs,
		received_at: now,
		late: verdict.late ? 1 : 0,
		kept_because: verdict.kept
	};
}

function standingOf(row: AnswerRow): StandingRow | null {
	if (row.kept_because !== null) return null;
	const { value, marked } = JSON.parse(row.value) as { value: AnswerValue; marked: boolean };
	const { sitting_id, question_id, epoch, seq, in_view_ms, late } = row;
	const blank = isBlank(value) ? 1 : 0;
	return { sitting_id, question_id, epoch, seq, value: row.value, blank, marked: marked ? 1 : 0, in_view_ms, late };
}

function isBlank(value: AnswerValue): boolean {
	return value === null || (typeof value === 'string' && value.trim() === '');
}
