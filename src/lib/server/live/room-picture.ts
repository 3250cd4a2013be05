import { turningCode, turnsAt } from '$core/access';
import { groupBy } from '$core/group-by';
import { fullName } from '$core/names';
import { NOTHING_TOLD, type RoomHead, type RoomPicture, type SeatView, type Told } from '$core/room';
import { breakSince, isHeldByRules, isInTheRoom, type SittingState } from '$core/sitting';
import { mapInParts } from '../event-loop';
import { paperVersion } from '../paper';
import { lateAnswers, type Query } from '../db';
import { heldBack, type HeldBack } from '../answers';
import type { House } from '../house';
import { openRefusals } from '../door';
import { lapseCounts, type LapseCount } from '../lockdown';
import { openMessages, type Message } from '../messages';
import { seatOrder } from '$core/seating';
import { lastEntryOf, ranOn, unionLength } from '$core/time';
import { doorOpensAt, findSession, type Session } from '../records';
import { loadSittings, whereOf, type Loaded } from '../sitting';

type RosterRow = { sitting_id: string; seat: string | null; outcome: SittingState | null };

/** So many seats are drawn before everything else has its turn. */
const AT_ONCE = 100;

/** The session's head and its seats, all of them or those asked for. null: there is no such session. */
export async function drawRoom(
	db: Query,
	sessionId: string,
	now: number,
	only?: Set<string>,
	told: (sittingId: string) => Told = () => NOTHING_TOLD
): Promise<{ head: RoomHead; seats: SeatView[] } | null> {
	const head = await drawHead(db, sessionId, now);
	return head && { head, seats: await drawSeats(db, sessionId, now, only, told) };
}

/** So many seats stand in a page as it is sent: it is made in one go, and everybody else waits for that long. */
export const MOST_IN_PAGE = 150;

/**
 * What a page begins with: the room, or of a larger one its head alone, as the line brings its seats and gives way in between.
 * null: there is no such session.
 * @param most so many seats have room in the page
 */
export async function drawForPage(
	{ db, presence }: Pick<House, 'db' | 'presence'>,
	sessionId: string,
	now: number,
	most = MOST_IN_PAGE
): Promise<{ picture: RoomPicture; isComing: boolean } | null> {
	const head = await drawHead(db, sessionId, now);
	if (!head) return null;
	const isComing = head.expected > most;
	return {
		picture: { now, head, seats: isComing ? [] : await drawSeats(db, sessionId, now, undefined, presence.told) },
		isComing
	};
}

/** The session above the room. null: there is no such session. */
export async function drawHead(db: Query, sessionId: string, now: number): Promise<RoomHead | null> {
	const session = await findSession(db, sessionId);
	if (!session) return null;
	const [{ expected }] = (await db('roster').where({ session_id: sessionId }).count('* as expected')) as {
		expected: number;
	}[];
	return {
		...headOf(session, (await paperVersion(db, session.paper.id)).questions, expected, now),
		refusals: await openRefusals(db, sessionId, now),
		incidents: await countIncidents(db, sessionId)
	};
}

/** The seats of a session, all of them or those asked for, by their order in the room. */
export async function drawSeats(
	db: Query,
	sessionId: string,
	now: number,
	only?: Set<string>,
	told: (sittingId: string) => Told = () => NOTHING_TOLD
): Promise<SeatView[]> {
	const roster: RosterRow[] = await db('roster')
		.where({ session_id: sessionId })
		.modify((query) => {
			if (only) query.whereIn('sitting_id', [...only]);
		})
		.select('sitting_id', 'seat', 'outcome');
	const seats = await mapInParts(roster, AT_ONCE, (part) => drawSome(db, sessionId, part, now, told));
	const order = new Map(seats.map((seat) => [seat.id, seatOrder(seat.seat)]));
	return seats.sort((a, b) => compare(order.get(a.id)!, order.get(b.id)!) || compare(a.number, b.number));
}

const compare = (a: string, b: string) => (a < b ? -1 : a > b ? 1 : 0);

async function drawSome(
	db: Query,
	sessionId: string,
	roster: RosterRow[],
	now: number,
	told: (sittingId: string) => Told
): Promise<SeatView[]> {
	const places = new Map(roster.map((row) => [row.sitting_id, row]));
	const ids = [...places.keys()];
	const sittings = await loadSittings(db, ids, now);
	const beside = {
		heldBack: await heldBack(db, ids),
		late: await lateAnswers(db, ids),
		lapses: await lapseCounts(db, ids),
		messages: groupBy(await openMessages(db, ids), (message) => message.sittingId),
		told
	};
	return sittings.map((one) => seatOf(one, sessionId, places.get(one.sitting.id)!, now, beside));
}

type Beside = {
	heldBack: Map<string, HeldBack>;
	late: Map<string, number>;
	lapses: Map<string, LapseCount>;
	messages: Map<string, Message[]>;
	told: (sittingId: string) => Told;
};

async function countIncidents(db: Query, sessionId: string): Promise<number> {
	const [{ count }] = (await db('incident')
		.where({ session_id: sessionId, withdrawn_at: null })
		.count('* as count')) as {
		count: number;
	}[];
	return count;
}

