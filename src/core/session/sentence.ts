import { isolated } from '../names';
import { clockTime, longDate, MINUTE, zoneName } from '../time';
import type { SessionFacts } from './facts';
import { KIND_NAMES } from './rules';

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
	const opens = facts.window.opens;

	return [
		...(facts.kind === 'live'
			? []
			: [strong(KIND_NAMES[facts.kind]), plain(facts.kind === 'rehearsal' ? ', which does not count: ' : ': ')]),
		strong(people(facts.candidates)),
		plain(whose(facts.groups)),
		plain(facts.candidates === 1 ? ' sits ' : ' sit '),
		strong(isolated(facts.paper.title)),
		plain(` (version ${facts.paper.version}) in the `),
		strong(isolated(facts.room.name)),
		plain(' on '),
		strong(longDate(opens, facts.zone, now)),
		plain(' at '),
		strong(`${clockTime(opens, facts.zone)} ${zoneName(opens, facts.zone)}`),
		...(timing.limitMinutes === null
			? [plain(', with '), strong('no time limit')]
			: [plain(' for '), strong(`${timing.limitMinutes} minutes`)]),
		plain(timing.clockStarts === 'room' ? ', all starting together' : ', each from when they begin'),
		plain(lockdownWords(facts)),
		plain('. '),
		...doorWords(facts),
		...extraWords(facts)
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
	const door = clockTime(window.opens - timing.doorOpensMinutes * MINUTE, zone);
	const entry = timing.lastEntryMinutes === null ? window.closes : window.opens + timing.lastEntryMinutes * MINUTE;
	const close =
		window.closes === null
			? ''
			: `, and work ${timing.atClose === 'cut' ? 'ends for everyone' : 'can be begun until'} ${timing.atClose === 'cut' ? 'at ' : ''}${clockTime(window.closes, zone)}`;
	return [
		{ text: 'The door opens at ' },
		{ text: door, strong: true },
		{ text: entry === null ? '' : `, last entry ${clockTime(entry, zone)}` },
		{ text: admission === 'automatic' ? ', and admission is automatic' : '' },
		{ text: `${close}.` }
	];
}

function extraWords({ extraTime, zone }: SessionFacts): SentencePart[] {
	if (extraTime.count === 0) return [];
	const who = extraTime.count === 1 ? ' One has extra time' : ` ${extraTime.count} have extra time`;
	if (extraTime.lastEnds === null) return [{ text: `${who}.` }];
	return [
		{ text: `${who}; the last finishes by ` },
		{ text: clockTime(extraTime.lastEnds, zone), strong: true },
		{ text: '.' }
	];
}
