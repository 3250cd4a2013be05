import { z } from 'zod';
import { fail } from '$core/problem';
import { EVIDENCE_TYPES, keepEvidence, MOST_EVIDENCE_BYTES } from '$lib/server/grants';
import { route, staff } from '$lib/server/http';

const Shown = z.object({
	name: z.string().trim().min(1).max(120),
	type: z.enum(EVIDENCE_TYPES, 'A picture (PNG, JPEG), a PDF or plain text.'),
	base64: z.string()
});

/** Takes in what was shown for a grant; the grant that is given then names it. */
export const POST = route(
	staff('grant'),
	{ schema: Shown, mostBytes: 1.5 * MOST_EVIDENCE_BYTES },
	async ({ otium, body }) => {
		const bytes = Buffer.from(body.base64, 'base64');
		if (bytes.length === 0 || bytes.length > MOST_EVIDENCE_BYTES)
			fail('attachment', { message: 'This file is empty, or larger than 2 MB.', instead: 'Choose a smaller one.' });
		return { id: await keepEvidence(otium, { name: body.name, type: body.type, bytes }) };
	}
);
