import { counted } from '$core/names';
import type { StaffMember } from '$core/access';
import type { Audience } from '$core/bank';
import { fail } from '$core/problem';
import type { Told } from '$core/qti';
import type { Actor } from '$core/sitting';
import { contentsFound, fateOf, keepInBank, writerOf, type BankAsk, type Fate } from '../bank';
import { transact } from '../db';
import { inParts } from '../event-loop';
import type { House, Writing } from '../house';
import { appendToLogbook } from '../logbook';
import { MOST_BANKED } from './bank-file';
import { bankPackageOf, readBankQti } from './qti-package';
import { MOST_DOCUMENT_BYTES } from './read-document';

/** So many are kept before others get a turn. */
const AT_ONCE = 100;

/**
 * What a search of the bank finds as one file, for another house or another system.
 * @throws ProblemError not_found, or not_taken: more than a file holds
 */
export async function bankFile(
	otium: Pick<House, 'threads' | 'db' | 'dataDir'>,
	staff: StaffMember,
	ask: BankAsk
): Promise<Uint8Array> {
	const contents = await contentsFound(otium.db, writerOf(staff), ask, MOST_BANKED);
	if (contents?.length === 0) fail('not_found', { message: 'There is no question to export.' });
	const bytes = contents && (await bankPackageOf(otium, contents));
	if (!bytes || bytes.length > MOST_DOCUMENT_BYTES)
		fail('not_taken', {
			message: bytes
				? 'With its pictures and sound this is more than the 10 MB that one file may have.'
				: `One file holds at most ${counted(MOST_BANKED, 'question')}, and this is more.`,
			instead: 'Narrow the list, by topic for instance, and export it in parts.'
		});
	return bytes;
}

/** What a file would bring: how many of its questions are new, changed, there already, and somebody else's. */
export type BankIncoming = Record<Fate, number> & { told: Told[] };
type Reading = Writing & Pick<House, 'threads' | 'dataDir'>;

/** Says what taking a file into the bank would come to. Nothing is kept. @throws ProblemError not_taken, in words */
export async function foreseeBankFile(otium: Reading, staff: StaffMember, bytes: Uint8Array): Promise<BankIncoming> {
	const { questions, told } = await readBankQti(otium, bytes, null);
	const incoming: BankIncoming = { new: 0, changed: 0, same: 0, not_yours: 0, told };
	for await (const part of inParts(questions, AT_ONCE))
		for (const question of part) incoming[(await fateOf(otium.db, question, writerOf(staff)))[0]]++;
	return incoming;
}

/**
 * Takes a file's questions into the bank: new ones as this person's, changed ones as their latest revision. What is
 * somebody else's stays as it is.
 * @throws ProblemError not_taken, in words
 */
export async function takeBankFile(
	otium: Reading,
	staff: StaffMember,
	by: Actor,
	bytes: Uint8Array,
	{ siteId, audience }: { siteId: string | null; audience: Audience }
): Promise<{ added: number; changed: number; told: Told[] }> {
	const { questions, told } = await readBankQti(otium, bytes, { staffId: staff.id });
	const sum = { added: 0, changed: 0 };
	const keeping = { at: otium.now(), writer: writerOf(staff), siteId, audience };
	for await (const part of inParts(questions, AT_ONCE)) {
		const kept = await transact(otium.db, (trx) => keepInBank(trx, part, keeping));
		sum.added += kept.added;
		sum.changed += kept.changed;
	}
	await transact(otium.db, (trx) =>
		appendToLogbook(trx, [{ at: otium.now(), by, kind: 'bank_file_taken', body: sum }])
	);
	return { ...sum, told };
}
