import { fail } from '$core/problem';
import {
	evidenceFrom,
	GrantAsked,
	giveGrants,
	MOST_SHOWN_BYTES,
	readGrants,
	toLine,
	type Read
} from '$lib/server/grants';
import { confirmed, route, staff } from '$lib/server/http';
import { actorAt } from '$lib/server/identity';
import { loadSittings } from '$lib/server/sitting';

/** Gives it to everybody who was named, or to nobody. */
export const POST = route(
	confirmed(staff('grant')),
	{ schema: GrantAsked, mostBytes: MOST_SHOWN_BYTES },
	async ({ otium, staff, body }) => {
		if (body.reason === '') fail('reason_missing');
		const read = await readGrants(otium, staff, body);
		mustHaveSeen(read, body);
		const evidence = await evidenceFrom(otium, body.shown);
		const given = await giveGrants(
			otium,
			actorAt(staff, read[0].one.session.site.id),
			read.map(({ id, grant }) => ({ id, grant: { ...grant, evidence } }))
		);
		const [one] = read.length === 1 ? await loadSittings(otium.db, [read[0].one.sitting.id], otium.now()) : [];
		/** With one person: what they have now. */
		return { given, line: one ? toLine(one) : null };
	}
);

/**
 * Two officers at once give something twice that was meant once: the second is told what the first has given.
 * @throws ProblemError changed_meanwhile
 */
function mustHaveSeen(read: Read[], { seen, id }: GrantAsked) {
	if (seen === null || read.length !== 1) return;
	const { one } = read[0];
	const has = toLine(one).grants.filter((grant) => grant.id !== id);
	const news = has.filter((grant) => !seen.includes(grant.id));
	if (news.length > 0)
		fail('changed_meanwhile', {
			message: `Meanwhile somebody has given: ${news.map((grant) => grant.what).join('; ')}.`
		});
}
