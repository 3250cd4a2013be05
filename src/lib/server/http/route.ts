import { json, type Cookies, type RequestEvent } from '@sveltejs/kit';
import type { z } from 'zod';
import { clientFor, may, mayAnywhere, type Act, type ProvenClient, type StaffMember } from '$core/access';
import { fail, PROBLEMS, ProblemError, type Problem, type ProblemCode } from '$core/problem';
import { refusal, RefusalError, type Actor, type Refusal } from '$core/sitting';
import { isUnavailable } from '../db';
import { actorAt } from '../identity';
import type { Otium } from '../otium';
import { coordinatesSite, findSession, placeOf, type Session } from '../session';
import { readJson } from './body';

/** Who may ask, and what is known of them then. Refuses everybody else by throwing. */
type Allow<C> = { audience: 'staff' | 'candidate'; check: (event: RequestEvent) => C | Promise<C> };
type House = { otium: Otium };

/** Whoever comes: the door, and what it needs. */
export const anyone: Allow<House> = { audience: 'candidate', check: ({ locals: { otium } }) => ({ otium }) };

/** Whoever is signed in as staff, and may do this at one site at least. */
export function staff(act?: Act): Allow<House & { staff: StaffMember }> {
	return {
		audience: 'staff',
		check({ locals: { otium, staff } }) {
			if (!staff) fail('signed_out');
			if (act && !mayAnywhere(staff, act)) fail('not_yours');
			return { otium, staff };
		}
	};
}

/** Whoever may do this with the session that the path names. */
export function inSession(act: Act): Allow<House & { staff: StaffMember; session: Session; by: Actor }> {
	return {
		audience: 'staff',
		async check({ params, locals: { otium, staff } }) {
			if (!staff) fail('signed_out');
			return { otium, staff, ...(await sessionFor(otium, staff, params.id ?? '', act)) };
		}
	};
}

/** A device that is signed in, whether or not its sitting has gone on elsewhere since. */
export const device: Allow<House & { device: Device }> = {
	audience: 'candidate',
	check({ locals: { otium, device } }) {
		if (!device) fail('not_at_the_door');
		return { otium, device };
	}
};

/** The device that its sitting is bound to. A freed one does nothing more. */
export const boundDevice: Allow<House & { device: Device }> = {
	audience: 'candidate',
	async check({ locals: { otium, device } }) {
		if (!device) fail('not_at_the_door');
		const row = await otium.db('sitting').where({ id: device.sittingId }).first('device_epoch');
		if (row?.device_epoch !== device.epoch) refuse(refusal('second_device'));
		return { otium, device };
	}
};
type Device = { sittingId: string; epoch: number };

/** Not a question leaves without a client that has proved itself, where the session asks for one. */
export function mustBeProven(session: Session, client: ProvenClient | null): void {
	const proven = clientFor(session, client);
	if (proven === 'outdated') refuse(refusal('client_outdated'));
	if (proven === 'missing') refuse(refusal('client_unproven'));
}

/** The session, for whoever may do that with it. */
export async function sessionFor(
	otium: Otium,
	staff: StaffMember,
	id: string,
	act: Act
): Promise<{ session: Session; by: Actor }> {
	const session = await findSession(otium.db, id);
	if (!session) fail('not_found');
	if (!may(staff, act, placeOf(session))) fail('not_yours');
	return { session, by: actorAt(staff, session.site.id) };
}

/** Who acts, where only coordinators of that site may. */
export function coordinatorOf(staff: StaffMember, siteId: string): Actor {
	if (!coordinatesSite(staff, siteId)) fail('not_yours');
	return actorAt(staff, siteId);
}

type Asked<C> = C & {
	/** What the path names. */
	params: Record<string, string>;
	url: URL;
	request: Request;
	cookies: Cookies;
	locals: App.Locals;
};
/** Data is sent as JSON. */
type Answer = Response | object;
/** What a body may have where its route names nothing else, bytes: a form that a person fills in is far smaller. */
const MOST_BYTES = { candidate: 16 * 1024, staff: 64 * 1024 };
/** Where a body names hundreds of people, or holds a whole form with what is written in it. */
export const LARGE = 512 * 1024;
type Handler = (event: RequestEvent) => Promise<Response>;

