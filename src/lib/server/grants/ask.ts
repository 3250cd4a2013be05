import { z } from 'zod';
import { may, type StaffMember } from '$core/access';
import type { Grant, GrantBody } from '$core/grants';
import { fail } from '$core/problem';
import { instantFromLocal, longDate, clockTime } from '$core/time';
import type { Query } from '../db';
import type { Writing } from '../house';
import { findSession, placeOf } from '../session';
import { loadSitting, type Loaded } from '../sitting';
import { siteOfCandidate, type NewGrant } from '../records';

const time = z.string().regex(/^([01]\d|2[0-3]):[0-5]\d$/, 'Give a time, like 09:30.');

/** What the grants form sends for one candidate's sitting. */
export const GrantAsked = z.object({
	id: z.string().min(8).max(60),
	sittingId: z.string().max(64),
	what: z.discriminatedUnion('kind', [
		z.object({
			kind: z.literal('factor'),
			factor: z
				.number({ error: 'Give a factor, like 1.5.' })
				.gt(1, 'A factor above 1; 1.5 is time and a half.')
				.max(10, 'A factor of at most 10.')
		}),
		z.object({
			kind: z.literal('minutes'),
			minutes: z
				.number({ error: 'Give whole minutes.' })
				.int('Give whole minutes.')
				.min(1, 'Give at least one minute.')
				.max(600, 'Give at most 600 minutes.')
		}),
		z.object({
			kind: z.literal('own_window'),
			date: z.iso.date('Give a date, like 2026-12-08.'),
			opens: time,
			closes: time
		})
	]),
	/** For this session alone, or for good. */
	scope: z.enum(['session', 'standing']),
	reason: z.string().trim().max(300)
});
export type GrantAsked = z.infer<typeof GrantAsked>;

/**
 * Turns what was asked into a grant.
 * @throws ProblemError about what can't be read, what does not exist, or what is not theirs to give
 */
export async function readGrant(
	otium: Writing,
	staff: StaffMember,
	asked: GrantAsked
): Promise<{ grant: NewGrant; one: Loaded }> {
	const now = otium.now();
	const one = await loadSitting(otium.db, asked.sittingId, now);
	if (!one)
		fail('not_found', {
			message: 'This candidate’s sitting is not here any more.',
			instead: 'Look the candidate up again.'
		});
	if (!may(staff, 'grant', placeOf(one.session)))
		fail('not_yours', {
			message: 'Grants at this site are not yours to give.',
			instead: 'A coordinator of the site can.'
		});
	const scope =
		asked.scope === 'standing' ? { kind: 'standing' as const } : { kind: 'session' as const, id: one.session.id };
	await mustReach(otium.db, staff, { candidateId: one.candidate.id, scope });
	const body = bodyOf(asked, one.session.site.zone, now);
	if (typeof body === 'string') fail('not_taken', { message: body });
	if (body.kind === 'own_window' && asked.scope === 'standing')
		fail('not_taken', { message: 'An own window is for one session.', instead: 'Choose “this session”.' });
	return {
		one,
		grant: {
			candidateId: one.candidate.id,
			scope,
			body,
			reason: asked.reason,
			givenBy: staff.id,
			givenAt: now
		}
	};
}

/** The grant's body, or a sentence about what is wrong with it. */
function bodyOf({ what }: GrantAsked, zone: string, now: number): GrantBody | string {
	switch (what.kind) {
		case 'factor':
			return { kind: 'extra_time', factor: what.factor, minutes: 0 };
		case 'minutes':
			return { kind: 'extra_time', factor: 1, minutes: what.minutes };
		case 'own_window': {
			const [opens, closes] = [what.opens, what.closes].map((text) => instantFromLocal(what.date, text, zone));
			for (const read of [opens, closes]) {
				if (!read.ok)
					return read.why === 'does_not_exist'
						? `The clocks jump over that time; the next is ${clockTime(read.instead, zone)}.`
						: 'The clocks go back then, so that time comes twice. Choose another.';
			}
			if (!opens.ok || !closes.ok) return 'This window can’t be read.';
			if (closes.at <= opens.at) return 'The window closes before it opens. Choose a later end.';
			if (closes.at <= now)
				return `This window is over already: it is ${clockTime(now, zone)} on ${longDate(now, zone)}. Choose a later one.`;
			return { kind: 'own_window', opens: opens.at, closes: closes.at };
		}
	}
}

/**
 * Refuses whoever may not give or withdraw at every site that a grant reaches: for one session, that session's; for good,
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
