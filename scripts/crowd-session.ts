import { transact } from '$lib/server/db';
import { foldNumber } from '$core/access';
import type { Paper, Question } from '$core/paper';
import { seatName } from '$core/seating';
import { DEFAULT_RULES } from '$core/session';
import { newSitting } from '$core/sitting';
import { MINUTE } from '$core/time';
import { DEMO_PAPERS } from '$lib/server/demo';
import { addStaff } from '$lib/server/identity';
import { startOtium } from '$lib/server/otium';
import { findSession, makeDoorCode } from '$lib/server/session';
import type { Person } from './crowd-roster';

/** Who may look on. */
export const CROWD_STAFF = { signIn: 'trial', password: 'trial-of-the-crowd' };

const ESSAY: Question = {
	id: 'essay',
	kind: 'essay',
	stem: 'The fog closes in while you cross a traffic separation scheme. Say what you do, and why.',
	words: { from: 1_000, to: 2_000 },
	points: 10,
	topic: 'watchkeeping'
};
const withEssay = ({ paper }: { paper: Paper }): { paper: Paper } => ({
	paper: { ...paper, parts: [{ title: 'Essay', questions: [ESSAY], draw: null }, ...paper.parts] }
});

export type CrowdSession = { id: string; code: string; people: Person[] };

/**
 * Furnishes an empty data folder with one session that lets in by itself, open now, for as many candidates as asked:
 * what crash tests and measurements run on.
 * @param options `essay`: each form begins with one
 */
export async function makeCrowdSession(
	dataDir: string,
	candidates: number,
	{ essay = false } = {}
): Promise<CrowdSession> {
	const otium = await startOtium({ dataDir, sweep: false, logLevel: 'silent' });
	const { db } = otium;
	const now = otium.now();
	const { paper } = essay ? withEssay(DEMO_PAPERS[0]) : DEMO_PAPERS[0];
	const rules = {
		...DEFAULT_RULES,
		admission: 'automatic',
		timing: { ...DEFAULT_RULES.timing, limitMinutes: 240, lastEntryMinutes: null }
	};
	await db('administration').insert({ id: 'a', name: 'Trial' });
	await db('site').insert({ id: 'q', name: 'Quayside', zone: 'Europe/London' });
	await db('room').insert({
		id: 'r',
		site_id: 'q',
		name: 'Sail Loft',
		seat_rows: Math.ceil(candidates / 20),
		seats_per_row: 20
	});
	await db('candidate_group').insert({ id: 'g', site_id: 'q', name: 'Crowd' });
	await db('paper').insert({ id: 'p', title: paper.title, version: 1, content: JSON.stringify(paper) });
	await db('session').insert({
		id: 's',
		administration_id: 'a',
		room_id: 'r',
		paper_id: 'p',
		name: 'Trial',
		kind: 'live',
		opens: now - MINUTE,
		closes: now + 600 * MINUTE,
		rules: JSON.stringify(rules)
	});
	const people = Array.from({ length: candidates }, (_, i) => ({ number: `CR-${10_000 + i}`, family: `Sailor${i}` }));
	await transact(db, async (trx) => {
		for (const [i, { number, family }] of people.entries()) {
			await trx('candidate').insert({
				id: `c${i}`,
				number,
				number_folded: foldNumber(number),
				given: 'Ada',
				family,
				group_id: 'g'
			});
			await trx('sitting').insert({
				id: `t${i}`,
				candidate_id: `c${i}`,
				administration_id: 'a',
				paper_id: 'p',
				session_id: 's',
				state: 'expected',
				fold: JSON.stringify(newSitting(`t${i}`, 's', now))
			});
			await trx('roster').insert({ session_id: 's', sitting_id: `t${i}`, seat: seatName(i, 20) });
		}
	});
	await addStaff(db, { ...CROWD_STAFF, name: 'Trial', roles: [{ role: 'coordinator', siteId: null }] });
	const session = (await findSession(db, 's'))!;
	await transact(db, (trx) => makeDoorCode(trx, session, { role: 'system', id: 'trial' }, now));
	const { doorCode } = (await findSession(db, 's'))!;
	await otium.stop();
	return { id: 's', code: doorCode!, people };
}
