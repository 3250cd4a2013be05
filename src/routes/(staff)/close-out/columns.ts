import type { LedgerColumn } from '$core/closing';
import type { TallyKey } from '$core/room';

/** The ledger's columns as they are shown. */
export const COLUMN_NAMES: { key: LedgerColumn; name: string; glyph: TallyKey }[] = [
	{ key: 'handed_in', name: 'Handed in', glyph: 'handed_in' },
	{ key: 'time_up', name: 'Time up', glyph: 'time_up' },
	{ key: 'carried_over', name: 'Carried over', glyph: 'carried_over' },
	{ key: 'absent', name: 'Absent', glyph: 'absent' },
	{ key: 'set_aside', name: 'Set aside', glyph: 'set_aside' },
	{ key: 'still_open', name: 'Still open', glyph: 'working' }
];
