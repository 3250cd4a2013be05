import { nanoid } from 'nanoid';
import { writeCalendar } from '$core/formats';
import { fillIn, TEMPLATES, type MailFacts, type MailKind, type Template } from '$core/mail';
import type { Actor } from '$core/sitting';
import { allottedMinutes, lastsUntil, localTime, longDate, zoneName } from '$core/time';
import { insertMany, type Query, transact } from '../db';
import { appendToLogbook } from '../logbook';
import type { Writing } from '../house';
import { doorOpensAt, type Session } from '../session';
import { loadSittingsOf } from '../sitting';
import type { Mail } from './post';

/** The house's own words, or those that Writing brings along. */
export async function templateFor(db: Query, kind: MailKind): Promise<Template> {
	const row = await db('meta')
		.where({ key: `mail_${kind}` })
		.first('value');
	return row ? JSON.parse(row.value) : TEMPLATES[kind];
}

export async function saveTemplate(db: Query, kind: MailKind, template: Template): Promise<void> {
	await db('meta')
		.insert({ key: `mail_${kind}`, value: JSON.stringify(template) })
		.onConflict('key')
		.merge();
}

/** Somebody to whom a session's mail would go, with the mail as they would get it. */
export type Letter = {
	to: string;
	address: string | null;
	mail: Template;
	lastSent: number | null;
	state: string | null;
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
	const earlier: Mail[] = await db('mail').where({ session_id: session.id, kind }).orderBy('made_at');
	const last = new Map(earlier.map((mail) => [mail.to_address, mail]));
	return people.map(({ address, facts }) => {
		const before = address === null ? undefined : last.get(address);
		return {
			to: facts.name,
			address,
			mail: fillIn(template, facts),
			lastSent: before?.sent_at ?? null,
			state: before?.state ?? null
		};
	});
}

type Addressee = { address: string | null; facts: MailFacts };

async function candidates(db: Query, session: Session, origin: string, now: number): Promise<Addressee[]> {
	const sittings = await loadSittingsOf(db, [session.id], now);
	const seats: { sitting_id: string; seat: string | null }[] = await db('roster')
		.where({ session_id: session.id })
		.select('sitting_id', 'seat');
	const addresses: { id: string; email: string | null }[] = await db('candidate')
		.whereIn(
			'id',
			sittings.map((one) => one.candidate.id)
		)
		.select('id', 'email');
	const byId = new Map(addresses.map((row) => [row.id, row.email]));
	return sittings
		.sort((a, b) => a.candidate.family.localeCompare(b.candidate.family))
		.map((one) => {
			const { window } = one.reckoning;
			const minutes = allottedMinutes(session.rules.timing, one.merge.grants);
			return {
				address: byId.get(one.candidate.id) ?? null,
				facts: {
					...common(session, window.opens, now),
					name: `${one.candidate.given} ${one.candidate.family}`,
					number: one.candidate.number,
					seat: seats.find((row) => row.sitting_id === one.sitting.id)?.seat ?? 'as told',
					// Their own time and window, not the session's.
					minutes: minutes === null ? 'no time limit' : `${minutes} minutes`,
					door: localTime(one.reckoning.doorOpens, session.site.zone),
					link: `${origin}/sit`,
					rehearse: `${origin}/sit/rehearse`
				}
			};
		});
}

async function proctors(db: Query, session: Session, origin: string, now: number): Promise<Addressee[]> {
	const staff: { name: string; email: string | null }[] = await db('staff')
		.whereIn('id', session.proctorIds)
		.orderBy('name')
		.select('name', 'email');
	const { limitMinutes } = session.rules.timing;
	return staff.map(({ name, email }) => ({
		address: email,
		facts: {
			...common(session, session.window.opens, now),
			name,
			number: '',
			seat: '',
			minutes: limitMinutes === null ? 'no time limit' : `${limitMinutes} minutes`,
			door: localTime(doorOpensAt(session), session.site.zone),
			link: `${origin}/live/${session.id}`,
			rehearse: `${origin}/sit/rehearse`
		}
	}));
}

function common(session: Session, opens: number, now: number) {
	const { zone } = session.site;
	const { lastEntryMinutes } = session.rules.timing;
	return {
		paper: session.paper.title,
		session: session.name,
		date: longDate(opens, zone, now),
		time: `${localTime(opens, zone)} ${zoneName(opens, zone)}`,
		last_entry: lastEntryMinutes === null ? 'the close' : localTime(opens + lastEntryMinutes * 60_000, zone),
		room: `${session.room.name}, ${session.site.name}`,
		requirements: requirements(session)
	};
}

function requirements({ rules: { lockdown } }: Session): string {
	if (lockdown.level === 'sealed')
		return `the sealed client, version ${lockdown.clientVersion} or newer, installed and tried before the day.`;
	return lockdown.level === 'watched'
		? 'a current browser. The full screen is asked for, and leaving it is noticed.'
		: 'a current browser; nothing has to be installed.';
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
	const end = lastsUntil(session.rules.timing, session.window);
	const calendar = writeCalendar(
		session.name,
		[
			{
				id: session.id,
				title: session.paper.title,
				from: session.window.opens,
				to: end,
				place: `${session.room.name}, ${session.site.name}`,
				description: ''
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
				body: letter.mail.body,
				calendar,
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
