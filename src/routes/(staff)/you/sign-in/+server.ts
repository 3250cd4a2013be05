import { z } from 'zod';
import { fail } from '$core/problem';
import { route, staff } from '$lib/server/http';
import { changePassword, endSessions, isOwnPassword } from '$lib/server/sign-in';

const Asked = z.discriminatedUnion('act', [
	z.object({ act: z.literal('password'), now: z.string().max(300), password: z.string().max(300) }),
	z.object({ act: z.literal('end'), id: z.string().max(40) }),
	z.object({ act: z.literal('end_others') })
]);

/** One's own password, and one's own sign-ins elsewhere. Answers with how many sign-ins ended. */
export const POST = route(staff(), Asked, async ({ otium, staff, body, locals }) => {
	const here = locals.signIn ?? '';
	const others = (narrow: object) =>
		endSessions(otium, (query) => query.where({ staff_id: staff.id, ...narrow }).whereNot({ token_hash: here }));
	if (body.act === 'end') return { ended: await others({ id: body.id }) };
	if (body.act === 'end_others') return { ended: await others({}) };
	const { isRight, waitSeconds } = await isOwnPassword(otium, staff.id, body.now, {
		address: locals.address,
		signIn: here
	});
	if (waitSeconds > 0) fail('slow_down', { waitSeconds });
	if (!isRight) fail('not_taken', { message: 'That is not your present password.' });
	const changed = await changePassword(otium, staff.id, body.password, here);
	if (!changed.ok) fail('not_taken', { message: changed.message });
	return { ended: 0 };
});
