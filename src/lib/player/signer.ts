import { contentDigest, showNonce, signatureBase, signatureHeaders, type SignedRequest } from '$core/access';
import { deviceKey } from './device-key';

/** Signs what this page sends with the key of its browser. */
export class Signer {
	/** The server's; it says which when it is another. */
	mark = '';
	readonly #lane = base64url(crypto.getRandomValues(new Uint8Array(9)));
	#count = 0;

	constructor(private readonly keys: CryptoKeyPair) {}

	/** @param make whether to make a key where there is none yet */
	static async load(make: boolean): Promise<Signer | null> {
		const keys = await deviceKey(make);
		return keys && new Signer(keys);
	}

	/** SPKI in base64url. */
	async publicKey(): Promise<string> {
		return base64url(await crypto.subtle.exportKey('spki', this.keys.publicKey));
	}

	async headers(method: string, path: string, body: BufferSource): Promise<Record<string, string>> {
		// What stands behind a question mark is no part of what is signed.
		const { request, signature } = await this.#sign(method, path.split('?')[0], body);
		return signatureHeaders(request, signature);
	}

	/** For a stream, which is asked for without headers: the address with the signature in it. */
	async address(path: string): Promise<string> {
		const { request, signature } = await this.#sign('GET', path, new Uint8Array());
		return `${path}?${new URLSearchParams({ nonce: showNonce(request.nonce), signature })}`;
	}

	async #sign(method: string, path: string, body: BufferSource) {
		// Counted at once: two requests on their way to be signed never have the same number.
		const nonce = { mark: this.mark, lane: this.#lane, count: ++this.#count };
		const digest = contentDigest(base64(await crypto.subtle.digest('SHA-256', body)));
		const request: SignedRequest = { method, path, digest, nonce };
		const text = new TextEncoder().encode(signatureBase(request));
		const signature = await crypto.subtle.sign({ name: 'ECDSA', hash: 'SHA-256' }, this.keys.privateKey, text);
		return { request, signature: base64(signature) };
	}
}

function base64(bytes: ArrayBuffer | Uint8Array): string {
	return btoa(String.fromCharCode(...new Uint8Array(bytes)));
}

function base64url(bytes: ArrayBuffer | Uint8Array): string {
	return base64(bytes).replaceAll('+', '-').replaceAll('/', '_').replaceAll('=', '');
}
