import type { CoursePoint } from '$core/room';
import { MINUTE } from '$core/time';
import { answersByMinute, type Query } from '../db';
import { inParts } from '../event-loop';
import { rosterOf } from '../records';

/** Longer than this a chart can't show by the minute. */
const MOST_POINTS = 24 * 60;

/** What brings somebody to work, and what ends it, in the logbook's words. */
const TO_WORK = ['began', 'resumed', 'restored'];
const FROM_WORK = ['held', 'handed_in', 'time_ran_out', 'carried_over', 'set_aside', 'device_freed'];
const DONE = ['handed_in', 'time_ran_out'];

/** The room minute by minute: how many worked, had finished, and how many answers came. */
export async function drawCourse(db: Query, sessionId: string, now: number): Promise<CoursePoint[]> {
	const events: { at: number; kind: string; sitting_id: string }[] = await db('logbook')
		.where({ session_id: sessionId })
		.whereNotNull('sitting_id')
		.whereIn('kind', [...TO_WORK, ...FROM_WORK, 'reopened'])
		.orderBy('seq')
		.select('at', 'kind', 'sitting_id');
	if (events.length === 0) return [];
	const perMinute = await perMinuteIn(db, sessionId);
	const ends = [...events.map(({ at }) => at), ...[...perMinute.keys()].map((minute) => minute * MINUTE + MINUTE)];
	const latest = ends.reduce((latest, at) => Math.max(latest, at), 0);
	const last = Math.floor(Math.min(now, latest) / MINUTE);
	const first = Math.max(Math.floor(events[0].at / MINUTE), last - MOST_POINTS);
	const working = new Set<string>();
	const done = new Set<string>();
	const points: CoursePoint[] = [];
	let next = 0;
	for (let minute = first; minute <= last; minute++) {
		for (; next < events.length && events[next].at < (minute + 1) * MINUTE; next++) {
			const { kind, sitting_id } = events[next];
			if (TO_WORK.includes(kind)) working.add(sitting_id);
			if (FROM_WORK.includes(kind)) working.delete(sitting_id);
			if (DONE.includes(kind)) done.add(sitting_id);
			if (kind === 'reopened') done.delete(sitting_id);
		}
		points.push({ at: minute * MINUTE, working: working.size, done: done.size, answers: perMinute.get(minute) ?? 0 });
	}
	return points;
}

/** So many sittings are counted before everything else has its turn. */
const AT_ONCE = 100;

/** How many answers came in a session, by the minute. */
async function perMinuteIn(db: Query, sessionId: string): Promise<Map<number, number>> {
	const all = new Map<number, number>();
	for await (const part of inParts(await rosterOf(db, sessionId), AT_ONCE))
		for (const [minute, count] of await answersByMinute(db, part)) all.set(minute, (all.get(minute) ?? 0) + count);
	return all;
}
