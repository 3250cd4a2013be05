/** What every browser here shows or plays; pictures of other types become WebP when they are kept. */
export const MEDIUM_TYPES = {
	'image/webp': { shows: 'picture', extension: 'webp' },
	'audio/mpeg': { shows: 'sound', extension: 'mp3' },
	'audio/ogg': { shows: 'sound', extension: 'ogg' },
	'video/mp4': { shows: 'film', extension: 'mp4' },
	'video/webm': { shows: 'film', extension: 'webm' }
} as const;
export type MediumType = keyof typeof MEDIUM_TYPES;

/** A file that a question shows or plays. The file itself lies outside the paper. */
export type Medium = {
	/** The SHA-256 of its bytes in hexadecimal, by which it is found. */
	file: string;
	type: MediumType;
	/** A description for those who cannot see or hear it. */
	alt: string;
	/** Of a picture, in pixels: its place is kept before it has come. */
	width?: number;
	height?: number;
	/** How often each candidate may play it; as often as they like where nothing is said. */
	plays?: number;
};

/** What stands before several questions and belongs to all of them: they stay together, in their order. */
export type Stimulus = { id: string; text: string; media?: Medium[] };

/** All that a question shows and plays, what stands before it first. */
export function mediaBeside({ media = [], stimulus }: { media?: Medium[]; stimulus?: Stimulus }): Medium[] {
	return [...(stimulus?.media ?? []), ...media];
}

/** Whether a file is a picture, sound or film. */
export function shows({ type }: Pick<Medium, 'type'>): 'picture' | 'sound' | 'film' {
	return MEDIUM_TYPES[type].shows;
}

/**
 * How often something was played by one candidate. `of`: its question or shared text, under the name that their device
 * knows; `place`: where it stands there, from 0.
 */
export type Played = { of: string; place: number; times: number };

/** How often something may still be played. null: as often as one likes. */
export function playsLeft({ plays }: Medium, played: number): number | null {
	return plays === undefined ? null : Math.max(0, plays - played);
}

/**
 * Which of the questions around this place share its text, by number, from 1.
 * @param at the question's place, from 0
 * @param idAt the id of the text that the question at a place shares; undefined: none, or there is no question
 */
export function sharedAround(at: number, idAt: (place: number) => string | undefined): { from: number; to: number } {
	const isOfIt = (place: number) => idAt(at) !== undefined && idAt(place) === idAt(at);
	let [from, to] = [at, at];
	while (isOfIt(from - 1)) from--;
	while (isOfIt(to + 1)) to++;
	return { from: from + 1, to: to + 1 };
}
