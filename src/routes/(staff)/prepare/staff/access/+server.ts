import { addressOf } from '$lib/server/house-card';
import { mailLeaves } from '$lib/server/mail';
import { z } from 'zod';
import { IDLE_MINUTES, STAFF_ROLES } from '$core/access';
import { fail } from '$core/problem';
import { confirmed, coordinatorOfAll, route, staff } from '$lib/server/http';
import { listStaff } from '$lib/server/identity';
import { coordinatedSites } from '$lib/server/session';
import { invite, saveSignInRules, takeSecondStepsAway } from '$lib/server/sign-in';

const Asked = z.discriminatedUnion('act', [
	z.object({
		act: z.literal('rules'),
		secondStepFor: z.array(z.enum(STAFF_ROLES)).max(STAFF_ROLES.length),
		idleMinutes: z.number().int().min(IDLE_MINUTES.least).max(IDLE_MINUTES.most)
	}),
	z.object({ act: z.literal('link'), id: z.string().max(64) }),
	z.object({ act: z.literal('take_second_step'), id: z.string().max(64) })
]);

/** How the house's staff sign in, and help for whoever can't. */
export const POST = route(confirmed(staff('prepare')), Asked, async ({ otium, staff, body, url }) => {
	if (body.act === 'rules') {
		const { secondStepFor, idleMinutes } = body;
		await saveSignInRules(otium, coordinatorOfAll(staff), { secondStepFor, idleMinutes });
		return { ok: true };
	}
	const mine = coordinatedSites(staff);
	const one = (await listStaff(otium.db)).find((other) => other.id === body.id);
	if (!one) fail('not_found');
	if (mine !== null && !one.roles.every(({ siteId }) => siteId !== null && mine.includes(siteId))) fail('not_yours');
	const by = { role: 'coordinator' as const, id: staff.id };
	if (body.act === 'take_second_step') {
		if (one.id === staff.id) fail('not_taken', { message: 'Your own is changed on the page “How I sign in”.' });
		await takeSecondStepsAway(otium, by, one.id);
		return { ok: true };
	}
	return { ok: true, ...(await invite(otium, by, one.id, await addressOf(otium.db, url), mailLeaves())) };
});
