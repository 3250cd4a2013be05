import { ENTRY_REFUSALS, type EntryRefusal } from '../access';

/** Why a command is refused, and what would work instead. Every sentence that a refusal shows stands here or in `core/access`. */
export type Refusal = { code: RefusalCode; message: string; instead?: string };

const SENTENCES = {
	already: { message: 'Already done.', instead: 'There is nothing more to do.' },
	not_from_this_state: { message: 'This cannot be done now: the candidate’s state has changed.' },
	nothing_to_take_back: {
		message: 'This cannot be undone any more: too much time has passed, or something else has happened since.',
		instead: 'Choose from what the candidate’s panel offers.'
	},
	not_allowed: { message: 'You may not do this.', instead: 'A coordinator of this site can.' },
	session_over: {
		message: 'This session has ended.',
		instead: 'Put the candidate into another session of the same paper, or give an own window.'
	},
	came_back: {
		message: 'This paper was closed or reloaded.',
		instead: 'Speak to your proctor. Your answers are safe.'
	},
	barred: { message: 'The proctor is holding this place.', instead: 'Raise your hand and speak to the proctor.' },
	second_device: {
		message: 'You are already signed in on another device.',
		instead: 'Go back to that device, or ask the proctor to free it.'
	},
	already_ended: {
		message: 'This sitting has been handed in.',
		instead: 'If that was a mistake, a coordinator can reopen it.'
	},
	no_device: { message: 'No device is bound to this sitting.', instead: 'The candidate signs in at the door first.' },
	room_waits: {
		message: 'The room has not been started yet.',
		instead: 'Stay on this page: everyone starts together.'
	},
	not_open_yet: {
		message: 'This paper has not started yet.',
		instead: 'Stay on this page: it counts down to the start, and you can begin then.'
	},
	start_word_wrong: { message: 'That is not the start word.', instead: 'Look at the board, or ask the proctor.' },
	finish_word_wrong: { message: 'That is not the finish word.', instead: 'Ask the proctor for it.' },
	identity_unconfirmed: { message: 'You have not confirmed who you are yet.', instead: 'Answer "Is this you?" first.' },
	client_unproven: {
		message: 'This paper can only be sat in the sealed client.',
		instead: 'Open the sealed client on this device and come in from there. See /sit/client for how to get it.'
	},
	client_outdated: {
		message: 'This sealed client is too old for this paper.',
		instead: 'Update it as described at /sit/client and come in again. Nothing of yours is lost.'
	},
	no_break_now: {
		message: 'A break can be taken while you are working.',
		instead: 'Speak to your proctor if you need to leave the room now.'
	},
	no_break_left: {
		message: 'No break is left.',
		instead: 'Raise your hand if you need to leave the room.'
	},
	device_unchecked: {
		message: 'This device has not been checked yet.',
		instead: 'Do the short list on this page first.'
	},
	time_over: { message: 'The time for this paper is over.', instead: 'A proctor can give minutes back.' },
	time_not_over: { message: 'Time is not up yet.', instead: 'Hand in for the candidate, or end the session.' },
	not_begun: { message: 'This sitting has not begun.', instead: 'Mark absent, or turn away at the door.' },
	has_begun: {
		message: 'They have already begun, so they cannot be marked absent.',
		instead: 'Carry them over: they keep every answer and the time they have left.'
	},
	over_not_carried: {
		message: 'Their time is up, so nothing is left to carry over.',
		instead: 'Hand in for them, or give minutes back first.'
	},
	no_time_left: { message: 'No working time is left.', instead: 'Grant extra minutes first, then reopen.' },
	another_day: {
		message: 'It was handed in on another day.',
		instead: 'A grant that reopens it on a later day makes this possible.'
	},
	reason_missing: { message: 'A reason is needed.', instead: 'Say in a few words why.' },
	gone: { message: 'This sitting has just changed.', instead: 'Look again: the screen now shows its current state.' }
} as const satisfies Record<string, { message: string; instead?: string }>;

export type RefusalCode = keyof typeof SENTENCES | EntryRefusal;
export const REFUSAL_CODES = Object.keys(SENTENCES) as (keyof typeof SENTENCES)[];

/** A refusal that undoes what has been written around it. */
export class RefusalError extends Error {
	override readonly name = 'RefusalError';
	readonly code: RefusalCode;
	constructor(
		readonly refusal: Refusal,
		readonly waitSeconds?: number,
		/** What else belongs to the answer. */
		readonly more?: object
	) {
		super(refusal.message);
		this.code = refusal.code;
	}
}

/** The refusal with its sentences. */
export function refusal(code: RefusalCode): Refusal {
	const text: { message: string; instead?: string } = { ...SENTENCES, ...ENTRY_REFUSALS }[code];
	return { code, ...text };
}
