import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { NEW_TRACK, NO_GRANTS, reckon, type TimingRules } from '../time';
import {
	DOOR_CODE_ALPHABET,
	DOOR_CODE_BITS,
	DOOR_CODE_LENGTH,
	doorCodeFrom,
	foldName,
	foldNumber,
	judgeEntry,
	readDoorCode,
	sameName,
	sameSecret,
	showDoorCode
} from '.';

describe('door code', () => {
	it('has 34 bits, from symbols of which no two look alike', () => {
		expect(DOOR_CODE_BITS).toBeCloseTo(34.0, 1);
		expect(new Set(DOOR_CODE_ALPHABET).size).toBe(29);
		// Pairs that are commonly taken for each other on paper and boards: common practice, no standard lists them.
		for (const pair of ['0O', '1I', '1L', 'IL', '2Z', '5S', '8B', 'UV']) {
			expect([...pair].filter((symbol) => DOOR_CODE_ALPHABET.includes(symbol)).length).toBeLessThanOrEqual(1);
		}
	});

	it('reads back whatever was typed for it, look-alikes, case, spaces and dashes included', () => {
		const lookalike: Record<string, string> = { '0': 'o', '1': 'l', '2': 'z', '5': 's', '8': 'b', V: 'u' };
		fc.assert(
			fc.property(fc.uint8Array({ minLength: 60, maxLength: 60 }), fc.boolean(), (bytes, careless) => {
				const code = doorCodeFrom(Uint8Array.from(bytes, (byte, i) => (byte + i * 37) % 256));
				expect(code).toHaveLength(DOOR_CODE_LENGTH);
				const typed = careless
					? [...code].map((symbol) => lookalike[symbol] ?? symbol.toLowerCase()).join(' ')
					: showDoorCode(code);
				expect(readDoorCode(typed)).toBe(code);
			})
		);
	});

	it('favours no symbol: every byte that counts maps evenly', () => {
		const counts = new Map<string, number>();
		for (let byte = 0; byte < 232; byte++) {
			const symbol = doorCodeFrom(new Uint8Array(DOOR_CODE_LENGTH).fill(byte))[0];
			counts.set(symbol, (counts.get(symbol) ?? 0) + 1);
		}
		expect(new Set(counts.values())).toEqual(new Set([8]));
		expect(() => doorCodeFrom(new Uint8Array(50).fill(240))).toThrow(RangeError);
	});

	it('compares secrets of any length', () => {
		fc.assert(
			fc.property(fc.string(), fc.string(), (a, b) => {
				expect(sameSecret(a, b)).toBe(a === b);
				expect(sameSecret(a, a)).toBe(true);
			})
		);
	});
});

describe('names', () => {
	it.each([
		['Åsa Lindqvist-Ó Briain', 'asa lindqvist o’briain'],
		['Łukasz Straße', 'LUKASZ STRASSE'],
		['D’Souza', 'd souza'],
		['Muñoz', 'Munoz'],
		['Sørensen', 'Sorensen'],
		['ﬁnch', 'FINCH']
	])('%s is %s', (a, b) => expect(sameName(a, b)).toBe(true));

	it('are not the same for being near, and nothing is nobody’s name', () => {
		expect(sameName('Reyes', 'Reyez')).toBe(false);
		expect(sameName('', ' - ')).toBe(false);
		expect(foldName('  ')).toBe('');
	});

	it('numbers are compared without their dashes and spaces', () => {
		expect(foldNumber('do 1043')).toBe(foldNumber('DO-1043'));
		expect(foldNumber('DO-1043')).not.toBe(foldNumber('DO-1034'));
	});
});

describe('the door', () => {
	const rules = { doorOpensMinutes: 5, lastEntryMinutes: 15, limitMinutes: 50, atClose: 'finish' } as TimingRules;
	const full: TimingRules = {
		...rules,
		clockStarts: 'candidate',
		clockStops: 'hold',
		graceMinutes: 0,
		atTimeUp: 'hand_in',
		warnAtMinutes: [],
		maxLimitMinutes: null
	};
	const at = (clock: string) => Date.parse(`2026-12-08T${clock}:00Z`);
	const entry = (clock: string, change: { begun?: boolean; ended?: boolean; own?: boolean } = {}) => {
		const grants = change.own ? { ...NO_GRANTS, window: { opens: at('15:00'), closes: at('16:00') } } : NO_GRANTS;
		const beganAt = change.begun ? at('13:16') : null;
		const track = { ...NEW_TRACK, beganAt, clockStartedAt: beganAt };
		const reckoning = reckon(full, { opens: at('13:15'), closes: at('14:15') }, grants, track, at(clock));
		const judged = judgeEntry({
			reckoning,
			begun: change.begun ?? false,
			sessionEnded: change.ended ?? false,
			now: at(clock)
		});
		return judged.ok ? 'in' : judged.code;
	};

	it('opens five minutes before and closes to newcomers fifteen after', () => {
		expect(['13:09', '13:10', '13:30', '13:31'].map((clock) => entry(clock))).toEqual([
			'door_closed',
			'in',
			'in',
			'past_last_entry'
		]);
	});

	it('lets back in whoever had begun, and nobody once the session has ended', () => {
		expect(entry('13:50', { begun: true })).toBe('in');
		expect(entry('13:20', { ended: true })).toBe('session_ended');
	});

	it('moves with an own window, which outlives the session', () => {
		expect(entry('13:20', { own: true })).toBe('door_closed');
		expect(entry('15:10', { own: true, ended: true })).toBe('in');
		expect(entry('15:16', { own: true, ended: true })).toBe('past_last_entry');
	});
});
