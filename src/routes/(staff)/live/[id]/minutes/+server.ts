import { z } from 'zod';
import { may } from '$core/access';
import type { Grant } from '$core/grants';
import { fail } from '$core/problem';
import { giveGrants, withdrawGrants } from '$lib/server/grants';
import { inSession, LARGE, route } from '$lib/server/http';
import { placeOf } from '$lib/server/session';
import { sittingsHere } from '$lib/server/sitting';

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
export const POST = route(
	inSession('run_session'),
	{ schema: Asked, mostBytes: LARGE },
	async ({ otium, by, session, body: { id, minutes, reason, sittingIds } }) => {
		if (session.endedAt !== null) fail('session_over');
		const credit = (candidateId: string | null) => ({
			candidateId,
			scope: { kind: 'session' as const, id: session.id },
			body: { kind: 'credit' as const, minutes },
			reason,
			givenBy: by.id,
			givenAt: otium.now()
		});
		const people = sittingIds === null ? null : await sittingsHere(otium.db, session.id, sittingIds);
		const asked = people?.map((one) => ({ id: `${id}:${one.id}`, grant: credit(one.candidate_id) })) ?? [
			{ id, grant: credit(null) }
		];
		const given = await giveGrants(otium, by, asked);
		return { grantIds: given.map((one) => one.id), effects: given.flatMap((one) => one.effects) };
	}
);

const Undone = z.object({ grantIds: z.array(z.string().max(130)).min(1).max(2_000) });

/** Takes minutes back that were given here by mistake. */
export const DELETE = route(
	inSession('run_session'),
	{ schema: Undone, mostBytes: LARGE },
	async ({ otium, by, staff, session, body }) => {
		// Extra time is not the room's to take; and of the minutes, a proctor takes back what they gave.
		const isOwn = (grant: Grant) =>
			grant.body.kind === 'credit' &&
			grant.scope.kind === 'session' &&
			grant.scope.id === session.id &&
			(grant.givenBy === staff.id || may(staff, 'prepare', placeOf(session)));
		return { withdrawn: await withdrawGrants(otium, by, body.grantIds, isOwn) };
	}
);
