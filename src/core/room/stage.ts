import { clockLength, clockTime, minutesAndGrace, timeAndDate } from '../time';
import type { RoomHead, SeatView } from './view';

/** How far a session is, in a word or two. */
export function stageInWords(head: RoomHead, now: number): 'Planned' | 'Door open' | 'Running' | 'Ended' {
	if (head.endedAt !== null) return 'Ended';
	if (now < head.doorOpens) return 'Planned';
	const waits = head.clockStarts === 'room' ? head.roomStartedAt === null : now < head.opens;
	return waits ? 'Door open' : 'Running';
}

/** When it started and when the first and the last are done, as its proctor reads it; what lies ahead, with how long. */
export function timesInWords(head: RoomHead, seats: Iterable<SeatView>, now: number): string {
	const at = (instant: number) => clockTime(instant, head.zone);
	if (head.endedAt !== null) return `ended ${timeAndDate(head.endedAt, head.zone, now)}`;
	if (now < head.doorOpens)
		return `starts ${timeAndDate(head.opens, head.zone, now)}, the door opens ${at(head.doorOpens)}`;
	if (now < head.opens) return `starts in ${clockLength(head.opens - now)}`;
	const deadlines = [...seats].flatMap(({ state, deadline }) =>
		deadline !== null && (state === 'working' || state === 'on_hold') ? [deadline] : []
	);
	const [first, last] = [at(Math.min(...deadlines)), at(Math.max(...deadlines))];
	const { limitMinutes, graceMinutes } = head;
	return [
		...(limitMinutes === null ? [] : [minutesAndGrace(limitMinutes, graceMinutes)]),
		`opened ${at(head.opens)}`,
		...(deadlines.length > 0 ? [`first ends ${first}${first === last ? '' : `, last ${last}`}`] : []),
		...(head.lastEntry !== null && now <= head.lastEntry ? [`last entry in ${clockLength(head.lastEntry - now)}`] : [])
	].join(' · ');
}
