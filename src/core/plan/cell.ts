import { isOnBranch } from '../bank';
import { minutesNeeded, type Difficulty, type Question } from '../paper';

/** So many questions on a branch of topics, of a difficulty or (null) of any. */
export type PlanCell = { topic: string; difficulty: Difficulty | null; count: number };

/** What a plan needs to know of a question. */
export type Plannable = Pick<Question, 'id' | 'topic' | 'points'> & { difficulty: Difficulty | null; minutes: number };

/** What decides in which cell a question is. */
type Sorted = { topic: string; difficulty?: Difficulty | null };

/** What a plan needs to know of a question. */
export function plannable(question: Question): Plannable {
	const { id, topic, points, difficulty = null } = question;
	return { id, topic, points, difficulty, minutes: minutesNeeded(question) };
}

/** Whether a question is of the kind that a cell wants. */
export function fitsCell({ topic, difficulty }: Sorted, cell: PlanCell): boolean {
	return isOnBranch(topic, cell.topic) && (cell.difficulty === null || cell.difficulty === difficulty);
}

/** A cell in words: `2 easy on Tides / Heights`. */
export function cellInWords({ topic, difficulty, count }: PlanCell): string {
	return `${count}${difficulty ? ` ${difficulty}` : ''} ${topic === '' ? 'on any topic' : `on ${topic}`}`;
}

/**
 * How a paper stands to its plan: how many questions of each cell are there. A question counts in one cell only, in the
 * narrowest that wants it and is not met yet: one that names a difficulty before one that does not.
 */
export function met(questions: Sorted[], plan: PlanCell[]): number[] {
	const there = plan.map(() => 0);
	const depth = (topic: string) => (topic === '' ? 0 : topic.split(' / ').length);
	const width = ({ topic, difficulty }: PlanCell) => (difficulty === null ? 0 : 1) + 2 * depth(topic);
	const order = plan.map((_, i) => i).sort((a, b) => width(plan[b]) - width(plan[a]));
	for (const question of questions) {
		const fitting = order.filter((i) => fitsCell(question, plan[i]));
		const chosen = fitting.find((i) => there[i] < plan[i].count) ?? fitting[0];
		if (chosen !== undefined) there[chosen]++;
	}
	return there;
}
