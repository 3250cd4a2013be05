import { may } from '$core/access';
import { incidentsToDecide, isAlikeOpen, validityLines } from '$lib/server/closing';
import { heldBack } from '$lib/server/answers';
import { requireStaff } from '$lib/server/http';
import { findSessions } from '$lib/server/session';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	const staff = requireStaff(event, 'see_closing');
	const { here } = await event.parent();
	const { otium } = event.locals;
	if (!here) return { incidents: [], lines: [], valid: 0, alike: [], held: [] };
	const sees = (siteId: string) => may(staff, 'see_closing', { siteId, proctorIds: [] });
	const lines = (await validityLines(otium.db, here.id)).filter(({ siteId }) => sees(siteId));
	const sessions = (
		await findSessions(otium.db, (query) => query.where({ 'session.administration_id': here.id }))
	).filter(({ site, kind, endedAt }) => sees(site.id) && kind !== 'rehearsal' && endedAt !== null);
	const alike = [];
	for (const session of sessions)
		alike.push({ id: session.id, name: session.name, isOpen: await isAlikeOpen(otium, session) });
	const held = await heldBack(
		otium.db,
		lines.map(({ sittingId }) => sittingId)
	);
	const needsLook = (line: (typeof lines)[number]) => line.proposed.verdict !== 'valid' || line.decided !== null;
	return {
		incidents: (await incidentsToDecide(otium.db, here.id)).filter(({ siteId }) => sees(siteId)),
		lines: lines.filter(needsLook),
		valid: lines.filter((line) => !needsLook(line)).length,
		alike,
		held: lines
			.filter(({ sittingId }) => held.has(sittingId))
			.map(({ sittingId, name, sessionId, session }) => ({
				sittingId,
				name,
				sessionId,
				session,
				count: held.get(sittingId)!.count
			}))
	};
};
