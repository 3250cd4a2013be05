import { counted } from '$core/names';
import { z } from 'zod';
import { may, type StaffMember, SUPERVISING } from '$core/access';
import { BESIDE, GRANTED_LOOKS, type Called, type Grant, type GrantBody, type GrantScope } from '$core/grants';
import { fail } from '$core/problem';
import {
	clockTime,
	instantFromLocal,
	localMidnightAfter,
	longDate,
	readLocalWindow,
	type LocalWindow
} from '$core/time';
import type { Query } from '../db';
import type { Writing } from '../house';
import { findSession, placeOf } from '../session';
import { loadSittings, type Loaded } from '../sitting';
import { day, lastDay, siteOfCandidate, timeOfDay, type NewGrant } from '../records';
import { Shown } from './evidence';

const whole = (what: string, least: number, most: number) =>
	z
		.number({ error: `Give whole ${what}.` })
		.int(`Give whole ${what}.`)
		.min(least, `At least ${least} for ${what}.`)
		.max(most, `At most ${most} for ${what}.`);
const id = z.string().max(64);

/** What may be given by hand. */
export const GrantWhat = z.discriminatedUnion('kind', [
	z.object({
		kind: z.literal('factor'),
		factor: z
			.number({ error: 'Give a factor, like 1.5.' })
			.gt(1, 'A factor above 1; 1.5 is time and a half.')
			.max(10, 'A factor of at most 10.')
	}),
	z.object({ kind: z.literal('minutes'), minutes: whole('minutes', 1, 600) }),
	z.object({ kind: z.literal('unlimited_time') }),
	z.object({
		kind: z.literal('own_window'),
		date: day,
		opens: timeOfDay,
		closes: timeOfDay,
		lastDate: lastDay,
		/** Another room of the site than the session's, and somebody who supervises there; null: as for the others. */
		roomId: id.nullable().default(null),
		proctorId: id.nullable().default(null)
	}),
	z.object({ kind: z.literal('breaks'), count: whole('breaks', 1, 20), minutes: whole('minutes', 1, 240) }),
	z.object({ kind: z.literal('extra_attempt'), count: whole('attempts', 1, 10) }),
	z.object({ kind: z.literal('reopen') }),
	z.object({ kind: z.literal('continue_later') }),
	z.object({ kind: z.literal('tools'), calculator: z.enum(['basic', 'scientific']) }),
	z.object({
		kind: z.literal('language'),
		tag: z.string().regex(/^[A-Za-z]{2,3}(-[A-Za-z0-9]{2,8})*$/, 'Give a language by its tag, like pt or pt-PT.')
	}),
	z.object({
		kind: z.literal('display'),
		magnification: z.number().min(1).max(4, 'Enlarge at most 4 times.'),
		contrast: z.boolean(),
		colours: z.enum(GRANTED_LOOKS).optional(),
		spacing: z.number().min(1.4).max(3).optional(),
		ruler: z.boolean().optional()
	}),
	z.object({ kind: z.literal('read_aloud') }),
	z.object({ kind: z.literal('aid'), name: z.string().trim().min(1, 'Say what the aid is.').max(120) }),
	z.object({ kind: z.literal('separate_room') }),
	z.object({ kind: z.literal('beside'), as: z.enum(BESIDE), name: z.string().trim().max(80) }),
	z.object({ kind: z.literal('paper_copy') }),
	z.object({ kind: z.literal('other_form') })
]);
export type GrantWhat = z.infer<typeof GrantWhat>;

const MOST_PEOPLE = 500;

