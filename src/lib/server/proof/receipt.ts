import { createPrivateKey, createPublicKey, type KeyObject } from 'node:crypto';
import { CompactSign, compactVerify } from 'jose';
import type { ReceiptVerdict } from '$core/closing';
import { keyFor, type Query } from '../db';
import { answersGone } from '../records';
import { loadSitting, workOf } from '../sitting';

/** What a receipt says, and the house signs. */
type Receipt = {
	receipt: string;
	/** Whose, without a name: the number that is on their card. */
	number: string;
	sitting: string;
	paper: string;
	version: number;
	/** ISO 8601. */
	at: string;
	/** How many answers were handed in, and the digest of them; null: handed in before digests were kept. */
	answers: number | null;
	digest: string | null;
};

const TYPE = 'otium-receipt';
/** What stands before the 32 bytes of a private Ed25519 key in PKCS #8 (RFC 8410, section 7). */
const PKCS8_ED25519 = Buffer.from('302e020100300506032b657004220420', 'hex');

export function privateKey(db: Query): KeyObject {
	const key = Buffer.concat([PKCS8_ED25519, keyFor(db, 'receipts').export()]);
	return createPrivateKey({ key, format: 'der', type: 'pkcs8' });
}

/** The public half, as PEM: whoever has it can check a receipt of this house without it. */
export function receiptKey(db: Query): string {
	return createPublicKey(privateKey(db)).export({ format: 'pem', type: 'spki' }).toString();
}

/** The receipt of a sitting that has ended, signed by the house (JWS, RFC 7515, with EdDSA, RFC 8037); null: it has not. */
export async function signedReceipt(db: Query, sittingId: string, now: number): Promise<string | null> {
	const one = await loadSitting(db, sittingId, now);
	if (!one?.sitting.ended) return null;
	const { receipt, at, work } = one.sitting.ended;
	const { title, version } = (await db('paper').where({ id: one.paperId }).first('title', 'version'))!;
	const said: Receipt = {
		receipt,
		number: one.candidate.number,
		sitting: sittingId,
		paper: title,
		version,
		at: new Date(at).toISOString(),
		answers: work?.answers ?? null,
		digest: work?.digest ?? null
	};
	return new CompactSign(Buffer.from(JSON.stringify(said)))
		.setProtectedHeader({ alg: 'EdDSA', typ: TYPE })
		.sign(privateKey(db));
}

/** Looks whether a text holds a receipt of this house, and whether what is kept is still what was handed in. */
export async function verifyReceipt(db: Query, text: string): Promise<ReceiptVerdict> {
	// Both of its first parts are JSON objects, which in base64url begin so; a mail program may have broken the line.
	const [jws] = /eyJ[\w-]*\.eyJ[\w-]*\.[\w-]{86}/.exec(text.replace(/\s+/g, '')) ?? [];
	const said = jws ? await readReceipt(db, jws) : null;
	if (!said) return { isOurs: false };
	const { receipt, number, sitting, paper, version, at, answers } = said;
	const shown = { isOurs: true as const, receipt, number, paper, version, at, answers };
	const owner = await db('sitting').where({ id: sitting }).first('administration_id');
	if (owner && (await answersGone(db, owner.administration_id))) return { ...shown, now: 'deleted' };
	const kept = (await workOf(db, [sitting])).get(sitting)!;
	if (said.digest === null) return { ...shown, now: 'not_kept' };
	if (kept.digest === said.digest) return { ...shown, now: 'same' };
	return { ...shown, now: (await wentOn(db, said)) ? 'went_on' : 'changed' };
}

async function readReceipt(db: Query, jws: string): Promise<Receipt | null> {
	try {
		const key = createPublicKey(privateKey(db));
		const { payload, protectedHeader } = await compactVerify(jws, key, { algorithms: ['EdDSA'] });
		return protectedHeader.typ === TYPE ? JSON.parse(new TextDecoder().decode(payload)) : null;
	} catch {
		return null;
	}
}

/** After this hand-in the work was reopened, answers kept aside were let count, or a scan was added: the logbook says so. */
async function wentOn(db: Query, { sitting, receipt }: Receipt): Promise<boolean> {
	const entries: { kind: string; body: string }[] = await db('logbook')
		.where({ sitting_id: sitting })
		.orderBy('seq')
		.select('kind', 'body');
	const handedIn = entries.findIndex((entry) => (JSON.parse(entry.body) as { receipt?: string }).receipt === receipt);
	return (
		handedIn >= 0 &&
		entries
			.slice(handedIn + 1)
			.some(({ kind }) =>
				['reopened', 'continued_later', 'answers_counted', 'scan_added', 'typed_from_paper'].includes(kind)
			)
	);
}
