import { json } from '@sveltejs/kit';
import { z } from 'zod';
import { may } from '$core/access';
import { NOTHING_TO_PLAN, NOT_YOURS, orTryAgain, problem, readJson, SIGNED_OUT } from '$lib/server/http';
import { actorAt } from '$lib/server/identity';
import { coordinatesSite, errorsOf, findSession, placeOf, saveSession, SessionInput } from '$lib/server/session';
import type { RequestHandler } from './$types';

const Asked = z.object({
	input: z.unknown(),
	edit: z.object({ id: z.string().max(64), revision: z.number().int() }).nullable()
});

export const POST: RequestHandler = async ({ request, locals: { otium, staff } }) => {
	if (!staff) return problem(401, SIGNED_OUT);
	const body = await readJson(request, Asked);
	if (!body.ok) return body.response;
	const input = SessionInput.safeParse(body.data.input);
	if (!input.success)
		return json({ errors: errorsOf(input.error), message: 'Some fields can’t be read yet.' }, { status: 422 });

	const { edit } = body.data;
	const room = await otium.db('room').where({ id: input.data.roomId }).first('site_id');
	if (!room || !coordinatesSite(staff, room.site_id)) return problem(403, NOT_YOURS);
	const old = edit ? await findSession(otium.db, edit.id) : null;
	if (old && !may(staff, 'prepare', placeOf(old))) return problem(403, NOT_YOURS);

	const administration = await otium.db('administration').first('id');
	if (!administration) return problem(409, NOTHING_TO_PLAN);
	return orTryAgain(async () => {
		const result = await saveSession(
			otium,
			actorAt(staff, room.site_id),
			administration.id,
			input.data,
			edit ?? undefined
		);
		if (!result.ok) return json({ errors: result.errors, message: result.message }, { status: 409 });
		return json({ id: result.id, name: result.plan.name });
	});
};
