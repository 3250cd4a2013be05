import { nanoid } from 'nanoid';
import { newSitting, type Actor } from '$core/sitting';
import type { Otium } from '../otium';
import { transact, type Query } from '../db';
import { appendToLogbook } from '../logbook';
import { actIn, loadSittings, refreshConsequences, tell, type Touched } from '../sitting';
import { planSession, type FieldErrors, type Plan, type SessionInput } from './plan';
import { doorOpensAt, findSession, type Session } from './session';

export type SaveResult = { ok: true; id: string; plan: Plan } | { ok: false; errors: FieldErrors; message: string };

/**
 * Plans a new session, or changes one until its door opens. All of it in one transaction: a refused one leaves nothing.
 * @param edit the session and the revision that the editor saw
 */
export async function saveSession(
	otium: Otium,
	by: Actor,
	administrationId: string,
	input: SessionInput,
	edit?: { id: string; revision: number }
): Promise<SaveResult> {
	const touched: Touched = new Map();
	const now = otium.now();
	const result = await transact(otium.db, async (trx): Promise<SaveResult> => {
		const old = edit ? await findSession(trx, edit.id) : null;
		const objection = edit ? editObjection(old, edit.revision, now) : null;
		if (objection) return { ok: false, errors: {}, message: objection };
		const planned = await planSession(trx, administrationId, input, now, edit?.id);
		if (!planned.ok) return { ok: false, errors: planned.errors, message: 'Some fields can’t be read yet.' };
		const blocked = planned.plan.findings.filter((finding) => finding.level === 'block');
		if (blocked.length > 0)
			return { ok: false, errors: {}, message: blocked.map((finding) => finding.message).join(' ') };

		const id = edit?.id ?? nanoid();
		await writeSession(trx, id, administrationId, input, planned.plan, old, by, now);
		await writeRoster(trx, id, input, planned.plan, administrationId, by, now, touched);
		return { ok: true, id, plan: planned.plan };
	});
	if (result.ok) await otium.hub.sessionChanged(result.id);
	tell(otium, touched);
	return result;
}

function editObjection(old: Session | null, revision: number, now: number): string | null {
	if (!old) return 'This session no longer exists. Go back to the list of sessions.';
	if (old.endedAt !== null) return 'This session has ended. Make a new one from it instead.';
	if (now >= doorOpensAt(old) || old.doorCode !== null) {
		return 'The door is open, so the session can no longer be changed. Give minutes or windows to those who need them in the live room.';
	}
	if (old.revision !== revision)
		return 'Somebody else has changed this session meanwhile. Load it again to see their changes, then make yours.';
	return null;
}

async function writeSession(
	trx: Query,
	id: string,
	administrationId: string,
	input: SessionInput,
	plan: Plan,
	old: Session | null,
	by: Actor,
	now: number
) {
	const row = {
		administration_id: administrationId,
		room_id: input.roomId,
		paper_id: input.paperId,
		name: plan.name,
		kind: input.kind,
		opens: plan.window.opens,
		closes: plan.window.closes,
		rules: JSON.stringify(plan.rules)
	};
	if (old)
		await trx('session')
			.where({ id })
			.update({ ...row, revision: old.revision + 1 });
	else await trx('session').insert({ id, ...row });
	await trx('session_proctor').where({ session_id: id }).delete();
	if (input.proctorIds.length > 0) {
		await trx('session_proctor').insert(
			[...new Set(input.proctorIds)].map((staff_id) => ({ session_id: id, staff_id }))
		);
	}
	const sentence = plan.sentence.map((part) => part.text).join('');
	await appendToLogbook(trx, [
		{ at: now, by, kind: old ? 'session_changed' : 'session_planned', sessionId: id, body: { sentence } }
	]);
}

