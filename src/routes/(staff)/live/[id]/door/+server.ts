import { nanoid } from 'nanoid';
import { z } from 'zod';
import { may } from '$core/access';
import { fail } from '$core/problem';
import { localMidnightAfter } from '$core/time';
import { forgive, openRefusals, settleRefusals } from '$lib/server/door';
import { giveGrant } from '$lib/server/grants';
import { inSession, orRefuse, route } from '$lib/server/http';
import { addToSession, mustBeWithin, placeOf } from '$lib/server/session';
import { act } from '$lib/server/sitting';

const Asked = z.object({
	refusalId: z.string().max(64),
	act: z.enum(['seen', 'admit', 'add', 'resume', 'forgive'])
});

/** Settles a line about somebody who was refused at the door. */
export const POST = route(inSession('run_session'), Asked, async ({ otium, by, session, staff, body }) => {
	const now = otium.now();
	const refused = (await openRefusals(otium.db, session.id, now)).find((one) => one.id === body.refusalId);
	if (!refused) fail('not_found');

	switch (body.act) {
		case 'admit': {
			// A window of their own from now: it brings its own last entry, and opens nothing for anybody else.
			if (!refused.candidate) fail('not_found', { status: 409 });
			const closes = session.window.closes ?? localMidnightAfter(now, session.site.zone);
			if (closes <= now) fail('window_over');
			await giveGrant(otium, by, `late-${refused.id}`, {
				candidateId: refused.candidate.id,
				scope: { kind: 'session', id: session.id },
				body: { kind: 'own_window', opens: now, closes },
				reason: 'Let in after the last entry',
				givenBy: by.id,
				givenAt: now
			});
			break;
		}
		case 'add':
			if (!may(staff, 'prepare', placeOf(session))) fail('not_yours');
			if (!refused.candidate) fail('not_found', { status: 409 });
			await mustBeWithin(otium.db, staff, { candidates: [refused.candidate.id] });
			orRefuse(await addToSession(otium, by, session, refused.candidate.id));
			break;
		case 'forgive':
			await forgive(otium, refused.id);
			// The device that has finished is freed, so that the next attempt may begin on another.
			if (refused.code === 'again_elsewhere' && refused.sittingId) {
				const [freed] = await act(otium, [
					{ id: nanoid(), sittingId: refused.sittingId, by, body: { kind: 'move_device' }, facts: { sitsAgain: true } }
				]);
				orRefuse(freed);
			}
			break;
		case 'resume': {
			if (!refused.sittingId) fail('not_found');
			const [outcome] = await act(otium, [
				{ id: nanoid(), sittingId: refused.sittingId, by, body: { kind: 'resume' } }
			]);
			orRefuse(outcome);
		}
	}
	await settleRefusals(otium, session.id, { id: refused.id });
	return { ok: true };
});
