import { fail } from '$core/problem';
import { evidenceFrom, GrantAsked, giveGrants, MOST_SHOWN_BYTES, readGrants } from '$lib/server/grants';
import { confirmed, route, staff } from '$lib/server/http';
import { actorAt } from '$lib/server/identity';

/** Gives it to everybody who was named, or to nobody. */
export const POST = route(
	confirmed(staff('grant')),
	{ schema: GrantAsked, mostBytes: MOST_SHOWN_BYTES },
	async ({ otium, staff, body }) => {
		if (body.reason === '') fail('reason_missing');
		const read = await readGrants(otium, staff, body);
		const evidence = await evidenceFrom(otium, body.shown);
		const given = await giveGrants(
			otium,
			actorAt(staff, read[0].one.session.site.id),
			read.map(({ id, grant }) => ({ id, grant: { ...grant, evidence } }))
		);
		return { given };
	}
);
