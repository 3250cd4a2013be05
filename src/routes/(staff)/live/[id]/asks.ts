import type { NeedAct, SeatView, StaffAct } from '$core/room';
import { someNames } from '$core/names';

/** Acts that ask nothing unless they concern several. */
export type ActAtOnce = 'let_in' | 'resume' | 'restore' | 'expect_again';
export function asksNothing(act: StaffAct): act is ActAtOnce {
	return act === 'let_in' || act === 'resume' || act === 'restore' || act === 'expect_again';
}

/** How a candidate's panel offers each act, with its key. */
export const OFFERED: Record<StaffAct, { label: string; key?: string }> = {
	let_in: { label: 'Let in', key: 'Enter' },
	turn_away: { label: 'Turn away', key: 'U' },
	resume: { label: 'Resume', key: 'R' },
	reopen: { label: 'Reopen…', key: 'O' },
	mark_absent: { label: 'Absent', key: 'A' },
	expect_again: { label: 'Expect again' },
	restore: { label: 'Restore' },
	hold: { label: 'Hold…', key: 'H' },
	move_device: { label: 'Free device', key: 'D' },
	hand_in: { label: 'Hand in…', key: 'F' },
	carry_over: { label: 'Carry over…' },
	continue_later: { label: 'Another time…' },
	allow_fresh: { label: 'Sit again…' },
	set_aside: { label: 'Set aside…' }
};

export type AskKind =
	| Exclude<StaffAct, ActAtOnce>
	| 'minutes'
	| 'let_in_all'
	| 'end'
	| 'release'
	| 'start'
	| 'call_time'
	| 'find'
	| 'count_answers'
	| 'minutes_all'
	| 'message'
	| 'incident'
	| 'hand_over';

/** What each way of settling a need is called, and its key. */
export const NEED_VERBS: Record<NeedAct, string> = {
	let_in: 'Let in',
	turn_away: 'Turn away',
	resume: 'Resume',
	free_device: 'Free device',
	hold: 'Hold',
	minutes: 'Minutes',
	message: 'Message',
	lower_hand: 'Done',
	set_aside: 'Set aside',
	count_answers: 'Count them',
	admit: 'Let in late',
	add: 'Add to this session',
	forgive: 'Let them try again',
	seen: 'Seen'
};
export const NEED_KEYS: Record<NeedAct, string> = {
	let_in: 'Enter',
	turn_away: 'U',
	resume: 'R',
	free_device: 'D',
	hold: 'H',
	minutes: 'M',
	message: 'W',
	lower_hand: 'K',
	set_aside: '',
	count_answers: '',
	admit: 'K',
	add: 'K',
	forgive: 'K',
	seen: 'K'
};

/** How each act asks before it is done: what it says will happen, and whether it wants a reason. */
export const ASKS: Record<
	Exclude<StaffAct, 'resume' | 'restore' | 'expect_again'>,
	{ title: string; verb: string; then: string; reasons: string[]; needsReason: boolean; tone: 'main' | 'danger' }
> = {
	let_in: {
		title: 'Let in',
		verb: 'Let in',
		then: 'They can start straight away. Only people at the door are let in.',
		reasons: [],
		needsReason: false,
		tone: 'main'
	},
	turn_away: {
		title: 'Turn away',
		verb: 'Turn away',
		then: 'They go back to where they came from, with every answer, and can come to the door again. They are shown the reason.',
		reasons: ['Wrong room', 'Name does not match', 'Come back later'],
		needsReason: true,
		tone: 'main'
	},
	hold: {
		title: 'Hold',
		verb: 'Hold',
		then: 'Their screen goes blank and calm; every answer stays. They are not shown the reason.',
		reasons: ['Out of the room', 'Trouble with the device', 'No network', 'To be spoken to', 'Not in the room yet'],
		needsReason: true,
		tone: 'main'
	},
	move_device: {
		title: 'Free the device',
		verb: 'Free the device',
		then: 'This device is cut off. They sign in at the door on another one, are let in again and continue with every answer.',
		reasons: [],
		needsReason: false,
		tone: 'main'
	},
	hand_in: {
		title: 'Hand in for them',
		verb: 'Hand in',
		then: 'What they have answered so far is handed in and they cannot go on. A coordinator can reopen it today.',
		reasons: ['Asked to stop', 'Left the room for good'],
		needsReason: true,
		tone: 'danger'
	},
	carry_over: {
		title: 'Carry over',
		verb: 'Carry over',
		then: 'The clock stops. They continue at the same question with the time they have left, in another session of this paper.',
		reasons: ['Unwell', 'Device could not be fixed'],
		needsReason: true,
		tone: 'main'
	},
	mark_absent: {
		title: 'Mark absent',
		verb: 'Mark absent',
		then: 'If they come after all, they wait at the door for you, whatever the rules say. Until then they are owed a make-up.',
		reasons: [],
		needsReason: false,
		tone: 'main'
	},
	reopen: {
		title: 'Reopen',
		verb: 'Reopen',
		then: 'They continue with every answer and the time that was left. Nobody else’s paper opens.',
		reasons: ['Handed in by mistake'],
		needsReason: true,
		tone: 'main'
	},
	continue_later: {
		title: 'Continue another time',
		verb: 'Continue another time',
		then: 'They keep every answer and the time they have left, and are owed another session of this paper or a window of their own.',
		reasons: ['Handed in by mistake', 'Cut off before the end'],
		needsReason: true,
		tone: 'main'
	},
	allow_fresh: {
		title: 'Sit again from the start',
		verb: 'Let them sit again',
		then: 'They are owed another attempt at this paper. This one is kept as it is and not scored.',
		reasons: ['The score does not show what they can do', 'Incident in the room'],
		needsReason: true,
		tone: 'main'
	},
	set_aside: {
		title: 'Set aside',
		verb: 'Set aside',
		then: 'The work is kept and not scored. It can be restored, continued another time, or sat again from the start.',
		reasons: ['Does not show what they can do', 'Incident in the room'],
		needsReason: true,
		tone: 'danger'
	}
};

/** Names while they are few, a count with the first names when they are many. */
export function named(seats: SeatView[]): string {
	return someNames(
		seats.map((seat) => seat.name),
		5
	);
}
