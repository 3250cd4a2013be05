/** What would put a finding right, as values for fields of the form: `rules.timing.atClose`, `until`, `parts`. */
export type Fix = { text: string; set: Record<string, unknown> };

/** Something that would go wrong on the day. `block` stops planning, `warn` speaks, `info` is worth knowing. */
export type Finding = {
	/** A name that stays: for tests and for lists. */
	code: string;
	level: 'block' | 'warn' | 'info';
	field: 'paper' | 'who' | 'where' | 'when' | 'time' | 'door' | 'lockdown' | 'afterwards';
	/** Two or three words; what catches the eye. */
	title: string;
	message: string;
	fixes: Fix[];
};
