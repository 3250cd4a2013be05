import { may, type StaffMember } from '$core/access';
import {
	addUp,
	changedBeneath,
	gatesOf,
	type Few,
	type Gate,
	type Ledger,
	type SharedFacts,
	type SiteFacts
} from '$core/closing';
import { DOUBTFUL } from '$core/figures';
import { groupBy } from '$core/group-by';
import { fullName } from '$core/names';
import { nameInPaper } from '$core/paper';
import type { SittingState } from '$core/sitting';
import { heldBack } from '../answers';
import type { Query } from '../db';
import { giveWay } from '../event-loop';
import type { House } from '../house';
import { correctionsOf, countingSittings, figures, handProgress } from '../marking';
import { owedTo } from '../owed';
import { paperVersion } from '../paper';
import { findSessions, type Session } from '../session';
import { isAlikeOpen } from './alike';
import { alsoCloses } from './also-closes';
import { beneathOf } from './beneath';
import { incidentsToDecide } from './decide';
import { validityOf } from './validity';
import { closingOf, type Closing } from './closed';

type Needs = Pick<House, 'db' | 'now' | 'threads' | 'dataDir'>;

/** How an administration stands on its way to being closed. */
export type Standing = {
	administration: { id: string; name: string; opensOn: string | null; closesOn: string | null };
	sites: { id: string; name: string; zone: string; coordinators: string[] }[];
	sessions: number;
	ledger: Ledger;
	gates: Gate[];
	signOffs: { siteId: string; by: string; at: number; statement: string; holds: boolean }[];
	/** What would become final, and be sealed. */
	results: number;
	answers: number;
	entries: number;
	/** What closing means for withdrawn papers, sites that sat nothing, sessions of other days and rehearsals. */
	alsoCloses: string[];
	closed: Closing | null;
	/** Those who may close, and whether each proctored nothing of it. */
	closers: { id: string; name: string; isApart: boolean }[];
};

/** Somebody who sees everything, for what is derived for all. */
const EVERYBODY: StaffMember = { id: '', name: '', roles: [{ role: 'coordinator', siteId: null }] };
const FEW = 4;
const few = (names: string[]): Few => ({ count: names.length, named: names.slice(0, FEW) });

/**
 * Everything that stands between an administration and its closing. All of it is derived.
 * @param staff for whom: sites that they may not see are left out, and so is what is worked out from them
 */
export async function standingOf(otium: Needs, administrationId: string, staff: StaffMember): Promise<Standing | null> {
	const { db } = otium;
	const row: { id: string; name: string; opens_on: string | null; closes_on: string | null } | undefined = await db(
		'administration'
	)
		.where({ id: administrationId })
		.first();
	if (!row) return null;
	const all = await findSessions(db, (query) => query.where({ 'session.administration_id': administrationId }));
	const mine = all.filter(({ site }) => may(staff, 'see_closing', { siteId: site.id, proctorIds: [] }));
	const bySite = groupBy(mine, ({ site }) => site.id);
	const context = await contextOf(otium, administrationId, mine);
	const facts: SiteFacts[] = [];
	await giveWay();
	for (const [siteId, sessions] of bySite) facts.push(await siteFacts(otium, context, siteId, sessions));
	await giveWay();
	const gates = gatesOf(facts, await sharedFacts(otium, administrationId, mine));
	return {
		administration: { id: row.id, name: row.name, opensOn: row.opens_on, closesOn: row.closes_on },
		sites: [...bySite.values()].map(([{ site }]) => ({
			...site,
			coordinators: context.coordinators.get(site.id) ?? []
		})),
		sessions: mine.length,
		ledger: await ledgerOf(db, mine),
		gates,
		signOffs: facts.flatMap(({ siteId, signOff }) =>
			signOff
				? [
						{
							siteId,
							by: signOff.by,
							at: signOff.at,
							statement: context.signOffs.get(siteId)!.statement,
							holds: signOff.fell.length === 0
						}
					]
				: []
		),
		results: context.results.length,
		answers: context.results.reduce((sum, { fold }) => sum + (fold.ended?.work?.answers ?? 0), 0),
		entries: await entriesOf(db, mine),
		alsoCloses: await alsoCloses(db, administrationId, mine, context.results, {
			opensOn: row.opens_on,
			closesOn: row.closes_on
		}),
		closed: await closingOf(db, administrationId),
		closers: await closersOf(db, all)
	};
}

