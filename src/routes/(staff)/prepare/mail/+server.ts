import { addressOf } from '$lib/server/house-card';
import { z } from 'zod';
import { fillIn, MAIL_WORDS, TEMPLATES, tellsInSubject, unknownWords, type MailFacts } from '$core/mail';
import { fail } from '$core/problem';
import { coordinatorOfAll, route, sessionFor, staff } from '$lib/server/http';
import { isDue, lettersFor, postLetters, saveTemplate, templateFor } from '$lib/server/mail';

const kind = z.enum(['candidate', 'proctor']);
const Asked = z.discriminatedUnion('act', [
	z.object({
		act: z.literal('send'),
		session: z.string().max(64),
		kind,
		/** Only to these addresses; null: to all who have none that was sent, or were told what has changed since. */
		addresses: z.array(z.string().max(200)).max(5_000).nullable()
	}),
	z.object({
		act: z.literal('template'),
		kind,
		subject: z.string().trim().min(1, 'A subject is needed.').max(200, 'A subject of at most 200 letters.'),
		body: z.string().trim().min(1, 'The mail is empty.').max(10_000, 'At most 10,000 letters.')
	}),
	z.object({ act: z.literal('reset'), kind })
]);

export const POST = route(
	staff('prepare'),
	// Five thousand addresses may be named.
	{ schema: Asked, mostBytes: 1024 * 1024 },
	async ({ otium, staff, url, body: asked }) => {
		if (asked.act === 'send') {
			const { session, by } = await sessionFor(otium, staff, asked.session, 'prepare');
			const letters = await lettersFor(
				otium.db,
				session,
				asked.kind,
				await templateFor(otium.db, asked.kind),
				await addressOf(otium.db, url),
				otium.now()
			);
			const wanted = letters.filter((letter) =>
				asked.addresses === null ? isDue(letter) : letter.address !== null && asked.addresses.includes(letter.address)
			);
			return { posted: await postLetters(otium, by, session, asked.kind, wanted) };
		}
		const by = coordinatorOfAll(staff, {
			message: 'All sites use this text.',
			instead: 'A coordinator of all sites can change it.'
		});
		if (asked.act === 'reset') {
			await saveTemplate(otium, by, asked.kind, TEMPLATES[asked.kind]);
			return { ok: true };
		}
		const [unknown] = unknownWords(asked);
		if (unknown)
			fail('unknown_word', {
				message: `Nothing is known by the name {${unknown}}.`,
				instead: `Use: ${Object.keys(MAIL_WORDS)
					.map((word) => `{${word}}`)
					.join(', ')}.`
			});
		const told = tellsInSubject(asked);
		if (told)
			fail('unknown_word', {
				message: `A subject can be read by anybody who sees the screen, so it cannot hold {${told}}.`,
				instead: `Put {${told}} into the text.`
			});
		await saveTemplate(otium, by, asked.kind, { subject: asked.subject, body: asked.body });
		const sample = Object.fromEntries(
			Object.entries(MAIL_WORDS).map(([word, says]) => [word, `(${says})`])
		) as MailFacts;
		return fillIn(asked, sample);
	}
);