function headOf(
	session: Session,
	questions: number,
	expected: number,
	now: number
): Omit<RoomHead, 'refusals' | 'incidents'> {
	const every = session.rules.door.turnsEveryMinutes;
	const turns = session.turningKey !== null && session.doorCode !== null;
	const { timing } = session.rules;
	const { opens, closes } = session.window;
	return {
		id: session.id,
		name: session.name,
		kind: session.kind,
		paper: session.paper.title,
		paperVersion: session.paper.version,
		questions,
		expected,
		room: session.room.name,
		rows: session.room.rows,
		seatsPerRow: session.room.seatsPerRow,
		zone: session.site.zone,
		opens,
		closes,
		doorOpens: doorOpensAt(session),
		lastEntry: lastEntryOf(timing, session.window),
		limitMinutes: timing.limitMinutes,
		clockStarts: timing.clockStarts,
		clockStops: timing.clockStops,
		doorCode: turns ? turningCode(session.turningKey!, now, every) : session.doorCode,
		codeTurnsAt: turns ? turnsAt(now, every) : null,
		codeHidden: session.codeHidden,
		startWord: session.rules.startWord,
		finishWord: session.rules.finishWord,
		slips: session.rules.door.slips,
		roomStartedAt: session.roomStartedAt,
		endedBy: timing.endedBy,
		graceMinutes: timing.graceMinutes,
		timeCalledAt: session.timeCalledAt,
		openedEarlyAt: session.openedEarlyAt,
		endedAt: session.endedAt,
		lockdown: session.rules.lockdown.level,
		leavingsAllowed: session.rules.lockdown.leavingsAllowed,
		snapshots: session.rules.lockdown.snapshotSeconds !== null
	};
}

function seatOf(one: Loaded, sessionId: string, place: RosterRow, now: number, beside: Beside): SeatView {
	const messages = beside.messages.get(one.sitting.id) ?? [];
	const unread = messages.filter((message) => !message.fromCandidate);
	const hand = messages.find((message) => message.fromCandidate);
	const { sitting, candidate, reckoning } = one;
	const movedOn = sitting.sessionId !== sessionId;
	return {
		id: sitting.id,
		number: candidate.number,
		name: fullName(candidate),
		seat: whereOf(one, place.seat).seat,
		elsewhere: candidate.elsewhere,
		state: movedOn ? (place.outcome ?? 'carried_over') : sitting.state,
		heldFrom: sitting.heldFrom,
		onBreak: !movedOn && breakSince(sitting) !== null,
		heldBySystem: isHeldByRules(sitting),
		since: sitting.since,
		reason: sitting.reason,
		line: movedOn ? null : sitting.line,
		device: sitting.device?.name ?? null,
		otherDevice: sitting.otherDevice,
		unsigned: sitting.device?.unsigned === true,
		noted: sitting.noted.filter((one) => one.epoch === sitting.device?.epoch),
		begun: sitting.beganAt !== null,
		arrivedAt: sitting.arrivedAt ?? null,
		beganAt: sitting.beganAt,
		attempt: one.attempt,
		lastAnswerAt: one.lastAnswerAt,
		lost: lostOf(one, now),
		allotted: reckoning.allotted === null ? null : reckoning.allotted + reckoning.credits,
		answered: one.answered,
		marked: one.marked,
		deadline: reckoning.deadline,
		remaining: reckoning.remaining,
		standing: reckoning.standing,
		reckonedAt: now,
		extra: extraOf(one),
		ownWindow: reckoning.ownWindow ? reckoning.window : null,
		lastEntry: reckoning.lastEntry,
		receipt: sitting.ended?.receipt ?? null,
		...beside.told(sitting.id),
		// Whoever has ended sits there no longer.
		hand: hand && isInTheRoom(sitting.state) ? { text: hand.text, at: hand.at } : null,
		unread: unread.length > 0 ? { count: unread.length, since: unread[0].at } : null,
		lapses: beside.lapses.get(sitting.id) ?? null,
		heldBack: beside.heldBack.get(sitting.id) ?? null,
		late: beside.late.get(sitting.id) ?? 0,
		pace: one.pace,
		rapid: one.rapid,
		movedOn
	};
}

/** What losing the connection has cost: the whole of it, and the part that neither the rules nor a proctor gave back. */
function lostOf({ sitting, session, merge, reckoning }: Loaded, now: number): SeatView['lost'] {
	const lost = sitting.stops.filter(({ why }) => why === 'lost');
	// What was lost while the clock stood anyway, or before it ran, has cost nothing.
	const from = reckoning.origin ?? now;
	const cost = ranOn(sitting.stops, 'lost', session.rules.timing.clockStops, from, now);
	const paidFor = merge.grants.creditsMinutes * 60_000;
	return { ms: unionLength(lost, 0, now), unpaidMs: Math.max(0, cost - paidFor) };
}

/** As short as a seat can show it: `×1.5`, `+25`. */
function extraOf({ merge: { grants } }: Loaded): string | null {
	const minutes = grants.extraMinutes + grants.creditsMinutes;
	const parts = [
		grants.unlimited ? 'no limit' : '',
		!grants.unlimited && grants.factor > 1 ? `×${grants.factor}` : '',
		minutes > 0 ? `+${minutes}` : ''
	];
	return parts.filter(Boolean).join(' ') || null;
}
