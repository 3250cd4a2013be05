import { describe, expect, it } from 'vitest';
import { proposeValidity, type SittingFacts } from '.';

const facts = (change: Partial<SittingFacts> = {}): SittingFacts => ({
	pace: 'calm',
	rapid: 0,
	questions: 20,
	leavings: 0,
	leavingsAllowed: 3,
	lateAnswers: 0,
	lostMs: 0,
	givenBackMs: 0,
	allottedMs: 3_600_000,
	reopened: 0,
	devices: 1,
	notes: [],
	incidents: [],
	...change
});

describe('what a result is worth, as proposed', () => {
	it.each<[string, Partial<SittingFacts>, string, string | null]>([
		['nothing happened', {}, 'valid', null],
		['rushed', { pace: 'spoiled', rapid: 7 }, 'doubtful', '7 of 20 answers'],
		['a few rapid answers are noted', { pace: 'watch', rapid: 2 }, 'valid', '2 answers came faster'],
		['late answers that count', { lateAnswers: 1 }, 'doubtful', '1 answer came after'],
		['a tenth of the time lost', { lostMs: 400_000 }, 'doubtful', '7 minutes'],
		['lost, and given back', { lostMs: 400_000, givenBackMs: 400_000 }, 'valid', null],
		['a little lost', { lostMs: 120_000 }, 'valid', '2 minutes'],
		['left more often than allowed', { leavings: 4 }, 'doubtful', '4 times'],
		['left, and nobody watched', { leavings: 4, leavingsAllowed: null }, 'valid', '4 times'],
		['two devices with one sign-in', { notes: ['second_line'] }, 'doubtful', 'two devices'],
		['conduct, undecided', { incidents: [{ kind: 'conduct', decision: null }] }, 'doubtful', 'not decided'],
		['conduct, nothing followed', { incidents: [{ kind: 'conduct', decision: 'nothing' }] }, 'valid', 'Conduct'],
		['an alarm, undecided', { incidents: [{ kind: 'alarm', decision: null }] }, 'valid', 'Alarm'],
		[
			'to be set aside',
			{ incidents: [{ kind: 'material', decision: 'set_aside' }], lateAnswers: 1 },
			'void',
			'set it aside'
		]
	])('%s', (_, change, verdict, reason) => {
		const proposed = proposeValidity(facts(change));
		expect(proposed.verdict).toBe(verdict);
		if (reason === null) expect(proposed.reasons).toEqual([]);
		else expect(proposed.reasons.map(({ words }) => words).join(' ')).toContain(reason);
	});
});
