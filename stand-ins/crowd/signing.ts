import { createHash, createPrivateKey, createPublicKey, generateKeyPairSync, randomBytes, sign } from 'node:crypto';
import { contentDigest, showNonce, signatureBase, signatureHeaders } from '../../src/core/access';

/** A device that comes back counts under a lane of its own. */
const newLane = () => randomBytes(9).toString('base64url');

/** A simulated device's key, with which it signs what it sends as a browser does. */
export class DeviceKey {
	/** The server's; it says which when it is another. */
	mark = '';
	#count = 0;
	readonly #lane = newLane();
	readonly #key;

	/** @param kept what `kept` said of a device that comes back */
	constructor(kept?: string) {
		this.#key = kept
			? createPrivateKey({ key: Buffer.from(kept, 'base64url'), format: 'der', type: 'pkcs8' })
			: generateKeyPairSync('ec', { namedCurve: 'P-256' }).privateKey;
	}

	/** By which a device that comes back has the same key. */
	get kept(): string {
		return this.#key.export({ format: 'der', type: 'pkcs8' }).toString('base64url');
	}

	/** SPKI in base64url. */
	get publicKey(): string {
		return createPublicKey(this.#key).export({ format: 'der', type: 'spki' }).toString('base64url');
	}

	headers(method: string, path: string, body: string): Record<string, string> {
		const nonce = { mark: this.mark, lane: this.#lane, count: ++this.#count };
		const digest = contentDigest(createHash('sha256').update(body).digest('base64'));
		const request = { method, path, digest, nonce };
		const text = Buffer.from(signatureBase(request));
		const signature = sign('sha256', text, { key: this.#key, dsaEncoding: 'ieee-p1363' }).toString('base64');
		return signatureHeaders(request, signature);
	}

	/** For a stream, which is asked for without headers: the address with the signature in it. */
	address(path: string): string {
		const { signature } = this.headers('GET', path, '');
		const nonce = showNonce({ mark: this.mark, lane: this.#lane, count: this.#count });
		return `${path}?${new URLSearchParams({ nonce, signature: signature.slice('otium=:'.length, -1) })}`;
	}
}
