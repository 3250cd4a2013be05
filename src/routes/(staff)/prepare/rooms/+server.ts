import { z } from 'zod';
import { fail } from '$core/problem';
import { coordinatorOf, LARGE, orRefuse, route, staff } from '$lib/server/http';
import { saveRoom } from '$lib/server/places';

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

export const POST = route(staff('prepare'), { schema: Asked, mostBytes: LARGE }, async ({ otium, staff, body }) => {
	const { id } = body;
	const room = id === null ? null : await otium.db('room').where({ id }).first('site_id');
	if (id !== null && !room) fail('not_yours');
	const siteId: string = room?.site_id ?? body.siteId;
	return orRefuse(await saveRoom(otium, coordinatorOf(staff, siteId), { ...body, siteId }));
});
