import { json } from '@sveltejs/kit';
import { fail, PROBLEMS, ProblemError, type Problem, type ProblemCode } from '$core/problem';
import { RefusalError, type Refusal } from '$core/sitting';
import { isOfClosed, isUnavailable } from '../db';

/** For whom a route's words are. */
export type Audience = 'staff' | 'candidate';

/**
 * Refuses as a sitting or the door does; most of that are conflicts with how things stand.
 * @param more what else belongs to the answer
 * @throws RefusalError always
 */
export function refuse(refusal: Refusal, waitSeconds?: number, more?: object): never {
	throw new RefusalError(refusal, waitSeconds, more);
}

type Refusing = { ok: false } & (
	| { message: string; instead?: string }
	| { problem: Problem }
	| { refusal: Refusal; waitSeconds?: number }
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

/** What was thrown, as the answer of a route; a fault of ours is thrown on. */
export function answerTo(error: unknown, audience: Audience): Response {
	if (error instanceof ProblemError) return problem(error.status, error.problem, error.more);
	if (error instanceof RefusalError)
		return problem(STATUS[error.code] ?? 409, { ...error.refusal, waitSeconds: error.waitSeconds }, error.more);
	if (isOfClosed(error)) {
		const { status, ...words } = PROBLEMS.administration_closed;
		return problem(status, {
			code: 'administration_closed',
			...words,
			...(audience === 'candidate' && CLOSED_FOR_YOU)
		});
	}
	if (!isUnavailable(error)) throw error;
	return problem(PROBLEMS.not_saved_yet.status, { code: 'not_saved_yet', ...UNAVAILABLE[audience], waitSeconds: 2 });
}

const CLOSED_FOR_YOU = {
	message: 'This exam is closed. Nothing can be answered or handed in any more.',
	instead: 'Ask the people who run your exams if something is missing.'
};

/** A write that the disk refused just now. */
const UNAVAILABLE = {
	candidate: {
		message: 'Not saved yet.',
		instead: 'Keep working: this device keeps your answers and sends them again automatically.'
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

/** Statuses of HTTP for what the door and a sitting refuse; all others are conflicts. */
const STATUS: Record<string, number> = {
	not_allowed: 403,
	barred: 403,
	off_network: 403,
	step_closed: 403,
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
