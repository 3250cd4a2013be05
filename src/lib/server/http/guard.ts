import { error, redirect, type RequestEvent } from '@sveltejs/kit';
import { may, mayAnywhere, type Act, type StaffMember } from '$core/access';
import { PROBLEMS, type ProblemCode } from '$core/problem';
import type { Actor } from '$core/sitting';
import { actorAt } from '../identity';
import { findSession, placeOf, type Session } from '../session';

/** For pages: whoever is signed in and may do this somewhere; sends others to sign in, or says no. */
export function requireStaff(event: Pick<RequestEvent, 'locals' | 'url'>, act?: Act): StaffMember {
	const { staff } = event.locals;
	if (!staff) redirect(303, `/sign-in?to=${encodeURIComponent(event.url.pathname + event.url.search)}`);
	if (act && !mayAnywhere(staff, act)) noPage('not_yours');
	return staff;
}

/** For pages: the session, if this person may do that with it. */
export async function requireSession(
	event: Pick<RequestEvent, 'locals' | 'url'>,
	id: string,
	act: Act
): Promise<{ staff: StaffMember; session: Session; by: Actor }> {
	const staff = requireStaff(event);
	const session = await findSession(event.locals.otium.db, id);
	if (!session) noPage('not_found');
	if (!may(staff, act, placeOf(session))) noPage('not_yours');
	return { staff, session, by: actorAt(staff, session.site.id) };
}

/** Shows the page that says why there is none. */
export function noPage(code: ProblemCode): never {
	const { status, ...words } = PROBLEMS[code];
	error(status, words);
}
