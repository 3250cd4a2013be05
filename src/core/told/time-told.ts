import { counted, listed } from '../names';
import type { SessionRules } from '../session';
import {
	allottedMinutes,
	clockTime,
	isOverDays,
	lastEntryOf,
	longDate,
	MINUTE,
	minutesAndGrace,
	minutesInWords,
	NO_GRANTS,
	openUntil,
	timeAndDate
} from '../time';
import type { BindingFacts } from './told';

/** Which of the usual three kinds of schedule this is, and what an interruption costs under it. */
export function scheduleInWords({ timing }: Pick<SessionRules, 'timing'>): string {
	const kind =
		timing.endedBy === 'proctor'
			? 'By hand: all start together and the proctor ends it'
			: timing.clockStarts === 'room'
				? 'Fixed: all start and end together'
				: timing.clockStops === 'never'
					? 'Own clock: any start in the window, and then the clock never stops'
					: 'Own time: any start in the window, and everyone has the full time';
	return `${kind}. ${costOfInterruption(timing)}`;
}

function costOfInterruption({ clockStops, questionSeconds }: SessionRules['timing']): string {
	if (questionSeconds !== null && clockStops !== 'hold_or_lost')
		return `${clockStops === 'never' ? 'A hold or a lost connection' : 'A lost connection'} can cost a question, and nothing brings it back.`;
	switch (clockStops) {
		case 'never':
			return 'A hold or a lost connection costs time, which the proctor can give back.';
		case 'hold':
			return 'A hold costs no time; a lost connection does, which the proctor can give back.';
		case 'hold_or_lost':
			return 'Neither a hold nor a lost connection costs time.';
	}
}

/** When one may begin. */
export function whenOf({ rules: { timing }, window, zone }: BindingFacts): (string | false)[] {
	const opens = clockTime(window.opens - timing.doorOpensMinutes * MINUTE, zone);
	const entry = lastEntryOf(timing, window);
	const lasts = window.closes !== null && isOverDays(window, zone);
	return [
		`The door opens at ${opens} on ${longDate(window.opens, zone)}${entry === null || lasts ? '' : `; the last entry is at ${clockTime(entry, zone)}`}.`,
		lasts &&
			`It is ${openUntil(window.closes!, zone)}.${entry !== null && entry < window.closes! ? ` The last entry is at ${timeAndDate(entry, zone, window.opens)}.` : ''}`
	];
}

/** How long one has, and what stops or ends the time. */
export function timeOf({ rules: { timing, pauses }, window, zone, own }: BindingFacts): (string | false)[] {
	const minutes = own ? own.minutes : allottedMinutes(timing, NO_GRANTS);
	const each = own ? own.questionSeconds : timing.questionSeconds;
	const end = window.closes === null ? null : timeAndDate(window.closes, zone, window.opens);
	const handed = timing.endedBy === 'proctor';
	const isCut = end !== null && timing.atClose === 'cut';
	/** Without a limit and a close that cuts, time ends nobody's work, and nothing comes before its end. */
	const ends = minutes !== null || handed || isCut;
	// Nobody knows beforehand when the proctor ends it; and what is as long as all of one's time warns of nothing.
	const warnings = handed ? [] : timing.warnAtMinutes.filter((before) => minutes === null || before < minutes);
	return [
		each !== null &&
			`You have ${counted(each, 'second')} for each question. When they are up the next question comes, and you can’t go back.`,
		own?.goesOnWith
			? goingOn(own.goesOnWith.minutes, timing.graceMinutes)
			: handed
				? `Your proctor ends the paper for everyone${minutes === null ? '' : `; about ${minutesInWords(minutes)} ${minutes === 1 ? 'is' : 'are'} planned`}. Whoever has extra time goes on for as much longer as they are due.`
				: minutes === null
					? 'There is no time limit.'
					: timing.graceMinutes > 0
						? `You have ${each === null ? '' : 'at most '}${minutesInWords(minutes)}, and ${timing.graceMinutes} more to finish and hand in: ${minutesAndGrace(minutes, timing.graceMinutes)} in all. Answers in the last ${timing.graceMinutes === 1 ? 'minute' : `${timing.graceMinutes} minutes`} are marked late.`
						: `You have ${minutesInWords(minutes)}${each === null ? '' : ' in all'}.`,
		(handed || minutes === null) &&
			ends &&
			timing.graceMinutes > 0 &&
			`At the end there ${timing.graceMinutes === 1 ? 'is 1 minute' : `are ${timing.graceMinutes} minutes`} to finish and hand in; answers in ${timing.graceMinutes === 1 ? 'it' : 'them'} are marked late.`,
		timing.clockStarts === 'room'
			? 'Time runs for everyone from when the room is started: whoever comes late has less.'
			: minutes !== null && !handed && !own?.goesOnWith && 'Your time runs from when you see the first question.',
		minutes !== null || handed ? clockInWords(timing.clockStops, each !== null) : false,
		isCut && `At ${end} work ends for everyone, also for those who began late.`,
		// With a common start nobody has a beginning of their own.
		end !== null &&
			!isCut &&
			timing.clockStarts === 'candidate' &&
			`You can begin until ${end}, and then finish in your own time.`,
		warnings.length > 0 &&
			(minutes !== null || isCut) &&
			`You are warned ${listed([...warnings].sort((a, b) => b - a).map(String))} ${warnings.length === 1 && warnings[0] === 1 ? 'minute' : 'minutes'} before the end.`,
		pauses.most > 0 &&
			`You may take ${pauses.most === 1 ? 'one pause' : `${pauses.most} pauses`} of ${minutesInWords(pauses.minutes)}${pauses.most === 1 ? '' : ' each'}; the clock ${pauses.stopsClock ? 'stops' : 'runs on'} while you pause.`,
		own?.breaks
			? `You were given ${own.breaks.count === 1 ? 'a break' : `${own.breaks.count} breaks`} of ${minutesInWords(own.breaks.minutes)}; the clock stops during a break.`
			: false
	];
}

/** What somebody reads who goes on elsewhere, or on another device. */
function goingOn(minutes: number | null, grace: number): string {
	const left =
		minutes === null
			? ''
			: ` ${minutesInWords(minutes)} of your time ${minutes === 1 ? 'is' : 'are'} left${grace > 0 ? `, and ${minutesInWords(grace)} more to finish and hand in` : ''}.`;
	return `You go on where you stopped: all your answers are kept.${left}`;
}

function clockInWords(clockStops: SessionRules['timing']['clockStops'], isEach: boolean): string {
	switch (clockStops) {
		case 'never':
			if (isEach) return 'The clock never stops, also while you are interrupted.';
			return 'The clock never stops: if you are interrupted, ask your proctor to give the time back.';
		case 'hold':
			return 'The clock stops while your proctor pauses you. If your connection drops, keep working: the clock runs on.';
		case 'hold_or_lost':
			return 'The clock stops while your proctor pauses you, and while your connection is lost.';
	}
}

/** How often, in words. */
export const times = (count: number) => (count === 1 ? 'once' : count === 2 ? 'twice' : `${count} times`);

/** `30 minutes`, `2 hours`, `3 days`. */
export function inLength(minutes: number): string {
	const [size, word] = minutes % 1_440 === 0 ? [1_440, 'day'] : minutes % 60 === 0 ? [60, 'hour'] : [1, 'minute'];
	const count = minutes / size;
	return `${count} ${word}${count === 1 ? '' : 's'}`;
}
