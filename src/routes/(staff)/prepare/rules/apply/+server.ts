import { json } from '@sveltejs/kit';
import { z } from 'zod';
import { may } from '$core/access';
import { rulesFor } from '$core/rules';
import { NO_SUCH_THING, orTryAgain, problem, readJson, SIGNED_OUT } from '$lib/server/http';
import { actorAt } from '$lib/server/identity';
import { findSheet } from '$lib/server/rules';
import { findSession, inputOf, placeOf, saveSession } from '$lib/server/session';
import type { RequestHandler } from './$types';

const Asked = z.object({
	sheet: z.string().max(64),
	sessions: z
		.array(z.object({ id: z.string().max(64), revision: z.number().int() }))
		.min(1, 'Choose a session.')
		.max(200)
});

/** Applies a sheet to each of the sessions that it can be; the others keep theirs, and are told with the reason. */
export const POST: RequestHandler = async ({ request, locals: { otium, staff } }) => {
	if (!staff) return problem(401, SIGNED_OUT);
	const body = await readJson(request, Asked);
	if (!body.ok) return body.response;
	const sheet = await findSheet(otium.db, body.data.sheet);
	if (!sheet) return problem(404, NO_SUCH_THING);
	return orTryAgain(async () => {
		const done: string[] = [];
		const refused: { name: string; why: string }[] = [];
		for (const edit of body.data.sessions) {
			const session = await findSession(otium.db, edit.id);
			if (!session || !may(staff, 'prepare', placeOf(session))) continue;
			const input = await inputOf(otium.db, session);
			const result = await saveSession(
				otium,
				actorAt(staff, session.site.id),
				session.administrationId,
				{ ...input, ruleSheetId: sheet.id, rules: rulesFor(session.rules, sheet.rules) },
				edit
			);
			if (result.ok) done.push(session.name);
			else refused.push({ name: session.name, why: result.message });
		}
		return json({ done, refused });
	});
};
