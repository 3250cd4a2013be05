import { z } from 'zod';
import { fail } from '$core/problem';
import { anyoneWith, route } from '$lib/server/http';
import { verifyReceipt } from '$lib/server/proof';

const Asked = z.object({ text: z.string().max(8_000) });

/** What a receipt proves, for whoever has one. Nothing is found by guessing: it takes the house's own signature. */
export const POST = route(
	anyoneWith('a receipt', 'the house’s signature on it'),
	Asked,
	async ({ otium, body, locals }) => {
		const waitSeconds = await otium.limits.asked('receipt', locals.address);
		if (waitSeconds > 0) fail('slow_down', { waitSeconds });
		return verifyReceipt(otium.db, body.text);
	}
);
