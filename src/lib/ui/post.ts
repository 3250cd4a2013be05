/** What the server says when it refuses. */
export type Problem = { code: string; message: string; instead?: string; waitSeconds?: number };
export type Answer<T> = { ok: true; data: T } | { ok: false; status: number; problem: Problem };

/** Sends JSON and reads the answer. A line that is down is an answer too: status 0. */
export async function send<T>(
	method: 'GET' | 'POST' | 'PUT' | 'DELETE',
	path: string,
	body?: unknown,
	signal?: AbortSignal
): Promise<Answer<T>> {
	try {
		const response = await fetch(path, {
			method,
			signal,
			headers: body === undefined ? {} : { 'content-type': 'application/json' },
			body: body === undefined ? undefined : JSON.stringify(body)
		});
		const data = await response.json();
		return response.ok ? { ok: true, data } : { ok: false, status: response.status, problem: data };
	} catch {
		return {
			ok: false,
			status: 0,
			problem: {
				code: 'line_down',
				message: 'The server can’t be reached.',
				instead: 'Check the line; try again in a moment.'
			}
		};
	}
}

/** A problem as one line. */
export function inWords(problem: Problem): string {
	return [problem.message, problem.instead].filter(Boolean).join(' ');
}
