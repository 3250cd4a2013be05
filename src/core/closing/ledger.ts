import type { Sitting, SittingState } from '../sitting';

/** Where a candidate stands when the day is added up; exactly one each. */
export const LEDGER_COLUMNS = ['handed_in', 'time_up', 'carried_over', 'absent', 'set_aside', 'still_open'] as const;
export type LedgerColumn = (typeof LEDGER_COLUMNS)[number];

export type Ledger = {
	columns: Record<LedgerColumn, string[]>;
	/** How many were expected, counted from the roster, not from the columns. */
	expected: number;
	/** The columns' sum. */
	accounted: number;
	/** On the roster and in no column. */
	missing: string[];
	/** In a column more than once, or in one without being on the roster. */
	surplus: string[];
	/** Nobody is missing and nobody is counted twice. */
	addsUp: boolean;
};

/** How many are in each column. */
export function columnCounts({ columns }: Pick<Ledger, 'columns'>): Record<LedgerColumn, number> {
	return Object.fromEntries(LEDGER_COLUMNS.map((column) => [column, columns[column].length])) as Record<
		LedgerColumn,
		number
	>;
}

export function columnOf(state: SittingState): LedgerColumn {
	switch (state) {
		case 'handed_in':
		case 'time_up':
		case 'carried_over':
		case 'absent':
		case 'set_aside':
			return state;
		default:
			return 'still_open';
	}
}

/**
 * Adds up a session, site or administration.
 * @param roster the ids of everyone expected, from the roster
 * @param sittings where each stands; read apart from the roster, so that a gap between the two shows
 */
export function addUp(roster: string[], sittings: Pick<Sitting, 'id' | 'state'>[]): Ledger {
	const columns = Object.fromEntries(LEDGER_COLUMNS.map((column) => [column, [] as string[]])) as Ledger['columns'];
	for (const sitting of sittings) columns[columnOf(sitting.state)].push(sitting.id);

	const expected = new Set(roster);
	const placed = LEDGER_COLUMNS.flatMap((column) => columns[column]);
	const seen = new Set<string>();
	const surplus = placed.filter((id) => !expected.has(id) || seen.size === seen.add(id).size);
	const missing = [...expected].filter((id) => !seen.has(id));
	return {
		columns,
		expected: roster.length,
		accounted: placed.length,
		missing,
		surplus,
		addsUp: missing.length === 0 && surplus.length === 0 && placed.length === roster.length
	};
}
