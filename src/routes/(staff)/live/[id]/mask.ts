import type { RoomHead, SeatView } from '$core/room';

/** Names stay hidden over the days of an examination. */
export const MASK_S = 14 * 86_400;

/** Under which name a browser keeps that names are hidden in a room. */
export const maskCookie = (sessionId: string) => `otium-masked-${sessionId}`;

export const masked = (seat: SeatView): SeatView => ({ ...seat, name: seat.number });

/** The head of a room without the names of those who were refused. */
export function maskedHead(head: RoomHead): RoomHead {
	const refusals = head.refusals.map((one) => ({
		...one,
		candidate: one.candidate && { ...one.candidate, name: one.candidate.number }
	}));
	return { ...head, refusals };
}
