import { randomBytes } from 'node:crypto';
import { nanoid } from 'nanoid';
import { turningKeyFrom } from '$core/access';
import { assignSeats, seatRows, type SeatPlan } from '$core/seating';
import type { Finding } from '$core/session';
import { lastsUntil } from '$core/time';
import { newSitting, RefusalError, type Actor } from '$core/sitting';
import type { Acting } from '../house';
import { insertMany, type Query, sealSecret, transact } from '../db';
import { appendToLogbook } from '../logbook';
import { refreshDerivedColumns, tell, type Touched } from '../sitting';
import { assignTo, takeOff } from './assign';
import type { FieldErrors, SessionInput } from './input';
import { planAll, type Plan } from './plan';
import { doorOpensAt, findSession, type Session } from '../records';

export type SaveResult =
	| { ok: true; ids: string[]; plans: Plan[] }
	| { ok: false; errors: FieldErrors; message: string; findings: Finding[] };

/**
 * Plans one or several sessions from one setup, or changes one until its door opens. All of it in one transaction: a
 * refused one leaves nothing. When an existing session is split, it becomes the first of the parts.
 * @param edit the session and the revision that the editor saw
 */
export async function saveSession(
	otium: Acting,
	by: Actor,
	administrationId: string,
	input: SessionInput,
	edit?: { id: string; revision: number }
): Promise<SaveResult> {
	const touched: Touched = new Map();
	const now = otium.now();
	const refused = (message: string, errors: FieldErrors = {}, findings: Finding[] = []): SaveResult => ({
		ok: false,
		errors,
		message,
		findings
	});
	const result = await transact(otium.db, async (trx): Promise<SaveResult> => {
		const old = edit ? await findSession(trx, edit.id) : null;
		const objection = edit ? editObjection(old, edit.revision, now) : null;
		if (objection) return refused(objection);
		const planned = await planAll(trx, administrationId, input, now, edit?.id);
		if (!planned.ok) return refused('Some fields can’t be read yet.', planned.errors);
		const blocked = planned.plans.flatMap((plan) => plan.findings).filter((finding) => finding.level === 'block');
		if (blocked.length > 0)
			return refused(blocked.map((finding) => `${finding.title} ${finding.message}`).join(' '), {}, blocked);

		const ids: string[] = [];
		const seated = new Map<Plan, string[]>();
		for (const [i, plan] of planned.plans.entries()) {
			const replaces = i === 0 ? old : null;
			const id = replaces?.id ?? nanoid();
			await writeSession(trx, id, administrationId, plan, replaces, by, now);
			const beside = planned.plans.slice(0, i).filter((other) => shareRoom(other, plan));
			const taken = beside.flatMap((other) => seated.get(other) ?? []);
			seated.set(plan, await writeRoster(trx, id, plan, { administrationId, by, now, touched, taken }));
			ids.push(id);
		}
		return { ok: true, ids, plans: planned.plans };
	}).catch((error: unknown): SaveResult => {
		if (!(error instanceof RefusalError)) throw error;
		return refused(`Somebody on the list has moved on since. ${error.message} Load the list again.`);
	});
	if (result.ok) for (const id of result.ids) await otium.hub.sessionChanged(id);
	tell(otium, touched);
	return result;
}

/** Why a session that has not ended can't be changed any more; null: it can. */
export function lockedBecause(session: Session, now: number): string | null {
	if (now >= doorOpensAt(session)) return 'The door is open, so the session can no longer be changed.';
	return session.doorCode === null
		? null
		: 'Its code has been released, so the session can no longer be changed: candidates may know it.';
}

function editObjection(old: Session | null, revision: number, now: number): string | null {
	if (!old) return 'This session no longer exists. Go back to the list of sessions.';
	if (old.endedAt !== null) return 'This session has ended. Make a new one from it instead.';
	const locked = lockedBecause(old, now);
	if (locked !== null) return `${locked} Give minutes or windows to those who need them in the live room.`;
	if (old.revision !== revision)
		return 'Somebody else has changed this session in the meantime. Load it again to see their changes, then make yours.';
	return null;
}

