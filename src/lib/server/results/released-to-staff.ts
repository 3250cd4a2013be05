import { may, type StaffMember, roleFor } from '$core/access';
import { shownPercent, shownPoints } from '$core/results';
import { transact, writeIfPossible, type Query } from '../db';
import type { Writing } from '../house';
import { appendToLogbook } from '../logbook';
import { paperVersion } from '../paper';
import { findSessions } from '../records';
import { resultLines, type ResultLine } from './lines';
import { RELEASE_TO, type ReleaseRole, type ReleaseRule } from './release';

/** What somebody of the staff may read of a paper. By name for those who were with the candidates, else in sum alone. */
export type ReleasedToStaff = {
	id: string;
	paper: string;
	administration: string;
	since: number;
	of: number;
	/** Shares of the points, from 0 to 1, so that no name is needed to tell how it went. */
	shares: number[];
	lines: { name: string; number: string; session: string; points: string; percent: string; outcome: string }[] | null;
};

type Row = {
	id: string;
	paper_id: string;
	administration_id: string;
	administration: string;
	body: string;
	from_at: number;
};
/** These read names: they have met the candidates, or know them from what they grant. */
const BY_NAME: readonly ReleaseRole[] = ['proctor', 'site_proctor', 'grants_officer'];

/** Releases that are out and name a role that somebody holds. */
export async function releasesFor(db: Query, staff: StaffMember, now: number): Promise<Row[]> {
	const rows: Row[] = await db('release')
		.join('administration', 'administration.id', 'release.administration_id')
		.where('from_at', '<=', now)
		.whereNull('called_back_at')
		.orderBy('from_at', 'desc')
		.select('release.id', 'paper_id', 'administration_id', 'administration.name as administration', 'body', 'from_at');
	return rows.filter((row) => rolesIn(row, staff).length > 0);
}

function rolesIn({ body }: Row, staff: StaffMember): ReleaseRole[] {
	const named = (JSON.parse(body) as ReleaseRule).staff ?? [];
	return RELEASE_TO.filter((role) => named.includes(role) && staff.roles.some((held) => held.role === role));
}

/** What has been released to somebody, each as far as their roles reach. That they have read it is noted. */
export async function releasedTo(otium: Writing, staff: StaffMember): Promise<ReleasedToStaff[]> {
	const { db } = otium;
	const now = otium.now();
	const released: ReleasedToStaff[] = [];
	for (const row of await releasesFor(db, staff, now)) {
		const roles = rolesIn(row, staff);
		const all = await resultLines(db, (query) =>
			query.where({ 'sitting.administration_id': row.administration_id, 'sitting.paper_id': row.paper_id })
		);
		const reach = await reachOf(db, row.administration_id, staff, roles);
		const mine = all.filter(({ sitting }) => reach(sitting));
		if (mine.length === 0) continue;
		const isByName = roles.some((role) => BY_NAME.includes(role));
		released.push({
			id: row.id,
			paper: (await paperVersion(db, row.paper_id)).title,
			administration: row.administration,
			since: row.from_at,
			of: mine.length,
			shares: mine.map(({ result }) => (result.outOf === 0 ? 0 : result.points / result.outOf)),
			lines: isByName ? mine.map(inWords) : null
		});
		await noteRead(otium, row, staff, now);
	}
	return released;
}

/** A proctor's are those of their sessions, a site's role has those of the site. */
async function reachOf(
	db: Query,
	administrationId: string,
	staff: StaffMember,
	roles: ReleaseRole[]
): Promise<(sitting: ResultLine['sitting']) => boolean> {
	const supervises = roles.includes('proctor') || roles.includes('site_proctor');
	const sessions = supervises
		? await findSessions(db, (query) => query.where({ 'session.administration_id': administrationId }))
		: [];
	const seen = new Set(
		sessions
			.filter(({ site, proctorIds }) => may(staff, 'see_ledger', { siteId: site.id, proctorIds }))
			.map(({ id }) => id)
	);
	const wide = staff.roles.filter(({ role }) =>
		roles.some((one) => one === role && one !== 'proctor' && one !== 'site_proctor')
	);
	return ({ sessionId, siteId }) =>
		seen.has(sessionId) || wide.some((held) => held.siteId === null || held.siteId === siteId);
}

function inWords({ sitting, name, result, validity }: ResultLine): NonNullable<ReleasedToStaff['lines']>[number] {
	const outcome = [
		result.band?.name,
		result.passed === null ? null : result.passed ? 'passed' : 'not passed',
		validity && validity.verdict !== 'valid' ? validity.verdict : null,
		result.toMark > 0 ? 'not marked to the end' : null
	];
	return {
		name,
		number: sitting.number,
		session: sitting.session,
		points: `${shownPoints(result.points)} of ${shownPoints(result.outOf)}`,
		percent: shownPercent(result),
		outcome: outcome.filter(Boolean).join(', ')
	};
}

async function noteRead({ db }: Writing, { id, administration_id, paper_id }: Row, staff: StaffMember, at: number) {
	if (await db('release_staff_read').where({ release_id: id, staff_id: staff.id }).first('at')) return;
	const body = { administrationId: administration_id, paperId: paper_id };
	await writeIfPossible(
		transact(db, async (trx) => {
			await trx('release_staff_read')
				.insert({ release_id: id, staff_id: staff.id, at })
				.onConflict(['release_id', 'staff_id'])
				.ignore();
			const by = { role: roleFor(staff, 'see_released'), id: staff.id };
			await appendToLogbook(trx, [{ at, by, kind: 'released_read', body }]);
		})
	);
}
