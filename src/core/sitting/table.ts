import type { CommandKind } from './commands';
import { IN_THE_ROOM, UNFINISHED, type Role, type SittingState } from './sitting';

/** One row of the state machine: from which states, and by whom. Where it leads follows from `evolve`. */
export type Row = { from: readonly SittingState[]; who: readonly Role[] };

const STAFF = ['proctor', 'coordinator'] as const;

/** The whole machine. A pair that is not here is refused. */
export const TABLE: Record<CommandKind, Row> = {
	// `at_door` only after its device was freed: it arrives anew on the next one.
	arrive: { from: ['expected', 'carried_over', 'absent', 'at_door'], who: ['candidate'] },
	turn_away: { from: ['at_door', 'let_in'], who: STAFF },
	let_in: { from: ['at_door'], who: [...STAFF, 'system'] },
	begin: { from: ['let_in'], who: ['candidate'] },
	// The question on screen starts the clock; a hold in between changes nothing about that.
	start_clock: { from: ['working', 'on_hold'], who: ['system'] },
	// `on_hold` only during a break, whose place the hold takes.
	hold: { from: UNFINISHED, who: [...STAFF, 'system'] },
	resume: { from: ['on_hold'], who: [...STAFF, 'system'] },
	// What has ended is freed for a further attempt on another device.
	move_device: { from: [...UNFINISHED, 'handed_in', 'time_up'], who: STAFF },
	hand_in: { from: IN_THE_ROOM, who: ['candidate', ...STAFF, 'system'] },
	run_out: { from: IN_THE_ROOM, who: ['system'] },
	carry_over: { from: IN_THE_ROOM, who: [...STAFF, 'system'] },
	mark_absent: { from: ['expected', 'at_door'], who: [...STAFF, 'system'] },
	take_from_paper: { from: ['absent'], who: STAFF },
	reopen: { from: ['handed_in', 'time_up'], who: ['coordinator'] },
	set_aside: {
		from: ['at_door', 'let_in', 'working', 'on_hold', 'carried_over', 'handed_in', 'time_up'],
		who: ['coordinator']
	},
	restore: { from: ['set_aside'], who: ['coordinator'] },
	continue_later: { from: ['handed_in', 'time_up', 'set_aside'], who: ['coordinator'] },
	allow_fresh: { from: ['set_aside'], who: ['coordinator'] },
	expect_again: { from: ['absent'], who: ['coordinator'] },
	// Where letting in, turning away and carrying over lead to.
	take_back: { from: ['let_in', 'expected', 'at_door', 'absent', 'carried_over'], who: STAFF },
	assign: { from: ['expected', 'carried_over', 'absent'], who: ['coordinator'] },
	note_away: { from: IN_THE_ROOM, who: ['system'] },
	lose_line: { from: IN_THE_ROOM, who: ['system'] },
	regain_line: { from: IN_THE_ROOM, who: ['system'] },
	refuse_other_device: { from: IN_THE_ROOM, who: ['system'] },
	note_device: { from: IN_THE_ROOM, who: ['system'] }
};
