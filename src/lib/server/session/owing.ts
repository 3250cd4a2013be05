import type { SessionRules } from '$core/session';
import { UNFINISHED, type Sitting } from '$core/sitting';
import { localDate } from '$core/time';
import type { Query } from '../db';
import { extraAttempts } from './extra-attempts';

type Row = {
	candidate_id: string;
	state: Sitting['state'];
	fold: string;
	attempt: number;
	ended_at: number | null;
	rules: string;
};

/**
 * How many in an administration can still sit a paper, or go on with it: who is expected, at work or carried over; who
 * was absent or may sit again, until the administration's last day is over; and who has attempts left in a session that
 * goes on. Rehearsals are not
 * counted, nor is whoever is owed it no longer by a decision.
 */
export async function owingOf(db: Query, administrationId: string, paperId: string, now: number): Promise<number> {
	const rows: Row[] = await db('sitting')
		.join('session', 'session.id', 'sitting.session_id')
		.where({ 'sitting.administration_id': administrationId, 'sitting.paper_id': paperId, 'sitting.counts': 1 })
		.whereNull('sitting.next_attempt_id')
		.whereNotIn('sitting.id', db('waiver').where({ withdrawn_at: null }).select('sitting_id'))
		.select(
			'sitting.candidate_id',
			'sitting.state',
			'sitting.fold',
			'sitting.attempt',
			'session.ended_at',
			'session.rules'
		);
	const ids = rows.map((row) => row.candidate_id);
	const extra = await extraAttempts(db, ids, { administrationId, paperId, sessionId: '', opens: now });
	const makeUpsGoOn = await isGoingOn(db, administrationId, now);
	return rows.filter((row) => {
		if ((UNFINISHED as readonly string[]).includes(row.state)) return true;
		if (row.state === 'absent') return makeUpsGoOn;
		if (row.state === 'set_aside') return makeUpsGoOn && (JSON.parse(row.fold) as Sitting).allowsFresh;
		const { attempts } = JSON.parse(row.rules) as SessionRules;
		const granted = extra.get(row.candidate_id) ?? 0;
		// An attempt that was granted may be planned another day as well.
		if (granted > 0 && row.attempt < (attempts?.most ?? 1) + granted) return makeUpsGoOn;
		return row.ended_at === null && row.attempt < (attempts?.most ?? 1);
	}).length;
}

/** Whether a make-up could still be planned: the administration has no last day, or it is not over. */
async function isGoingOn(db: Query, administrationId: string, now: number): Promise<boolean> {
	const row = await db('administration').where({ id: administrationId }).first('closes_on');
	// The day after the last is over everywhere on earth: no zone decides about somebody's make-up.
	return !row?.closes_on || localDate(now - 12 * 3_600_000, 'UTC') <= row.closes_on;
}
