import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { DEFAULT_RULES } from '../session';
import { asEntered, minutesForAll, NEW_TRACK, NO_GRANTS, reckonQuestion, secondsEach, withWholeLimit } from '.';

const NINE = Date.parse('2026-12-08T09:00Z');
const SECOND = 1_000;
const rules = (questionSeconds: number | null, questions = 24) =>
	withWholeLimit({ timing: { ...DEFAULT_RULES.timing, limitMinutes: null, questionSeconds } }, questions).timing;
const begun = { ...NEW_TRACK, beganAt: NINE, clockStartedAt: NINE };

describe('a time for each question', () => {
	it('comes to a limit for the whole, with room for turning pages', () => {
		// 24 × (45 + 2) s = 18.8 min.
		expect(minutesForAll(45, 24)).toBe(19);
		expect(rules(45).limitMinutes).toBe(19);
		expect(asEntered({ timing: rules(45) }).timing).toMatchObject({ limitMinutes: null, questionSeconds: 45 });
		expect(rules(null).limitMinutes).toBeNull();
	});

	it('is multiplied by a factor for each question, not only for the whole', () => {
		expect(secondsEach(rules(60, 30), NO_GRANTS)).toBe(60);
		expect(secondsEach(rules(60, 30), { ...NO_GRANTS, factor: 1.5 })).toBe(Math.ceil((60 * 47) / 31));
		expect(secondsEach(rules(60, 30), { ...NO_GRANTS, unlimited: true })).toBeNull();
		// Ten minutes over 30 questions are 20 s each, as nearly as whole minutes allow.
		expect(secondsEach(rules(60, 30), { ...NO_GRANTS, extraMinutes: 10 })).toBeGreaterThanOrEqual(79);
	});

	it('never gives less than the factor, nor an end of the whole before that of the questions', () => {
		fc.assert(
			fc.property(
				fc.integer({ min: 10, max: 600 }),
				fc.integer({ min: 1, max: 120 }),
				fc.constantFrom(1, 1.1, 1.25, 1.5, 2),
				(seconds, questions, factor) => {
					const timing = { ...rules(seconds, questions), maxLimitMinutes: null };
					const each = secondsEach(timing, { ...NO_GRANTS, factor })!;
					expect(each).toBeGreaterThanOrEqual(Math.floor(seconds * factor));
					expect(Math.ceil(timing.limitMinutes! * factor) * 60).toBeGreaterThanOrEqual(
						Math.floor(questions * seconds * factor)
					);
				}
			)
		);
	});

	it('runs from when the question was shown; the first one’s from when it was on the screen', () => {
		const shown = { place: 0, at: NINE - 5 * SECOND };
		expect(reckonQuestion(rules(45), NO_GRANTS, begun, shown, NINE + 5 * SECOND)).toEqual({
			place: 0,
			ends: NINE + 45 * SECOND,
			remaining: 40 * SECOND
		});
		const later = { place: 7, at: NINE + 300 * SECOND };
		expect(reckonQuestion(rules(45), NO_GRANTS, begun, later, NINE + 400 * SECOND)).toMatchObject({ remaining: 0 });
	});

	it('is given back what a stop took, to the question it fell into and to no other', () => {
		const timing = { ...rules(45), clockStops: 'hold_or_lost' as const };
		const stop = { from: NINE + 310 * SECOND, to: NINE + 370 * SECOND, why: 'lost' as const };
		const track = { ...begun, stops: [stop] };
		const at = (shownAt: number) =>
			reckonQuestion(timing, NO_GRANTS, track, { place: 7, at: shownAt }, NINE + 380 * SECOND);
		expect(at(NINE + 300 * SECOND)).toMatchObject({ remaining: 25 * SECOND });
		expect(at(NINE + 375 * SECOND)).toMatchObject({ remaining: 40 * SECOND });
		const never = { ...timing, clockStops: 'never' as const };
		const shown = { place: 7, at: NINE + 300 * SECOND };
		expect(reckonQuestion(never, NO_GRANTS, track, shown, NINE + 380 * SECOND)).toMatchObject({ remaining: 0 });
	});
});
