import { DEFAULT_RULES } from '$core/session';
import { newSitting } from '$core/sitting';
import { HOUR } from '$core/time';
import { insertMany, transact } from '$lib/server/db';
import { appendToLogbook, type NewEntry } from '$lib/server/logbook';
import type { Otium } from '$lib/server/otium';

const DAY = 24 * HOUR;
const TERMS = 20;
const SESSIONS = 100;
const PEOPLE = 20;
/** What happens to one who sits, as the logbook has it. */
const STEPS = ['arrived', 'let_in', 'began', 'line_lost', 'line_back', 'handed_in'];

/**
 * Puts years behind the house of a crowd: 20 administrations of 100 sessions, 40,000 sittings of 2,000 people who are
 * over, 240,000 entries in the logbook. All but the last two are closed.
 */
export async function addYears({ db, now }: Otium): Promise<void> {
	const people = Array.from({ length: SESSIONS * PEOPLE }, (_, i) => `y${i}`);
	await insertMany(
		db,
		'candidate',
		people.map((id) => ({ id, number: id, number_folded: id, given: 'Ada', family: `Former ${id}`, group_id: 'g' }))
	);
	for (let term = 1; term <= TERMS; term++) {
		const administration_id = `term${term}`;
		const at = now() - term * 50 * DAY;
		await transact(db, async (trx) => {
			await trx('administration').insert({ id: administration_id, name: `Term ${term}` });
			await insertMany(
				trx,
				'session',
				Array.from({ length: SESSIONS }, (_, i) => ({
					id: `${administration_id}-${i}`,
					administration_id,
					room_id: 'r',
					paper_id: 'p',
					name: `Watch ${i}`,
					kind: 'live',
					opens: at - (i % 20) * DAY,
					rules: JSON.stringify(DEFAULT_RULES),
					entry_closed_at: at,
					ended_at: at
				}))
			);
			const sittings = people.map((candidate_id, i) => {
				const [id, session_id] = [`${administration_id}-${candidate_id}`, `${administration_id}-${i % SESSIONS}`];
				const ended = { by: 'candidate', at, receipt: id, work: { answers: 60, digest: '' } };
				const fold = JSON.stringify({ ...newSitting(id, session_id, at), state: 'handed_in', ended });
				return { id, candidate_id, administration_id, paper_id: 'p', session_id, state: 'handed_in', fold };
			});
			await insertMany(trx, 'sitting', sittings);
			await insertMany(
				trx,
				'roster',
				sittings.map(({ id, session_id }) => ({ session_id, sitting_id: id }))
			);
			const entries = sittings.flatMap(({ id, session_id }) =>
				STEPS.map((kind): NewEntry => {
					return { at, by: { role: 'candidate', id }, kind, sessionId: session_id, sittingId: id, body: {} };
				})
			);
			await appendToLogbook(trx, entries);
			if (term > 2)
				await trx('closing').insert({
					administration_id,
					at,
					by: 'before',
					archive: '-',
					sha256: '-',
					bytes: 0,
					counts: '{}',
					head: '{}'
				});
		});
	}
}
