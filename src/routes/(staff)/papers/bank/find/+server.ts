import { fail } from '$core/problem';
import { AskSchema, findInBank, writerOf } from '$lib/server/bank';
import { route, staff } from '$lib/server/http';

/** A page of the bank's questions, by what is asked in the address. */
export const GET = route(staff('write_papers'), async ({ otium, staff, url }) => {
	const ask = AskSchema.safeParse(Object.fromEntries([...url.searchParams].filter(([, value]) => value !== '')));
	if (!ask.success) fail('malformed');
	return findInBank(otium.db, writerOf(staff), ask.data, otium.now());
});
