import { nanoid } from 'nanoid';
import { RefusalError, type Actor, type Sitting } from '$core/sitting';
import type { Query } from '../db';
import { actIn, type Request, type Touched } from '../sitting';

/**
 * Puts sittings into another session, within a transaction: absent there, expected here; a carried-over sitting goes on
 * as it is.
 * @throws RefusalError when one of them can't move, as after it went on elsewhere meanwhile
 */
export async function assignTo(
	trx: Query,
	sessionId: string,
	sittingIds: string[],
	by: Actor,
	now: number,
	touched: Touched
): Promise<void> {
	const rows: { id: string; session_id: string; state: string }[] = await trx('sitting')
		.whereIn('id', sittingIds)
		.select('id', 'session_id', 'state');
	const requests = rows.flatMap(({ id, session_id, state }): Request[] => [
		...(session_id === sessionId
			? []
			: [{ id: nanoid(), sittingId: id, by, body: { kind: 'assign' as const, sessionId } }]),
		...(state === 'absent' ? [{ id: nanoid(), sittingId: id, by, body: { kind: 'expect_again' as const } }] : [])
	]);
	await actOrThrow(trx, now, requests, touched);
}

/**
 * Takes sittings off a session that has not opened yet, within a transaction. Whoever was in another session before goes
 * back to how they stood there, so that they can be planned elsewhere; a sitting that only this plan made goes with it.
 */
export async function takeOff(
	trx: Query,
	sessionId: string,
	sittingIds: string[],
	by: Actor,
	now: number,
	touched: Touched
): Promise<void> {
	if (sittingIds.length === 0) return;
	await trx('roster').where({ session_id: sessionId }).whereIn('sitting_id', sittingIds).delete();
	const rows: { id: string; fold: string }[] = await trx('sitting')
		.where({ session_id: sessionId })
		.whereIn('id', sittingIds)
		.select('id', 'fold');
	const returns = rows.flatMap(({ id, fold }) => {
		const { state, visits }: Sitting = JSON.parse(fold);
		const before = visits.at(-2);
		return before ? [{ id, state, sessionId: before.sessionId }] : [];
	});
	const requests = returns.flatMap(({ id, state, sessionId: before }): Request[] => [
		...(state === 'expected' ? [{ id: nanoid(), sittingId: id, by, body: { kind: 'mark_absent' as const } }] : []),
		{ id: nanoid(), sittingId: id, by, body: { kind: 'assign' as const, sessionId: before } }
	]);
	await actOrThrow(trx, now, requests, touched);
	const returned = new Set(returns.map(({ id }) => id));
	const made = rows.map(({ id }) => id).filter((id) => !returned.has(id));
	await trx('slip').whereIn('sitting_id', made).delete();
	await trx('sitting')
		.whereIn('id', made)
		.whereNotIn('id', trx('message').whereIn('sitting_id', made).select('sitting_id'))
		.whereNotIn('id', trx('incident_person').whereIn('sitting_id', made).select('sitting_id'))
		.whereNotIn('id', trx('door_refusal').whereIn('sitting_id', made).select('sitting_id'))
		.delete();
}

async function actOrThrow(trx: Query, now: number, requests: Request[], touched: Touched): Promise<void> {
	for (const outcome of await actIn(trx, now, requests, touched)) {
		if (!outcome.ok) throw new RefusalError(outcome.refusal);
	}
}
