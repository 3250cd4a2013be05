import { nanoid } from 'nanoid';
import { may, type StaffMember } from '$core/access';
import { proposeSlots, type Called, type Proposal } from '$core/grants';
import { fail } from '$core/problem';
import type { Actor } from '$core/sitting';
import { localMidnightAfter, MINUTE } from '$core/time';
import { transact, type Query } from '../db';
import { daysFor } from '../grants';
import type { Acting } from '../house';
import { appendToLogbook } from '../logbook';
import { postDue } from '../mail';
import {
	addToSession,
	findSession,
	findSessions,
	inputOf,
	mustBeWithin,
	placeOf,
	saveSession,
	type SessionInput
} from '../session';
import { loadSittings, minutesToWork, type Loaded } from '../sitting';
import { owedTo, type Owed } from './owed';

/**
 * Those whom a request names, all of them owed the same paper and theirs to settle.
 * @throws ProblemError when one of them is not, or they are owed different papers
 */
export async function owedAmong(db: Query, staff: StaffMember, sittingIds: string[], now: number): Promise<Owed[]> {
	const named = await loadSittings(db, sittingIds, now);
	if (!named.every((one) => may(staff, 'grant', placeOf(one.session)))) fail('not_yours');
	const owed = (await owedTo(db, staff, now)).filter((one) => sittingIds.includes(one.sittingId));
	const ready = owed.filter((one) => one.state === 'owed');
	if (ready.length < sittingIds.length)
		fail('not_taken', {
			message: `${sittingIds.length - ready.length} of them are not owed a sitting any more: somebody has arranged it, or they have sat.`,
			instead: 'Look at the list again.'
		});
	const papers = new Set(ready.map((one) => `${one.paper.id} ${one.administrationId} ${one.session.siteId}`));
	if (papers.size > 1)
		fail('not_taken', {
			message: 'They are owed different papers, or at different sites.',
			instead: 'Choose those of one paper at one site at a time.'
		});
	return ready;
}

/** When and where a make-up for these people could be: as long as the one who needs most. */
export type MakeUpOffer = {
	proposals: Proposal[];
	minutes: number | null;
	zone: string;
	rooms: Called[];
	proctors: Called[];
	withoutMail: number;
};

const MOST_PROPOSALS = 5;
/** So much longer than needed, so that whoever comes a little later loses nothing. */
const SPARE_MINUTES = 15;
/** Nobody can be told of a session that begins sooner. */
const NOTICE_MS = 3 * 60 * MINUTE;
const AHEAD_MS = 8 * 24 * 60 * MINUTE;

export async function offerMakeUp(db: Query, owed: Owed[], now: number): Promise<MakeUpOffer> {
	const loaded = await loadOf(db, owed, now);
	const minutes = longestNeed(loaded);
	const midnight = localMidnightAfter(now - 24 * 60 * MINUTE, loaded[0].session.site.zone);
	const within = { from: Math.max(midnight, now + NOTICE_MS), to: midnight + AHEAD_MS };
	const sites = new Map();
	const all = await Promise.all(loaded.map((one) => daysFor(db, one, sites, now, within)));
	const [days] = all;
	// What stands in anybody's way stands in the way of all.
	const commitments = all.flatMap((each) => each.commitments);
	const rooms = days.rooms.filter((room) => room.seats >= owed.length);
	const proposals = proposeSlots(
		{ ...days, commitments, rooms },
		{
			minutes: minutes ?? 60,
			// A session of its own has its room to itself.
			apart: true,
			cuts: true,
			stepMinutes: 15,
			within,
			most: MOST_PROPOSALS,
			weekdays: true,
			spareMinutes: SPARE_MINUTES
		}
	);
	const addresses: (string | null)[] = await db('candidate')
		.whereIn(
			'id',
			owed.map((one) => one.candidateId)
		)
		.pluck('email');
	const named = ({ id, name }: Called) => ({ id, name });
	return {
		proposals,
		minutes,
		zone: days.zone,
		rooms: days.rooms.map(named),
		proctors: days.proctors.map(named),
		withoutMail: addresses.filter((one) => !one).length
	};
}

async function loadOf(db: Query, owed: Owed[], now: number): Promise<Loaded[]> {
	return loadSittings(
		db,
		owed.map((one) => one.sittingId),
		now
	);
}

function longestNeed(loaded: Loaded[]): number | null {
	const needs = loaded.map(minutesToWork);
	return needs.some((need) => need === null) ? null : Math.max(...(needs as number[]));
}

export type MakeUpAsked = {
	date: string;
	time: string;
	until: string | null;
	/** The day on which it closes; null: the same. */
	untilDate: string | null;
	roomId: string;
	proctorIds: string[];
	/** They and their proctors are told by mail at once. */
	tell: boolean;
};

/**
 * A make-up for exactly these people: the rules of the session that most of them missed, questions and choices in other
 * orders, a code of its own. Nobody else can enter by it.
 * @throws ProblemError about what stands in the way
 */
