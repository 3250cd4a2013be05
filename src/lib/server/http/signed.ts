import type { RequestEvent } from '@sveltejs/kit';
import { readNonce, signatureHeaders } from '$core/access';
import { fail } from '$core/problem';
import { clientOfRequest, digestOf } from '../identity';
import { noteDevice } from '../sitting';

type Asked = Pick<RequestEvent, 'request' | 'url' | 'locals'>;

/**
 * Refuses what the device of this sign-in has not signed itself, and tells the proctor of it: somebody else has its
 * cookie. A device whose browser can't sign is let in by its proctor alone and asked for nothing here.
 * @throws ProblemError not_signed; sign_anew, with the mark under which the device goes on counting
 */
export async function mustBeSigned({ request, url, locals }: Asked): Promise<void> {
	const { device, signIn, otium } = locals;
	if (!device?.publicKey) return;
	const checked = await otium.signatures.check(
		signIn!,
		device.publicKey,
		request.method,
		url.pathname,
		headersOf(request, url)
	);
	if (checked.outcome === 'anew') fail('sign_anew', {}, { mark: checked.mark });
	if (checked.outcome === 'wrong') {
		await noteDevice(otium, device, 'forged');
		fail('not_signed');
	}
	locals.digest = request.headers.get('content-digest');
	locals.client = await clientOfRequest(otium, (name) => request.headers.get(name), {
		method: request.method,
		path: url.pathname,
		digest: checked.digest,
		browser: checked.signature
	});
}

/** Whether it claims to be signed by a browser; `mustBeSigned` says whether it is. */
export const isSigned = (request: Request) => request.headers.has('signature');

/** Refuses a body that is not the one that was signed. */
export function mustMatch(digest: string | null, bytes: Uint8Array | string): void {
	if (digest !== null && digest !== digestOf(bytes)) fail('not_signed');
}

/** A stream is asked for by a browser that can't send headers: what would be in them stands in the address. */
function headersOf(request: Request, url: URL): (name: string) => string | null {
	const signature = url.searchParams.get('signature');
	const nonce = readNonce(url.searchParams.get('nonce') ?? '');
	if (request.method !== 'GET' || !signature || !nonce) return (name) => request.headers.get(name);
	const { method } = request;
	const headers = signatureHeaders({ method, path: url.pathname, digest: digestOf(''), nonce }, signature);
	return (name) => headers[name] ?? null;
}
