/** How a simulated candidate behaves. */
export type Kind = 'steady' | 'slow' | 'rapid' | 'dropper' | 'early' | 'late' | 'writer' | 'away';

export type Behaviour = {
	/** Seconds of thought before an answer: from, to. */
	think: [number, number];
	/** Share of the questions answered before handing in. */
	finish: number;
	/** Chance, before an answer, that the line drops, and for how many seconds. */
	drop: { chance: number; seconds: [number, number] };
	/** How long an essay gets, words. */
	words: number;
	/** Seconds after the others that this one comes. */
	comes: [number, number];
};

const STEADY: Behaviour = {
	think: [45, 120],
	finish: 1,
	drop: { chance: 0, seconds: [0, 0] },
	words: 12,
	comes: [0, 20]
};

export const BEHAVIOURS: Record<Kind, Behaviour> = {
	steady: STEADY,
	slow: { ...STEADY, think: [90, 240], comes: [0, 30] },
	rapid: { ...STEADY, think: [1, 4], comes: [0, 10] },
	dropper: { ...STEADY, think: [40, 110], drop: { chance: 0.25, seconds: [20, 100] } },
	early: { ...STEADY, think: [15, 40], finish: 0.7, comes: [0, 10] },
	late: { ...STEADY, think: [40, 100], comes: [120, 600] },
	/** Writes essays as long as any are. */
	writer: { ...STEADY, words: 2_000 },
	/** Without a line for ten minutes again and again. */
	away: { ...STEADY, think: [20, 60], drop: { chance: 0.5, seconds: [600, 600] }, words: 200 }
};

/** The mixture of a common room. */
export const ROOM: Kind[] = [
	'steady',
	'steady',
	'steady',
	'slow',
	'steady',
	'early',
	'dropper',
	'steady',
	'rapid',
	'late'
];
