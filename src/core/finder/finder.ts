import { foldName } from '../access';
import type { StaffAct } from '../room';

/** What can be asked for from anywhere by a verb and a name: "hold Cecily Moor". */
export const FINDER_ACTS = [
	'let_in',
	'hold',
	'resume',
	'minutes',
	'message',
	'move_device',
	'turn_away',
	'hand_in',
	'carry_over',
	'mark_absent',
	'reopen',
	'set_aside'
] as const satisfies readonly (StaffAct | 'minutes' | 'message')[];
export type FinderAct = (typeof FINDER_ACTS)[number];

/** How each is called, the name on screen first; longer ones before shorter ones that they begin with. */
export const FINDER_VERBS: Record<FinderAct, [string, ...string[]]> = {
	let_in: ['Let in', 'admit'],
	hold: ['Hold', 'pause'],
	resume: ['Resume', 'continue'],
	minutes: ['Give time to', 'give minutes to', 'give time', 'add time', 'minutes', 'time'],
	message: ['Message', 'write to'],
	move_device: ['Free the device of', 'free device of', 'free device', 'move device'],
	turn_away: ['Turn away', 'send away'],
	hand_in: ['Hand in for', 'hand in'],
	carry_over: ['Carry over'],
	mark_absent: ['Mark absent', 'absent'],
	reopen: ['Reopen'],
	set_aside: ['Set aside']
};

/** One line of what was found. Places come from the page itself, everything else from the server. */
export type Found = {
	kind: 'act' | 'person' | 'session' | 'paper' | 'place';
	title: string;
	/** What tells it from others; a time of its site follows where there is one. */
	detail: string;
	when?: { at: number; zone: string };
	href: string;
};

/** What a text asks for: an act, where it begins with a verb, and the words to find somebody or something by. */
export function readWish(text: string): { act: FinderAct | null; words: string } {
	const plain = text.trim().replace(/\s+/g, ' ');
	const folded = plain.toLowerCase();
	for (const act of FINDER_ACTS)
		for (const verb of FINDER_VERBS[act]) {
			const begins = `${verb.toLowerCase()} `;
			if (folded.startsWith(begins)) return { act, words: plain.slice(begins.length).trim() };
		}
	return { act: null, words: plain };
}

/** The places whose names have every word of the text at the start of one of theirs. */
export function placesFor<T extends { name: string }>(places: readonly T[], text: string): T[] {
	const words = text.split(/\s+/).map(foldName).filter(Boolean);
	if (words.length === 0) return [...places];
	return places.filter(({ name }) => {
		const parts = name.split(/[\s-]+/).map(foldName);
		return words.every((word) => parts.some((part) => part.startsWith(word)));
	});
}
