import { z } from 'zod';
import { fail } from '$core/problem';
import { LARGE, route, staff } from '$lib/server/http';
import { administrationOf, findSession, mustPlanWithin, planAll, readInput, splitAsked } from '$lib/server/session';

const Asked = z.object({
	input: z.unknown(),
	editing: z.string().max(64).nullable(),
	/** Into which parts it would be split, in groups of so many every so many minutes; null: not asked. */
	stagger: z
		.object({ every: z.number().int().min(1).max(240), people: z.number().int().min(1).max(500) })
		.nullable()
		.default(null)
});

/** The session as it would be, told while it is being made; writes nothing. */
export const POST = route(staff('prepare'), { schema: Asked, mostBytes: LARGE }, async ({ otium, staff, body }) => {
	const read = readInput(body.input);
	if (!read.ok) return { errors: read.errors };
	// Clashes name people: whoever plans at one site learns nothing of another's.
	const editing = body.editing === null ? null : await findSession(otium.db, body.editing);
	await mustPlanWithin(otium.db, staff, read.input, editing);
	const administration = await administrationOf(otium.db, read.input, body.editing);
	if (!administration) fail('nothing_to_plan');
	if (body.stagger !== null) {
		const { every, people } = body.stagger;
		const split = `stagger:${every}:${people}`;
		return { errors: {}, parts: await splitAsked(otium.db, administration.id, read.input, split, otium.now()) };
	}
	const planned = await planAll(otium.db, administration.id, read.input, otium.now(), body.editing ?? undefined);
	if (!planned.ok) return { errors: planned.errors };
	const plans = planned.plans.map(({ sentence, rulesInShort, findings, name, protection, told, facts }) => ({
		sentence,
		rulesInShort,
		findings,
		name,
		protection,
		told,
		suggestedMinutes: facts.paper.suggestedMinutes,
		questions: facts.paper.questions,
		candidates: facts.candidates,
		seats: facts.room.seats
	}));
	return { errors: {}, plans, administration: administration.name };
});
