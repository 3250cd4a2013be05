import type { Knex } from 'knex';

/** What a statement is refused with that would change anything of a closed administration. */
export const CLOSED = 'this administration is closed';

const bySitting = (row: string) => `SELECT administration_id FROM sitting WHERE id = ${row}.sitting_id`;
const bySession = (row: string) => `SELECT administration_id FROM session WHERE id = ${row}.session_id`;
const byIncident = (row: string) =>
	`SELECT session.administration_id FROM incident JOIN session ON session.id = incident.session_id WHERE incident.id = ${row}.incident_id`;
const itself = (row: string) => `${row}.administration_id`;

/** By table: how the administration of a row is found. What is about persons and goes after its time is not here. */
const OWNED: Record<string, (row: string) => string> = {
	session: itself,
	session_proctor: bySession,
	session_group: bySession,
	roster: bySession,
	sitting: itself,
	form: bySitting,
	answer: bySitting,
	answer_standing: bySitting,
	progress: bySitting,
	sitting_play: bySitting,
	lapse: bySitting,
	message: bySession,
	incident: bySession,
	incident_person: byIncident,
	incident_decision: byIncident,
	waiver: bySitting,
	hand_plan: itself,
	hand_mark: itself,
	correction: itself,
	marking_run: itself,
	run_score: bySitting,
	validity: bySitting,
	alike_decision: bySession,
	sign_off: itself,
	closing_wish: itself,
	paper_allowed: itself,
	entitlement: itself,
	closing: itself,
	grant_given: (row) =>
		`CASE ${row}.scope_kind WHEN 'administration' THEN ${row}.scope_id
		 WHEN 'session' THEN (SELECT administration_id FROM session WHERE id = ${row}.scope_id) END`
};
/** What came after there was closing. */
const OWNED_LATER = {
	contact: itself,
	step: itself,
	step_done: (row: string) => `SELECT administration_id FROM step WHERE id = ${row}.step_id`,
	question_shown: bySitting
};
/** What goes when the time of answers has come: what candidates did, and what was written about them. */
export const EMPTIED_TABLES = {
	bySitting: [
		'answer_standing',
		'answer',
		'run_score',
		'question_shown',
		'sitting_play',
		'lapse',
		'validity',
		'incident_person'
	],
	byIncident: ['incident_decision', 'incident_person'],
	bySession: ['incident', 'message', 'alike_decision'],
	byAdministration: ['hand_mark']
} as const;
export const FROZEN_TABLES = [...Object.keys(OWNED), ...Object.keys(OWNED_LATER)];

/**
 * Once an administration is closed nothing of it changes, whichever route, sweep or later part of the program would: the
 * database itself refuses. `closing` can be written once.
 */
export async function freezeWhenClosed(db: Knex): Promise<void> {
	await freeze(db, OWNED);
	// What was handed over may be deleted when its time has come, and nothing comes to it.
	await db.raw(
		`CREATE TRIGGER sitting_file_closed_insert BEFORE INSERT ON sitting_file
		 WHEN EXISTS (SELECT 1 FROM closing WHERE administration_id = (${bySitting('new')}))
		 BEGIN SELECT RAISE(ABORT, '${CLOSED}'); END`
	);
	// Closing is never undone, and an administration that is closed keeps its name and its days.
	await db.raw(
		`CREATE TRIGGER administration_closed_update BEFORE UPDATE ON administration
		 WHEN EXISTS (SELECT 1 FROM closing WHERE administration_id = old.id)
		 BEGIN SELECT RAISE(ABORT, '${CLOSED}'); END`
	);
}

/** The same for tables that came later, by the migration that made them. */
export function freezeLaterTables(db: Knex, tables: (keyof typeof OWNED_LATER)[]): Promise<void> {
	return freeze(db, Object.fromEntries(tables.map((table) => [table, OWNED_LATER[table]])));
}

/** Lets go from closed administrations what is emptied in its time; everything else of them stays as it was. */
export async function leaveToTheirTime(db: Knex): Promise<void> {
	const owned: typeof OWNED = { ...OWNED, ...OWNED_LATER };
	for (const table of new Set(Object.values(EMPTIED_TABLES).flat())) {
		const administrationOf = owned[table];
		await db.raw(`DROP TRIGGER ${table}_closed_delete`);
		await db.raw(
			`CREATE TRIGGER ${table}_closed_delete BEFORE DELETE ON ${table}
			 WHEN EXISTS (SELECT 1 FROM closing WHERE administration_id = (${administrationOf('old')}))
			  AND NOT EXISTS (SELECT 1 FROM emptied WHERE what = 'answers' AND administration_id = (${administrationOf('old')}))
			 BEGIN SELECT RAISE(ABORT, '${CLOSED}'); END`
		);
	}
	// Only what is closed is emptied, and never filled again.
	await db.raw(
		`CREATE TRIGGER emptied_insert BEFORE INSERT ON emptied
		 WHEN NOT EXISTS (SELECT 1 FROM closing WHERE administration_id = new.administration_id)
		 BEGIN SELECT RAISE(ABORT, 'only a closed administration is emptied'); END`
	);
	await db.raw(
		`CREATE TRIGGER emptied_delete BEFORE DELETE ON emptied
		 BEGIN SELECT RAISE(ABORT, 'what was emptied stays so'); END`
	);
}

async function freeze(db: Knex, owned: typeof OWNED): Promise<void> {
	for (const [table, administrationOf] of Object.entries(owned)) {
		for (const [act, rows] of [
			['INSERT', ['new']],
			['UPDATE', ['old', 'new']],
			['DELETE', ['old']]
		] as const) {
			const closed = rows.map(
				(row) => `EXISTS (SELECT 1 FROM closing WHERE administration_id = (${administrationOf(row)}))`
			);
			await db.raw(
				`CREATE TRIGGER ${table}_closed_${act.toLowerCase()} BEFORE ${act} ON ${table} WHEN ${closed.join(' OR ')}
				 BEGIN SELECT RAISE(ABORT, '${CLOSED}'); END`
			);
		}
	}
}
