import type { z } from 'zod';
import { fail } from '$core/problem';
import { fieldLabel } from './field-label';
import { mustMatch } from './signed';

/**
 * Reads and checks a JSON body.
 * @throws ProblemError that says what is wrong with it
 */
export async function readJson<T extends z.ZodType>(
	request: Request,
	schema: T,
	mostBytes: number,
	/** What the device has signed of it. */
	digest: string | null = null
): Promise<z.infer<T>> {
	if (!/^application\/json\b/.test(request.headers.get('content-type') ?? '')) fail('not_json');
	const text = await readText(request, mostBytes);
	if (text === null) fail('too_large');
	mustMatch(digest, text);
	const parsed = schema.safeParse(parse(text));
	if (parsed.success) return parsed.data;
	const [issue] = parsed.error.issues;
	const label = fieldLabel(issue.path);
	const message = label === null ? issue.message : `${label}: ${issue.message}`;
	// Whoever writes a program is told the path as well.
	return fail('malformed', { message }, { field: issue.path.join('.') });
}

function parse(text: string): unknown {
	try {
		return JSON.parse(text);
	} catch {
		return fail('unreadable');
	}
}

/** The body as text; null when it is more than it may be, however the length was told. */
async function readText(request: Request, mostBytes: number): Promise<string | null> {
	const reader = request.body?.getReader();
	if (!reader) return '';
	const decoder = new TextDecoder();
	let [text, bytes] = ['', 0];
	try {
		for (;;) {
			const { value, done } = await reader.read();
			if (done) return bytes > mostBytes ? null : text + decoder.decode();
			bytes += value.length;
			// What is too much is read to its end and dropped: a line cut in mid-sending would not hear why.
			if (bytes <= mostBytes) text += decoder.decode(value, { stream: true });
		}
	} catch (error) {
		if ((error as { status?: number }).status === 413) return null;
		return '';
	}
}
