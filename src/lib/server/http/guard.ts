import { error, redirect, type RequestEvent } from '@sveltejs/kit';
import { may, mayAnywhere, type Act, type StaffMember } from '$core/access';
import { refusal, type Actor } from '$core/sitting';
import { actorAt } from '../identity';
import type { Otium } from '../otium';
import { findSession, placeOf, type Session } from '../session';
import { NO_SUCH_THING, NOT_AT_THE_DOOR, NOT_YOURS, problem, refuse, SIGNED_OUT } from './answer';

/** For pages: whoever is signed in and may do this somewhere; sends others to sign in, or says no. */
export function requireStaff(event: Pick<RequestEvent, 'locals' | 'url'>, act?: Act): StaffMember {
	const { staff } = event.locals;
	if (!staff) redirect(303, `/sign-in?to=${encodeURIComponent(event.url.pathname + event.url.search)}`);
	if (act && !mayAnywhere(staff, act)) error(403, NOT_YOURS);
	return staff;
}

/** For pages: the session, if this person may do that with it. */
export async function requireSession(
	event: Pick<RequestEvent, 'locals' | 'url'>,
	id: string,
	act: Act
): Promise<{ staff: StaffMember; session: Session; by: Actor }> {
	const staff = requireStaff(event);
	const session = await findSession(event.locals.otium.db, id);
	if (!session) error(404, NO_SUCH_THING);
	if (!may(staff, act, placeOf(session))) error(403, NOT_YOURS);
	return { staff, session, by: actorAt(staff, session.site.id) };
}

type Allowed =
	{ ok: true; otium: Otium; staff: StaffMember; session: Session; by: Actor } | { ok: false; response: Response };

/** For JSON routes: as `requireSession`, with responses instead of pages. */
export async function allowSession(event: Pick<RequestEvent, 'locals'>, id: string, act: Act): Promise<Allowed> {
	const { staff, otium } = event.locals;
	if (!staff) return { ok: false, response: problem(401, SIGNED_OUT) };
	const session = await findSession(otium.db, id);
	if (!session) return { ok: false, response: problem(404, NO_SUCH_THING) };
	if (!may(staff, act, placeOf(session))) return { ok: false, response: problem(403, NOT_YOURS) };
	return { ok: true, otium, staff, session, by: actorAt(staff, session.site.id) };
}

type Bound =
	{ ok: true; otium: Otium; device: { sittingId: string; epoch: number } } | { ok: false; response: Response };

/** For the candidate's JSON routes: the device, if it is the one that its sitting is bound to. A freed one does nothing more. */
export async function allowDevice({ locals: { otium, device } }: Pick<RequestEvent, 'locals'>): Promise<Bound> {
	if (!device) return { ok: false, response: problem(401, NOT_AT_THE_DOOR) };
	const row = await otium.db('sitting').where({ id: device.sittingId }).first('device_epoch');
	if (row?.device_epoch !== device.epoch) return { ok: false, response: refuse(refusal('second_device')) };
	return { ok: true, otium, device };
}

/** The response of an open server-sent-events line. */
export function eventStream(stream: ReadableStream<Uint8Array>): Response {
	return new Response(stream, {
		headers: { 'content-type': 'text/event-stream', 'cache-control': 'no-store', 'x-accel-buffering': 'no' }
	});
}
