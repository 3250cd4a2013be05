import { effectInWords, grantInWords, type Grant } from '$core/grants';
import type { Actor } from '$core/sitting';
import { transact, type Query } from '../db';
import { appendToLogbook } from '../logbook';
import type { Acting } from '../house';
import { loadSittings, ofOpenAdministrations, refreshDerivedColumns, regrant, type Loaded } from '../sitting';
import { draftGrant, findGrant, insertGrants, type NewGrant } from '../records';

/** What somebody's time comes to, in one line. */
export function effectWordsOf({ session, merge, reckoning, sitting }: Loaded): string {
	const endedAt = sitting.ended?.at ?? null;
	return effectInWords(session.rules.timing, merge.grants, { reckoning, endedAt }, session.site.zone);
}

/**
 * The sittings that a grant concerns, those that went on in another session included: what was given to them here goes
 * with them. Handed in counts as well, because minutes may be given before it is reopened; what is closed does not.
 */
export async function reachedBy(db: Query, grant: Pick<NewGrant, 'candidateId' | 'scope'>): Promise<string[]> {
	const query = db('sitting').whereNot('state', 'set_aside').modify(ofOpenAdministrations(db));
	const { scope } = grant;
	if (grant.candidateId !== null) query.where({ candidate_id: grant.candidateId });
	if (scope.kind === 'session') {
		const expected = db('roster').where({ session_id: scope.id }).select('sitting_id');
		query.where((any) => any.where({ session_id: scope.id }).orWhereIn('id', expected));
	}
	if (scope.kind === 'paper') query.where({ paper_id: scope.id });
	if (scope.kind === 'administration') query.where({ administration_id: scope.id });
	return query.pluck('id');
}

export type Given = { id: string; effects: { sittingId: string; after: string }[] };

/**
 * Gives it. Time in every sitting that it reaches is worked out anew in the same transaction, and told after the commit.
 * @param id the asker's own id for it: the same grant sent twice is given once, and answered as the first time
 */
export async function giveGrant(otium: Acting, by: Actor, id: string, grant: NewGrant): Promise<Given> {
	const [given] = await giveGrants(otium, by, [{ id, grant }]);
	return given;
}

/** Gives several at once: all of them or, when something fails, none. */
export async function giveGrants(otium: Acting, by: Actor, asked: { id: string; grant: NewGrant }[]): Promise<Given[]> {
	const told: Loaded[] = [];
	const given = await transact(otium.db, (trx) => giveGrantsIn(trx, by, asked, otium.now(), told));
	tellOf(otium, told);
	return given;
}

/** The same within a transaction that does more. Call `tellOf` with `told` after the commit. */
export async function giveGrantsIn(
	trx: Query,
	by: Actor,
	asked: { id: string; grant: NewGrant }[],
	now: number,
	told: Loaded[]
): Promise<Given[]> {
	const given: Given[] = [];
	for (const { id, grant } of asked) {
		const { effects, reached } = await giveIn(trx, by, id, grant, now);
		given.push({ id, effects });
		told.push(...reached);
	}
	return given;
}

async function giveIn(trx: Query, by: Actor, id: string, grant: NewGrant, now: number) {
	const before = await findGrant(trx, id);
	const reached = await reachedBy(trx, before ?? grant);
	const loaded = await loadSittings(trx, reached, now);
	const told = (one: Loaded) => ({ sittingId: one.sitting.id, after: effectWordsOf(one) });
	if (before) return { effects: loaded.map(told), reached: [] };
	const drafted = { ...draftGrant(grant), id };
	const effects = loaded.map((one) => told(regrant(one, [...one.grants, drafted], now)));
	await insertGrants(trx, [drafted]);
	await refreshDerivedColumns(trx, reached, now);
	await appendToLogbook(trx, grantEntries('grant_given', drafted, loaded, effects, by, now));
	return { effects, reached: loaded };
}

/** Takes it back; it stays in the record. Returns false when it was withdrawn already or never given. */
export async function withdrawGrant(otium: Acting, by: Actor, id: string): Promise<boolean> {
	return (await withdrawGrants(otium, by, [id])) > 0;
}

/**
 * Takes several back at once. Returns how many there were to take back.
 * @param isMeant the others stay, as if they had not been named
 */
export async function withdrawGrants(
	otium: Acting,
	by: Actor,
	ids: string[],
	isMeant: (grant: Grant) => boolean = () => true
): Promise<number> {
	const now = otium.now();
	const told: Loaded[] = [];
	const count = await transact(otium.db, async (trx) => {
		let count = 0;
		for (const id of ids) {
			const grant = await findGrant(trx, id);
			if (!grant || grant.withdrawnAt !== null || !isMeant(grant)) continue;
			await trx('grant_given').where({ id }).update({ withdrawn_at: now, withdrawn_by: by.id });
			const reached = await reachedBy(trx, grant);
			await refreshDerivedColumns(trx, reached, now);
			const loaded = await loadSittings(trx, reached, now);
			await appendToLogbook(trx, grantEntries('grant_withdrawn', grant, loaded, [], by, now));
			told.push(...loaded);
			count++;
		}
		return count;
	});
	tellOf(otium, told);
	return count;
}

function grantEntries(
	kind: string,
	grant: Grant,
	reached: Loaded[],
	effects: Given['effects'],
	by: Actor,
	now: number
) {
	const what = (zone: string) => ({
		grant: grant.id,
		what: grantInWords(grant, zone),
		scope: grant.scope.kind,
		reason: grant.reason
	});
	// To everyone in a room is one entry for the room; to one person, one for each sitting of theirs, so that its history tells it.
	if (grant.candidateId === null || reached.length === 0) {
		const sessionId = grant.scope.kind === 'session' ? grant.scope.id : null;
		return [
			{
				at: now,
				by,
				kind,
				sessionId,
				body: { ...what(reached[0]?.session.site.zone ?? 'UTC'), candidates: reached.length }
			}
		];
	}
	return reached.map((one, i) => ({
		at: now,
		by,
		kind,
		sessionId: one.session.id,
		sittingId: one.sitting.id,
		body: { ...what(one.session.site.zone), ...(effects[i] ? { effect: effects[i].after } : {}) }
	}));
}

export function tellOf(otium: Acting, reached: Loaded[]) {
	for (const one of reached) otium.hub.changed(one.session.id, [one.sitting.id]);
}
