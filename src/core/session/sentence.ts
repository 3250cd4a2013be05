import { counted, isolated } from '../names';
import {
	minutesInWords,
	clockTime,
	endsByTime,
	isOverDays,
	lastEntryOf,
	longDate,
	MINUTE,
	timeAndDate,
	zoneName
} from '../time';
import type { SessionFacts } from './facts';
import { forwardBy } from './movement';
import { KIND_NAMES, type SessionRules } from './rules';

/** A piece of a sentence; the strong ones are what must be right. */
export type SentencePart = { text: string; strong?: boolean };

/**
 * The session in one sentence or two, so that a wrong paper, zone or date is read before it is saved:
 * "29 candidates of Watch A sit Tides and Currents (version 3) in the Chart Room on Tuesday 8 December at 09:00 GMT…".
 */
export function sessionSentence(facts: SessionFacts, now: number): SentencePart[] {
	const { timing } = facts.rules;
	const strong = (text: string): SentencePart => ({ text, strong: true });
	const plain = (text: string): SentencePart => ({ text });
	return [
		...(facts.kind === 'live'
			? []
			: [strong(KIND_NAMES[facts.kind]), plain(facts.kind === 'rehearsal' ? ', which does not count: ' : ': ')]),
		strong(people(facts.candidates)),
		plain(whose(facts.groups)),
		plain(
			facts.elsewhere === 0
				? ''
				: facts.elsewhere === facts.candidates
					? ', all elsewhere,'
					: ` (${facts.elsewhere} of them elsewhere)`
		),
		plain(facts.candidates === 1 ? ' sits ' : ' sit '),
		strong(isolated(facts.paper.title)),
		plain(` (version ${facts.paper.version}${formWords(facts)}) in the `),
		strong(isolated(facts.room.name)),
		...whenWords(facts, now),
		...(timing.limitMinutes === null
			? [plain(', with '), strong('no time limit')]
			: timing.questionSeconds !== null
				? [
						plain(', with '),
						strong(`${counted(timing.questionSeconds, 'second')} for each question`),
						plain(` (about ${minutesInWords(timing.limitMinutes)})`)
					]
				: [plain(' for '), strong(limitInWords(timing))]),
		plain(timing.clockStarts === 'room' ? ', all starting together' : ', each from when they begin'),
		plain(lockdownWords(facts)),
		plain('. '),
		...doorWords(facts),
		...extraWords(facts)
	];
}

/** `, 3 forms by seat`; nothing of a paper without forms. */
function formWords({ paper, rules }: SessionFacts): string {
	const { forms } = rules.order;
	if (paper.forms.length === 0) return '';
	if (paper.forms.some(({ name }) => name === forms)) return `, form ${forms} for all`;
	return `, ${paper.forms.length} forms ${forms === 'dealt' ? 'drawn' : `by ${forms}`}`;
}

/** `60 minutes`, or with minutes to finish up `60 minutes (62 with grace)`. */
function limitInWords({ limitMinutes, graceMinutes }: SessionFacts['rules']['timing']): string {
	return `${minutesInWords(limitMinutes!)}${graceMinutes > 0 ? ` (${limitMinutes! + graceMinutes} with grace)` : ''}`;
}

/** On one day at its time, or at any time of several days. */
function whenWords({ window, zone }: SessionFacts, now: number): SentencePart[] {
	const [opens, closes] = [window.opens, window.closes];
	const at = (instant: number) => `${clockTime(instant, zone)} ${zoneName(instant, zone)}`;
	const day = longDate(opens, zone, now);
	if (closes === null || !isOverDays(window, zone))
		return [{ text: ' on ' }, { text: day, strong: true }, { text: ' at ' }, { text: at(opens), strong: true }];
	return [
		{ text: ' at any time from ' },
		{ text: `${day}, ${clockTime(opens, zone)}`, strong: true },
		{ text: ' to ' },
		{ text: `${longDate(closes, zone, now)}, ${at(closes)}`, strong: true }
	];
}

function people(count: number): string {
	return count === 1 ? '1 candidate' : `${count === 0 ? 'No' : count} candidates`;
}

function whose(groups: SessionFacts['groups']): string {
	if (groups.length === 0) return '';
	const names = groups.map((group) => isolated(group.name));
	const last = names.pop()!;
	return ` of ${names.length > 0 ? `${names.join(', ')} and ` : ''}${last}`;
}

function lockdownWords({ rules: { lockdown } }: SessionFacts): string {
	if (lockdown.level === 'sealed') return ', in a sealed client';
	return lockdown.level === 'watched' ? ', watched' : '';
}

function doorWords({ rules: { timing, admission }, window, zone }: SessionFacts): SentencePart[] {
	const door = timeAndDate(window.opens - timing.doorOpensMinutes * MINUTE, zone, window.opens);
	const entry = lastEntryOf(timing, window);
	const at = (instant: number) => timeAndDate(instant, zone, window.opens);
	// With a common start nobody has a beginning of their own.
	const close =
		window.closes === null || (timing.atClose !== 'cut' && timing.clockStarts === 'room')
			? ''
			: `, and work ${timing.atClose === 'cut' ? 'ends for everyone at' : 'can be begun until'} ${at(window.closes)}`;
	return [
		{ text: 'The door opens at ' },
		{ text: door, strong: true },
		{ text: entry === null ? '' : `, last entry ${at(entry)}` },
		{ text: admission === 'automatic' ? ', and admission is automatic' : '' },
		{ text: `${close}.` },
		...(isOverDays(window, zone) ? [{ text: ' Each day has a door code of its own.' }] : [])
	];
}

function extraWords({ extraTime, zone, window }: SessionFacts): SentencePart[] {
	if (extraTime.count === 0) return [];
	const who = extraTime.count === 1 ? ' One has extra time' : ` ${extraTime.count} have extra time`;
	if (extraTime.lastEnds === null) return [{ text: `${who}.` }];
	return [
		{ text: `${who}; the last finishes by ` },
		{ text: timeAndDate(extraTime.lastEnds, zone, window.opens), strong: true },
		{ text: '.' }
	];
}

/** What becomes of work when time is up, how one moves through the paper, and what is seen afterwards, in one breath. */
export function rulesSentence({ timing, movement, review }: SessionRules): string {
	const atTimeUp = {
		hand_in: 'work is handed in for them',
		stop: 'no more answers are taken, and they hand in',
		flag: 'they may go on, marked late',
		zero: 'what is not handed in is not scored'
	}[timing.atTimeUp];
	const shown = {
		one: 'One question at a time',
		pages: `${counted(movement.perPage, 'question')} a page`,
		all: 'All questions on one page'
	}[movement.shown];
	const way = movement.shown === 'all' ? '' : forwardBy(movement) === null ? ', back and forth' : ', and no way back';
	const seen = {
		nothing: 'they see nothing of the result here',
		score: 'they see their score',
		own_answers: 'they see their score and answers',
		key: 'they see their answers and the right ones'
	}[review.shows];
	const when = {
		at_once: 'at once',
		session_ended: 'when the session has ended',
		all_finished: 'when all have finished'
	}[review.when];
	return [
		endsByTime(timing) ? `When time is up, ${atTimeUp}.` : 'No time ends the work.',
		`${shown}${way}.`,
		`Afterwards ${seen}${review.shows === 'nothing' ? '' : ` ${when}`}.`
	].join(' ');
}
