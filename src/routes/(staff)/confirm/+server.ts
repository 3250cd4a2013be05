import { z } from 'zod';
import { fail } from '$core/problem';
import { route, staff } from '$lib/server/http';
import { askToUse, confirmSession, isOwnPassword, passByCode, secondStepsOf, whoUsed } from '$lib/server/sign-in';

const Asked = z.discriminatedUnion('act', [
	z.object({ act: z.literal('how') }),
	z.object({ act: z.literal('password'), password: z.string().max(300) }),
	z.object({ act: z.literal('code'), code: z.string().max(40) }),
	z.object({ act: z.literal('ask') }),
	z.object({ act: z.literal('use'), id: z.string().max(40), response: z.looseObject({ id: z.string().max(1_000) }) })
]);

/** Shows once more that it is really them, before what matters most. Who has a second step shows that. */
export const POST = route(staff(), Asked, async ({ otium, staff, body, locals, url }) => {
	const has = await secondStepsOf(otium.db, staff.id);
	const hasSecond = has.app || has.passkeys > 0;
	const asking = { act: 'confirm', staffId: staff.id, signIn: locals.signIn } as const;
	switch (body.act) {
		case 'how':
			return { password: !hasSecond, code: has.app || has.recoveryCodes > 0, passkey: has.passkeys > 0 };
		case 'ask':
			return askToUse(otium, asking, url);
		case 'use':
			if ((await whoUsed(otium, body.id, asking, body.response as never, url)) !== staff.id) fail('wrong_passkey');
			break;
		case 'code': {
			const passed = await passByCode(otium, staff.id, body.code, locals.address);
			if (!passed.ok) fail('wrong_code', passed.waitSeconds > 0 ? { waitSeconds: passed.waitSeconds } : {});
			break;
		}
		case 'password': {
			if (hasSecond) fail('wrong_code', { message: 'Your second step is asked for here, not your password.' });
			const { isRight, waitSeconds } = await isOwnPassword(otium, staff.id, body.password, {
				address: locals.address,
				signIn: locals.signIn!
			});
			if (!isRight) fail('wrong_code', waitSeconds > 0 ? { waitSeconds } : { message: 'That is not your password.' });
		}
	}
	await confirmSession(otium, locals.signIn!);
	return { next: '' };
});
