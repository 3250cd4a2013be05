import type { House } from '../house';
import { readNote, signNote } from './tokens';

type Needs = Pick<House, 'db' | 'now'>;

/** Whom the door has recognised, and how things were then. */
export type Recognition = {
	sittingId: string;
	/** The session at whose door it was. */
	sessionId: string;
	/** The number of the device that the sitting was bound to last. */
	epoch: number;
};

const LASTS_MS = 10 * 60_000;

/**
 * What the door gives to a browser that it has recognised, for ten minutes: the step between "who are you" and "this is me".
 * It is for that browser alone, so that a note which was seen or handed on is no use elsewhere.
 * @param browser by which the record knows it; null: it keeps no cookies
 */
export function doorNote(otium: Needs, recognised: Recognition, browser: string | null): Promise<string> {
	return signNote(otium.db, { door: recognised, browser }, otium.now() + LASTS_MS);
}

/** null: it is not ours, was changed, is too old, or was given to another browser. */
export async function readDoorNote(otium: Needs, text: string, browser: string | null): Promise<Recognition | null> {
	const note = await readNote(otium.db, text, otium.now());
	return note?.door && note.browser === browser ? (note.door as Recognition) : null;
}
