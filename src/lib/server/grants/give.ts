import { effectInWords, expectedEnd, grantInWords, type Grant } from '$core/grants';
import type { Actor } from '$core/sitting';
import { allottedMinutes, localTime, MINUTE } from '$core/time';
import { transact, type Query } from '../db';
import { appendToLogbook } from '../logbook';
import type { Otium } from '../otium';
import { loadSittings, refreshConsequences, regrant, type Loaded } from '../sitting';
import { draftGrant, findGrant, insertGrants, type NewGrant } from './store';

/** What a grant would do to one sitting, told before it is saved. */
export type Effect = {
	sittingId: string;
	session: string;
	before: string;
	after: string;
	/** What does not fit, in a sentence; it does not stop the grant. */
	misfit: string | null;
};

/** The effect on every unfinished sitting that the grant reaches. */
export async function foreseeGrant(db: Query, grant: NewGrant, now: number): Promise<Effect[]> {
	const reached = await loadSittings(db, await reachedBy(db, grant), now);
	return reached.map((one) => effectOn(one, draftGrant(grant), now));
}

function effectOn(one: Loaded, grant: Grant, now: number): Effect {
	const { timing } = one.session.rules;
	const zone = one.session.site.zone;
	const then = regrant(one, [...one.grants, grant], now);
	const words = (loaded: Loaded) =>
		effectInWords(timing, loaded.merge.grants, expectedEnd(loaded.reckoning, timing.atClose, now), zone);
	return {
		sittingId: one.sitting.id,
		session: one.session.name,
		before: words(one),
		after: words(then),
		misfit: misfitOf(then)
	};
}

function misfitOf({ reckoning, session, merge }: Loaded): string | null {
	const zone = session.site.zone;
	const needed = allottedMinutes(session.rules.timing, merge.grants);
	if (reckoning.windowEnd === null || needed === null) return null;
	const fits = reckoning.windowEnd - reckoning.window.opens;
	const short = Math.ceil((needed * MINUTE + reckoning.credits - fits) / MINUTE);
	if (short <= 0) return null;
	const window = `${localTime(reckoning.window.opens, zone)} to ${localTime(reckoning.windowEnd, zone)}`;
	return session.rules.timing.atClose === 'finish'
		? `The window ${window} is ${short} min shorter than the time granted; whoever has begun may finish.`
		: `The window ${window} is ${short} min too short: it cuts the time granted. Give an own window as well.`;
}

/** The unfinished sittings that a grant concerns. */
async function reachedBy(db: Query, grant: Pick<NewGrant, 'candidateId' | 'scope'>): Promise<string[]> {
	const query = db('sitting').whereNotIn('state', ['set_aside']);
	if (grant.candidateId !== null) query.where({ candidate_id: grant.candidateId });
	if (grant.scope.kind === 'session') query.where({ session_id: grant.scope.id });
	if (grant.scope.kind === 'paper') query.where({ paper_id: grant.scope.id });
	if (grant.scope.kind === 'administration') query.where({ administration_id: grant.scope.id });
	const rows: { id: string; session_id: string }[] = await query.select('id');
	return rows.map((row) => row.id);
}

export type Given = { id: string; effects: Effect[] };

/**
 * Gives it. Time in every sitting that it reaches is worked out anew in the same transaction, and told after the commit.
 * @param id the asker's own id for it: the same grant sent twice is given once
 */
export async function giveGrant(otium: Otium, by: Actor, id: string, grant: NewGrant): Promise<Given> {
	const now = otium.now();
	const result = await transact(otium.db, async (trx) => {
		if (await findGrant(trx, id)) return { effects: [], reached: [] };
		const reached = await reachedBy(trx, grant);
		const loaded = await loadSittings(trx, reached, now);
		const drafted = { ...draftGrant(grant), id };
		const effects = loaded.map((one) => effectOn(one, drafted, now));
		await insertGrants(trx, [drafted]);
		await refreshConsequences(trx, reached, now);
		await appendToLogbook(trx, grantEntries('grant_given', drafted, loaded, effects, by, now));
		return { effects, reached: loaded };
	});
	tellOf(otium, result.reached);
	return { id, effects: result.effects };
}

/** Takes it back; it stays in the record. Returns false when it was withdrawn already or never given. */
export async function withdrawGrant(otium: Otium, by: Actor, id: string): Promise<boolean> {
	const now = otium.now();
	const reached = await transact(otium.db, async (trx) => {
		const grant = await findGrant(trx, id);
		if (!grant || grant.withdrawnAt !== null) return null;
		await trx('grant_given').where({ id }).update({ withdrawn_at: now });
		const ids = await reachedBy(trx, grant);
		await refreshConsequences(trx, ids, now);
		const loaded = await loadSittings(trx, ids, now);
		await appendToLogbook(trx, grantEntries('grant_withdrawn', grant, loaded, [], by, now));
		return loaded;
	});
	if (reached) tellOf(otium, reached);
	return reached !== null;
}

function grantEntries(kind: string, grant: Grant, reached: Loaded[], effects: Effect[], by: Actor, now: number) {
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

function tellOf(otium: Otium, reached: Loaded[]) {
	for (const one of reached) otium.hub.changed(one.session.id, [one.sitting.id]);
}