/** Puts the roster right: new people in, sittings of an absence or a carry-over moved here, whoever is no longer meant taken off. */
async function writeRoster(
	trx: Query,
	sessionId: string,
	input: SessionInput,
	plan: Plan,
	administrationId: string,
	by: Actor,
	now: number,
	touched: Touched
) {
	const before: { sitting_id: string }[] = await trx('roster').where({ session_id: sessionId }).select('sitting_id');
	const kept = new Set(plan.roster.people.map((person) => person.sittingId));
	await takeOff(
		trx,
		sessionId,
		before.map((row) => row.sitting_id).filter((id) => !kept.has(id))
	);

	const seatsPerRow = (await trx('room').where({ id: input.roomId }).first('seats_per_row'))!.seats_per_row as number;
	const fresh: Record<string, unknown>[] = [];
	const roster: Record<string, unknown>[] = [];
	const joining: string[] = [];
	for (const [i, person] of plan.roster.people.entries()) {
		const sittingId = person.sittingId ?? nanoid();
		if (person.sittingId === null) {
			fresh.push({
				id: sittingId,
				candidate_id: person.candidateId,
				administration_id: administrationId,
				paper_id: input.paperId,
				session_id: sessionId,
				counts: input.kind !== 'rehearsal',
				attempt: await nextAttempt(trx, person.candidateId, input, administrationId),
				fold: JSON.stringify(newSitting(sittingId, sessionId, now)),
				state: 'expected'
			});
		} else if (!before.some((row) => row.sitting_id === sittingId)) joining.push(sittingId);
		roster.push({ session_id: sessionId, sitting_id: sittingId, seat: seatName(i, seatsPerRow) });
	}
	for (let i = 0; i < fresh.length; i += 1_000) await trx('sitting').insert(fresh.slice(i, i + 1_000));
	for (let i = 0; i < roster.length; i += 1_000)
		await trx('roster')
			.insert(roster.slice(i, i + 1_000))
			.onConflict(['session_id', 'sitting_id'])
			.merge(['seat']);
	await assign(trx, joining, sessionId, by, now, touched);
	await refreshConsequences(
		trx,
		roster.map((row) => row.sitting_id as string),
		now
	);
}

/** `A1`, `A2`, … row by row; past Z the rows are doubled (`AA1`). */
export function seatName(index: number, perRow: number): string {
	const row = Math.floor(index / perRow);
	const letter = String.fromCharCode(65 + (row % 26)).repeat(1 + Math.floor(row / 26));
	return `${letter}${(index % perRow) + 1}`;
}

/** Rehearsals may be repeated; what counts has one sitting unless an attempt is granted. */
async function nextAttempt(
	trx: Query,
	candidateId: string,
	input: SessionInput,
	administrationId: string
): Promise<number> {
	if (input.kind !== 'rehearsal') return 1;
	const row = await trx('sitting')
		.where({ candidate_id: candidateId, paper_id: input.paperId, administration_id: administrationId, counts: false })
		.max('attempt as last')
		.first();
	return ((row?.last as number | null) ?? 0) + 1;
}

/** Sittings that only this plan made, and in which nothing has happened, go with it. */
async function takeOff(trx: Query, sessionId: string, sittingIds: string[]) {
	if (sittingIds.length === 0) return;
	await trx('roster').where({ session_id: sessionId }).whereIn('sitting_id', sittingIds).delete();
	await trx('sitting')
		.whereIn('id', sittingIds)
		.whereNotIn('id', trx('logbook').whereIn('sitting_id', sittingIds).select('sitting_id'))
		.whereNotIn('id', trx('roster').whereIn('sitting_id', sittingIds).select('sitting_id'))
		.delete();
}

async function assign(trx: Query, sittingIds: string[], sessionId: string, by: Actor, now: number, touched: Touched) {
	// Where a sitting stood in the session it leaves is kept there: that session's ledger still tells of it.
	for (const one of await loadSittings(trx, sittingIds, now)) {
		await trx('roster')
			.where({ session_id: one.sitting.sessionId, sitting_id: one.sitting.id })
			.whereNull('outcome')
			.update({ outcome: one.sitting.state });
	}
	await actIn(
		trx,
		now,
		sittingIds.flatMap((sittingId) => [
			{ id: nanoid(), sittingId, by, body: { kind: 'assign' as const, sessionId } },
			// Absent there, expected here; a carried-over sitting goes on as it is and is refused this, as it should be.
			{ id: nanoid(), sittingId, by, body: { kind: 'expect_again' as const } }
		]),
		touched
	);
}
