import { describe, expect, it } from 'vitest';
import { MINUTE } from '../time';
import { checkSession, DEFAULT_RULES, sessionSentence, type SessionFacts, type SessionRules } from '.';

const at = (clock: string) => Date.parse(`2026-12-08T${clock}:00Z`);
const facts = (change: Partial<SessionFacts> = {}, timing: Partial<SessionRules['timing']> = {}): SessionFacts => ({
	kind: 'live',
	paperTitle: 'Tides and Currents',
	paperVersion: 3,
	groups: [{ name: 'Watch A', count: 29 }],
	candidates: 29,
	room: 'Chart Room',
	seats: 30,
	zone: 'Europe/London',
	window: { opens: at('09:00'), closes: at('10:15') },
	extraTime: { count: 0, lastEnds: null },
	...change,
	rules: { ...DEFAULT_RULES, timing: { ...DEFAULT_RULES.timing, ...timing } }
});
const sentence = (one: SessionFacts) =>
	sessionSentence(one, at('08:00'))
		.map((part) => part.text)
		.join('');
const findings = (one: SessionFacts, now = at('08:00')) =>
	checkSession(one, now).map((finding) => `${finding.level} ${finding.field}`);

describe('the sentence', () => {
	it('names who, what, which version, where, when, in which zone and for how long', () => {
		expect(sentence(facts())).toBe(
			'29 candidates of Watch A sit Tides and Currents (version 3) in the Chart Room on Tuesday 8 December at 09:00 GMT for 60 minutes, each from when they begin. The door opens at 08:45, last entry 09:15, and work can be begun until 10:15.'
		);
	});

	it('cannot be mistaken when it is no live session, and speaks of one as one', () => {
		const one = facts({
			kind: 'rehearsal',
			candidates: 1,
			groups: [
				{ name: 'Watch A', count: 1 },
				{ name: 'Evening', count: 0 }
			]
		});
		expect(sentence(one)).toMatch(/^Rehearsal, counting for nothing: 1 candidate of Watch A and Evening sits /);
		expect(sentence(facts({ kind: 'make_up' }))).toMatch(/^Make-up: 29 candidates/);
	});

	it('tells the other rules, and who has more time', () => {
		const one = facts(
			{ extraTime: { count: 2, lastEnds: at('10:30') } },
			{ clockStarts: 'room', atClose: 'cut', limitMinutes: null, lastEntryMinutes: null }
		);
		expect(sentence(one)).toContain(
			'with no time limit, all starting together. The door opens at 08:45, last entry 10:15, and work ends for everyone at 10:15. 2 have extra time; the last finishes by 10:30.'
		);
		expect(sentence(facts({ extraTime: { count: 1, lastEnds: null } }))).toMatch(/One has extra time\.$/);
	});

	it('tells time in the room’s zone, also in summer', () => {
		const summer = Date.parse('2026-07-01T08:00:00Z');
		const one = facts({ zone: 'Atlantic/Azores', window: { opens: summer, closes: summer + 75 * MINUTE } });
		expect(sentence(one)).toContain('on Wednesday 1 July at 08:00 GMT ');
	});
});

describe('what would go wrong on the day', () => {
	it('nothing, in a session that is right', () => expect(findings(facts())).toEqual([]));

	it.each<[string, SessionFacts, string]>([
		['nobody expected', facts({ candidates: 0 }), 'block who'],
		['a room that is too small', facts({ candidates: 31 }), 'block where'],
		['closing before opening', facts({ window: { opens: at('09:00'), closes: at('08:00') } }), 'block when'],
		['a window shorter than the limit that cuts', facts({}, { atClose: 'cut', limitMinutes: 90 }), 'block when'],
		[
			'extra time that the close would cut',
			facts({ extraTime: { count: 1, lastEnds: at('10:30') } }, { atClose: 'cut' }),
			'block when'
		],
		['last entry after the close', facts({}, { lastEntryMinutes: 200 }), 'warn door'],
		['latecomers to a common start', facts({}, { clockStarts: 'room' }), 'warn door'],
		['a limit that stops nobody', facts({}, { atTimeUp: 'flag' }), 'warn limit']
	])('%s', (_, one, found) => expect(findings(one)).toContain(found));

	it('a start that has passed: told when it is recent, refused when it is long ago', () => {
		expect(findings(facts(), at('09:30'))).toEqual(['warn when']);
		expect(findings(facts(), at('09:30') + 24 * 60 * MINUTE)).toEqual(['block when']);
	});
});
