import { z } from 'zod';
import { may } from '$core/access';
import { fail } from '$core/problem';
import { rulesFor } from '$core/rules';
import { route, staff } from '$lib/server/http';
import { actorAt } from '$lib/server/identity';
import { findSheet } from '$lib/server/rules';
import { findSession, inputOf, placeOf, saveSession } from '$lib/server/session';

const Asked = z.object({
	sheet: z.string().max(64),
	sessions: z
		.array(z.object({ id: z.string().max(64), revision: z.number().int() }))
		.min(1, 'Choose a session.')
		.max(200)
});

/** Applies a sheet to each of the sessions that it can be; the others keep theirs, and are told with the reason. */
export const POST = route(staff('prepare'), Asked, async ({ otium, staff, body }) => {
	const sheet = await findSheet(otium.db, body.sheet);
	if (!sheet) fail('not_found');
	const done: string[] = [];
	const refused: { name: string; why: string }[] = [];
	for (const edit of body.sessions) {
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
	return { done, refused };
});
