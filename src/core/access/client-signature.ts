/**
 * What a sealed client adds to each request of a sitting: a second HTTP message signature (RFC 9421) beside the one of
 * the browser in it, over the method, the path, the digest of the body and the browser's own signature, with Ed25519. So
 * it stands for this request of this sitting and for no other, once. The version of the client is part of what is signed.
 */
export type ClientSigned = {
	method: string;
	path: string;
	/** The value of `Content-Digest`. */
	digest: string;
	/** The browser's signature, in base64. */
	browser: string;
	/** By which the house knows the device. */
	device: string;
	version: string;
};

const COVERED = '("@method" "@path" "content-digest" "signature";key="otium")';

/** The bytes that are signed, as text (RFC 9421, 2.5). */
export function clientSignatureBase(signed: ClientSigned): string {
	return [
		`"@method": ${signed.method}`,
		`"@path": ${signed.path}`,
		`"content-digest": ${signed.digest}`,
		`"signature";key="otium": :${signed.browser}:`,
		`"@signature-params": ${paramsOf(signed)}`
	].join('\n');
}

/** What stands behind the browser's own, in `Signature-Input` and in `Signature`. @param signature in base64 */
export function clientSignatureParts(signed: ClientSigned, signature: string): { input: string; signature: string } {
	return { input: `client=${paramsOf(signed)}`, signature: `client=:${signature}:` };
}

/** What the headers say of a client, if they say it as ours do; null: they do not. */
export function readClientSignature(
	header: (name: string) => string | null
): (Pick<ClientSigned, 'device' | 'version'> & { signature: string }) | null {
	const [, input] = /(?:^|, )client=(\(.*)$/.exec(header('signature-input') ?? '') ?? [];
	const [, signature] = /(?:^|, )client=:([A-Za-z0-9+/]{86}==):$/.exec(header('signature') ?? '') ?? [];
	const [, device, version] = /;keyid="([\w-]{1,40})";tag="otium-client\/([\d.]{1,20})"/.exec(input ?? '') ?? [];
	if (!signature || !device || !version || input !== paramsOf({ device, version })) return null;
	return { device, version, signature };
}

function paramsOf({ device, version }: Pick<ClientSigned, 'device' | 'version'>): string {
	return `${COVERED};keyid="${device}";tag="otium-client/${version}";alg="ed25519"`;
}
