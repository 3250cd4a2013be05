import { json } from '@sveltejs/kit';
import { z } from 'zod';
import { STAFF_ACTS, type StaffAct } from '$core/room';
import type { CommandBody } from '$core/sitting';
import { inSession, LARGE, mustBeConfirmed, route } from '$lib/server/http';
import { newReceipt } from '$lib/server/session';
import { act, sittingsHere } from '$lib/server/sitting';

const Asked = z.object({
	/** The asker's own id for this act: sent twice, it is done once. */
	commandId: z.string().min(8).max(64),
	kind: z.enum([...STAFF_ACTS, 'take_back']),
	sittingIds: z.array(z.string().max(64)).min(1).max(2_000),
	reason: z.string().trim().max(300).default(''),
	stopsClock: z.boolean().default(true)
});

/** What brings back work that had ended, or takes it out of the results: it is asked first who does it. */
const OPENS_WHAT_ENDED = new Set<StaffAct | 'take_back'>([
	'reopen',
	'continue_later',
	'allow_fresh',
	'set_aside',
	'restore'
]);

/** One act on one, a selection, or all of a state: each is decided by itself and told by itself. */
export const POST = route(
	inSession('run_session'),
	{ schema: Asked, mostBytes: LARGE },
	async ({ otium, by, session, locals, body: { commandId, kind, reason, stopsClock, sittingIds } }) => {
		if (OPENS_WHAT_ENDED.has(kind)) mustBeConfirmed(locals);
		const asked = [...new Set(sittingIds)];
		const here = await sittingsHere(otium.db, session.id, asked);
		const outcomes = await act(
			otium,
			here.map(({ id }) => ({ id: `${commandId}:${id}`, sittingId: id, by, body: bodyOf(kind, reason, stopsClock) }))
		);
		return json({ outcomes, elsewhere: asked.length - here.length }, { status: outcomes.length === 0 ? 409 : 200 });
	}
);

function bodyOf(kind: StaffAct | 'take_back', reason: string, stopsClock: boolean): CommandBody {
	switch (kind) {
		case 'hold':
			return { kind, reason, stopsClock };
		case 'hand_in':
			return { kind, receipt: newReceipt(), reason: reason || null };
		case 'carry_over':
			return { kind, reason: reason || null };
		case 'turn_away':
		case 'reopen':
		case 'continue_later':
		case 'allow_fresh':
		case 'set_aside':
			return { kind, reason };
		default:
			return { kind };
	}
}
