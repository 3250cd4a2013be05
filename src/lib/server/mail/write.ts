import { nanoid } from 'nanoid';
import { writeCalendar } from '$core/formats';
import { groupBy } from '$core/group-by';
import {
	changedSince,
	changesInWords,
	fillIn,
	type MailKind,
	type Template,
	TEMPLATES,
	type Told,
	type ToldChange,
	toldIn
} from '$core/mail';
import type { Actor } from '$core/sitting';
import { houseSetting, insertMany, keepHouseSetting, type Query, sealSecret, transact } from '../db';
import { appendToLogbook } from '../logbook';
import type { Writing } from '../house';
import type { Session } from '../session';
import { VERSION } from '../version';
import type { Mail } from './post';
import { candidates, proctors } from './addressees';

/** The house's own words, or those that Otium brings along. */
export async function templateFor(db: Query, kind: MailKind): Promise<Template> {
	return (await houseSetting<Template>(db, `mail_${kind}`)) ?? TEMPLATES[kind];
}

export async function saveTemplate(otium: Writing, by: Actor, kind: MailKind, template: Template): Promise<void> {
	await transact(otium.db, async (trx) => {
		await keepHouseSetting(trx, `mail_${kind}`, template);
		const body = { to: kind, ...template };
		await appendToLogbook(trx, [{ at: otium.now(), by, kind: 'mail_template_changed', body }]);
	});
}

/** Somebody to whom a session's mail would go, with the mail as they would get it. */
export type Letter = {
	to: string;
	address: string | null;
	mail: Template;
	lastSent: number | null;
	state: string | null;
	/** What they were told and what stands otherwise now; the mail then begins with it. */
	changes: ToldChange[];
	/** What this mail tells, kept with it. */
	told: Told;
	/** How many mails of this session they have had. */
	earlier: number;
	/** When it is for them. */
	window: { from: number; to: number };
};

/** Every mail that a session's template makes; those without an address are named, not skipped. */
export async function lettersFor(
	db: Query,
	session: Session,
	kind: MailKind,
	template: Template,
	origin: string,
	now: number
): Promise<Letter[]> {
	const people =
		kind === 'candidate' ? await candidates(db, session, origin, now) : await proctors(db, session, origin, now);
	const earlier: (Mail & { told: string | null })[] = await db('mail')
		.where({ session_id: session.id, kind })
		.orderBy('made_at');
	const byAddress = groupBy(earlier, (mail) => mail.to_address);
	return people.map(({ address, facts, window }) => {
		const before = (address !== null && byAddress.get(address)) || [];
		const last = before.at(-1);
		const told = before.findLast((mail) => mail.state !== 'failed')?.told;
		const changes = told ? changedSince(JSON.parse(told) as Told, facts, VERSION) : [];
		return {
			to: facts.name,
			address,
			mail: withChanges(fillIn(template, facts), changes),
			lastSent: last?.sent_at ?? null,
			state: last?.state ?? null,
			changes,
			told: toldIn(facts, VERSION),
			earlier: before.length,
			window
		};
	});
}

/** Whether a letter still has to go: it never went, it failed, or what it told has changed. */
export function isDue(letter: Pick<Letter, 'address' | 'state' | 'changes'>): boolean {
	return letter.address !== null && (letter.state !== 'sent' || letter.changes.length > 0);
}

function withChanges(mail: Template, changes: ToldChange[]): Template {
	if (changes.length === 0) return mail;
	return { subject: `Changed: ${mail.subject}`, body: `${changesInWords(changes)}\n\n${mail.body}` };
}

/** Puts the letters of these addresses into the post. Pressed twice within a moment, they go once. */
export async function postLetters(
	otium: Writing,
	by: Actor,
	session: Session,
	kind: MailKind,
	letters: Letter[]
): Promise<number> {
	const now = otium.now();
	const calendarOf = ({ window, earlier, told }: Letter) =>
		writeCalendar(
			session.name,
			[
				{
					id: session.id,
					title: session.paper.title,
					...window,
					place: told.room ?? `${session.room.name}, ${session.site.name}`,
					description: '',
					sequence: earlier
				}
			],
			now
		);
	return transact(otium.db, async (trx) => {
		const waiting = new Set<string>(
			await trx('mail')
				.where({ session_id: session.id, kind, state: 'waiting' })
				.orWhere((recent) => recent.where({ session_id: session.id, kind }).where('made_at', '>', now - 10_000))
				.pluck('to_address')
		);
		const rows = letters
			.filter((letter) => letter.address !== null && !waiting.has(letter.address))
			.map((letter) => ({
				id: nanoid(),
				made_at: now,
				session_id: session.id,
				kind,
				to_name: letter.to,
				to_address: letter.address!,
				subject: letter.mail.subject,
				body: sealSecret(trx, letter.mail.body),
				calendar: calendarOf(letter),
				told: JSON.stringify(letter.told),
				state: 'waiting'
			}));
		await insertMany(trx, 'mail', rows);
		if (rows.length > 0)
			await appendToLogbook(trx, [
				{ at: now, by, kind: 'mail_posted', sessionId: session.id, body: { to: kind, mails: rows.length } }
			]);
		return rows.length;
	});
}

/** Puts every letter of a session that still has to go into the post, of those that are meant. Returns how many. */
export async function postDue(
	otium: Writing,
	by: Actor,
	session: Session,
	kind: MailKind,
	origin: string,
	isMeant: (letter: Letter) => boolean = () => true
): Promise<number> {
	const letters = await lettersFor(otium.db, session, kind, await templateFor(otium.db, kind), origin, otium.now());
	return postLetters(
		otium,
		by,
		session,
		kind,
		letters.filter((letter) => isDue(letter) && isMeant(letter))
	);
}
