import { nanoid } from 'nanoid';
import type { Actor } from '$core/sitting';
import type { Query } from '../db';
import { insertMany, transact } from '../db';
import { appendToLogbook } from '../logbook';
import type { Acting } from '../house';

/** A message, one way or the other. A raised hand is one from a candidate; seen means that somebody answered it. */
export type Message = {
	id: string;
	sittingId: string;
	fromCandidate: boolean;
	text: string;
	at: number;
	seenAt: number | null;
};

type Row = {
	id: string;
	sitting_id: string;
	from_candidate: number;
	text: string;
	at: number;
	seen_at: number | null;
};

const toMessage = (row: Row): Message => ({
	id: row.id,
	sittingId: row.sitting_id,
	fromCandidate: Boolean(row.from_candidate),
	text: row.text,
	at: row.at,
	seenAt: row.seen_at
});

/** Sends the same words to some. `commandId` makes a repeated request harmless. Answers a hand that is up as well. */
export async function sendMessage(
	otium: Acting,
	by: Actor,
	sessionId: string,
	commandId: string,
	sittingIds: string[],
	text: string
): Promise<void> {
	const now = otium.now();
	await transact(otium.db, async (trx) => {
		const rows = sittingIds.map((sittingId) => ({
			id: `${commandId}:${sittingId}`,
			session_id: sessionId,
			sitting_id: sittingId,
			from_candidate: 0,
			by: by.id,
			text,
			at: now
		}));
		const known = new Set(
			await trx('message')
				.whereIn(
					'id',
					rows.map((row) => row.id)
				)
				.pluck('id')
		);
		const fresh = rows.filter((row) => !known.has(row.id));
		await insertMany(trx, 'message', fresh);
		await settleHandsIn(trx, sittingIds, now);
		await appendToLogbook(
			trx,
			fresh.map((row) => ({
				at: now,
				by,
				kind: 'message_sent',
				sessionId,
				sittingId: row.sitting_id,
				body: { text }
			}))
		);
	});
	otium.hub.changed(sessionId, sittingIds);
}

/** A candidate raises a hand, with words or without. One hand at a time: raising it again changes the words. */
export async function raiseHand(otium: Acting, sittingId: string, text: string): Promise<void> {
	const now = otium.now();
	const sessionId = await transact(otium.db, async (trx) => {
		const row = (await trx('sitting').where({ id: sittingId }).first('session_id', 'candidate_id')) as {
			session_id: string;
			candidate_id: string;
		};
		const up = await trx('message').where({ sitting_id: sittingId, from_candidate: 1, seen_at: null }).first('id');
		if (up) await trx('message').where({ id: up.id }).update({ text });
		else {
			await trx('message').insert({
				id: nanoid(),
				session_id: row.session_id,
				sitting_id: sittingId,
				from_candidate: 1,
				by: row.candidate_id,
				text,
				at: now
			});
			const by = { role: 'candidate' as const, id: row.candidate_id };
			await appendToLogbook(trx, [
				{ at: now, by, kind: 'hand_raised', sessionId: row.session_id, sittingId, body: { text } }
			]);
		}
		return row.session_id;
	});
	otium.hub.changed(sessionId, [sittingId]);
}

/** The hand is down again: somebody came, or the candidate took it back. */
export async function lowerHand(otium: Acting, sittingIds: string[]): Promise<void> {
	const now = otium.now();
	await transact(otium.db, (trx) => settleHandsIn(trx, sittingIds, now));
	const sessions: { session_id: string; id: string }[] = await otium
		.db('sitting')
		.whereIn('id', sittingIds)
		.select('id', 'session_id');
	for (const { session_id, id } of sessions) otium.hub.changed(session_id, [id]);
}

async function settleHandsIn(trx: Query, sittingIds: string[], now: number) {
	await trx('message')
		.whereIn('sitting_id', sittingIds)
		.where({ from_candidate: 1, seen_at: null })
		.update({ seen_at: now });
}

/** The candidate has read these. */
export async function messagesSeen(otium: Acting, sittingId: string, ids: string[]): Promise<void> {
	await otium
		.db('message')
		.whereIn('id', ids)
		.where({ sitting_id: sittingId, from_candidate: 0, seen_at: null })
		.update({ seen_at: otium.now() });
	const row = await otium.db('sitting').where({ id: sittingId }).first('session_id');
	if (row) otium.hub.changed(row.session_id, [sittingId]);
}

/** What is open between both sides: messages nobody has read yet, hands that are up. */
export async function openMessages(db: Query, sittingIds: string[]): Promise<Message[]> {
	const rows: Row[] = await db('message').whereIn('sitting_id', sittingIds).where({ seen_at: null }).orderBy('at');
	return rows.map(toMessage);
}

/** Everything said in one sitting, oldest first. */
export async function messagesOf(db: Query, sittingId: string): Promise<Message[]> {
	const rows: Row[] = await db('message').where({ sitting_id: sittingId }).orderBy('at');
	return rows.map(toMessage);
}
