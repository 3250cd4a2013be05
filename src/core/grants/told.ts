import { languageName } from '../session';
import {
	allottedMinutes,
	clockTime,
	isOverDays,
	longDate,
	minutesInWords,
	minutesLeft,
	openUntil,
	timeAndDate,
	type Reckoning,
	type TimingRules
} from '../time';
import type { Merge } from './grant';
import { LOOK_NAMES } from './merge';

/** What the sentences for a candidate are made of. */
export type ToTell = {
	merge: Merge;
	/** They have begun: what is left of their time counts, and not what they had. */
	begun: boolean;
	reckoning: Pick<
		Reckoning,
		'remaining' | 'window' | 'ownWindow' | 'windowEnd' | 'doorOpens' | 'lastEntry' | 'credits'
	>;
	timing: TimingRules;
	/** Where they sit when nothing else was granted. */
	room: string;
	zone: string;
};

/**
 * What a candidate is told of their day, in their words: time, window and place, and what else was given to them. The same
 * sentences stand on their own page and before whoever gives a grant.
 */
export function toldToCandidate({ merge, begun, reckoning, timing, room, zone }: ToTell): string[] {
	return [
		begun ? leftInWords(reckoning.remaining) : timeInWords(timing, merge),
		whenInWords(reckoning, zone),
		`You sit in the ${merge.room?.name ?? room}${merge.proctor ? `; ${merge.proctor.name} is with you` : ''}.`,
		...givenInWords(merge)
	];
}

function leftInWords(remaining: number | null): string {
	const left = remaining === null ? null : minutesLeft(remaining);
	const time = left === null ? '' : ` ${minutesInWords(left)} ${left === 1 ? 'is' : 'are'} left.`;
	return `You go on where you stopped: all your answers are kept.${time}`;
}

function timeInWords(timing: TimingRules, { grants }: Merge): string {
	const total = allottedMinutes(timing, grants);
	if (total === null) return 'You have no time limit.';
	const added = total - timing.limitMinutes!;
	const back = grants.creditsMinutes + grants.earlierCreditsMinutes;
	const why = [
		added > 0 ? `${timing.limitMinutes}, and ${added} more for you` : '',
		back > 0 ? `${back} given back` : ''
	].filter(Boolean);
	return `You have ${total + back} minutes${why.length > 0 ? `: ${why.join(', and ')}` : ''}.`;
}

function whenInWords(
	{ window, windowEnd, doorOpens, lastEntry, ownWindow }: ToTell['reckoning'],
	zone: string
): string {
	const whose = ownWindow ? 'It opens for you' : 'It opens';
	const entry =
		lastEntry === null
			? `the door is open from ${clockTime(doorOpens, zone)}`
			: `come between ${clockTime(doorOpens, zone)} and ${timeAndDate(lastEntry, zone, doorOpens)}`;
	const isOver = windowEnd !== null && isOverDays({ opens: window.opens, closes: windowEnd }, zone);
	const closes =
		windowEnd === null
			? ''
			: isOver
				? ` It is ${openUntil(windowEnd, zone)}.`
				: ` It closes at ${clockTime(windowEnd, zone)}.`;
	return `${whose} on ${longDate(window.opens, zone)} at ${clockTime(window.opens, zone)}; ${entry}.${closes}`;
}

function givenInWords(merge: Merge): string[] {
	const { breaks, display, calculator, language, beside, extraAttempts } = merge;
	return [
		breaks &&
			`You may take ${breaks.count === 1 ? 'a break' : `${breaks.count} breaks`} of ${breaks.minutes} minutes; the clock stands still meanwhile.`,
		display.magnification > 1 && `The paper is enlarged ${display.magnification} times at first.`,
		display.contrast && 'The paper has strong contrast at first.',
		display.colours && `The paper is ${LOOK_NAMES[display.colours]} at first.`,
		display.spacing !== null && 'Its lines stand wider at first.',
		display.ruler && 'A reading ruler lies on it at first.',
		merge.readAloud && 'Your device can read the questions aloud to you.',
		...merge.aids.map((name) => `You have this aid: ${name}.`),
		calculator && `You have a ${calculator} calculator.`,
		language && `The paper is in ${languageName(language)} at first, as far as it is there.`,
		...beside.map((one) => `${BESIDE_TOLD[one.as]}${one.name ? `: ${one.name}` : ''}.`),
		merge.separateRoom && 'You sit apart from the others.',
		merge.paperCopy && 'You get a copy of the paper on paper.',
		merge.mayReopen && 'You may go on another day; talk to your proctor.',
		extraAttempts > 0 && `You may sit it ${extraAttempts === 1 ? 'once' : `${extraAttempts} times`} more.`
	].filter((line): line is string => typeof line === 'string');
}

const BESIDE_TOLD = {
	reader: 'Somebody reads to you',
	scribe: 'Somebody writes for you',
	assistant: 'Somebody helps you'
} as const;
