import type { StaffAct } from '$core/room';

/** What an act has done, as it is told afterwards. */
export const DONE: Record<StaffAct | 'take_back', string> = {
	take_back: 'Undone',
	let_in: 'Let in',
	turn_away: 'Turned away',
	hold: 'On hold',
	resume: 'Resumed',
	move_device: 'Device freed',
	hand_in: 'Handed in',
	carry_over: 'Carried over',
	mark_absent: 'Marked absent',
	reopen: 'Reopened',
	set_aside: 'Set aside',
	restore: 'Restored',
	expect_again: 'Expected again',
	continue_later: 'To continue another time',
	allow_fresh: 'To sit again from the start'
};
/** What takes an act back, where something does. Reopening and the like are a coordinator's. */
export const UNDO: Partial<Record<StaffAct | 'take_back', { act: StaffAct | 'take_back'; coordinator: boolean }>> = {
	let_in: { act: 'take_back', coordinator: false },
	turn_away: { act: 'take_back', coordinator: false },
	carry_over: { act: 'take_back', coordinator: false },
	hold: { act: 'resume', coordinator: false },
	resume: { act: 'hold', coordinator: false },
	hand_in: { act: 'reopen', coordinator: true },
	mark_absent: { act: 'expect_again', coordinator: true },
	set_aside: { act: 'restore', coordinator: true }
};
