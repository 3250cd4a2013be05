import { z } from 'zod';
import { boundDevice, mustBeProven, route } from '$lib/server/http';
import { HAND_CODE_MS, takesFiles, writeHandCode } from '$lib/server/handed';

/** A code by which another device, as a phone, adds files to this question for a short while. */
export const POST = route(
	boundDevice,
	z.object({ question: z.string().max(40) }),
	async ({ otium, device, body, url, locals }) => {
		const { one, questionId } = await takesFiles(otium, device.sittingId, { onDevice: body.question });
		mustBeProven(one.session, locals.client);
		const until = otium.now() + HAND_CODE_MS;
		const code = writeHandCode(otium.db, { sittingId: device.sittingId, questionId, until });
		return { address: `${url.origin}/sit/hand/${code}`, until };
	}
);
