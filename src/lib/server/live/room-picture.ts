import { turningCode, turnsAt } from '$core/access';
import { dealtCount, type Paper } from '$core/paper';
import type { RoomHead, SeatView } from '$core/room';
import { breakSince, type SittingState } from '$core/sitting';
import { groupBy, lateAnswers, type Query } from '../db';
import { heldBack, type HeldBack } from '../answers/held-back';
import { openRefusals } from '../door';
import { lapseCounts, type LapseCount } from '../lockdown/lapses';
import { openMessages, type Message } from '../messages';
import { NOTHING_TOLD, type Told } from './presence';
import { seatOrder } from '$core/seating';
import { doorOpensAt, findSession, type Session } from '../session/session';
import { loadSittings, type Loaded } from '../sitting';

type RosterRow = { sitting_id: string; seat: string | null; outcome: SittingState | null };

/** The session's head and its seats, all of them or those asked for. null: there is no such session. */
export async function drawRoom(
	db: Query,
	sessionId: string,
	now: number,
	only?: Set<string>,
	told: (sittingId: string) => Told = () => NOTHING_TOLD
): Promise<{ head: RoomHead; seats: SeatView[] } | null> {
	const session = await findSession(db, sessionId);
	if (!session) return null;
	const roster: RosterRow[] = await db('roster')
		.where({ session_id: sessionId })
		.modify((query) => {
			if (only) query.whereIn('sitting_id', [...only]);
		})
		.select('sitting_id', 'seat', 'outcome');
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
	const [{ expected }] = (await db('roster').where({ session_id: sessionId }).count('* as expected')) as {
		expected: number;
	}[];
	return {
		head: {
			...headOf(session, await questionsOf(db, session.paper.id), expected, now),
			refusals: await openRefusals(db, sessionId, now),
			incidents: await countIncidents(db, sessionId)
		},
		seats: sittings
			.map((one) => seatOf(one, session, places.get(one.sitting.id)!, now, beside))
			.sort((a, b) => seatOrder(a.seat).localeCompare(seatOrder(b.seat)) || a.number.localeCompare(b.number))
	};
}

/** A paper's version never changes, so it is counted once. */
const counted = new Map<string, number>();
async function questionsOf(db: Query, paperId: string): Promise<number> {
	const known = counted.get(paperId);
	if (known !== undefined) return known;
	const { content } = (await db('paper').where({ id: paperId }).first('content')) as { content: string };
	const count = dealtCount(JSON.parse(content) as Paper);
	counted.set(paperId, count);
	return count;
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
		lastEntry: timing.lastEntryMinutes === null ? closes : opens + timing.lastEntryMinutes * 60_000,
		limitMinutes: timing.limitMinutes,
		clockStarts: timing.clockStarts,
		clockStops: timing.clockStops,
		doorCode: turns ? turningCode(session.turningKey!, now, every) : session.doorCode,
		codeTurnsAt: turns ? turnsAt(now, every) : null,
		codeHidden: session.codeHidden,
		startWord: session.rules.startWord,
		finishWord: session.rules.finishWord,
		roomStartedAt: session.roomStartedAt,
		openedEarlyAt: session.openedEarlyAt,
		endedAt: session.endedAt,
		lockdown: session.rules.lockdown.level,
		leavingsAllowed: session.rules.lockdown.leavingsAllowed,
		snapshots: session.rules.lockdown.snapshotSeconds !== null
	};
}

function seatOf(one: Loaded, session: Session, place: RosterRow, now: number, beside: Beside): SeatView {
	const messages = beside.messages.get(one.sitting.id) ?? [];
	const unread = messages.filter((message) => !message.fromCandidate);
	const hand = messages.find((message) => message.fromCandidate);
	const { sitting, candidate, reckoning } = one;
	const movedOn = sitting.sessionId !== session.id;
	return {
		id: sitting.id,
		number: candidate.number,
		name: `${candidate.given} ${candidate.family}`,
		seat: place.seat,
		state: movedOn ? (place.outcome ?? 'carried_over') : sitting.state,
		heldFrom: sitting.heldFrom,
		onBreak: !movedOn && breakSince(sitting) !== null,
		heldBySystem: sitting.state === 'on_hold' && sitting.heldBy === 'system',
		since: sitting.since,
		reason: sitting.reason,
		line: movedOn ? null : sitting.line,
		device: sitting.device?.name ?? null,
		otherDevice: sitting.otherDevice,
		begun: sitting.beganAt !== null,
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
		hand: hand ? { text: hand.text, at: hand.at } : null,
		unread: unread.length > 0 ? { count: unread.length, since: unread[0].at } : null,
		lapses: beside.lapses.get(sitting.id) ?? null,
		heldBack: beside.heldBack.get(sitting.id) ?? null,
		late: beside.late.get(sitting.id) ?? 0,
		pace: one.pace,
		rapid: one.rapid,
		movedOn
	};
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
