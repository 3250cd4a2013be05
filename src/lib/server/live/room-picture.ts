import { turningCode, turnsAt } from '$core/access';
import { dealtCount, type Paper } from '$core/paper';
import type { RoomHead, SeatView } from '$core/room';
import type { SittingState } from '$core/sitting';
import type { Query } from '../db';
import { doorOpensAt, findSession, type Session } from '../session/session';
import { loadSittings, type Loaded } from '../sitting';

type RosterRow = { sitting_id: string; seat: string | null; outcome: SittingState | null };

/** The session's head and its seats, all of them or those asked for. null: there is no such session. */
export async function drawRoom(
	db: Query,
	sessionId: string,
	now: number,
	only?: Set<string>
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
	const sittings = await loadSittings(db, [...places.keys()], now);
	const [{ expected }] = (await db('roster').where({ session_id: sessionId }).count('* as expected')) as {
		expected: number;
	}[];
	return {
		head: headOf(session, await questionsOf(db, session.paper.id), expected, now),
		seats: sittings
			.map((one) => seatOf(one, session, places.get(one.sitting.id)!, now))
			.sort((a, b) => seatOrder(a).localeCompare(seatOrder(b)))
	};
}

function seatOrder(seat: SeatView): string {
	const [row, column] = [seat.seat?.[0] ?? 'zz', seat.seat?.slice(1) ?? ''];
	return `${row}${column.padStart(3, '0')} ${seat.number}`;
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

function headOf(session: Session, questions: number, expected: number, now: number): RoomHead {
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
		endedAt: session.endedAt
	};
}

function seatOf(one: Loaded, session: Session, place: RosterRow, now: number): SeatView {
	const { sitting, candidate, reckoning } = one;
	const movedOn = sitting.sessionId !== session.id;
	return {
		id: sitting.id,
		number: candidate.number,
		name: `${candidate.given} ${candidate.family}`,
		seat: place.seat,
		state: movedOn ? (place.outcome ?? 'carried_over') : sitting.state,
		heldFrom: sitting.heldFrom,
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
