import { rm } from 'node:fs/promises';
import { join } from 'node:path';
import { rolesFor, type StaffMember } from '$core/access';
import { SUPERVISING_ENTRIES } from '$core/closing';
import { fail } from '$core/problem';
import { archivesIn, sealArchive } from '../archive';
import { transact, type Query } from '../db';
import { digestOf } from '../digest';
import type { House } from '../house';
import { sharedBy } from '../identity';
import { appendToLogbook, type NewEntry } from '../logbook';
import { headOf } from '../proof';
import { figuresToKeep, keepFigures } from './keep-figures';
import { standingOf, type Standing } from './standing';

type Needs = Pick<House, 'db' | 'now' | 'threads' | 'dataDir'>;

/** What becomes final, and how it stood when somebody read it. */
export type Closable = {
	standing: Standing;
	/** Changes with anything that the reader was shown. */
	basis: string;
	/** null: it can be closed by this person; else why not, and who can do what about it. */
	objection: { message: string; instead: string } | null;
	/** This person has closed, and another has to as well. */
	waitsForSecond: { by: string; at: number } | null;
	needsSecond: boolean;
};

/** Whether this person can close an administration now, and all that would come of it. Nothing changes: the rehearsal of it. */
export async function closable(otium: Needs, staff: StaffMember, administrationId: string): Promise<Closable> {
	const standing = await standingOf(otium, administrationId, staff);
	if (!standing) fail('not_found');
	const wish = await wishOf(otium.db, administrationId);
	return {
		standing,
		basis: basisOf(standing),
		objection: await objectionTo(otium.db, standing, wish?.by === staff.id),
		waitsForSecond: wish ? { by: wish.name, at: wish.at } : null,
		needsSecond: await hasSupervised(otium.db, administrationId, staff.id)
	};
}

function basisOf({ gates, ledger, results, answers, signOffs, alsoCloses }: Standing): string {
	return digestOf([gates, ledger, results, answers, signOffs, alsoCloses]);
}

async function objectionTo(db: Query, standing: Standing, isFirst: boolean): Promise<Closable['objection']> {
	if (standing.closed) return { message: 'It is closed already.', instead: 'Read it under Archive.' };
	const sites = await db('session')
		.join('room', 'room.id', 'session.room_id')
		.where({ administration_id: standing.administration.id })
		.countDistinct<{ n: number }[]>('room.site_id as n');
	if (Number(sites[0].n) === 0) return { message: 'It has no session.', instead: 'There is nothing to close.' };
	if (Number(sites[0].n) > standing.sites.length)
		return { message: 'You do not see all of its sites.', instead: 'A closing officer of all sites closes.' };
	const open = standing.gates.filter(({ isSettled }) => !isSettled);
	if (open.length > 0) {
		const who = [...new Set(open.flatMap(({ who }) => who))];
		return {
			message: `${open.length} ${open.length === 1 ? 'gate is' : 'gates are'} open: ${open.map(({ words }) => words).join('; ')}.`,
			instead:
				who.length > 0 ? `${who.join(', ')} can settle ${open.length === 1 ? 'it' : 'them'}.` : 'Look at the gates.'
		};
	}
	if (isFirst)
		return {
			message: 'You have closed it, and another person has to as well.',
			instead: 'Ask another closing officer or a coordinator of all sites.'
		};
	return null;
}

/**
 * Somebody who supervised one of its sessions, or a window of somebody’s own in it: by what the record says that they did
 * there, and also where they are named and have done nothing yet.
 */
async function hasSupervised(db: Query, administrationId: string, staffId: string): Promise<boolean> {
	const sessions = db('session').where({ administration_id: administrationId }).select('id');
	const did = await db('logbook')
		.whereIn('session_id', sessions)
		.whereIn('kind', SUPERVISING_ENTRIES)
		.where({ actor_id: staffId })
		.whereIn('actor_role', ['proctor', 'coordinator'])
		.first('seq');
	if (did) return true;
	const named = await db('session_proctor')
		.where({ staff_id: staffId })
		.whereIn('session_id', sessions)
		.first('staff_id');
	const beside = await db('grant_given')
		.where({ proctor_id: staffId, scope_kind: 'session', withdrawn_at: null })
		.whereIn('scope_id', sessions)
		.first('id');
	return Boolean(named ?? beside);
}

export type Closed = { state: 'closed'; archive: string } | { state: 'waits' };

/**
 * Closes for good: every result is final, nothing of it changes any more, and all of it lies in a sealed archive. The
 * archive is written first. Only when it is on the disk, and nothing has changed meanwhile, does one transaction close: at
 * whatever step the machine fails, the administration is either open as before or closed with its archive.
 * @param basis of what the closer read
 */