/**
 * One route: who may ask, the body that it takes, and what it does then. Whatever it throws that is a refusal becomes an
 * answer in words, and so does a disk that can't be written to just now.
 */
export function route<C>(allow: Allow<C>, handle: (asked: Asked<C>) => Answer | Promise<Answer>): Handler;
export function route<C, S extends z.ZodType>(
	allow: Allow<C>,
	body: S | { schema: S; mostBytes: number },
	handle: (asked: Asked<C> & { body: z.infer<S> }) => Answer | Promise<Answer>
): Handler;
export function route<C, S extends z.ZodType>(
	allow: Allow<C>,
	...rest: [(asked: Asked<C>) => unknown] | [S | { schema: S; mostBytes: number }, (asked: Asked<C>) => unknown]
): Handler {
	const handle = rest.at(-1) as (asked: object) => Answer | Promise<Answer>;
	const takes = rest.length === 2 ? rest[0] : null;
	const { schema, mostBytes } = takes && 'schema' in takes ? takes : { schema: takes, mostBytes: undefined };
	return async (event) => {
		try {
			const known = await allow.check(event);
			const body = schema
				? await readJson(event.request, schema as S, mostBytes ?? MOST_BYTES[allow.audience])
				: undefined;
			const { params, url, request, cookies, locals } = event;
			const answer = await handle({ ...known, params, url, request, cookies, locals, body });
			return answer instanceof Response ? answer : json(answer);
		} catch (error) {
			return answerTo(error, allow.audience);
		}
	};
}

function answerTo(error: unknown, audience: Allow<unknown>['audience']): Response {
	if (error instanceof ProblemError) return problem(error.status, error.problem, error.more);
	if (error instanceof RefusalError)
		return problem(STATUS[error.code] ?? 409, { ...error.refusal, waitSeconds: error.waitSeconds });
	if (!isUnavailable(error)) throw error;
	return problem(PROBLEMS.not_saved_yet.status, { code: 'not_saved_yet', ...UNAVAILABLE[audience], waitSeconds: 2 });
}

/** A write that the disk refused just now. */
const UNAVAILABLE = {
	candidate: {
		message: 'Not saved yet.',
		instead: 'Go on: this device keeps your answers and sends them again by itself.'
	},
	staff: {
		message: 'Not done: the server can’t write to its disk just now.',
		instead: 'Try again in a moment; nothing that was saved is lost.'
	}
};

/** The answer of whoever refuses before any route is asked. */
export function problemResponse(code: ProblemCode): Response {
	const { status, ...words } = PROBLEMS[code];
	return problem(status, { code, ...words });
}

function problem(status: number, body: Problem, more: object = {}): Response {
	const headers: Record<string, string> = body.waitSeconds ? { 'retry-after': String(body.waitSeconds) } : {};
	return json({ ...body, ...more }, { status, headers });
}

type Refusing = { ok: false } & (
	{ message: string; instead?: string } | { problem: Problem } | { refusal: Refusal; waitSeconds?: number }
);

/**
 * The result, if it is one.
 * @param code by which it is refused otherwise, where the result names none
 * @throws ProblemError, RefusalError
 */
export function orRefuse<R extends { ok: true } | Refusing>(
	result: R,
	code: ProblemCode = 'refused'
): Extract<R, { ok: true }> {
	if (result.ok) return result as Extract<R, { ok: true }>;
	if ('problem' in result) throw new ProblemError(PROBLEMS[code].status, result.problem);
	if ('refusal' in result) return refuse(result.refusal, result.waitSeconds);
	return fail(code, { message: result.message, instead: result.instead });
}

const STATUS: Record<string, number> = {
	not_allowed: 403,
	barred: 403,
	off_network: 403,
	client_unproven: 403,
	client_outdated: 403,
	code_unknown: 404,
	identity_unknown: 404,
	code_expired: 410,
	too_many_tries: 429,
	reason_missing: 422,
	start_word_wrong: 422,
	finish_word_wrong: 422
};

/**
 * Refuses as a sitting or the door does; most of that are conflicts with how things stand.
 * @throws RefusalError always
 */
export function refuse(refusal: Refusal, waitSeconds?: number): never {
	throw new RefusalError(refusal, waitSeconds);
}
