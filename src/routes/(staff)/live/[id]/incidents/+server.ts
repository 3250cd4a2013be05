import { json } from '@sveltejs/kit';
import { z } from 'zod';
import { INCIDENT_KINDS, type IncidentKind } from '$core/incident';
import { allowSession, orTryAgain, problem, readJson } from '$lib/server/http';
import { incidentsOf, tellIncident, withdrawIncident } from '$lib/server/incidents';
import type { RequestHandler } from './$types';

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
export const GET: RequestHandler = async (event) => {
	const allowed = await allowSession(event, event.params.id, 'see_session');
	if (!allowed.ok) return allowed.response;
	return json({ incidents: await incidentsOf(allowed.otium.db, allowed.session.id) });
};

/** Tells an incident and gives the lost time back in the same act. */
export const POST: RequestHandler = async (event) => {
	const allowed = await allowSession(event, event.params.id, 'run_session');
	if (!allowed.ok) return allowed.response;
	const body = await readJson(event.request, Told);
	if (!body.ok) return body.response;
	const { otium, by, session } = allowed;
	const { attachment, ...told } = body.data;
	if (told.minutes > 0 && session.endedAt !== null)
		return problem(409, {
			code: 'session_over',
			message: 'This session has ended: time can’t be given back in it.',
			instead: 'Tell the incident with 0 minutes, and give an own window on the Grants page.'
		});
	const bytes = attachment ? Buffer.from(attachment.base64, 'base64') : null;
	if (bytes && (bytes.length > MOST_BYTES || !TYPES.includes(attachment!.type)))
		return problem(422, {
			code: 'attachment',
			message: 'This file can’t be attached.',
			instead: 'A picture (PNG, JPEG), a PDF or plain text of at most 700 kB can.'
		});
	return orTryAgain(async () => {
		await tellIncident(otium, by, session.id, {
			...told,
			happenedAt: Math.min(told.happenedAt, otium.now()),
			attachment: attachment && bytes ? { name: attachment.name, type: attachment.type, bytes } : null
		});
		return json({ incidents: await incidentsOf(otium.db, session.id) });
	});
};

const Undone = z.object({ id: z.string().max(64) });

/** Takes one back, with the minutes that it gave. */
export const DELETE: RequestHandler = async (event) => {
	const allowed = await allowSession(event, event.params.id, 'run_session');
	if (!allowed.ok) return allowed.response;
	const body = await readJson(event.request, Undone);
	if (!body.ok) return body.response;
	const { otium, by, session } = allowed;
	return orTryAgain(async () => {
		const withdrawn = await withdrawIncident(otium, by, session.id, body.data.id);
		return json({ withdrawn, incidents: await incidentsOf(otium.db, session.id) });
	});
};