export async function close(
	otium: Needs,
	staff: StaffMember,
	by: NewEntry['by'],
	administrationId: string,
	basis: string
): Promise<Closed> {
	const { standing, basis: now, objection, needsSecond } = await closable(otium, staff, administrationId);
	if (objection) fail('refused', objection);
	if (now !== basis) fail('changed_since_read');
	const { db } = otium;
	const first = await wishOf(db, administrationId);
	if (needsSecond && !first) return wish(otium, by, administrationId);
	const shares = first ? await sharedBy(db, first.by, staff.id) : [];
	const at = otium.now();
	const before = await headOf(db, at);
	await mustNotGoBack(db, at);
	const kept = await figuresToKeep(otium, administrationId, at);
	const names: { id: string; name: string }[] = await db('staff').whereIn('id', [staff.id, first?.by ?? '']);
	const nameOf = (id: string) => names.find((one) => one.id === id)?.name ?? id;
	const sealed = await sealArchive(otium, {
		administration: { id: administrationId, name: standing.administration.name },
		at,
		closedBy: nameOf(first?.by ?? staff.id),
		second: first ? nameOf(staff.id) : null,
		counts: { results: standing.results, answers: standing.answers }
	});
	try {
		await transact(db, async (trx) => {
			// What was written meanwhile is not in the archive; what concerns other administrations need not be.
			if (await hasChanged(trx, administrationId, before.entries)) fail('changed_since_read');
			await appendToLogbook(trx, [
				{
					at,
					by,
					kind: 'administration_closed',
					body: {
						administrationId,
						archive: sealed.sha256,
						bytes: sealed.bytes,
						head: sealed.manifest.head.hash,
						first: first?.by ?? null,
						...(shares.length > 0 && { shares })
					}
				}
			]);
			await keepFigures(trx, kept);
			// The last write: from here on the database itself refuses every other to this administration.
			await trx('closing').insert({
				administration_id: administrationId,
				at,
				by: first?.by ?? staff.id,
				second: first ? staff.id : null,
				archive: sealed.name,
				sha256: sealed.sha256,
				bytes: sealed.bytes,
				counts: JSON.stringify(sealed.manifest.counts),
				head: sealed.manifest.head.hash
			});
		});
	} catch (error) {
		await rm(join(archivesIn(otium.dataDir), sealed.name), { force: true });
		throw error;
	}
	return { state: 'closed', archive: sealed.sha256 };
}

/** A clock that was set back would date the closing before what it closes. */
async function mustNotGoBack(db: Query, at: number): Promise<void> {
	const last: { at: number } | undefined = await db('logbook').orderBy('seq', 'desc').first('at');
	if (last && at < last.at)
		fail('refused', {
			message: 'The server’s clock is behind the last entry of the logbook.',
			instead: 'Set the server’s clock right, then close.'
		});
}

/** Whether something of this administration was written after that entry: it is not in the archive. */
async function hasChanged(db: Query, administrationId: string, entries: number): Promise<boolean> {
	const sessions = db('session').where({ administration_id: administrationId }).select('id');
	const sittings = db('sitting').where({ administration_id: administrationId }).select('id');
	const entry = await db('logbook')
		.where('seq', '>', entries)
		.where((any) =>
			any
				.whereIn('session_id', sessions)
				.orWhereIn('sitting_id', sittings)
				.orWhere('body', 'like', `%"administrationId":"${administrationId}"%`)
		)
		.first('seq');
	return entry !== undefined;
}

type Wish = { by: string; name: string; at: number };

/** Who has closed and waits for a second; undefined: nobody, or somebody who may not close any more. */
async function wishOf(db: Query, administrationId: string): Promise<Wish | undefined> {
	const wish: Wish | undefined = await db('closing_wish')
		.join('staff', 'staff.id', 'closing_wish.by')
		.where({ administration_id: administrationId })
		.whereIn(
			'closing_wish.by',
			db('staff_role').whereIn('role', rolesFor('close')).whereNull('site_id').select('staff_id')
		)
		.first('closing_wish.by', 'staff.name', 'at');
	return wish;
}

/** The first of two: whoever supervised some of it does not close alone. */
async function wish(otium: Needs, by: NewEntry['by'], administrationId: string): Promise<Closed> {
	const at = otium.now();
	await transact(otium.db, async (trx) => {
		await trx('closing_wish')
			.insert({ administration_id: administrationId, by: by.id, at })
			.onConflict('administration_id')
			.merge();
		await appendToLogbook(trx, [{ at, by, kind: 'closing_asked', body: { administrationId } }]);
	});
	return { state: 'waits' };
}
