import { randomBytes } from 'node:crypto';
import { doorCodeFrom } from '$core/access';
import { localMidnightAfter } from '$core/time';
import { markOf, sealSecret, type Query } from '../db';
import { appendToLogbook } from '../logbook';
import type { Actor } from '$core/sitting';
import type { Session } from '../records';

/** A code that no session of today is using. */
async function freshCode(trx: Query): Promise<string> {
	for (;;) {
		const code = doorCodeFrom(randomBytes(64));
		if (
			!(await trx('session')
				.where({ door_code_mark: markOf(trx, code) })
				.first('id'))
		)
			return code;
	}
}

/** A receipt a candidate can note down and the logbook knows: two door codes' worth of symbols, cut to ten. */
export function newReceipt(): string {
	const symbols = doorCodeFrom(randomBytes(64)) + doorCodeFrom(randomBytes(64));
	return `${symbols.slice(0, 5)}-${symbols.slice(5, 10)}`;
}

/** Gives the session a new code; an old one is dead from then on, and nobody inside notices. */
export async function makeDoorCode(trx: Query, session: Session, by: Actor, now: number): Promise<void> {
	const diesAt = localMidnightAfter(Math.max(session.window.opens, now), session.site.zone);
	const code = await freshCode(trx);
	await trx('session')
		.where({ id: session.id })
		.update({ door_code: sealSecret(trx, code), door_code_mark: markOf(trx, code), code_dies_at: diesAt });
	const kind = session.doorCode === null ? 'door_code_made' : 'door_code_renewed';
	// The code itself stays out of the logbook: whoever reads that need not be able to enter.
	await appendToLogbook(trx, [{ at: now, by, kind, sessionId: session.id, body: { diesAt } }]);
}

/** The code is dead: nobody can enter with it any more. */
export async function killDoorCode(trx: Query, session: Session, by: Actor, now: number): Promise<void> {
	if (session.doorCode === null) return;
	await trx('session').where({ id: session.id }).update({ door_code: null, door_code_mark: null, code_hidden: true });
	await appendToLogbook(trx, [{ at: now, by, kind: 'door_code_died', sessionId: session.id, body: {} }]);
}
