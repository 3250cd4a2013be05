import { z } from 'zod';
import { may } from '$core/access';
import { fail } from '$core/problem';
import { INCIDENT_DECISIONS, VALIDITIES, type IncidentDecision } from '$core/validity';
import { decideAlike, decideIncident, decideValidity } from '$lib/server/closing';
import { confirmed, LARGE, route, sessionFor, staff } from '$lib/server/http';
import { actorAt } from '$lib/server/identity';

const id = z.string().max(64);
const note = z.string().trim().max(300);
const Asked = z.discriminatedUnion('act', [
	z.object({
		act: z.literal('incident'),
		incidentId: id,
		/** null: an incident that names nobody. */
		sittingIds: z.array(id.nullable()).min(1).max(2_000),
		decision: z.enum(Object.keys(INCIDENT_DECISIONS) as [IncidentDecision]),
		note
	}),
	z.object({
		act: z.literal('validity'),
		sittingIds: z.array(id).min(1, 'Choose somebody.').max(5_000),
		verdict: z.enum(VALIDITIES),
		note: note.min(1, 'Say why, in a few words.')
	}),
	z.object({ act: z.literal('alike'), sessionId: id, note: note.min(1, 'Say what you found, in a few words.') })
]);

/** What only a person can decide before a site is signed: incidents, what results are worth, answers that are too similar. */
export const POST = route(
	confirmed(staff('decide')),
	{ schema: Asked, mostBytes: LARGE },
	async ({ otium, staff, body }) => {
		switch (body.act) {
			case 'incident': {
				const row = await otium.db('incident').where({ id: body.incidentId }).first('session_id');
				const { by } = await sessionFor(otium, staff, row?.session_id ?? '', 'decide');
				await decideIncident(otium, by, body.incidentId, body.sittingIds, body.decision, body.note);
				return {};
			}
			case 'validity': {
				const sites: string[] = await otium
					.db('sitting')
					.join('session', 'session.id', 'sitting.session_id')
					.join('room', 'room.id', 'session.room_id')
					.whereIn('sitting.id', body.sittingIds)
					.distinct('room.site_id')
					.pluck('room.site_id');
				if (sites.length === 0 || sites.some((siteId) => !may(staff, 'decide', { siteId, proctorIds: [] })))
					fail('not_yours');
				const decided = await decideValidity(otium, actorAt(staff, sites[0]), body.sittingIds, body.verdict, body.note);
				return { decided };
			}
			case 'alike': {
				const { session, by } = await sessionFor(otium, staff, body.sessionId, 'decide');
				await decideAlike(otium, by, session, body.note);
				return {};
			}
		}
	}
);
