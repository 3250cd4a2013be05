import { describe, expect, it } from 'vitest';
import { DEFAULT_RULES, scriptFor } from '.';

const NINE = Date.UTC(2026, 11, 8, 9);
const facts = (timing: Partial<typeof DEFAULT_RULES.timing> = {}, more: Partial<typeof DEFAULT_RULES> = {}) => ({
	rules: { ...DEFAULT_RULES, ...more, timing: { ...DEFAULT_RULES.timing, ...timing } },
	doorOpens: NINE - 15 * 60_000,
	opens: NINE,
	zone: 'Europe/London'
});
const all = (of: ReturnType<typeof scriptFor>) => [...of.steps, ...of.trouble.flatMap(({ lines }) => lines)].join(' ');

describe('the script of a room says what this session does', () => {
	it('its times and words', () => {
		const { steps, aloud } = scriptFor(
			facts({ limitMinutes: 60, lastEntryMinutes: 15 }, { startWord: 'halyard' }),
			null
		);
		expect(steps[0]).toContain('before 08:45');
		expect(steps.join(' ')).toContain('Nobody enters after 09:15');
		expect(steps.join(' ')).toContain('start word when all are ready: halyard');
		expect(aloud).toContain('60 minutes, from when you begin');
		expect(aloud).toContain('Wait until I let you in');
	});

	it('the time for each question, where each has one', () => {
		const { aloud } = scriptFor(facts({ limitMinutes: 19, questionSeconds: 45 }), null);
		expect(aloud).toContain(
			'45 seconds for each question; when they are up the next one comes. That is about 19 minutes'
		);
	});

	it('who lets in', () => {
		const automatic = scriptFor(facts({}, { admission: 'automatic' }), null);
		expect(all(automatic)).not.toContain('Let them in again');
		expect(automatic.aloud).not.toContain('let you in');
	});

	it.each([
		['never', 'The clock runs on during a hold', 'one press gives them back'],
		['hold', 'The clock stops during a hold', 'one press gives them back'],
		['hold_or_lost', 'The clock stops during a hold', 'stops until the connection is back']
	] as const)('what a hold and a lost connection cost when the clock stops %s', (clockStops, hold, lost) => {
		const text = all(scriptFor(facts({ clockStops }), null));
		expect(text).toContain(hold);
		expect(text).toContain(lost);
	});

	it('what the author of the paper wants read aloud goes before ours', () => {
		expect(scriptFor(facts(), 'Listen to the sea.').aloud).toBe('Listen to the sea.');
	});
});
