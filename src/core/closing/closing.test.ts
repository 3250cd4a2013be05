import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { decide, evolve, newSitting, SITTING_STATES, type Context, type Sitting, type SittingState } from '../sitting';
import { WILLING } from '../sitting/willing';
import { addUp, commandsForFate, fateAtEnd, LEDGER_COLUMNS } from '.';

const sittingIn = (id: string, state: SittingState, change: Partial<Sitting> = {}): Sitting => ({
	...newSitting(id, 's1', 0),
	state,
	...change
});

describe('the ledger', () => {
	it('puts everyone in exactly one column, and adds up', () => {
		const anyRoom = fc.array(fc.constantFrom(...SITTING_STATES), { maxLength: 200 });
		fc.assert(
			fc.property(anyRoom, (states) => {
				const sittings = states.map((state, i) => sittingIn(`p${i}`, state));
				const ledger = addUp(
					sittings.map((sitting) => sitting.id),
					sittings
				);
				expect(ledger.addsUp).toBe(true);
				expect(LEDGER_COLUMNS.reduce((sum, column) => sum + ledger.columns[column].length, 0)).toBe(states.length);
			})
		);
	});

	it('says who is missing and who is counted twice', () => {
		const ledger = addUp(
			['a', 'b', 'c'],
			[sittingIn('a', 'handed_in'), sittingIn('a', 'absent'), sittingIn('x', 'time_up')]
		);
		expect(ledger).toMatchObject({
			addsUp: false,
			missing: ['b', 'c'],
			surplus: ['x', 'a'],
			expected: 3,
			accounted: 3
		});
	});
});

describe('what becomes of each at the end', () => {
	const context: Context = { ...WILLING, now: 10 };

	it.each<[SittingState, boolean, Partial<Sitting>, string]>([
		['expected', false, {}, 'absent'],
		['at_door', false, {}, 'absent'],
		['at_door', false, { beganAt: 1 }, 'carried_over'],
		['let_in', false, {}, 'carried_over'],
		['working', false, { beganAt: 1 }, 'carried_over'],
		['working', true, { beganAt: 1 }, 'time_up'],
		['on_hold', false, { beganAt: 1, heldFrom: 'working' }, 'carried_over'],
		['on_hold', false, { heldFrom: 'expected' }, 'absent'],
		['on_hold', false, { beganAt: 1, heldFrom: 'carried_over' }, 'carried_over'],
		['handed_in', true, { beganAt: 1 }, 'stays'],
		['absent', false, {}, 'stays'],
		['carried_over', false, {}, 'stays']
	])('%s (over: %s) %o: %s', (state, over, change, fate) => {
		const sitting = sittingIn('a', state, change);
		expect(fateAtEnd(sitting, over)).toBe(fate);
		let after = sitting;
		for (const [i, body] of commandsForFate(sitting, fateAtEnd(sitting, over), {
			receipt: 'R',
			reason: 'ended'
		}).entries()) {
			const decision = decide(
				after,
				{ ...body, id: `c${i}`, by: { role: 'system', id: 'sweep' } },
				{ ...context, over }
			);
			if (!decision.ok) throw new Error(decision.refusal.code);
			after = decision.events.reduce(evolve, after);
		}
		expect(after.state).toBe(fate === 'stays' ? state : fate);
	});
});
