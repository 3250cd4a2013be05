import { counted } from '$core/names';
import type { Finding, ReadyLine } from '$core/session';
import { clockTime, isOverDays, MINUTE, timeAndDate } from '$core/time';
import { TEMPLATES } from '$core/mail';
import type { Query } from '../db';
import { lettersFor, mailLeaves } from '../mail';
import { devicesReady } from './devices-ready';
import { doorOpensAt, inputOf, planSession, type Plan, type Session } from '../session';

export type Readiness = { session: Session; plan: Plan; lines: ReadyLine[] };

/** Everything that a session needs, worked out anew from how things stand. */
export async function readinessOf(db: Query, session: Session, now: number): Promise<Readiness | null> {
	const planned = await planSession(db, session.administrationId, await inputOf(db, session), now, session.id);
	if (!planned.ok) return null;
	const { plan } = planned;
	const edit = `/prepare/${session.id}`;
	// Once it has begun, a mail tells nobody what to bring and a device is tried at the door; over days there is time for both.
	const isToCome = now < session.window.opens || isOverDays(session.window, session.site.zone);
	const lines = [
		paperLine(session, plan),
		await proctorLine(db, session, edit),
		{
			key: 'seats',
			...(plan.facts.candidates - plan.facts.elsewhere <= plan.facts.room.seats && plan.facts.candidates > 0
				? { state: 'done' as const }
				: { state: 'blocked' as const, who: 'a coordinator', href: edit }),
			text: `${counted(plan.facts.candidates, 'candidate')}${plan.facts.elsewhere > 0 ? `, ${plan.facts.elsewhere} elsewhere` : ''}, ${counted(plan.facts.room.seats, 'seat')}`
		},
		timeLine(plan),
		...entitlementLine(plan),
		...clashLines(plan, edit),
		...(isToCome ? [await rehearsalLine(db, session, plan), await mailLine(db, session, now)] : []),
		codeLine(session, now),
		...otherFindings(plan, edit)
	];
	return { session, plan, lines };
}

function paperLine(session: Session, plan: Plan): ReadyLine {
	const text = `${session.paper.title}, version ${session.paper.version}`;
	const { withdrawn } = plan.facts.paper;
	if (withdrawn)
		return {
			key: 'paper',
			state: 'blocked',
			text: `${text} was withdrawn`,
			detail: withdrawn.why,
			who: 'a coordinator',
			href: `/prepare/${session.id}`
		};
	return plan.facts.paper.allowed
		? { key: 'paper', state: 'done', text, detail: 'frozen' }
		: {
				key: 'paper',
				state: 'blocked',
				text: `${text} is not allowed here`,
				who: 'a coordinator',
				href: '/prepare/administration'
			};
}

async function proctorLine(db: Query, session: Session, edit: string): Promise<ReadyLine> {
	const names: string[] = await db('staff').whereIn('id', session.proctorIds).orderBy('name').pluck('name');
	return names.length > 0
		? { key: 'proctor', state: 'done', text: `Proctor ${names.join(' and ')}` }
		: { key: 'proctor', state: 'open', text: 'No proctor yet', detail: 'name one', who: 'a coordinator', href: edit };
}

function timeLine({ facts, rules }: Plan): ReadyLine {
	const { extraTime, window, zone } = facts;
	if (extraTime.count === 0) return { key: 'time', state: 'done', text: 'Nobody needs extra time' };
	const last =
		extraTime.lastEnds === null ? '' : `, the last by ${timeAndDate(extraTime.lastEnds, zone, window.opens)}`;
	const closes = rules.timing.atClose === 'cut' ? window.closes : null;
	const open = closes === null ? Infinity : (closes - window.opens) / MINUTE;
	const cut = extraTime.needs.filter(({ minutes }) => minutes !== null && minutes > open);
	const isCutLate = closes !== null && extraTime.lastEnds !== null && extraTime.lastEnds > closes;
	if (cut.length > 0 || isCutLate)
		return {
			key: 'time',
			state: cut.length > 0 ? 'blocked' : 'open',
			text:
				cut.length > 0
					? `The close cuts ${cut.length} with extra time`
					: 'The close cuts extra time of those who begin late',
			detail: 'give own windows',
			who: 'a grants officer',
			href: '/grants'
		};
	return rules.timing.atClose === 'finish'
		? { key: 'time', state: 'done', text: `${extraTime.count} with extra time may finish${last}` }
		: { key: 'time', state: 'done', text: `${extraTime.count} with extra time fit the window` };
}

function entitlementLine({ facts: { entitlement } }: Plan): ReadyLine[] {
	if (entitlement === null) return [];
	const short = entitlement.needed - entitlement.left;
	return [
		short > 0
			? {
					key: 'entitlement',
					state: 'blocked',
					text: `${short} sittings short`,
					detail: 'allot more',
					who: 'a coordinator of all sites',
					href: '/prepare/administration'
				}
			: {
					key: 'entitlement',
					state: 'done',
					text: `${counted(entitlement.needed, 'sitting')} allotted, ${entitlement.left - entitlement.needed} left after`
				}
	];
}

