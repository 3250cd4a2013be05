import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { SITTING_STATES } from '../sitting';
import { owedFor, owedState, type Standing } from '.';

const NOW = Date.parse('2026-12-08T12:00:00Z');
const standing = (change: Partial<Standing> = {}): Standing => ({
	state: 'absent',
	allowsFresh: false,
	wasElsewhere: false,
	sessionEnded: true,
	ownWindowEnds: null,
	isWaived: false,
	...change
});

describe('who is owed a sitting', () => {
	it.each<[string, Partial<Standing>, string | null]>([
		['whoever was absent', {}, 'owed absent'],
		['whoever was carried over', { state: 'carried_over' }, 'owed carried_over'],
		['whoever was set aside to sit again', { state: 'set_aside', allowsFresh: true }, 'owed set_aside'],
		['nobody whose sitting was only set aside', { state: 'set_aside' }, null],
		['nobody who has handed in', { state: 'handed_in' }, null],
		['nobody who is expected for the first time', { state: 'expected', sessionEnded: false }, null],
		['whoever has a window to come: arranged', { ownWindowEnds: NOW + 1 }, 'arranged absent'],
		['whoever let their window pass: again', { ownWindowEnds: NOW }, 'owed absent'],
		[
			'whoever is in a make-up: arranged',
			{ state: 'expected', wasElsewhere: true, sessionEnded: false },
			'arranged absent'
		],
		[
			'whoever was carried over into a session to come: arranged',
			{ state: 'carried_over', wasElsewhere: true, sessionEnded: false },
			'arranged carried_over'
		],
		['whoever was absent from the make-up as well: again', { wasElsewhere: true }, 'owed absent'],
		['whoever was let off', { isWaived: true }, 'waived absent']
	])('is %s', (_, change, expected) => {
		const found = owedState(standing(change), NOW);
		expect(found && `${found.state} ${found.why}`).toBe(expected);
	});

	it('property: nobody who is at work or has ended, and whoever is absent or carried over is always told', () => {
		const any = fc.record({
			state: fc.constantFrom(...SITTING_STATES),
			allowsFresh: fc.boolean(),
			wasElsewhere: fc.boolean(),
			sessionEnded: fc.boolean(),
			ownWindowEnds: fc.option(fc.integer({ min: NOW - 9, max: NOW + 9 })),
			isWaived: fc.boolean()
		});
		fc.assert(
			fc.property(any, (one) => {
				const found = owedState(one, NOW);
				if (['at_door', 'let_in', 'working', 'on_hold', 'handed_in', 'time_up'].includes(one.state))
					expect(found).toBeNull();
				if (one.state === 'absent' || one.state === 'carried_over') expect(found).not.toBeNull();
			})
		);
	});

	it('tells for how long', () => {
		const day = 86_400_000;
		expect([0, day - 1, day, 3 * day + 5].map((age) => owedFor(NOW - age, NOW))).toEqual([
			'since today',
			'since today',
			'for 1 day',
			'for 3 days'
		]);
	});
});
