import { json } from '@sveltejs/kit';
import { z } from 'zod';
import { may } from '$core/access';
import { NOTHING_TO_PLAN, NOT_YOURS, orTryAgain, problem, readJson, SIGNED_OUT } from '$lib/server/http';
import { actorAt } from '$lib/server/identity';
import {
	administrationOf,
	coordinatesSite,
	dropDraft,
	findSession,
	placeOf,
	readInput,
	saveSession
} from '$lib/server/session';
import type { RequestHandler } from './$types';

const Asked = z.object({
	input: z.unknown(),
	edit: z.object({ id: z.string().max(64), revision: z.number().int() }).nullable(),
	/** The draft that it was entered in; gone once it is planned. */
	draftId: z.string().max(64).nullable().default(null)
});

export const POST: RequestHandler = async ({ request, locals: { otium, staff } }) => {
	if (!staff) return problem(401, SIGNED_OUT);
	const body = await readJson(request, Asked);
	if (!body.ok) return body.response;
	const read = readInput(body.data.input);
	if (!read.ok) return json({ errors: read.errors, message: 'Some fields can’t be read yet.' }, { status: 422 });
	const { input } = read;

	const { edit } = body.data;
	const rooms = [input.roomId, ...(input.parts ?? []).map((part) => part.roomId)];
	const sites: string[] = await otium.db('room').whereIn('id', rooms).distinct('site_id').pluck('site_id');
	if (sites.length === 0 || !sites.every((site) => coordinatesSite(staff, site))) return problem(403, NOT_YOURS);
	const old = edit ? await findSession(otium.db, edit.id) : null;
	if (old && !may(staff, 'prepare', placeOf(old))) return problem(403, NOT_YOURS);

	const administration = await administrationOf(otium.db, input, edit?.id ?? null);
	if (!administration) return problem(409, NOTHING_TO_PLAN);
	return orTryAgain(async () => {
		const result = await saveSession(otium, actorAt(staff, sites[0]), administration.id, input, edit ?? undefined);
		if (!result.ok) return json({ errors: result.errors, message: result.message }, { status: 409 });
		if (body.data.draftId) await dropDraft(otium.db, staff, body.data.draftId);
		return json({ ids: result.ids, names: result.plans.map((plan) => plan.name) });
	});
};
