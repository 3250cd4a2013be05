import { isUnfinished, type SittingState } from '$core/sitting';
import { nanoid } from 'nanoid';
import { z } from 'zod';
import type { GrantBody } from '$core/grants';
import { fail } from '$core/problem';
import { findGrant, giveGrant, withdrawGrant } from '$lib/server/grants';
import { orRefuse, personFor, route, staff } from '$lib/server/http';
import { changePerson, PersonFields } from '$lib/server/people';
import { mustBeWithin } from '$lib/server/session';

const Asked = z.discriminatedUnion('act', [
	z.object({
		act: z.literal('change'),
		change: PersonFields
	}),
	z.object({
		act: z.literal('give'),
		id: z.string().min(8).max(60),
		body: z.discriminatedUnion('kind', [
			z.object({
				kind: z.literal('extra_time'),
				factor: z
					.number({ error: 'Give a factor: 1.5 is time and a half.' })
					.min(1, 'A factor of at least 1.')
					.max(10, 'A factor of at most 10.'),
				minutes: z
					.number({ error: 'Give whole minutes.' })
					.int('Give whole minutes.')
					.min(0)
					.max(600, 'At most 600 minutes.')
			}),
			z.object({ kind: z.literal('separate_room') }),
			z.object({ kind: z.literal('read_aloud') }),
			z.object({
				kind: z.literal('breaks'),
				count: z
					.number({ error: 'Give how many breaks.' })
					.int()
					.min(1, 'At least one break.')
					.max(20, 'At most 20 breaks.'),
				minutes: z
					.number({ error: 'Give whole minutes.' })
					.int()
					.min(1, 'At least a minute.')
					.max(60, 'At most 60 minutes.')
			}),
			z.object({
				kind: z.literal('display'),
				magnification: z.number({ error: 'Give a number: 2 is twice as large.' }).min(1).max(8, 'At most eight times.'),
				contrast: z.boolean()
			}),
			z.object({ kind: z.literal('tools'), calculator: z.enum(['basic', 'scientific']) })
		]),
		reason: z.string().trim().max(300).min(1, 'Say why, in a few words.')
	}),
	z.object({ act: z.literal('withdraw'), id: z.string().max(64) })
]);

export const POST = route(staff('prepare'), Asked, async ({ otium, staff, params, body: asked }) => {
	const { by } = await personFor(otium, staff, params.id);
	if (asked.act === 'change') {
		const has: string[] = await otium.db('group_member').where({ candidate_id: params.id }).pluck('group_id');
		await mustBeWithin(otium.db, staff, { groups: asked.change.groupIds }, new Set(has));
		orRefuse(await changePerson(otium, by, params.id, asked.change));
		return { ok: true };
	}
	if (asked.act === 'give') {
		if (asked.body.kind === 'extra_time' && asked.body.factor === 1 && asked.body.minutes === 0)
			fail('malformed', { message: 'Give a factor above 1, or minutes.' });
		const given = await giveGrant(otium, by, asked.id || nanoid(), {
			candidateId: params.id,
			scope: { kind: 'standing' },
			body: asked.body as GrantBody,
			reason: asked.reason,
			givenBy: staff.id,
			givenAt: otium.now()
		});
		const ids = given.effects.map((effect) => effect.sittingId);
		const rows: { id: string; name: string; state: SittingState }[] = await otium
			.db('sitting')
			.join('session', 'session.id', 'sitting.session_id')
			.whereIn('sitting.id', ids)
			.select('sitting.id', 'session.name', 'sitting.state');
		// Whoever has handed in gets nothing from it there.
		const called = new Map(rows.filter(({ state }) => isUnfinished(state)).map(({ id, name }) => [id, name]));
		return {
			effects: given.effects.flatMap(({ sittingId, after }) =>
				called.has(sittingId) ? [`${called.get(sittingId)}: ${after}`] : []
			)
		};
	}
	const grant = await findGrant(otium.db, asked.id);
	if (grant?.candidateId !== params.id || grant.scope.kind !== 'standing') fail('not_found');
	await withdrawGrant(otium, by, asked.id);
	return { ok: true };
});
