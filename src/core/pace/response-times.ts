/** One answer: whose question it is and how long that was in view, ms. */
export type TimedAnswer = { questionId: string; inViewMs: number };

/** How long a question took those who have answered it, ms in view. */
export type ResponseTimes = {
	questionId: string;
	answers: number;
	/** The shortest and longest, the quartiles between them. */
	shortest: number;
	lower: number;
	median: number;
	upper: number;
	longest: number;
	thresholdMs: number;
	/** Answers that came faster than the threshold. */
	rapid: number;
};

/**
 * The response times of each question, in the order of `thresholds`; a question that nobody has answered is left out.
 * @param thresholds by question, ms
 */
export function responseTimes(answers: TimedAnswer[], thresholds: Map<string, number>): ResponseTimes[] {
	const byQuestion = new Map<string, number[]>();
	for (const { questionId, inViewMs } of answers) {
		const times = byQuestion.get(questionId);
		if (times) times.push(inViewMs);
		else byQuestion.set(questionId, [inViewMs]);
	}
	return [...thresholds].flatMap(([questionId, thresholdMs]) => {
		const times = byQuestion.get(questionId)?.sort((a, b) => a - b);
		if (!times) return [];
		return {
			questionId,
			answers: times.length,
			shortest: times[0],
			lower: quantile(times, 0.25),
			median: quantile(times, 0.5),
			upper: quantile(times, 0.75),
			longest: times[times.length - 1],
			thresholdMs,
			rapid: times.filter((time) => time < thresholdMs).length
		};
	});
}

/**
 * The sample quantile that spreadsheets and statistics programs give unasked: definition 7 of Hyndman & Fan 1996,
 * a straight line between the two values around position `1 + (n − 1) p`.
 * @param sorted ascending, at least one value
 * @param p from 0 to 1
 */
export function quantile(sorted: number[], p: number): number {
	const position = (sorted.length - 1) * p;
	const below = Math.floor(position);
	const above = Math.min(sorted.length - 1, below + 1);
	return sorted[below] + (position - below) * (sorted[above] - sorted[below]);
}
