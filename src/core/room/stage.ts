import { clockLength, clockTime, minutesAndGrace, timeAndDate } from '../time';
import type { RoomHead, SeatView } from './view';

/** How far a session is, in a word or two. */
export function stageInWords(head: RoomHead, now: number): 'Planned' | 'Door open' | 'Running' | 'Ended' {
	if (head.endedAt !== null) return 'Ended';
	if (now < head.doorOpens) return 'Planned';
	return begins(head, now) > now ? 'Door open' : 'Running';
}

/** From when there is work: the common start where there is one, or the opening, earlier where the proctor let it begin. */
function begins(head: RoomHead, now: number): number {
	if (head.clockStarts === 'room') return head.roomStartedAt ?? Math.max(head.opens, now + 1);
	return head.openedEarlyAt ?? head.opens;
}

/** When it started and when the first and the last are done, as its proctor reads it; what lies ahead, with how long. */
export function timesInWords(head: RoomHead, seats: Iterable<SeatView>, now: number): string {
	const at = (instant: number) => clockTime(instant, head.zone);
	if (head.endedAt !== null) return `ended ${timeAndDate(head.endedAt, head.zone, now)}`;
	if (now < head.doorOpens)
		return `starts ${timeAndDate(head.opens, head.zone, now)}, the door opens ${at(head.doorOpens)}`;
	const began = begins(head, now);
	if (began > now && now < head.opens) return `starts in ${clockLength(head.opens - now)}`;
	const deadlines = [...seats].flatMap(({ state, deadline }) =>
		deadline !== null && (state === 'working' || state === 'on_hold') ? [deadline] : []
	);
	const [first, last] = [at(Math.min(...deadlines)), at(Math.max(...deadlines))];
	const { limitMinutes, graceMinutes } = head;
	return [
		...(limitMinutes === null ? [] : [minutesAndGrace(limitMinutes, graceMinutes)]),
		began > now
			? `opened ${at(head.opens)}, not started yet`
			: `${head.clockStarts === 'room' ? 'started' : 'opened'} ${at(began)}`,
		...(deadlines.length > 0 ? [`first ends ${first}${first === last ? '' : `, last ${last}`}`] : []),
		...(head.lastEntry !== null && now <= head.lastEntry ? [`last entry in ${clockLength(head.lastEntry - now)}`] : [])
	].join(' · ');
}
