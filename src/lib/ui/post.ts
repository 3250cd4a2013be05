import type { Problem } from '$core/problem';
import { confirmIdentity } from './confirm-identity';

export type Answer<T> = { ok: true; data: T } | { ok: false; status: number; problem: Problem };

type Sending = {
	signal?: AbortSignal;
	/** The page goes, and the request is to outlive it where it is small enough. */
	leaving?: boolean;
	/** A file is asked for: a `Blob` comes. */
	file?: boolean;
	headers?: Record<string, string>;
	/** Headers that follow from the body, as a signature does. */
	headersOf?: (bytes: Uint8Array<ArrayBuffer>) => Promise<Record<string, string>>;
};
/** By which way a request goes. */
export type Send = <T>(method: Method, path: string, body?: unknown, how?: Sending) => Promise<Answer<T>>;
type Method = 'GET' | 'POST' | 'PUT' | 'DELETE';

/** A browser sends no more than this from a page that is gone, 64 KiB by the Fetch standard for all such requests. */
const OUTLIVES_BYTES = 60_000;

/**
 * Sends JSON, or a file as it is, and reads the answer. A line that is down is an answer too: status 0.
 */
export async function send<T>(
	method: Method,
	path: string,
	body?: unknown,
	{ signal, leaving = false, file = false, headers = {}, headersOf = async () => ({}) }: Sending = {}
): Promise<Answer<T>> {
	try {
		const sent: string | Uint8Array<ArrayBuffer> | undefined =
			body instanceof Blob ? new Uint8Array(await body.arrayBuffer()) : JSON.stringify(body);
		const bytes = typeof sent === 'string' ? new TextEncoder().encode(sent) : (sent ?? new Uint8Array());
		const type = body instanceof Blob ? body.type || 'application/octet-stream' : 'application/json';
		const response = await fetch(path, {
			method,
			signal,
			keepalive: leaving && bytes.length < OUTLIVES_BYTES,
			headers: {
				...(sent === undefined ? {} : { 'content-type': type }),
				...headers,
				...(await headersOf(bytes))
			},
			body: sent
		});
		if (response.ok && file) return { ok: true, data: (await response.blob()) as T };
		const data = await response.json();
		if (response.ok) return { ok: true, data };
		// Shown once more who it is, what was sent goes again, as it was.
		if (data.code === 'confirm_identity' && (await confirmIdentity()))
			return await send<T>(method, path, body, { signal, leaving, file, headers, headersOf });
		return { ok: false, status: response.status, problem: data };
	} catch {
		return {
			ok: false,
			status: 0,
			problem: {
				code: 'line_down',
				message: 'The server can’t be reached.',
				instead: 'Check the connection; try again in a moment.'
			}
		};
	}
}

/** A problem as one line. */
export function inWords(problem: Problem): string {
	return [problem.message, problem.instead].filter(Boolean).join(' ');
}
