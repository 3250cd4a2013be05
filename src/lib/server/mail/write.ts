import { nanoid } from 'nanoid';
import { writeCalendar } from '$core/formats';
import { showSlip } from '$core/access';
import {
	changedSince,
	changesInWords,
	fillIn,
	TEMPLATES,
	toldIn,
	type MailFacts,
	type MailKind,
	type Template,
	type Told,
	type ToldChange
} from '$core/mail';
import { fullName } from '$core/names';
import type { Actor } from '$core/sitting';
import {
	allottedMinutes,
	clockTime,
	isOverDays,
	lastEntryOf,
	lastsUntil,
	longDate,
	openUntil,
	timeAndDate,
	zoneName
} from '$core/time';
import type { ToldSubject } from '$core/told';
import { houseSetting, keepHouseSetting, groupBy, insertMany, type Query, sealSecret, transact } from '../db';
import { ownNote, rehearsalNote } from '../identity';
import { appendToLogbook } from '../logbook';
import type { Writing } from '../house';
import { doorOpensAt, slipsFor, type Session } from '../session';
import { besideRules, loadSittingsOf, toldToAll, toldWith } from '../sitting';
import { VERSION } from '../version';
import type { Mail } from './post';

const DAY_MS = 86_400_000;

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

type Addressee = { address: string | null; facts: MailFacts; window: Letter['window'] };

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
	const seatOf = new Map(seats.map((row) => [row.sitting_id, row.seat]));
	const slips = session.rules.door.slips
		? await slipsFor(
				db,
				sittings.map((one) => one.sitting.id)
			)
		: new Map<string, string>();
	// The link to rehearse is theirs: what their device can do is written down for nobody else.
	const rehearsals = new Map<string, string>();
	const owns = new Map<string, string>();
	const told = new Map<string, ToldSubject[]>();
	const beside = await besideRules(db, session);
	for (const one of sittings) {
		const { opens } = one.reckoning.window;
		rehearsals.set(one.sitting.id, await rehearsalNote(db, one.candidate.id, opens + DAY_MS));
		told.set(one.sitting.id, toldWith(one, beside));
		owns.set(one.sitting.id, await ownNote(db, one.candidate.id, opens));
	}
	return sittings
		.sort((a, b) => a.candidate.family.localeCompare(b.candidate.family))
		.map((one) => {
			const { window } = one.reckoning;
			const minutes = allottedMinutes(session.rules.timing, one.merge.grants);
			const code = slips.get(one.sitting.id);
			return {
				address: byId.get(one.candidate.id) ?? null,
				window: { from: window.opens, to: lastsUntil(session.rules.timing, window) },
				facts: {
					...common(session, window.opens, now),
					name: fullName(one.candidate),
					number: one.candidate.number,
					room: `${one.merge.room?.name ?? session.room.name}, ${session.site.name}`,
					// A seat is one of the session's room.
					seat: (one.merge.room ? null : seatOf.get(one.sitting.id)) ?? 'to be assigned',
					// Their own time and window, not the session's.
					minutes: minutes === null ? 'no time limit' : `${minutes} minutes`,
					door: clockTime(one.reckoning.doorOpens, session.site.zone),
					last_entry:
						one.reckoning.lastEntry === null
							? 'any time'
							: timeAndDate(one.reckoning.lastEntry, session.site.zone, window.opens),
					link: code ? `${origin}/sit?code=${code}` : `${origin}/sit`,
					code: code ? showSlip(code) : 'shown in the room',
					entering: code
						? `The link has your own code filled in: ${showSlip(code)}. Keep it to yourself.`
						: 'Enter the code that is shown in the room.',
					rules: rulesInWords(told.get(one.sitting.id)!),
					rehearse: `${origin}/sit/rehearse?for=${rehearsals.get(one.sitting.id)}`,
					mine: `${origin}/mine/${owns.get(one.sitting.id)}`
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
	const told = await toldToAll(db, session);
	return staff.map(({ name, email }) => ({
		address: email,
		window: { from: session.window.opens, to: lastsUntil(session.rules.timing, session.window) },
		facts: {
			...common(session, session.window.opens, now),
			name,
			number: '',
			seat: '',
			minutes: limitMinutes === null ? 'no time limit' : `${limitMinutes} minutes`,
			door: clockTime(doorOpensAt(session), session.site.zone),
			link: `${origin}/live/${session.id}`,
			code: '',
			entering: '',
			rules: rulesInWords(told),
			rehearse: `${origin}/sit/rehearse`,
			mine: ''
		}
	}));
}

function common(session: Session, opens: number, now: number) {
	const { zone } = session.site;
	const lastEntry = lastEntryOf(session.rules.timing, { opens, closes: session.window.closes });
	return {
		paper: session.paper.title,
		session: session.name,
		date: longDate(opens, zone, now),
		time: startsInWords(session, opens),
		last_entry: lastEntry === null ? 'any time' : timeAndDate(lastEntry, zone, opens),
		room: `${session.room.name}, ${session.site.name}`,
		requirements: requirements(session)
	};
}

/** `09:00 GMT`, or of a window over days `any time from 09:00 GMT, open until Friday 4 December, 17:00 GMT`. */
function startsInWords({ window, site: { zone } }: Session, opens: number): string {
	const start = `${clockTime(opens, zone)} ${zoneName(opens, zone)}`;
	const isOver = window.closes !== null && opens === window.opens && isOverDays(window, zone);
	return isOver ? `any time from ${start}, ${openUntil(window.closes!, zone)}` : start;
}

/** Door and window stand in a mail by themselves. */
function rulesInWords(told: ToldSubject[]): string {
	return told
		.filter(({ subject }) => subject !== 'when')
		.flatMap(({ lines }) => lines.map((line) => `- ${line}`))
		.join('\n');
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
