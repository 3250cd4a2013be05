import { z } from 'zod';
import { actorAt } from '$lib/server/identity';
import { route, staff } from '$lib/server/http';
import { reachOf, withdrawVersion } from '$lib/server/paper';

const Asked = z.discriminatedUnion('act', [
	z.object({ act: z.literal('withdraw'), why: z.string().trim().min(1, 'Say why it is withdrawn.').max(300) }),
	z.object({ act: z.literal('offer') })
]);

/** Who can get at this version now. */
export const GET = route(staff('write_papers'), ({ otium, staff, params }) => reachOf(otium.db, staff, params.version));

/** Withdraws it, or offers it again. */
export const POST = route(staff('write_papers'), Asked, async ({ otium, staff, params, body }) => {
	const why = body.act === 'withdraw' ? body.why : null;
	await withdrawVersion(otium, staff, actorAt(staff, ''), params.version, why);
	return reachOf(otium.db, staff, params.version);
});
