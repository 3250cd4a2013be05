import { json } from '@sveltejs/kit';
import { z } from 'zod';
import { fail } from '$core/problem';
import { coordinatorOf, LARGE, route, staff } from '$lib/server/http';
import { administrationOf, dropDraft, findSession, mustPlanWithin, readInput, saveSession } from '$lib/server/session';

const Asked = z.object({
	input: z.unknown(),
	edit: z.object({ id: z.string().max(64), revision: z.number().int() }).nullable(),
	/** The draft that it was entered in; gone once it is planned. */
	draftId: z.string().max(64).nullable().default(null)
});

export const POST = route(staff('prepare'), { schema: Asked, mostBytes: LARGE }, async ({ otium, staff, body }) => {
	const read = readInput(body.input);
	if (!read.ok) return json({ errors: read.errors, message: 'Some fields can’t be read yet.' }, { status: 422 });
	const { input } = read;

	const { edit } = body;
	const rooms = [input.roomId, ...(input.parts ?? []).map((part) => part.roomId)];
	const sites: string[] = await otium.db('room').whereIn('id', rooms).distinct('site_id').pluck('site_id');
	if (sites.length === 0) fail('not_yours');
	const [by] = sites.map((site) => coordinatorOf(staff, site));
	const old = edit ? await findSession(otium.db, edit.id) : null;
	await mustPlanWithin(otium.db, staff, input, old);

	const administration = await administrationOf(otium.db, input, edit?.id ?? null);
	if (!administration) fail('nothing_to_plan');
	const result = await saveSession(otium, by, administration.id, input, edit ?? undefined);
	if (!result.ok) return json({ errors: result.errors, message: result.message }, { status: 409 });
	if (body.draftId) await dropDraft(otium.db, staff, body.draftId);
	return { ids: result.ids, names: result.plans.map((plan) => plan.name) };
});
