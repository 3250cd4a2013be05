/** What is asked for, as whoever asks chooses it; the officer decides what is given. */
export const REQUEST_WHAT = {
	more_time: 'More time',
	another_time: 'Another time',
	breaks: 'Breaks',
	apart: 'A room apart',
	aid: 'An aid, or somebody beside them',
	again: 'To sit it again, or go on',
	other: 'Something else'
} as const;
export type RequestWhat = keyof typeof REQUEST_WHAT;
export const REQUEST_WHATS = Object.keys(REQUEST_WHAT) as [RequestWhat, ...RequestWhat[]];

export const ASKED_AS = { proctor: 'proctor', teacher: 'teacher', candidate: 'the candidate' } as const;
export type AskedAs = keyof typeof ASKED_AS;

export const REQUEST_STATES = {
	open: 'Open',
	given: 'Given',
	declined: 'Declined',
	taken_back: 'Taken back'
} as const;
export type RequestState = keyof typeof REQUEST_STATES;

/** So many may wait for a decision about one person at a time: whoever presses again and again fills no list. */
export const MOST_OPEN = 6;
/** So many may be asked about one person in a day, those taken back again included. */
export const MOST_A_DAY = 15;

/** What a letter about a decision is made of. */
export type Decision = {
	/** Who gets it. */
	to: string;
	candidate: string;
	/** It goes to the candidate themselves. */
	isTheirs: boolean;
	what: RequestWhat;
	/** The session that it is about; null: none in particular. */
	session: string | null;
	state: 'given' | 'declined';
	note: string;
};

/** The mail that tells whoever asked, and the candidate, what was decided. */
export function decisionLetter(told: Decision): { subject: string; body: string } {
	const whose = told.isTheirs ? 'your request' : `your request for ${told.candidate}`;
	const about = told.session ? ` for ${told.session}` : '';
	const decided = told.state === 'given' ? 'has been granted' : 'has not been granted';
	return {
		subject: `Decided: ${whose}`,
		body: [
			`Dear ${told.to},`,
			`${whose} (${REQUEST_WHAT[told.what].toLowerCase()}${about}) ${decided}.`,
			...(told.note ? [told.note] : [])
		].join('\n\n')
	};
}
