import type { Page } from '@playwright/test';

/** A request made by hand on a candidate's own page, signed with the key of its browser as the page itself does. */
export function signedFetch(
	page: Page,
	method: 'GET' | 'POST',
	path: string,
	body?: unknown
): Promise<{ status: number; body: { code?: string; mark?: string } & Record<string, unknown> }> {
	return page.evaluate(
		async ([method, path, text]) => {
			const db = await new Promise<IDBDatabase>((resolve) => {
				const opening = indexedDB.open('otium-device');
				opening.onsuccess = () => resolve(opening.result);
			});
			const keys = await new Promise<CryptoKeyPair>((resolve) => {
				const getting = db.transaction('key').objectStore('key').getAll();
				getting.onsuccess = () => resolve(getting.result[0]);
			});
			db.close();
			const base64 = (bytes: ArrayBuffer) => btoa(String.fromCharCode(...new Uint8Array(bytes)));
			const lane = `hand${Math.floor(Math.random() * 1e9)}`;
			const digest = `sha-256=:${base64(await crypto.subtle.digest('SHA-256', new TextEncoder().encode(text)))}:`;
			const send = async (mark: string, count: number) => {
				const params = `("@method" "@path" "content-digest");nonce="${mark}.${lane}.${count}";alg="ecdsa-p256-sha256"`;
				const base = `"@method": ${method}\n"@path": ${path}\n"content-digest": ${digest}\n"@signature-params": ${params}`;
				const by = { name: 'ECDSA', hash: 'SHA-256' };
				const signature = base64(await crypto.subtle.sign(by, keys.privateKey, new TextEncoder().encode(base)));
				const answer = await fetch(path, {
					method,
					body: method === 'GET' ? undefined : text,
					headers: {
						'content-type': 'application/json',
						'content-digest': digest,
						'signature-input': `otium=${params}`,
						signature: `otium=:${signature}:`
					}
				});
				return { status: answer.status, body: await answer.json() };
			};
			const first = await send('', 1);
			return first.body.code === 'sign_anew' ? send(first.body.mark, 2) : first;
		},
		[method, path, body === undefined ? '' : JSON.stringify(body)] as const
	);
}
