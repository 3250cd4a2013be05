import { nanoid } from 'nanoid';
import { changedBeneath, maySign, type Beneath } from '$core/closing';
import { fail } from '$core/problem';
import type { StaffMember } from '$core/access';
import { transact, type Query } from '../db';
import { digestOf } from '../digest';
import type { House } from '../house';
import { appendToLogbook, type NewEntry } from '../logbook';
import { beneathOf } from './beneath';
import { standingOf } from './standing';

type Needs = Pick<House, 'db' | 'now' | 'threads' | 'dataDir'>;

/** What a coordinator states by signing. */
export const STATEMENT =
	'I have read the ledger of this site. Everyone who was expected is accounted for, every incident is decided, and the results are as they were reached.';

/**
 * Signs for a site.
 * @param read what lay beneath when it was read (`readBeneath`): nothing is signed that was not read
 * @throws ProblemError while something is open, and when something has changed since it was read
 */
export async function signOff(
	otium: Needs,
	staff: StaffMember,
	by: NewEntry['by'],
	administrationId: string,
	siteId: string,
	read: Partial<Beneath> | null = null
): Promise<void> {
	const standing = await standingOf(otium, administrationId, staff);
	if (!standing?.sites.some(({ id }) => id === siteId)) fail('not_found');
	if (!maySign(standing.gates, siteId)) {
		const open = standing.gates.find(
			(gate) => !gate.isSettled && gate.key !== 'signed' && [siteId, null].includes(gate.siteId)
		)!;
		fail('not_taken', {
			message: `Not everything is settled: ${open.words}.`,
			instead: open.who.length > 0 ? `${open.who.join(' or ')} can settle it.` : 'Look at the gates again.'
		});
	}
	const at = otium.now();
	await transact(otium.db, async (trx) => {
		const beneath = await beneathOf(trx, administrationId, siteId);
		const changed = read === null ? [] : changedBeneath(read, beneath);
		if (changed.length > 0)
			fail('not_taken', {
				message: `Since you read it, this has changed: ${changed.join(', ')}.`,
				instead: 'Read it again, and sign then.'
			});
		await trx('sign_off')
			.where({ administration_id: administrationId, site_id: siteId })
			.whereNull('withdrawn_at')
			.update({ withdrawn_at: at });
		await trx('sign_off').insert({
			id: nanoid(),
			administration_id: administrationId,
			site_id: siteId,
			statement: STATEMENT,
			beneath: JSON.stringify(beneath),
			by: by.id,
			at
		});
		await appendToLogbook(trx, [
			{
				at,
				by,
				kind: 'site_signed',
				body: { administrationId, siteId, statement: STATEMENT, beneath: digestOf(beneath) }
			}
		]);
	});
}

/** What lies beneath each site's signature now, for whoever reads it before signing. */
export async function readBeneath(
	db: Query,
	administrationId: string,
	siteIds: string[]
): Promise<Record<string, Beneath>> {
	const parts = await Promise.all(siteIds.map(async (id) => [id, await beneathOf(db, administrationId, id)] as const));
	return Object.fromEntries(parts);
}

/** Takes a signature back before the closing. */
export async function takeSignatureBack(
	otium: Needs,
	by: NewEntry['by'],
	administrationId: string,
	siteId: string
): Promise<void> {
	const at = otium.now();
	await transact(otium.db, async (trx) => {
		const taken = await trx('sign_off')
			.where({ administration_id: administrationId, site_id: siteId })
			.whereNull('withdrawn_at')
			.update({ withdrawn_at: at });
		if (taken > 0) await appendToLogbook(trx, [{ at, by, kind: 'site_unsigned', body: { administrationId, siteId } }]);
	});
}
