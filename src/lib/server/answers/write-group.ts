import { isBlank, NOTES, type AnswerValue, type Revision } from '$core/paper';
import { fail } from '$core/problem';
import { appendAnswers, type AnswerRow, type Query, type StandingRow } from '../db';

/** Why a revision is kept but does not stand. */
export type Kept = 'after_end' | 'freed_device' | 'unproven' | 'on_hold' | 'question_over' | 'gone_past';

/** What a candidate's device is told of a save. */
export type Saved = {
	/** Sequence numbers that are on the disk; those that were there before included. */
	seqs: number[];
	/** The receiving instant. */
	at: number;
	/** Kept with the sitting but not standing, and why. */
	kept: Kept | null;
};

/** Where each question stands on the form, from 0. */
export type Places = Map<string, number>;

type Save = { sittingId: string; epoch: number; revisions: Revision[]; places: Places; isUnproven: boolean };
type Verdict = { kept: Kept | null; late: boolean; sessionId: string };
type Sitting = {
	id: string;
	device_epoch: number | null;
	deadline: number | null;
	answers_until: number | null;
	/** Questions on a page where nobody may go back; null: they may. */
	forward_by: number | null;
	/** Until when the page that has been reached is answered; null: there is no end to it. */
	question_until: number | null;
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
		.select('id', 'device_epoch', 'deadline', 'answers_until', 'forward_by', 'question_until', 'session_id', 'state');
	const sittings = new Map(rows.map((row) => [row.id, row]));
	// One that was taken off meanwhile takes no answers.
	const verdicts = saves.map((save) => judge(sittings.get(save.sittingId) ?? fail('not_found'), save, now));

	const pages = await pagesReached(trx, saves, sittings);
	const answers = saves.flatMap((save, i) =>
		save.revisions.map((revision) => {
			const kept = verdicts[i].kept ?? pages.turnTo(save, revision, now);
			return toRow(save, revision, { ...verdicts[i], kept }, now);
		})
	);
	const isNew = await appendAnswers(trx, answers, standingOf, now);
	let from = 0;
	return verdicts.map((verdict, i) => {
		const mine = answers.slice(from, from + saves[i].revisions.length).filter((_, nth) => isNew[from + nth]);
		from += saves[i].revisions.length;
		// Sent again after its acknowledgement was lost: it was taken then, whatever has ended since.
		return { ...verdict, kept: mine.find((row) => row.kept_because !== null)?.kept_because ?? null };
	});
}

function judge(sitting: Sitting, { epoch, isUnproven }: Save, now: number): Verdict {
	const late = sitting.deadline !== null && now > sitting.deadline;
	const verdict = { late, sessionId: sitting.session_id };
	if (sitting.device_epoch !== epoch) {
		return { ...verdict, kept: sitting.state === 'carried_over' ? 'after_end' : 'freed_device' };
	}
	if (sitting.answers_until === null || now <= sitting.answers_until)
		return { ...verdict, kept: isUnproven ? 'unproven' : null };
	return { ...verdict, kept: sitting.state === 'on_hold' ? 'on_hold' : 'after_end' };
}

/**
 * How far each candidate has come where nobody may go back: an answer to a page before that is kept and does not stand.
 * Numbers come in the order in which they were given, also after a silence.
 */
async function pagesReached(trx: Query, saves: Save[], sittings: Map<string, Sitting>) {
	const forward = saves.filter((save) => sittings.get(save.sittingId)!.forward_by !== null);
	const reached = new Map<string, number>();
	if (forward.length > 0) {
		const rows: { sitting_id: string; question_id: string }[] = await trx('answer_standing')
			.whereIn(
				'sitting_id',
				forward.map((save) => save.sittingId)
			)
			.select('sitting_id', 'question_id');
		const places = new Map(forward.map((save) => [save.sittingId, save.places]));
		for (const row of rows) {
			const place = places.get(row.sitting_id)!.get(row.question_id) ?? 0;
			reached.set(row.sitting_id, Math.max(place, reached.get(row.sitting_id) ?? 0));
		}
	}
	return {
		turnTo(save: Save, revision: Revision, now: number): Kept | null {
			const { forward_by: perPage, question_until: until } = sittings.get(save.sittingId)!;
			const place = save.places.get(revision.questionId);
			if (perPage === null || place === undefined) return null;
			const furthest = reached.get(save.sittingId) ?? 0;
			const [page, last] = [Math.floor(place / perPage), Math.floor(furthest / perPage)];
			if (page < last) return 'gone_past';
			if (page === last && until !== null && now > until) return 'question_over';
			reached.set(save.sittingId, Math.max(furthest, place));
			return null;
		}
	};
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
	return row.kept_because === null ? standingRow(row) : null;
}

/** What a revision says of the answer, if it is to stand. */
export function standingRow(row: AnswerRow): StandingRow {
	const { value, marked } = JSON.parse(row.value) as { value: AnswerValue; marked: boolean };
	const { sitting_id, question_id, epoch, seq, in_view_ms, late } = row;
	const blank = question_id === NOTES || isBlank(value) ? 1 : 0;
	return { sitting_id, question_id, epoch, seq, value: row.value, blank, marked: marked ? 1 : 0, in_view_ms, late };
}
