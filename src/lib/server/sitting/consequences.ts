import { forwardBy } from '$core/session';
import type { Query } from '../db';
import { loadSittings, type Loaded } from './load';

/** The columns that follow from a sitting, its session's rules and what was granted. */
export function consequences(one: Loaded) {
	const { sitting, reckoning, session } = one;
	const atWork = sitting.state === 'working' || (sitting.state === 'on_hold' && sitting.heldFrom === 'working');
	const { atTimeUp } = session.rules.timing;
	const endsByItself = atTimeUp === 'hand_in' || atTimeUp === 'zero';
	// While a stop that counts goes on the deadline moves along with the clock: nothing falls due until it ends.
	const moving = reckoning.standing && reckoning.deadline === reckoning.naturalDeadline;
	const deadline = moving ? null : reckoning.deadline;
	const graceEnds = moving ? null : reckoning.graceEnds;
	return {
		fold: JSON.stringify(sitting),
		state: sitting.state,
		session_id: sitting.sessionId,
		device_epoch: sitting.device?.epoch ?? null,
		deadline,
		answers_until: !atWork ? 0 : atTimeUp === 'flag' ? null : graceEnds,
		forward_by: forwardBy(session.rules.movement),
		due_at: atWork && endsByItself ? graceEnds : null
	};
}

/** Works the columns out again after rules, window or grants have changed. */
export async function refreshConsequences(trx: Query, sittingIds: string[], now: number): Promise<void> {
	for (const one of await loadSittings(trx, sittingIds, now)) {
		await trx('sitting').where({ id: one.sitting.id }).update(consequences(one));
	}
}
