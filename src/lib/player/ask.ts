import { send, type Answer, type Send } from '$ui/post';
import { Signer } from './signer';

/** Of this page: made when it is first needed, and kept with what it has counted. */
let signing: Promise<Signer | null> | null = null;

/** With which this page signs; null: this browser has no key. */
export async function signer({ make = false } = {}): Promise<Signer | null> {
	signing ??= Signer.load(make);
	const found = await signing;
	// Asked for before there was one: looked for again when it may be made.
	if (found === null) signing = null;
	return found ?? (make ? (signing ??= Signer.load(true)) : null);
}

/** Sends what concerns a candidate's sitting, signed by this browser where it can; a file as it is. */
export const ask: Send = async <T>(
	method: Parameters<Send>[0],
	path: string,
	body?: unknown,
	how: Parameters<Send>[3] = {}
): Promise<Answer<T>> => {
	const by = await signer();
	if (by === null) return send<T>(method, path, body, how);
	const headersOf = (bytes: Uint8Array<ArrayBuffer>) => by.headers(method, path, bytes);
	const answer = await send<T>(method, path, body, { ...how, headersOf });
	if (!isUnderOldMark(by, answer)) return answer;
	return send<T>(method, path, body, { ...how, headersOf });
};

/** Whether the server counts under another mark, as after a restart; from now on so does this page. */
function isUnderOldMark(by: Signer, answer: Answer<unknown>): boolean {
	if (answer.ok || answer.problem.code !== 'sign_anew') return false;
	by.mark = (answer.problem as typeof answer.problem & { mark: string }).mark;
	return true;
}
