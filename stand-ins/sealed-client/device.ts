import { createHash, createPrivateKey, createPublicKey, generateKeyPairSync, sign, type KeyObject } from 'node:crypto';
import { clientSignatureBase, clientSignatureParts, contentDigest } from '../../src/core/access';

/** What this client says it is. */
export const CLIENT_VERSION = '2.1';

export type Proof = { ok: true; cookie: string; expires: number } | { ok: false; message: string; instead: string };
type Refused = { message: string; instead: string };

/** The device that a sealed client runs on: a key that it has made itself, and by which name the house knows it. */
export class ClientDevice {
	private constructor(
		private readonly url: string,
		readonly id: string,
		private readonly key: KeyObject,
		readonly version: string
	) {}

	/**
	 * Makes a key and enrols with it.
	 * @param code as staff were shown it
	 * @throws Error with the server's words
	 */
	static async enrol(url: string, code: string, name: string, version = CLIENT_VERSION): Promise<ClientDevice> {
		const { privateKey, publicKey } = generateKeyPairSync('ed25519');
		const sent = publicKey.export({ format: 'der', type: 'spki' }).toString('base64url');
		const answer = await post(`${url}/sit/api/enrol`, { code, name, publicKey: sent });
		const said = (await answer.json()) as { deviceId: string } & Refused;
		if (!answer.ok) throw new Error(`${said.message} ${said.instead}`);
		return new ClientDevice(url, said.deviceId, privateKey, version);
	}

	/** The same device another time. @param kept what `kept` was */
	static of(url: string, kept: string, version = CLIENT_VERSION): ClientDevice {
		const { id, key } = JSON.parse(kept) as { id: string; key: string };
		const der = Buffer.from(key, 'base64url');
		return new ClientDevice(url, id, createPrivateKey({ key: der, format: 'der', type: 'pkcs8' }), version);
	}

	/** What the device keeps of itself, for nobody else. */
	get kept(): string {
		const key = this.key.export({ format: 'der', type: 'pkcs8' }).toString('base64url');
		return JSON.stringify({ id: this.id, key });
	}

	/** SPKI in base64url. */
	get publicKey(): string {
		return createPublicKey(this.key).export({ format: 'der', type: 'spki' }).toString('base64url');
	}

	/** Asks the server for a challenge and signs it, as the client does at the door. */
	async prove(): Promise<Proof> {
		const challenge = await post(`${this.url}/sit/api/challenge`);
		if (!challenge.ok) return { ok: false, ...((await challenge.json()) as Refused) };
		const { nonce } = (await challenge.json()) as { nonce: string };
		const { id: device, version } = this;
		const signature = sign(null, Buffer.from(`${nonce}.${version}`), this.key).toString('base64');
		const answer = await post(`${this.url}/sit/api/prove`, { nonce, device, version, signature });
		const said = (await answer.json()) as { cookie: string; expires: number } & Refused;
		return answer.ok ? { ok: true, cookie: said.cookie, expires: said.expires } : { ok: false, ...said };
	}

	/**
	 * The headers of a request that the browser has signed, with this client's signature behind.
	 * @param browser the browser's headers, in small letters; of a stream, which has none, its address says the same
	 */
	sign(method: string, address: URL, browser: Record<string, string>): Record<string, string> {
		const own = /^otium=:([^:]+):$/.exec(browser.signature ?? '')?.[1] ?? address.searchParams.get('signature');
		if (!own) return browser;
		const digest = browser['content-digest'] ?? contentDigest(createHash('sha256').update('').digest('base64'));
		const signed = {
			method,
			path: address.pathname,
			digest,
			browser: own,
			device: this.id,
			version: this.version
		};
		const text = Buffer.from(clientSignatureBase(signed));
		const parts = clientSignatureParts(signed, sign(null, text, this.key).toString('base64'));
		const behind = (before: string | undefined, part: string) => (before ? `${before}, ${part}` : part);
		return {
			...browser,
			'signature-input': behind(browser['signature-input'], parts.input),
			signature: behind(browser.signature, parts.signature)
		};
	}
}

function post(address: string, body: unknown = {}): Promise<Response> {
	return fetch(address, {
		method: 'POST',
		headers: { 'content-type': 'application/json' },
		body: JSON.stringify(body)
	});
}

/** The name of the cookie by which the server knows the client at the door. */
export function cookieName(url: string): string {
	return url.startsWith('https:') ? '__Host-otium-client' : 'otium-client';
}
