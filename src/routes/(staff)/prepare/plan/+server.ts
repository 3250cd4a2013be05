import { json } from '@sveltejs/kit';
import { z } from 'zod';
import { mayAnywhere } from '$core/access';
import { NOTHING_TO_PLAN, NOT_YOURS, problem, readJson, SIGNED_OUT } from '$lib/server/http';
import { administrationOf, coordinatesSite, planAll, readInput } from '$lib/server/session';
import type { RequestHandler } from './$types';

const Asked = z.object({ input: z.unknown(), editing: z.string().max(64).nullable() });

/** The session as it would be, told while it is being made; writes nothing. */
export const POST: RequestHandler = async ({ request, locals: { otium, staff } }) => {
	if (!staff) return problem(401, SIGNED_OUT);
	if (!mayAnywhere(staff, 'prepare')) return problem(403, NOT_YOURS);
	const body = await readJson(request, Asked);
	if (!body.ok) return body.response;
	const read = readInput(body.data.input);
	if (!read.ok) return json({ errors: read.errors });
	// Clashes name people: whoever plans at one site learns nothing of another's.
	const rooms = [read.input.roomId, ...(read.input.parts ?? []).map((part) => part.roomId)].filter(Boolean);
	const sites: string[] = await otium.db('room').whereIn('id', rooms).distinct('site_id').pluck('site_id');
	if (!sites.every((site) => coordinatesSite(staff, site))) return problem(403, NOT_YOURS);
	const administration = await administrationOf(otium.db, read.input, body.data.editing);
	if (!administration) return problem(409, NOTHING_TO_PLAN);
	const planned = await planAll(otium.db, administration.id, read.input, otium.now(), body.data.editing ?? undefined);
	if (!planned.ok) return json({ errors: planned.errors });
	const plans = planned.plans.map(({ sentence, findings, name, protection, facts }) => ({
		sentence,
		findings,
		name,
		protection,
		candidates: facts.candidates,
		seats: facts.room.seats
	}));
	return json({ errors: {}, plans, administration: administration.name });
};
