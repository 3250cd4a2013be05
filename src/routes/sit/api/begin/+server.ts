import { z } from 'zod';
import { withWord } from '$lib/server/door';
import { boundDevice, orRefuse, route } from '$lib/server/http';
import { begin } from '$lib/server/sitting';

const Asked = z.object({ commandId: z.string().min(8).max(64), startWord: z.string().max(80).default('') });

export const POST = route(boundDevice, Asked, async ({ otium, device, body, locals }) => {
	await otium.quotas.take('commands', device.sittingId);
	const { sittingId } = device;
	orRefuse(
		await withWord(otium, sittingId, 'start', body.startWord, locals.address, () =>
			begin(otium, sittingId, body.commandId, body.startWord, locals.client)
		)
	);
	return { ok: true };
});
