import type { StaffMember } from '$core/access';
import { writesAt } from '$core/bank';
import type { Reach } from '$core/paper';
import { fail } from '$core/problem';
import type { Actor } from '$core/sitting';
import { writerOf } from '../bank';
import { transact, type Query } from '../db';
import type { Writing } from '../house';
import { appendToLogbook } from '../logbook';

type Row = {
	id: string;
	title: string;
	version: number;
	withdrawn_at: number | null;
	withdrawn_by: string | null;
	withdrawn_why: string | null;
	site_id: string | null;
};

/**
 * Who can get at a version, for whoever may write at the site that it belongs to.
 * @throws ProblemError not_found, not_yours
 */
export async function reachOf(db: Query, staff: StaffMember, id: string): Promise<Reach> {
	const row = await versionFor(db, staff, id);
	const sessions: { id: string; name: string; opens: number; zone: string }[] = await db('session')
		.join('room', 'room.id', 'session.room_id')
		.join('site', 'site.id', 'room.site_id')
		.where({ paper_id: id })
		.whereNull('ended_at')
		.orderBy('opens')
		.select('session.id', 'session.name', 'opens', 'zone');
	const sittings: { session_id: string; state: string }[] = await db('sitting')
		.where({ paper_id: id })
		.select('session_id', 'state');
	const open = new Set(sessions.map((session) => session.id));
	return {
		title: row.title,
		version: row.version,
		withdrawn:
			row.withdrawn_at === null
				? null
				: { at: row.withdrawn_at, by: row.withdrawn_by ?? '', why: row.withdrawn_why ?? '' },
		sessions: sessions.map((session) => {
			const here = sittings.filter(({ session_id }) => session_id === session.id);
			return {
				...session,
				candidates: here.length,
				working: here.filter(({ state }) => state === 'working' || state === 'on_hold').length
			};
		}),
		over: sittings.filter(({ session_id }) => !open.has(session_id)).length
	};
}

/**
 * Withdraws a version, or offers it again. What is being sat goes on, what was sat stays readable; sessions to come say
 * that they need another.
 * @param why null: it is offered again
 * @throws ProblemError not_found, not_yours
 */
export async function withdrawVersion(
	otium: Writing,
	staff: StaffMember,
	by: Actor,
	id: string,
	why: string | null
): Promise<void> {
	await transact(otium.db, async (trx) => {
		const { title, version, withdrawn_at } = await versionFor(trx, staff, id);
		if ((withdrawn_at !== null) === (why !== null)) return;
		const at = otium.now();
		await trx('paper')
			.where({ id })
			.update(
				why === null
					? { withdrawn_at: null, withdrawn_by: null, withdrawn_why: null }
					: { withdrawn_at: at, withdrawn_by: staff.name, withdrawn_why: why }
			);
		const kind = why === null ? 'paper_offered' : 'paper_withdrawn';
		await appendToLogbook(trx, [{ at, by, kind, body: { title, version, why } }]);
	});
}

/** A version, for whoever may write at the site that it belongs to. */
async function versionFor(db: Query, staff: StaffMember, id: string): Promise<Row> {
	const row: Row | undefined = await db('paper')
		.leftJoin('paper_draft', 'paper_draft.id', 'paper.draft_id')
		.where('paper.id', id)
		.first('paper.id', 'paper.title', 'version', 'withdrawn_at', 'withdrawn_by', 'withdrawn_why', 'site_id');
	if (!row) fail('not_found');
	if (!writesAt(row.site_id, writerOf(staff))) fail('not_yours');
	return row;
}
