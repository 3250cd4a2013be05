import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { runs } from '../testing/runs';
import { SETTLING_MS, shortcutOf, type Around, type Pressed } from '.';

const KEYS = ['h', 'H', '3', '/', '?', 'é', ' ', 'Enter', 'Escape', 'Tab', 'ArrowLeft', 'ArrowDown', 'F5', 'Backspace'];
const pressed = fc.record<Pressed>({
	key: fc.constantFrom(...KEYS),
	isCombined: fc.boolean(),
	isRepeat: fc.boolean(),
	isComposing: fc.boolean()
});
const around = fc.record<Around>({
	focus: fc.constantFrom('page', 'item', 'choice', 'chooser', 'control', 'field'),
	isBeside: fc.boolean(),
	isCovered: fc.boolean(),
	changedMsAgo: fc.option(fc.integer({ min: 0, max: 3 * SETTLING_MS })),
	isOff: fc.boolean()
});
const CALM: Around = { focus: 'page', isBeside: false, isCovered: false, changedMsAgo: null, isOff: false };
const plain = (key: string, change: Partial<Pressed> = {}): Pressed => ({
	key,
	isCombined: false,
	isRepeat: false,
	isComposing: false,
	...change
});

describe('a shortcut', () => {
	it('is never asked for from within what has keys of its own', () => {
		fc.assert(
			fc.property(pressed, around, (key, at) => {
				const asked = shortcutOf(key, at);
				if (asked === null) return;
				expect([key.isCombined, key.isComposing, at.isBeside, at.isCovered]).toEqual([false, false, false, false]);
				expect(at.focus).not.toBe('field');
				if (at.focus === 'control') expect(asked).toBe('Escape');
				// A key that is held down only moves, among what it is on.
				if (key.isRepeat) expect([at.focus, asked.slice(0, 5)]).toEqual(['item', 'Arrow']);
				if (at.changedMsAgo !== null) expect(at.changedMsAgo).toBeGreaterThanOrEqual(SETTLING_MS);
				if (at.isOff) expect(asked.length === 1 && asked !== ' ').toBe(false);
				if (at.focus === 'chooser') expect([' ', 'Enter']).not.toContain(asked);
				if (at.focus === 'choice') expect(asked === ' ' || asked.startsWith('Arrow')).toBe(false);
			}),
			{ numRuns: runs(2_000) }
		);
	});

	it('is asked for on the page and on what the keys are about, large letters as small ones', () => {
		for (const focus of ['page', 'item'] as const)
			for (const key of KEYS)
				expect(shortcutOf(plain(key), { ...CALM, focus })).toBe(key.length === 1 ? key.toLowerCase() : key);
		expect(shortcutOf(plain('3'), { ...CALM, focus: 'choice' })).toBe('3');
	});

	it('in the calculator’s panel, behind a dialog or on a button is that thing’s own key', () => {
		expect(shortcutOf(plain('4'), { ...CALM, isBeside: true })).toBe(null);
		expect(shortcutOf(plain('3'), { ...CALM, isCovered: true })).toBe(null);
		expect(shortcutOf(plain(' '), { ...CALM, focus: 'control' })).toBe(null);
		expect(shortcutOf(plain('Enter'), { ...CALM, focus: 'control' })).toBe(null);
	});
});
