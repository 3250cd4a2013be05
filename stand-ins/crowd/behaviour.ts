/** How a simulated candidate behaves. */
export type Kind = 'steady' | 'slow' | 'rapid' | 'dropper' | 'early' | 'late';

export type Behaviour = {
	/** Seconds of thought before an answer: from, to. */
	think: [number, number];
	/** Share of the questions answered before handing in. */
	finish: number;
	/** Chance, before an answer, that the line drops, and for how many seconds. */
	drop: { chance: number; seconds: [number, number] };
	/** Seconds after the others that this one comes. */
	comes: [number, number];
};

export const BEHAVIOURS: Record<Kind, Behaviour> = {
	steady: { think: [45, 120], finish: 1, drop: { chance: 0, seconds: [0, 0] }, comes: [0, 20] },
	slow: { think: [90, 240], finish: 1, drop: { chance: 0, seconds: [0, 0] }, comes: [0, 30] },
	rapid: { think: [1, 4], finish: 1, drop: { chance: 0, seconds: [0, 0] }, comes: [0, 10] },
	dropper: { think: [40, 110], finish: 1, drop: { chance: 0.25, seconds: [20, 100] }, comes: [0, 20] },
	early: { think: [15, 40], finish: 0.7, drop: { chance: 0, seconds: [0, 0] }, comes: [0, 10] },
	late: { think: [40, 100], finish: 1, drop: { chance: 0, seconds: [0, 0] }, comes: [120, 600] }
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
