import { z } from 'zod';
import { fail } from '$core/problem';
import { mustBeForAll } from '$lib/server/closing';
import { confirmed, route, staff } from '$lib/server/http';
import { savePlan, takeMarkBack } from '$lib/server/marking';

const id = z.string().max(64);
const points = z.number().min(0).max(1_000);
const Asked = z.discriminatedUnion('act', [
	z.object({
		act: z.literal('take_back'),
		id,
		administrationId: id,
		why: z.string().trim().min(1, 'Say why, in a few words.').max(300)
	}),
	z.object({
		act: z.literal('plan'),
		administrationId: id,
		paperId: id,
		questionId: id,
		revision: z.number().int().min(0),
		plan: z.object({
			markers: z.array(z.object({ id, share: z.number().min(0).max(100) })).max(50),
			secondPercent: z.number().int().min(0).max(100),
			tolerance: points,
			rubric: z
				.array(
					z.object({
						id: z.string().min(1).max(40),
						text: z.string().trim().min(1, 'Say what each criterion is about.').max(300),
						points
					})
				)
				.max(30)
		})
	})
]);

/** Who marks, by which criteria, and what of it twice; and a mark of somebody else that is taken back, with a reason. */
export const POST = route(confirmed(staff('decide')), Asked, async ({ otium, staff, body }) => {
	const by = { role: 'coordinator' as const, id: staff.id };
	await mustBeForAll(otium.db, staff, 'decide', body.administrationId);
	if (body.act === 'plan') {
		await savePlan(otium, by, body, body.plan, body.revision);
		return {};
	}
	const mark = await otium.db('hand_mark').where({ id: body.id, administration_id: body.administrationId }).first('id');
	if (!mark) fail('not_found');
	await takeMarkBack(otium, by, body.id, body.why);
	return {};
});
