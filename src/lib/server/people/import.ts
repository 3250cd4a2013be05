import type { FileRefused, ImportAsked } from '$core/people';
import type { Actor } from '$core/sitting';
import { localDate } from '$core/time';
import { transact } from '../db';
import { giveWay } from '../event-loop';
import type { House } from '../house';
import { appendToLogbook } from '../logbook';
import { knownPeople, NO_GROUP } from './known';
import { readPeople } from './read';
import type { CheckResult } from './reading';
import { writePeople } from './write';

type Importing = Pick<House, 'db' | 'now' | 'threads'>;

/** Reads a file and works out what it would do. Nothing is written. */
export async function checkImport(
	otium: Importing,
	name: string,
	bytes: Uint8Array,
	asked: ImportAsked
): Promise<CheckResult> {
	const people = await knownPeople(otium.db, asked.siteId);
	const groups: string[] = await otium
		.db('candidate_group')
		.where({ site_id: asked.siteId })
		.whereNot({ name: NO_GROUP })
		.pluck('name');
	const taken: string[] = await otium.db('candidate').pluck('number_folded');
	await giveWay();
	const { zone } = await otium.db('site').where({ id: asked.siteId }).first('zone');
	const today = localDate(otium.now(), zone);
	return readPeople(otium, name, bytes, { people, groups, taken, today }, asked);
}

export type Applied = { added: number; changed: number; left: number };
export type ApplyResult = { ok: true; applied: Applied } | { ok: false; refused: FileRefused };

/**
 * Does what was shown, all of it or nothing. Works the plan out anew first: when it is another by now, because somebody
 * changed people meanwhile, nothing is written.
 */
export async function applyImport(
	otium: Importing,
	by: Actor,
	name: string,
	bytes: Uint8Array,
	asked: ImportAsked,
	seal: string,
	told: (done: number, total: number) => void | Promise<void> = () => {}
): Promise<ApplyResult> {
	const again = await checkImport(otium, name, bytes, asked);
	if (!again.ok) return again;
	const { plan, format, sha256 } = again.checked;
	if (again.checked.seal !== seal)
		return {
			ok: false,
			refused: { message: 'People were changed since you looked. Check the file again, then import it.' }
		};
	if (plan.problems.length > 0)
		return {
			ok: false,
			refused: {
				message: 'Some rows can’t be read. Correct them, or leave them out of the file; nothing was imported.'
			}
		};
	const leave = asked.missing === 'leave';
	const now = otium.now();
	const applied = { added: plan.add.length, changed: plan.change.length, left: leave ? plan.missing.length : 0 };
	await transact(otium.db, async (trx) => {
		await writePeople(trx, asked.siteId, plan, leave, by, now, async (done, total) => {
			await told(done, total);
			await giveWay();
		});
		const body = { file: name.slice(0, 200), format, sha256, ...applied, groups: plan.newGroups };
		await appendToLogbook(trx, [{ at: now, by, kind: 'people_imported', body }]);
	});
	return { ok: true, applied };
}
