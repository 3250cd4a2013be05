import { z } from 'zod';
import { may } from '$core/access';
import { fail } from '$core/problem';
import { signOff, takeSignatureBack } from '$lib/server/closing';
import { confirmed, route, staff } from '$lib/server/http';

const Asked = z.object({
	act: z.enum(['sign', 'take_back']),
	administrationId: z.string().max(64),
	siteId: z.string().max(64),
	/** What lay beneath when it was read; needed to sign. */
	read: z.record(z.string().max(40), z.string().max(100)).optional()
});

/** A coordinator signs for a site, or takes the signature back. */
export const POST = route(confirmed(staff('sign_off')), Asked, async ({ otium, staff, body }) => {
	const { act, administrationId, siteId, read } = body;
	if (!may(staff, 'sign_off', { siteId, proctorIds: [] })) fail('not_yours');
	const by = { role: 'coordinator' as const, id: staff.id };
	if (act === 'sign') await signOff(otium, staff, by, administrationId, siteId, read ?? {});
	else await takeSignatureBack(otium, by, administrationId, siteId);
	return {};
});
