import { json } from '@sveltejs/kit';
import { nanoid } from 'nanoid';
import { z } from 'zod';
import { may } from '$core/access';
import { localMidnightAfter } from '$core/time';
import { forgive, openRefusals, settleRefusals } from '$lib/server/door';
import { giveGrant } from '$lib/server/grants';
import { allowSession, NO_SUCH_THING, NOT_YOURS, orTryAgain, problem, readJson } from '$lib/server/http';
import { addToSession, placeOf } from '$lib/server/session';
import { act } from '$lib/server/sitting';
import type { RequestHandler } from './$types';

const Asked = z.object({
	refusalId: z.string().max(64),
	act: z.enum(['seen', 'admit', 'add', 'resume', 'forgive'])
});

/** Settles a line about somebody who was refused at the door. */
export const POST: RequestHandler = async (event) => {
	const allowed = await allowSession(event, event.params.id, 'run_session');
	if (!allowed.ok) return allowed.response;
	const body = await readJson(event.request, Asked);
	if (!body.ok) return body.response;
	const { otium, by, session, staff } = allowed;
	const now = otium.now();
	const refused = (await openRefusals(otium.db, session.id, now)).find((one) => one.id === body.data.refusalId);
	if (!refused) return problem(404, NO_SUCH_THING);

	return orTryAgain(async () => {
		switch (body.data.act) {
			case 'admit': {
				// A window of their own from now: it brings its own last entry, and opens nothing for anybody else.
				if (!refused.candidate) return problem(409, NO_SUCH_THING);
				const closes = session.window.closes ?? localMidnightAfter(now, session.site.zone);
				if (closes <= now)
					return problem(409, {
						code: 'window_over',
						message: 'The session’s own time is over.',
						instead: 'Give a window of their own on the Grants page.'
					});
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
			case 'add': {
				if (!may(staff, 'prepare', placeOf(session))) return problem(403, NOT_YOURS);
				const added = await addToSession(otium, by, session, refused.candidate!.id);
				if (!added.ok) return problem(409, added.problem);
				break;
			}
			case 'forgive':
				await forgive(otium, refused.id);
				break;
			case 'resume': {
				if (!refused.sittingId) return problem(404, NO_SUCH_THING);
				const [outcome] = await act(otium, [
					{ id: nanoid(), sittingId: refused.sittingId, by, body: { kind: 'resume' } }
				]);
				if (!outcome.ok) return problem(409, { ...outcome.refusal });
			}
		}
		await settleRefusals(otium, session.id, { id: refused.id });
		return json({ ok: true });
	});
};
