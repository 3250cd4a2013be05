import { showSlip } from '$core/access';
import type { MailFacts } from '$core/mail';
import { fullName } from '$core/names';
import {
	minutesInWords,
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
import type { Query } from '../db';
import { ownNote, rehearsalNote } from '../identity';
import { doorOpensAt, type Session, slipsFor } from '../session';
import { besideRules, loadSittingsOf, minutesToWork, toldToAll, toldWith, whereOf } from '../sitting';
import type { Letter } from './write';

export const DAY_MS = 86_400_000;

/** `address`: null, there is none. */
export type Addressee = { address: string | null; facts: MailFacts; window: Letter['window'] };

/** Everybody who sits it, with what their mail says. */
export async function candidates(db: Query, session: Session, origin: string, now: number): Promise<Addressee[]> {
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
			const minutes = minutesToWork(one);
			const code = slips.get(one.sitting.id);
			const { room, seat } = whereOf(one, seatOf.get(one.sitting.id) ?? null);
			return {
				address: byId.get(one.candidate.id) ?? null,
				window: { from: window.opens, to: lastsUntil(session.rules.timing, window) },
				facts: {
					...common(session, window.opens, now),
					name: fullName(one.candidate),
					number: one.candidate.number,
					room: `${room}, ${session.site.name}`,
					seat: seat ?? 'to be assigned',
					// Their own time and window, not the session's.
					minutes: minutes === null ? 'no time limit' : minutesInWords(minutes),
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

/** Everybody who watches it, with what their mail says. */
export async function proctors(db: Query, session: Session, origin: string, now: number): Promise<Addressee[]> {
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
			minutes: limitMinutes === null ? 'no time limit' : minutesInWords(limitMinutes),
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