type Context = Awaited<ReturnType<typeof contextOf>>;

/** What all sites are read from, read once. */
async function contextOf(otium: Needs, administrationId: string, sessions: Session[]) {
	const { db } = otium;
	const sessionIds = sessions.map(({ id }) => id);
	const results = await countingSittings(db, (query) => query.whereIn('sitting.session_id', sessionIds));
	await giveWay();
	const owed = (await owedTo(db, EVERYBODY, otium.now())).filter((one) => sessionIds.includes(one.session.id));
	const signOffs: { site_id: string; statement: string; beneath: string; by: string; at: number }[] = await db(
		'sign_off'
	)
		.leftJoin('staff', 'staff.id', 'sign_off.by')
		.where({ administration_id: administrationId })
		.whereNull('withdrawn_at')
		.select('site_id', 'statement', 'beneath', 'staff.name as by', 'at');
	return {
		administrationId,
		results,
		owed,
		held: await heldBack(
			db,
			results.map(({ sittingId }) => sittingId)
		),
		incidents: await incidentsToDecide(db, administrationId),
		validity: await validityOf(db, results),
		coordinators: await namesBySite(db, sessions),
		signOffs: new Map(signOffs.map((row) => [row.site_id, row]))
	};
}

async function siteFacts(otium: Needs, context: Context, siteId: string, sessions: Session[]): Promise<SiteFacts> {
	const { db } = otium;
	const counting = sessions.filter(({ kind }) => kind !== 'rehearsal');
	const results = context.results.filter((one) => one.siteId === siteId);
	const owed = context.owed.filter((one) => one.session.siteId === siteId);
	const incidents = context.incidents.filter((one) => one.siteId === siteId);
	const byHand = await handProgress(db, context.administrationId, (query) => query.where('site.id', siteId));
	const alikeOpen: string[] = [];
	const ended = counting.filter(({ endedAt, id }) => endedAt !== null && results.some((one) => one.sessionId === id));
	for (const session of ended) if (await isAlikeOpen(otium, session)) alikeOpen.push(session.name);
	const sitting: { given: string; family: string }[] = await db('sitting')
		.join('candidate', 'candidate.id', 'sitting.candidate_id')
		.whereIn(
			'session_id',
			counting.map(({ id }) => id)
		)
		.whereIn('state', ['at_door', 'let_in', 'working', 'on_hold'])
		.orderBy(['family', 'given'])
		.select('given', 'family');
	const doubtful = context.validity.filter(
		(line) => line.siteId === siteId && line.proposed.verdict !== 'valid' && line.decided === null
	);
	const signed = context.signOffs.get(siteId);
	const minutes = byHand.map(({ minutesLeft }) => minutesLeft).filter((one) => one !== null);
	const waiting = byHand.flatMap(({ byMarker }) => byMarker.filter(({ waits }) => waits > 0).map(({ id }) => id));
	return {
		siteId,
		site: sessions[0].site.name,
		coordinators: context.coordinators.get(siteId) ?? [],
		sessions: {
			all: sessions.length,
			open: few(sessions.filter(({ endedAt }) => endedAt === null).map(({ name }) => name))
		},
		sitting: few(sitting.map(fullName)),
		owed: few(
			owed.filter(({ state }) => state === 'owed').map(({ name, why }) => `${name} (${why.replace('_', ' ')})`)
		),
		arranged: few(owed.filter(({ state }) => state === 'arranged').map(({ name, arranged }) => `${name}, ${arranged}`)),
		waived: {
			count: owed.filter(({ state }) => state === 'waived').length,
			reasons: [...new Set(owed.flatMap(({ waiver }) => waiver?.reason ?? []))]
		},
		heldBack: few(results.filter(({ sittingId }) => context.held.has(sittingId)).map(fullName)),
		incidents: {
			all: incidents.length,
			undecided: few(incidents.filter(({ isDecided }) => !isDecided).map(({ what, session }) => `${what}, ${session}`))
		},
		byHand: {
			all: byHand.reduce((sum, { answers }) => sum + answers, 0),
			left: byHand.reduce((sum, { answers, settled }) => sum + answers - settled, 0),
			minutes: minutes.length === 0 ? null : minutes.reduce((sum, one) => sum + one, 0),
			markers: await namesOf(db, [...new Set(waiting)])
		},
		validity: { results: results.length, undecided: few(doubtful.map(({ name }) => name)) },
		alike: { sessions: ended.length, undecided: few(alikeOpen) },
		signOff: signed
			? {
					by: signed.by,
					at: signed.at,
					fell: changedBeneath(JSON.parse(signed.beneath), await beneathOf(db, context.administrationId, siteId))
				}
			: null
	};
}

