import { z } from 'zod';
import { KEPT_YEARS, termsFault } from '$core/retention';
import { fail } from '$core/problem';
import { confirmed, route, staff } from '$lib/server/http';
import { dueNow, saveRetentionTerms } from '$lib/server/retention';

const years = z.literal(KEPT_YEARS).nullable();
const Asked = z.object({
	answers: years,
	log: years,
	/** Administrations that whoever asks has read would be emptied at once; null: they want to read it first. */
	read: z.array(z.string().max(200)).max(1_000).nullable()
});

/** After how long answers, and what the log says, are deleted. What would go at once is read before, by name. */
export const POST = route(
	confirmed(staff('change_shared')),
	Asked,
	async ({ otium, staff, body: { read, ...terms } }) => {
		const fault = termsFault(terms);
		if (fault) fail('not_taken', { message: fault });
		const due = await dueNow(otium.db, terms, otium.now());
		if (read === null || due.some((name) => !read.includes(name))) return { due, saved: false };
		await saveRetentionTerms(otium, { role: 'coordinator', id: staff.id }, terms);
		return { due, saved: true };
	}
);
