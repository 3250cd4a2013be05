import { z } from 'zod';
import { fail } from '$core/problem';
import { instantFromLocal, clockTime, localDate, localTime } from '$core/time';
import { confirmed, inSession, route } from '$lib/server/http';
import { foreseeMove, moveWindow, type Session } from '$lib/server/session';

const time = z.string().regex(/^([01]\d|2[0-3]):[0-5]\d$/, 'Give a time, like 09:30.');
const Asked = z.object({
	/** Only told: nothing is changed. */
	foresee: z.boolean(),
	date: z.iso.date('Give a date, like 2026-12-08.'),
	opens: time,
	/** null: it has no end. */
	closes: time.nullable(),
	revision: z.number().int(),
	reason: z.string().trim().max(300)
});

/** The times that everyone of this session has, as a form shows them. */
export const GET = route(inSession('prepare'), ({ session }) => {
	const { zone } = session.site;
	return {
		date: localDate(session.window.opens, zone),
		opens: localTime(session.window.opens, zone),
		closes: session.window.closes === null ? null : localTime(session.window.closes, zone),
		revision: session.revision
	};
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

function windowFrom({ date, opens, closes }: z.infer<typeof Asked>, { site }: Session) {
	const read = (text: string) => {
		const at = instantFromLocal(date, text, site.zone);
		if (at.ok) return at.at;
		if (at.why === 'does_not_exist')
			fail('not_taken', {
				message: `The clocks jump over that time; the next is ${clockTime(at.instead, site.zone)}.`
			});
		return fail('not_taken', {
			message: 'The clocks go back then, so that time comes twice.',
			instead: 'Choose another.'
		});
	};
	return { opens: read(opens), closes: closes === null ? null : read(closes) };
}
