import { z } from 'zod';
import { fail } from '$core/problem';
import { coordinatorOf, coordinatorOfAll, route, staff } from '$lib/server/http';
import { mustBeWithin } from '$lib/server/session';
import { saveSteps, stepsOf, tickStep } from '$lib/server/steps';
import { siteOfCandidate } from '$lib/server/records';

const id = z.string().min(1).max(64);
const Step = z.object({
	id,
	title: z.string().trim().min(1, 'Each part needs a name.').max(120),
	paperTitle: z.string().max(200).nullable(),
	afterId: id.nullable(),
	leastPercent: z.number().int().min(1, 'At least 1 %.').max(100, 'At most 100 %.').nullable()
});
const steps = z.array(Step).max(40, 'At most 40 parts.');
const Asked = z.discriminatedUnion('act', [
	z.object({ act: z.literal('save'), administrationId: id, was: steps, steps }),
	z.object({
		act: z.literal('tick'),
		administrationId: id,
		stepId: id,
		candidateIds: z.array(id).min(1).max(500),
		on: z.boolean(),
		why: z.string().trim().max(300).nullable().default(null)
	})
]);

/** The parts of an administration in their order, and what is ticked of them. */
export const POST = route(staff('prepare'), Asked, async ({ otium, staff, body }) => {
	if (body.act === 'save') {
		await saveSteps(otium, coordinatorOfAll(staff), body.administrationId, body);
		return { ok: true };
	}
	await mustBeWithin(otium.db, staff, { candidates: body.candidateIds });
	const step = (await stepsOf(otium.db, body.administrationId)).find((one) => one.id === body.stepId);
	if (!step) fail('not_found');
	const by = coordinatorOf(staff, (await siteOfCandidate(otium.db, body.candidateIds[0]))!);
	await tickStep(otium, by, step, body);
	return { ok: true };
});
