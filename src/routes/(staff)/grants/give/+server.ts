import { fail } from '$core/problem';
import { GrantAsked, giveGrant, readGrant } from '$lib/server/grants';
import { confirmed, route, staff } from '$lib/server/http';
import { actorAt } from '$lib/server/identity';

export const POST = route(confirmed(staff('grant')), GrantAsked, async ({ otium, staff, body }) => {
	if (body.reason === '') fail('reason_missing');
	const { grant, one } = await readGrant(otium, staff, body);
	return giveGrant(otium, actorAt(staff, one.session.site.id), body.id, grant);
});
