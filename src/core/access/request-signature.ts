/**
 * What a candidate's browser signs of each request: an HTTP message signature (RFC 9421) over the method, the path and
 * the digest of the body (RFC 9530), with ECDSA on P-256 and SHA-256, so that a request that was copied or changed is
 * worth nothing, and neither is the cookie alone.
 */
export type SignedRequest = {
	method: string;
	/** Without a query. */
	path: string;
	/** The value of `Content-Digest`. */
	digest: string;
	nonce: Nonce;
};

/**
 * Which request of a device it is. `mark`: the server's own, anew at each start, so that nothing that was signed before
 * holds after it. `lane`: the page that counts. `count`: from 1, each once.
 */
export type Nonce = { mark: string; lane: string; count: number };

const COVERED = '("@method" "@path" "content-digest")';
/** Under which label the signature goes in both headers. */
const LABEL = 'otium';
const MOST_COUNT = 2 ** 40;

/** The bytes that are signed, as text (RFC 9421, 2.5). */
export function signatureBase({ method, path, digest, nonce }: SignedRequest): string {
	return [
		`"@method": ${method}`,
		`"@path": ${path}`,
		`"content-digest": ${digest}`,
		`"@signature-params": ${paramsOf(nonce)}`
	].join('\n');
}

/** The headers of a signed request. @param signature in base64 */
export function signatureHeaders({ digest, nonce }: SignedRequest, signature: string): Record<string, string> {
	return {
		'content-digest': digest,
		'signature-input': `${LABEL}=${paramsOf(nonce)}`,
		signature: `${LABEL}=:${signature}:`
	};
}

/** The value of `Content-Digest` for a body whose SHA-256 is this, in base64. */
export const contentDigest = (sha256: string) => `sha-256=:${sha256}:`;

/** What the headers say, if they say it as ours do; null: they do not. The signature in base64. */
export function readSignature(
	header: (name: string) => string | null
): { digest: string; nonce: Nonce; signature: string } | null {
	const digest = header('content-digest') ?? '';
	// A sealed client puts its own behind.
	const [input] = (header('signature-input') ?? '').split(', client=');
	const [own] = (header('signature') ?? '').split(', client=');
	const [, signature] = /^otium=:([A-Za-z0-9+/]{86}==):$/.exec(own) ?? [];
	const nonce = readNonce(/;nonce="([^"]{1,120})"/.exec(input)?.[1] ?? '');
	// Nothing else may be said to be covered: what was not signed is not believed.
	if (!nonce || !signature || input !== `${LABEL}=${paramsOf(nonce)}`) return null;
	return /^sha-256=:[A-Za-z0-9+/]{43}=:$/.test(digest) ? { digest, nonce, signature } : null;
}

export const showNonce = ({ mark, lane, count }: Nonce) => `${mark}.${lane}.${count}`;

export function readNonce(text: string): Nonce | null {
	const [, mark, lane, digits] = /^([\w-]{0,24})\.([\w-]{1,24})\.(\d{1,13})$/.exec(text) ?? [];
	const count = Number(digits);
	return digits !== undefined && count >= 1 && count < MOST_COUNT && String(count) === digits
		? { mark, lane, count }
		: null;
}

function paramsOf(nonce: Nonce): string {
	return `${COVERED};nonce="${showNonce(nonce)}";alg="ecdsa-p256-sha256"`;
}
