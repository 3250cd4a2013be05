import { json } from '@sveltejs/kit';
import { z } from 'zod';
import { NOT_YOURS, orTryAgain, problem, readJson, SIGNED_OUT } from '$lib/server/http';
import { actorAt } from '$lib/server/identity';
import { saveRoom } from '$lib/server/places';
import { coordinatesSite } from '$lib/server/session';
import type { RequestHandler } from './$types';

const whole = (what: string, most: number) =>
	z
		.number({ error: `${what}: give a whole number.` })
		.int(`${what}: a whole number.`)
		.min(1, `${what}: at least one.`)
		.max(most, `${what}: at most ${most}.`);
const seats = z.array(z.string().max(8)).max(2_000);
const Asked = z.object({
	id: z.string().max(64).nullable(),
	siteId: z.string().max(64),
	revision: z.number().int(),
	name: z.string().trim().min(1, 'A name is needed.').max(80, 'A name of at most 80 letters.'),
	rows: whole('Rows', 100),
	perRow: whole('Seats a row', 60),
	plan: z.object({ outOfUse: seats, apart: seats })
});

export const POST: RequestHandler = async ({ request, locals: { otium, staff } }) => {
	if (!staff) return problem(401, SIGNED_OUT);
	const body = await readJson(request, Asked);
	if (!body.ok) return body.response;
	const { id } = body.data;
	const room = id === null ? null : await otium.db('room').where({ id }).first('site_id');
	const siteId = room?.site_id ?? body.data.siteId;
	if ((id !== null && !room) || !coordinatesSite(staff, siteId)) return problem(403, NOT_YOURS);
	return orTryAgain(async () => {
		const result = await saveRoom(otium, actorAt(staff, siteId), { ...body.data, siteId });
		return result.ok ? json(result) : problem(409, { code: 'refused', message: result.message });
	});
};
