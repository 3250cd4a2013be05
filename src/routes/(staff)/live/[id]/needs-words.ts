import type { Need } from '$core/room';
import { localTime } from '$core/time';
import { clockLength } from '$ui/durations';

/** What is the matter, in a sentence that says what is safe and what presses. */
export function needInWords(need: Need, now: number, questions: number, zone: string): string {
	const { seat } = need;
	const for_ = clockLength(now - need.since);
	switch (need.kind) {
		case 'line_lost':
			return `Line lost ${for_} ago. ${seat.answered === 1 ? 'One answer is' : `${seat.answered} answers are`} safe here.`;
		case 'second_device':
			return `Tried to sign in on another device (${seat.otherDevice?.name}). The first one is still bound.`;
		case 'at_door':
			return `At the door for ${for_}.${seat.lastEntry === null ? '' : ` Last entry ${localTime(seat.lastEntry, zone)}.`}`;
		case 'on_hold':
			return `On hold ${for_}: ${seat.reason ?? 'no reason given'}. ${seat.standing ? 'Clock stopped.' : 'The clock runs.'}`;
		case 'time_short':
			return `Less than five minutes left and ${questions - seat.answered} of ${questions} unanswered.`;
	}
}
