import { addressOf } from '$lib/server/house-card';
import { z } from 'zod';
import { may } from '$core/access';
import { fail } from '$core/problem';
import { confirmed, LARGE, route, staff } from '$lib/server/http';
import { actorAt } from '$lib/server/identity';
import { day, lastDay, timeOfDay } from '$lib/server/records';
import { join, makeUp, offerMakeUp, owedAmong, owedTo, sessionsToJoin, takeWaiverBack, waive } from '$lib/server/owed';

const sittingIds = z.array(z.string().max(64)).min(1, 'Choose at least one person.').max(500);
const reason = z.string().trim().min(1, 'Say why, in a few words.').max(300);
const Asked = z.discriminatedUnion('act', [
	/** What could be done for these people: nothing is changed. */
	z.object({ act: z.literal('offer'), sittingIds }),
	z.object({
		act: z.literal('make_up'),
		sittingIds,
		date: day,
		time: timeOfDay,
		until: timeOfDay.nullable(),
		untilDate: lastDay,
		roomId: z.string().min(1, 'Choose a room.').max(64),
		proctorIds: z.array(z.string().max(64)).max(20),
		tell: z.boolean()
	}),
	z.object({ act: z.literal('join'), sittingIds, sessionId: z.string().max(64) }),
	z.object({ act: z.literal('waive'), sittingIds, reason }),
	z.object({ act: z.literal('take_back'), sittingId: z.string().max(64) })
]);

/** Settles what people are owed, each in one act. */
export const POST = route(
	confirmed(staff('grant')),
	{ schema: Asked, mostBytes: LARGE },
	async ({ otium, staff, url, body: asked }) => {
		const now = otium.now();
		if (asked.act === 'take_back') {
			const one = (await owedTo(otium.db, staff, now)).find((each) => each.sittingId === asked.sittingId);
			if (!one) fail('not_yours');
			const isDone = await takeWaiverBack(otium, actorAt(staff, one.session.siteId), one);
			if (!isDone) fail('already', { message: 'This was taken back already.' });
			return { ok: true };
		}
		const owed = await owedAmong(otium.db, staff, asked.sittingIds, now);
		const { siteId } = owed[0].session;
		const by = actorAt(staff, siteId);
		const mustPlan = () => {
			if (!may(staff, 'prepare', { siteId, proctorIds: [] }))
				fail('not_yours', {
					message: 'Sessions at this site are not yours to plan.',
					instead: 'A coordinator of the site can; a window of their own you can give yourself.'
				});
		};
		switch (asked.act) {
			case 'offer':
				return {
					makeUp: await offerMakeUp(otium.db, owed, now),
					sessions: await sessionsToJoin(otium.db, owed, now)
				};
			case 'make_up':
				mustPlan();
				return makeUp(otium, staff, by, owed, asked, await addressOf(otium.db, url));
			case 'join': {
				mustPlan();
				const refused = await join(otium, by, owed, asked.sessionId);
				if (refused.length === owed.length) fail('not_taken', { message: refused.join(' ') });
				return { joined: owed.length - refused.length, refused };
			}
			case 'waive':
				await waive(otium, by, owed, asked.reason);
				return { waived: owed.length };
		}
	}
);
