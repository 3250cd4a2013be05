import { createHash, verify, type KeyObject } from 'node:crypto';
import { promisify } from 'node:util';
import { contentDigest, readSignature, signatureBase, type Nonce, type SignedRequest } from '$core/access';
import { publicKeyOf } from './public-key';
import { newToken } from './tokens';
import { latest } from '../latest';

/** Requests of one page overtake each other by no more than this many (as RFC 4303, 3.4.3, does for packets). */
const WINDOW = 64;
/** So many pages of one device are told apart; a device that is loaded anew more often counts from the start. */
const MOST_LANES = 16;

const verifyBeside = promisify(verify);

type Lane = { highest: number; seen: bigint };
type Counting = { mark: string; lanes: Map<string, Lane> };

/** `right`: with what was signed. `anew`: the request counts under an old mark and has to be signed again under this one. */
export type Checked =
	| { outcome: 'right'; digest: string; signature: string }
	| { outcome: 'wrong' }
	| { outcome: 'anew'; mark: string };
type Headers = (name: string) => string | null;

/** Checks that requests were signed by the device whose sign-in they come with, each of them once. */
export class RequestSignatures {
	/** By the sign-in. What a restart forgets is void by its mark. */
	#countings = latest<Counting>(20_000);
	#keys = latest<KeyObject>(20_000);

	/** @param publicKey as `readPublicKey` gave it */
	async check(signIn: string, publicKey: string, method: string, path: string, header: Headers): Promise<Checked> {
		const said = readSignature(header);
		if (!said) return { outcome: 'wrong' };
		const { digest, nonce, signature } = said;
		if (!(await this.#isRight(publicKey, { method, path, digest, nonce }, signature))) return { outcome: 'wrong' };
		// Only the device itself comes this far, so that nobody else fills its lanes. From here on nothing waits, so that of
		// two that come at once one is the first.
		const counting = this.#countingOf(signIn);
		if (nonce.mark !== counting.mark) return { outcome: 'anew', mark: counting.mark };
		const lane = counting.lanes.get(nonce.lane) ?? this.#newLane(signIn, counting, nonce.lane);
		if (lane === null) return { outcome: 'anew', mark: this.#countingOf(signIn).mark };
		return isFirst(lane, nonce) ? { outcome: 'right', digest, signature } : { outcome: 'wrong' };
	}

	#countingOf(signIn: string): Counting {
		const known = this.#countings.get(signIn);
		if (known) return known;
		const fresh = { mark: newToken().slice(0, 12), lanes: new Map() };
		this.#countings.set(signIn, fresh);
		return fresh;
	}

	/** null: there are too many, and all count anew. */
	#newLane(signIn: string, { lanes }: Counting, name: string): Lane | null {
		if (lanes.size >= MOST_LANES) {
			this.#countings.delete(signIn);
			return null;
		}
		const lane = { highest: 0, seen: 0n };
		lanes.set(name, lane);
		return lane;
	}

	/** Worked out beside the event loop: it takes a sixth of what saving an answer asks of the processor. */
	#isRight(publicKey: string, request: SignedRequest, signature: string): Promise<boolean> {
		let key = this.#keys.get(publicKey);
		if (!key) {
			key = publicKeyOf(publicKey);
			this.#keys.set(publicKey, key);
		}
		const text = Buffer.from(signatureBase(request));
		return verifyBeside('sha256', text, { key, dsaEncoding: 'ieee-p1363' }, Buffer.from(signature, 'base64'));
	}
}

/** Whether this count of the lane is seen for the first time; notes that it is. */
function isFirst(lane: Lane, { count }: Nonce): boolean {
	const ahead = count - lane.highest;
	if (ahead > 0) {
		lane.seen = ((ahead < WINDOW ? lane.seen << BigInt(ahead) : 0n) | 1n) & ((1n << BigInt(WINDOW)) - 1n);
		lane.highest = count;
		return true;
	}
	if (-ahead >= WINDOW) return false;
	const bit = 1n << BigInt(-ahead);
	if (lane.seen & bit) return false;
	lane.seen |= bit;
	return true;
}

/**
 * The public key that a browser has sent, SPKI in base64url, as it is kept; null: it is none on P-256.
 */
export function readPublicKey(sent: string): string | null {
	try {
		const key = publicKeyOf(sent);
		if (key.asymmetricKeyDetails?.namedCurve !== 'prime256v1') return null;
		return key.export({ format: 'der', type: 'spki' }).toString('base64url');
	} catch {
		return null;
	}
}

/** The value of `Content-Digest` for these bytes. */
export function digestOf(bytes: Uint8Array | string): string {
	return contentDigest(createHash('sha256').update(bytes).digest('base64'));
}
