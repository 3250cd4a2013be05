import { createHmac } from 'node:crypto';

/** What this client says it is. */
export const CLIENT_VERSION = '2.1';

export type Proof = { ok: true; cookie: string; expires: number } | { ok: false; message: string; instead: string };

/**
 * Asks the server for a challenge and answers it with the site's key, as the sealed client does while it runs.
 * @param key as it was shown once: the key's id, a dot, its secret
 */
export async function prove(url: string, key: string, version = CLIENT_VERSION): Promise<Proof> {
	const [keyId, secret] = key.split('.');
	const challenge = await fetch(`${url}/sit/api/challenge`, { method: 'POST' });
	if (!challenge.ok) return (await challenge.json()) as Proof;
	const { nonce } = (await challenge.json()) as { nonce: string };
	const proof = createHmac('sha256', secret ?? '')
		.update(`${nonce}.${version}`)
		.digest('hex');
	const answer = await fetch(`${url}/sit/api/prove`, {
		method: 'POST',
		headers: { 'content-type': 'application/json' },
		body: JSON.stringify({ nonce, keyId, version, proof })
	});
	const said = (await answer.json()) as { cookie: string; expires: number; message: string; instead: string };
	return answer.ok
		? { ok: true, cookie: said.cookie, expires: said.expires }
		: { ok: false, message: said.message, instead: said.instead };
}

/** The name of the cookie by which the server knows the client; over HTTPS it has the prefix that browsers insist on. */
export function cookieName(url: string): string {
	return url.startsWith('https:') ? '__Host-otium-client' : 'otium-client';
}
