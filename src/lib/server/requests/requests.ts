import { nanoid } from 'nanoid';
import { may, type StaffMember } from '$core/access';
import { fullName } from '$core/names';
import { fail } from '$core/problem';
import {
	type AskedAs,
	decisionLetter,
	MOST_A_DAY,
	MOST_OPEN,
	type RequestState,
	type RequestWhat
} from '$core/request';
import type { Actor } from '$core/sitting';
import { type Query, transact } from '../db';
import { evidenceFrom, type Shown } from '../grants';
import type { House, Writing } from '../house';
import { appendToLogbook } from '../logbook';
import { postLetter } from '../mail';
import { findSession } from '../session';
import { requests, type Row } from './listed-requests';

/** What somebody asks for. */
export type NewRequest = {
	candidateId: string;
	sessionId: string | null;
	what: RequestWhat;
	why: string;
	as: AskedAs;
	by: string;
	email: string | null;
	/** A letter or certificate; null: none. */
	shown: Shown | null;
};

/**
 * Keeps what somebody asks for. Asked again in the same words while it waits, it is one request.
 * @throws ProblemError when too many wait about this candidate already
 */
export async function askFor(otium: Writing & Pick<House, 'dataDir'>, by: Actor, asked: NewRequest): Promise<string> {
	const now = otium.now();
	// Before a file is kept for it: what is refused leaves nothing on the disk.
	const before = await sameRequest(otium.db, asked);
	if (before) return before;
	await mustBeFew(otium.db, asked.candidateId, now);
	const evidenceId = await evidenceFrom(otium, asked.shown);
	return transact(otium.db, async (trx) => {
		const candidate = await trx('candidate')
			.join('candidate_group', 'candidate_group.id', 'candidate.group_id')
			.where({ 'candidate.id': asked.candidateId })
			.first('site_id');
		if (!candidate) fail('not_found');
		const twice = await sameRequest(trx, asked);
		if (twice) return twice;
		const session = asked.sessionId === null ? null : await findSession(trx, asked.sessionId);
		const id = nanoid();
		await trx('grant_request').insert({
			id,
			site_id: session?.site.id ?? candidate.site_id,
			candidate_id: asked.candidateId,
			session_id: session?.id ?? null,
			what: asked.what,
			why: asked.why,
			asked_as: asked.as,
			asked_by: asked.by,
			asked_email: asked.email,
			asked_at: now,
			needed_by: session && session.window.opens > now ? session.window.opens : null,
			evidence_id: evidenceId
		});
		await appendToLogbook(trx, [
			{
				at: now,
				by,
				kind: 'grant_asked',
				sessionId: session?.id ?? null,
				sittingId: await sittingIn(trx, asked.candidateId, session?.id ?? null),
				body: { request: id, what: asked.what, by: asked.by, as: asked.as }
			}
		]);
		return id;
	});
}

/** The same, asked already and not decided yet. */
async function sameRequest(db: Query, { candidateId, what, why, by }: NewRequest): Promise<string | null> {
	const row = await db('grant_request')
		.where({ candidate_id: candidateId, state: 'open', what, why, asked_by: by })
		.first('id');
	return row?.id ?? null;
}

/** @throws ProblemError when too many wait about somebody, or too many came in a day */
async function mustBeFew(db: Query, candidateId: string, now: number) {
	const rows: { state: RequestState; asked_at: number }[] = await db('grant_request')
		.where({ candidate_id: candidateId })
		.select('state', 'asked_at');
	const open = rows.filter((row) => row.state === 'open').length;
	if (open >= MOST_OPEN)
		fail('not_taken', {
			message: `${open} requests about this candidate wait for a decision already.`,
			instead: 'Wait until they are decided, or speak with the people who give grants.'
		});
	if (rows.filter((row) => row.asked_at > now - 86_400_000).length >= MOST_A_DAY)
		fail('not_taken', {
			message: `${MOST_A_DAY} requests about this candidate have come within a day.`,
			instead: 'Speak with the people who give grants.'
		});
}

/** Their sitting there, so that its history tells what was asked and decided. */
async function sittingIn(trx: Query, candidateId: string, sessionId: string | null): Promise<string | undefined> {
	if (sessionId === null) return undefined;
	const row = await trx('sitting').where({ candidate_id: candidateId, session_id: sessionId }).first('id');
	return row?.id;
}

/**
 * Decides; whoever asked and the candidate are told by mail where there is an address.
 * @returns how many mails went into the post
 * @throws ProblemError when it is decided already, or not theirs to decide
 */
export async function decide(
	otium: Writing,
	staff: StaffMember,
	by: Actor,
	id: string,
	decision: { state: 'given' | 'declined'; note: string }
): Promise<number> {
	const now = otium.now();
	return transact(otium.db, async (trx) => {
		const row = (await requests(trx).where({ 'grant_request.id': id }).first()) as Row | undefined;
		if (!row) fail('not_found');
		if (!may(staff, 'grant', { siteId: row.site_id, proctorIds: [] })) fail('not_yours');
		if (row.state !== 'open')
			fail('already', { message: `This was decided already${row.decider ? ` by ${row.decider}` : ''}.` });
		await trx('grant_request').where({ id }).update({
			state: decision.state,
			note: decision.note,
			decided_by: staff.id,
			decided_at: now
		});
		await appendToLogbook(trx, [
			{
				at: now,
				by,
				kind: decision.state === 'given' ? 'request_given' : 'request_declined',
				sessionId: row.session_id,
				sittingId: await sittingIn(trx, row.candidate_id, row.session_id),
				body: { request: id, what: row.what, note: decision.note }
			}
		]);
		return tellOf(trx, row, decision, now);
	});
}

async function tellOf(
	trx: Query,
	row: Row,
	{ state, note }: { state: 'given' | 'declined'; note: string },
	now: number
): Promise<number> {
	const candidate = fullName(row);
	const { email } = await trx('candidate').where({ id: row.candidate_id }).first('email');
	const tell = [
		...(email ? [{ to: candidate, address: email as string, isTheirs: true }] : []),
		...(row.asked_email && row.asked_email !== email
			? [{ to: row.asked_by, address: row.asked_email, isTheirs: false }]
			: [])
	];
	for (const { to, address, isTheirs } of tell) {
		const letter = decisionLetter({ to, candidate, isTheirs, what: row.what, session: row.session_name, state, note });
		await postLetter(trx, { kind: 'decision', name: to, address, ...letter }, now);
	}
	return tell.length;
}

/** Whoever asked takes it back while nobody has decided. false: it was decided, or is not theirs. */
export async function takeBack(otium: Writing, candidateId: string, id: string): Promise<boolean> {
	const now = otium.now();
	return transact(otium.db, async (trx) => {
		const changed = await trx('grant_request')
			.where({ id, candidate_id: candidateId, asked_as: 'candidate', state: 'open' })
			.update({ state: 'taken_back', decided_at: now });
		if (changed === 0) return false;
		const by: Actor = { role: 'candidate', id: candidateId };
		await appendToLogbook(trx, [{ at: now, by, kind: 'request_taken_back', body: { request: id } }]);
		return true;
	});
}
