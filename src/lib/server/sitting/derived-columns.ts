import { forwardBy } from '$core/session';
import { isAtWork, isInTheRoom, isResting } from '$core/sitting';
import type { Query } from '../db';
import { loadSittings, type Loaded } from './load';
import { ofOpenAdministrations } from './of-open';

/** An answer that was on its way when the hold came still counts. */
export const HOLD_REACHES_MS = 5_000;

/** An answer that was on its way when the question's time was up still counts. */
const QUESTION_REACHES_MS = 5_000;

/** The columns that follow from a sitting, its session's rules and what was granted. */
export function derivedColumns(one: Loaded) {
	const { sitting, reckoning, session } = one;
	const { atTimeUp, atClose, graceMinutes } = session.rules.timing;
	const endsByItself = atTimeUp === 'hand_in' || atTimeUp === 'zero';
	// While a stop that counts goes on the deadline moves along with the clock, but a close that cuts stays where it is.
	// While the paper loads it does not move: the clock starts by itself after a minute.
	const moving =
		reckoning.standing && sitting.clockStartedAt !== null && reckoning.deadline === reckoning.naturalDeadline;
	const closes = atClose === 'cut' && reckoning.origin !== null ? reckoning.windowEnd : null;
	const deadline = moving ? closes : reckoning.deadline;
	const graceEnds = deadline === null ? null : deadline + graceMinutes * 60_000;
	const mayRunOut = isInTheRoom(sitting.state) && sitting.beganAt !== null && !isResting(sitting);
	return {
		fold: JSON.stringify(sitting),
		state: sitting.state,
		session_id: sitting.sessionId,
		device_epoch: sitting.device?.epoch ?? null,
		deadline,
		answers_until: answersUntil(one, atTimeUp === 'flag' ? null : graceEnds),
		forward_by: forwardBy(session.rules.movement),
		question_until: questionUntil(one),
		client_site: session.rules.lockdown.level === 'sealed' ? session.site.id : null,
		client_least: session.rules.lockdown.level === 'sealed' ? session.rules.lockdown.clientVersion : null,
		clock_waits: isAtWork(sitting) && sitting.clockStartedAt === null,
		due_at: mayRunOut && endsByItself ? graceEnds : null
	};
}

/** While its time does not run there is no end to it. */
function questionUntil({ question, reckoning }: Loaded): number | null {
	return question === null || reckoning.standing ? null : question.ends + QUESTION_REACHES_MS;
}

/** 0: none are taken; null: there is no end. A device that knows of a hold has a moment left, one that is away has not known. */
function answersUntil({ sitting }: Loaded, graceEnds: number | null): number | null {
	if (!isAtWork(sitting)) return 0;
	if (sitting.holdKnownAt === null) return graceEnds;
	const held = sitting.holdKnownAt + HOLD_REACHES_MS;
	return graceEnds === null ? held : Math.min(held, graceEnds);
}

/** Works the columns out again after rules, window or grants have changed; those of a closed administration stay as they are. */
export async function refreshDerivedColumns(trx: Query, sittingIds: string[], now: number): Promise<void> {
	for (const one of await loadSittings(trx, sittingIds, now)) {
		await trx('sitting').where({ id: one.sitting.id }).modify(ofOpenAdministrations(trx)).update(derivedColumns(one));
	}
}
