import { addressOf } from '$lib/server/house-card';
import { z } from 'zod';
import { may } from '$core/access';
import { fail } from '$core/problem';
import { transact } from '$lib/server/db';
import { route, staff } from '$lib/server/http';
import { actorAt, teacherNote } from '$lib/server/identity';
import { postLetter } from '$lib/server/mail';
import { decide } from '$lib/server/requests';
import { loadSittings } from '$lib/server/sitting';
import { toLine } from '$lib/server/grants';

const id = z.string().max(64);
const Asked = z.discriminatedUnion('act', [
	z.object({
		act: z.literal('decide'),
		id,
		state: z.enum(['given', 'declined']),
		note: z.string().trim().max(600).default('')
	}),
	/** The sittings of the candidate whom a request is about, for the form that gives. */
	z.object({ act: z.literal('sittings'), candidateId: id }),
	z.object({
		act: z.literal('link'),
		name: z.string().trim().min(1, 'Give the teacher’s name.').max(120),
		email: z.email('This is not an e-mail address.').max(200),
		siteId: id
	})
]);

export const POST = route(staff('grant'), Asked, async ({ otium, staff, url, body: asked }) => {
	if (asked.act === 'decide') {
		if (asked.state === 'declined' && asked.note === '')
			fail('reason_missing', { message: 'Say why it is not given: they will read it.' });
		const row = await otium.db('grant_request').where({ id: asked.id }).first('site_id');
		const mails = await decide(otium, staff, actorAt(staff, row?.site_id ?? ''), asked.id, asked);
		return { mails };
	}
	const now = otium.now();
	if (asked.act === 'sittings') {
		const ids: string[] = await otium
			.db('sitting')
			.where({ candidate_id: asked.candidateId, counts: 1 })
			.whereNull('next_attempt_id')
			.pluck('id');
		const loaded = (await loadSittings(otium.db, ids, now)).filter((one) =>
			may(staff, 'grant', { siteId: one.session.site.id, proctorIds: [] })
		);
		if (ids.length > 0 && loaded.length === 0) fail('not_yours');
		return loaded
			.map((one) => toLine(one))
			.sort((a, b) => Number(a.finished) - Number(b.finished) || a.base.opens - b.base.opens);
	}
	if (!may(staff, 'grant', { siteId: asked.siteId, proctorIds: [] })) fail('not_yours');
	const { name, email, siteId } = asked;
	const note = await teacherNote(otium.db, { name, email, siteId }, now);
	const link = `${await addressOf(otium.db, url)}/ask/${note}`;
	await transact(otium.db, (trx) =>
		postLetter(
			trx,
			{
				kind: 'teacher_link',
				name,
				address: email,
				subject: 'Asking for a candidate who needs something else',
				body: `Dear ${name},\n\nif one of your candidates needs more time, another time, or anything else, ask for it here:\n\n${link}\n\nNo account is needed. The link is yours, and works for three weeks. You will be told what is decided.`
			},
			now
		)
	);
	return { ok: true };
});
