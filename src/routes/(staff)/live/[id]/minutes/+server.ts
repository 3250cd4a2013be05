import { json } from '@sveltejs/kit';
import { z } from 'zod';
import { allowSession, orTryAgain, problem, readJson } from '$lib/server/http';
import { giveGrant, withdrawGrant } from '$lib/server/grants';
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
	const give = (candidateId: string | null, grantId: string) =>
		giveGrant(otium, by, grantId, {
			candidateId,
			scope: { kind: 'session', id: session.id },
			body: { kind: 'credit', minutes },
			reason,
			givenBy: by.id,
			givenAt: otium.now()
		});
	return orTryAgain(async () => {
		if (sittingIds === null) {
			const { effects } = await give(null, id);
			return json({ grantIds: [id], effects });
		}
		const rows = await sittingsHere(otium.db, session.id, sittingIds);
		const given = [];
		for (const row of rows) given.push(await give(row.candidate_id, `${id}:${row.id}`));
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
	const rows: { id: string }[] = await otium
		.db('grant_given')
		.where({ scope_kind: 'session', scope_id: session.id })
		.whereIn('id', body.data.grantIds)
		.select('id');
	let withdrawn = 0;
	for (const { id } of rows) if (await withdrawGrant(otium, by, id)) withdrawn++;
	return json({ withdrawn });
};
