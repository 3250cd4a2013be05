import { isResting, stateBehindHold, type CommandBody, type Sitting } from '../sitting';

/** What becomes of a sitting when its session ends. */
export type Fate = 'stays' | 'carried_over' | 'absent' | 'time_up';

/**
 * The unfinished are carried over, whoever never came in is absent, whoever has begun and is out of time is time up,
 * wherever they are then; what has ended already stays. Nobody is handed in by a session's end while they have time left.
 * @param over answers are no longer taken from this sitting
 */
export function fateAtEnd(sitting: Pick<Sitting, 'state' | 'beganAt' | 'heldFrom' | 'cameFrom'>, over: boolean): Fate {
	const isOver = over && sitting.beganAt !== null && !isResting(sitting);
	switch (stateBehindHold(sitting)) {
		case 'expected':
			return 'absent';
		case 'at_door':
			if (sitting.beganAt === null) return 'absent';
			return isOver ? 'time_up' : 'carried_over';
		case 'let_in':
		case 'working':
			return isOver ? 'time_up' : 'carried_over';
		case 'carried_over':
			// A hold on somebody who was carried over ends with the session too.
			return sitting.state === 'on_hold' ? 'carried_over' : 'stays';
		default:
			return 'stays';
	}
}

/** The commands that bring a fate about. A hold on somebody who never came in is lifted first: it has done its work. */
export function commandsForFate(
	sitting: Pick<Sitting, 'state'>,
	fate: Fate,
	words: { receipt: string; reason: string }
): CommandBody[] {
	switch (fate) {
		case 'stays':
			return [];
		case 'carried_over':
			return [{ kind: 'carry_over', reason: words.reason }];
		case 'time_up':
			return [{ kind: 'run_out', receipt: words.receipt }];
		case 'absent':
			return sitting.state === 'on_hold' ? [{ kind: 'resume' }, { kind: 'mark_absent' }] : [{ kind: 'mark_absent' }];
	}
}

/** What becomes of somebody when their session ends; whoever has a window of their own goes on in it. */
export type EndingFate = Fate | 'own_window';
/** One line of what ending a session would do, before it is done. */
export type EndingLine = {
	sittingId: string;
	name: string;
	number: string;
	fate: EndingFate;
	answered: number;
	/** They have begun here and are not done: what they have can be collected instead. */
	isAtWork: boolean;
};
