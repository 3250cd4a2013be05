import { nanoid } from 'nanoid';
import { sealSecret, type Query } from '../db';

/** One letter to one person, outside of what a session's template writes. */
export type OneLetter = {
	kind: string;
	name: string;
	address: string;
	subject: string;
	body: string;
	sessionId?: string | null;
};

/** Puts it into the post, within a transaction. */
export async function postLetter(trx: Query, letter: OneLetter, now: number): Promise<void> {
	await trx('mail').insert({
		id: nanoid(),
		made_at: now,
		session_id: letter.sessionId ?? null,
		kind: letter.kind,
		to_name: letter.name,
		to_address: letter.address,
		subject: letter.subject.replace(/[\r\n]+/g, ' '),
		body: sealSecret(trx, letter.body),
		state: 'waiting'
	});
}
