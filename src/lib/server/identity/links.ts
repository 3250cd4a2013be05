import type { Query } from '../db';
import { hashToken, readNote, signNote } from './tokens';

const DAY_MS = 86_400_000;
/** A teacher's link is for what is coming up. */
const TEACHER_MS = 21 * DAY_MS;
/** A candidate's own page outlives the session that it was sent for. */
const OWN_MS = 60 * DAY_MS;

/** Who may ask by a teacher's link, and for candidates of which site. */
export type TeacherLink = { name: string; email: string; siteId: string };

/** A link by which somebody without an account asks for candidates of a site. */
export function teacherNote(db: Query, link: TeacherLink, now: number): Promise<string> {
	return signNote(db, { asks: link }, now + TEACHER_MS);
}

/** null: it is not ours, was changed, or is too old. */
export async function readTeacherNote(db: Query, note: string, now: number): Promise<TeacherLink | null> {
	const read = await readNote(db, note, now);
	return (read?.asks as TeacherLink | undefined) ?? null;
}

/**
 * A link to what a candidate has been given, and by which they ask for more. It goes to their address, and is good for as
 * long as that is theirs: one that was mistyped and put right opens nothing any more.
 */
export async function ownNote(db: Query, candidateId: string, from: number): Promise<string> {
	return signNote(db, { mine: candidateId, to: await addressOf(db, candidateId) }, from + OWN_MS);
}

/** Whose page it is; null: it is not ours, was changed, is too old, or went to an address that is no longer theirs. */
export async function readOwnNote(db: Query, note: string, now: number): Promise<string | null> {
	const read = await readNote(db, note, now);
	const id = (read?.mine as string | undefined) ?? null;
	// One from before this was asked says nothing of an address.
	if (id === null || read!.to === undefined) return id;
	return read!.to === (await addressOf(db, id)) ? id : null;
}

/** An address as a note may carry it; null: there is none. */
async function addressOf(db: Query, candidateId: string): Promise<string | null> {
	const row = await db('candidate').where({ id: candidateId }).first('email');
	return row?.email ? hashToken(row.email.trim().toLowerCase()) : null;
}
