import { addressOf } from '$lib/server/house-card';
import { may } from '$core/access';
import { fullName } from '$core/names';
import { requireStaff } from '$lib/server/http';
import { MOST_LISTED } from '$lib/server/most-listed';
import { findSession, findSessions, placeOf } from '$lib/server/session';
import type { PageServerLoad } from './$types';

type Row = {
	id: string;
	number: string;
	given: string;
	family: string;
	at: number | null;
	device_name: string | null;
	client_version: string | null;
	checks: string | null;
	ready: number | null;
};

/** Who of a session has rehearsed on which device, and what did not work. */
export const load: PageServerLoad = async (event) => {
	const staff = requireStaff(event, 'prepare');
	const { otium } = event.locals;
	const sessions = (await findSessions(otium.db, (query) => query.whereNull('ended_at'))).filter((session) =>
		may(staff, 'prepare', placeOf(session))
	);
	const asked = event.url.searchParams.get('session');
	const session = asked ? await findSession(otium.db, asked) : (sessions[0] ?? null);
	const mine = session && may(staff, 'prepare', placeOf(session)) ? session : null;
	const rows: Row[] = mine
		? await otium
				.db('roster')
				.join('sitting', 'sitting.id', 'roster.sitting_id')
				.join('candidate', 'candidate.id', 'sitting.candidate_id')
				.leftJoin('device_check', (join) => join.on('device_check.candidate_id', 'candidate.id'))
				.where('roster.session_id', mine.id)
				.orderBy(['family', 'given', 'device_check.at'])
				.select(
					'candidate.id',
					'number',
					'given',
					'family',
					'device_check.at',
					'device_name',
					'client_version',
					'checks',
					'ready'
				)
		: [];
	// The last check of each counts.
	const last = [...new Map(rows.map((row) => [row.id, row])).values()];
	const which = event.url.searchParams.get('which') === 'not' ? 'not' : 'all';
	const listed = which === 'all' ? last : last.filter(({ ready }) => !ready);
	return {
		// A session that has ended is listed only when its own link is opened.
		sessions: (mine?.endedAt ? [mine, ...sessions] : sessions).map((one) => ({ id: one.id, name: one.name })),
		session: mine
			? {
					id: mine.id,
					name: mine.name,
					zone: mine.site.zone,
					sealed: mine.rules.lockdown.level === 'sealed' ? mine.rules.lockdown.clientVersion : null
				}
			: null,
		address: `${await addressOf(otium.db, event.url)}/sit/rehearse`,
		expected: last.length,
		ready: last.filter(({ ready }) => ready).length,
		which,
		of: listed.length,
		people: listed.slice(0, MOST_LISTED).map((row) => ({
			id: row.id,
			number: row.number,
			name: fullName(row),
			check:
				row.at === null
					? null
					: {
							at: row.at,
							device: row.device_name!,
							client: row.client_version,
							ready: Boolean(row.ready),
							faults: (JSON.parse(row.checks!) as { name: string; ok: boolean; says: string }[]).filter(
								(one) => !one.ok
							)
						}
		}))
	};
};