/** What the grants form sends: one thing, for one or several sittings. */
export const GrantAsked = z.object({
	id: z.string().min(8).max(60),
	sittingIds: z
		.array(id)
		.min(1, 'Choose for whom.')
		.max(MOST_PEOPLE, `At most ${counted(MOST_PEOPLE, 'person', 'people')} at once.`),
	what: GrantWhat,
	/** For this session alone, for its paper, for the administration, or for good. */
	scope: z.enum(['session', 'paper', 'administration', 'standing']),
	/** For what is not for one session: from which day and until the end of which day it holds; null: always. */
	from: day.nullable().default(null),
	until: day.nullable().default(null),
	reason: z.string().trim().max(300),
	askedBy: z.string().trim().max(120).default(''),
	/** With one person: what they had on the asker's screen, by id; null: not looked at. Given meanwhile, it is told. */
	seen: z.array(z.string().max(130)).max(500).nullable().default(null),
	/** A letter or certificate that was shown for it. */
	shown: Shown.nullable().default(null)
});
export type GrantAsked = z.infer<typeof GrantAsked>;

/** What is foreseen before it is asked for; without a `what`: how things stand now. */
export const ForeseeAsked = GrantAsked.extend({ what: GrantWhat.nullable() });

/** One of the grants that were asked for, with whom it is for. */
export type Read = { id: string; grant: NewGrant; one: Loaded };

/**
 * Turns what was asked into grants: one for each person, or for each sitting where it is for one session.
 * @throws ProblemError about what can't be read, what does not exist, or what is not theirs to give
 */
export async function readGrants(otium: Writing, staff: StaffMember, asked: GrantAsked): Promise<Read[]> {
	const now = otium.now();
	const wanted = [...new Set(asked.sittingIds)];
	const loaded = new Map((await loadSittings(otium.db, wanted, now)).map((one) => [one.sitting.id, one]));
	if (loaded.size < wanted.length)
		fail('not_found', {
			message:
				wanted.length === 1
					? 'This candidate’s sitting is not here any more.'
					: `${wanted.length - loaded.size} of these sittings are not here any more.`,
			instead: 'Look the candidates up again.'
		});
	const read: Read[] = [];
	const seen = new Set<string>();
	for (const sittingId of wanted) {
		const one = loaded.get(sittingId)!;
		if (!may(staff, 'grant', placeOf(one.session)))
			fail('not_yours', {
				message: 'Grants at this site are not yours to give.',
				instead: 'A coordinator of the site can.'
			});
		const scope = scopeOf(asked.scope, one);
		const key = `${one.candidate.id} ${'id' in scope ? scope.id : ''}`;
		if (seen.has(key)) continue;
		seen.add(key);
		await mustReach(otium.db, staff, { candidateId: one.candidate.id, scope });
		read.push({
			id: wanted.length === 1 ? asked.id : `${asked.id}:${sittingId}`,
			one,
			grant: {
				candidateId: one.candidate.id,
				scope,
				body: await bodyOf(otium.db, asked, one, now),
				reason: asked.reason,
				givenBy: staff.id,
				givenAt: now,
				...timeOf(asked, one.session.site.zone),
				askedBy: asked.askedBy,
				source: 'hand',
				batch: wanted.length === 1 ? null : asked.id
			}
		});
	}
	return read;
}

function scopeOf(kind: GrantAsked['scope'], { session, paperId }: Loaded): GrantScope {
	switch (kind) {
		case 'standing':
			return { kind };
		case 'administration':
			return { kind, id: session.administrationId };
		case 'paper':
			return { kind, id: paperId };
		case 'session':
			return { kind, id: session.id };
	}
}

function timeOf({ scope, from, until }: GrantAsked, zone: string): Pick<NewGrant, 'from' | 'until'> {
	if (scope === 'session') return { from: null, until: null };
	const noon = (day: string | null) => {
		const read = day === null ? null : instantFromLocal(day, '12:00', zone);
		return read?.ok ? read.at : null;
	};
	const [first, last] = [noon(from), noon(until)];
	if (first !== null && last !== null && last < first)
		fail('not_taken', { message: 'It would end before it begins.', instead: 'Choose a later last day.' });
	const DAY_MS = 24 * 3_600_000;
	return {
		from: first === null ? null : localMidnightAfter(first - DAY_MS, zone),
		until: last === null ? null : localMidnightAfter(last, zone)
	};
}

