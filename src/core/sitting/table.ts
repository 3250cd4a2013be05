import type { CommandKind } from './commands';
import type { Role, SittingState } from './sitting';

/** One row of the state machine: from which states, and by whom. Where it leads follows from `evolve`. */
export type Row = { from: readonly SittingState[]; who: readonly Role[] };

const STAFF = ['proctor', 'coordinator'] as const;
const UNFINISHED = ['expected', 'at_door', 'let_in', 'working', 'on_hold', 'carried_over'] as const;
const IN_THE_ROOM = ['at_door', 'let_in', 'working', 'on_hold'] as const;

/** The whole machine. A pair that is not here is refused. */
export const TABLE: Record<CommandKind, Row> = {
	// `at_door` only after its device was freed: it arrives anew on the next one.
	arrive: { from: ['expected', 'carried_over', 'absent', 'at_door'], who: ['candidate'] },
	turn_away: { from: ['at_door', 'let_in'], who: STAFF },
	let_in: { from: ['at_door'], who: [...STAFF, 'system'] },
	begin: { from: ['let_in'], who: ['candidate'] },
	hold: { from: ['expected', 'at_door', 'let_in', 'working', 'carried_over'], who: [...STAFF, 'system'] },
	resume: { from: ['on_hold'], who: [...STAFF, 'system'] },
	move_device: { from: UNFINISHED, who: STAFF },
	hand_in: { from: ['working', 'on_hold'], who: ['candidate', ...STAFF, 'system'] },
	run_out: { from: ['working', 'on_hold'], who: ['system'] },
	carry_over: { from: IN_THE_ROOM, who: [...STAFF, 'system'] },
	mark_absent: { from: ['expected', 'at_door'], who: [...STAFF, 'system'] },
	reopen: { from: ['handed_in', 'time_up'], who: ['coordinator'] },
	set_aside: {
		from: ['at_door', 'let_in', 'working', 'on_hold', 'carried_over', 'handed_in', 'time_up'],
		who: ['coordinator']
	},
	restore: { from: ['set_aside'], who: ['coordinator'] },
	expect_again: { from: ['absent'], who: ['coordinator'] },
	assign: { from: ['expected', 'carried_over', 'absent'], who: ['coordinator'] },
	lose_line: { from: IN_THE_ROOM, who: ['system'] },
	regain_line: { from: IN_THE_ROOM, who: ['system'] },
	refuse_other_device: { from: IN_THE_ROOM, who: ['system'] }
};
