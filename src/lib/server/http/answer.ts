import { json } from '@sveltejs/kit';
import type { z } from 'zod';
import type { Refusal } from '$core/sitting';

/** What every refused request carries: a code for the program, a sentence and a way out for the person. */
export type Problem = { code: string; message: string; instead?: string; waitSeconds?: number };

export function problem(status: number, body: Problem): Response {
	const headers: Record<string, string> = body.waitSeconds ? { 'retry-after': String(body.waitSeconds) } : {};
	return json(body, { status, headers });
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

/** A domain refusal as a response; most of them are conflicts with how things stand. */
export function refuse(refusal: Refusal, waitSeconds?: number): Response {
	return problem(STATUS[refusal.code] ?? 409, { ...refusal, waitSeconds });
}

export const SIGNED_OUT: Problem = {
	code: 'signed_out',
	message: 'You are not signed in here.',
	instead: 'Sign in again; what you had entered is kept on this page.'
};
export const NOT_AT_THE_DOOR: Problem = {
	code: 'signed_out',
	message: 'This device is not signed in to a paper.',
	instead: 'Enter the code from the board and your number; your answers are safe.'
};
export const NOT_YOURS: Problem = {
	code: 'not_yours',
	message: 'This is not yours to see or do.',
	instead: 'A coordinator of the site can, and can name you as its proctor.'
};
export const NOTHING_TO_PLAN: Problem = {
	code: 'nothing_to_plan',
	message: 'There is no administration yet to plan a session in.',
	instead: 'Whoever set up this server enters its sites, rooms, papers and candidates first.'
};
export const NO_SUCH_THING: Problem = {
	code: 'not_found',
	message: 'There is nothing here by that name.',
	instead: 'Go back to the list and choose from it.'
};

/** Reads and checks a JSON body; what cannot be read becomes a response that says what is wrong with it. */
export async function readJson<T extends z.ZodType>(
	request: Request,
	schema: T
): Promise<{ ok: true; data: z.infer<T> } | { ok: false; response: Response }> {
	if (!/^application\/json\b/.test(request.headers.get('content-type') ?? '')) {
		return {
			ok: false,
			response: problem(415, {
				code: 'not_json',
				message: 'This takes JSON.',
				instead: 'Send it with content-type application/json.'
			})
		};
	}
	const text = await readText(request);
	if (text === null) {
		return {
			ok: false,
			response: problem(413, {
				code: 'too_large',
				message: 'That is too much at once.',
				instead: 'Send it in smaller parts.'
			})
		};
	}
	let body: unknown;
	try {
		body = JSON.parse(text);
	} catch {
		return {
			ok: false,
			response: problem(400, { code: 'unreadable', message: 'This can’t be read as JSON.', instead: 'Send it again.' })
		};
	}
	const parsed = schema.safeParse(body);
	if (parsed.success) return { ok: true, data: parsed.data };
	const [issue] = parsed.error.issues;
	const where = issue.path.length > 0 ? ` (${issue.path.join('.')})` : '';
	return {
		ok: false,
		response: problem(400, {
			code: 'malformed',
			message: `${issue.message}${where}`,
			instead: 'Correct it and send it again.'
		})
	};
}

const MOST_JSON_BYTES = 1024 * 1024;

/** The body as text; null when it is more than JSON may be, however the length was told. */
async function readText(request: Request): Promise<string | null> {
	const reader = request.body?.getReader();
	if (!reader) return '';
	const decoder = new TextDecoder();
	let [text, bytes] = ['', 0];
	try {
		for (;;) {
			const { value, done } = await reader.read();
			if (done) return bytes > MOST_JSON_BYTES ? null : text + decoder.decode();
			bytes += value.length;
			// What is too much is read to its end and dropped: a line cut in mid-sending would not hear why.
			if (bytes <= MOST_JSON_BYTES) text += decoder.decode(value, { stream: true });
		}
	} catch (error) {
		if ((error as { status?: number }).status === 413) return null;
		return '';
	}
}
