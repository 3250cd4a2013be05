import type { SittingPicture } from '$core/room';
import { dropFrom, keepIn, keptIn } from '$ui/browser-storage';
import { LocalStore, type Place } from './local-store';

/**
 * Whose paper this tab has. The key stays with the tab and goes with it: after a reload the tab goes on without a line,
 * and whoever uses the device next finds only what nobody can read.
 */
type Tab = Place & { key: string };
/** When the server said what time it was, by the device's clock; only of use between two loads of the page. */
type ClockNote = { server: number; device: number };

const TAB = 'otium paper';
const CLOCK = 'otium clock';
const TOLD = 'otium told';
const SEEN = 'otium seen';

export function rememberTab(place: Place, key: string) {
	keepIn('sessionStorage', TAB, { ...place, key });
}

export function forgetTab() {
	dropFrom('sessionStorage', TAB, TOLD, SEEN);
}

export function keyOf(place: Place): string | null {
	const tab = keptIn<Tab>('sessionStorage', TAB);
	return tab?.sittingId === place.sittingId && tab.epoch === place.epoch ? tab.key : null;
}

/** The warnings of the time that this tab has shown of a sitting, in minutes before the end. */
export function toldOf(sittingId: string): number[] {
	const note = keptIn<{ sittingId: string; told: number[] }>('sessionStorage', TOLD);
	return note?.sittingId === sittingId ? note.told : [];
}

export function rememberTold(sittingId: string, told: number[]) {
	keepIn('sessionStorage', TOLD, { sittingId, told });
}

/** The question that this tab showed last, by its place; null: it has shown none. */
export function seenIn(sittingId: string): number | null {
	const note = keptIn<{ sittingId: string; at: number }>('sessionStorage', SEEN);
	return note?.sittingId === sittingId ? note.at : null;
}

export function rememberSeen(sittingId: string, at: number) {
	keepIn('sessionStorage', SEEN, { sittingId, at });
}

export function noteClock(server: number) {
	keepIn('localStorage', CLOCK, { server, device: Date.now() });
}

/**
 * The server's time as far as the device can tell after a reload without a line. A device clock that was set back never
 * takes it back: the server's last word is the least that it can be.
 */
export function clockFromNote(): number | null {
	const note = keptIn<ClockNote>('localStorage', CLOCK);
	return note && note.server + Math.max(0, Date.now() - note.device);
}

/** What this tab may go on with when the server can't be reached; null: nothing. */
export async function findKept(): Promise<{ device: Place; picture: SittingPicture } | null> {
	const tab = keptIn<Tab>('sessionStorage', TAB);
	if (!tab) return null;
	const store = await LocalStore.open(tab.key);
	const kept = await store.keptPaper<{ picture: SittingPicture }>(tab);
	return kept?.paper.picture
		? { device: { sittingId: tab.sittingId, epoch: tab.epoch }, picture: kept.paper.picture }
		: null;
}