async function writeSession(
	trx: Query,
	id: string,
	administrationId: string,
	{ input, name, window, rules, sentence }: Plan,
	old: Session | null,
	by: Actor,
	now: number
) {
	const turns = rules.door.code === 'turning';
	const row = {
		administration_id: administrationId,
		room_id: input.roomId,
		paper_id: input.paperId,
		name,
		kind: input.kind,
		opens: window.opens,
		closes: window.closes,
		rules: JSON.stringify(rules),
		rule_sheet_id: input.ruleSheetId,
		turning_key: turns ? sealSecret(trx, old?.turningKey ?? turningKeyFrom(randomBytes(20))) : null
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
	await trx('session_group').where({ session_id: id }).delete();
	const groups = [...new Set(input.groupIds)].map((group_id) => ({ session_id: id, group_id }));
	if (groups.length > 0) await trx('session_group').insert(groups);
	const told = sentence.map((part) => part.text).join('');
	await appendToLogbook(trx, [
		{ at: now, by, kind: old ? 'session_changed' : 'session_planned', sessionId: id, body: { sentence: told } }
	]);
}

/** Two sessions of one setup that have the same room at once: nobody gets a seat that somebody has. */
function shareRoom(a: Plan, b: Plan): boolean {
	const overlap =
		a.window.opens < lastsUntil(b.rules.timing, b.window) && b.window.opens < lastsUntil(a.rules.timing, a.window);
	return a.input.roomId === b.input.roomId && overlap;
}

type Writing = { administrationId: string; by: Actor; now: number; touched: Touched; taken: string[] };

/** Puts the roster right, and returns the seats it gave: new people in, sittings of an absence or a carry-over moved here, whoever is no longer meant taken off. */
async function writeRoster(
	trx: Query,
	sessionId: string,
	plan: Plan,
	{ administrationId, by, now, touched, taken }: Writing
): Promise<string[]> {
	const { input } = plan;
	const before: { sitting_id: string; seat: string | null }[] = await trx('roster')
		.where({ session_id: sessionId })
		.select('sitting_id', 'seat');
	const kept = new Set(plan.roster.people.map((person) => person.sittingId));
	const leaving = before.map((row) => row.sitting_id).filter((id) => !kept.has(id));
	await takeOff(trx, sessionId, leaving, by, now, touched);

	const known = new Set(before.map((row) => row.sitting_id));
	const seats = await seatsFor(trx, plan, taken, new Map(before.map((row) => [row.sitting_id, row.seat])));
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
				attempt: person.attempt,
				fold: JSON.stringify(newSitting(sittingId, sessionId, now)),
				state: 'expected'
			});
		} else if (!known.has(sittingId)) joining.push(sittingId);
		roster.push({ session_id: sessionId, sitting_id: sittingId, seat: seats[i] });
	}
	await insertMany(trx, 'sitting', fresh);
	await insertMany(trx, 'roster', roster, (insert) => insert.onConflict(['session_id', 'sitting_id']).merge(['seat']));
	await assignTo(trx, sessionId, joining, by, now, touched);
	await refreshDerivedColumns(
		trx,
		roster.map((row) => row.sitting_id as string),
		now
	);
	return seats.filter((seat) => seat !== null);
}

/**
 * A seat for each, by the room's plan; whoever is granted to sit apart does so where the room allows. Who has a seat that
 * is one of the room's and in use keeps it: it may have been chosen by hand, and it stands on slips.
 * @param had the seats so far, by sitting
 */
async function seatsFor(
	trx: Query,
	{ roster, input }: Plan,
	taken: string[],
	had: Map<string, string | null>
): Promise<(string | null)[]> {
	const room = await trx('room').where({ id: input.roomId }).first('seat_rows', 'seats_per_row', 'plan');
	const apart: string[] = await trx('grant_given')
		.whereIn(
			'candidate_id',
			roster.people.map((person) => person.candidateId)
		)
		.where({ kind: 'separate_room' })
		.whereNull('withdrawn_at')
		.pluck('candidate_id');
	const plan: SeatPlan = JSON.parse(room.plan);
	const inUse = new Set(seatRows(room.seat_rows, room.seats_per_row).flat());
	for (const seat of [...plan.outOfUse, ...taken]) inUse.delete(seat);
	const kept = roster.people.map((person) => {
		const seat = person.elsewhere || person.sittingId === null ? null : (had.get(person.sittingId) ?? null);
		// Taken once, by whoever comes first.
		return seat !== null && inUse.delete(seat) ? seat : null;
	});
	const people = roster.people
		.filter((person, i) => !person.elsewhere && kept[i] === null)
		.map((person) => ({ apart: apart.includes(person.candidateId) }));
	const outOfUse = [...plan.outOfUse, ...taken, ...kept.filter((seat) => seat !== null)];
	const seats = assignSeats(people, room.seat_rows, room.seats_per_row, { ...plan, outOfUse });
	return roster.people.map((person, i) => (person.elsewhere ? null : (kept[i] ?? seats.shift()!)));
}
