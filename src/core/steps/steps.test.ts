import { describe, expect, it } from 'vitest';
import { standingOfStep, stepsFault, type Step, type StepDone } from '.';

const step = (id: string, change: Partial<Step> = {}): Step => ({
	id,
	title: id,
	paperTitle: id,
	afterId: null,
	leastPercent: null,
	...change
});
const oral = step('oral', { title: 'the oral', paperTitle: null });
const written = step('written', { afterId: 'oral' });
const second = step('second', { afterId: 'written', leastPercent: 50 });
const all = [oral, written, second];
const NOTHING: StepDone = { isDone: false, percent: null, isOpened: false };
const stands = (one: Step, done: Record<string, Partial<StepDone>>) =>
	standingOfStep(one, all, (id) => ({ ...NOTHING, ...done[id] }));

describe('parts in order', () => {
	it('the first is open; the next when the one before is done, also off the screen', () => {
		expect(stands(oral, {})).toEqual({ open: true });
		expect(stands(written, {})).toEqual({ open: false, why: 'First comes the oral.' });
		expect(stands(written, { oral: { isDone: true } })).toEqual({ open: true });
	});

	it('a minimum in an earlier paper is reached, not reached, or not known yet', () => {
		const after = (percent: number | null) => stands(second, { written: { isDone: true, percent } });
		expect(after(50)).toEqual({ open: true });
		expect(after((100 * 0.1 * 5) / 1)).toEqual({ open: true });
		expect(after(49.9)).toEqual({ open: false, why: 'It takes 50 % in written; 49 % were reached.' });
		expect(after(null)).toMatchObject({ open: false, why: expect.stringContaining('not known yet') });
	});

	it('what a person opened is open', () => {
		expect(stands(second, { second: { isOpened: true } })).toEqual({ open: true });
	});

	it('faults are told before anything is kept: an order that waits for itself, a paper twice, no name', () => {
		expect(stepsFault(all)).toBeNull();
		expect(stepsFault([written, oral])).toContain('Choose an earlier one');
		expect(stepsFault([step('a', { afterId: 'a' })])).toContain('Choose an earlier one');
		expect(stepsFault([step('a'), step('b', { paperTitle: 'a' })])).toContain('twice');
		expect(stepsFault([step('a', { title: ' ' })])).toContain('needs a name');
	});
});
