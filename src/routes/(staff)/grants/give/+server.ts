import { fail } from '$core/problem';
import { GrantAsked, giveGrants, readGrants } from '$lib/server/grants';
import { confirmed, LARGE, route, staff } from '$lib/server/http';
import { actorAt } from '$lib/server/identity';

/** Gives it to everybody who was named, or to nobody. */
export const POST = route(
	confirmed(staff('grant')),
	{ schema: GrantAsked, mostBytes: LARGE },
	async ({ otium, staff, body }) => {
		if (body.reason === '') fail('reason_missing');
		const read = await readGrants(otium, staff, body);
		const given = await giveGrants(otium, actorAt(staff, read[0].one.session.site.id), read);
		return { given };
	}
);
