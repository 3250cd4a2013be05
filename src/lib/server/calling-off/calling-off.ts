import { fail } from '$core/problem';
import { fullName } from '$core/names';
import type { StaffMember } from '$core/access';
import { clockTime, longDate } from '$core/time';
import type { Actor } from '$core/sitting';
import { transact, type Query } from '../db';
import type { Acting } from '../house';
import { appendToLogbook } from '../logbook';
import { postLetter } from '../mail';
import { findSession, inputOf, saveDraft, takeOff, type Session } from '../session';
import { tell, type Touched } from '../sitting';

/** What calling a session off would do: who is expected no more, and who has been told of it and is written to. */
export type CallingOff = { people: string[]; told: { name: string; address: string }[] };

/** What was sent about the session, to candidates and to those who supervise it, once for each address. */
async function toldOf(db: Query, sessionId: string): Promise<CallingOff['told']> {
	const rows: { name: string; address: string }[] = await db('mail')
		.where({ session_id: sessionId })
		.whereNotNull('to_address')
		.orderBy('to_name')
		.distinct('to_name as name', 'to_address as address');
	return rows;
}

async function expectedIn(
	db: Query,
	sessionId: string
): Promise<{ id: string; state: string; given: string; family: string }[]> {
	return db('roster')
		.join('sitting', 'sitting.id', 'roster.sitting_id')
		.join('candidate', 'candidate.id', 'sitting.candidate_id')
		.where('roster.session_id', sessionId)
		.orderBy(['family', 'given'])
		.select('sitting.id', 'sitting.state', 'given', 'family');
}

/** What somebody has to know before they call a session off. @throws ProblemError not_taken once somebody has come */
export async function foreseeCallingOff(db: Query, session: Session): Promise<CallingOff> {
	const people = await expectedIn(db, session.id);
	mustBeUnsat(session, people);
	return { people: people.map((one) => fullName(one)), told: await toldOf(db, session.id) };
}

/** Somebody who goes on here after another session stands as they stood there: that is not for calling off to change. */
const NOT_HERE = new Set(['expected', 'carried_over', 'absent']);

function mustBeUnsat(session: Session, people: { state: string; given: string; family: string }[]): void {
	if (session.endedAt !== null)
		fail('not_taken', { message: 'This session has ended.', instead: 'It stays in the record.' });
	const come = people.filter(({ state }) => !NOT_HERE.has(state));
	if (come.length > 0)
		fail('not_taken', {
			message: `${fullName(come[0])}${come.length > 1 ? ` and ${come.length - 1} more` : ''} ${come.length > 1 ? 'have' : 'has'} come already, so the session can’t be called off.`,
			instead: 'End it in the live room; what they have done is kept.'
		});
}

/**
 * Takes a session back that nobody has sat: nobody is expected, absent or owed anything, whoever was told of it is written
 * to, and what was planned stays as a draft of whoever calls it off. The record keeps that it was planned.
 * @returns the draft
 * @throws ProblemError not_found, not_taken
 */
export async function callOff(
	otium: Acting,
	staff: StaffMember,
	by: Actor,
	sessionId: string,
	asked: { why: string; tells: boolean }
): Promise<{ draftId: string; told: number }> {
	const touched: Touched = new Map();
	const result = await transact(otium.db, async (trx) => {
		const now = otium.now();
		const session = (await findSession(trx, sessionId)) ?? fail('not_found');
		const people = await expectedIn(trx, sessionId);
		mustBeUnsat(session, people);
		const told = asked.tells ? await toldOf(trx, sessionId) : [];
		const input = await inputOf(trx, session);
		await takeOff(
			trx,
			sessionId,
			people.map(({ id }) => id),
			by,
			now,
			touched
		);
		await clear(trx, sessionId, now);
		const when = `${longDate(session.window.opens, session.site.zone)}, ${clockTime(session.window.opens, session.site.zone)}`;
		for (const { name, address } of told)
			await postLetter(
				trx,
				{
					kind: 'called_off',
					name,
					address,
					subject: `Called off: ${session.name}`,
					body: `Dear ${name},\n\n${session.name} on ${when} in ${session.room.name} is called off: ${asked.why}\n\nYou need not come. You will be told of another time.\n`
				},
				now
			);
		await appendToLogbook(trx, [
			{
				at: now,
				by,
				kind: 'session_called_off',
				sessionId,
				body: { name: session.name, why: asked.why, people: people.length, told: told.length }
			}
		]);
		const draft = await saveDraft(
			trx,
			staff,
			{ id: null, revision: 0, title: session.name, input: { input, added: [] } },
			now
		);
		return { draftId: draft.ok ? draft.id : '', told: told.length };
	});
	otium.hub.changed(sessionId);
	tell(otium, touched);
	return result;
}

/** Takes away all that belongs to the session alone. What stays of it is the record. */
async function clear(trx: Query, sessionId: string, now: number): Promise<void> {
	if (await trx('sitting').where({ session_id: sessionId }).first('id'))
		fail('not_taken', {
			message: 'Somebody has written to the proctor, or was noted in this session already.',
			instead: 'End it in the live room; what is noted is kept.'
		});
	await trx('mail').where({ session_id: sessionId, state: 'waiting' }).delete();
	await trx('mail').where({ session_id: sessionId }).update({ session_id: null });
	await trx('grant_given')
		.where({ scope_kind: 'session', scope_id: sessionId, withdrawn_at: null })
		.update({ withdrawn_at: now });
	await trx('grant_request').where({ session_id: sessionId }).update({ session_id: null });
	for (const table of [
		'session_proctor',
		'session_group',
		'roster',
		'technical_done',
		'device_check',
		'door_refusal',
		'message'
	])
		await trx(table).where({ session_id: sessionId }).delete();
	await trx('session').where({ id: sessionId }).delete();
}