/** @throws ProblemError with a sentence about what is wrong with it */
async function bodyOf(db: Query, { what, scope }: GrantAsked, one: Loaded, now: number): Promise<GrantBody> {
	switch (what.kind) {
		case 'factor':
			return { kind: 'extra_time', factor: what.factor, minutes: 0 };
		case 'minutes':
			return { kind: 'extra_time', factor: 1, minutes: what.minutes };
		case 'display':
			if (what.magnification === 1 && !what.contrast && !what.colours && !what.spacing && !what.ruler)
				fail('not_taken', {
					message: 'Nothing would be different.',
					instead: 'Enlarge it, or choose colours, wider lines or a ruler.'
				});
			return what;
		case 'own_window': {
			if (scope !== 'session')
				fail('not_taken', { message: 'An own window is for one session.', instead: 'Choose “this session”.' });
			const { opens, closes } = readWindow(what, one.session.site.zone, now);
			return { kind: 'own_window', opens, closes, ...(await placeFrom(db, what, one.session.site.id)) };
		}
		default:
			return what;
	}
}

/** @throws ProblemError not_taken */
export function readWindow(asked: LocalWindow, zone: string, now: number): { opens: number; closes: number } {
	const no = (message: string, instead?: string) => fail('not_taken', { message, instead });
	const read = readLocalWindow(asked, zone);
	if (!read.ok) return no(read.message, read.instead);
	const { opens, closes } = read.window;
	if (closes === null) return no('A window of one’s own needs an end.', 'Give the time at which it closes.');
	if (closes <= opens)
		no('The window closes before it opens.', 'Choose a later end; over midnight, give the day on which it closes.');
	if (closes <= now)
		no(`This window is over already: it is ${clockTime(now, zone)} on ${longDate(now, zone)}.`, 'Choose a later one.');
	return { opens, closes };
}

/**
 * The room and the proctor by their names; whoever is named must be of the site.
 * @throws ProblemError not_found
 */
export async function placeFrom(
	db: Query,
	{ roomId, proctorId }: { roomId: string | null; proctorId: string | null },
	siteId: string
): Promise<{ room?: Called; proctor?: Called }> {
	const room: Called | undefined =
		roomId === null ? undefined : await db('room').where({ id: roomId, site_id: siteId }).first('id', 'name');
	const proctor: Called | undefined =
		proctorId === null
			? undefined
			: await db('staff')
					.join('staff_role', 'staff_role.staff_id', 'staff.id')
					.where({ 'staff.id': proctorId })
					.whereIn('role', SUPERVISING)
					.where((any) => any.whereNull('site_id').orWhere({ site_id: siteId }))
					.first('staff.id', 'staff.name');
	if ((roomId !== null && !room) || (proctorId !== null && !proctor))
		fail('not_found', {
			message: 'This room or proctor is not of the candidate’s site any more.',
			instead: 'Choose the place again.'
		});
	return { ...(room && { room }), ...(proctor && { proctor }) };
}

/**
 * Refuses whoever may not give or withdraw at every site that a grant reaches: for one session, that session's; for more,
 * the one that the candidate is of.
 * @throws ProblemError not_yours
 */
export async function mustReach(
	db: Query,
	staff: StaffMember,
	{ candidateId, scope }: Pick<Grant, 'candidateId' | 'scope'>
) {
	if (scope.kind === 'session') {
		const session = await findSession(db, scope.id);
		if (!session || !may(staff, 'grant', placeOf(session))) fail('not_yours');
		return;
	}
	const siteId = candidateId === null ? null : await siteOfCandidate(db, candidateId);
	if (siteId === null || !may(staff, 'grant', { siteId, proctorIds: [] }))
		fail('not_yours', {
			message: 'This would hold at a site that is not yours.',
			instead: 'Give it for this session, or ask the site that the candidate is of.'
		});
}