function clashLines({ findings }: Plan, edit: string): ReadyLine[] {
	const clashes = findings.filter((finding) => ['K5', 'room_clash', 'proctor_clash'].includes(finding.code));
	if (clashes.length === 0) return [{ key: 'clashes', state: 'done', text: 'Nobody is in two places' }];
	// A proctor may have several rooms at once: a line each.
	return clashes.map((finding, nth) => ({
		key: `${finding.code} ${nth}`,
		state: 'open' as const,
		text: finding.title.replace(/\.$/, ''),
		detail: finding.message,
		who: 'a coordinator',
		href: edit
	}));
}

/** Devices that have shown that they can. Only a lockdown makes it worth insisting. */
async function rehearsalLine(db: Query, session: Session, { roster, rules }: Plan): Promise<ReadyLine> {
	const ids = roster.people.map((person) => person.candidateId);
	const { ready, notReady: failed } = await devicesReady(db, ids);
	const needed = rules.lockdown.level !== 'open';
	const text = `${ready} of ${counted(ids.length, 'device')} checked${failed > 0 ? `, ${failed} not ready` : ''}`;
	const href = `/prepare/devices?session=${session.id}`;
	if (ready === ids.length || (!needed && failed === 0))
		return {
			key: 'devices',
			state: 'done',
			text: needed ? text : ready > 0 ? text : 'No device has to prove itself',
			href
		};
	return {
		key: 'devices',
		state: 'open',
		text,
		detail: 'candidates rehearse by the link in their mail, or at /sit/rehearse with the code on their slip',
		who: 'the candidates',
		href
	};
}

async function mailLine(db: Query, session: Session, now: number): Promise<ReadyLine> {
	const rows: { state: string; n: number }[] = await db('mail')
		.where({ session_id: session.id })
		.groupBy('state')
		.select('state')
		.count('* as n');
	const of = (state: string) => Number(rows.find((row) => row.state === state)?.n ?? 0);
	const href = `/prepare/mail?session=${session.id}`;
	if (of('failed') > 0)
		return {
			key: 'mail',
			state: 'open',
			text: `${counted(of('failed'), 'mail')} failed`,
			detail: 'check and send again',
			who: 'a coordinator',
			href
		};
	const changed = rows.length === 0 ? 0 : await toldOtherwise(db, session, now);
	if (changed > 0)
		return {
			key: 'mail',
			state: 'open',
			text: `${changed} were told something else`,
			detail: 'what was mailed has changed since: send the change',
			who: 'a coordinator',
			href
		};
	const written = of('sent') + of('waiting');
	if (written > 0 && !mailLeaves())
		return {
			key: 'mail',
			state: 'open',
			text: `${counted(written, 'mail')} written, none sent`,
			detail: 'no mail server is set up: tell people yourself, or name one',
			who: 'a coordinator',
			href
		};
	if (written > 0) return { key: 'mail', state: 'done', text: `${counted(of('sent'), 'mail')} sent`, href };
	return {
		key: 'mail',
		state: 'open',
		text: 'No mail sent',
		detail: 'instructions and dates',
		who: 'a coordinator',
		href
	};
}

/** How many have a mail that tells what no longer is so. */
async function toldOtherwise(db: Query, session: Session, now: number): Promise<number> {
	const kinds = ['candidate', 'proctor'] as const;
	const letters = await Promise.all(kinds.map((kind) => lettersFor(db, session, kind, TEMPLATES[kind], '', now)));
	return letters.flat().filter((letter) => letter.changes.length > 0).length;
}

function codeLine(session: Session, now: number): ReadyLine {
	if (session.doorCode !== null)
		return {
			key: 'code',
			state: 'done',
			text: session.codeHidden ? 'Door code created, still hidden' : 'Door code shown'
		};
	const opens = doorOpensAt(session);
	if (now >= opens) return { key: 'code', state: 'done', text: 'Door code expired' };
	const detail = `is created at ${clockTime(opens, session.site.zone)}`;
	return { key: 'code', state: 'done', text: 'No door code yet', detail };
}

const TOLD = new Set([
	'not_allowed',
	'proctor',
	'seats',
	'nobody',
	'K3',
	'K30',
	'K5',
	'room_clash',
	'proctor_clash',
	'left_out',
	'past',
	'late'
]);

function otherFindings({ findings }: Plan, edit: string): ReadyLine[] {
	const untold = (finding: Finding) => finding.level !== 'info' && !TOLD.has(finding.code);
	return findings.filter(untold).map((finding) => ({
		key: finding.code,
		state: finding.level === 'block' ? ('blocked' as const) : ('open' as const),
		text: finding.title.replace(/\.$/, ''),
		detail: finding.message,
		who: 'a coordinator',
		href: edit
	}));
}
