import { json, type Cookies, type RequestEvent } from '@sveltejs/kit';
import type { z } from 'zod';
import type { Act } from '$core/access';
import type { Allow, Proof } from './allow';
import { readJson } from './body';
import { answerTo, type Audience } from './refuse';

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
/**
 * `audience` and `act`: whose route it is, and what staff must be allowed to do there; `proof`: what shows that it is theirs.
 * Tests read all of it from every route.
 */
type Handler = ((event: RequestEvent) => Promise<Response>) & { audience: Audience; act?: Act; proof: Proof };

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
	const handler = async (event: RequestEvent) => {
		try {
			const known = await allow.check(event);
			const body = schema
				? await readJson(event.request, schema as S, mostBytes ?? MOST_BYTES[allow.audience], event.locals.digest)
				: undefined;
			const { params, url, request, cookies, locals } = event;
			const answer = await handle({ ...known, params, url, request, cookies, locals, body });
			return answer instanceof Response ? answer : json(answer);
		} catch (error) {
			return answerTo(error, allow.audience);
		}
	};
	return Object.assign(handler, { audience: allow.audience, act: allow.act, proof: allow.proof });
}