export async function makeUp(
	otium: Acting,
	staff: StaffMember,
	by: Actor,
	owed: Owed[],
	asked: MakeUpAsked,
	origin: string
): Promise<{ sessionId: string; name: string; mails: number }> {
	const { db } = otium;
	const missed = await findSession(db, mostCommon(owed.map((one) => one.session.id)));
	if (!missed) fail('not_found');
	const setup = await inputOf(db, missed);
	const groups: string[] = await db('session_group')
		.whereIn(
			'session_id',
			owed.map((one) => one.session.id)
		)
		.distinct('group_id')
		.pluck('group_id');
	const people = owed.map((one) => one.candidateId);
	const input: SessionInput = {
		...setup,
		name: '',
		kind: 'make_up',
		groupIds: groups,
		only: people,
		alsoIds: people,
		roomId: asked.roomId,
		proctorIds: asked.proctorIds,
		date: asked.date,
		time: asked.time,
		until: asked.until,
		untilDate: asked.untilDate,
		rules: { ...setup.rules, order: { ...setup.rules.order, questionsInOwnOrder: true, choicesInOwnOrder: true } },
		administrationId: missed.administrationId,
		parts: null
	};
	// The people are theirs to settle, wherever they are at home; room and proctors must be of their sites.
	await mustBeWithin(db, staff, { rooms: [asked.roomId], proctors: asked.proctorIds });
	const saved = await saveSession(otium, by, missed.administrationId, input);
	if (!saved.ok) {
		const [first] = Object.values(saved.errors);
		fail('not_taken', { message: first ?? saved.message, instead: 'Choose another time or room.' });
	}
	const [sessionId] = saved.ids;
	const mails = asked.tell ? await tellAll(otium, by, sessionId, origin) : 0;
	return { sessionId, name: saved.plans[0].name, mails };
}

async function tellAll(otium: Acting, by: Actor, sessionId: string, origin: string): Promise<number> {
	const session = (await findSession(otium.db, sessionId))!;
	const toCandidates = await postDue(otium, by, session, 'candidate', origin);
	return toCandidates + (await postDue(otium, by, session, 'proctor', origin));
}

function mostCommon(ids: string[]): string {
	const count = (id: string) => ids.filter((each) => each === id).length;
	return ids.reduce((most, id) => (count(id) > count(most) ? id : most));
}

/** Sessions to come, or going on, that these people could join. */
export type Joinable = { id: string; name: string; opens: number; zone: string; room: string; free: number };

export async function sessionsToJoin(db: Query, owed: Owed[], now: number): Promise<Joinable[]> {
	const [{ paper, administrationId, session: missed }] = owed;
	const sessions = await findSessions(db, (query) =>
		query
			.where({
				'session.paper_id': paper.id,
				'session.administration_id': administrationId,
				'room.site_id': missed.siteId,
				ended_at: null
			})
			.whereNot('session.kind', 'rehearsal')
			.where('session.opens', '>', now - 30 * MINUTE)
	);
	const taken: { session_id: string; n: number }[] = await db('roster')
		.whereIn(
			'session_id',
			sessions.map((session) => session.id)
		)
		.groupBy('session_id')
		.select('session_id')
		.count('* as n');
	return sessions.map((session) => ({
		id: session.id,
		name: session.name,
		opens: session.window.opens,
		zone: session.site.zone,
		room: session.room.name,
		free:
			session.room.rows * session.room.seatsPerRow - Number(taken.find((row) => row.session_id === session.id)?.n ?? 0)
	}));
}

/** Puts them on another session's list. Returns who could not be put there, and why. */
export async function join(otium: Acting, by: Actor, owed: Owed[], sessionId: string): Promise<string[]> {
	const session = await findSession(otium.db, sessionId);
	if (!session) fail('not_found');
	const [{ paper, administrationId }] = owed;
	if (session.paper.id !== paper.id || session.administrationId !== administrationId)
		fail('not_taken', { message: 'This session is of another paper.', instead: 'Choose one of the list.' });
	const refused: string[] = [];
	for (const one of owed) {
		const added = await addToSession(otium, by, session, one.candidateId);
		if (!added.ok) refused.push(`${one.name}: ${added.problem.message}`);
	}
	return refused;
}

/** They are not owed it any more, by a decision with a reason. */
export async function waive(otium: Acting, by: Actor, owed: Owed[], reason: string): Promise<void> {
	const now = otium.now();
	await transact(otium.db, async (trx) => {
		for (const one of owed) {
			await trx('waiver').insert({ id: nanoid(), sitting_id: one.sittingId, reason, by: by.id, at: now });
			await appendToLogbook(trx, [
				{ at: now, by, kind: 'owed_waived', sessionId: one.session.id, sittingId: one.sittingId, body: { reason } }
			]);
		}
	});
	for (const one of owed) otium.hub.changed(one.session.id, [one.sittingId]);
}

/** Takes a waiver back: they are owed it again. false: it was taken back already. */
export async function takeWaiverBack(otium: Acting, by: Actor, one: Owed): Promise<boolean> {
	if (!one.waiver) return false;
	const now = otium.now();
	return transact(otium.db, async (trx) => {
		const changed = await trx('waiver').where({ id: one.waiver!.id, withdrawn_at: null }).update({ withdrawn_at: now });
		if (changed === 0) return false;
		await appendToLogbook(trx, [
			{ at: now, by, kind: 'waiver_taken_back', sessionId: one.session.id, sittingId: one.sittingId, body: {} }
		]);
		return true;
	});
}
