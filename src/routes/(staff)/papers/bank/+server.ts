import { BulkSchema, changeMany } from '$lib/server/bank';
import { LARGE, route, staff } from '$lib/server/http';
import { actorAt } from '$lib/server/identity';

/** Changes many questions at once. */
export const POST = route(
	staff('write_papers'),
	{ schema: BulkSchema, mostBytes: LARGE },
	async ({ otium, staff, body }) => changeMany(otium, staff, actorAt(staff, ''), body.ids, body.change)
);
