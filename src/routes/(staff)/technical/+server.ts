import { z } from 'zod';
import { route, staff } from '$lib/server/http';
import { tickTask } from '$lib/server/technical';

const Asked = z.object({
	sessionId: z.string().max(64),
	task: z.string().max(40),
	on: z.boolean(),
	note: z.string().trim().max(200).default('')
});

/** Something was seen to, or not after all. */
export const POST = route(staff('see_technical'), Asked, async ({ otium, staff, body }) => {
	await tickTask(otium, staff, { role: 'proctor', id: staff.id }, body);
	return { ok: true };
});
