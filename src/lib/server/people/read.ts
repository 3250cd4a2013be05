import type { ReadCalendar } from '$core/formats';
import type { ImportAsked, KnownSite } from '$core/people';
import type { House } from '../house';
import { ThreadError, type ThreadKind } from '../thread';
import type { CheckResult, Reading } from './reading';

/** What somebody sends is read in a thread of its own: no file stops the house, however it was made. */
const READING: ThreadKind<Reading> = { entry: 'src/lib/server/people/reading.ts', memoryMb: 384 };

/** A list as offices have them is read in well under a second; ten thousand people in two. */
const DEADLINE_MS = 5_000;
const LARGE = { bytes: 1024 * 1024, deadlineMs: 30_000 };

type Reads = Pick<House, 'threads'>;

/** Reads a file of people in the reading thread. */
export function readPeople(
	otium: Reads,
	name: string,
	bytes: Uint8Array,
	known: KnownSite,
	asked: ImportAsked
): Promise<CheckResult> {
	const deadline = bytes.length > LARGE.bytes ? LARGE.deadlineMs : DEADLINE_MS;
	return otium.threads
		.run(READING, 'people', { name, bytes, known, asked }, deadline)
		.catch((error) => ({ ok: false, refused: { message: wordsFor(error) } }));
}

/** Reads a timetable in the reading thread. */
export function readTimetable(
	otium: Reads,
	text: string,
	zone: string,
	from: number,
	to: number
): Promise<ReadCalendar> {
	return otium.threads
		.run(READING, 'timetable', { text, zone, from, to }, DEADLINE_MS)
		.catch((error) => ({ ok: false, message: wordsFor(error) }));
}

/** Why a file could not be read, to whoever sent it; what is no file's fault is thrown on. */
function wordsFor(error: unknown): string {
	if (!(error instanceof ThreadError)) throw error;
	switch (error.code) {
		case 'too_long':
			return 'Reading this file takes too long, so it was stopped. Split it, or export less.';
		case 'too_large':
			return 'This file needs too much memory to be read. Split it, or export less.';
		case 'too_many':
			return 'Other files are being read just now. Send it again in a minute.';
		case 'stopped':
		case 'failed':
			throw error;
	}
}
