import { z } from 'zod';
import { may } from '$core/access';
import { INCIDENT_KINDS, type IncidentKind } from '$core/incident';
import { fail } from '$core/problem';
import { inSession, route } from '$lib/server/http';
import { incidentsOf, tellIncident, withdrawIncident } from '$lib/server/incidents';
import { placeOf } from '$lib/server/session';

const MOST_BYTES = 700_000;
const KINDS = Object.keys(INCIDENT_KINDS) as [IncidentKind, ...IncidentKind[]];
const TYPES = ['image/png', 'image/jpeg', 'application/pdf', 'text/plain'];

const Told = z.object({
	id: z.string().regex(/^[\w-]{8,40}$/),
	kind: z.enum(KINDS),
	happenedAt: z.number().int().min(0),
	note: z.string().trim().min(1, 'Say in a few words what happened.').max(2_000),
	done: z.string().trim().max(2_000).default(''),
	minutes: z.number().int('Give whole minutes.').min(0).max(240, 'Give at most 240 minutes.').default(0),
	sittingIds: z.array(z.string().max(64)).max(2_000),
	attachment: z
		.object({ name: z.string().min(1).max(120), type: z.string(), base64: z.string() })
		.nullable()
		.default(null)
});

/** The incidents of this session. */
export const GET = route(inSession('see_session'), async ({ otium, session }) => ({
	incidents: await incidentsOf(otium.db, session.id)
}));

/** Tells an incident and gives the lost time back in the same act. */
export const POST = route(
	inSession('run_session'),
	// What is attached comes as base64, a third longer than it is; people may be named beside it.
	{ schema: Told, mostBytes: 2 * MOST_BYTES },
	async ({ otium, by, session, body: { attachment, ...told } }) => {
		if (told.minutes > 0 && session.endedAt !== null)
			fail('session_over', {
				message: 'This session has ended: time can’t be given back in it.',
				instead: 'Tell the incident with 0 minutes, and give an own window on the Grants page.'
			});
		const bytes = attachment ? Buffer.from(attachment.base64, 'base64') : null;
		if (bytes && (bytes.length > MOST_BYTES || !TYPES.includes(attachment!.type))) fail('attachment');
		await tellIncident(otium, by, session.id, {
			...told,
			happenedAt: Math.min(told.happenedAt, otium.now()),
			attachment: attachment && bytes ? { name: attachment.name, type: attachment.type, bytes } : null
		});
		return { incidents: await incidentsOf(otium.db, session.id) };
	}
);

/** Takes one back, with the minutes that it gave. */
export const DELETE = route(
	inSession('run_session'),
	z.object({ id: z.string().max(64) }),
	async ({ otium, by, staff, session, body }) => {
		const mayAny = may(staff, 'prepare', placeOf(session));
		const withdrawn = await withdrawIncident(otium, by, session.id, body.id, mayAny);
		return { withdrawn, incidents: await incidentsOf(otium.db, session.id) };
	}
);
