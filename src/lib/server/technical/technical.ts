import { may, sitesWith, type StaffMember } from '$core/access';
import { groupBy } from '$core/group-by';
import { technicalTasks, type TechnicalTask } from '$core/technical';
import { fail } from '$core/problem';
import type { Actor } from '$core/sitting';
import type { Query } from '../db';
import type { Writing } from '../house';
import { appendToLogbook } from '../logbook';
import { devicesReady } from '../readiness';
import { findSession, findSessions, hasSound, networkNames, placeOf, type Session } from '../records';

/** A session with all that is to be seen to, and what of it is done. */
export type TechnicalSession = {
	id: string;
	name: string;
	room: string;
	site: string;
	opens: number;
	zone: string;
	tasks: (TechnicalTask & { done: { by: string; at: number; note: string } | null })[];
	/** Of its candidates’ own devices, how many were checked and can. */
	checked: { ready: number; notReady: number; candidates: number };
};

/** So many sessions are listed, the next first. */
const MOST = 60;

/** What is to be seen to for the sessions to come at the sites of whoever asks. */
export async function technicalList(db: Query, staff: StaffMember): Promise<TechnicalSession[]> {
	const sites = sitesWith(staff, 'see_technical');
	const sessions = await findSessions(db, (query) => {
		query.whereNull('ended_at');
		if (sites !== null) query.whereIn('site.id', sites);
	});
	const listed = sessions.slice(0, MOST);
	const done: { session_id: string; task: string; at: number; note: string; name: string | null }[] = await db(
		'technical_done'
	)
		.leftJoin('staff', 'staff.id', 'technical_done.by')
		.whereIn(
			'session_id',
			listed.map(({ id }) => id)
		)
		.select('session_id', 'task', 'at', 'note', 'staff.name');
	const bySession = groupBy(done, (row) => row.session_id);
	return Promise.all(
		listed.map(async (session) => {
			const people = await candidatesOf(db, session);
			const ticks = new Map((bySession.get(session.id) ?? []).map((row) => [row.task, row]));
			return {
				id: session.id,
				name: session.name,
				room: session.room.name,
				site: session.site.name,
				opens: session.window.opens,
				zone: session.site.zone,
				tasks: (await tasksOf(db, session, people.length)).map((task) => {
					const tick = ticks.get(task.key);
					return { ...task, done: tick ? { by: tick.name ?? '', at: tick.at, note: tick.note } : null };
				}),
				checked: { ...(await devicesReady(db, people)), candidates: people.length }
			};
		})
	);
}

async function tasksOf(db: Query, session: Session, candidates: number): Promise<TechnicalTask[]> {
	const [{ clients }] = (await db('client_device')
		.where({ site_id: session.site.id })
		.whereNull('withdrawn_at')
		.count('* as clients')) as { clients: number }[];
	return technicalTasks({
		rules: session.rules,
		networks: await networkNames(db, session.rules.door.networks),
		clients,
		candidates,
		hasSound: await hasSound(db, session.paper.id)
	});
}

function candidatesOf(db: Query, session: Session): Promise<string[]> {
	return db('roster')
		.join('sitting', 'sitting.id', 'roster.sitting_id')
		.where('roster.session_id', session.id)
		.pluck('candidate_id');
}

/**
 * Ticks something as done, or takes the tick back.
 * @throws ProblemError when the session, or such a task of it, is not theirs
 */
export async function tickTask(
	otium: Writing,
	staff: StaffMember,
	by: Actor,
	asked: { sessionId: string; task: string; on: boolean; note: string }
): Promise<void> {
	const { sessionId, task, on, note } = asked;
	const session = await findSession(otium.db, sessionId);
	if (!session || !may(staff, 'see_technical', placeOf(session))) fail('not_found');
	const people = await candidatesOf(otium.db, session);
	const known = (await tasksOf(otium.db, session, people.length)).find((one) => one.key === task);
	if (!known) fail('not_found');
	await otium.db.transaction(async (trx) => {
		await trx('technical_done').where({ session_id: sessionId, task }).delete();
		if (on)
			await trx('technical_done').insert({
				site_id: session.site.id,
				session_id: sessionId,
				task,
				at: otium.now(),
				by: staff.id,
				note
			});
		const body = { task: known.text, on, note };
		await appendToLogbook(trx, [{ at: otium.now(), by, kind: 'technical_ticked', sessionId, body }]);
	});
}
