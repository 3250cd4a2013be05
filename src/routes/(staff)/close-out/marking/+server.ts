import { z } from 'zod';
import { route, staff } from '$lib/server/http';
import { giveMark, takeMarkBack } from '$lib/server/marking';

const id = z.string().max(64);
const points = z.number().min(0).max(1_000);
const Asked = z.discriminatedUnion('act', [
	z.object({
		act: z.literal('mark'),
		administrationId: id,
		paperId: id,
		questionId: id,
		id: z.string().min(8).max(40),
		key: z.string().max(300),
		points,
		criteria: z.record(z.string().max(40), points).default({}),
		comment: z.string().trim().max(1_000).default(''),
		tookMs: z.number().int().min(0).max(86_400_000).default(0)
	}),
	z.object({ act: z.literal('take_back'), id })
]);

/** Marking by people: each marks what comes to them, and takes back what was theirs. */
export const POST = route(staff('mark'), Asked, async ({ otium, staff, body }) => {
	const by = { role: 'marker' as const, id: staff.id };
	if (body.act === 'mark') await giveMark(otium, by, body, body);
	else await takeMarkBack(otium, by, body.id, null);
	return {};
});
