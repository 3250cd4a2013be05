import { isAtWork, isUnfinished, type Sitting } from '../sitting';
import { clockTime, MINUTE, type Reckoning } from '../time';

/** What moving everyone's window does to one of them. Nothing that was answered is ever touched. */
export type MoveFate =
	/** At work, and ends later than before. */
	| 'gains'
	/** At work, and would end earlier. */
	| 'loses'
	/** At work; their own time ends them, whatever closes. */
	| 'works_on'
	/** Not begun: comes at the new times. */
	| 'comes'
	/** Has a window of their own, which does not move. */
	| 'own_window'
	/** Finished, absent or elsewhere: stays so. */
	| 'stays';

/** @param before how time stood, @param after how it would stand */
export function moveFate(
	sitting: Pick<Sitting, 'state' | 'heldFrom'>,
	before: Pick<Reckoning, 'deadline' | 'ownWindow'>,
	after: Pick<Reckoning, 'deadline'>
): MoveFate {
	if (!isUnfinished(sitting.state) || sitting.state === 'carried_over') return 'stays';
	if (before.ownWindow) return 'own_window';
	if (!isAtWork(sitting)) return 'comes';
	const [was, is] = [before.deadline ?? Infinity, after.deadline ?? Infinity];
	return is > was ? 'gains' : is < was ? 'loses' : 'works_on';
}

/** One line of what moving the window would do. */
export type MoveLine = { sittingId: string; name: string; fate: MoveFate; minutes: number };

/** What stands in the way of new times for a session whose door may be open; null: nothing. */
export function moveObjection(
	was: { opens: number; closes: number | null },
	next: { opens: number; closes: number | null },
	{ anyBegun, now, zone }: { anyBegun: boolean; now: number; zone: string }
): string | null {
	if (next.opens === was.opens && next.closes === was.closes) return 'These are the times that it has.';
	if (next.closes !== null && next.closes <= next.opens) return 'The window would close before it opens.';
	if (next.closes !== null && next.closes < now + MINUTE)
		return `The window would be over: it is ${clockTime(now, zone)}. To end the session, use End.`;
	if (next.opens !== was.opens && anyBegun)
		return 'Somebody has begun: when it opened does not change any more. Move its end.';
	if (next.opens !== was.opens && next.opens < now)
		return `It is ${clockTime(now, zone)}: the opening can’t lie before that.`;
	return null;
}