/** Questions that speak against themselves and have no decision; corrections that wait. */
async function sharedFacts(otium: Needs, administrationId: string, sessions: Session[]): Promise<SharedFacts> {
	const { db } = otium;
	const papers = [...new Set(sessions.filter(({ kind }) => kind !== 'rehearsal').map(({ paper }) => paper.id))];
	const doubtful: string[] = [];
	const waiting: string[] = [];
	for (const paperId of papers) {
		const { title, content } = await paperVersion(db, paperId);
		const corrections = await correctionsOf(db, administrationId, paperId);
		const decided = new Set(corrections.filter(({ state }) => state === 'counts').map(({ questionId }) => questionId));
		const { questions } = await figures(otium, administrationId, paperId);
		for (const question of questions)
			if (question.flags.some((flag) => DOUBTFUL.includes(flag)) && !decided.has(question.questionId))
				doubtful.push(`${nameInPaper(content, question.questionId)} of ${title}`);
		waiting.push(...corrections.filter(({ state }) => state === 'waits').map(() => title));
	}
	const correctors: { name: string }[] = await db('staff_role')
		.join('staff', 'staff.id', 'staff_role.staff_id')
		.whereIn('role', ['coordinator', 'closing_officer'])
		.distinct('staff.name as name')
		.orderBy('name');
	return { doubtful: few(doubtful), unconfirmed: few(waiting), correctors: correctors.map(({ name }) => name) };
}

/** Everybody of an administration in exactly one column: whoever went on elsewhere, or sat again, as they stand now. */
async function ledgerOf(db: Query, sessions: Session[]): Promise<Ledger> {
	const ids = sessions.filter(({ kind }) => kind !== 'rehearsal').map(({ id }) => id);
	const expected: string[] = await db('roster').whereIn('session_id', ids).distinct('sitting_id').pluck('sitting_id');
	const sittings: { id: string; state: SittingState; next_attempt_id: string | null }[] = await db('sitting')
		.whereIn('id', expected)
		.select('id', 'state', 'next_attempt_id');
	const latest = sittings.filter((one) => one.next_attempt_id === null);
	return addUp(
		latest.map(({ id }) => id),
		latest
	);
}

async function entriesOf(db: Query, sessions: Session[]): Promise<number> {
	const [row] = await db('logbook')
		.whereIn(
			'session_id',
			sessions.map(({ id }) => id)
		)
		.count<{ n: number }[]>('* as n');
	return Number(row.n);
}

async function namesBySite(db: Query, sessions: Session[]): Promise<Map<string, string[]>> {
	const rows: { name: string; site_id: string | null }[] = await db('staff_role')
		.join('staff', 'staff.id', 'staff_role.staff_id')
		.where({ role: 'coordinator' })
		.orderBy('staff.name')
		.select('staff.name', 'site_id');
	const sites = [...new Set(sessions.map(({ site }) => site.id))];
	return new Map(
		sites.map((site) => {
			// Whoever coordinates this site alone is asked before those who coordinate all.
			const own = rows.filter(({ site_id }) => site_id === site);
			const names = (own.length > 0 ? own : rows.filter(({ site_id }) => site_id === null)).map(({ name }) => name);
			return [site, names] as const;
		})
	);
}

async function namesOf(db: Query, ids: string[]): Promise<string[]> {
	return db('staff').whereIn('id', ids).orderBy('name').pluck('name');
}

/** Who may close: closing officers, and which of them supervised none of it. */
async function closersOf(db: Query, sessions: Session[]): Promise<Standing['closers']> {
	const rows: { id: string; name: string }[] = await db('staff_role')
		.join('staff', 'staff.id', 'staff_role.staff_id')
		.where({ role: 'closing_officer' })
		.orderBy('staff.name')
		.distinct('staff.id as id', 'staff.name as name');
	const supervised = new Set(sessions.flatMap(({ proctorIds }) => proctorIds));
	return rows.map((row) => ({ ...row, isApart: !supervised.has(row.id) }));
}
