import Fraction from 'fraction.js';

/**
 * Points as a fraction: thirds, fifths and tenths add up to what they are, in whatever order. What is kept is the number
 * nearest to it, from which the fraction is found again: the simplest one that this number stands for, as long as its
 * denominator is below ten million.
 */
export type Exact = Fraction;

/** The fraction that a number stands for: 0.1 is a tenth, 8.333333333333334 is twenty-five thirds. */
export const exact = (number: number): Exact => new Fraction(number);

/** `parts` of `whole`; 0 where there is nothing to share. */
export const shareOf = (parts: number, whole: number): Exact =>
	whole === 0 ? new Fraction(0) : exact(parts).div(exact(whole));

/** The number nearest to the sum of what these stand for. */
export const exactSum = (numbers: number[]): number =>
	numbers.reduce((sum, one) => sum.add(exact(one)), new Fraction(0)).valueOf();
