import type { Query } from './open';

const DAY_MS = 86_400_000;
/** A repeated command comes within minutes; a week leaves room for a device that was closed over a weekend. */
const COMMANDS_MS = 7 * DAY_MS;
const REFUSALS_MS = 90 * DAY_MS;

/** Deletes rows that nothing asks for any more. What is evidence, the logbook and the answers, is never among them. */
export async function deleteOutlived(db: Query, now: number): Promise<void> {
	await db('command_answer')
		.where('at', '<', now - COMMANDS_MS)
		.delete();
	await db('device').where('expires_at', '<', now).delete();
	await db('staff_session').where('expires_at', '<', now).delete();
	await db('door_refusal')
		.where('settled_at', '<', now - REFUSALS_MS)
		.delete();
}
