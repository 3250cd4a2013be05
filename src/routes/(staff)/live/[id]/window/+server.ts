import { z } from 'zod';
import { fail } from '$core/problem';
import { asLocalWindow, readLocalWindow } from '$core/time';
import { confirmed, inSession, route } from '$lib/server/http';
import { day, lastDay, timeOfDay } from '$lib/server/records';
import { foreseeMove, moveWindow, type Session } from '$lib/server/session';

const Asked = z.object({
	/** Only told: nothing is changed. */
	foresee: z.boolean(),
	date: day,
	opens: timeOfDay,
	/** null: it has no end. */
	closes: timeOfDay.nullable(),
	lastDate: lastDay,
	revision: z.number().int(),
	reason: z.string().trim().max(300)
});

/** The times that everyone of this session has, as a form shows them. */
export const GET = route(inSession('prepare'), ({ session }) => {
	return { ...asLocalWindow(session.window, session.site.zone), revision: session.revision };
});

/** Moves everyone's window, or tells what that would do. */
export const POST = route(confirmed(inSession('prepare')), Asked, async ({ otium, by, session, body }) => {
	const next = windowFrom(body, session);
	if (body.foresee) return foreseeMove(otium.db, session, next, otium.now());
	if (body.reason === '') fail('reason_missing');
	const moved = await moveWindow(otium, by, session.id, next, body);
	if (!moved.ok) fail('not_taken', { message: moved.message });
	return { ok: true };
});

/** @throws ProblemError not_taken */
function windowFrom(asked: z.infer<typeof Asked>, { site }: Session) {
	const read = readLocalWindow(asked, site.zone);
	if (!read.ok) fail('not_taken', { message: read.message, instead: read.instead });
	return read.window;
}
