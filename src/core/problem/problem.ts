/** What every request that is refused is answered with: a code for the program, a sentence and a way out for the person. */
export type Problem = { code: string; message: string; instead?: string; waitSeconds?: number };

type Entry = { status: number; message: string; instead?: string };

/**
 * Every way in which a request is refused that is neither the door's (`core/access`) nor a sitting's (`core/sitting`).
 * The status is HTTP's.
 */
export const PROBLEMS = {
	// Who asks
	signed_out: {
		status: 401,
		message: 'You are not signed in here.',
		instead: 'Sign in again; what you had entered is kept on this page.'
	},
	/** Asked at once by the page itself, which then sends it again. */
	confirm_identity: {
		status: 403,
		message: 'Confirm that it is you.',
		instead: 'Enter your password, a code from your app, or use your passkey.'
	},
	wrong_code: {
		status: 422,
		message: 'This code is not right, or has been used.',
		instead: 'Wait for the next one, and check that the phone’s clock is right.'
	},
	wrong_passkey: {
		status: 422,
		message: 'This passkey is not known here.',
		instead: 'Try again, or sign in another way.'
	},
	not_at_the_door: {
		status: 401,
		message: 'This device is not signed in to a paper.',
		instead: 'Enter the code from the board and your number; your answers are safe.'
	},
	not_signed: {
		status: 401,
		message: 'This request does not come from the device that is signed in.',
		instead: 'Enter the code from the board and your number on this device; your answers are safe.'
	},
	/** Tried again at once by the page itself. */
	sign_anew: {
		status: 401,
		message: 'This request carries an old nonce.',
		instead: 'Send it again with the new one.'
	},
	link_over: {
		status: 404,
		message: 'This link is not valid any more.',
		instead: 'Ask the people who give grants for a new one.'
	},
	too_many_requests: {
		status: 429,
		message: 'Too many requests come from here just now.',
		instead: 'Wait ten minutes, then send it again.'
	},
	another_day: {
		status: 409,
		message: 'It ended on another day.',
		instead: 'Tick that it may go on on another day.'
	},
	changed_meanwhile: {
		status: 409,
		message: 'Somebody else has just given something.',
		instead: 'Look at what they have now; press once more if this is still to be given.'
	},
	changed_since_read: {
		status: 409,
		message: 'Something has changed since you read this, so it may do something else now.',
		instead: 'Read what it does now, then confirm it.'
	},
	ends_work: {
		status: 409,
		message: 'Somebody would be out of time at once.',
		instead: 'Withdraw it all the same, or wait until they have handed in.'
	},
	not_yours: {
		status: 403,
		message: 'You are not allowed to see or do this.',
		instead: 'A coordinator of the site can, and can name you as its proctor.'
	},

	paper_changed: {
		status: 409,
		message: 'Somebody else has changed this in the meantime.',
		instead: 'Look at both, and keep the one that is right.'
	},
	title_taken: {
		status: 409,
		message: 'There is another paper with this title.',
		instead: 'Open that one, or choose a title that tells the two apart.'
	},
	paper_full: {
		status: 422,
		message: 'A paper has at most 500 questions.',
		instead: 'Split it into two papers.'
	},
	paper_not_ready: {
		status: 422,
		message: 'This paper cannot be sat like this.',
		instead: 'Fix what is listed beside it, then freeze it.'
	},

	other_origin: {
		status: 403,
		message: 'This request comes from another site.',
		instead: 'Use the pages of Otium itself.'
	},

	// What is asked
	not_json: { status: 415, message: 'This takes JSON.', instead: 'Send it with content-type application/json.' },
	too_large: { status: 413, message: 'That is too much at once.', instead: 'Send it in smaller parts.' },
	file_too_large: { status: 413, message: 'This file is larger than 10 MB.', instead: 'Split it by group, or zip it.' },
	timetable_too_large: {
		status: 413,
		message: 'This timetable is larger than 2 MB.',
		instead: 'Export a shorter period.'
	},
	unreadable: { status: 400, message: 'This can’t be read as JSON.', instead: 'Send it again.' },
	file_unreadable: { status: 400, message: 'The file did not arrive whole.', instead: 'Send it again.' },
	malformed: { status: 400, message: 'Something in it is not valid.', instead: 'Correct it and send it again.' },
	wishes_malformed: {
		status: 400,
		message: 'A file and what to do with it are needed.',
		instead: 'Choose a file on the import page.'
	},
	attachment: {
		status: 422,
		message: 'This file can’t be attached.',
		instead: 'A picture (PNG, JPEG), a PDF or plain text of at most 700 kB can.'
	},
	photo: {
		status: 422,
		message: 'This file is not a photo that can be kept.',
		instead: 'A JPEG or PNG of at most 400 kB can.'
	},
	medium: {
		status: 422,
		message: 'This file can’t be shown or played with a question.',
		instead: 'A picture (PNG, JPEG, WebP, SVG), sound (MP3, OGG) or film (MP4, WebM) of at most 10 MB can.'
	},
	handed_file: {
		status: 422,
		message: 'This file can’t be handed over.',
		instead: 'A photo (JPEG, PNG, WebP) or a PDF of at most 10 MB can.'
	},
	handed_enough: {
		status: 409,
		message: 'No more files are taken here.',
		instead: 'Put those that belong to the answer into one PDF, or ask the proctor.'
	},
	takes_no_files: {
		status: 409,
		message: 'No files are taken here now.',
		instead: 'The screen of the test says what can still be done.'
	},
	hand_code: {
		status: 410,
		message: 'This code is no longer valid.',
		instead: 'Show a new one on the screen of the test.'
	},
	snapshot: { status: 422, message: 'This picture was not accepted.' },
	unknown_question: {
		status: 422,
		message: 'An answer is for a question that is not on this form.',
		instead: 'Load the page again; what was saved is safe.'
	},
	number_ahead: {
		status: 422,
		message: 'The number of an answer is too far ahead.',
		instead: 'Load the page again; what was saved is safe.'
	},
	unfitting_answer: {
		status: 422,
		message: 'An answer does not fit its question.',
		instead: 'Load the page again and enter it once more. What was saved is safe.'
	},
	reason_missing: { status: 422, message: 'A reason is needed.', instead: 'Say in a few words why, and who asked.' },
	unknown_word: { status: 422, message: 'There is nothing by that name.' },
	/** What was sent can be read and is not what is needed; in words of its own. */
	not_taken: { status: 422, message: 'This was not accepted.' },
	/** What a rule of the product refuses in words of its own. */
	refused: { status: 409, message: 'This was refused.' },

	/** Said by the database itself, whoever asks. */
	administration_closed: {
		status: 409,
		message: 'This administration is closed, so nothing of it can be changed.',
		instead: 'Read it under Close-out. If a result is wrong, propose an addendum under Archive.'
	},

	too_many_lines: {
		status: 429,
		message: 'Too many windows are open.',
		instead: 'Close some of them, then load this page again.'
	},

	// What it is about
	not_found: {
		status: 404,
		message: 'There is nothing here by that name.',
		instead: 'Go back to the list and choose from it.'
	},
	nothing_to_plan: {
		status: 409,
		message: 'There is no administration yet to plan a session in.',
		instead: 'The person who set up this server has to enter sites, rooms, papers and candidates first.'
	},

	// How things stand
	already: { status: 409, message: 'Already done.', instead: 'There is nothing more to do.' },
	behind: {
		status: 409,
		message: 'This draft was changed in another tab.',
		instead: 'Load this page again to continue from there.'
	},
	gone: {
		status: 409,
		message: 'This draft was planned or deleted in another tab.',
		instead: 'Go back to the list of sessions.'
	},
	session_over: { status: 409, message: 'This session has ended.', instead: 'Give an own window on the Grants page.' },
	window_over: {
		status: 409,
		message: 'The session’s own time is over.',
		instead: 'Give a window of their own on the Grants page.'
	},
	blanks_left: {
		status: 409,
		message: 'Questions are still blank.',
		instead: 'This paper is handed in when all are answered.'
	},
	none_held_back: {
		status: 409,
		message: 'No answer of theirs is held back now.',
		instead: 'Somebody else has counted them.'
	},
	no_review: {
		status: 409,
		message: 'There is nothing to see yet.',
		instead: 'The people who run this examination decide what you see, and when.'
	},
	slow_down: {
		status: 429,
		message: 'That was too much in too short a time.',
		instead: 'Wait a moment; what was not taken is kept here and sent again.'
	},
	not_saved_yet: { status: 503, message: 'Not saved yet.' }
} as const satisfies Record<string, Entry>;
export type ProblemCode = keyof typeof PROBLEMS;

/** A request that is refused, thrown from wherever that is found out; the route turns it into its answer. */
export class ProblemError extends Error {
	override readonly name = 'ProblemError';
	readonly code: string;
	/** @param more what the answer carries beside the problem */
	constructor(
		readonly status: number,
		readonly problem: Problem,
		readonly more: object = {}
	) {
		super(problem.message);
		this.code = problem.code;
	}
}

type Told = Partial<Pick<Problem, 'message' | 'instead' | 'waitSeconds'>> & { status?: number };

/**
 * Refuses by a code of the catalogue, with other words where the case is known better.
 * @throws ProblemError always
 */
export function fail(code: ProblemCode, { status, ...told }: Told = {}, more?: object): never {
	const { status: usual, ...words }: Entry = PROBLEMS[code];
	throw new ProblemError(status ?? usual, { code, ...words, ...told }, more);
}
