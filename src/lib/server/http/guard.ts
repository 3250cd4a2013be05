import { error, redirect, type RequestEvent } from '@sveltejs/kit';
import { mayAnywhere, type Act, type Awaited, type StaffMember } from '$core/access';
import { PROBLEMS, type ProblemCode } from '$core/problem';
import type { Actor } from '$core/sitting';
import type { Session } from '../session';
import { sessionFor } from './allow';

/** Where each step of a sign-in is taken. */
export const STEPS: Record<Awaited, string> = {
	second: '/sign-in/second',
	password: '/sign-in/new-password',
	enrol: '/sign-in/enrol'
};

/** For pages: whoever is signed in and may do this somewhere; sends others to sign in, or says no. */
export function requireStaff(event: Pick<RequestEvent, 'locals' | 'url'>, act?: Act): StaffMember {
	const { staff } = event.locals;
	const { staffSession } = event.locals;
	const to = encodeURIComponent(event.url.pathname + event.url.search);
	if (!staff) redirect(303, `${staffSession?.awaits ? STEPS[staffSession.awaits] : '/sign-in'}?to=${to}`);
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
	return { staff, ...(await sessionFor(event.locals.otium, staff, id, act, noPage)) };
}

/** Shows the page that says why there is none. */
export function noPage(code: ProblemCode): never {
	const { status, ...words } = PROBLEMS[code];
	error(status, words);
}
