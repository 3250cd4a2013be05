import { exact } from '../marking';

/**
 * A part of an administration in its order. One without a paper is off the screen: an oral, a class activity, which
 * somebody ticks as done.
 */
export type Step = {
	id: string;
	title: string;
	/** Of whatever version; null: off the screen. */
	paperTitle: string | null;
	/** The part that must be done before; null: none. */
	afterId: string | null;
	/** With at least so much of its points, where it is a paper; null: done is enough. */
	leastPercent: number | null;
};

/** What one candidate has done of a part. */
export type StepDone = {
	isDone: boolean;
	/** What they reached, from 0 to 100; null: it has no points, or they are not known yet. */
	percent: number | null;
	/** Somebody opened it for them, whatever came before. */
	isOpened: boolean;
};

export type StepStanding = { open: true } | { open: false; why: string };

/** Whether a part is open for a candidate, and if not, what is missing, as it is told to them and to staff. */
export function standingOfStep(step: Step, steps: Step[], done: (stepId: string) => StepDone): StepStanding {
	const before = steps.find((one) => one.id === step.afterId);
	if (!before || done(step.id).isOpened) return { open: true };
	const { isDone, percent } = done(before.id);
	if (!isDone) return { open: false, why: `First comes ${before.title}.` };
	const least = before.paperTitle === null ? null : step.leastPercent;
	if (least === null) return { open: true };
	if (percent === null)
		return { open: false, why: `It takes ${least} % in ${before.title}, whose result is not known yet.` };
	return exact(percent).compare(least) >= 0
		? { open: true }
		: { open: false, why: `It takes ${least} % in ${before.title}; ${Math.floor(percent)} % were reached.` };
}

/** What is wrong with the parts as they were entered; null: nothing. */
export function stepsFault(steps: Step[]): string | null {
	const places = new Map(steps.map((step, i) => [step.id, i]));
	if (places.size < steps.length) return 'Two parts have the same name behind the scenes. Load the page again.';
	const titles = new Set<string>();
	for (const [i, step] of steps.entries()) {
		if (step.title.trim() === '') return `Part ${i + 1} needs a name.`;
		if (step.paperTitle !== null && titles.has(step.paperTitle)) return `${step.paperTitle} stands there twice.`;
		if (step.paperTitle !== null) titles.add(step.paperTitle);
		if (step.afterId === null) continue;
		const before = places.get(step.afterId);
		// Each waits for an earlier one, so that no two wait for each other.
		if (before === undefined || before >= i)
			return `${step.title} waits for a part that does not come before it. Choose an earlier one.`;
	}
	return null;
}
