import { json } from '@sveltejs/kit';
import { z } from 'zod';
import { allowSession, orTryAgain, problem, readJson } from '$lib/server/http';
import { giveGrants, withdrawGrants } from '$lib/server/grants';
import { sittingsHere } from '$lib/server/sitting';
import type { RequestHandler } from './$types';

const Asked = z.object({
	id: z.string().min(8).max(60),
	/** null: everyone in the room. */
	sittingIds: z.array(z.string().max(64)).min(1).max(2_000).nullable(),
	minutes: z
		.number({ error: 'Give whole minutes.' })
		.int('Give whole minutes.')
		.min(1, 'Give at least one minute.')
		.max(240, 'Give at most 240 minutes.'),
	reason: z.string().trim().min(1, 'Say in a few words why.').max(300)
});

/** Gives minutes back, to some or to all. */
export const POST: RequestHandler = async (event) => {
	const allowed = await allowSession(event, event.params.id, 'run_session');
	if (!allowed.ok) return allowed.response;
	const body = await readJson(event.request, Asked);
	if (!body.ok) return body.response;
	const { otium, by, session } = allowed;
	const { id, minutes, reason, sittingIds } = body.data;
	if (session.endedAt !== null) {
		return problem(409, {
			code: 'session_over',
			message: 'This session has ended.',
			instead: 'Give an own window on the Grants page.'
		});
	}
	const credit = (candidateId: string | null) => ({
		candidateId,
		scope: { kind: 'session' as const, id: session.id },
		body: { kind: 'credit' as const, minutes },
		reason,
		givenBy: by.id,
		givenAt: otium.now()
	});
	return orTryAgain(async () => {
		const people = sittingIds === null ? null : await sittingsHere(otium.db, session.id, sittingIds);
		const asked = people?.map((one) => ({ id: `${id}:${one.id}`, grant: credit(one.candidate_id) })) ?? [
			{ id, grant: credit(null) }
		];
		const given = await giveGrants(otium, by, asked);
		return json({ grantIds: given.map((one) => one.id), effects: given.flatMap((one) => one.effects) });
	});
};

const Undone = z.object({ grantIds: z.array(z.string().max(130)).min(1).max(2_000) });

/** Takes minutes back that were given here by mistake. */
export const DELETE: RequestHandler = async (event) => {
	const allowed = await allowSession(event, event.params.id, 'run_session');
	if (!allowed.ok) return allowed.response;
	const body = await readJson(event.request, Undone);
	if (!body.ok) return body.response;
	const { otium, by, session } = allowed;
	return orTryAgain(async () => json({ withdrawn: await withdrawGrants(otium, by, body.data.grantIds, session.id) }));
};
