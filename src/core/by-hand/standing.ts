import { isMarkedTwice, markersFor, type HandPlan } from './plan';

/** A mark that a person gave and has not taken back, in the order in which they came. */
export type HandMark = { marker: string; points: number };

/**
 * Where an answer stands: who is to mark it, or what it comes to. `third`: two differ by more than the tolerance, and
 * neither of them decides.
 */
export type HandStanding =
	| { state: 'first' | 'second' | 'third'; next: string[]; points: null }
	| { state: 'settled'; next: []; points: number };

/**
 * One mark counts where one is asked for. Of two within the tolerance the mean counts (common practice); where they lie
 * further apart the third mark stands alone.
 */
export function handStanding(plan: HandPlan, questionId: string, sittingId: string, marks: HandMark[]): HandStanding {
	const order = markersFor(plan, questionId, sittingId);
	const done = marks.map(({ marker }) => marker);
	const others = order.filter((marker) => !done.includes(marker));
	const [first, second, third] = marks;
	if (!first) return { state: 'first', next: order.slice(0, 1), points: null };
	if (!second) {
		if (!isMarkedTwice(plan, questionId, sittingId)) return settled(first.points);
		return { state: 'second', next: others.slice(0, 1), points: null };
	}
	if (Math.abs(first.points - second.points) <= plan.tolerance + 1e-9)
		return settled((first.points + second.points) / 2);
	return third ? settled(third.points) : { state: 'third', next: others.slice(0, 1), points: null };
}

const settled = (points: number): HandStanding => ({ state: 'settled', next: [], points });
